import { same } from '@elastic-folio/core';
import type { Patch } from '@elastic-folio/core';

/** Whether two lists of patches do the same, in whatever order their values keep their keys. */
export const samePatches = (a: readonly Patch[], b: readonly Patch[]): boolean =>
  a.length === b.length &&
  a.every((p, i) => {
    const q = b[i]!;
    return p.op === q.op && p.path.join('/') === q.path.join('/') && same(p.value, q.value);
  });
