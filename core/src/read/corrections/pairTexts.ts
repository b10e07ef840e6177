import { diffArrays } from 'diff';
import { alignedPairs, worthOfCost } from '../../alignment/alignSequences.ts';
import { unlikeness } from '../../alignment/likeness.ts';

/** A text that was written, and what it is now; null where it is gone, or new. */
export interface TextPair {
  written: number | null;
  now: string | null;
}

/** Texts that are no more alike than this are not the same one in other words, where nothing else says that they are (own choice). */
const ALIKE = 0.6;

/**
 * Which of the texts of a box now is which of those that were written into it, both in order. `sure`: the box is the same, so that a text
 * in the place of another is that one in other words, however few of them are left. One that was divided is one with turned lines.
 */
export function pairTexts(written: readonly string[], now: readonly string[], sure: boolean): TextPair[] {
  const out: TextPair[] = [];
  let [w, n] = [0, 0];
  let [gone, come] = [0, 0];
  const close = (): void => {
    for (const one of between(written.slice(w - gone, w), now.slice(n - come, n), w - gone, sure)) out.push(one);
    gone = come = 0;
  };
  for (const part of diffArrays([...written], [...now])) {
    if (part.removed) {
      w += part.value.length;
      gone += part.value.length;
    } else if (part.added) {
      n += part.value.length;
      come += part.value.length;
    } else {
      close();
      for (const text of part.value) {
        out.push({ written: w++, now: text });
        n++;
      }
    }
  }
  close();
  return out;
}

function between(written: readonly string[], now: readonly string[], from: number, sure: boolean): TextPair[] {
  if (!written.length || !now.length)
    return [...written.map((_, i) => ({ written: from + i, now: null })), ...now.map((text) => ({ written: null, now: text }))];
  const worth = (i: number, j: number): number => {
    const unlike = unlikeness(written[i]!, now[j]!);
    return sure || unlike <= ALIKE ? worthOfCost(unlike) : 0;
  };
  const pairs: TextPair[] = [];
  for (const { expected, observed } of alignedPairs({ lengths: [written.length, now.length], keys: [written, now], worth })) {
    const text = observed === null ? null : now[observed]!;
    const last = pairs[pairs.length - 1];
    if (expected !== null && text !== null) {
      // What stands before a text and makes it more like what was written has been its beginning.
      const said = written[expected]!;
      const whole = last && last.written === null ? joinedIfAlike(said, last.now!, text, text) : null;
      if (whole !== null) pairs.pop();
      pairs.push({ written: from + expected, now: whole ?? text });
    } else if (text !== null && last && last.written !== null && last.now !== null) {
      const whole = joinedIfAlike(written[last.written - from]!, last.now, text, last.now);
      if (whole !== null) last.now = whole;
      else pairs.push({ written: null, now: text });
    } else pairs.push({ written: expected === null ? null : from + expected, now: text });
  }
  return pairs;
}

/** Two texts as one with a turned line, where that is more like what was written than one of them alone. */
function joinedIfAlike(said: string, first: string, second: string, alone: string): string | null {
  const whole = `${first}\n${second}`;
  return unlikeness(said, whole) < unlikeness(said, alone) ? whole : null;
}
