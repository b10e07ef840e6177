import { ellipsePath, multiply, rectPath, rotation, translation } from '@elastic-folio/core';
import type { Path, Stroke } from '@elastic-folio/core';
import { ink, para, soft } from '../sampleAssembly.ts';
import type { SpreadBuilder, SampleAssembly } from '../sampleAssembly.ts';
import { H, M, starburst, W } from './measures.ts';
import { fiveStars, questions, sideNotes, starDial, twilightWalk } from './laterTexts.ts';
import { firstNight } from './liveParts.ts';
import { lightAndDark } from './sunAndMoon.ts';

const pen = (swatch: string, weight: number, more: Partial<Stroke> = {}) => ({ paint: ink(swatch), weight, ...more });
/** A soft shadow below and to the right. */
const shadow = (blur: number, dx: number, dy: number, opacity = 0.45) => ({ paint: ink('night'), opacity, blur, dx, dy });
const SIDE = 104;

/** Pages 8 and 9: the walk at twilight, with notes in the margin and a moon among its words. */
export function twilight(b: SampleAssembly): { spread: string; item: string }[] {
  const s = b.spread('s6', [
    { id: 'page-9', width: W, height: H, master: 'inner' },
    { id: 'page-10', width: W, height: H, master: 'inner' },
  ]);
  const picture = s.picture('twilight-picture', 'twilight', [0, 0, 2 * W, 292], {
    alt: 'A line of people on the path up the hill after sunset, the blue shadow of the earth rising behind the ridge.',
  });
  const title = s.text('twilight-title', [M, 40, W - M, 120]);
  b.story(
    'twilight-title-text',
    [title],
    [para('title', ['A walk', soft, 'at twilight']), para('standfirst', 'How to lose the colours, one after another, and find the stars.')],
  );
  const caption = s.text('twilight-caption', [W + M, 300, 330, 30]);
  b.story(
    'twilight-caption-text',
    [caption],
    [para('caption', 'Half an hour after sunset, looking east from the second bend. The band above the ridge is our own shadow.')],
  );
  const first = s.text('twilight-1', [M + SIDE, 316, W - 2 * M - SIDE, 400]);
  const second = s.text('twilight-2', [W + M, 340, W - 2 * M, 376], { columns: 2, gutter: 18 });
  s.picture('twilight-moon', 'moon1', [W + W / 2 - 66, 430, 132, 132], {
    alt: 'The moon, a few days old, with its dark side faintly lit.',
    clip: ellipsePath(66, 66, 61, 61),
    wrap: { kind: 'shape', side: 'both', offset: 8 },
    effects: { outerShadow: shadow(9, 3, 4) },
  });
  b.strand('twilight', 'A walk at twilight', [title, picture, caption, first, second, { spread: 's6', item: 'twilight-moon' }]);
  return [first, second];
}

/** The walk’s text goes on over pages that lie apart, with its notes in the margin. */
export function twilightStory(b: SampleAssembly, frames: { spread: string; item: string }[]): void {
  b.story(
    'twilight-text',
    frames,
    twilightWalk,
    {},
    sideNotes.map(({ id, height }) => ({
      kind: 'textFrame' as const,
      id,
      layer: 'text',
      transform: [1, 0, 0, 1, -SIDE, 2] as [number, number, number, number, number, number],
      size: { width: SIDE - 16, height },
      inset: [0, 6, 0, 0] as [number, number, number, number],
    })),
  );
  for (const { id, text } of sideNotes) b.story(`${id}-text`, [{ spread: 'twilight-text', item: id }], [text]);
}

