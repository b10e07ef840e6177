import type { Patch } from 'immer';
import { blocksWith } from '../folio/blocksWith.ts';
import type { Folio } from '../folio/folio.ts';
import type { Edit } from './edits.ts';

/**
 * A change inside one paragraph is worked out on that paragraph alone: in a long book, looking through all of
 * the others and copying the table of them by immer would take longer than setting the text again.
 */
export function paragraphTypedIn(folio: Folio, edit: Edit): Alone | null {
  if (edit.kind !== 'text.replace') return null;
  const { story, from, to, newIds } = edit.args;
  return to.paragraphId === from.paragraphId && !newIds.length ? paragraphAlone(folio, story, from.paragraphId) : null;
}

export interface Alone {
  story: string;
  paragraph: string;
  /** The document with one paragraph of one text, and nothing of the others. */
  alone: Folio;
  /** The whole document with what has become of them. */
  putBack: (next: Folio) => Folio;
}

function paragraphAlone(folio: Folio, storyId: string, id: string): Alone | null {
  const story = folio.stories[storyId];
  const block = story?.blocks[id];
  if (!story || block?.kind !== 'paragraph') return null;
  const alone = { ...folio, stories: { [storyId]: { ...story, blocks: { [id]: block }, order: [id] } } };
  const putBack = (next: Folio): Folio => {
    const typed = next.stories[storyId]!.blocks[id]!;
    if (typed === block) return folio;
    // Pins go with the words they stand behind.
    return {
      ...folio,
      head: next.head,
      stories: { ...folio.stories, [storyId]: { ...story, blocks: blocksWith(story.blocks, id, typed) } },
    };
  };
  return { story: storyId, paragraph: id, alone, putBack };
}

/** The paragraph that all patches lie in; null where there is none. */
export function paragraphPatched(folio: Folio, patches: readonly Patch[]): Alone | null {
  const path = patches[0]?.path;
  if (path?.[0] !== 'stories' || path[2] !== 'blocks') return null;
  const [story, id] = [path[1], path[3]];
  const inside = patches.every(({ path: p }) => p.length > 4 && p[0] === 'stories' && p[1] === story && p[2] === 'blocks' && p[3] === id);
  return inside ? paragraphAlone(folio, String(story), String(id)) : null;
}
