import type { TextPart } from '../folio/edition.ts';
import type { Code } from './codes.ts';
import { decimalMark } from './conventions.ts';
import { codesIn, isWords, joined, wordsOf } from './parts.ts';

/** What can be wrong with a translation by itself. `wrong`: it cannot be taken as it is; `look`: a person should look at it. */
export const FAULTS = {
  codeMissing: 'wrong',
  codeDoubled: 'wrong',
  codeUnknown: 'wrong',
  codeOrder: 'wrong',
  forbidden: 'wrong',
  numbers: 'look',
  spaces: 'look',
  punctuation: 'look',
  sourceChanged: 'look',
  overflow: 'look',
  glyphs: 'look',
} as const;
export type Fault = keyof typeof FAULTS;

/** A finding about a translation, with a sentence that says what and where. */
export interface SegmentFinding {
  fault: Fault;
  says: string;
}

/** Signs that no text may hold: control characters, noncharacters, halves of surrogates, those that turn the direction by force, and our own marks. */
const FORBIDDEN =
  // eslint-disable-next-line no-control-regex -- these are what is looked for
  /[\u0000-\u0008\u000B\u000C\u000E-\u001F\u007F-\u0084\u0086-\u009F\u202A-\u202E\u2066-\u2069\uE000-\uE003\uFDD0-\uFDEF\uFFFC\uFFFE\uFFFF]|\p{Cs}/gu;

/** Texts of none but these have no such sign: nearly all of them, told in one fast look. */
const PLAIN = /^[\t\n\x20-\x7E\xA0-\u2029\u202F-\u2065\u206A-\uD7FF]*$/;
const forbiddenIn = (text: string): string[] => (PLAIN.test(text) ? [] : [...new Set(text.match(FORBIDDEN) ?? [])]);

const called = (code: Code | undefined, n: number): string => (code ? `${n} (${code.shows || code.says})` : String(n));

/** Looks a translation through against its source. */
export function faultsOf(
  source: readonly TextPart[],
  target: readonly TextPart[],
  codes: readonly Code[],
  languages: { source: string; target: string },
): SegmentFinding[] {
  return [...codeFaults(source, target, codes), ...wordFaults(wordsOf(source), target, languages)];
}

function codeFaults(source: readonly TextPart[], target: readonly TextPart[], codes: readonly Code[]): SegmentFinding[] {
  if (isWords(source) && isWords(target)) return [];
  const found: SegmentFinding[] = [];
  const byNumber = new Map(codes.map((c) => [c.n, c]));
  const wanted = codesIn(source);
  const has = codesIn(target);
  for (const n of new Set(wanted)) {
    const count = has.filter((m) => m === n).length;
    const kind = byNumber.get(n)?.kind;
    // A reading belongs to the script of the source; another language can do without it.
    if (!count && kind !== 'ruby') found.push({ fault: 'codeMissing', says: `Code ${called(byNumber.get(n), n)} is missing.` });
    if (count > wanted.filter((m) => m === n).length)
      found.push({ fault: 'codeDoubled', says: `Code ${called(byNumber.get(n), n)} is there ${count} times.` });
  }
  for (const n of new Set(has)) if (!wanted.includes(n)) found.push({ fault: 'codeUnknown', says: `Code ${n} is not in the source.` });
  const open: number[] = [];
  for (const part of target) {
    if (part.type === 'open') open.push(part.code);
    if (part.type !== 'close') continue;
    if (open[open.length - 1] === part.code) open.pop();
    else {
      found.push({
        fault: 'codeOrder',
        says: open.includes(part.code) ? `Code ${part.code} ends inside another.` : `Code ${part.code} ends before it begins.`,
      });
      open.splice(0, open.length, ...open.filter((n) => n !== part.code));
    }
  }
  for (const n of open) found.push({ fault: 'codeOrder', says: `Code ${n} does not end.` });
  return found;
}

function wordFaults(source: string, target: readonly TextPart[], languages: { source: string; target: string }): SegmentFinding[] {
  const found: SegmentFinding[] = [];
  const words = wordsOf(target);
  const forbidden = forbiddenIn(words);
  if (forbidden.length)
    found.push({
      fault: 'forbidden',
      says: `It holds signs that cannot be seen: ${forbidden.map((c) => `U+${c.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}`).join(', ')}.`,
    });
  found.push(...numberFaults(source, words, languages));
  const lead = beginning(source) === beginning(words);
  const trail = ending(source) === ending(words);
  if (!lead || !trail)
    found.push({
      fault: 'spaces',
      says: `There is ${!lead && !trail ? 'other white space at both ends' : `other white space at the ${lead ? 'end' : 'beginning'}`}.`,
    });
  else if (/[^\S\n] {1,}/.test(words) && !/[^\S\n] {1,}/.test(source))
    found.push({ fault: 'spaces', says: 'There are two spaces in a row.' });
  const [is, was] = [endMark(words), endMark(source)];
  if (is !== was)
    found.push({
      fault: 'punctuation',
      says: `It ends ${is ? `with “${is}”` : 'without a mark'}; the source ends ${was ? `with “${was}”` : 'without one'}.`,
    });
  return found;
}

