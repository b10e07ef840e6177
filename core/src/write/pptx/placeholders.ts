import type { Folio } from '../../folio/folio.ts';
import { spreadInLayout } from '../../folio/joinedSpreads.ts';
import { paragraphRole } from '../../folio/resolve.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { headingLevel } from '../../structure/outline.ts';
import { isUnread, readingItems } from '../../structure/readingOrder.ts';
import type { TextPiece, WordsPiece } from '../../structure/textPieces.ts';

/** What of a slide fills the places that its layout keeps: the heading that it is found by, and its largest text. */
export interface Filled {
  title: WordsPiece | null;
  body: WordsPiece | null;
}

/** A text shorter than this is no body of a slide, in characters. */
const BODY = 80;

export function filledOf(folio: Folio, place: PagePlace, pieces: ReadonlyMap<string, readonly TextPiece[]>): Filled {
  const words = readingItems(folio, spreadInLayout(place))
    .filter((item) => !isUnread(folio, item.id))
    .flatMap((item) =>
      (pieces.get(item.id) ?? []).filter((p) => p.kind === 'words' && p.page === place.page.id && !p.note),
    ) as WordsPiece[];
  const headings = words.flatMap((piece) => {
    const levels = piece.blocks.map(({ block }) =>
      block.kind === 'paragraph' ? headingLevel(paragraphRole(folio.head, block.style).element) : null,
    );
    return levels.length && levels.every((l) => l) ? [{ piece, level: levels[0]! }] : [];
  });
  const title = headings.sort((a, b) => a.level - b.level)[0]?.piece ?? null;
  const long = words.filter((p) => p !== title && lengthOf(p) >= BODY).sort((a, b) => lengthOf(b) - lengthOf(a));
  return { title, body: long[0] ?? null };
}

const lengthOf = ({ blocks }: WordsPiece): number =>
  blocks.reduce(
    (sum, { block }) =>
      sum + (block.kind === 'paragraph' ? block.content.reduce((n, c) => n + (c.type === 'span' ? c.text.length : 1), 0) : 0),
    0,
  );
