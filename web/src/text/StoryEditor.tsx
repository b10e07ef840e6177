import { useEffect, useMemo, useRef, useState } from 'react';
import { Button } from 'antd';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { editable } from './proseSchema.ts';
import { StoryView } from './storyView.ts';
import { grown, windowAround } from './textWindow.ts';

/**
 * The text of a story beside the page; every keystroke becomes an edit, and the page is set anew. Long texts are shown in part:
 * what stands in the chosen frame (`at` is its first paragraph) and around it.
 */
export function StoryEditor({ storyId, at }: { storyId: string; at: string | null }) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<StoryView | null>(null);
  const order = useDocument((s) => s.folio?.stories[storyId]?.order);
  const ids = useMemo(() => {
    const story = useDocument.getState().folio?.stories[storyId];
    return order && story ? editable(story) : [];
  }, [order, storyId]);
  const [range, setRange] = useState(() => windowAround(ids.length, Math.max(0, ids.indexOf(at ?? ''))));
  const ranged = useRef(range);

  useEffect(() => {
    const shown = new StoryView(host.current!, storyId, ranged.current, {
      folio: () => useDocument.getState().fresh(),
      left: () => void useDocument.getState().fresh(),
      change: (edits, burst) => useDocument.getState().type(edits, burst),
      newBurst,
      undo: () => void useDocument.getState().undoStep(),
      redo: () => void useDocument.getState().redoStep(),
      leave: leaveText,
    });
    view.current = shown;
    // Undo, and what others write, changes the story beneath the editor.
    const stop = useDocument.subscribe((state, before) => state.outside !== before.outside && shown.follow());
    return () => {
      stop();
      shown.destroy();
      view.current = null;
    };
  }, [storyId]);

  useEffect(() => {
    if (at === null) return;
    const index = ids.indexOf(at);
    if (index < 0) return;
    if (index < ranged.current.from || index >= ranged.current.to) show(windowAround(ids.length, index));
    view.current?.reveal(at);
    // Only another frame brings another place, not a paragraph that came or went.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [at]);

  const show = (next: typeof range): void => {
    ranged.current = next;
    setRange(next);
    view.current?.show(next);
  };
  const later = ids.length - range.to;
  return (
    <>
      {range.from > 0 && (
        <Button size="small" type="text" onClick={() => show(grown(range, ids.length, 'start'))}>
          Earlier text ({range.from} {range.from === 1 ? 'paragraph' : 'paragraphs'})
        </Button>
      )}
      <div className="story-editor" ref={host} />
      {later > 0 && (
        <Button size="small" type="text" onClick={() => show(grown(range, ids.length, 'end'))}>
          Later text ({later} {later === 1 ? 'paragraph' : 'paragraphs'})
        </Button>
      )}
    </>
  );
}

/** Gives the keys back to the pages. */
function leaveText(): void {
  document.querySelector<HTMLElement>('.table')?.focus();
}
