/** The parts of `hyphen` that are used; the package brings no types. */
declare module 'hyphen/hyphen.js' {
  type Patterns = readonly unknown[];
  const createHyphenator: (
    patterns: Patterns,
    options: { hyphenChar: string; minWordLength: number; html: boolean },
  ) => (word: string) => string;
  export default createHyphenator;
}
declare module 'hyphen/patterns/*' {
  const patterns: readonly unknown[];
  export default patterns;
}
