import { ellipsePath, multiply, rectPath, rotation, translation } from '@elastic-folio/core';
import { almanacGerman } from '../editions/almanacGerman.ts';
import { almanacJapanese } from '../editions/almanacJapanese.ts';
import { editionOf } from '../editions/edition.ts';
import { featureGerman } from '../editions/german.ts';
import { domeAtDusk, hillMap, moon, nightSky, starChart, telescope, twilightPath } from '../art/scenes.ts';
import { SampleAssembly, ink, para, soft } from '../sampleAssembly.ts';
import type { Sample } from '../sampleAssembly.ts';
import { backCover, dial, table, twilight, twilightStory, walkEnds } from './laterPages.ts';
import { COLUMN, H, M, starburst, W } from './measures.ts';
import { worldArt, WORLDS } from '../fiveWorlds/worlds.ts';
import { bellAndFilm, soundAndFilm, twelveNights, worldsCarousel } from './liveParts.ts';
import { moonPhases, moonRiddle } from './moonPhases.ts';
import { almanacStyles } from './styles.ts';
import { diary, domeFeature, imprint, letterGerman, openingOnNight, skyInMarch } from './texts.ts';

/** The Marrowby Almanac, sixteen pages: a cover, seven spreads and a back cover. */
export async function marrowbyAlmanac(): Promise<Sample> {
  const b = new SampleAssembly('marrowby-almanac', 'The Marrowby Almanac', {
    description: 'A seasonal magazine from a small public observatory.',
    subjects: ['night sky', 'observatory'],
    cover: 'dusk',
  });
  almanacStyles(b);
  masters(b);
  await Promise.all([
    b.art('dusk', 'Dome at dusk', domeAtDusk(1400, 1800, 0.78)),
    b.art('nightSky', 'Night sky', nightSky(1400, 1800)),
    b.art('telescope', 'Telescope', telescope(1400, 1064)),
    b.art('chart', 'Star chart', starChart(1100)),
    b.art('twilight', 'Path at twilight', twilightPath(2000, 490)),
    b.art('map', 'Hill map', hillMap(1000, 640)),
    b.art('worlds-still', 'Panel of Five Worlds', worldArt(WORLDS[0]!, 960, 540)),
    soundAndFilm(b),
    ...[0.08, 0.25, 0.42, 0.5, 0.62].map((phase, i) => b.art(`moon${i + 1}`, `Moon ${i + 1}`, moon(260, phase), 'png')),
  ]);
  cover(b);
  feature(b);
  sky(b);
  const walk = twilight(b);
  table(b);
  dial(b);
  twilightStory(b, [...walk, diaryPage(b)]);
  backCover(b);
  b.transitions([
    { style: 'fade', seconds: 0.6 },
    { style: 'wipe', seconds: 0.5, direction: 180 },
    { style: 'push', seconds: 0.5, direction: 270 },
    { style: 'split', seconds: 0.6, axis: 'vertical', motion: 'outward' },
    { style: 'dissolve', seconds: 0.6 },
  ]);
  const sample = b.finish();
  const folio = twelveNights(sample.folio);
  const de = editionOf(folio, 'de', 'German', [featureGerman, almanacGerman], {
    overrides: { tightened: { 'twilight-text': { tracking: -4, wordSpace: 0.95, size: 0.97, leading: 0.96 } } },
  });
  const ja = editionOf(folio, 'ja', 'Japanese', [almanacJapanese], {
    overrides: { italics: 'bold', tightened: { 'table-text': { size: 0.93, leading: 0.93 } } },
  });
  return { ...sample, folio: { ...folio, editions: { de, ja } } };
}

/** Inner pages: the page number at the foot, the running section's name beside it. */
function masters(b: SampleAssembly): void {
  const inner = b.master('inner', 'Inner page');
  const number = inner.text('number', [0, H - 34, W, 14]);
  b.story('number-text', [number], [para('pageNumber', { type: 'field', id: 'number-field', field: 'pageNumber' })]);
  const running = inner.text('running-head', [M, H - 34, 220, 14]);
  b.story('running-head-text', [running], [para('runningHead', { type: 'field', id: 'section-field', field: 'sectionName' })]);
}

