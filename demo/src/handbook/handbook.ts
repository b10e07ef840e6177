import { mm } from '@elastic-folio/core';
import { WIDTH } from '../art/drawing.ts';
import { eighths, hill, rope, section, terrace, third } from '../art/drawingsOfThePlace.ts';
import {
  adaptation,
  curve,
  figures,
  hopping,
  logPage,
  moons,
  phases,
  planets,
  powers,
  sidereal,
  smudges,
  tube,
} from '../art/drawingsOfTheSky.ts';
import { lettering } from '../art/lettering.ts';
import type { Lettering } from '../art/lettering.ts';
import { nightSky } from '../art/scenes.ts';
import { ink, para, pageOf, SampleAssembly, soft, strong, tab } from '../sampleAssembly.ts';
import type { BlockInput, Piece, Sample } from '../sampleAssembly.ts';
import { parseProse, wordsOf } from './parseProse.ts';
import type { Entry, Prose } from './parseProse.ts';
import { glossary, partFour } from './partFour.ts';
import { partOne } from './partOne.ts';
import { partThree } from './partThree.ts';
import { partTwo } from './partTwo.ts';
import { handbookStyles, STEP } from './styles.ts';

const [W, H] = [mm(148), mm(210)];
/** Margins at the fold, outside, above and below. */
const [INNER, OUTER, TOP, FOOT] = [52, 62, 66, 72];
const TEXT = W - INNER - OUTER;
/** Pages of the text from the preface to the index. */
const BODY_PAGES = 77;
const FRONT = ['i', 'ii', 'iii', 'iv'];

const DRAWINGS: Record<string, (letter: Lettering) => string> = {
  hill,
  section,
  adaptation,
  eighths,
  tube,
  powers,
  sidereal,
  figures,
  hopping,
  phases,
  planets,
  moons,
  curve,
  smudges,
  rope,
  terrace,
  third,
  page: logPage,
};

/** Terms that the index leads to besides those of the glossary. */
const INDEX = [
  'chart',
  'children',
  'dew',
  'dome',
  'drawing',
  'frost',
  'guests',
  'kettle',
  'ladder',
  'lens',
  'moon',
  'planet',
  'rail',
  'red lamp',
  'rope',
  'terrace',
  'wheel',
  'wind',
  'workshop',
];

/** Handbook for Volunteer Observers: a book of four parts with everything that a book has. */
export async function handbook(): Promise<Sample> {
  const b = new SampleAssembly('observers-handbook', 'Handbook for Volunteer Observers', {
    description: 'What one needs to know on the hill, from the kettle to the log.',
    subjects: ['observatory', 'volunteering', 'night sky'],
    cover: 'night',
  });
  b.head.facingPages = true;
  b.head.baselineGrid = { start: TOP, step: STEP };
  handbookStyles(b);
  masters(b);
  const letter = await lettering();
  await b.art('night', 'Night over the hill', nightSky(900, 1276));
  for (const [key, draw] of Object.entries(DRAWINGS)) await b.art(key, `Drawing: ${key}`, draw(letter), 'png');
  const parts = [partOne, partTwo, partThree, partFour].map((source) => parseProse(source, b));
  const frames = pages(b);
  front(
    b,
    parts.flatMap((p) => p.entries),
  );
  const blocks = [...preface, ...parts.flatMap((p) => p.blocks), ...glossaryBlocks(), ...indexBlocks(b, parts)];
  b.story('handbook-text', frames, blocks, {}, pictures(b, parts));
  b.strand(
    'front',
    'Front matter',
    ['cover-night', 'cover-words', 'imprint', 'contents-1', 'contents-2'].map((item, i) => ({
      spread: ['opening', 'opening', 'spread-1', 'spread-1', 'spread-2'][i]!,
      item,
    })),
  );
  b.strand('handbook', 'Handbook', frames);
  return b.finish();
}

