import type { Folio } from '../../folio/folio.ts';
import { spreadInLayout } from '../../folio/joinedSpreads.ts';
import { readText } from '../../folio/text.ts';
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

/** `prompted`: its texts are prompts, of which the one with the most room is its body. */
export function filledOf(folio: Folio, place: PagePlace, pieces: ReadonlyMap<string, readonly TextPiece[]>, prompted = false): Filled {
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
  const others = words.filter((p) => p !== title);
  const roomOf = ({ rect }: WordsPiece): number => rect.width * rect.height;
  const long = prompted
    ? others.sort((a, b) => roomOf(b) - roomOf(a))
    : others.filter((p) => lengthOf(p) >= BODY).sort((a, b) => lengthOf(b) - lengthOf(a));
  return { title, body: long[0] ?? null };
}

/** Texts without those that fill places of layouts: in a template such places are empty, and say themselves what belongs there. */
export function withoutPlaces(
  folio: Folio,
  places: readonly PagePlace[],
  pieces: ReadonlyMap<string, readonly TextPiece[]>,
): Map<string, readonly TextPiece[]> {
  const filled = new Set<TextPiece | null>(
    places.flatMap((place) => Object.values(filledOf(folio, place, pieces, true)) as (TextPiece | null)[]),
  );
  return new Map([...pieces].map(([id, list]) => [id, list.filter((p) => !filled.has(p))]));
}

/** What the places of a slide say before somebody writes there. */
export const promptsOf = ({ title, body }: Filled): { title: string; body: string } => {
  const said = (piece: WordsPiece | null): string => {
    const first = piece?.blocks[0]?.block;
    return first?.kind === 'paragraph' ? readText(first) : '';
  };
  return { title: said(title), body: said(body) };
};

const lengthOf = ({ blocks }: WordsPiece): number =>
  blocks.reduce(
    (sum, { block }) =>
      sum + (block.kind === 'paragraph' ? block.content.reduce((n, c) => n + (c.type === 'span' ? c.text.length : 1), 0) : 0),
    0,
  );
