import { applyEdit, Folio } from '@elastic-folio/core';
import type { Paragraph } from '@elastic-folio/core';
import { Composer } from '@elastic-folio/core/compose';
import type { FontSet } from '@elastic-folio/core/compose';
import { GlyphOutlines, paintItems } from '@elastic-folio/core/paint';
import { median } from './median.ts';

const [WIDTH, HEIGHT, MARGIN] = [420, 595, 48];
/** Pages that are seen at once: those a change must reach before the rest follows. */
const SEEN = 2;

/** The paragraphs of the Almanac's main feature. */
export function proseOf(source: Folio): Paragraph[] {
  const story = source.stories['dome-feature']!;
  return story.order.flatMap((id) => (story.blocks[id]?.kind === 'paragraph' ? [story.blocks[id]] : []));
}

/** A book of one chain: the paragraphs of a text repeated until they fill the pages, set justified by total fit. */
export function longFolio(source: Folio, paragraphs: readonly Paragraph[], pages: number): Folio {
  const perPage = 2500;
  const lengths = paragraphs.map((p) => p.content.reduce((n, c) => n + (c.type === 'span' ? c.text.length : 0), 0));
  const total = lengths.reduce((a, b) => a + b, 0);
  const rounds = Math.ceil((pages * perPage) / total);
  const blocks: Record<string, Paragraph> = {};
  for (let r = 0; r < rounds; r++)
    paragraphs.forEach((p, i) => {
      const content = p.content.filter((c) => c.type === 'span').map(({ link, ...span }) => (void link, span));
      blocks[`b${r}-${i}`] = { ...p, id: `b${r}-${i}`, content };
    });
  const numbers = Array.from({ length: pages }, (_, i) => i + 1);
  return Folio.parse({
    head: {
      ...source.head,
      id: `long-${pages}`,
      media: {},
      spreadOrder: numbers.map((n) => `s${n}`),
      storyOrder: ['t'],
      structure: {},
    },
    spreads: Object.fromEntries(
      numbers.map((n) => [
        `s${n}`,
        {
          id: `s${n}`,
          pages: [{ id: `page${n}`, box: { x: 0, y: 0, width: WIDTH, height: HEIGHT } }],
          items: {
            [`f${n}`]: {
              kind: 'textFrame',
              id: `f${n}`,
              layer: source.head.layerOrder[0],
              transform: [1, 0, 0, 1, MARGIN, MARGIN],
              size: { width: WIDTH - 2 * MARGIN, height: HEIGHT - 2 * MARGIN },
            },
          },
          order: [`f${n}`],
        },
      ]),
    ),
    stories: { t: { id: 't', blocks, order: Object.keys(blocks), frames: numbers.map((n) => ({ spread: `s${n}`, item: `f${n}` })) } },
  });
}

export interface LongChainTimes {
  pages: number;
  /** Setting all of it, cold. */
  composeMs: number;
  /** A letter typed on page 1, to the changed page painted: where no line moves, and where all do. */
  stillMs: number;
  movingMs: number;
  /** Memory of the composition for each page. */
  kibPerPage: number;
}

/** A letter typed on page 1 of a chain: the work until the pages that are seen are painted; the rest follows after. */
export function typeInLongChain(folio: Folio, fonts: FontSet): LongChainTimes {
  const seen = new Set(folio.stories['t']!.frames.slice(0, SEEN).map((f) => f.item));
  globalThis.gc?.();
  const heap = process.memoryUsage().heapUsed;
  let began = performance.now();
  const composer = new Composer(fonts);
  const set = composer.compose(folio);
  const composeMs = performance.now() - began;
  globalThis.gc?.();
  const kibPerPage = (process.memoryUsage().heapUsed - heap) / 1024 / set.frames.size;
  const outlines = new GlyphOutlines();
  const spread = folio.spreads['s1']!;
  let now = folio;
  const type = (text: string): number => {
    const place = { paragraphId: folio.stories['t']!.order[0]!, offset: 0 };
    began = performance.now();
    now = applyEdit(now, {
      kind: 'text.replace',
      args: { story: 't', from: place, to: place, content: [[{ type: 'span', text }]], newIds: [] },
    }).folio;
    const composition = composer.compose(now, { frames: seen });
    paintItems(now, composition, spread, { outlines, href: () => '', shown: () => true });
    const ms = performance.now() - began;
    while (!composer.goOn(50, () => performance.now()));
    return ms;
  };
  // A letter that leaves lines where they are; then words that push every line of the chain on.
  const still = Array.from({ length: 6 }, () => type('i'));
  const moving = Array.from({ length: 6 }, (_, i) => type(`${'another line of words that pushes all lines on '.repeat(2)}${i} `));
  return {
    pages: folio.head.spreadOrder.length,
    composeMs,
    stillMs: median(still.slice(1)),
    movingMs: median(moving.slice(1)),
    kibPerPage,
  };
}
