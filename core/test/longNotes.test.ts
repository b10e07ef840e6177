import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { produce } from 'immer';
import type { Folio, Inline, Paragraph } from '../src/index.ts';
import { compose, plain } from './support/setting.ts';
import { tinyFolio } from './support/tinyFolio.ts';

const words = (name: string, count: number): string => Array.from({ length: count }, (_, i) => `${name}${i + 1}`).join(' ');

/** Texts in a chain of frames, each with a footnote of so many words after its second word (none for 0). */
const withNotes = (texts: [words: number, note: number][], frames: number, height = 100): Folio =>
  produce(
    tinyFolio(
      texts.map(([count]) => words('w', count)),
      { width: 120, height, frames },
    ),
    (d) => {
      const { blocks } = d.stories['t']!;
      texts.forEach(([count, note], i) => {
        if (!note) return;
        const id = `n${i + 1}`;
        const content: Inline[] = [
          { type: 'span', text: words('w', 2) },
          { type: 'note', id, kind: 'footnote', order: [`${id}-a`, `${id}-b`] },
          { type: 'span', text: ` ${words('w', count)}` },
        ];
        (blocks[`p${i + 1}`] as Paragraph).content = content;
        blocks[`${id}-a`] = { kind: 'paragraph', id: `${id}-a`, style: 'p', content: [{ type: 'span', text: words('a', note) }] };
        blocks[`${id}-b`] = { kind: 'paragraph', id: `${id}-b`, style: 'p', content: [{ type: 'span', text: words('b', note) }] };
      });
    },
  );

/** What each frame shows of a paragraph, frame by frame. */
const shown = (folio: Folio, paragraph: string): string[] =>
  [...compose(folio).frames.values()].map((f) =>
    f.lines
      .filter((l) => l.paragraph === paragraph)
      .map((l) => plain(l))
      .join(' '),
  );
const joined = (folio: Folio, paragraph: string): string => shown(folio, paragraph).filter(Boolean).join(' ').trim();

describe('footnotes too long for their column', () => {
  test('go on at the foot of the next columns; the text goes on above them', () => {
    const folio = withNotes([[30, 60]], 8);
    const composition = compose(folio);
    expect(composition.stories.get('t')!.overflow).toBeNull();
    const parts = shown(folio, 'n1-a').filter(Boolean).length;
    expect(parts).toBeGreaterThan(1);
    // Label and all, in order, nothing twice.
    expect(joined(folio, 'n1-a').replace(/^1/, '')).toBe(words('a', 60));
    expect(joined(folio, 'n1-b')).toBe(words('b', 60));
    expect(joined(folio, 'p1').replace('w21', 'w2')).toBe(`${words('w', 2)} ${words('w', 30)}`);
    for (const frame of composition.frames.values()) {
      const bottoms = frame.lines.map((l) => l.baseline + l.descent);
      expect(Math.max(...bottoms, 0)).toBeLessThanOrEqual(100.02);
      // No line stands on another.
      const baselines = frame.lines.map((l) => l.baseline).sort((a, b) => a - b);
      baselines.forEach((b, i) => i && expect(b - baselines[i - 1]!).toBeGreaterThan(8));
    }
  });

  test('what no frame is left for is overflow, told in lines and characters', () => {
    const whole = compose(withNotes([[4, 60]], 8)).stories.get('t')!;
    expect(whole.overflow).toBeNull();
    const cut = compose(withNotes([[4, 60]], 2)).stories.get('t')!;
    expect(cut.overflow!.lines).toBeGreaterThan(3);
    expect(cut.overflow!.characters).toBeGreaterThan(50);
    expect(cut.overflow!.words).toBeGreaterThan(10);
  });

  test('a note that has room in the next column moves there with its line, whole', () => {
    const folio = withNotes(
      [
        [24, 0],
        [6, 8],
      ],
      3,
      110,
    );
    expect(shown(folio, 'n2-a').filter(Boolean)).toHaveLength(1);
  });

  test('no word of text or notes is lost or doubled, whatever their lengths (property)', () => {
    const block = fc.tuple(fc.integer({ min: 3, max: 40 }), fc.integer({ min: 0, max: 45 }));
    fc.assert(
      fc.property(fc.array(block, { minLength: 1, maxLength: 4 }), fc.integer({ min: 60, max: 140 }), (texts, height) => {
        const folio = withNotes(texts, 60, height);
        expect(compose(folio).stories.get('t')!.overflow).toBeNull();
        texts.forEach(([count, note], i) => {
          if (!note) return;
          expect(joined(folio, `n${i + 1}-a`).replace(/^\d/, '')).toBe(words('a', note));
          expect(joined(folio, `n${i + 1}-b`)).toBe(words('b', note));
          expect(joined(folio, `p${i + 1}`).split(' ')).toHaveLength(count + 2);
        });
      }),
      { numRuns: 40 },
    );
  });
});
