import { describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { Folio } from '../src/index.ts';
import { asSample, make } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';
import { text } from './support/webFaults.ts';

const SENTENCES = Array.from({ length: 30 }, (_, i) => `Evening ${i + 1} of thirty on the hill, and the dome still turns.`);

/** A text of thirty paragraphs in a frame with room for a few. */
const tooLong = (columns = 1): Folio =>
  Folio.parse(
    produce(tinyFolio(SENTENCES), (d) => {
      for (const spread of Object.values(d.spreads))
        for (const item of Object.values(spread.items))
          if (item.kind === 'textFrame') {
            item.size.height = 60;
            item.columns = columns;
          }
    }),
  );

const edition = async (folio: Folio, settings: object) => {
  const made = await make(asSample(folio), 'html', { ...settings }, folio);
  return { made, html: await text(made, 'index.html') };
};
const last = SENTENCES.at(-1)!.replaceAll(' ', '');
const said = (html: string): string => html.replace(/<[^>]+>|\s|\u00ad/g, '');

describe('a text that does not fit', () => {
  test('is cut off where nothing else is asked for, and said so', async () => {
    const { made, html } = await edition(tooLong(), {});
    expect(said(html)).not.toContain(last);
    expect(made.ledger.some((e) => e.code === 'text.overflow' && e.outcome === 'dropped')).toBe(true);
  });

  test.each(['live', 'flowing'])('goes on below its frame, %s: all of it is there, read back, and said how much it is', async (how) => {
    const { made, html } = await edition(tooLong(), { overset: 'shown', text: how });
    expect(said(html)).toContain(last);
    expect(made.ledger.filter((e) => e.check === 'contradicted')).toEqual([]);
    expect(made.valid).toBe(true);
    const over = made.ledger.find((e) => e.code === 'text.overset')!;
    expect([over.outcome, over.subject.kind]).toEqual(['adapted', 'story']);
    expect(made.ledger.some((e) => e.code === 'text.overflow')).toBe(false);
  });

  test('is scrolled to in its frame, whose size stays; keys reach it (WCAG 2.2, 2.1.1)', async () => {
    const { made, html } = await edition(tooLong(), { overset: 'scroll' });
    expect(said(html)).toContain(last);
    expect(html).toMatch(/<div class="col" style="[^"]*height:80px;overflow:hidden auto" tabindex="0">/);
    expect(made.valid).toBe(true);
  });

  test('in columns is left as it is, since a longer first column would take what is in the others', async () => {
    const { made, html } = await edition(tooLong(2), { overset: 'shown' });
    expect(said(html)).not.toContain(last);
    expect(made.ledger.some((e) => e.code === 'text.overflow')).toBe(true);
    expect(made.valid).toBe(true);
  });

  test('does not touch texts that fit', async () => {
    const fits = tinyFolio(['x']);
    expect((await edition(fits, { overset: 'scroll' })).html).toBe((await edition(fits, {})).html);
  });
});
