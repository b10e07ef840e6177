import { countWords, pagesOf, paragraphRole, paragraphsOf, readText } from '@elastic-folio/core';
import { findingsOf } from '@elastic-folio/core/check';
import { Composer } from '@elastic-folio/core/compose';
import { withDocument } from './openDocument.ts';
import type { InspectResult } from './results.ts';

/** Looks into a document: what is in it and what should be looked at. */
export function inspect(file: string): Promise<InspectResult> {
  return withDocument(file, async ({ folio, fontsOf, record }) => {
    const fonts = await fontsOf(folio);
    const composition = new Composer(fonts).compose(folio);
    const places = new Map<string, number>();
    let words = 0;
    for (const story of Object.values(folio.stories))
      for (const p of paragraphsOf(story)) {
        places.set(p.style, (places.get(p.style) ?? 0) + 1);
        words += countWords(readText(p));
      }
    return {
      title: folio.head.metadata.title,
      pages: pagesOf(folio).length,
      words,
      stories: Object.keys(folio.stories).length,
      items: Object.values(folio.spreads).reduce((n, s) => n + Object.keys(s.items).length, 0),
      paragraphStyles: Object.values(folio.head.paragraphStyles).map((s) => ({
        id: s.id,
        name: s.name,
        element: paragraphRole(folio.head, s.id).element,
        places: places.get(s.id) ?? 0,
      })),
      fonts: fonts.faces.map((f) => ({
        family: f.family,
        weight: f.weight,
        style: f.style,
        mayEmbed: f.mayEmbed,
        from: fonts.origins.get(f) ?? ('shipped' as const),
      })),
      findings: findingsOf(folio, composition, fonts),
      notTaken: record?.notTaken ?? [],
    };
  });
}
