import { ellipsePath, rectPath } from '@elastic-folio/core';
import type { SampleAssembly, SpreadBuilder } from '../sampleAssembly.ts';
import { ink, para } from '../sampleAssembly.ts';
import { M } from './measures.ts';

type Entry = { spread: string; item: string };
const TOP = 612;

const PHASES = [
  ['Young moon', 'Low in the west after sunset, and gone within two hours.'],
  ['Half moon', 'High at sunset. The shadows of the craters are longest now.'],
  ['Waxing moon', 'Three quarters lit, and too bright for faint stars.'],
  ['Full moon', 'Up all night. We look at the moon, or at nothing.'],
  ['Waning moon', 'Rises near midnight. The evenings are dark again.'],
] as const;

/** Five moons in one place, one at a time, turned on by two words below them. Gives what is read there. */
export function moonPhases(b: SampleAssembly, s: SpreadBuilder): Entry[] {
  const [x, width, height] = [M, 262, 78];
  const cards = PHASES.map(([name, about], i) => {
    const n = i + 1;
    const ground = s.shape(`phase-card-${n}`, rectPath({ x, y: TOP, width, height }), { fill: ink('night'), layer: 'text' });
    const picture = s.picture(`phase-picture-${n}`, `moon${n}`, [x + 10, TOP + 8, 62, 62], { layer: 'text', alt: `${name}.` });
    const words = s.text(`phase-words-${n}`, [x + 90, TOP + 6, width - 100, height - 12], { verticalAlign: 'centre' });
    b.story(
      `phase-words-${n}-text`,
      [words],
      [
        para('opening', name, { character: { fill: ink('straw'), fontWeight: 700 } }),
        para('caption', about, { character: { fill: ink('paper') } }),
      ],
    );
    b.decoration(ground.item);
    return { id: `phase-of-moon-${n}`, name, items: [ground.item, picture.item, words.item] };
  });
  const switcher = s.add({
    kind: 'switcher',
    id: 'moon-phases',
    name: 'Moon phases',
    alt: 'The moon in five evenings',
    layer: 'text',
    transform: [1, 0, 0, 1, x, TOP],
    size: { width, height },
    cards,
    change: { kind: 'slide', direction: 'left', seconds: 0.4 },
    controls: { arrows: false, dots: true, thumbnails: false, swipe: true, keys: true },
  });
  const turns = (id: string, words: string, card: 'next' | 'previous', at: number): Entry => {
    const frame = s.text(id, [at, TOP + height + 4, 100, 16], {
      name: words,
      cues: {
        [`${id}-cue`]: {
          id: `${id}-cue`,
          trigger: { when: 'press' },
          steps: [{ do: 'showCard', switcher: 'moon-phases', card, afterLast: 'again' }],
        },
      },
    });
    b.story(
      `${id}-text`,
      [frame],
      [para('caption', words, { character: { fontWeight: 700 }, overrides: { align: card === 'next' ? 'right' : 'left' } })],
    );
    return frame;
  };
  return [switcher, turns('earlier-moon', '‹ Earlier moon', 'previous', x), turns('later-moon', 'Later moon ›', 'next', x + width - 100)];
}

/** A riddle, its answer under flakes in the outline of a moon. */
export function moonRiddle(b: SampleAssembly, s: SpreadBuilder): Entry[] {
  const x = M + 290;
  const question = s.text('riddle', [x, TOP, 96, 110], { verticalAlign: 'centre' });
  b.story(
    'riddle-text',
    [question],
    [
      para(
        'caption',
        'Round as a coin, spent by the week, and never missing from the purse. What is it? The answer lies under the flakes.',
      ),
    ],
  );
  const [cx, cy, r] = [x + 158, TOP + 52, 50];
  s.shape('riddle-ground', ellipsePath(cx, cy, r, r), { fill: ink('straw', 0.4), layer: 'text' });
  const answer = s.text('riddle-answer', [cx - 42, cy - 22, 84, 44], { verticalAlign: 'centre' });
  b.story(
    'riddle-answer-text',
    [answer],
    [para('caption', 'The moon, of course.', { character: { fontWeight: 700 }, overrides: { align: 'centre' } })],
  );
  const veil = s.add({
    kind: 'veil',
    id: 'riddle-veil',
    name: 'Flakes over the answer',
    layer: 'text',
    transform: [1, 0, 0, 1, cx - r, cy - r],
    size: { width: 2 * r, height: 2 * r },
    outline: ellipsePath(r, r, r, r),
    flakeSize: 12,
    lift: 'fade',
    rest: 0.7,
    action: 'Show the answer',
    fill: ink('fir'),
  });
  b.decoration('riddle-ground');
  return [question, veil, answer];
}
