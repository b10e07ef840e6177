import { describe, expect, test } from '@jest/globals';
import type { HandLook } from '../src/folio/byHand.ts';
import { isEmpty, lookOfParagraph, lookOfSpan } from '../src/folio/byHand.ts';
import { lookName } from '../src/edit/lookName.ts';

const look = (character: HandLook['character'], paragraph: HandLook['paragraph'] = {}): HandLook => ({ paragraph, character });
const green = { type: 'colour', colour: { space: 'rgb', r: 0.118, g: 0.357, b: 0.294 } } as const;
const line = { before: 2, after: 2, inARow: 0, capitals: true };

describe('names of looks that were made by hand', () => {
  test.each<[string, HandLook]>([
    ['bold', look({ fontWeight: 700 })],
    ['bold, italic', look({ fontStyle: 'italic', fontWeight: 700 })],
    ['weight 350', look({ fontWeight: 350 })],
    ['Work Sans, regular, upright', look({ fontFamily: 'Work Sans', fontWeight: 400, fontStyle: 'normal', size: 9 })],
    ['12.5 pt', look({ size: 12.49 })],
    ['#1e5b4b', look({ fill: green })],
    ['underlined', look({ underline: {} })],
    ['not underlined', look({ underline: null })],
    ['struck through', look({ strike: {} })],
    ['small capitals', look({ capitals: 'small' })],
    ['capitals, raised', look({ capitals: 'all', position: 'superscript' })],
    ['spaced out', look({ tracking: 20 })],
    ['close', look({ tracking: -10 })],
    ['centred', look({}, { align: 'centre' })],
    ['justified, space', look({}, { align: 'justify', spaceAfter: 6 })],
    ['list level 2', look({}, { list: { style: 'l', level: 1 } })],
    ['no list', look({}, { list: null })],
    ['indent', look({}, { firstLineIndent: 12 })],
    ['leading 14', look({ leading: 14 })],
    ['own leading', look({ leading: 'auto' })],
    ['own look', look({}, { hyphenation: line })],
  ])('%s', (name, of) => expect(lookName(of, {})).toBe(name));
});

describe('what is a look, and what belongs to its place', () => {
  test('a language, a break before and numbers that begin anew stay with the paragraph', () => {
    const { look: own, place } = lookOfParagraph({
      overrides: { align: 'right', breakBefore: 'page', list: { style: 'l', level: 0, restart: 4 } },
      character: { language: 'de', size: 9 },
    });
    expect(own).toEqual({ paragraph: { align: 'right' }, character: { size: 9 } });
    expect(place).toEqual({
      paragraph: { breakBefore: 'page', list: { style: 'l', level: 0, restart: 4 } },
      character: { language: 'de' },
    });
  });
  test('a list that goes on is a look', () => {
    expect(lookOfParagraph({ overrides: { list: { style: 'l', level: 0 } } }).look.paragraph).toEqual({ list: { style: 'l', level: 0 } });
  });
  test('a passage in another language has no look of its own', () => {
    expect(isEmpty(lookOfSpan({ overrides: { language: 'ja' } }).look)).toBe(true);
    expect(lookOfSpan({}).look).toEqual({});
  });
});
