import { describe, expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { produce } from 'immer';
import { applyEdit, readText, takeCorrections } from '../../src/index.ts';
import type { Corrections, Folio, Paragraph } from '../../src/index.ts';
import { changedDocx, corrections } from '../support/changedDocx.ts';
import { asSample, make, SAMPLES, sample } from '../support/samples.ts';
import { tinyFolio } from '../support/tinyFolio.ts';
import { ofToday } from '../support/ofToday.ts';

/** The way back from text documents of placed boxes, in both formats: their boxes hold all of a text, or the parts that each shows. */
const FORMATS = [
  ['docx', 'word/document.xml'],
  ['odt', 'content.xml'],
] as const;
const NOTHING: Corrections = { corrections: [], added: [], gone: [] };
const APART = { linked: 'apart', fields: 'text', masters: 'page' };

describe.each(FORMATS)('%s as laid out', (output, main) => {
  const written = async (folio: Folio, settings: object = {}): Promise<Uint8Array> =>
    (await make(asSample(folio), output, { way: 'laid', resolution: 36, ...settings })).read(`document.${output}`);
  const changed = async (folio: Folio, settings: object, work: (xml: string) => string): Promise<Corrections> =>
    corrections(folio, changedDocx(await written(folio, settings), work, main));

  describe('that nobody has changed brings nothing back', () => {
    test.each(ofToday(SAMPLES, 1))('%s', async (id) => {
      const s = await sample(id);
      for (const settings of [{}, APART]) {
        const made = await make(s, output, { way: 'laid', resolution: 36, ...settings });
        expect(await corrections(s.folio, await made.read(`document.${output}`))).toEqual(NOTHING);
      }
    });
  });

  const LONG = Array.from(
    { length: 12 },
    (_, i) => `Paragraph ${i + 1} of a text that goes on and on, so that it fills more than one frame of this page, and ends in ${i}s.`,
  );
  const chained = tinyFolio(LONG, { width: 200, height: 120, frames: 3 });
  const cut = (xml: string): string[] => [...xml.matchAll(/Paragraph (\d+) of/g)].map((m) => m[1]!);

  test('words of a text of several boxes are other words', async () => {
    const found = await changed(chained, {}, (xml) => xml.replace('Paragraph 4 of a text', 'Paragraph 4 of a story'));
    expect(found).toMatchObject({ added: [], gone: [], corrections: [{ paragraph: 'p4', after: LONG[3]!.replace('text', 'story') }] });
  });

  test('of a paragraph in two boxes, words of both parts come back as one correction, in their places', async () => {
    const bytes = await written(chained, { linked: 'apart' });
    const xml = new TextDecoder().decode(unzipSync(bytes)[main]);
    // One whose end stands in another box than its beginning: its words are nowhere whole.
    const number = cut(xml).find((n) => !xml.includes(LONG[Number(n) - 1]!))!;
    expect(number).toBeDefined();
    const found = await changed(chained, { linked: 'apart' }, (now) =>
      now
        .replace(`Paragraph ${number} of`, `Paragraph number ${number} of`)
        .replace(` ends in ${Number(number) - 1}s.`, ` stops in ${Number(number) - 1}s.`),
    );
    const after = LONG[Number(number) - 1]!.replace('Paragraph', 'Paragraph number').replace('ends in', 'stops in');
    expect(found).toMatchObject({ added: [], gone: [], corrections: [{ paragraph: `p${number}`, after }] });
    const now = takeCorrections(chained, found.corrections).reduce((f, e) => applyEdit(f, e).folio, chained);
    expect(readText(now.stories['t']!.blocks[`p${number}`] as Paragraph)).toBe(after);
    expect(now.spreads).toEqual(chained.spreads);
  });

  test('a part whose words are others here by now is told as new: where it stood is not known', async () => {
    const bytes = await written(chained, { linked: 'apart' });
    const xml = new TextDecoder().decode(unzipSync(bytes)[main]);
    const number = cut(xml).find((n) => !xml.includes(LONG[Number(n) - 1]!))!;
    const here = produce(chained, (d) => {
      const block = d.stories['t']!.blocks[`p${number}`] as Paragraph;
      block.content = [{ type: 'span', text: 'Written anew.' }] as Paragraph['content'];
    });
    const found = await corrections(
      here,
      changedDocx(bytes, (now) => now.replace(`Paragraph ${number} of`, `Section ${number} of`), main),
    );
    expect(found.corrections).toEqual([]);
    expect(found.added.some((a) => a.after === `p${number}` && a.text.startsWith(`Section ${number} of`))).toBe(true);
  });

  test('notes after their text, and the numbers of both, are what they are; words of a note come back', async () => {
    const noted = produce(
      tinyFolio([
        [
          { type: 'span', text: 'Words' },
          { type: 'note', id: 'n', kind: 'footnote', order: ['np'] },
          { type: 'span', text: ' go on.' },
        ],
      ] as never),
      (d) => {
        const story = d.stories['t']!;
        story.blocks['np'] = { ...(story.blocks['p1'] as object), id: 'np', content: [{ type: 'span', text: 'The note.' }] } as never;
      },
    );
    expect(await corrections(noted, await written(noted))).toEqual(NOTHING);
    const found = await changed(noted, {}, (xml) => xml.replace('The note.', 'A better note.'));
    expect(found.corrections).toMatchObject([{ paragraph: 'np', after: 'A better note.' }]);
  });

  test('a box that is gone takes its text with it', async () => {
    const two = tinyFolio(['First words of the page.', 'Other words.']);
    const found = await changed(two, {}, (xml) =>
      output === 'docx'
        ? xml.replace(/<w:txbxContent>.*?<\/w:txbxContent>/gs, '<w:txbxContent><w:p/></w:txbxContent>')
        : xml.replace(/<draw:text-box>.*?<\/draw:text-box>/gs, '<draw:text-box/>'),
    );
    expect(found).toMatchObject({ corrections: [], gone: [{ paragraph: 'p1' }, { paragraph: 'p2' }] });
  });

  test('what a colleague writes in a box of their own is new', async () => {
    const found = await changed(tinyFolio(['First words of the page.']), {}, (xml) =>
      output === 'docx'
        ? xml.replace('</w:txbxContent>', '<w:p><w:r><w:t>Written by hand.</w:t></w:r></w:p></w:txbxContent>')
        : xml.replace('</draw:text-box>', '<text:p>Written by hand.</text:p></draw:text-box>'),
    );
    expect(found).toMatchObject({ corrections: [], gone: [], added: [{ after: 'p1', text: 'Written by hand.' }] });
  });
});
