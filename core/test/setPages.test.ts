import { describe, expect, test } from '@jest/globals';
import { Composer } from '../src/compose/index.ts';
import { ledgerFile } from '../src/ledger/ledgerFile.ts';
import { LedgerEntry } from '../src/ledger/index.ts';
import { pagesAsSet } from '../src/ledger/setPages.ts';
import { subjectsOf } from '../src/ledger/subjects.ts';
import { fontsOf, sample } from './support/samples.ts';

describe('where a ledger says that something is', () => {
  test('paragraphs of a long text are told on the pages on which a line of them stands', async () => {
    const { folio } = await sample('observers-handbook');
    const composition = new Composer(await fontsOf(folio)).compose(folio);
    const pagesOf = pagesAsSet(folio, composition);
    const linesOn = new Map<string, Set<string>>();
    for (const frame of composition.frames.values()) {
      const { pages, items } = folio.spreads[frame.spread]!;
      // Its frames stand upright, each wholly on one page.
      const left = items[frame.item]?.transform[4];
      if (left === undefined) continue;
      const page = pages.find(({ box }) => box.x <= left && left < box.x + box.width)!.id;
      for (const line of frame.lines) linesOn.set(line.paragraph, (linesOn.get(line.paragraph) ?? new Set()).add(page));
    }
    let told = 0;
    for (const about of subjectsOf(folio)) {
      const pages = pagesOf(about);
      expect(about.pages).toEqual(expect.arrayContaining(pages));
      if (about.paragraph === undefined || !linesOn.has(about.paragraph)) continue;
      expect([...pages].sort()).toEqual([...linesOn.get(about.paragraph)!].sort());
      told++;
    }
    expect(told).toBeGreaterThan(3000);
  });

  test('the file has every entry, without what goes without saying', () => {
    const entry = LedgerEntry.parse({
      subject: { kind: 'page', id: 'p', aspect: 'size' },
      pages: ['p'],
      outcome: 'kept',
      code: 'kept',
      check: 'confirmed',
    });
    const adapted = { ...entry, outcome: 'adapted' as const, code: 'text.overset', values: { characters: 3 } };
    const counts = { kept: 1, adapted: 1, dropped: 0, excluded: 0, contradicted: 0, uncheckable: 0 };
    const text = ledgerFile({ output: 'pdf', valid: true, counts, entries: [entry, adapted] });
    const read = JSON.parse(text) as { entries: unknown[] };
    expect(read).toMatchObject({ output: 'pdf', valid: true, counts });
    expect(read.entries.map((e) => LedgerEntry.parse(e))).toEqual([entry, adapted]);
    expect(text).not.toContain('"values":{}');
    expect(text.split('\n')).toHaveLength(5);
  });
});
