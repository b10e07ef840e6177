import type { HandLook } from '../folio/byHand.ts';
import { solidHex } from '../folio/colour.ts';
import type { Head } from '../folio/head.ts';
import { weightName } from '../folio/weightName.ts';

/** A look has at most so many words in its name; what is more is told apart by numbers. */
const MOST = 3;

/** What a look is in a few words: “bold, 14 pt, #224466”; what catches the eye comes first. */
export function lookName({ paragraph: p, character: c }: HandLook, swatches: Head['swatches']): string {
  const words: string[] = [];
  if (c.fontFamily !== undefined) words.push(c.fontFamily);
  if (c.fontWeight !== undefined) words.push(weightName(c.fontWeight) ?? `weight ${c.fontWeight}`);
  if (c.fontStyle !== undefined) words.push(c.fontStyle === 'italic' ? 'italic' : 'upright');
  if (c.size !== undefined) words.push(`${round(c.size)} pt`);
  if (c.fill !== undefined) words.push(solidHex(c.fill, swatches));
  if (c.underline !== undefined) words.push(c.underline ? 'underlined' : 'not underlined');
  if (c.strike !== undefined) words.push(c.strike ? 'struck through' : 'not struck through');
  if (c.capitals !== undefined) words.push({ normal: 'normal letters', small: 'small capitals', all: 'capitals' }[c.capitals]);
  if (c.position !== undefined) words.push({ normal: 'on the line', superscript: 'raised', subscript: 'lowered' }[c.position]);
  if (c.tracking !== undefined) words.push(c.tracking > 0 ? 'spaced out' : 'close');
  if (p.align !== undefined) words.push(ALIGN[p.align]);
  if (p.list !== undefined) words.push(p.list ? `list level ${p.list.level + 1}` : 'no list');
  if (p.startIndent !== undefined || p.endIndent !== undefined || p.firstLineIndent !== undefined) words.push('indent');
  if (p.spaceBefore !== undefined || p.spaceAfter !== undefined) words.push('space');
  if (c.leading !== undefined) words.push(c.leading === 'auto' ? 'own leading' : `leading ${round(c.leading)}`);
  return words.slice(0, MOST).join(', ') || 'own look';
}

const ALIGN = { left: 'left', right: 'right', centre: 'centred', justify: 'justified', justifyAll: 'justified' } as const;
const round = (points: number): string => String(Math.round(points * 10) / 10);