/** White space at the ends of a text. */
const beginning = (text: string): string => text.slice(0, text.length - text.trimStart().length);
const ending = (text: string): string => text.slice(text.trimEnd().length);

/** Numbers that are there on one side only; one that was left as it stood may be another number in another language. */
function numberFaults(source: string, target: string, languages: { source: string; target: string }): SegmentFinding[] {
  const after = numbersIn(target, languages.target);
  const gone = numbersIn(source, languages.source).filter(({ value }) => !takeFrom(after, (n) => n.value === value));
  const misread = gone.filter(({ written }) => takeFrom(after, (n) => n.written === written));
  const says = [
    ...misread.map((n) => `${n.written} stands as in the source, and is another number in this language.`),
    ...gone.filter((n) => !misread.includes(n)).map((n) => `${n.written} is missing.`),
    ...after.map((n) => `${n.written} is not in the source.`),
  ];
  return says.length ? [{ fault: 'numbers', says: says.join(' ') }] : [];
}

function takeFrom<T>(list: T[], fits: (one: T) => boolean): boolean {
  const at = list.findIndex(fits);
  if (at >= 0) list.splice(at, 1);
  return at >= 0;
}

/** Numbers of a text, and what each is worth: with a full stop for its decimals, whatever language it is written in; those in full width as well. */
function numbersIn(text: string, language: string): { written: string; value: string }[] {
  if (!/[\d０-９]/.test(text)) return [];
  const decimal = decimalMark(language);
  return (halfWidth(text).match(/\d+(?:[.,\u00A0\u202F'’]\d+)*/g) ?? []).map((written) => {
    const [whole = '', ...rest] = written.split(/([.,\u00A0\u202F'’])/);
    let value = whole;
    // Three digits after another mark than that of decimals are thousands.
    for (let i = 0; i < rest.length; i += 2) value += (rest[i] !== decimal && rest[i + 1]!.length === 3 ? '' : '.') + rest[i + 1]!;
    return { written, value };
  });
}

/** Digits and their marks in full width, as Japanese and Chinese write them, in the width of Latin letters. */
const halfWidth = (text: string): string => text.replace(/[０-９，．]/g, (c) => String.fromCharCode(c.charCodeAt(0) - 0xfee0));

/** The mark that a text ends with, the same for all scripts (common practice). */
const SAME_MARK: Record<string, string> = {
  '。': '.',
  '．': '.',
  '！': '!',
  '？': '?',
  '：': ':',
  '；': ';',
  '…': '…',
  '؟': '?',
  '۔': '.',
  '।': '.',
  '；;': ';',
};
function endMark(text: string): string {
  // Looked for at the end only: what closes after a mark is short.
  const last = /([.!?:;…。．！？：；؟۔।])[\p{Pe}\p{Pf}\p{Pi}"'”’\s]*$/u.exec(text.slice(-24))?.[1] ?? '';
  return SAME_MARK[last] ?? last;
}

/** A translation that can be taken: without forbidden signs, codes once each and in pairs; those that stand for something and are missing come at its end. */
export function mended(source: readonly TextPart[], target: readonly TextPart[], codes: readonly Code[]): TextPart[] {
  // Most texts are plain words on both sides.
  if (isWords(source) && isWords(target) && target[0].text && PLAIN.test(target[0].text)) return [target[0]];
  const wanted = new Map<number, number>();
  for (const n of codesIn(source)) wanted.set(n, (wanted.get(n) ?? 0) + 1);
  const out: TextPart[] = [];
  const open: number[] = [];
  for (const part of target) {
    if (part.type === 'text') out.push(PLAIN.test(part.text) ? part : { type: 'text', text: part.text.replace(FORBIDDEN, '') });
    else if (part.type === 'wrap') out.push(part);
    else if (part.type === 'close') {
      const at = open.lastIndexOf(part.code);
      if (at < 0) continue;
      // What was opened since ends with it.
      for (const n of open.splice(at).reverse()) out.push({ type: 'close', code: n });
    } else {
      const left = wanted.get(part.code) ?? 0;
      if (!left) continue;
      wanted.set(part.code, left - 1);
      out.push(part);
      if (part.type === 'open') open.push(part.code);
    }
  }
  for (const n of open.reverse()) out.push({ type: 'close', code: n });
  for (const code of codes) {
    const left = wanted.get(code.n) ?? 0;
    if (!code.paired) for (let i = 0; i < left; i++) out.push({ type: 'code', code: code.n });
  }
  return joined(out);
}
