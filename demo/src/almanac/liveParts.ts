import { applyEdit, rectPath } from '@elastic-folio/core';
import type { Folio } from '@elastic-folio/core';
import type { SampleAssembly, SpreadBuilder } from '../sampleAssembly.ts';
import { bell } from '../art/sounding.ts';
import { film } from '../art/film.ts';
import { turningSky } from '../art/scenes.ts';
import { ink, para } from '../sampleAssembly.ts';
import { M, W } from './measures.ts';

type Entry = { spread: string; item: string };
const BELL_SECONDS = 4;
const [FILM_WIDTH, FILM_HEIGHT, FRAMES, PER_SECOND] = [480, 270, 36, 8];

/** The sound and the film, and a still picture of the film. */
export async function soundAndFilm(b: SampleAssembly): Promise<void> {
  const frames = Array.from({ length: FRAMES }, (_, i) => turningSky(FILM_WIDTH, FILM_HEIGHT, i / FRAMES));
  await Promise.all([
    b.art('turning-still', 'Sky over the dome', turningSky(FILM_WIDTH * 2, FILM_HEIGHT * 2, 0)),
    bell(BELL_SECONDS, [0.05, 1.1, 2.15]).then((bytes) => b.file('bell', 'bell.mp3', 'audio/mpeg', bytes, BELL_SECONDS)),
    film(frames, PER_SECOND, FILM_WIDTH, FILM_HEIGHT).then((bytes) =>
      b.file('turning', 'turning-sky.webm', 'video/webm', bytes, FRAMES / PER_SECOND),
    ),
  ]);
}

/** Another document inside a page: the five panels, one after another. */
export function worldsCarousel(b: SampleAssembly, s: SpreadBuilder): Entry[] {
  const [width, height] = [250, 250 * (9 / 16)];
  const embed = s.add({
    kind: 'embed',
    id: 'worlds',
    name: 'Five Worlds',
    alt: 'Five worlds that nobody has been to, one after another.',
    layer: 'text',
    transform: [1, 0, 0, 1, 2 * W - M - width, 584],
    size: { width, height },
    source: { from: 'folio', folio: 'five-worlds' },
    poster: 'worlds-still',
  });
  const caption = s.text('worlds-caption', [W + M, 690, 220, 30]);
  b.story('worlds-caption-text', [caption], [para('caption', 'From the exhibition in the dome: five worlds that nobody has been to.')]);
  return [embed, caption];
}

/** A film and a sound, and words that ring the bell. */
export function bellAndFilm(b: SampleAssembly, s: SpreadBuilder): Entry[] {
  const played = s.add({
    kind: 'media',
    id: 'turning-film',
    name: 'The sky turns',
    alt: 'The stars turn about the pole above the dome, a night in four seconds.',
    layer: 'text',
    transform: [1, 0, 0, 1, 2 * W - M - 14 - 160, 536],
    size: { width: 160, height: 90 },
    media: 'turning',
    poster: 'turning-still',
    loop: true,
    transcript: 'Without sound: the stars turn about the pole, once from dusk to dawn.',
  });
  const filmCaption = s.text('turning-caption', [2 * W - M - 14 - 160, 627, 160, 24]);
  b.story('turning-caption-text', [filmCaption], [para('caption', 'A night in four seconds: it is the stars that seem to turn.')]);
  const sound = s.add({
    kind: 'media',
    id: 'bell-sound',
    name: 'The bell',
    alt: 'The bell at the gate, three strokes.',
    layer: 'text',
    transform: [1, 0, 0, 1, W + M, 566],
    size: { width: 200, height: 40 },
    fill: ink('straw', 0.25),
    corner: { kind: 'round', radius: 6 },
    media: 'bell',
    transcript: 'A small bell is struck three times.',
  });
  const ring = s.text('ring-the-bell', [W + M, 544, 200, 16], {
    name: 'Ring the bell',
    cues: {
      'ring-cue': { id: 'ring-cue', trigger: { when: 'press' }, steps: [{ do: 'play', media: 'bell-sound' }] },
    },
  });
  b.story(
    'ring-text',
    [ring],
    [para('opening', 'Ring the bell at the gate ›', { character: { fontWeight: 700, size: 8.5, leading: 12 } })],
  );
  return [ring, sound, played, filmCaption];
}

const GRID = { spread: 's8', id: 'nights', rows: 3, columns: 4 };

/** The first of twelve boxes, its field and its words, which a grid then repeats. */
export function firstNight(b: SampleAssembly, s: SpreadBuilder): Entry[] {
  const [x, y] = [W + M, 384];
  s.shape('clear-box', rectPath({ x: 0, y: 0, width: 11, height: 11 }), {
    transform: [1, 0, 0, 1, x, y],
    stroke: { paint: ink('text'), weight: 0.8 },
    layer: 'text',
  });
  const field = s.add({
    kind: 'field',
    id: 'clear-tick',
    layer: 'text',
    transform: [1, 0, 0, 1, x, y],
    size: { width: 11, height: 11 },
    control: { type: 'checkBox' },
    fieldName: 'clear-1',
    label: 'Clear night 1',
  });
  const words = s.text('clear-words', [x + 18, y - 2, 96, 16]);
  b.story('clear-words-text', [words], [para('caption', 'Clear night 1')]);
  b.decoration('clear-box');
  return [field, words];
}

/** Twelve clear nights to tick, in a grid that stays one: its spacing can be changed as one thing. */
export const twelveNights = (folio: Folio): Folio =>
  applyEdit(folio, {
    kind: 'grid.set',
    args: {
      spread: GRID.spread,
      grid: {
        id: GRID.id,
        seeds: ['clear-box', 'clear-tick', 'clear-words'],
        rows: GRID.rows,
        columns: GRID.columns,
        dx: (W - 2 * M) / 4,
        dy: 24,
      },
    },
  }).folio;
