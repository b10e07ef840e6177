import { isIdeographic } from './ideographs.ts';
import { same } from './same.ts';
import type { Inline, Paragraph, Span } from './story.ts';

/** Stands in plain text for an object in the line (Unicode: OBJECT REPLACEMENT CHARACTER). */
export const OBJECT = '\uFFFC';
/** Where a word may be divided; the hyphen itself is shown only at a line's end. */
export const SOFT_HYPHEN = '\u00AD';

/** Length of one inline node in units of offset: UTF-16 units for text, one for everything else. */
export const lengthOf = (node: Inline): number => (node.type === 'span' ? node.text.length : 1);
export const contentLength = (content: readonly Inline[]): number => content.reduce((n, node) => n + lengthOf(node), 0);

function plainNode(node: Inline): string {
  if (node.type === 'span') return node.text;
  if (node.type === 'softReturn') return '\n';
  return node.type === 'tab' ? '\t' : OBJECT;
}

/** Text with one character per unit of offset. */
export const plainText = (content: readonly Inline[]): string => content.map(plainNode).join('');

/**
 * What a reader reads: objects are left out, ruby gives its base text, a soft return a space; none between ideographs, which are written
 * without (CSS Text 3, section 4.1.3, does so with breaks in sources).
 */
export const readText = (paragraph: Paragraph, field: (node: Inline & { type: 'field' }) => string = () => ''): string =>
  paragraph.content
    .map((n) =>
      n.type === 'span'
        ? n.text
        : n.type === 'softReturn'
          ? '\n'
          : n.type === 'tab'
            ? ' '
            : n.type === 'ruby'
              ? n.base
              : n.type === 'field'
                ? field(n)
                : '',
    )
    .join('')
    .replace(/\n/g, (_, at: number, text: string) =>
      isIdeographic(text.charCodeAt(at - 1)) && isIdeographic(text.charCodeAt(at + 1)) ? '' : ' ',
    );

const sameLook = (a: Span, b: Span): boolean =>
  a.style === b.style && a.link === b.link && a.translate === b.translate && same(a.overrides ?? {}, b.overrides ?? {});

/** Joins neighbouring spans of one look and drops empty ones, so that equal text has one form. */
export function normalise(content: readonly Inline[]): Inline[] {
  const out: Inline[] = [];
  for (const node of content) {
    const last = out[out.length - 1];
    if (node.type === 'span' && node.text === '') continue;
    if (node.type === 'span' && last?.type === 'span' && sameLook(last, node))
      out[out.length - 1] = { ...last, text: last.text + node.text };
    else out.push(node);
  }
  return out;
}

/** The nodes between two offsets; a span is cut, other nodes are whole. */
export function sliceContent(content: readonly Inline[], from: number, to: number): Inline[] {
  const out: Inline[] = [];
  let at = 0;
  for (const node of content) {
    const end = at + lengthOf(node);
    if (end > from && at < to) {
      if (node.type !== 'span') out.push(node);
      else {
        const text = node.text.slice(Math.max(0, from - at), Math.min(node.text.length, to - at));
        if (text) out.push({ ...node, text });
      }
    }
    at = end;
  }
  return out;
}

/** The letters of a paragraph that can stand larger at its beginning; none where something else comes first, or nothing after them. */
export function initialLetters({ content }: Pick<Paragraph, 'content'>, characters: number): string {
  const first = plainText(sliceContent(content, 0, characters));
  return contentLength(content) > characters && !/[\s\uFFFC]/.test(first) ? first : '';
}

const segmenter = new Intl.Segmenter('en', { granularity: 'grapheme' });

/** Whether an offset stands between two grapheme clusters (UAX 29), where a Place may be. */
export function isGraphemeBoundary(text: string, offset: number): boolean {
  if (offset <= 0 || offset >= text.length) return offset === 0 || offset === text.length;
  return segmenter.segment(text).containing(offset)?.index === offset;
}

/** The nearest allowed Place offset at or before `offset`. */
export function toGraphemeBoundary(text: string, offset: number): number {
  const clamped = Math.min(Math.max(0, offset), text.length);
  return clamped === text.length ? clamped : (segmenter.segment(text).containing(clamped)?.index ?? clamped);
}

/** Long texts are counted in pieces of this many units: the segmenter’s time grows with the square of what it is given. */
const PIECE = 2000;
/** What a word may hold where it is cut: letters, digits, marks, and soft hyphens. */
const LETTER = /[\p{L}\p{N}\p{M}\u00AD]/u;
const IDEOGRAPHIC = /[\p{Ideographic}\p{Script=Hiragana}\p{Script=Katakana}]/u;

const wordSegmenters = new Map<string, Intl.Segmenter>();

function segmenterOf(language: string): Intl.Segmenter {
  let words = wordSegmenters.get(language);
  if (!words) wordSegmenters.set(language, (words = new Intl.Segmenter(language, { granularity: 'word' })));
  return words;
}

/** Words as a word processor counts them: runs of letters, digits and marks inside them (UAX 29). */
export function countWords(text: string, language = 'en'): number {
  const words = segmenterOf(language);
  let count = 0;
  for (let at = 0; at < text.length;) {
    let end = Math.min(at + PIECE, text.length);
    const space = end < text.length ? text.lastIndexOf(' ', end) : -1;
    if (space > at) end = space;
    for (const segment of words.segment(text.slice(at, end))) if (segment.isWordLike) count++;
    // A word that was cut in two is one.
    const [before, after] = [text[end - 1]!, text[end] ?? ''];
    if (LETTER.test(before) && LETTER.test(after) && !IDEOGRAPHIC.test(after)) count--;
    at = end;
  }
  return count;
}
