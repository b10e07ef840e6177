import { applyPatches, enablePatches, produceWithPatches, setAutoFreeze } from 'immer';
import type { Patch } from 'immer';
import type { Folio } from '../folio/folio.ts';
import { same } from '../folio/same.ts';
import { Head } from '../folio/head.ts';
import { Spread } from '../folio/spread.ts';
import { Story } from '../folio/story.ts';
import { EDITS } from './edits.ts';
import type { Edit } from './edits.ts';

enablePatches();
// Documents are megabytes of JSON: freezing them after each keystroke would cost more than the edit.
setAutoFreeze(false);

export type { Patch };

export interface Applied {
  folio: Folio;
  patches: Patch[];
  inverse: Patch[];
  /** Ids of what the edit changed, for telling whether two edits meet. */
  touched: string[];
}

/** Applies a named edit. Throws a ZodError on wrong arguments, a TextEditError where it cannot be done. */
export function applyEdit(folio: Folio, edit: Edit): Applied {
  const definition = EDITS.find((e) => e.kind === edit.kind);
  if (!definition) throw new Error(`Unknown edit "${edit.kind}"`);
  const args = definition.args.parse(edit.args) as never;
  const within = paragraphTypedIn(folio, edit);
  const [next, patches, inverse] = produceWithPatches(within?.alone ?? folio, (draft) => definition.run(draft as Folio, args));
  checkTouched(next, patches);
  return { folio: within ? within.putBack(next) : next, patches, inverse, touched: touchedBy(patches) };
}

/**
 * A change inside one paragraph is worked out on that paragraph alone: in a long book, looking through all of
 * the others and copying the table of them by immer would take longer than setting the text again.
 */
function paragraphTypedIn(folio: Folio, edit: Edit): { alone: Folio; putBack: (next: Folio) => Folio } | null {
  if (edit.kind !== 'text.replace') return null;
  const { story: storyId, from, to, newIds } = edit.args;
  const id = from.paragraphId;
  const story = folio.stories[storyId];
  const block = story?.blocks[id];
  if (!story || block?.kind !== 'paragraph' || to.paragraphId !== id || newIds.length) return null;
  const alone = { ...folio, stories: { [storyId]: { ...story, blocks: { [id]: block }, order: [id] } } };
  const putBack = (next: Folio): Folio => {
    const typed = next.stories[storyId]!.blocks[id]!;
    if (typed === block) return folio;
    // Pins go with the words they stand behind.
    return {
      ...folio,
      head: next.head,
      stories: { ...folio.stories, [storyId]: { ...story, blocks: withBlock(story.blocks, id, typed) } },
    };
  };
  return { alone, putBack };
}

const keysOf = new WeakMap<object, string[]>();

/** A table of blocks with one of them replaced. Copied key by key from a list kept of them: three times as fast as a spread. */
function withBlock(blocks: Story['blocks'], id: string, block: Story['blocks'][string]): Story['blocks'] {
  const keys = keysOf.get(blocks) ?? Object.keys(blocks);
  const copy: Story['blocks'] = {};
  for (const key of keys) copy[key] = blocks[key]!;
  copy[id] = block;
  keysOf.set(copy, keys);
  return copy;
}

/** Puts a whole document in another's place: what is the same stays as it is, the rest is replaced part by part. */
export function replaceDocument(before: Folio, after: Folio): Applied {
  const [folio, patches, inverse] = produceWithPatches(before, (draft) => {
    const head = draft.head as Record<string, unknown>;
    for (const key of new Set([...Object.keys(before.head), ...Object.keys(after.head)]))
      put(head, key, (before.head as Record<string, unknown>)[key], (after.head as Record<string, unknown>)[key]);
    for (const kind of ['spreads', 'stories', 'editions', 'recipes'] as const)
      for (const id of new Set([...Object.keys(before[kind]), ...Object.keys(after[kind])]))
        put(draft[kind] as Record<string, unknown>, id, before[kind][id], after[kind][id]);
  });
  return { folio, patches, inverse, touched: touchedBy(patches) };
}

function put(holder: Record<string, unknown>, key: string, before: unknown, after: unknown): void {
  // A database gives keys back in an order of its own.
  if (same(before, after)) return;
  if (after === undefined) delete holder[key];
  else holder[key] = after;
}

/** Applies patches from the log: another window's edit, or an inverse. */
export const applyLogged = (folio: Folio, patches: Patch[]): Folio => applyPatches(folio, patches);

/**
 * Ids an edit touched: for every patch the deepest keyed entity on its path. A list beside keyed
 * entities (an order) counts as an entity of its own, so two people may write in two paragraphs.
 */
export function touchedBy(patches: readonly Patch[]): string[] {
  const touched = new Set<string>();
  for (const { path } of patches) {
    const [part, id, ...rest] = path.map(String);
    if (part === 'head') touched.add(headEntity([id!, ...rest]));
    else if (rest[0] === 'blocks' || rest[0] === 'items') touched.add(rest[1] === undefined ? `${part}/${id}` : rest[1]);
    else if (part === 'editions' && rest[0] === 'units' && rest[1] !== undefined) touched.add(`editions/${id}/${rest[1]}`);
    else if (rest[0] === 'aliases') continue;
    else touched.add([part, id, rest[0]].filter(Boolean).join('/'));
  }
  return [...touched].sort();
}

const KEYED_HEAD = new Set(['paragraphStyles', 'characterStyles', 'swatches', 'layers', 'media', 'fonts', 'masterPages', 'metadata']);
const headEntity = ([part, key]: string[]): string => (KEYED_HEAD.has(part!) && key !== undefined ? `${part}/${key}` : `head/${part}`);

/** Validates just what an edit touched, so that a keystroke in a long book stays cheap. */
function checkTouched(folio: Folio, patches: readonly Patch[]): void {
  const done = new Set<string>();
  for (const { path } of patches) {
    const [part, id, collection, key] = path.map(String);
    const where = part === 'head' ? `head.${id}` : [part, id, collection, key].join('.');
    if (done.has(where)) continue;
    done.add(where);
    if (part === 'head') Head.shape[id as keyof typeof Head.shape]?.parse(folio.head[id as keyof Folio['head']]);
    if (part === 'stories' && collection === 'blocks' && key !== undefined) {
      const block = folio.stories[id!]?.blocks[key];
      if (block) Story.shape.blocks.valueType.parse(block);
    }
    if (part === 'spreads' && collection === 'items' && key !== undefined) {
      const item = folio.spreads[id!]?.items[key];
      if (item) Spread.shape.items.unwrap().valueType.parse(item);
    }
  }
}
