import { Folio } from '@elastic-folio/core';
import type { FontSet } from '@elastic-folio/core/compose';
import {
  analyse,
  ChoiceOfTexts,
  comingBack,
  composeStories,
  fitFindings,
  goesOut,
  inEdition,
  isTakeable,
  Memory,
  newEdition,
  pseudoTranslation,
  taken,
  unitsOf,
  wordsOf,
} from '@elastic-folio/core/language';
import type { Inbound, MemoryUnit } from '@elastic-folio/core/language';
import { median } from './median.ts';

const DOCUMENTS = 10;
const UNITS = 100_000;

/** Numbers that look as if by chance and are the same each time (mulberry32). */
function chance(seed: number): () => number {
  let a = seed;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A memory of sentences like those of a document: each with some of its words replaced by others of it. */
function memoryLike(folio: Folio): Memory {
  const random = chance(1);
  const sources = goesOut(folio, ChoiceOfTexts.parse({ cut: 'sentences' })).units.flatMap((u) => u.segments.map((s) => wordsOf(s.source)));
  const words = sources.flatMap((s) => s.split(' '));
  const any = (): string => words[Math.floor(random() * words.length)]!;
  const units = Array.from({ length: UNITS }, (): MemoryUnit => {
    const share = random();
    const text = sources[Math.floor(random() * sources.length)]!.split(' ')
      .map((w) => (random() < share ? any() : w))
      .join(' ');
    return { source: [{ type: 'text', text }], target: [{ type: 'text', text }] };
  });
  return new Memory(units);
}

/** Cutting and counting ten of a document against a large memory, and against none. */
export function analysisTimes(folio: Folio, rounds: number) {
  const chosen = ChoiceOfTexts.parse({ cut: 'sentences' });
  const known = memoryLike(folio);
  const empty = new Memory();
  const go = (memory: Memory): number => {
    const began = performance.now();
    analyse(
      Array.from({ length: DOCUMENTS }, () => goesOut(folio, chosen).units),
      memory,
    );
    return performance.now() - began;
  };
  go(empty);
  go(known);
  const times = Array.from({ length: rounds }, () => ({ without: go(empty), with: go(known) }));
  return {
    withoutMs: median(times.map((t) => t.without)),
    withMs: median(times.map((t) => t.with)),
    ratio: median(times.map((t) => t.with / t.without)),
  };
}

const [TEXTS, PARAGRAPHS] = [2500, 8];

/** A document of many texts, each alone on its page, of sentences of another document. */
export function manyTexts(source: Folio): Folio {
  const sentences = goesOut(source, ChoiceOfTexts.parse({ cut: 'sentences' })).units.flatMap((u) =>
    u.kind === 'text' ? u.segments.map((s) => wordsOf(s.source)) : [],
  );
  const style = Object.values(source.head.paragraphStyles).find((s) => s.name === 'Running text')!.id;
  const numbers = Array.from({ length: TEXTS }, (_, i) => i + 1);
  const size = { width: 320, height: 1200 };
  return Folio.parse({
    head: {
      ...source.head,
      id: 'many-texts',
      media: {},
      masterPages: {},
      structure: {},
      spreadOrder: numbers.map((n) => `s${n}`),
      storyOrder: numbers.map((n) => `t${n}`),
    },
    spreads: Object.fromEntries(
      numbers.map((n) => [
        `s${n}`,
        {
          id: `s${n}`,
          pages: [{ id: `page${n}`, box: { x: 0, y: 0, width: 400, height: 1300 } }],
          items: { [`f${n}`]: { kind: 'textFrame', id: `f${n}`, layer: source.head.layerOrder[0], transform: [1, 0, 0, 1, 40, 40], size } },
          order: [`f${n}`],
        },
      ]),
    ),
    stories: Object.fromEntries(
      numbers.map((n) => {
        const ids = Array.from({ length: PARAGRAPHS }, (_, i) => `p${n}-${i}`);
        const text = (i: number): string => `${n}: ${sentences[(n * PARAGRAPHS + i) % sentences.length]!}`;
        const blocks = Object.fromEntries(
          ids.map((id, i) => [id, { kind: 'paragraph', id, style, content: [{ type: 'span', text: text(i) }] }]),
        );
        return [`t${n}`, { id: `t${n}`, blocks, order: ids, frames: [{ spread: `s${n}`, item: `f${n}` }] }];
      }),
    ),
  });
}

/** Taking 20,000 segments, with all that composing tells of them, against composing the same texts alone. */
export function importTimes(folio: Folio, fonts: FontSet, rounds: number) {
  const units = unitsOf(folio).filter((u) => u.paragraph !== undefined);
  const inbound: Inbound = {
    document: folio.head.id,
    source: 'en',
    target: 'de',
    segments: units.map((u) => ({
      unit: u.id,
      at: 0,
      source: u.parts,
      target: pseudoTranslation(u.parts, 'de'),
      state: 'translated',
      comments: [],
    })),
    passedOver: [],
  };
  // Nothing of an earlier round is known of a document that was read anew.
  const fresh = (): Folio => structuredClone(folio);
  const bring = (): number => {
    const document = fresh();
    globalThis.gc?.();
    const began = performance.now();
    const known = unitsOf(document);
    const storyOf = new Map(known.flatMap((u) => (u.story === undefined ? [] : [[u.id, u.story] as const])));
    const back = fitFindings(document, comingBack(document, inbound, 'de', known), fonts, storyOf);
    taken(undefined, back, new Set(back.segments.filter(isTakeable).map((s) => s.id)), 'a', 'b');
    return performance.now() - began;
  };
  const edition = taken(undefined, comingBack(folio, inbound, 'de'), new Set(inbound.segments.map((s) => s.unit)), 'a', 'b');
  const made = inEdition({ ...folio, editions: { de: { ...newEdition('de'), units: edition.units } } }, 'de');
  const stories = new Set(units.flatMap((u) => u.story ?? []));
  const alone = (): number => {
    const document = structuredClone(made);
    globalThis.gc?.();
    const began = performance.now();
    composeStories(document, fonts, stories);
    return performance.now() - began;
  };
  const times = Array.from({ length: rounds }, () => ({ alone: alone(), bring: bring() }));
  return {
    segments: inbound.segments.length,
    composingMs: median(times.map((t) => t.alone)),
    bringingMs: median(times.map((t) => t.bring)),
    ratio: median(times.map((t) => t.bring / t.alone)),
  };
}
