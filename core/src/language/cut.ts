import type { TextPart } from '../folio/edition.ts';
import { OBJECT } from '../folio/text.ts';
import type { Code, Coded } from './codes.ts';
import { joined, wordsOf } from './parts.ts';
import { sentenceBreaks } from './srx.ts';
import type { SentenceRules } from './srx.ts';

/** A segment of a unit, and what stands between it and the next. */
interface CutSegment {
  source: TextPart[];
  glue?: TextPart[];
}

/** A text cut into segments; what it begins and ends with besides words is glue before the first and after the last. */
export interface Cut {
  before?: TextPart[];
  segments: CutSegment[];
  /** Codes of the text; a pair that is cut in two has a number of its own in each. */
  codes: Code[];
}

/**
 * Cuts a text into segments: at every tab, and into sentences where there are rules. White space around a segment is not part of
 * it. A pair of codes that reaches over a cut is closed before it and opened again behind it.
 */
export function cutIntoSegments({ parts, codes }: Pick<Coded, 'parts' | 'codes'>, language: string, rules: SentenceRules | null): Cut {
  const [only] = parts;
  // Most texts are one segment of plain words.
  if (!rules && parts.length === 1 && only?.type === 'text' && /^\S(?:[^\t]*\S)?$/.test(only.text))
    return { segments: [{ source: parts }], codes };
  const plain = plainOf(parts);
  const tabs = [...plain.matchAll(/\t/g)].map((m) => m.index);
  const sentences = rules ? sentenceBreaks(plain.replaceAll('\n', ' '), language, rules) : [];
  // White space after a sentence is a piece of its own, in whatever look it has.
  const spaces = sentences.flatMap((at) => at + /^\s*/.exec(plain.slice(at))![0].length);
  return cutAt({ parts, codes }, [...tabs.flatMap((t) => [t, t + 1]), ...sentences, ...spaces]);
}

/** Parts with one letter for each unit that places are counted by: what stands for something is one, the ends of pairs are none. */
export const plainOf = (parts: readonly TextPart[]): string =>
  parts.map((p) => (p.type === 'text' ? p.text : p.type === 'wrap' ? '\n' : p.type === 'code' ? OBJECT : '')).join('');

/** Cuts a text at places of its plain letters; what says nothing between two of them is glue. */
export function cutAt({ parts, codes }: Pick<Coded, 'parts' | 'codes'>, places: readonly number[]): Cut {
  const edges = [...new Set(places)].sort((a, b) => a - b);
  const allCodes = [...codes];
  const pieces = partsBetween(parts, edges, allCodes);
  const cut: Cut = { segments: [], codes: allCodes };
  const glue = (more: TextPart[]): void => {
    if (!more.length) return;
    const last = cut.segments[cut.segments.length - 1];
    if (last) last.glue = joined([...(last.glue ?? []), ...more]);
    else cut.before = joined([...(cut.before ?? []), ...more]);
  };
  for (const piece of pieces) {
    const { lead, inner, trail } = bared(piece, allCodes);
    glue(lead);
    if (isSaid(inner)) cut.segments.push({ source: inner });
    else glue(inner);
    glue(trail);
  }
  return cut;
}

/** Whether there is anything to translate or to place: words, or codes that stand by themselves. */
const isSaid = (parts: readonly TextPart[]): boolean => wordsOf(parts).trim() !== '' || parts.some((p) => p.type === 'code');

/** The parts between places of the plain text; pairs that are cut get codes of their own on each side. */
function partsBetween(parts: readonly TextPart[], edges: readonly number[], codes: Code[]): TextPart[][] {
  const out: TextPart[][] = [[]];
  // Pairs that are open: the number they had, and the one they have in this piece.
  const open: { was: number; now: number }[] = [];
  let at = 0;
  let next = 0;
  const last = (): TextPart[] => out[out.length - 1]!;
  const part = (): void => {
    for (const pair of [...open].reverse()) last().push({ type: 'close', code: pair.now });
    out.push([]);
    for (const pair of open) {
      const before = codes.find((c) => c.n === pair.now)!;
      pair.now = codes.length + 1;
      codes.push({ ...before, n: pair.now });
      last().push({ type: 'open', code: pair.now });
    }
  };
  for (const p of parts) {
    if (p.type === 'open') open.push({ was: p.code, now: p.code });
    if (p.type === 'open' || p.type === 'close') {
      const pair = open.find((o) => o.was === p.code);
      last().push({ ...p, code: pair?.now ?? p.code });
      if (p.type === 'close' && pair) open.splice(open.indexOf(pair), 1);
      continue;
    }
    const length = p.type === 'text' ? p.text.length : 1;
    let from = 0;
    while (next < edges.length && edges[next]! < at + length) {
      const cut = edges[next++]! - at;
      if (cut < from) continue;
      if (p.type === 'text') last().push({ type: 'text', text: p.text.slice(from, cut) });
      part();
      from = Math.max(cut, 0);
    }
    last().push(p.type === 'text' ? { type: 'text', text: p.text.slice(from) } : p);
    at += length;
  }
  return out.map((piece) => withoutEmptyPairs(joined(piece)));
}

function withoutEmptyPairs(parts: TextPart[]): TextPart[] {
  const at = parts.findIndex((p, i) => p.type === 'open' && parts[i + 1]?.type === 'close');
  return at < 0 ? parts : withoutEmptyPairs(joined([...parts.slice(0, at), ...parts.slice(at + 2)]));
}

/**
 * A segment without what is around all of it: white space, and pairs that hold the whole of it, which translators need not see. A reading
 * above words is no such pair: other languages can do without.
 */
function bared(parts: readonly TextPart[], codes: readonly Code[]): { lead: TextPart[]; inner: TextPart[]; trail: TextPart[] } {
  const out = trimmed(parts);
  for (;;) {
    const { inner } = out;
    const [first, last] = [inner[0], inner[inner.length - 1]];
    const isAround = first?.type === 'open' && last?.type === 'close' && first.code === last.code && inner.length > 2;
    if (!isAround || !isSaid(inner) || codes.find((c) => c.n === first.code)?.kind === 'ruby') return out;
    const within = trimmed(inner.slice(1, -1));
    out.lead.push(first, ...within.lead);
    out.trail.unshift(...within.trail, last);
    out.inner = within.inner;
  }
}

/** White space at the ends, taken off where it stands outside of pairs. */
function trimmed(parts: readonly TextPart[]): { lead: TextPart[]; inner: TextPart[]; trail: TextPart[] } {
  const inner = [...parts];
  const lead: TextPart[] = [];
  const trail: TextPart[] = [];
  for (;;) {
    const first = inner[0];
    const blank = first?.type === 'text' ? /^\s*/.exec(first.text)![0] : '';
    if (first?.type === 'wrap') lead.push(inner.shift()!);
    else if (first?.type === 'text' && blank) {
      lead.push({ type: 'text', text: blank });
      inner[0] = { type: 'text', text: first.text.slice(blank.length) };
      if (blank.length === first.text.length) inner.shift();
    } else break;
  }
  for (;;) {
    const end = inner[inner.length - 1];
    const blank = end?.type === 'text' ? end.text.slice(end.text.trimEnd().length) : '';
    if (end?.type === 'wrap') trail.unshift(inner.pop()!);
    else if (end?.type === 'text' && blank) {
      trail.unshift({ type: 'text', text: blank });
      inner[inner.length - 1] = { type: 'text', text: end.text.slice(0, end.text.length - blank.length) };
      if (blank.length === end.text.length) inner.pop();
    } else break;
  }
  return { lead, inner, trail };
}