/** Left and right pages: the number outside at the foot, the running head above. */
function masters(b: SampleAssembly): void {
  for (const side of ['left', 'right'] as const) {
    const master = b.master(side, side === 'left' ? 'Left page' : 'Right page');
    const [x, right] = side === 'left' ? [OUTER, ''] : [INNER, 'Right'];
    const number = master.text(`number-${side}`, [x, H - 46, TEXT, 14]);
    b.story(
      `number-${side}-text`,
      [number],
      [para(`pageNumber${right}`, { type: 'field', id: `number-${side}-field`, field: 'pageNumber' })],
    );
    const running = master.text(`running-${side}`, [x, 34, TEXT, 14]);
    b.story(
      `running-${side}-text`,
      [running],
      [para(`runningHead${right}`, { type: 'field', id: `running-${side}-field`, field: side === 'left' ? 'title' : 'sectionName' })],
    );
    master.shape(
      `rule-${side}`,
      [
        ['M', x, 52],
        ['L', x + TEXT, 52],
      ],
      { stroke: { paint: ink('amber'), weight: 0.6 } },
    );
  }
}

/** Spreads of two pages from page ii on; the frame of the running text on each from page v. Gives the chain. */
function pages(b: SampleAssembly): { spread: string; item: string }[] {
  const chain: { spread: string; item: string }[] = [];
  const total = FRONT.length + BODY_PAGES;
  const page = (n: number): { id: string; width: number; height: number; master?: string; number: string } => ({
    id: `page-${n}`,
    width: W,
    height: H,
    // What stands before the text is numbered in small roman numerals, and the text begins at 1.
    number: FRONT[n - 1] ?? String(n - FRONT.length),
    ...(n > 2 && { master: n % 2 ? 'right' : 'left' }),
  });
  b.spread('opening', [page(1)]);
  for (let n = 2; n <= total; n += 2) {
    const here = [n, n + 1].filter((k) => k <= total);
    const id = `spread-${n / 2}`;
    const s = b.spread(id, here.map(page));
    here.forEach((k, i) => {
      if (k <= FRONT.length) return;
      const left = i * W + (k % 2 ? INNER : OUTER);
      chain.push(s.text(`text-${k}`, [left, TOP, TEXT, H - TOP - FOOT], { firstBaseline: 'leading' }));
    });
  }
  return chain;
}

function front(b: SampleAssembly, entries: readonly Entry[]): void {
  const cover = b.on('opening');
  cover.picture('cover-night', 'night', [0, 0, W, H], { alt: 'A night sky full of stars over the dark ridge of the hill.' });
  const words = cover.text('cover-words', [46, 70, W - 92, 420]);
  b.story(
    'cover-text',
    [words],
    [
      para('bookTitle', ['Handbook', soft, 'for Volunteer', soft, 'Observers'], { overrides: { spaceAfter: 18 } }),
      para('bookLine', ['Marrowby Hill Observatory', soft, 'Ninth edition, set large, for reading by a red lamp']),
    ],
  );
  const imprint = b.on('spread-1').text('imprint', [OUTER, H - FOOT - 150, TEXT, 150], { verticalAlign: 'bottom' });
  b.story(
    'imprint-text',
    [imprint],
    [
      para(
        'imprint',
        'Written by the keepers, seconds and observers of Marrowby Hill, who have corrected one another for eight editions and will go on doing so.',
      ),
      para(
        'imprint',
        'The drawings were made at the eyepiece, on the terrace and at the kitchen table. Copy whatever you need; say where it comes from.',
      ),
      para('imprint', 'If something in this book is wrong, tell the keeper of the night, and write it in the log.'),
    ],
  );
  const lines = entries.filter((e) => e.kind === 'part' || e.kind === 'chapter');
  const line = (style: string, text: string, target: string): BlockInput => para(style, [text, tab, pageOf(b.id('ref'), target)]);
  const contents = [
    b.on('spread-1').text('contents-1', [W + INNER, TOP, TEXT, H - TOP - FOOT]),
    b.on('spread-2').text('contents-2', [OUTER, TOP, TEXT, H - TOP - FOOT]),
  ];
  b.story('contents-text', contents, [
    para('frontHead', 'What is in this book', { overrides: { breakBefore: 'none' } }),
    line('contents2', 'Before you begin', 'preface'),
    ...lines.map((e) => line(e.kind === 'part' ? 'contents1' : 'contents2', e.text, e.id)),
    line('contents1', 'Words and what they mean', 'glossary'),
    line('contents1', 'Where to find it', 'index'),
    para('contents1', 'Tables', {
      overrides: { spaceBefore: 30, ruleAbove: { weight: 0.6, offset: 20, paint: ink('amber'), width: 'column' } },
    }),
    ...entries.filter((e) => e.kind === 'table').map((e) => line('contents2', firstSentence(e.text), e.id)),
  ]);
}

