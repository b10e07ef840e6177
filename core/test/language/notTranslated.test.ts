import { describe, expect, test } from '@jest/globals';
import { applyEdit, readText } from '../../src/index.ts';
import type { Edit, Folio, Paragraph } from '../../src/index.ts';
import { ChoiceOfTexts, goesOut, inEdition, Memory, analyse, newEdition, readable, unitsOf } from '../../src/language/index.ts';
import { asSample, writeOnly } from '../support/samples.ts';
import { codedFolio } from './support/codedFolio.ts';

const FOLIO: Folio = codedFolio(['Type open dome and press the key.', 'marrowby --open', 'Comet', 'Äther', 'Zenit']);
const after = (folio: Folio, ...edits: Edit[]): Folio => edits.reduce((f, e) => applyEdit(f, e).folio, folio);
const words = (from: number, to: number, translate = false): Edit => ({
  kind: 'words.translate',
  args: { story: 't', paragraph: 'p1', from, to, translate },
});
const texts = (folio: Folio): string[] => unitsOf(folio).flatMap((u) => (u.kind === 'text' ? [readable(u.parts)] : []));

describe('what is marked as not to be translated', () => {
  test('words are one code that translators cannot break; taken back, they are words again', () => {
    const kept = after(FOLIO, words(5, 14));
    expect(texts(kept)[0]).toBe('Type {1/} and press the key.');
    expect(unitsOf(kept).find((u) => u.id === 'p1')!.codes[0]!.shows).toBe('open dome');
    expect(texts(after(kept, words(5, 14, true)))[0]).toBe('Type open dome and press the key.');
  });
  test('paragraphs and everything in a style stay here', () => {
    const line: Edit = { kind: 'paragraph.translate', args: { story: 't', paragraph: 'p2', translate: false } };
    expect(texts(after(FOLIO, line))).not.toContain('marrowby --open');
    const style = (FOLIO.stories['t']!.blocks['p2'] as Paragraph).style;
    expect(texts(after(FOLIO, { kind: 'style.translate', args: { of: 'paragraph', style, translate: false } }))).toEqual([]);
  });
  test('the web edition and running text say so to programs that translate pages (WHATWG HTML, 3.2.6.5)', async () => {
    const kept = after(FOLIO, words(5, 14), { kind: 'paragraph.translate', args: { story: 't', paragraph: 'p2', translate: false } });
    const read = async (output: string): Promise<string> => {
      const files = await writeOnly(asSample(kept), output, {}, kept);
      return [...files].flatMap(([path, bytes]) => (/\.x?html$/.test(path) ? [new TextDecoder().decode(bytes)] : [])).join('\n');
    };
    const article = await read('article');
    expect(article).toMatch(/<span translate="no">open dome<\/span>/);
    expect(article).toMatch(/<p[^>]* translate="no"[^>]*>marrowby --open</);
    const placed = await read('html');
    expect(placed).toMatch(/<p[^>]* translate="no"/);
    expect(placed).toMatch(/<span[^>]* translate="no">open dome<\/span>/);
    expect((await read('article')).match(/translate="no"/g)).toHaveLength(2);
  });
});

test('a list that is marked as alphabetical is sorted by the rules of each language', () => {
  const list: Edit = { kind: 'list.alphabetical', args: { list: 'l', story: 't', entries: ['p3', 'p4', 'p5'] } };
  const order = (language: string): string[] => {
    const folio = { ...after(FOLIO, list), editions: { [language]: newEdition(language) } };
    const story = inEdition(folio, language).stories['t']!;
    return story.order.slice(2).map((id) => readText(story.blocks[id] as Paragraph));
  };
  // DIN 5007 has Ä beside A; Swedish has it behind Z (Unicode CLDR, collation).
  expect(order('de')).toEqual(['Äther', 'Comet', 'Zenit']);
  expect(order('sv')).toEqual(['Comet', 'Zenit', 'Äther']);
  expect(
    after(FOLIO, list, { kind: 'list.alphabetical', args: { list: 'l', story: 't', entries: null } }).head.structure.alphabetical,
  ).toEqual({});
});

test('documents that go out as one set are counted as one: what stood in one is repeated in the next', () => {
  const chosen = ChoiceOfTexts.parse({});
  const [one, other] = analyse([goesOut(FOLIO, chosen).units, goesOut(codedFolio(['Comet', 'Another text']), chosen).units], new Memory());
  // The title that both have, and the word.
  expect([one!.bands.repeated.words, other!.bands.repeated.words]).toEqual([0, 2]);
});