function cover(b: SampleAssembly): void {
  const s = b.spread('s1', [{ id: 'page-1', width: W, height: H }]);
  const picture = s.picture('cover-picture', 'dusk', [0, 0, W, H], {
    alt: 'The observatory on its hill at dusk, the slit of the dome lit from inside under a young moon.',
  });
  const masthead = s.text('cover-title', [M, 40, W - 2 * M, 150]);
  b.story('cover-masthead', [masthead], [para('season', 'Spring on the hill'), para('masthead', ['The Marrowby', soft, 'Almanac'])]);
  s.shape('cover-band', rectPath({ x: 0, y: H - 150, width: W, height: 150 }), {
    name: 'Band under the cover lines',
    fill: ink('night'),
    opacity: 0.55,
  });
  const lines = s.text('cover-lines', [M, H - 122, 320, 100]);
  b.story(
    'cover-lines-text',
    [lines],
    [
      para('coverLine', 'When the dome turns'),
      para('coverLine', 'Reading the sky in March'),
      para('coverLine', 'A letter from a guest'),
      para('coverLine', 'Diary: five evenings to come up for'),
    ],
  );
  s.shape('cover-burst', starburst(W - 108, H - 168, 64, 54, 24), { name: 'Starburst', fill: ink('straw'), layer: 'text' });
  const label = s.text('cover-label', [0, 0, 96, 48], {
    verticalAlign: 'centre',
    transform: multiply(translation(W - 156, H - 192), rotation(-9, 48, 24)),
  });
  b.story('cover-label-text', [label], [para('label', ['New: walks', soft, 'at twilight'])]);
  const note = s.text('cover-note', [M, 360, 240, 60], { layer: 'notes', inset: [6, 6, 6, 6], fill: ink('straw') });
  b.story('cover-note-text', [note], [para('note', 'Printer: copper foil on the masthead. Do not trap the moon.')]);
  b.decoration('cover-band', 'cover-burst');
  b.strand('cover', 'Cover', [masthead, picture, lines, label]);
}

