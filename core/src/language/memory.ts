import type { TextPart } from '../folio/edition.ts';
import { percentAlike, tokensOf } from './editDistance.ts';
import { keyOf, renumbered, wordsOf } from './parts.ts';

/** A pair of texts that was translated once. */
export interface MemoryUnit {
  source: TextPart[];
  target: TextPart[];
  /** The sources before and after it where it was translated, for telling that it is in the same place. */
  before?: string;
  after?: string;
  by?: string;
  at?: string;
  /** From where it came: the name of a document or of a file. */
  from?: string;
}

type MatchKind = 'inContext' | 'exact' | 'fuzzy';

export interface Match {
  unit: MemoryUnit;
  kind: MatchKind;
  /** 100 where text and codes are the same. */
  percent: number;
}

/** Matches below this are not offered (common practice). */
export const LEAST_FUZZY = 50;
/** A text with the same words and other codes is like it by so much less for each code (own choice: never “exact”). */
const CODE_COSTS = 1;
/** Tokens that are rarest are looked up first; those that nearly everything has tell nothing. */
const LOOKED_UP = 12;
const MOST_TRIED = 400;

interface Kept {
  unit: MemoryUnit;
  key: string;
  tokens: readonly string[];
}

/** Source without regard to what its codes are numbered, as one string. */
export const memoryKey = (parts: readonly TextPart[]): string => keyOf(renumbered(parts).parts);

/**
 * Everything that was translated from one language into another, found by an index: exact texts by their keys, similar ones by the
 * rarest words that they share.
 */
export class Memory {
  private readonly kept: Kept[] = [];
  private readonly byKey = new Map<string, number[]>();
  private readonly byToken = new Map<string, number[]>();

  constructor(units: Iterable<MemoryUnit> = []) {
    for (const unit of units) this.add(unit);
  }

  get size(): number {
    return this.kept.length;
  }

  *units(): Generator<MemoryUnit> {
    for (const { unit } of this.kept) yield unit;
  }

  add(unit: MemoryUnit): void {
    const key = memoryKey(unit.source);
    const tokens = tokensOf(wordsOf(unit.source));
    const at = this.kept.push({ unit, key, tokens }) - 1;
    put(this.byKey, key, at);
    for (const token of new Set(tokens)) put(this.byToken, token, at);
  }

  /** Units with the same source, those in the same place first; the newest of equal ones. */
  same(source: readonly TextPart[], around: { before?: string; after?: string } = {}): Match[] {
    const same = (this.byKey.get(memoryKey(source)) ?? []).map((at): Match => {
      const { unit } = this.kept[at]!;
      const inContext = isSame(unit.before, around.before) && isSame(unit.after, around.after);
      return { unit, kind: inContext ? 'inContext' : 'exact', percent: 100 };
    });
    return same.reverse().sort((a, b) => Number(b.kind === 'inContext') - Number(a.kind === 'inContext'));
  }

  /** The best matches of a text, the best first. */
  find(source: readonly TextPart[], around: { before?: string; after?: string } = {}, most = 5): Match[] {
    const found = this.same(source, around);
    const others = found.length >= most ? [] : this.alike(source, memoryKey(source));
    return dropDoubles([...found, ...others]).slice(0, most);
  }

  /** What is alike, the most alike first. */
  private alike(source: readonly TextPart[], key: string): Match[] {
    const tokens = tokensOf(wordsOf(source));
    if (!tokens.length) return [];
    const counts = new Map<number, number>();
    const rarest = [...new Set(tokens)]
      .map((token) => this.byToken.get(token) ?? [])
      .filter((list) => list.length)
      .sort((a, b) => a.length - b.length)
      .slice(0, LOOKED_UP);
    // Where half of the tokens of a text must be the same, one of its rarer half is among them; lists beyond need not be opened.
    for (const [i, list] of rarest.entries()) {
      if (i > 0 && list.length > MOST_TRIED * 4) continue;
      for (const at of list.length > MOST_TRIED * 8 ? list.slice(-MOST_TRIED * 8) : list) counts.set(at, (counts.get(at) ?? 0) + 1);
    }
    const tried = [...counts]
      .filter(([at]) => fits(this.kept[at]!.tokens.length, tokens.length) && this.kept[at]!.key !== key)
      .sort(([a, n], [b, m]) => m - n || b - a)
      .slice(0, MOST_TRIED);
    const found: Match[] = [];
    let least = LEAST_FUZZY;
    for (const [at] of tried) {
      const { unit, tokens: other } = this.kept[at]!;
      const words = percentAlike(tokens, other, least);
      if (words < least) continue;
      const codes = Math.abs(codesOf(source) - codesOf(unit.source)) || (words === 100 ? 1 : 0);
      const percent = Math.min(99, words - codes * CODE_COSTS);
      if (percent < LEAST_FUZZY) continue;
      found.push({ unit, kind: 'fuzzy', percent });
      if (found.length >= 5) least = Math.max(least, found.map((m) => m.percent).sort((a, b) => b - a)[4]!);
    }
    return found.sort((a, b) => b.percent - a.percent);
  }
}

const put = (map: Map<string, number[]>, key: string, at: number): void => {
  const list = map.get(key);
  if (list) list.push(at);
  else map.set(key, [at]);
};

/** An empty neighbour is the end of a text; one that is not known is no neighbour of anything. */
const isSame = (a: string | undefined, b: string | undefined): boolean => a !== undefined && a === b;

/** Texts of too unlike lengths cannot be half alike. */
const fits = (a: number, b: number): boolean => Math.min(a, b) * 100 >= Math.max(a, b) * LEAST_FUZZY;

const codesOf = (parts: readonly TextPart[]): number => parts.filter((p) => p.type === 'open' || p.type === 'code').length;

function dropDoubles(matches: readonly Match[]): Match[] {
  const seen = new Set<string>();
  return matches.filter(({ unit }) => {
    const key = `${memoryKey(unit.source)}\n${memoryKey(unit.target)}`;
    return !seen.has(key) && seen.add(key);
  });
}
