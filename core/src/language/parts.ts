import type { TextPart } from '../folio/edition.ts';

/** Stands for a wrap mark where parts are written as one string (Unicode: LINE SEPARATOR). */
const WRAP = '\u2028';

type Words = Extract<TextPart, { type: 'text' }>;

/** Whether parts are words in one piece, without codes or wrap marks, as most texts are. */
export const isWords = (parts: readonly TextPart[]): parts is readonly [Words] => parts.length === 1 && parts[0]!.type === 'text';

/** Only the words: codes are left out, a wrap mark is a space. */
export const wordsOf = (parts: readonly TextPart[]): string =>
  isWords(parts) ? parts[0].text : parts.map((p) => (p.type === 'text' ? p.text : p.type === 'wrap' ? ' ' : '')).join('');

/** Text as one node, whatever pieces it came in. */
export function joined(parts: readonly TextPart[]): TextPart[] {
  const out: TextPart[] = [];
  for (const part of parts) {
    const last = out[out.length - 1];
    if (part.type !== 'text') out.push(part);
    else if (!part.text) continue;
    else if (last?.type === 'text') out[out.length - 1] = { type: 'text', text: last.text + part.text };
    else out.push(part);
  }
  return out;
}

/** Codes have numbers by their order in the text, from 1 on; equal texts with equal codes become equal. */
export function renumbered(parts: readonly TextPart[]): { parts: TextPart[]; was: number[] } {
  const was: number[] = [];
  const now = (code: number): number => {
    const at = was.indexOf(code);
    return at < 0 ? was.push(code) : at + 1;
  };
  return { parts: parts.map((p) => ('code' in p ? { ...p, code: now(p.code) } : p)), was };
}

const MARKS = { open: '\uE000', close: '\uE001', code: '\uE002' } as const;

/** Parts as one string that is equal only for equal parts: codes as private-use signs with their numbers. */
export const keyOf = (parts: readonly TextPart[]): string =>
  parts.map((p) => (p.type === 'text' ? p.text : p.type === 'wrap' ? WRAP : `${MARKS[p.type]}${p.code}\uE003`)).join('');

export function sameParts(a: readonly TextPart[], b: readonly TextPart[]): boolean {
  if (isWords(a) && isWords(b)) return a[0].text === b[0].text;
  return keyOf(joined(a)) === keyOf(joined(b));
}

/** Parts as people can read and type them: codes as `{1}…{/1}` and `{2/}`, a wrap mark as `{wrap}`; braces of the text are doubled. */
export const readable = (parts: readonly TextPart[]): string =>
  parts
    .map((p) => {
      switch (p.type) {
        case 'text':
          return p.text.replace(/[{}]/g, '$&$&');
        case 'wrap':
          return '{wrap}';
        case 'open':
          return `{${p.code}}`;
        case 'close':
          return `{/${p.code}}`;
        case 'code':
          return `{${p.code}/}`;
      }
    })
    .join('');

const READABLE = /\{\{|\}\}|\{wrap\}|\{(\/?)([1-9]\d{0,5})(\/?)\}/g;

/** The way back from `readable`; what only looks like a code stays text. A line break that someone typed is a wrap mark. */
export function fromReadable(text: string): TextPart[] {
  const out: TextPart[] = [];
  const say = (words: string): void =>
    words.split(/\r\n?|\n|\u2028/).forEach((line, i) => out.push(...(i ? [{ type: 'wrap' as const }] : []), { type: 'text', text: line }));
  let at = 0;
  for (const found of text.matchAll(READABLE)) {
    say(text.slice(at, found.index));
    at = found.index + found[0].length;
    const code = Number(found[2]);
    if (found[0] === '{{' || found[0] === '}}') out.push({ type: 'text', text: found[0][0]! });
    else if (found[0] === '{wrap}') out.push({ type: 'wrap' });
    else if (found[1] && found[3]) out.push({ type: 'text', text: found[0] });
    else out.push({ type: found[1] ? 'close' : found[3] ? 'code' : 'open', code });
  }
  say(text.slice(at));
  return joined(out);
}

/** Numbers of codes that parts have, each as often as it is there; a pair counts by its beginning. */
export const codesIn = (parts: readonly TextPart[]): number[] =>
  parts.flatMap((p) => (p.type === 'open' || p.type === 'code' ? [p.code] : []));
