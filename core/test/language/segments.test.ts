import { describe, expect, test } from '@jest/globals';
import type { Folio, Inline } from '../../src/index.ts';
import { ChoiceOfTexts, cutUnit, fromReadable, goesOut, readable, shippedRules, unitsOf, wordsOf } from '../../src/language/index.ts';
import { sample } from '../support/samples.ts';
import { bold, codedFolio, plain, TAB, WRAP } from './support/codedFolio.ts';

/** The segments of the first paragraph, as people read them. */
function cutOf(content: Inline[], options: { sentences?: boolean; more?: (draft: Folio) => void } = {}): string[] {
  const folio = codedFolio([content], options.more);
  const unit = unitsOf(folio).find((u) => u.id === 'p1')!;
  return cutUnit(unit, options.sentences ? shippedRules() : null).segments.map((s) => readable(s.source));
}

describe('a paragraph becomes segments with codes', () => {
  test('at its end and at tabs; a soft return stays inside as a wrap mark', () => {
    expect(cutOf([plain('When the'), WRAP, plain('dome turns'), TAB, plain('page 3')])).toEqual(['When the{wrap}dome turns', 'page 3']);
  });

  test('formatting, links, fields and notes are numbered codes', () => {
    const content: Inline[] = [
      plain('Come '),
      bold('early'),
      plain(' and see '),
      plain('our pages', { link: 'site' }),
      { type: 'note', id: 'n1', kind: 'footnote', order: [] },
      plain(', page '),
      { type: 'field', id: 'f1', field: 'pageNumber' },
      plain('.'),
    ];
    expect(cutOf(content)).toEqual(['Come {1}early{/1} and see {2}our pages{/2}{3/}, page {4/}.']);
    const unit = unitsOf(codedFolio([content])).find((u) => u.id === 'p1')!;
    expect(unit.codes.map((c) => c.says)).toEqual(['bold', 'link to https://marrowby.example/', 'footnote', 'page number']);
  });

  test('spans that differ by nothing visible are one', () => {
    const same = plain('same ', { overrides: { fontWeight: 400 } });
    expect(cutOf([plain('The '), same, plain('look', { overrides: { size: 10 } })])).toEqual(['The same look']);
    // White space has no colour, and a bold one is as wide as a plain one to the eye.
    expect(cutOf([bold('One'), plain(' '), bold('two'), plain(' three four')])).toEqual(['{1}One two{/1} three four']);
    expect(cutOf([plain('Come '), bold('early '), plain('and stay')])).toEqual(['Come {1}early{/1} and stay']);
  });

  test('underlined white space is seen, and another size as well', () => {
    const line: Inline = plain(' ', { overrides: { underline: {} } });
    expect(cutOf([plain('a'), line, plain('b and more')])).toEqual(['a{1} {/1}b and more']);
  });

  test('the look of most of the words needs no code, nor does what is around all of a segment', () => {
    expect(cutOf([bold('Nearly all of it '), plain('but this'), bold(' is bold')])).toEqual(['Nearly all of it {1}but this{/1} is bold']);
    expect(cutOf([plain('A day'), TAB, bold('31 hours')])).toEqual(['A day', '31 hours']);
    expect(
      cutOf([plain('Bold: '), bold('One sentence. And two.'), plain(' Then a plain one, longer than those.')], { sentences: true }),
    ).toEqual(['Bold: {1}One sentence.{/1}', 'And two.', 'Then a plain one, longer than those.']);
  });

  test('a pair that is cut has a number of its own in each part', () => {
    expect(cutOf([plain('See '), bold('this. That'), plain(' is all there is to it.')], { sentences: true })).toEqual([
      'See {1}this.{/1}',
      '{3}That{/3} is all there is to it.',
    ]);
  });

  test('what is not to be translated is a code that shows its words; whole paragraphs and styles of that kind stay', () => {
    expect(cutOf([plain('The '), plain('Marrowby', { translate: false }), plain(' dome')])).toEqual(['The {1/} dome']);
    const inStyle = (draft: Folio): void =>
      void (draft.head.characterStyles['name'] = { id: 'name', name: 'Name', character: {}, translate: false });
    expect(cutOf([plain('The '), plain('Marrowby', { style: 'name' }), plain(' dome')], { more: inStyle })).toEqual(['The {1/} dome']);
    const folio = codedFolio(['One', 'Two'], (d) => {
      const p = d.stories['t']!.blocks['p2']!;
      if (p.kind === 'paragraph') p.translate = false;
    });
    expect(unitsOf(folio).map((u) => u.id)).toEqual(['meta:title', 'p1', 'link:t:site']);
  });

  test('a style with a meaning of its own is a code, though it looks the same', () => {
    const role = { element: 'cite' as const, startsSection: false, leaveOut: false };
    const cite = (draft: Folio): void => void (draft.head.characterStyles['cite'] = { id: 'cite', name: 'Cite', character: {}, role });
    expect(cutOf([plain('In '), plain('The Log', { style: 'cite' }), plain(' it says')], { more: cite })).toEqual([
      'In {1}The Log{/1} it says',
    ]);
  });

  test('readings above words are pairs, and their words are translated', () => {
    expect(cutOf([{ type: 'ruby', id: 'r', base: '空', reading: 'そら' }, plain('を見る')])).toEqual(['{1}空{/1}を見る']);
  });
});

