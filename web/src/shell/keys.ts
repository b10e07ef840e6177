import { useEffect } from 'react';

type Run = (e: KeyboardEvent) => void;
/** What a key does; `inText`: also while somebody types, for keys with a modifier that types nothing. */
export type Binding = Run | { inText: true; run: Run };

const typing = (target: EventTarget | null): boolean =>
  target instanceof Element && target.closest('input,textarea,select,[contenteditable=true]') !== null;

/** Key presses that a screen has answered: several screens may, each for itself. */
const answered = new WeakSet<KeyboardEvent>();

/** Keys of a screen; plain letters are left alone while somebody types (WCAG 2.1.4). */
export function useKeys(bindings: Record<string, Binding>): void {
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      const name = `${e.ctrlKey || e.metaKey ? 'mod+' : ''}${e.altKey && e.key.length > 1 ? 'alt+' : ''}${e.shiftKey && e.key.length > 1 ? 'shift+' : ''}${e.key.length === 1 ? e.key.toLowerCase() : e.key}`;
      const shifted = e.shiftKey && (e.ctrlKey || e.metaKey) && e.key.length === 1 ? name.replace('mod+', 'mod+shift+') : name;
      const binding = bindings[shifted];
      if (!binding) return;
      // What a text has taken for itself is done; editors hold back keys as well that they do nothing with.
      if (typeof binding === 'function' && (typing(e.target) || (e.defaultPrevented && !answered.has(e)))) return;
      e.preventDefault();
      answered.add(e);
      if (typeof binding === 'function') binding(e);
      else binding.run(e);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [bindings]);
}
