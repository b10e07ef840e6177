import { useEffect, useRef } from 'react';
import { baseKeymap } from 'prosemirror-commands';
import { keymap } from 'prosemirror-keymap';
import { EditorState, TextSelection } from 'prosemirror-state';
import { EditorView } from 'prosemirror-view';
import type { Story } from '@elastic-folio/core';
import { newBurst, useDocument } from '../document/documentStore.ts';
import { schema, storyToDoc } from './proseSchema.ts';
import { proseToEdits } from './proseToEdits.ts';

/** Keystrokes closer together than this are undone together. */
const BURST_MS = 1200;

/** The text of a story beside the page; every keystroke becomes an edit, and the page is set anew. */
export function StoryEditor({ storyId }: { storyId: string }) {
  const host = useRef<HTMLDivElement>(null);
  const outside = useDocument((s) => s.outside);
  const view = useRef<EditorView | null>(null);

  useEffect(() => {
    const element = host.current!;
    let burst = { id: newBurst(), at: 0 };
    const story = (): Story | undefined => useDocument.getState().folio?.stories[storyId];
    const { folio } = useDocument.getState();
    const current = story();
    if (!folio || !current) return undefined;
    const softReturn = (state: EditorState, dispatch?: (tr: EditorState['tr']) => void): boolean => {
      dispatch?.(state.tr.replaceSelectionWith(schema.node('softReturn')).scrollIntoView());
      return true;
    };
    const undoKeys = {
      'Mod-z': () => (void useDocument.getState().undoStep(), true),
      'Mod-y': () => (void useDocument.getState().redoStep(), true),
      'Mod-Shift-z': () => (void useDocument.getState().redoStep(), true),
    };
    const editor = new EditorView(element, {
      state: EditorState.create({
        doc: storyToDoc(folio.head, current),
        plugins: [keymap(undoKeys), keymap({ 'Shift-Enter': softReturn }), keymap(baseKeymap)],
      }),
      attributes: {
        'aria-label': 'Text of this frame',
        role: 'textbox',
        'aria-multiline': 'true',
        lang: folio.head.metadata.language,
      },
      dispatchTransaction(tr) {
        let state = editor.state.apply(tr);
        editor.updateState(state);
        const now = story();
        if (!tr.docChanged || !now || tr.getMeta('ids')) return;
        const { edits, ids } = proseToEdits(now, state.doc, () => crypto.randomUUID());
        const stamp = performance.now();
        if (stamp - burst.at > BURST_MS) burst = { id: newBurst(), at: stamp };
        burst.at = stamp;
        if (edits.length) useDocument.getState().change(edits, burst.id);
        const naming = state.tr.setMeta('ids', true);
        let i = 0;
        state.doc.forEach((node, pos) => {
          const id = ids[i++];
          if (id !== undefined && node.attrs['id'] !== id) naming.setNodeMarkup(pos, undefined, { ...node.attrs, id });
        });
        if (naming.docChanged) {
          state = state.apply(naming);
          editor.updateState(state);
        }
      },
    });
    view.current = editor;
    return () => {
      editor.destroy();
      view.current = null;
    };
  }, [storyId]);

  // Undo, and what others write, changes the story beneath the editor: it is shown anew, the cursor kept near its place.
  useEffect(() => {
    const editor = view.current;
    const { folio } = useDocument.getState();
    const story = folio?.stories[storyId];
    if (!editor || !story || !proseToEdits(story, editor.state.doc, () => 'x').edits.length) return;
    const doc = storyToDoc(folio.head, story);
    const at = Math.min(editor.state.selection.from, doc.content.size);
    const next = EditorState.create({ doc, plugins: editor.state.plugins });
    editor.updateState(next.apply(next.tr.setSelection(TextSelection.near(doc.resolve(at)))));
  }, [outside, storyId]);

  return <div className="story-editor" ref={host} />;
}
