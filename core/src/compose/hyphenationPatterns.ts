type Patterns = readonly unknown[];
type Load = () => Promise<{ default: Patterns }>;

const american: Load = () => import('hyphen/patterns/en-us.js');

/** TeX's hyphenation patterns by language (BCP 47, lower case); English without a region is American. */
const LOADERS: Readonly<Record<string, Load>> = {
  da: () => import('hyphen/patterns/da.js'),
  de: () => import('hyphen/patterns/de-1996.js'),
  en: american,
  'en-us': american,
  'en-gb': () => import('hyphen/patterns/en-gb.js'),
  es: () => import('hyphen/patterns/es.js'),
  fr: () => import('hyphen/patterns/fr.js'),
  it: () => import('hyphen/patterns/it.js'),
  nl: () => import('hyphen/patterns/nl.js'),
  pt: () => import('hyphen/patterns/pt.js'),
  sv: () => import('hyphen/patterns/sv.js'),
};
const loaded = new Map<string, Patterns>();

/** The language whose patterns divide words of a language; none where there are none. */
function patternsFor(tag: string): string | undefined {
  const lower = tag.toLowerCase();
  return [lower, lower.split('-')[0]!].find((language) => Object.hasOwn(LOADERS, language));
}

/** Whether words of some of these languages can be divided only once `loadHyphenation` has been waited for. */
export const lacksHyphenation = (languages: Iterable<string>): boolean =>
  [...languages].some((tag) => {
    const language = patternsFor(tag);
    return language !== undefined && !loaded.has(language);
  });

/** Fetches what words of these languages are divided by: before text in them is set. All languages, where none are named. */
export async function loadHyphenation(languages: Iterable<string> = Object.keys(LOADERS)): Promise<void> {
  const wanted = new Set([...languages].flatMap((tag) => patternsFor(tag) ?? []));
  await Promise.all([...wanted].filter((l) => !loaded.has(l)).map(async (l) => loaded.set(l, (await LOADERS[l]!()).default)));
}

/** The patterns of a language; null where there are none. Throws where they have not been loaded: text would be set otherwise unseen. */
export function hyphenationPatterns(tag: string): Patterns | null {
  const language = patternsFor(tag);
  if (language === undefined) return null;
  const patterns = loaded.get(language);
  if (!patterns) throw new Error(`The hyphenation of ${language} was not loaded before text was set.`);
  return patterns;
}
