import { randomUUID } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { pagesOf, targetPages } from '@elastic-folio/core';
import type { Folio, PagePlace } from '@elastic-folio/core';
import { FolioError } from '@elastic-folio/core/node';
import { readSettings, writerById } from '@elastic-folio/core/write';
import type { LoadedFolio } from '@elastic-folio/core/read';
import type { ConversionPool } from '../conversion/pool.ts';
import type { DocumentStore } from '../documents/documentStore.ts';
import { sent } from './runInput.ts';
import type { RunnerPaths } from './runner.ts';

/** As many are kept as a few people look at; older ones go. */
const KEPT = 8;
/** Pages before and after the one that settings are looked at on: enough for a spread and the way on. */
const AROUND = 2;

/** Pages played while they are being worked on: made as the web edition makes them, kept for a while, never shown on the shelf. */
export class Rehearsals {
  private readonly kept: string[] = [];

  constructor(
    private readonly documents: DocumentStore,
    private readonly pool: ConversionPool,
    private readonly paths: RunnerPaths,
  ) {}

  has(id: string): boolean {
    return this.kept.includes(id);
  }

  /** Makes one page, with those before and after it and those that its cues lead to; gives the name of its folder of results. */
  async make(id: string, page: number): Promise<{ rehearsal: string; anchor: string }> {
    return this.made(id, page, (folio, place) => ({
      settings: { gap: 0 },
      pages: [page, page - 1, page + 1, ...targetPages(folio, place)],
    }));
  }

  /** Makes the pages around one by the settings of a recipe, so that their effect is seen. */
  async view(id: string, page: number, settings: Record<string, unknown>): Promise<{ rehearsal: string; anchor: string }> {
    const around = Array.from({ length: AROUND * 2 + 1 }, (_, i) => page - AROUND + i);
    return this.made(id, page, () => ({ settings, pages: around }));
  }

  private async made(
    id: string,
    page: number,
    what: (folio: Folio, place: PagePlace) => { settings: Record<string, unknown>; pages: number[] },
  ): Promise<{ rehearsal: string; anchor: string }> {
    const { folio, files, library = [], others = new Map<string, LoadedFolio>() } = await this.documents.loaded(id);
    const place = pagesOf(folio)[page - 1];
    if (!place) throw new FolioError('page.none', 'There is no such page any more.', 'Choose another page.');
    const { settings, pages } = what(folio, place);
    const numbers = new Set(pages.filter((n) => pagesOf(folio)[n - 1]));
    const rehearsal = randomUUID();
    const folder = join(this.paths.results, rehearsal);
    const writer = writerById('html')!;
    const { outcome } = this.pool.convert(
      {
        folio,
        files: [...files],
        library,
        others: sent(others),
        memory: [],
        output: writer.id,
        settings: readSettings(writer, {
          version: writer.version,
          name: writer.label,
          settings: { ...settings, pages: [...numbers].sort((a, b) => a - b).join(', ') },
        }),
        folder,
        blobs: this.paths.blobs,
        derived: this.paths.derived,
        player: this.paths.player,
        at: new Date().toISOString(),
      },
      () => undefined,
    );
    const made = await outcome;
    if ('failure' in made) throw new FolioError(made.failure.code, made.failure.message, made.failure.advice);
    this.kept.push(rehearsal);
    for (const old of this.kept.splice(0, Math.max(0, this.kept.length - KEPT)))
      await rm(join(this.paths.results, old), { recursive: true, force: true });
    return { rehearsal, anchor: `page-${page}` };
  }
}
