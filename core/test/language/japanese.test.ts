import { beforeAll, describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { Composer } from '../../src/compose/index.ts';
import type { FontSet, SetLine } from '../../src/compose/index.ts';
import type { Folio, Inline, Paragraph } from '../../src/index.ts';
import { readText } from '../../src/folio/text.ts';
import { paintFlowing, paintLine } from '../../src/paint/html/paintLine.ts';
import { LookSheet } from '../../src/paint/html/styleSheet.ts';
import { asSample, fontsOf, make } from '../support/samples.ts';
import { tinyFolio } from '../support/tinyFolio.ts';

const TEXT = 'マロービー・ヒル天文台のドームは九トンあまりある。二十四の車輪の上に載り、車輪は環になったレールの上に載っている。';
const inJapanese = (folio: Folio): Folio => ({ ...folio, head: { ...folio.head, metadata: { ...folio.head.metadata, language: 'ja' } } });
const span = (text: string, more: object = {}): Inline => ({ type: 'span', text, ...more });

let fonts: FontSet;
beforeAll(async () => {
  fonts = await fontsOf(inJapanese(tinyFolio(['x'])));
});
const lines = (folio: Folio): SetLine[] => new Composer(fonts).compose(inJapanese(folio)).frames.get('f1')!.lines;

describe('letters that the font of a style has not', () => {
  test('an initial is set in the face that the rest of its text is set in', () => {
    const [first, second] = lines(tinyFolio([TEXT], { width: 160, height: 400, paragraph: { dropCapital: { lines: 3, characters: 1 } } }));
    const [initial, after] = first!.runs;
    expect([initial!.text, initial!.font.family]).toEqual(['マ', 'Zen Kaku Gothic New']);
    expect(initial!.font).toBe(after!.font);
    expect([...initial!.glyphs].map((g) => g.gid)).not.toContain(0);
    expect(second!.x).toBeGreaterThan(1);
  });

  test('an ideograph’s box reaches from the top of the first line’s to the bottom of the last’s (CSS Inline Layout 3, initial-letter-align)', () => {
    const [first] = lines(tinyFolio([TEXT], { width: 160, height: 400, paragraph: { dropCapital: { lines: 3, characters: 1 } } }));
    const [initial] = first!.runs;
    // Ten points of text on twelve: two lines further down. The box of an em lies 0.88 above the baseline and 0.12 below.
    expect(initial!.size).toBe(34);
    expect(initial!.shift - 0.88 * 34).toBeCloseTo(-8.8, 9);
    expect(initial!.shift + 0.12 * 34).toBeCloseTo(24 + 1.2, 9);
  });

  test('a face of one family stands in for all weights: the nearest', () => {
    const weights = [300, 400, 600, 700].map((fontWeight) => {
      const [run] = lines(tinyFolio(['星'], { character: { fontWeight } }))[0]!.runs;
      return [run!.font.family, run!.font.weight];
    });
    const family = 'Zen Kaku Gothic New';
    expect(weights).toEqual([
      [family, 400],
      [family, 400],
      [family, 700],
      [family, 700],
    ]);
  });
});

test.each([
  ['三月の空を', '読む', '三月の空を読む'],
  ['A walk', 'at twilight', 'A walk at twilight'],
  ['図', 'one', '図 one'],
  ['', '読む', ' 読む'],
])('a soft return between “%s” and “%s” is read as a space, but not between ideographs', (before, after, read) => {
  const content: Inline[] = [span(before), { type: 'softReturn' }, span(after)];
  expect(readText({ kind: 'paragraph', id: 'p', style: 'p', content } as Paragraph)).toBe(read);
});

describe('lines of several scripts in HTML', () => {
  const links = produce(
    tinyFolio([[span('ことは'), span('ドーム号', { link: 'a' }), span('と'), span('ドーム号の終わり', { link: 'b' }), span('にある。')]], {
      width: 400,
    }),
    (d) => {
      d.stories['t']!.links = {
        a: { id: 'a', destination: { to: 'page', page: 'pg' } },
        b: { id: 'b', destination: { to: 'address', href: 'https://marrowby.example/', window: 'same' } },
      };
    },
  );
  const context = (folio: Folio) => ({
    head: folio.head,
    looks: new LookSheet(folio.head.swatches),
    language: 'en',
    href: (link: string) => ({ href: `#${link}`, newWindow: false }),
  });

  test('kana and ideographs of one look are one piece of text', () => {
    const folio = tinyFolio(['丘の上のドームがまわる'], { width: 400 });
    const [line] = lines(folio);
    expect(line!.runs.length).toBeGreaterThan(3);
    expect(paintLine(line!, context(folio), false).match(/<span/g)).toHaveLength(1);
  });
  test('words in another look are a piece of their own', () => {
    const folio = tinyFolio([[span('丘の上の'), span('ドーム', { overrides: { fontWeight: 700 } }), span('がまわる')]], { width: 400 });
    const pieces = paintLine(lines(folio)[0]!, context(folio), false).match(/>[^<]+</g);
    expect(pieces).toEqual(['>丘の上の<', '>ドーム<', '>がまわる<']);
  });
  test.each([
    ['placed', paintLine],
    ['broken anew', paintFlowing],
  ])('a link is one link, not one for each script: lines %s', (_, paint) => {
    const found = paint(lines(links)[0]!, context(links), false).match(/<a .*?<\/a>/g)!;
    expect(found.map((a) => [/href="(.*?)"/.exec(a)![1], a.replace(/<[^>]*>/g, '')])).toEqual([
      ['#a', 'ドーム号'],
      ['#b', 'ドーム号の終わり'],
    ]);
  });
  test('a link whose words begin another is told from it when the output is read back', async () => {
    const { ledger } = await make(asSample(inJapanese(links)), 'html');
    const ofLinks = ledger.filter((e) => e.subject.kind === 'link');
    expect(ofLinks.map((e) => [e.subject.id, e.outcome, e.check])).toEqual([
      ['p1/a', 'kept', 'confirmed'],
      ['p1/b', 'kept', 'confirmed'],
    ]);
  });
});
