/** Characters that no text of a document has: controls other than tab and line ends (XML 1.0, 2.2), and halves of pairs. */
const UNFIT = /[\0-\x08\x0b\x0c\x0e-\x1f]/g; // eslint-disable-line no-control-regex
/** How JSON writes these, or a name that is part of every object: seldom enough that most bodies are passed over at a glance. */
const SUSPECT = /\\u00[01]|\\[bf]|\\ud[89a-f]|__proto__/i;

/** Whether what JSON says may hold what `cleaned` takes out. */
export const mayBeUnclean = (json: string): boolean => SUSPECT.test(json);

/** A value of JSON without characters that no output can carry; halves of pairs become U+FFFD. Names of all objects are left out. */
export function cleaned(value: unknown): unknown {
  if (typeof value === 'string') return wellFormed(value.replace(UNFIT, ''));
  if (Array.isArray(value)) return value.map(cleaned);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .filter(([key]) => key !== '__proto__')
      .map(([key, inside]) => [wellFormed(key.replace(UNFIT, '')), cleaned(inside)]),
  );
}

const wellFormed = (text: string): string => text.replace(/\p{Surrogate}/gu, '\ufffd');
