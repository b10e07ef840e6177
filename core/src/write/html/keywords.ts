import { createRequire } from 'node:module';
import type { Folio } from '../../folio/folio.ts';
import { readText } from '../../folio/text.ts';

/** Words that say nothing of what a text is about, by ISO 639-1 codes: JSON, which modules cannot import without a warning. */
const lists = createRequire(import.meta.url)('stopwords-iso') as Record<string, readonly string[]>;

/** Words that stand too near to nothing to be looked for. */
const SHORTEST = 4;
/** In scripts that write words with few signs. */
const SHORTEST_IN_SIGNS = 2;

/**
 * Words that stand out in a document's text: how often each is there, times how few of its texts have it (tf–idf: Spärck Jones
 * 1972; here with the logarithm of both, so that one long text does not decide alone). Words of single texts that are said once
 * stand out nowhere. The most telling come first.
 */
export function keywordsOf(folio: Folio, most = 8): string[] {
  const language = folio.head.metadata.language.split('-')[0]!.toLowerCase();
  const empty = new Set(lists[language] ?? []);
  const segmenter = new Intl.Segmenter(language, { granularity: 'word' });
  const said = new Map<string, { times: number; texts: number; written: Map<string, number> }>();
  let texts = 0;
  for (const story of Object.values(folio.stories)) {
    const here = new Set<string>();
    for (const block of Object.values(story.blocks)) {
      if (block.kind !== 'paragraph') continue;
      for (const { segment, isWordLike } of segmenter.segment(readText(block))) {
        const word = segment.toLocaleLowerCase(language);
        const shortest = /^[\p{sc=Han}\p{sc=Hira}\p{sc=Kana}\p{sc=Hang}]+$/u.test(word) ? SHORTEST_IN_SIGNS : SHORTEST;
        if (!isWordLike || [...word].length < shortest || /\d/.test(word) || empty.has(word)) continue;
        let known = said.get(word);
        if (!known) said.set(word, (known = { times: 0, texts: 0, written: new Map() }));
        known.times++;
        known.written.set(segment, (known.written.get(segment) ?? 0) + 1);
        if (!here.has(word)) known.texts++;
        here.add(word);
      }
    }
    if (here.size) texts++;
  }
  return [...said.values()]
    .filter((w) => w.times > 1)
    .map((w) => ({ w, weight: Math.log(1 + w.times) * Math.log(1 + texts / w.texts) * Math.sqrt(w.texts) }))
    .sort((a, b) => b.weight - a.weight || (oftenest(a.w.written) < oftenest(b.w.written) ? -1 : 1))
    .slice(0, most)
    .map(({ w }) => oftenest(w.written));
}

/** A word as it is mostly written. */
const oftenest = (written: ReadonlyMap<string, number>): string =>
  [...written].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))[0]![0];

/** More than these are no help to anybody. */
const MOST_KEYWORDS = 12;

/** What a document is listed under: its subjects, then the words that stand out in its text. */
export const keywordsFor = (folio: Folio): string[] =>
  [...new Set([...folio.head.metadata.subjects, ...keywordsOf(folio)])].slice(0, MOST_KEYWORDS);
