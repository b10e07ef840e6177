import { describe, expect, test } from '@jest/globals';
import { cssVariables } from '../src/theme.ts';

/** Contrast ratio by WCAG 2.2, "relative luminance" and "contrast ratio". */
function contrast(a: string, b: string): number {
  const luminance = (hex: string): number => {
    const [r, g, b] = [1, 3, 5]
      .map((i) => Number.parseInt(hex.slice(i, i + 2), 16) / 255)
      .map((v) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4));
    return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
  };
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

describe('the colours of the application', () => {
  test('the formula gives the values of the standard: black on white is 21, a colour on itself 1', () => {
    expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 6);
    expect(contrast('#1E5B4B', '#1E5B4B')).toBeCloseTo(1, 6);
  });
  test.each(['ink', 'soft', 'fir', 'straw-ink', 'clay', 'plum'])('text in %s has 4.5 : 1 on every surface (WCAG 2.2, 1.4.3)', (text) => {
    for (const surface of ['table', 'sheet', 'paper'])
      expect([surface, contrast(cssVariables[`--${text}`]!, cssVariables[`--${surface}`]!) >= 4.5]).toEqual([surface, true]);
  });
  test('words on tints of their own colour are readable too', () => {
    for (const [text, surface] of [
      ['fir', 'fir-tint'],
      ['straw-ink', 'straw-tint'],
      ['clay', 'clay-tint'],
    ])
      expect(contrast(cssVariables[`--${text}`]!, cssVariables[`--${surface}`]!)).toBeGreaterThanOrEqual(4.5);
  });
});