function feature(b: SampleAssembly): void {
  const s = b.spread('s2', [
    { id: 'page-2', width: W, height: H },
    { id: 'page-3', width: W, height: H, master: 'inner' },
  ]);
  const night = s.picture('night-picture', 'nightSky', [0, 0, W, H], { alt: 'The band of the galaxy rising over a dark ridge.' });
  const words = s.text('night-words', [M, 450, W - 2 * M, 210]);
  b.story('night-words-text', [words], openingOnNight);
  const telescopePicture = s.picture('telescope-picture', 'telescope', [W + M, 46, W - 2 * M, 232], {
    alt: 'The long brass telescope pointing through the open slit of the dome.',
  });
  const caption = s.text('telescope-caption', [W + M, 284, W - 2 * M, 24]);
  b.story(
    'telescope-caption-text',
    [caption],
    [para('caption', 'The great tube at rest. Behind it, the slit is open a hand’s breadth more than the lens is wide.')],
  );
  const first = s.text('feature-1', [W + M, 322, W - 2 * M, 392], { columns: 2, gutter: 18 });

  const t = b.spread('s3', [
    { id: 'page-4', width: W, height: H, master: 'inner' },
    { id: 'page-5', width: W, height: H, master: 'inner' },
  ]);
  const second = t.text('feature-2', [M, 46, COLUMN, 666]);
  t.shape('quote-ground', ellipsePath(M + COLUMN + 18 + COLUMN / 2, 250, COLUMN / 2, 150), {
    name: 'Moon behind the quotation',
    fill: ink('fir', 0.14),
    opacity: 0.8,
  });
  const quote = t.text('quote', [0, 0, COLUMN - 50, 130], {
    verticalAlign: 'centre',
    transform: multiply(translation(M + COLUMN + 43, 185), rotation(-6, (COLUMN - 50) / 2, 65)),
  });
  b.story('quote-text', [quote], [para('quote', '“They go quiet; then they ask much better questions.”')]);
  const map = t.picture('map-picture', 'map', [M + COLUMN + 18, 440, COLUMN, 168], {
    alt: 'Map of the path from the mill in the valley up to the dome.',
    stroke: { paint: ink('text'), weight: 0.5 },
  });
  const mapCaption = t.text('map-caption', [M + COLUMN + 18, 614, COLUMN, 36]);
  b.story(
    'map-caption-text',
    [mapCaption],
    [para('caption', 'The path leaves the river at the mill and reaches the dome from the south.')],
  );
  const third = t.text('feature-3', [W + M, 420, W - 2 * M, 292], { columns: 2, gutter: 18, balance: true });
  t.shape('dusk-ground', rectPath({ x: W, y: 0, width: W, height: 390 }), {
    name: 'Dusk sky',
    fill: {
      type: 'gradient',
      gradient: {
        kind: 'linear',
        stops: [
          { offset: 0, paint: ink('night') },
          { offset: 0.6, paint: ink('dusk') },
          { offset: 1, paint: ink('straw') },
        ],
        transform: [0, 390, -390, 0, W, 0],
      },
    },
  });
  t.add({ kind: 'group', id: 'moons', layer: 'art', transform: [1, 0, 0, 1, 0, 0], members: ['moon-a', 'moon-b', 'moon-c'], opacity: 0.9 });
  for (const [i, id] of ['moon-a', 'moon-b', 'moon-c'].entries())
    t.picture(id, `moon${i + 2}`, [W + 90 + i * 150, 90 + i * 34, 110, 110], {
      alt: ['The moon at first quarter.', 'The moon three days before full.', 'The full moon.'][i]!,
    });
  const moonsCaption = t.text('moons-caption', [W + M, 348, 330, 34]);
  b.story(
    'moons-caption-text',
    [moonsCaption],
    [
      para(
        'caption',
        'Three evenings in one: at first quarter, three days before full, and full. The dome has to turn a little further each time.',
        { character: { fill: ink('night') } },
      ),
    ],
  );
  t.shape(
    'copper-line',
    [
      ['M', W + M, 404],
      ['L', 2 * W - M, 404],
    ],
    { name: 'Copper rule', stroke: { paint: ink('copper'), weight: 2, cap: 'round' }, layer: 'text' },
  );
  const note = t.text('copper-note', [W + 60, 330, 200, 40], { layer: 'notes', inset: [5, 5, 5, 5], fill: ink('straw') });
  b.story('copper-note-text', [note], [para('note', 'Printer: the rule below is the fifth ink.')]);

  b.story('dome-feature', [first, second, third], domeFeature, {
    toDiary: { id: 'toDiary', destination: { to: 'page', page: 'page-8' } },
    toSite: {
      id: 'toSite',
      destination: { to: 'address', href: 'https://marrowby.example/open-nights', window: 'new' },
      title: 'Open nights at Marrowby Hill',
    },
  });
  b.decoration('quote-ground', 'dusk-ground', 'copper-line');
  b.strand('dome', 'When the dome turns', [
    words,
    night,
    telescopePicture,
    caption,
    first,
    second,
    quote,
    map,
    mapCaption,
    { spread: 's3', item: 'moons' },
    moonsCaption,
    third,
  ]);
}

