import { SOFT_HYPHEN } from '../folio/text.ts';
import createHyphenator from 'hyphen/hyphen.js';
import { hyphenationPatterns } from './hyphenationPatterns.ts';

/** Where and how often words may be divided, as a paragraph style says it. */
export interface HyphenationLimits {
  /** Least letters before and after the hyphen. */
  before: number;
  after: number;
  /** Most lines in a row that end with a hyphen; 0 is no limit. */
  inARow: number;
  /** Whether words written in capitals throughout may be divided. */
  capitals: boolean;
}

/** Words of one language that are remembered; beyond that all are let go, since looking them up anew is cheap. */
const MOST_WORDS = 40_000;
/** Longer "words" are no words: patterns would say nothing sensible about them. */
const LONGEST_WORD = 120;

class Language {
  private readonly words = new Map<string, readonly number[]>();
  private readonly mark: (word: string) => string;
  private readonly exceptions = new Map<string, readonly number[]>();

  constructor(patterns: readonly unknown[]) {
    // Words that the patterns would divide wrongly. The package keeps their places as counted in the word with its hyphens,
    // but puts them in as if counted without ("re-cogn-iza-nce"), so they are looked up here.
    for (const [word, places] of Object.entries((patterns[2] ?? {}) as Record<string, number[]>))
      this.exceptions.set(
        word,
        places.map((place, i) => place - i),
      );
    this.mark = createHyphenator(patterns, { hyphenChar: SOFT_HYPHEN, minWordLength: 2, html: false });
  }

  points(word: string): readonly number[] {
    let points = this.words.get(word);
    if (!points) {
      if (this.words.size >= MOST_WORDS) this.words.clear();
      this.words.set(word, (points = this.exceptions.get(word.toLowerCase()) ?? this.byPatterns(word)));
    }
    return points;
  }

  private byPatterns(word: string): number[] {
    const found: number[] = [];
    let offset = 0;
    for (const part of this.mark(word).split(SOFT_HYPHEN).slice(0, -1)) found.push((offset += part.length));
    return found;
  }
}

const languages = new Map<string, Language | null>();

function languageOf(tag: string): Language | null {
  let language = languages.get(tag);
  if (language === undefined) {
    const patterns = hyphenationPatterns(tag);
    languages.set(tag, (language = patterns ? new Language(patterns) : null));
  }
  return language;
}

const CAPITALS = /^\p{Lu}[\p{Lu}\p{M}’']+$/u;

/** What a UTF-16 unit is to a word: looked up once, since every character of a text is asked for. */
enum Part {
  Unknown,
  None,
  Letter,
  /** May stand within a word, not begin it: marks and apostrophes. */
  Within,
}
const parts = new Uint8Array(0x10000);

function partOf(unit: number): Part {
  const known = parts[unit]!;
  if (known !== Part.Unknown) return known;
  const c = String.fromCharCode(unit);
  return (parts[unit] = /\p{L}/u.test(c) ? Part.Letter : /[\p{M}’']/u.test(c) ? Part.Within : Part.None);
}

/**
 * Offsets inside `text[from..to)` where a word may be divided, counted from the beginning of `text`
 * (Liang's patterns). A word that holds soft hyphens is divided at these alone.
 */
export function hyphenPoints(text: string, from: number, to: number, language: string, limits: HyphenationLimits): number[] {
  const patterns = languageOf(language);
  if (!patterns) return [];
  const out: number[] = [];
  const soft = text.indexOf(SOFT_HYPHEN, from);
  if (soft >= 0 && soft < to) return out;
  for (let start = from; start < to; start++) {
    if (partOf(text.charCodeAt(start)) !== Part.Letter) continue;
    let end = start + 1;
    while (end < to && partOf(text.charCodeAt(end)) >= Part.Letter) end++;
    const length = end - start;
    if (length >= limits.before + limits.after && length <= LONGEST_WORD) {
      const word = text.slice(start, end);
      if (limits.capitals || !CAPITALS.test(word))
        for (const point of patterns.points(word)) if (point >= limits.before && length - point >= limits.after) out.push(start + point);
    }
    start = end;
  }
  return out;
}
