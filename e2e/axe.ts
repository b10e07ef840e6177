import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from '@playwright/test';

const source = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** Runs axe-core in a page and gives what it finds, briefly. */
export default class AxeBuilder {
  constructor(private readonly page: Page) {}

  /**
   * @param part Whether the page is a part of a book: then it needs no heading of the first level and no main landmark of its
   *   own, which are good practice for whole pages and no rules of WCAG (as checkers of e-books hold it; common practice).
   */
  async run(part = false): Promise<{ id: string; impact: string | null; targets: string[] }[]> {
    await this.page.evaluate(source);
    const found = await this.look(part);
    if (!found.length) return found;
    // A button that becomes free while it is looked at has neither colour; what is wrong is so a second later, too.
    await this.page.waitForTimeout(1000);
    return this.look(part);
  }

  private async look(part: boolean): Promise<{ id: string; impact: string | null; targets: string[] }[]> {
    await this.atRest();
    const off = part ? ['landmark-one-main', 'page-has-heading-one', 'region'] : [];
    return this.page.evaluate(async (rules) => {
      const axe = (
        window as unknown as {
          axe: {
            run(
              o: object,
            ): Promise<{ violations: { id: string; impact: string; nodes: { target: string[]; failureSummary?: string }[] }[] }>;
          };
        }
      ).axe;
      return (await axe.run({ rules: Object.fromEntries(rules.map((r) => [r, { enabled: false }])) })).violations.map((v) => ({
        id: v.id,
        impact: v.impact,
        targets: v.nodes.map((n) => `${n.target.join(' ')}: ${n.failureSummary ?? ''}`).slice(0, 4),
      }));
    }, off);
  }

  /** Waits until what fades or changes colour has done so, for two seconds at most; what goes on for ever is looked at as it is. */
  private async atRest(): Promise<void> {
    await this.page.evaluate(async () => {
      const ends = document
        .getAnimations()
        .filter((a) => a.playState === 'running' && Number(a.effect?.getComputedTiming().endTime ?? 0) < 2000)
        .map((a) => a.finished);
      await Promise.race([Promise.allSettled(ends), new Promise((done) => setTimeout(done, 2000))]);
    });
  }
}
