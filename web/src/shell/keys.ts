import { useEffect } from 'react';

const typing = (target: EventTarget | null): boolean =>
  target instanceof Element && target.closest('input,textarea,select,[contenteditable=true]') !== null;

/** Keys of a screen; plain letters are left alone while somebody types (WCAG 2.1.4). */
export function useKeys(bindings: Record<string, (e: KeyboardEvent) => void>): void {
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      const name = `${e.ctrlKey || e.metaKey ? 'mod+' : ''}${e.altKey && e.key.length > 1 ? 'alt+' : ''}${e.shiftKey && e.key.length > 1 ? 'shift+' : ''}${e.key.length === 1 ? e.key.toLowerCase() : e.key}`;
      const shifted = e.shiftKey && (e.ctrlKey || e.metaKey) && e.key.length === 1 ? name.replace('mod+', 'mod+shift+') : name;
      const binding = bindings[shifted];
      if (!binding || typing(e.target)) return;
      e.preventDefault();
      binding(e);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [bindings]);
}
