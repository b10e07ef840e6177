import { applyPatches, enablePatches, produceWithPatches, setAutoFreeze } from 'immer';
import type { Patch } from 'immer';
import type { Folio } from '../folio/folio.ts';
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
  const [next, patches, inverse] = produceWithPatches(folio, (draft) => definition.run(draft as Folio, args));
  checkTouched(next, patches);
  return { folio: next, patches, inverse, touched: touchedBy(patches) };
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
    else if (rest[0] === 'blocks' || rest[0] === 'items' || rest[0] === 'pages')
      touched.add(rest[1] === undefined ? `${part}/${id}` : rest[1]);
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
