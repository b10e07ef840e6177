import type { ExchangeJob } from '../../language/exchange.ts';

/** One format for translators, out: what it is for and how it is written. The way back is a reader of the same name. */
export interface ExchangeFormat {
  id: string;
  label: string;
  /** One line that says for whom it is right. */
  about: string;
  /** With its point. */
  extension: string;
  mediaType: string;
  write(job: ExchangeJob): string | Uint8Array | Promise<Uint8Array>;
}

/** The name and version by which files say what made them. */
export const TOOL = { id: 'elastic-folio', name: 'Elastic Folio', version: '1' };

/** What a translator is told of where a text stands. */
export const placeOf = (unit: { pages: readonly number[]; style?: string | undefined; says: string }): string =>
  [
    unit.pages.length === 1 ? `page ${unit.pages[0]}` : unit.pages.length ? `pages ${unit.pages.join(', ')}` : null,
    unit.style && `style ${unit.style}`,
    unit.says !== 'text' && unit.says,
  ]
    .filter(Boolean)
    .join('; ');