const firstSentence = (text: string): string => /^[^.:]+/.exec(text)![0];

const preface: BlockInput[] = [
  para('frontHead', 'Before you begin', { id: 'preface' }),
  para(
    'opening',
    'This book is kept on the nail beside the door, and it is meant to be taken down. Its corners are round because it lives in coat pockets; its letters are large because it is read in the dark. Nobody will ever examine you on it.',
  ),
  para(
    'running',
    'It was first written by a keeper who had broken a leg and could not come up for a winter. Every edition since has been corrected by the people who did stand there. Where they disagreed, both opinions were printed, until one of them turned out to be right.',
  ),
  para(
    'running',
    'Read the first part before your first night, and the last part before your second. The middle can wait until it is cloudy. There is a list of words at the end, and after it a list of where to find things.',
  ),
  para(
    'running',
    'A last word. The observatory belongs to nobody and is open to everybody, and it has gone on for a hundred and twelve winters for one reason only: there has always been somebody who came up, lit the stove, and turned the dome. For the evenings on which that is you, thank you.',
  ),
];

/** Drawings, each as wide as the text, in its height. */
function pictures(b: SampleAssembly, parts: readonly Prose[]) {
  return parts
    .flatMap((p) => p.figures)
    .map(({ key, alt }) => {
      const file = b.head.media[key]!;
      const size = { width: TEXT, height: (TEXT * file.height!) / WIDTH };
      return {
        kind: 'picture' as const,
        id: `picture-${key}`,
        layer: 'art',
        transform: [1, 0, 0, 1, 0, 0] as [number, number, number, number, number, number],
        size,
        media: key,
        placement: [size.width, 0, 0, size.height, 0, 0] as [number, number, number, number, number, number],
        alt,
      };
    });
}

const glossaryBlocks = (): BlockInput[] => [
  para('frontHead', 'Words and what they mean', { id: 'glossary' }),
  ...glossary.map(([term, meaning]) => para('term', [strong(term), ` – ${meaning}.`])),
];

/** Each term with the first page of every chapter that speaks of it, five at most. */
function indexBlocks(b: SampleAssembly, parts: readonly Prose[]): BlockInput[] {
  const chapters: { id: string; words: string }[][] = [];
  for (const block of parts.flatMap((p) => p.blocks)) {
    if ('table' in block) continue;
    if (block.style === 'chapter') chapters.push([]);
    const id = block.id ?? (block.id = b.id('text'));
    chapters[chapters.length - 1]?.push({ id, words: wordsOf(block.text).toLowerCase() });
  }
  const terms = [...new Set([...glossary.map(([t]) => t), ...INDEX])].sort((x, y) => x.localeCompare(y, 'en'));
  const lines = terms.flatMap((term): BlockInput[] => {
    const pattern = new RegExp(`\\b${term.toLowerCase()}`);
    const found = chapters.flatMap((c) => c.find((p) => pattern.test(p.words))?.id ?? []).slice(0, 5);
    if (!found.length) return [];
    const pages = found.flatMap((id, i): Piece[] => [i ? ', ' : ' ', pageOf(b.id('ref'), id)]);
    return [para('indexLine', [term[0]!.toUpperCase() + term.slice(1), ...pages])];
  });
  return [para('frontHead', 'Where to find it', { id: 'index' }), ...lines];
}
