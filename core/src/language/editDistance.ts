/** A text as the words, numbers and signs that fuzzy matches compare; each ideograph is one of its own (UAX 29 has none between them). */
export function tokensOf(text: string): string[] {
  return (
    text
      .toLowerCase()
      .match(/\p{Ideographic}|\p{Script=Hiragana}|\p{Script=Katakana}|[\p{L}\p{N}\p{M}]+(?:['’\-.][\p{L}\p{N}\p{M}]+)*|[^\s]/gu) ?? []
  );
}

/**
 * How many tokens must be put in, taken out or replaced to make one text of the other (Levenshtein, “Binary codes capable of correcting
 * deletions, insertions, and reversals”, 1966); `most`: more than that are not counted any further.
 */
export function editDistance(a: readonly string[], b: readonly string[], most = Infinity): number {
  if (a.length < b.length) return editDistance(b, a, most);
  if (a.length - b.length > most) return a.length - b.length;
  // What both begin and end with costs nothing.
  let from = 0;
  while (from < b.length && a[from] === b[from]) from++;
  let cut = 0;
  while (cut < b.length - from && a[a.length - 1 - cut] === b[b.length - 1 - cut]) cut++;
  const [long, short] = [a.slice(from, a.length - cut), b.slice(from, b.length - cut)];
  let row = Array.from({ length: short.length + 1 }, (_, i) => i);
  for (let i = 1; i <= long.length; i++) {
    const next = [i];
    let least = i;
    for (let j = 1; j <= short.length; j++) {
      const cost = Math.min(row[j]! + 1, next[j - 1]! + 1, row[j - 1]! + (long[i - 1] === short[j - 1] ? 0 : 1));
      next.push(cost);
      if (cost < least) least = cost;
    }
    if (least > most) return least;
    row = next;
  }
  return row[short.length]!;
}

/** How alike two texts are in percent: the share of the longer one’s tokens that stay. Unlike texts are never 100. */
export function percentAlike(a: readonly string[], b: readonly string[], least = 0): number {
  const longer = Math.max(a.length, b.length);
  if (!longer) return 100;
  const most = Math.floor(((100 - least) / 100) * longer);
  const distance = editDistance(a, b, most);
  return Math.floor(100 * (1 - distance / longer));
}