describe('parts as people type them', () => {
  test.each([
    ['a {1}b{/1} {2/}{wrap}c', 'a {1}b{/1} {2/}{wrap}c'],
    ['{{1}} is no code', '{{1}} is no code'],
    ['line\nbreak', 'line{wrap}break'],
    ['{x} {0} {/1/}', '{{x}} {{0}} {{/1/}}'],
  ])('%s', (typed, back) => {
    expect(readable(fromReadable(typed))).toBe(back);
    expect(fromReadable(readable(fromReadable(typed)))).toEqual(fromReadable(typed));
  });
});

describe('what goes out', () => {
  const going = (folio: Folio, choice: Partial<ChoiceOfTexts>): { ids: string[]; stays: Record<string, string> } => {
    const out = goesOut(folio, ChoiceOfTexts.parse(choice));
    const stays = out.stays.filter((s) => s.unit.id !== 'link:t:site').map((s) => [s.unit.id, s.because]);
    return { ids: out.units.map((u) => u.id), stays: Object.fromEntries(stays) };
  };

  test('alone numbers stay, unless asked; repeated texts go once, where asked', () => {
    const folio = codedFolio(['12 + 7', 'Again', 'Again']);
    expect(going(folio, {}).stays).toEqual({ p1: 'onlyNumbers' });
    expect(going(folio, { onlyNumbers: 'in', repeated: 'first' }).stays).toEqual({ p3: 'repeatedBefore' });
  });

  test('passages in other languages, pages and styles are told apart', () => {
    const folio = codedFolio(['Here', 'Dort'], (d) => {
      const p = d.stories['t']!.blocks['p2']!;
      if (p.kind === 'paragraph') p.character = { language: 'de' };
    });
    expect(going(folio, { otherLanguages: 'out' }).stays).toEqual({ p2: 'otherLanguages' });
    expect(going(folio, { styles: 'Text', metadata: 'in' }).ids).toEqual(['p1', 'p2']);
    expect(() => going(folio, { styles: 'Nothing' })).toThrow('no paragraph style');
    expect(() => going(folio, { strands: 'Nothing' })).toThrow('no strand');
    expect(() => going(folio, { pages: '7' })).toThrow('pages 1 to 1');
  });

  test('the Almanac: each kind stays by its own choice, and nothing else changes', async () => {
    const { folio } = await sample('marrowby-almanac');
    const all = going(folio, { hiddenLayers: 'in', linkTargets: 'in', onlyNumbers: 'in' });
    expect(Object.values(all.stays).every((because) => because === 'nothing')).toBe(true);
    for (const choice of ['altTexts', 'metadata', 'notes', 'masters', 'captions'] as const) {
      const without = going(folio, { hiddenLayers: 'in', linkTargets: 'in', onlyNumbers: 'in', [choice]: 'out' });
      const gone = all.ids.filter((id) => !without.ids.includes(id));
      expect([choice, gone.length > 0, gone.every((id) => without.stays[id] === choice)]).toEqual([choice, true, true]);
    }
    const hidden = going(folio, {}).stays;
    expect(Object.values(hidden)).toContain('hiddenLayers');
    // “Figure 3” and “Chapter 2” are numbers by themselves: their words are in no text that goes out.
    const handbook = (await sample('observers-handbook')).folio;
    expect(unitsOf(handbook).some((u) => /^(Figure|Chapter|Table) \d/.test(wordsOf(u.parts)))).toBe(false);
  });
});
