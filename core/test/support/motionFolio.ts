import { Folio } from '../../src/index.ts';
import { tinyFolio } from './tinyFolio.ts';

const box = (x: number, y: number, width = 80, height = 60) => ({ layer: 'l', transform: [1, 0, 0, 1, x, y], size: { width, height } });
const red = { type: 'colour', colour: { space: 'rgb', r: 1, g: 0, b: 0 } };
const square = [['M', 0, 0], ['L', 20, 0], ['L', 20, 20], ['L', 0, 20], ['Z']];

/** The beginning of a sound, and the file of a document that it is. */
export const SOUND = new TextEncoder().encode('RIFF....WAVEfmt ');
export const SOUND_FILE = {
  id: 'sound',
  name: 'bell.wav',
  file: 'media/bell.wav',
  mediaType: 'audio/wav',
  sha256: 'a'.repeat(64),
  bytes: SOUND.length,
};
/** A cue that a press begins. */
export const press = (id: string, ...steps: object[]) => ({ [id]: { id, trigger: { when: 'press' }, steps } });

/** A page with one of everything that reacts, moves or is filled in. */
export function motionFolio(): Folio {
  const folio = structuredClone(tinyFolio(['Before', 'Turn on'], { height: 40 })) as unknown as Record<string, never> & {
    spreads: Record<string, { items: Record<string, unknown>; order: string[]; pages: Record<string, unknown>[] }>;
  };
  const spread = folio.spreads['s']!;
  const add = (id: string, item: object, held = false): void => {
    spread.items[id] = { id, ...item };
    if (!held) spread.order.push(id);
  };
  const shape = (id: string, x: number, y: number, more: object = {}, held = false): void =>
    add(id, { kind: 'shape', layer: 'l', transform: [1, 0, 0, 1, x, y], path: square, fill: red, ...more }, held);
  const pressed = (id: string, ...steps: object[]) => ({ cues: press(id, ...steps) });
  shape('first', 30, 110, {}, true);
  shape('second', 60, 120, { alt: 'The second' }, true);
  add('sw', {
    ...box(20, 100),
    kind: 'switcher',
    alt: 'Cards',
    cards: [
      { id: 'c1', name: 'One', items: ['first'] },
      { id: 'c2', name: 'Two', items: ['second'], seconds: 5 },
    ],
    advance: { interval: 2, end: 'loop' },
  });
  shape('later', 20, 170, { alt: 'Later', ...pressed('q-next', { do: 'showCard', switcher: 'sw', card: 'next' }) });
  shape('dot', 120, 100, {}, true);
  shape('hint', 150, 100, { startsHidden: true, alt: 'A hint' }, true);
  add('pair', { kind: 'group', layer: 'l', transform: [1, 0, 0, 1, 0, 0], members: ['dot', 'hint'] });
  shape('both', 120, 140, {
    alt: 'Turn both round',
    ...pressed('q-both', { do: 'toggle', items: ['pair'], after: 0.5 }, { do: 'sendForm', href: 'https://marrowby.example/answers' }),
  });
  shape('link', 180, 140, {
    alt: 'Elsewhere',
    ...pressed('q-link', { do: 'go', destination: { to: 'address', href: 'https://marrowby.example/' } }),
  });
  add('veil', {
    ...box(220, 100, 69, 69),
    kind: 'veil',
    outline: [['M', 0, 0], ['L', 0, 69], ['L', 69, 69], ['Z']],
    flakeSize: 36,
    rest: 0.5,
    action: 'Show it',
    fill: red,
  });
  const field = (id: string, y: number, control: object, more: object = {}): void =>
    add(id, { ...box(320, y, 60, 14), kind: 'field', control, fieldName: id, label: `The ${id}`, ...more });
  field('tick', 100, { type: 'checkBox' }, { required: true });
  field('pick', 120, { type: 'radio', group: 'colour', value: 'dark red', on: true });
  field('words', 140, { type: 'text', lines: 'many', value: 'What (is) it?' });
  Object.assign(spread.pages[0]!, {
    transition: { style: 'wipe', seconds: 0.4, direction: 180 },
    advanceAfter: 6,
    cues: {
      'q-shown': {
        id: 'q-shown',
        trigger: { when: 'pageShown' },
        steps: [{ do: 'animate', items: ['dot'], kind: 'fade', seconds: 1 }],
      },
    },
  });
  return Folio.parse(folio);
}
