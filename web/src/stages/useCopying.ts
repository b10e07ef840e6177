import { copyCues, copyItems } from '@elastic-folio/core';
import type { Cue, Spread } from '@elastic-folio/core';
import { useCopied } from '../document/copied.ts';
import { useDocument } from '../document/documentStore.ts';

interface Copying {
  items: (spread: Spread, ids: readonly string[], name: string) => void;
  cues: (cues: Cue[]) => void;
}

/** Copies items or cues of the open document, or says why they cannot be copied. */
export function useCopying(): Copying {
  const id = useDocument((s) => s.id)!;
  const folio = useDocument((s) => s.folio)!;
  const complain = useDocument((s) => s.complain);
  const copy = useCopied((s) => s.copy);
  return {
    items: (spread, ids, name) => {
      try {
        copy({ what: 'items', folio: id, name, clip: copyItems(folio, spread, ids) });
      } catch (error) {
        complain((error as Error).message);
      }
    },
    cues: (cues) => copy({ what: 'cues', folio: id, name: `${cues.length} of its cues`, copied: copyCues(folio, cues) }),
  };
}
