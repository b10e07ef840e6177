import { diffWordsWithSpace } from 'diff';

/** Where two texts differ: what stands at an offset of the first, and what the second has there. */
export interface WordDifference {
  from: number;
  removed: string;
  added: string;
}

/** The words in which two texts differ, from the beginning to the end. */
export function wordDiff(ours: string, theirs: string): WordDifference[] {
  const out: WordDifference[] = [];
  let at = 0;
  let [removed, added] = ['', ''];
  const close = (): void => {
    if (removed || added) out.push({ from: at - removed.length, removed, added });
    removed = added = '';
  };
  for (const part of diffWordsWithSpace(ours, theirs)) {
    if (part.removed) {
      removed += part.value;
      at += part.value.length;
    } else if (part.added) added += part.value;
    else {
      close();
      at += part.value.length;
    }
  }
  close();
  return out;
}
