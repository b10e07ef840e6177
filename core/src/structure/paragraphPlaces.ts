import type { Composition } from '../compose/marks.ts';
import type { Rect } from '../folio/geometry.ts';
import { transformRect, union } from '../folio/geometry.ts';
import { isMasterInstance } from '../folio/masters.ts';
import type { Spread } from '../folio/spread.ts';

/** Where a paragraph is seen: the part of it in one frame. */
export interface ParagraphPlace {
  paragraph: string;
  frame: string;
  /** In spread coordinates. */
  box: Rect;
}

/** Where the paragraphs of a spread’s own frames stand; not those of master pages. */
export function paragraphPlaces(composition: Composition, spread: Spread): ParagraphPlace[] {
  return Object.values(spread.items).flatMap((item) => {
    const frame = composition.frames.get(item.id);
    if (!frame || isMasterInstance(item.id)) return [];
    const boxes = new Map<string, Rect[]>();
    for (const { paragraph, x, baseline, ascent, descent, width, measure } of frame.lines) {
      const line = { x, y: baseline - ascent, width: Math.max(width, measure), height: ascent + descent };
      boxes.set(paragraph, [...(boxes.get(paragraph) ?? []), line]);
    }
    return [...boxes].map(([paragraph, lines]) => ({ paragraph, frame: item.id, box: transformRect(item.transform, union(lines)) }));
  });
}
