import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from '@playwright/test';

const source = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** Runs axe-core in a page and gives what it finds, briefly. */
export default class AxeBuilder {
  constructor(private readonly page: Page) {}

  async run(): Promise<{ id: string; impact: string | null; targets: string[] }[]> {
    await this.page.evaluate(source);
    return this.page.evaluate(async () => {
      const axe = (
        window as unknown as {
          axe: { run(): Promise<{ violations: { id: string; impact: string; nodes: { target: string[]; failureSummary?: string }[] }[] }> };
        }
      ).axe;
      return (await axe.run()).violations.map((v) => ({
        id: v.id,
        impact: v.impact,
        targets: v.nodes.map((n) => `${n.target.join(' ')}: ${n.failureSummary ?? ''}`).slice(0, 4),
      }));
    });
  }
}
