import { expect, test } from '@jest/globals';
import { produce } from 'immer';
import { SURE, suggestRoles } from '../src/structure/suggestRoles.ts';
import { sample, SAMPLES } from './support/samples.ts';
import type { SampleId } from './support/samples.ts';
import { styledFolio } from './support/styledFolio.ts';

/** What the styles of a finished book mean, as its maker wrote it down, against what is worked out without that. */
async function compared(id: SampleId): Promise<{ right: string[]; wrong: string[] }> {
  const { folio } = await sample(id);
  const bare = produce(folio, (d) => {
    for (const style of [...Object.values(d.head.paragraphStyles), ...Object.values(d.head.characterStyles)]) delete style.role;
  });
  const out = { right: [] as string[], wrong: [] as string[] };
  for (const s of suggestRoles(bare)) {
    const style = s.kind === 'paragraph' ? folio.head.paragraphStyles[s.style]! : folio.head.characterStyles[s.style]!;
    if (!style.role || s.confidence < SURE) continue;
    const agrees = style.role.element === s.role.element && style.role.leaveOut === s.role.leaveOut;
    (agrees ? out.right : out.wrong).push(s.style);
  }
  return out;
}

test('the styles of a long book are told without help, but for what only its words tell', async () => {
  const { right, wrong } = await compared('observers-handbook');
  expect(right).toEqual(
    expect.arrayContaining([
      'bookTitle',
      'part',
      'chapter',
      'section',
      'step',
      'bullet',
      'extract',
      'figureCaption',
      'tableText',
      'tableHead',
      'pageNumber',
      'runningHead',
      'strong',
      'emphasis',
    ]),
  );
  // Notes are marked as such by where they stand; the caption of a table is one by its number; the front matter’s heads look like chapters.
  expect(wrong.sort()).toEqual(['bookLine', 'footnote', 'frontHead', 'tableCaption']);
});

test('of all the samples’ styles that it is sure of, two in three mean what their makers say', async () => {
  let [right, all] = [0, 0];
  for (const id of SAMPLES) {
    const found = await compared(id);
    right += found.right.length;
    all += found.right.length + found.wrong.length;
  }
  expect(right / all).toBeGreaterThan(2 / 3);
});

const LONG = 'The dome turns slowly in frost, and the wheels below it speak up one after another before the stars come out. '.repeat(3);

test('headings are told by size and by what follows, each with its reasons', () => {
  const folio = styledFolio({ body: { character: { size: 10 } }, big: { character: { size: 24 } }, mid: { character: { size: 15 } } }, [
    ['big', 'First'],
    ['mid', 'A part'],
    ['body', LONG],
    ['mid', 'Another'],
    ['body', LONG],
    ['big', 'Second'],
    ['body', LONG],
  ]);
  const found = new Map(suggestRoles(folio).map((s) => [s.style, s]));
  expect([found.get('big')!.role.element, found.get('mid')!.role.element, found.get('body')!.role.element]).toEqual(['h1', 'h2', 'p']);
  expect(found.get('big')!.role.startsSection).toBe(true);
  expect(found.get('big')!.reasons).toContain('240 % of the size of the text');
  expect(found.get('big')!.confidence).toBeGreaterThan(SURE);
});

test('large text that runs on is no heading, and small text that is heavy is none either', () => {
  const folio = styledFolio(
    { body: { character: { size: 10 } }, intro: { character: { size: 16 } }, tiny: { character: { size: 8, fontWeight: 700 } } },
    [
      ['intro', LONG],
      ['body', LONG + LONG],
      ['tiny', 'Words'],
    ],
  );
  for (const s of suggestRoles(folio)) expect(s.role.element).toBe('p');
});

test('a style that nothing is set in asks for a decision', () => {
  const folio = styledFolio({ body: {}, unused: {} }, [['body', LONG]]);
  expect(suggestRoles(folio).find((s) => s.style === 'unused')!.confidence).toBeLessThan(SURE);
});

test('a document without text has nothing to suggest', () => {
  expect(suggestRoles(styledFolio({ body: {} }, [['body', ' ']]))).toMatchObject([{ role: { element: 'p' } }]);
  expect(suggestRoles({ ...styledFolio({ body: {} }, [['body', ' ']]), stories: {} })).toEqual([]);
});