/** Pages 10 and 11: a table that goes on over the fold, and five stars under a heading across three columns. */
export function table(b: SampleAssembly): void {
  const s = b.spread('s7', [
    { id: 'page-11', width: W, height: H, master: 'inner' },
    { id: 'page-12', width: W, height: H, master: 'inner', background: ink('paper') },
  ]);
  const title = s.text('table-title', [M, 44, W - 2 * M, 104]);
  b.story('table-title-text', [title], [para('darkTitle', ['Light and dark,', soft, 'March to May'], { overrides: { spaceAfter: 4 } })]);
  const intro = s.text('table-intro', [M, 146, W - 2 * M, 50], { columns: 2, gutter: 18, balance: true });
  b.story(
    'table-intro-text',
    [intro],
    [
      para(
        'opening',
        'Every third day at Marrowby Hill, in winter time throughout. It is dark when the sun is eighteen degrees below the horizon; towards the end of May it no longer gets as far.',
      ),
    ],
  );
  const first = s.text('table-1', [M, 208, W - 2 * M, 504]);
  const second = s.text('table-2', [W + M, 46, W - 2 * M, 252]);
  b.story(
    'table-text',
    [first, second],
    [
      {
        table: {
          id: 'light-table',
          style: 'almanacTable',
          columns: [
            { width: 92, unit: 'pt' },
            { width: 62, unit: 'pt' },
            { width: 62, unit: 'pt' },
            { width: 78, unit: 'pt' },
            { width: 62, unit: 'pt' },
            { width: 1, unit: 'share' },
          ],
          rows: [['Day', 'Sun up', 'Sun down', 'Dark at', 'Moon’s age', 'Moonlight'], ...lightAndDark()].map((cells) => ({ cells })),
          paragraphStyles: { header: 'cellHead', body: 'cellText', first: 'cellDay' },
        },
      },
    ],
  );
  s.add({
    kind: 'textFrame',
    id: 'five-stars',
    layer: 'text',
    transform: translation(W + M, 318),
    size: { width: W - 2 * M, height: 172 },
    columns: 3,
    balance: true,
    gutter: 16,
    inset: [18, 18, 16, 18],
    fill: ink('fir', 0.1),
    stroke: pen('fir', 0.8),
    corner: { kind: 'inverse', radius: 14 },
  });
  const stars = { spread: 's7', item: 'five-stars' };
  b.story('five-stars-text', [stars], fiveStars);
  // Two of the five, as a telescope shows them: glow, gradient and blend mode on plain shapes.
  const eyepiece = (id: string, x: number): void =>
    void s.shape(id, ellipsePath(x, 600, 92, 92), {
      name: 'Field of an eyepiece',
      fill: {
        type: 'gradient',
        gradient: {
          kind: 'radial',
          stops: [
            { offset: 0, paint: ink('dusk'), opacity: 1 },
            { offset: 0.16, paint: ink('night'), opacity: 1 },
            { offset: 1, paint: ink('night'), opacity: 1 },
          ],
          transform: [92, 0, 0, 92, x, 600],
        },
      },
      stroke: pen('copper', 3),
      effects: { innerShadow: { paint: ink('text'), opacity: 0.8, blur: 18, dx: 4, dy: 6 } },
    });
  eyepiece('eyepiece-1', W + M + 122);
  eyepiece('eyepiece-2', 2 * W - M - 122);
  const star = (id: string, x: number, y: number, r: number, swatch: string): void =>
    void s.shape(id, starburst(x, y, r, r * 0.28, 4), {
      fill: ink(swatch),
      effects: { glow: { paint: ink(swatch), opacity: 0.9, blur: 14 } },
    });
  star('gold-star', W + M + 112, 594, 20, 'straw');
  star('blue-star', W + M + 146, 614, 12, 'paper');
  star('red-star', 2 * W - M - 122, 600, 24, 'dusk');
  const left = s.text('eyepiece-caption-1', [W + M, 700, 244, 26]);
  b.story('eyepiece-caption-1-text', [left], [para('caption', 'The upper Lantern is two stars.', { overrides: { align: 'centre' } })]);
  const right = s.text('eyepiece-caption-2', [2 * W - M - 244, 700, 244, 26]);
  b.story('eyepiece-caption-2-text', [right], [para('caption', 'The tip of the Spindle, deep red.', { overrides: { align: 'centre' } })]);
  b.decoration('eyepiece-1', 'eyepiece-2', 'gold-star', 'blue-star', 'red-star');
  b.strand('table', 'Light and dark', [title, intro, first, second, stars, left, right]);
}

