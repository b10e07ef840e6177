import { applyPatches, enablePatches, produceWithPatches, setAutoFreeze } from 'immer';
import type { Patch } from 'immer';
import type { Folio } from '../folio/folio.ts';
import { same } from '../folio/same.ts';
import { Head } from '../folio/head.ts';
import { Spread } from '../folio/spread.ts';
import { Story } from '../folio/story.ts';
import { EDITS } from './edits.ts';
import type { Edit } from './edits.ts';
import { paragraphPatched, paragraphTypedIn } from './paragraphAlone.ts';

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
  const within = paragraphTypedIn(folio, edit);
  const applied = applyTo(within?.alone ?? folio, edit);
  if (!applied.patches.length) return { ...applied, folio };
  return within ? { ...applied, folio: within.putBack(applied.folio) } : applied;
}

/** The same on the document that is given, all of it. */
export function applyTo(folio: Folio, edit: Edit): Applied {
  const definition = EDITS.find((e) => e.kind === edit.kind);
  if (!definition) throw new Error(`Unknown edit "${edit.kind}"`);
  const args = definition.args.parse(edit.args) as never;
  const [next, patches, inverse] = produceWithPatches(folio, (draft) => definition.run(draft as Folio, args));
  if (patches.every((patch) => saysWhatIs(folio, patch))) return { folio, patches: [], inverse: [], touched: [] };
  checkTouched(next, patches);
  return { folio: next, patches, inverse, touched: touchedBy(patches) };
}

/** Whether a patch puts in a place what stands there already. */
function saysWhatIs(folio: Folio, { op, path, value }: Patch): boolean {
  if (op !== 'replace') return false;
  let at: unknown = folio;
  for (const key of path) at = (at as Record<string | number, unknown> | undefined)?.[key];
  return same(at, value);
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
export function applyLogged(folio: Folio, patches: Patch[]): Folio {
  const within = paragraphPatched(folio, patches);
  return within ? within.putBack(applyPatches(within.alone, patches)) : applyPatches(folio, patches);
}

/**
 * What an edit touched, as paths: the entity that each patch changed, and which of its fields: `p1/content`, `f1/alt`,
 * `metadata/title`; the entity alone where it came or went. A list beside keyed entities (an order) counts as one of its own,
 * so that two people may write in two paragraphs.
 */
export function touchedBy(patches: readonly Patch[]): string[] {
  const touched = new Set<string>();
  for (const { path } of patches) {
    const [part, id, ...rest] = path.map(String);
    if (part === 'head') touched.add(headEntity([id!, ...rest]));
    else if (rest[0] === 'blocks' || rest[0] === 'items') touched.add(blockEntity([part!, id!], rest));
    else if (part === 'editions' && rest[0] === 'units' && rest[1] !== undefined) touched.add(`editions/${id}/${rest[1]}`);
    else if (rest[0] === 'aliases') continue;
    else touched.add([part, id, rest[0]].filter(Boolean).join('/'));
  }
  return [...touched].sort();
}

/** Fields of items that hold entities of their own, by their ids. */
const KEYED_FIELDS = new Set(['cues', 'cells']);
function blockEntity(holder: string[], [, id, field, key]: string[]): string {
  if (id === undefined) return holder.join('/');
  if (field === undefined) return id;
  return KEYED_FIELDS.has(field) && key !== undefined ? `${id}/${field}/${key}` : `${id}/${field}`;
}

const KEYED_HEAD = new Set(['paragraphStyles', 'characterStyles', 'swatches', 'layers', 'media', 'fonts', 'masterPages', 'metadata']);
const KEYED_STRUCTURE = new Set(['pins', 'outline', 'captions', 'alphabetical']);
function headEntity([part, key, entry]: string[]): string {
  if (part === 'structure' && key !== undefined)
    return KEYED_STRUCTURE.has(key) && entry !== undefined ? `head/structure/${key}/${entry}` : `head/structure/${key}`;
  return KEYED_HEAD.has(part!) && key !== undefined ? `${part}/${key}` : `head/${part}`;
}

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
