import type { Treatment } from '../ledger/entry.ts';
import type { SubjectInFolio } from '../ledger/subjects.ts';

/**
 * What an output will do with every subject of a document, known before anything is written. `Code` is the union of the codes that it
 * may use; a writer has a sentence for each of them.
 */
export type Plan<Code extends string = string> = (about: SubjectInFolio) => Treatment<Code>;

export const kept: Treatment<'kept'> = { outcome: 'kept', code: 'kept' };
const treatment =
  (outcome: Treatment['outcome']) =>
  <const Code extends string>(code: Code, values: Treatment['values'] = {}): Treatment<Code> => ({ outcome, code, values });
/** Left out on purpose, by the recipe or the document. */
export const excluded = treatment('excluded');
/** Not in the result, because the format or this program cannot hold it. */
export const dropped = treatment('dropped');
/** In the result in another way. */
export const adapted = treatment('adapted');

const WEIGHT: Record<Treatment['outcome'], number> = { kept: 0, adapted: 1, dropped: 2, excluded: 3 };

/**
 * One subject treated for several reasons: what takes most away stands first, all others are said beside it. Where everything else is
 * kept there is one reason, and none twice.
 */
export function together<Code extends string>(...all: readonly Treatment<Code>[]): Treatment<Code> {
  const [first, ...rest] = [...all].sort((a, b) => WEIGHT[b.outcome] - WEIGHT[a.outcome]) as [Treatment<Code>, ...Treatment<Code>[]];
  const also: { code: Code; values?: Record<string, string | number> }[] = [];
  const reasons = [...(first.also ?? []), ...rest.filter((t) => t.outcome !== 'kept').flatMap((t) => [t, ...(t.also ?? [])])];
  for (const { code, values } of reasons)
    if (![first, ...also].some((r) => r.code === code)) also.push({ code, ...(values && { values }) });
  return also.length ? { ...first, also } : first;
}