function sky(b: SampleAssembly): void {
  const s = b.spread('s4', [
    { id: 'page-6', width: W, height: H, master: 'inner' },
    { id: 'page-7', width: W, height: H, master: 'inner', background: ink('paper') },
  ]);
  const chart = s.picture('chart-picture', 'chart', [M - 6, 46, W - 2 * M + 12, W - 2 * M + 12], {
    alt: 'Round chart of the evening sky in March with nine figures of stars.',
  });
  const caption = s.text('chart-caption', [M, 572, W - 2 * M, 40]);
  b.story(
    'chart-caption-text',
    [caption],
    [para('caption', 'The sky over the hill in the middle of March, two hours after sunset. The rim is the horizon; north is at the top.')],
  );
  const moons = moonPhases(b, s);
  const phases = s.text('phases-caption', [M, 708, 262, 24]);
  const riddle = moonRiddle(b, s);
  b.story('phases-caption-text', [phases], [para('caption', 'The month in five evenings, one after another.')]);
  const title = s.text('sky-title', [W + M, 42, W - 2 * M, 112]);
  b.story('sky-title-text', [title], [para('darkTitle', ['Reading the sky', soft, 'in March'])]);
  const text = s.text('sky-text', [W + M, 160, W - 2 * M, 250], { columns: 2, gutter: 18, balance: true });
  b.story('sky-text-story', [text], skyInMarch);
  s.add({
    kind: 'textFrame',
    id: 'letter',
    layer: 'text',
    transform: [1, 0, 0, 1, W + M, 430],
    size: { width: W - 2 * M, height: 140 },
    inset: [14, 14, 14, 14],
    fill: ink('straw', 0.25),
    corner: { kind: 'round', radius: 10 },
    verticalAlign: 'centre',
  });
  b.story('letter-text', [{ spread: 's4', item: 'letter' }], letterGerman);
  s.shape(
    'comet',
    [['M', W + 282, 668], ['C', W + 232, 632, W + 150, 612, W + 52, 650], ['C', W + 150, 626, W + 232, 646, W + 282, 668], ['Z']],
    { name: 'Comet', fill: ink('dusk'), opacity: 0.6, blend: 'multiply' },
  );
  const worlds = worldsCarousel(b, s);
  b.decoration('comet');
  b.strand('sky', 'Reading the sky in March', [
    title,
    text,
    chart,
    caption,
    ...moons,
    phases,
    ...riddle,
    { spread: 's4', item: 'letter' },
    ...worlds,
  ]);
}

/** Pages 14 and 15: the end of the walk, then the diary. Gives the walk's last frame. */
function diaryPage(b: SampleAssembly): { spread: string; item: string } {
  const s = b.spread('s5', [
    { id: 'page-15', width: W, height: H, master: 'inner' },
    { id: 'page-8', width: W, height: H, master: 'inner' },
  ]);
  const last = walkEnds(b, s);
  s.shape('diary-bar', rectPath({ x: 2 * W - 22, y: 0, width: 22, height: H }), { name: 'Green bar', fill: ink('fir') });
  const text = s.text('diary', [W + M, 60, W - 2 * M - 14, 246]);
  b.story('diary-text', [text], diary, {
    toKeeper: { id: 'toKeeper', destination: { to: 'address', href: 'mailto:keeper@marrowby.example', window: 'same' } },
  });
  const map = s.picture('diary-map', 'map', [W + M, 310, W - 2 * M - 14, 194], {
    alt: 'The way up once more: from the river by the mill to the dome.',
    corner: { kind: 'round', radius: 12 },
    stroke: { paint: ink('text'), weight: 0.5 },
  });
  const mapCaption = s.text('diary-map-caption', [W + M, 508, W - 2 * M - 14, 14]);
  b.story(
    'diary-map-caption-text',
    [mapCaption],
    [para('caption', 'Forty minutes at an easy pace. The last bend is steeper than it looks.')],
  );
  const small = s.text('imprint', [W + M, 656, 350, 64], { verticalAlign: 'bottom' });
  b.story('imprint-text', [small], imprint);
  b.decoration('diary-bar');
  b.strand('diary', 'Diary', [text, map, mapCaption, ...bellAndFilm(b, s), small]);
  return last;
}
