import { create } from 'zustand';
import { z } from 'zod';
import { Clip, CopiedCues } from '@elastic-folio/core';

const Copied = z.discriminatedUnion('what', [
  z.object({ what: z.literal('items'), folio: z.string(), name: z.string(), clip: Clip }),
  z.object({ what: z.literal('cues'), folio: z.string(), name: z.string(), copied: CopiedCues }),
]);
/** What was copied last, out of which document, and what it is called. */
export type Copied = z.infer<typeof Copied>;

const KEY = 'folio.copied';

/** What another window, or an earlier visit, has left; what cannot be read is nothing. */
function kept(): Copied | null {
  try {
    return Copied.parse(JSON.parse(localStorage.getItem(KEY) ?? ''));
  } catch {
    return null;
  }
}

/** What is copied goes with the person from document to document, also between windows. */
export const useCopied = create<{ copied: Copied | null; copy: (what: Copied) => void }>((set) => {
  window.addEventListener('storage', (e) => e.key === KEY && set({ copied: kept() }));
  return {
    copied: kept(),
    copy: (copied) => {
      try {
        localStorage.setItem(KEY, JSON.stringify(copied));
      } catch {
        // Too large to be kept by the browser: it can be put down in this window only.
      }
      set({ copied });
    },
  };
});
