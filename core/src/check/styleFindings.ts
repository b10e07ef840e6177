import { canonicalJson } from '../folio/canonicalJson.ts';
import type { Folio } from '../folio/folio.ts';
import { resolveParagraphStyle } from '../folio/resolve.ts';
import type { ParagraphStyle } from '../folio/styles.ts';
import { paragraphsOf } from '../folio/traverse.ts';
import type { Finding } from './finding.ts';

/** Paragraph styles that are used and look the same though they are called differently. */
export function styleFindings(folio: Folio): Finding[] {
  const used = new Set(Object.values(folio.stories).flatMap((s) => [...paragraphsOf(s)].map((p) => p.style)));
  const byLook = new Map<string, ParagraphStyle[]>();
  for (const id of used) {
    const style = folio.head.paragraphStyles[id];
    if (!style) continue;
    const look = canonicalJson(resolveParagraphStyle(folio.head, id));
    byLook.set(look, [...(byLook.get(look) ?? []), style]);
  }
  return [...byLook.values()].flatMap((alike): Finding[] => {
    if (alike.length < 2) return [];
    const says = `These styles look the same: ${alike.map((s) => `“${s.name}”`).join(', ')}.`;
    return [{ code: 'style.alike', says, styles: alike.map((s) => s.id) }];
  });
}
