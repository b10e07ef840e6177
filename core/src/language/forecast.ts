import type { Folio } from '../folio/folio.ts';
import type { TextPart, TranslatedUnit } from '../folio/edition.ts';
import { signaturesOf } from './codes.ts';
import { primary } from './goesOut.ts';
import { newEdition } from './comingBack.ts';
import { wordsOf } from './parts.ts';
import { standingsOf } from './progress.ts';
import { pseudoTranslation } from './pseudo.ts';

/** Texts of the same meaning in two languages, by how many letters they have. */
export interface Lengths {
  source: number;
  target: number;
  texts: number;
}

/** What texts have to be known before they tell more than common practice does (own choice). */
const ENOUGH = { texts: 12, letters: 400 };

/**
 * How long texts of English become in other languages, by letters (common practice, from memory; handbooks of the trade differ by some
 * hundredths). Other pairs of languages are worked out by way of English.
 */
const FROM_ENGLISH: Record<string, number> = {
  en: 1,
  de: 1.32,
  fr: 1.22,
  it: 1.2,
  es: 1.23,
  pt: 1.22,
  nl: 1.22,
  sv: 1.08,
  da: 1.1,
  nb: 1.08,
  fi: 1.18,
  pl: 1.2,
  cs: 1.08,
  hu: 1.18,
  ro: 1.22,
  el: 1.25,
  tr: 1.12,
  ru: 1.18,
  uk: 1.15,
  bg: 1.18,
  he: 0.85,
  ar: 1,
  ja: 0.5,
  zh: 0.35,
  ko: 0.6,
};
const OTHERWISE = 1.2;

/** How much longer texts become in a language, and where that is known from. */
export interface Expected {
  ratio: number;
  from: 'memory' | 'practice';
  texts: number;
}

export function expectedLength(source: string, target: string, known: Lengths): Expected {
  if (known.texts >= ENOUGH.texts && known.source >= ENOUGH.letters)
    return { ratio: clamped(known.target / known.source), from: 'memory', texts: known.texts };
  const of = (language: string): number => FROM_ENGLISH[primary(language)] ?? OTHERWISE;
  return { ratio: clamped(of(target) / of(source)), from: 'practice', texts: 0 };
}

const clamped = (ratio: number): number => Math.min(3, Math.max(0.2, ratio));

/** How long the texts are that an edition has already. */
export function lengthsIn(folio: Folio, language: string): Lengths {
  const out = { source: 0, target: 0, texts: 0 };
  for (const { unit, standing } of standingsOf(folio, language)) {
    if (!standing?.target || standing.open || standing.changed) continue;
    out.source += wordsOf(unit.parts).length;
    out.target += wordsOf(standing.target).length;
    out.texts++;
  }
  return out;
}

/**
 * The document with what is open in a language as long as it may be expected to become: what can be set, to see what will not fit before
 * anything is translated. What is translated already stays as it is.
 */
export function inForecast(folio: Folio, language: string, ratio: number): Folio {
  const edition = folio.editions[language] ?? newEdition(language);
  const units: Record<string, TranslatedUnit> = { ...edition.units };
  for (const { unit, standing } of standingsOf(folio, language)) {
    if (standing?.target && !standing.open) continue;
    units[unit.id] = {
      ...(unit.before && { before: unit.before }),
      codes: signaturesOf(unit.codes),
      segments: unit.segments.map((s) => ({
        source: s.source,
        ...(s.glue && { glue: s.glue }),
        target: asLongAs(s.source, language, ratio),
        state: 'initial' as const,
      })),
    };
  }
  return { ...folio, editions: { ...folio.editions, [language]: { ...edition, units } } };
}

/**
 * Short texts grow more than long ones (W3C Internationalization, “Text size in translation”: of up to ten letters by two to three times,
 * of more than seventy by a third); figures as remembered, halved for a middle of the road.
 */
const moreForShort = (letters: number): number => (letters <= 10 ? 1.25 : letters <= 20 ? 1.15 : letters <= 30 ? 1.1 : 1);

function asLongAs(source: readonly TextPart[], language: string, ratio: number): TextPart[] {
  const letters = wordsOf(source).length;
  return pseudoTranslation(source, language, ratio > 1 ? ratio * moreForShort(letters) : ratio);
}
