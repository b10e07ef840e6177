import type { TextPart } from '../folio/edition.ts';

/** A language’s names of months, by their numbers from 0, as they stand beside a day. */
function monthsOf(language: string): string[] {
  const format = new Intl.DateTimeFormat(language, { day: 'numeric', month: 'long', timeZone: 'UTC' });
  return Array.from(
    { length: 12 },
    (_, m) => format.formatToParts(new Date(Date.UTC(2024, m, 15))).find((p) => p.type === 'month')?.value ?? '',
  );
}

type Field = 'day' | 'month' | 'year';

/** Dates in figures of one language, with years of four: their order and what stands between (Unicode CLDR, by `Intl`). */
class Figures {
  private readonly order: Field[];
  private readonly pattern: RegExp | null;
  /** English without a country has both orders. */
  private readonly eitherWay: boolean;

  constructor(
    from: string,
    private readonly to: string,
  ) {
    const parts = new Intl.DateTimeFormat(from, { ...FIGURES, timeZone: 'UTC' }).formatToParts(new Date(Date.UTC(2024, 10, 22)));
    this.order = parts.flatMap((p) => (p.type === 'day' || p.type === 'month' || p.type === 'year' ? [p.type] : []));
    const [between] = parts.flatMap((p) => (p.type === 'literal' ? [p.value.trim()] : []));
    // Years, months and days with hyphens are the same in all languages (ISO 8601).
    const isOfAll = this.order[0] === 'year' && between === '-';
    const fields = this.order.map((f) => (f === 'year' ? '(\\d{4})' : '(\\d{1,2})'));
    const sign = `\\s?[${between === '-' ? '\\-' : between}]\\s?`;
    this.pattern = between?.length === 1 && !isOfAll ? new RegExp(`(?<![\\d./-])${fields.join(sign)}(?![/-]|\\.?\\d)`, 'gu') : null;
    this.eitherWay = from.toLowerCase() === 'en';
  }

  in(text: string): string {
    if (!this.pattern) return text;
    return text.replace(this.pattern, (whole: string, ...found: string[]) => {
      const at = (field: Field): string => found[this.order.indexOf(field)]!;
      let [day, month] = [at('day'), at('month')];
      if (this.eitherWay && Number(month) > 12) [day, month] = [month, day];
      else if (this.eitherWay && Number(day) <= 12 && day !== month) return whole;
      const date = new Date(Date.UTC(Number(at('year')), Number(month) - 1, Number(day)));
      if (date.getUTCDate() !== Number(day) || date.getUTCMonth() !== Number(month) - 1) return whole;
      const digits = day.length === 2 && month.length === 2 && /^0/.test(day + month) ? '2-digit' : 'numeric';
      return new Intl.DateTimeFormat(this.to, { ...FIGURES, day: digits, month: digits, timeZone: 'UTC' }).format(date);
    });
  }
}
const FIGURES = { day: 'numeric', month: 'numeric', year: 'numeric' } as const;

/** Dates in words of one language, and how another writes them (Unicode CLDR, by `Intl`). */
class Dates {
  private readonly months: string[];
  private readonly pattern: RegExp | null;

  constructor(
    from: string,
    private readonly to: string,
  ) {
    this.months = monthsOf(from);
    // Where months are numbers, dates in words cannot be told from other numbers.
    const inWords = this.months.every((m) => /^\p{L}{3,}\.?$/u.test(m));
    const month = `(${this.months.map((m) => m.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('|')})`;
    // Japanese and Chinese go on without a space.
    const end = '(?![^\\P{L}\\p{Script=Han}\\p{Script=Hiragana}\\p{Script=Katakana}]|\\p{N})';
    this.pattern = inWords
      ? new RegExp(
          `(?<![\\p{L}\\p{N}])(?:(\\d{1,2})(?:st|nd|rd|th|\\.|er|º)?\\s(?:de\\s)?${month}(?:,?\\s(?:de\\s)?(\\d{4}))?|${month}\\s(\\d{1,2})(?:st|nd|rd|th)?(?:,\\s(\\d{4}))?)${end}`,
          'giu',
        )
      : null;
  }

  /** Dates of a text as the other language has them; a day that no month has stays as it is. */
  in(text: string): string {
    if (!this.pattern) return text;
    return text.replace(this.pattern, (whole: string, ...found: (string | undefined)[]) => {
      const [day1, month1, year1, month2, day2, year2] = found;
      const month = this.months.findIndex((m) => m.toLowerCase() === (month1 ?? month2 ?? '').toLowerCase());
      const day = Number(day1 ?? day2);
      const year = year1 ?? year2;
      const date = new Date(Date.UTC(year === undefined ? 2024 : Number(year), month, day));
      if (month < 0 || date.getUTCDate() !== day) return whole;
      return new Intl.DateTimeFormat(this.to, {
        day: 'numeric',
        month: 'long',
        ...(year !== undefined && { year: 'numeric' }),
        timeZone: 'UTC',
      }).format(date);
    });
  }
}

const known = new Map<string, { words: Dates; figures: Figures }>();

/**
 * Dates that came over as the source’s language writes them, as the target’s language has them: “6 March 2026” is “6. März 2026”, and
 * “06/03/2026” of Great Britain “06.03.2026”. What could be two dates stays as it is.
 */
export function withDates(parts: readonly TextPart[], from: string, to: string): TextPart[] {
  const pair = `${from}\n${to}`;
  let dates = known.get(pair);
  if (!dates) known.set(pair, (dates = { words: new Dates(from, to), figures: new Figures(from, to) }));
  return parts.map((p) => (p.type === 'text' ? { ...p, text: dates.figures.in(dates.words.in(p.text)) } : p));
}
