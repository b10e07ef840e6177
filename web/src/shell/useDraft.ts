import { useEffect, useRef, useState } from 'react';
import { newBurst } from '../document/identity.ts';

/** What is typed is kept after so long a pause. */
const PAUSE_MS = 1000;

const drafts = new Set<() => void>();

/** Keeps what stands in fields by now: whoever asks for outputs means that, too. */
export function keepDrafts(): void {
  for (const keep of drafts) keep();
}

interface Draft {
  value: string;
  onChange(e: { target: { value: string } }): void;
  onBlur(): void;
  /** Puts other words in the field, as if they had been typed. */
  put(text: string): void;
  /** What the field says has been kept in another way. */
  settle(): void;
}

/**
 * What somebody types into a field, before it is kept: that happens after a pause (not where `pauses` is off), when the field is
 * left, and when the screen or the window goes. What changes elsewhere is shown unless the field has words of its own by then.
 * `keep` gets one burst for all that is typed until the field is left, so that it is one step to undo.
 */
export function useDraft(kept: string, keep: (text: string, burst: string) => void, pauses = true): Draft {
  const [text, setText] = useState(kept);
  // What the document says, and what was last given to be kept: something else where that was refused.
  const now = useRef({ text: kept, kept, given: kept, keep, burst: '' });
  now.current.keep = keep;
  if (now.current.kept !== kept) {
    if (now.current.text === now.current.given) {
      now.current.text = kept;
      if (text !== kept) setText(kept);
    }
    now.current.kept = now.current.given = kept;
  }
  const flush = (): void => {
    const { current } = now;
    if (current.text === current.given) return;
    current.burst ||= newBurst();
    current.given = current.text;
    current.keep(current.text, current.burst);
  };
  useEffect(() => {
    if (!pauses || text === now.current.given) return undefined;
    const timer = setTimeout(flush, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [text, pauses]);
  useEffect(() => {
    const onHide = (): void => void (document.visibilityState === 'hidden' && flush());
    document.addEventListener('visibilitychange', onHide);
    window.addEventListener('pagehide', flush, { capture: true });
    drafts.add(flush);
    return () => {
      drafts.delete(flush);
      document.removeEventListener('visibilitychange', onHide);
      window.removeEventListener('pagehide', flush, { capture: true });
      flush();
    };
  }, []);
  const put = (next: string): void => {
    now.current.text = next;
    setText(next);
  };
  return {
    value: text,
    put,
    settle: () => void (now.current.given = now.current.text),
    onChange: (e) => put(e.target.value),
    onBlur: () => {
      flush();
      now.current.burst = '';
    },
  };
}
