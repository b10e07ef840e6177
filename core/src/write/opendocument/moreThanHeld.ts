import { resolveSpan } from '../../folio/resolve.ts';
import type { Head } from '../../folio/head.ts';
import type { Paragraph } from '../../folio/story.ts';
import type { CharacterProperties, ParagraphProperties } from '../../folio/styles.ts';

/** Whether a paragraph has formatting that OpenDocument has no words for: outlined or stretched letters, font features, own rules. */
export function hasMoreThanOpenDocument(
  head: Head,
  block: Paragraph,
  { character, paragraph }: { character: CharacterProperties; paragraph: ParagraphProperties },
): boolean {
  const all = [character, ...block.content.flatMap((n) => (n.type === 'span' ? [resolveSpan(head, character, n)] : []))];
  const isMore = all.some((c) => c.stroke !== null || c.verticalScale !== 1 || Object.values(c.features).some((on) => on > 0));
  return isMore || !!paragraph.ruleAbove || !!paragraph.ruleBelow;
}
