import type { Folio } from '../folio/folio.ts';
import type { Head } from '../folio/head.ts';
import type { Paragraph } from '../folio/story.ts';
import type { Role } from '../folio/styles.ts';
import { paragraphRole } from '../folio/resolve.ts';
import { readText } from '../folio/text.ts';
import { pagesOf, paragraphsOf, storyOfFrame } from '../folio/traverse.ts';
import { readingItems } from './readingOrder.ts';

/** The level of a heading’s element, 0 where it is none. */
export const headingLevel = (element: Role['element']): number => Number(/^h([1-6])$/.exec(element)?.[1] ?? 0);

/** What lists of contents say of a heading: its own text or other words; null where it is left out. */
export function outlineText(head: Pick<Head, 'structure'>, paragraph: string, text: string): string | null {
  const entry = head.structure.outline[paragraph];
  return entry?.leaveOut ? null : (entry?.text ?? text) || null;
}

export interface OutlineHeading {
  paragraph: Paragraph;
  level: number;
  /** Its own words. */
  text: string;
  role: Role;
  /** The frame in which its text begins. */
  frame: { spread: string; item: string };
}

/** All headings of a document in the order in which their texts begin to be read. */
export function headingsInOrder(folio: Folio): OutlineHeading[] {
  const stories = storyOfFrame(folio);
  const seen = new Set<string>();
  return [...new Set(pagesOf(folio).map((p) => p.spread))].flatMap((spread) =>
    readingItems(folio, spread).flatMap((item) => {
      const story = folio.stories[stories.get(item.id) ?? ''];
      if (!story || seen.has(story.id)) return [];
      seen.add(story.id);
      return [...paragraphsOf(story)].flatMap((paragraph): OutlineHeading[] => {
        const role = paragraphRole(folio.head, paragraph.style);
        const text = readText(paragraph).trim();
        const level = role.leaveOut ? 0 : headingLevel(role.element);
        return level && text ? [{ paragraph, level, text, role, frame: { spread: spread.id, item: item.id } }] : [];
      });
    }),
  );
}

/**
 * Roles with which headings begin at the first level and skip none: each level that is used becomes the next one after those
 * above it. By styles; empty where nothing is to be done.
 */
export function closedLevels(folio: Folio): Record<string, Role> {
  const used = [...new Set(headingsInOrder(folio).map((h) => h.level))].sort((a, b) => a - b);
  const closed = new Map(used.map((level, i) => [level, i + 1]));
  return Object.fromEntries(
    Object.values(folio.head.paragraphStyles).flatMap((style): [string, Role][] => {
      const level = style.role ? headingLevel(style.role.element) : 0;
      const to = closed.get(level);
      return style.role && to && to !== level ? [[style.id, { ...style.role, element: `h${to}` as Role['element'] }]] : [];
    }),
  );
}
