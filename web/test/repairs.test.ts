import { describe, expect, test } from '@jest/globals';
import { applyEdit } from '@elastic-folio/core';
import type { Folio } from '@elastic-folio/core';
import { styledFolio } from '../../core/test/support/styledFolio.ts';
import { repairOf } from '../src/stages/repairs.ts';

/** Headings of these levels, each over a text of its own; what has no meaning yet is set larger, the first of them most. */
function headings(...elements: (string | null)[]): Folio {
  const styles = elements.map((element, i) =>
    element === null ? { character: { size: 30 - 6 * i } } : { character: { size: 10 }, role: { element } },
  );
  return styledFolio(
    { ...Object.fromEntries(styles.map((s, i) => [`Style-${i}`, s])), body: { character: { size: 10 } } },
    elements.flatMap((_, i): [string, string][] => [
      [`Style-${i}`, `Number ${i}`],
      ['body', 'Words enough to be a text. '.repeat(20)],
    ]),
  );
}
const after = (folio: Folio, code: string): string[] => {
  const repair = repairOf({ code, says: '' } as never, folio)!;
  const mended = repair.edits.reduce((f, e) => applyEdit(f, e).folio, folio);
  return [repair.label, ...Object.values(mended.head.paragraphStyles).map((s) => s.role?.element ?? '')];
};

describe('the repair of headings', () => {
  test('that skip a level closes the gap', () => {
    expect(after(headings('h1', 'h4', 'h6'), 'heading.skip')).toEqual(['Close the gap', 'h1', 'h2', 'h3', '']);
  });
  test('that begin below the first level begins them there', () => {
    expect(after(headings('h3', 'h4'), 'heading.none')).toEqual(['Close the gap', 'h1', 'h2', '']);
  });
  test('where there are none makes one of the style that looks like it', () => {
    expect(after(headings(null, 'p'), 'heading.none')).toEqual(['Make “Style-0” the first level', 'h1', 'p', '']);
  });
  test('is none where nothing looks like a heading', () => {
    expect(repairOf({ code: 'heading.none', says: '' } as never, headings('p'))).toBeNull();
  });
});
