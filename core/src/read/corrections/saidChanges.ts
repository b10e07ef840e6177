import { OBJECT, SOFT_HYPHEN } from '../../folio/text.ts';
import type { WordChange } from '../../edit/correction.ts';
import { wordDiff } from './wordDiff.ts';

/**
 * Words that differ between what was written of a text and what is there now, as changes of the text itself. `ours`: its letters, an
 * OBJECT for what is none; `said`: the same as a program was told it, such as numbers in the place of fields. Null where these do not
 * belong together: then the text is another here, too.
 */
export function saidChanges(ours: string, said: string, now: string): { changes: WordChange[]; keepsObjects: boolean } | null {
  const letters = lettersIn(ours, said);
  if (!letters) return null;
  const changes: WordChange[] = [];
  let keepsObjects = false;
  for (const { from: start, removed, added } of wordDiff(said, now)) {
    const { own, text, touched } = stretchOf(letters, start, removed, added, ours);
    keepsObjects ||= touched;
    own.forEach(([from, to], i) => changes.push({ from, to, text: i === 0 ? text.replaceAll(OBJECT, '') : '' }));
  }
  return { changes: changes.filter((c) => ours.slice(c.from, c.to) !== c.text), keepsObjects };
}

/** For each letter that was said, where it stands in the text; null for what an object or a label says. */
type Letters = (number | null)[];

/** Finds the letters of a text among what was said: in order, with the words of objects between them. */
function lettersIn(ours: string, said: string): Letters | null {
  const letters: Letters = new Array<number | null>(said.length).fill(null);
  const pieces = ours.split(OBJECT);
  let at = 0;
  let begins = 0;
  for (const [n, piece] of pieces.entries()) {
    const own = Array.from({ length: piece.length }, (_, k) => begins + k).filter((k) => ours[k] !== SOFT_HYPHEN);
    const text = own.map((k) => ours[k]).join('');
    // The last piece stands at the end, whatever the object before it says.
    const found = n === pieces.length - 1 ? said.length - text.length : said.indexOf(text, at);
    if (found < at || !said.startsWith(text, found)) return null;
    own.forEach((k, i) => (letters[found + i] = k));
    at = found + text.length;
    begins += piece.length + 1;
  }
  return letters;
}

interface Stretch {
  own: [number, number][];
  text: string;
  /** Whether words of an object are others: they stay what it says. */
  touched: boolean;
}

/** What a stretch of what was said stands for in the text, when other words are in its place. */
function stretchOf(letters: Letters, start: number, removed: string, added: string, ours: string): Stretch {
  let [from, to, text] = [start, start + removed.length, added];
  // What an object says still stands at an end of what was changed: it is not part of that.
  const isObject = (i: number): boolean => letters[i] === null;
  if (Array.from({ length: removed.length }, (_, i) => start + i).some(isObject)) {
    while (from < to && text && removed[from - start] === text[0]) {
      from++;
      text = text.slice(1);
    }
    while (from < to && text && removed[to - 1 - start] === text[text.length - 1]) {
      to--;
      text = text.slice(0, -1);
    }
  }
  if (from === to) {
    const put = letters[from] ?? (from > 0 && letters[from - 1] !== null ? letters[from - 1]! + 1 : from === 0 ? 0 : ours.length);
    return { own: text ? [[put, put]] : [], text, touched: false };
  }
  const own: [number, number][] = [];
  let touched = false;
  for (let i = from; i < to; i++) {
    const at = letters[i]!;
    if (isObject(i)) {
      touched = true;
      continue;
    }
    const last = own[own.length - 1];
    // Soft hyphens between two letters go with them.
    if (last && !ours.slice(last[1], at).replaceAll(SOFT_HYPHEN, '')) last[1] = at + 1;
    else own.push([at, at + 1]);
  }
  return { own, text, touched };
}
