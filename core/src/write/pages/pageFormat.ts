import type { Format } from '../../ledger/format.ts';
import { isAddressOfWeb } from '../../folio/address.ts';
import type { Embed } from '../../folio/items.ts';
import type { WriteJob } from '../writer.ts';
import type { FixedPageWriter } from './planFixedPage.ts';

/** Roles as the elements a page of placed frames can hold (HTML: figcaption lives in figure only). */
const ROLES: Record<string, string> = { figcaption: 'p', pre: 'p', th: 'p', td: 'p', div: 'p' };

/** How pages of HTML are compared with what the document asks for. */
export const HTML_PAGES: Format = {
  roleFor: (element) => ROLES[element] ?? element,
  joinsParts: false,
  baselineTolerance: 0.75,
  linksCues: true,
  plays: true,
  acts: true,
};

/** What pages of HTML can hold, on the web and in a book. */
export const htmlPageWriter = (
  where: 'web' | 'book',
  job?: Pick<WriteJob<unknown>, 'folio' | 'others'>,
  text: 'live' | 'flowing' | 'shapes' | 'picture' = 'live',
): FixedPageWriter => ({
  ...(text === 'flowing' ? { flows: true } : text !== 'live' && { draws: text }),
  keepsColourSpaces: false,
  hasEffects: true,
  groupsMustBeReadTogether: true,
  linksCues: true,
  motion: { plays: true, turnsPages: where === 'web', fields: true, ...(job && { shows: (source) => isAtHand(source, job) }) },
});

/** Whether what an embed shows can be brought along, or is on the web. */
export function isAtHand(source: Embed['source'], { folio, others }: Pick<WriteJob<unknown>, 'folio' | 'others'>): boolean {
  switch (source.from) {
    case 'address':
      return isAddressOfWeb(source.href);
    case 'bundle':
      return folio.head.media[source.media]?.mediaType === 'application/zip';
    case 'folio':
      return !!others?.has(source.folio);
  }
}
