import { lengthOf } from './lengths.ts';
import { childOf, childrenOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

/** A sheet where the file names none: A4. */
export const PLAIN_PAGE = { width: 595.28, height: 841.89 };

/** The size of a page layout (16.5 style:page-layout), in points. */
export function pageSize(styles: XmlElement | null, name: string | undefined): { width: number; height: number } {
  const root = styles ?? undefined;
  for (const container of [childOf(root, 'office:automatic-styles'), childOf(root, 'office:styles')])
    for (const layout of container ? childrenOf(container, 'style:page-layout') : []) {
      if (layout.attributes['style:name'] !== name) continue;
      const a = childOf(layout, 'style:page-layout-properties')?.attributes ?? {};
      const [width, height] = [lengthOf(a['fo:page-width']), lengthOf(a['fo:page-height'])];
      if (width !== undefined && height !== undefined && width > 0 && height > 0) return { width, height };
    }
  return PLAIN_PAGE;
}