/** Pages 12 and 13: the star dial, drawn in live outlines on night, and how to make it. */
export function dial(b: SampleAssembly): void {
  const s = b.spread('s8', [
    { id: 'page-13', width: W, height: H, background: ink('night') },
    { id: 'page-14', width: W, height: H, master: 'inner' },
  ]);
  const [cx, cy] = [W / 2, 400];
  const parts: string[] = [];
  const shape = (id: string, path: Path, more: Parameters<SpreadBuilder['shape']>[2] = {}): void => {
    s.shape(id, path, more);
    parts.push(id);
  };
  // A ring is two circles of which the inner one is left out (the even-odd rule).
  s.add({
    kind: 'shape',
    id: 'dial-rim',
    layer: 'art',
    transform: [1, 0, 0, 1, 0, 0],
    path: [...ellipsePath(cx, cy, 220, 220), ...ellipsePath(cx, cy, 176, 176)],
    fillRule: 'evenodd',
    fill: ink('straw'),
    alt: 'A star dial of two discs, the outer one divided into months, the inner one into hours, with a pointer.',
    effects: { outerShadow: shadow(14, 0, 6, 0.9) },
  });
  parts.push('dial-rim');
  shape('dial-disc', ellipsePath(cx, cy, 170, 170), {
    fill: ink('fir'),
    stroke: pen('straw', 1, { dashes: [2, 5], cap: 'round' }),
    effects: { innerShadow: { paint: ink('night'), opacity: 0.9, blur: 22, dx: 0, dy: 8 } },
  });
  for (let i = 0; i < 24; i++) {
    const a = (i * Math.PI) / 12;
    const at = (r: number): [number, number] => [cx + Math.sin(a) * r, cy - Math.cos(a) * r];
    shape(
      `dial-hour-${i}`,
      [
        ['M', ...at(i % 6 ? 160 : 150)],
        ['L', ...at(168)],
      ],
      { stroke: pen('straw', i % 6 ? 1 : 2.5, { cap: 'round' }) },
    );
    if (i % 2) continue;
    shape(
      `dial-month-${i}`,
      [
        ['M', ...at(180)],
        ['L', ...at(214)],
      ],
      { stroke: pen('night', 0.8) },
    );
  }
  shape(
    'dial-pointer',
    [
      ['M', cx, cy],
      ['L', cx + 96, cy - 196],
    ],
    { stroke: pen('copper', 6, { cap: 'round', endMarker: 'arrow', startMarker: 'circle' }), layer: 'text' },
  );
  s.add({
    kind: 'group',
    id: 'dial',
    layer: 'art',
    transform: [1, 0, 0, 1, 0, 0],
    members: parts,
  });
  s.shape(
    'dial-sweep',
    [
      ['M', cx + 110, cy - 226],
      ['C', cx + 190, cy - 186, cx + 246, cy - 96, cx + 248, cy + 4],
    ],
    { name: 'Turns this way', stroke: pen('paper', 2, { dashes: [7, 5], endMarker: 'arrow', startMarker: 'bar' }), layer: 'text' },
  );
  const words = s.text('dial-words', [M, 60, W - 2 * M, 96]);
  b.story(
    'dial-words-text',
    [words],
    [para('title', 'The hour, by the stars'), para('standfirst', 'Two discs of card, one pin, and a sky that turns once a day.')],
  );
  const caption = s.text('dial-caption', [M, 650, W - 2 * M, 40]);
  b.story(
    'dial-caption-text',
    [caption],
    [
      para('caption', 'The finished dial. The pointer lies along the two front stars of the Plough Horse.', {
        character: { fill: ink('paper') },
        overrides: { align: 'centre' },
      }),
    ],
  );

  const title = s.text('make-title', [W + M, 42, W - 2 * M, 62]);
  b.story('make-title-text', [title], [para('darkTitle', 'Make a star dial')]);
  const steps = s.text('make-steps', [W + M, 108, W - 2 * M, 300]);
  const icon = (id: string, path: Path) => ({
    kind: 'shape' as const,
    id,
    layer: 'text',
    transform: [1, 0, 0, 1, 0, 0] as [number, number, number, number, number, number],
    path,
    fill: ink('dusk'),
  });
  b.story('make-steps-text', [steps], starDial, {}, [
    icon('icon-cut', starburst(8, 7, 7, 3, 8)),
    icon('icon-mark', ellipsePath(7, 7, 6, 6)),
    icon('icon-join', [...ellipsePath(7, 7, 7, 7), ...ellipsePath(7, 7, 3, 3)]),
  ]);
  // Three snapshots, as if laid on the page: paper with a shadow, a picture, a little turn.
  const snapshot = (id: string, media: string, x: number, y: number, turn: number, alt: string): void => {
    const [w, h] = [150, 168];
    const place = multiply(translation(W + x, y), rotation(turn, w / 2, h / 2));
    s.shape(`${id}-paper`, rectPath({ x: 0, y: 0, width: w, height: h }), {
      transform: place,
      fill: ink('paper'),
      stroke: pen('text', 0.2),
      effects: { outerShadow: shadow(11, 3, 5) },
    });
    s.picture(id, media, [0, 0, w - 20, h - 44], { transform: multiply(place, translation(10, 10)), alt });
    b.decoration(`${id}-paper`);
  };
  snapshot('snap-dome', 'dusk', M + 4, 470, -5, 'The dome at dusk, a snapshot.');
  snapshot('snap-tube', 'telescope', M + 176, 488, 2, 'The great tube, a snapshot.');
  snapshot('snap-map', 'map', M + 348, 466, 6, 'The map of the path, a snapshot.');
  const note = s.text('make-caption', [W + M, 676, 330, 36]);
  b.story(
    'make-caption-text',
    [note],
    [
      para(
        'caption',
        'From the board in the hut: three snapshots by people who tried their dials, and found their way back without a watch.',
      ),
    ],
  );
  b.decoration('dial-sweep');
  b.strand('dial', 'The star dial', [
    words,
    { spread: 's8', item: 'dial' },
    caption,
    title,
    steps,
    ...firstNight(b, s),
    { spread: 's8', item: 'snap-dome' },
    { spread: 's8', item: 'snap-tube' },
    { spread: 's8', item: 'snap-map' },
    note,
  ]);
}

