import { composedSpread } from '../compose/anchored.ts';
import { listLabels } from '../compose/listLabels.ts';
import type { Composition } from '../compose/marks.ts';
import type { Folio } from '../folio/folio.ts';
import type { Paragraph, Story } from '../folio/story.ts';
import { readText } from '../folio/text.ts';
import { isOnHiddenLayer, itemBounds, pagesOf, pageOfItem } from '../folio/traverse.ts';
import { flowOf } from './flow.ts';
import type { FlowFigure, FlowParagraph } from './flow.ts';
import { distance } from './pageOrder.ts';
import { paragraphPlaces } from './paragraphPlaces.ts';
import type { ParagraphPlace } from './paragraphPlaces.ts';
import { isFigure } from './readingOrder.ts';

/** A picture that may be read at a paragraph, and why. */
export interface PinSuggestion {
  item: string;
  paragraph: string;
  reason: string;
}

/** A picture stands beside a paragraph if no more than this lies between them, in points (common practice: a gutter). */
const BESIDE = 36;
/** What takes more of its page than this stands beside nothing. */
const LARGE = 0.6;

/**
 * Where pictures that float in the layout may be pinned: at the paragraph that refers to their caption, by a field or in words
 * (“Figure 3”); else at the one they stand beside.
 */
export function suggestPins(folio: Folio, composition: Composition): PinSuggestion[] {
  const { pins, decorations } = folio.head.structure;
  const done = new Set([...Object.values(pins).map((p) => p.item), ...decorations]);
  const open = pagesOf(folio).some((p) => Object.values(p.spread.items).some((i) => isFigure(folio, i) && !done.has(i.id)));
  if (!open) return [];
  const shown = (item: Parameters<typeof isOnHiddenLayer>[1]): boolean => !isOnHiddenLayer(folio, item);
  const blocks = flowOf(folio, composition, { pages: composedPages(folio, composition), shown }).flatMap((s) => s.blocks);
  const paragraphs = blocks.filter((b): b is FlowParagraph => b.kind === 'paragraph');
  const mentions = mentionsOf(paragraphs);
  const places = new Map<string, ParagraphPlace[]>();
  return blocks.flatMap((b): PinSuggestion[] => {
    if (b.kind !== 'figure' || done.has(b.item.id)) return [];
    const referring = referringTo(folio, b, mentions);
    if (referring) return [{ item: b.item.id, ...referring }];
    if (!places.has(b.spread))
      places.set(b.spread, paragraphPlaces(composition, composedSpread(folio, composition, folio.spreads[b.spread]!)));
    const beside = besideOf(folio, b, places.get(b.spread)!, paragraphs);
    return beside ? [{ item: b.item.id, paragraph: beside, reason: 'it stands beside this paragraph' }] : [];
  });
}

const composedPages = (folio: Folio, composition: Composition) =>
  pagesOf(folio).map((p) => ({ ...p, spread: composedSpread(folio, composition, folio.spreads[p.spread.id]!) }));

/** Who speaks of what: by the paragraph that a field points at, and by words like “Figure 3”. */
function mentionsOf(paragraphs: readonly FlowParagraph[]): Map<string, string> {
  const out = new Map<string, string>();
  for (const { paragraph } of paragraphs) {
    for (const node of paragraph.content)
      if (node.type === 'field' && node.target !== undefined && !out.has(node.target)) out.set(node.target, paragraph.id);
    for (const [, word, number] of readText(paragraph).matchAll(NUMBERED)) {
      const key = keyOf(word!, number!);
      if (!out.has(key)) out.set(key, paragraph.id);
    }
  }
  return out;
}
const NUMBERED = /(?<!\p{L})(\p{L}{3,})\.?[\s\u00A0]*(\d+(?:[.–-]\d+)*)/gu;
const keyOf = (word: string, number: string): string => `${word.toLowerCase()} ${number}`;

function referringTo(folio: Folio, figure: FlowFigure, mentions: ReadonlyMap<string, string>): Omit<PinSuggestion, 'item'> | null {
  for (const { story, paragraph } of figure.captions) {
    const byField = mentions.get(paragraph.id);
    if (byField !== undefined && byField !== paragraph.id) return { paragraph: byField, reason: 'its caption is referred to there' };
    const label = labelOf(folio, story, paragraph);
    const said = label && mentions.get(keyOf(label.word, label.number));
    if (label && said && said !== paragraph.id) return { paragraph: said, reason: `“${label.word} ${label.number}” is named there` };
  }
  return null;
}

/** The word and number with which a caption begins, counted by its style or written out. */
function labelOf(folio: Folio, story: Story, paragraph: Paragraph): { word: string; number: string } | null {
  const counted = listLabels(folio.head, story, story.order).get(paragraph.id)?.text ?? '';
  const [found] = `${counted} ${readText(paragraph)}`.trimStart().matchAll(NUMBERED);
  return found?.index === 0 ? { word: found[1]!, number: found[2]! } : null;
}

/** The paragraph of running text next to a picture, beside most of its height. */
function besideOf(
  folio: Folio,
  { item, spread: id }: FlowFigure,
  places: readonly ParagraphPlace[],
  paragraphs: readonly FlowParagraph[],
): string | null {
  const spread = folio.spreads[id]!;
  const box = itemBounds(spread.items, item);
  const page = pageOfItem(spread, item);
  if (box.width * box.height > LARGE * page.box.width * page.box.height) return null;
  const text = new Set(paragraphs.filter((p) => p.role.element === 'p').map((p) => p.paragraph.id));
  const near = places.filter((p) => text.has(p.paragraph) && distance(p.box, box) <= BESIDE);
  const shared = (p: ParagraphPlace): number => Math.min(p.box.y + p.box.height, box.y + box.height) - Math.max(p.box.y, box.y);
  const best = near.reduce<ParagraphPlace | null>((a, b) => (a && shared(a) >= shared(b) ? a : b), null);
  return best && shared(best) > 0 ? best.paragraph : null;
}
