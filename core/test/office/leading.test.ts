import { beforeAll, describe, expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { produce } from 'immer';
import { Composer } from '../../src/compose/index.ts';
import type { SetLine } from '../../src/compose/marks.ts';
import { resolveParagraph } from '../../src/index.ts';
import type { Folio, Inline, Paragraph } from '../../src/index.ts';
import { subjectKey } from '../../src/ledger/index.ts';
import { hasSeveral, leadingFor } from '../../src/write/office/leading.ts';
import type { LeadingChoice } from '../../src/write/office/leading.ts';
import { asSample, fontsOf, make } from '../support/samples.ts';
import { tinyFolio } from '../support/tinyFolio.ts';

const span = (text: string, overrides?: object): Inline => ({ type: 'span', text, ...(overrides && { overrides }) }) as Inline;
const turn: Inline = { type: 'softReturn' };

/** Three lines set 12, 12 and 18 points apart. */
const three = tinyFolio([[span('one'), turn, span('two'), turn, span('three', { leading: 18 })]]);
/** Large letters on a leading that lets them reach into the line above: 30-point letters, lines 12 points apart. */
const tight = tinyFolio([[span('small'), turn, span('Large', { size: 30, leading: 14 })]]);

async function linesOf(folio: Folio): Promise<SetLine[]> {
  const composition = new Composer(await fontsOf(folio)).compose(folio);
  return [...composition.frames.values()].flatMap((f) => f.lines).filter((l) => l.paragraph === 'p1');
}
const styleOf = (folio: Folio) => resolveParagraph(folio.head, folio.stories['t']!.blocks['p1'] as Paragraph);

describe('one distance for lines that have several', () => {
  let lines: SetLine[];
  beforeAll(async () => {
    lines = await linesOf(three);
  });
  // Worked by hand: (12 + 12 + 18) / 3 is 14, and letters of 10 points need less.
  const WORKED: [LeadingChoice, number][] = [
    ['safe', 14],
    ['even', 14],
    ['tightest', 12],
    ['loosest', 18],
    ['opening', 12],
  ];
  test.each(WORKED)('%s: %s points', (choice, points) => {
    const found = leadingFor(lines, styleOf(three), undefined, choice);
    expect(found).toEqual({ points, least: 12, most: 18 });
    expect(hasSeveral(found)).toBe(true);
  });
  test('the mean keeps the height of all lines together', () => {
    const { points } = leadingFor(lines, styleOf(three), undefined, 'even');
    expect(points * 3).toBe(12 + 12 + 18);
  });
  test('where letters would reach into the line above, the lines move apart, no further than the layout ever has them', async () => {
    const tightLines = await linesOf(tight);
    const even = leadingFor(tightLines, styleOf(tight), undefined, 'even').points;
    const safe = leadingFor(tightLines, styleOf(tight), undefined, 'safe').points;
    expect(even).toBe(13);
    expect(safe).toBe(14);
  });
  test('lines on a grid stand whole steps of it apart', () => {
    const onGrid = { ...styleOf(three), paragraph: { ...styleOf(three).paragraph, alignToGrid: true } };
    expect(leadingFor(lines, onGrid, { start: 0, step: 15 }, 'tightest')).toEqual({ points: 15, least: 15, most: 30 });
  });
  test('equal lines need no choice', async () => {
    const plain = tinyFolio(['one line and another, since there are many words in it and the measure is short']);
    expect(hasSeveral(leadingFor(await linesOf(plain), styleOf(plain), undefined, 'safe'))).toBe(false);
  });
  test.each([
    ['docx', 'kept'],
    ['pptx', 'font.byName'],
    ['odt', 'font.byName'],
    ['odp', 'font.byName'],
  ])('the ledger of %s says what was chosen', async (output, otherwise) => {
    const { ledger } = await make(asSample(three), output, {});
    expect(ledger.find((e) => subjectKey(e.subject) === 'paragraph:p1:look')).toMatchObject({
      outcome: 'adapted',
      code: 'leading.one',
      values: { least: 12, most: 18, points: 14 },
    });
    const even = produce(three, (d) => void ((d.stories['t']!.blocks['p1'] as Paragraph).content = [span('one')]));
    const { ledger: same } = await make(asSample(even), output, {});
    expect(same.find((e) => subjectKey(e.subject) === 'paragraph:p1:look')?.code).toBe(otherwise);
  });
});

test.each(['odt', 'odp'])(
  'in files of the open standard (%s) a paragraph has the distance that was chosen, others that of their style',
  async (output) => {
    const heights = async (folio: typeof three, leading: string): Promise<string[]> => {
      const made = await make(asSample(folio), output, { leading });
      const xml = new TextDecoder().decode(unzipSync(await made.read(`document.${output}`))['content.xml']);
      return [...xml.matchAll(/fo:line-height="([\d.]+)pt"/g)].map((m) => m[1]!);
    };
    expect(await heights(three, 'tightest')).toEqual([]);
    expect(await heights(three, 'loosest')).toEqual(['18']);
    expect(await heights(three, 'even')).toEqual(['14']);
  },
);