/** Page 14, left of the diary: where the walk ends, and questions. Gives the walk’s last frame. */
export function walkEnds(b: SampleAssembly, s: SpreadBuilder): { spread: string; item: string } {
  const from = s.text('walk-from', [M, 46, W - 2 * M, 18]);
  b.story('walk-from-text', [from], [para('jump', 'A walk at twilight, continued from page 9')]);
  const last = s.text('twilight-3', [M, 70, W - 2 * M, 190], { columns: 2, gutter: 18, balance: true });
  const asked = s.text('questions', [M, 304, W - 2 * M, 220], { columns: 2, gutter: 18, balance: true });
  s.shape(
    'questions-rule',
    [
      ['M', M, 284],
      ['L', W - M, 284],
    ],
    { stroke: pen('copper', 1.5, { dashes: [0.1, 5], cap: 'round' }) },
  );
  b.story('questions-text', [asked], questions);
  const picture = s.picture('walk-picture', 'dusk', [M, 540, W - 2 * M, 140], {
    alt: 'The dome against the last light, its slit open.',
    placement: [W - 2 * M, 0, 0, ((W - 2 * M) * 1800) / 1400, 0, -400],
    effects: { feather: { width: 22 } },
  });
  const caption = s.text('walk-caption', [M, 690, W - 2 * M, 24]);
  b.story(
    'walk-caption-text',
    [caption],
    [para('caption', 'The dome, seen from the bench. It is the stars that seem to turn.', { overrides: { align: 'centre' } })],
  );
  b.decoration('questions-rule');
  b.strand('walk-ends', 'End of the walk, questions', [from, last, asked, picture, caption]);
  return last;
}

/** The back cover: stars under a sheet of dusk that lightens them, a quotation, and the next issue. */
export function backCover(b: SampleAssembly): void {
  const s = b.spread('s10', [{ id: 'page-16', width: W, height: H }]);
  const picture = s.picture('back-picture', 'nightSky', [0, 0, W, H], { alt: 'The band of the galaxy, once more, over the ridge.' });
  s.shape('back-sheet', rectPath({ x: 0, y: 0, width: W, height: H }), {
    name: 'Dusk over the stars',
    blend: 'screen',
    opacity: 0.8,
    fill: {
      type: 'gradient',
      gradient: {
        kind: 'linear',
        stops: [
          { offset: 0, paint: ink('night'), opacity: 1 },
          { offset: 0.55, paint: ink('night'), opacity: 1 },
          { offset: 1, paint: ink('dusk'), opacity: 1 },
        ],
        transform: [0, H, -H, 0, 0, 0],
      },
    },
  });
  const words = s.text('back-words', [M + 20, 120, W - 2 * M - 40, 200], {
    verticalAlign: 'centre',
    effects: { outerShadow: shadow(6, 0, 2, 0.9) },
  });
  b.story(
    'back-words-text',
    [words],
    [para('backQuote', ['“It was heavy', soft, 'and then it was not.”']), para('backLine', 'From the log, by somebody aged six')],
  );
  s.add({
    kind: 'group',
    id: 'back-moons',
    layer: 'art',
    transform: [1, 0, 0, 1, 0, 0],
    members: [1, 2, 3, 4, 5].map((i) => `back-moon-${i}`),
    opacity: 0.85,
    effects: { glow: { paint: ink('straw'), opacity: 0.5, blur: 20 } },
  });
  for (let i = 1; i <= 5; i++) s.picture(`back-moon-${i}`, `moon${i}`, [M + 26 + (i - 1) * 86, 400 + Math.abs(i - 3) * 16, 92, 92]);
  s.add({
    kind: 'textFrame',
    id: 'back-next',
    layer: 'text',
    transform: translation(M, H - 150),
    size: { width: 260, height: 84 },
    inset: [12, 14, 12, 14],
    fill: ink('night'),
    opacity: 0.82,
    corner: { kind: 'bevel', radius: 12 },
    verticalAlign: 'centre',
  });
  b.story(
    'back-next-text',
    [{ spread: 's10', item: 'back-next' }],
    [para('coverLine', 'In summer: the copper comes off, a bat in the finder, and forty nights without dark')],
  );
  const note = s.text('back-note', [W - M - 220, H - 130, 220, 48], { layer: 'notes', inset: [5, 5, 5, 5], fill: ink('straw') });
  b.story('back-note-text', [note], [para('note', 'Printer: keep the foot free for the address label.')]);
  b.decoration('back-sheet', ...[1, 2, 3, 4, 5].map((i) => `back-moon-${i}`));
  b.strand('back', 'Back cover', [words, picture, { spread: 's10', item: 'back-next' }]);
}
