import { baseKeymap } from 'prosemirror-commands';
import { keymap } from 'prosemirror-keymap';
import type { Node } from 'prosemirror-model';
import { EditorState, Plugin, PluginKey, TextSelection } from 'prosemirror-state';
import type { Transaction } from 'prosemirror-state';
import { Decoration, DecorationSet, EditorView } from 'prosemirror-view';
import type { Edit, Folio, Story } from '@elastic-folio/core';
import { OUTSIDE, transactionTo } from './outsideChange.ts';
import { editable, schema, storyToDoc } from './proseSchema.ts';
import { editsOfTransaction } from './proseToEdits.ts';
import type { TextWindow } from './textWindow.ts';

/** What a view of a text does with the document and with keys. */
export interface StoryViewPorts {
  folio(): Folio | null;
  /** The editor is not typed into any more. */
  left(): void;
  /** Changes the document; false where that is impossible. */
  change(edits: Edit[], burst: string): boolean;
  newBurst(): string;
  undo(): void;
  redo(): void;
  /** Leaves the text. */
  leave(): void;
}

/** Keystrokes closer together than this are undone together. */
const BURST_MS = 1200;
/** A burst is a step that can be undone: one that never pauses ends all the same. */
const LONGEST_BURST_MS = 60_000;

/** The text of a story in a standard editor: what is done in it becomes edits, and what changes elsewhere is followed. */
export class StoryView {
  private readonly view: EditorView;
  private burst = { id: '', began: 0, at: -Infinity };

  constructor(
    host: HTMLElement,
    private readonly storyId: string,
    window: TextWindow,
    private readonly ports: StoryViewPorts,
  ) {
    const folio = ports.folio()!;
    this.view = new EditorView(host, {
      state: EditorState.create({
        doc: storyToDoc(folio.head, folio.stories[storyId]!, idsIn(folio.stories[storyId]!, window)),
        plugins: plugins(ports),
      }),
      attributes: { 'aria-label': 'Text of this frame', role: 'textbox', 'aria-multiline': 'true', lang: folio.head.metadata.language },
      dispatchTransaction: (tr) => this.dispatch(tr),
    });
  }

  destroy(): void {
    this.view.destroy();
  }

  /** Shows another part of the text. */
  show(window: TextWindow): void {
    this.showIds((story) => idsIn(story, window));
  }

  /** Shows the text as the document has it, after it was changed elsewhere. */
  follow(): void {
    this.showIds((story) => idsBetween(story, this.view.state.doc));
  }

  private showIds(idsOf: (story: Story) => string[]): void {
    const folio = this.ports.folio();
    const story = folio?.stories[this.storyId];
    const ids = story ? idsOf(story) : [];
    if (!folio || !story || !ids.length) return;
    const tr = transactionTo(this.view.state, storyToDoc(folio.head, story, ids));
    if (tr) this.view.dispatch(tr);
  }

  /** Brings a paragraph into sight, where nobody is typing. */
  reveal(paragraph: string): void {
    if (this.view.hasFocus()) return;
    this.view.state.doc.forEach((node, pos) => {
      if (node.attrs['id'] === paragraph) (this.view.nodeDOM(pos) as HTMLElement | null)?.scrollIntoView({ block: 'nearest' });
    });
  }

  private dispatch(tr: Transaction): void {
    this.view.updateState(this.view.state.apply(tr));
    if (!tr.docChanged || tr.getMeta(OUTSIDE)) return;
    const { edits, from, ids } = editsOfTransaction(this.storyId, tr, () => crypto.randomUUID());
    if (!edits.length || this.ports.change(edits, this.burstNow())) this.name(from, ids);
    // It cannot be done: what is shown is what the document has.
    else this.follow();
  }

  /** Gives paragraphs the ids that they have in the document. */
  private name(from: number, ids: readonly string[]): void {
    const { doc, tr } = this.view.state;
    let pos = 0;
    for (let i = 0; i < from; i++) pos += doc.child(i).nodeSize;
    ids.forEach((id, i) => {
      const node = doc.child(from + i);
      if (node.attrs['id'] !== id) tr.setNodeMarkup(pos, undefined, { ...node.attrs, id });
      pos += node.nodeSize;
    });
    if (tr.docChanged) this.view.dispatch(tr.setMeta(OUTSIDE, true));
  }

  private burstNow(): string {
    const now = performance.now();
    if (now - this.burst.at > BURST_MS || now - this.burst.began > LONGEST_BURST_MS)
      this.burst = { id: this.ports.newBurst(), began: now, at: now };
    this.burst.at = now;
    return this.burst.id;
  }
}

const idsIn = (story: Story, { from, to }: TextWindow): string[] => editable(story).slice(from, to);

/** The paragraphs from the first that is shown to the last; where one of them went, as many from where it was. */
function idsBetween(story: Story, doc: Node): string[] {
  const all = editable(story);
  const indices = new Map(all.map((id, i) => [id, i]));
  const known: number[] = [];
  doc.forEach((node) => known.push(indices.get(node.attrs['id'] as string) ?? -1));
  const found = known.filter((i) => i >= 0);
  if (!found.length) return all.slice(0, doc.childCount);
  const first = known[0]! >= 0 ? known[0]! : 0;
  const last = known[known.length - 1]! >= 0 ? known[known.length - 1]! : Math.min(all.length - 1, first + doc.childCount - 1);
  return all.slice(Math.min(first, found[0]!), Math.max(last, found[found.length - 1]!) + 1);
}

const plugins = (ports: StoryViewPorts): Plugin[] => [
  keymap({
    'Mod-z': () => (ports.undo(), true),
    'Mod-y': () => (ports.redo(), true),
    'Mod-Shift-z': () => (ports.redo(), true),
    Escape: () => (ports.leave(), true),
    'Shift-Enter': (state, dispatch) => {
      dispatch?.(state.tr.replaceSelectionWith(schema.node('softReturn')).scrollIntoView());
      return true;
    },
  }),
  keymap(baseKeymap),
  keptSelection(ports),
];

const AWAY = new PluginKey<boolean>('away');

/** Shows the selection where the editor is not focused as well: it is what the controls beside it work on. */
const keptSelection = (ports: StoryViewPorts): Plugin<boolean> =>
  new Plugin({
    key: AWAY,
    state: { init: () => false, apply: (tr, away: boolean) => (tr.getMeta(AWAY) as boolean | undefined) ?? away },
    props: {
      decorations(state) {
        const { from, to, empty } = state.selection;
        const shown = AWAY.getState(state) && !empty && state.selection instanceof TextSelection;
        return shown ? DecorationSet.create(state.doc, [Decoration.inline(from, to, { class: 'kept-selection' })]) : null;
      },
      handleDOMEvents: {
        blur(view) {
          view.dispatch(view.state.tr.setMeta(AWAY, true));
          ports.left();
        },
        focus: (view) => void view.dispatch(view.state.tr.setMeta(AWAY, false)),
      },
    },
  });
