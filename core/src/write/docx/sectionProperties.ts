import { twips } from '../ooxml/lengths.ts';
import type { PageSetup } from '../office/pageSetup.ts';
import type { Child, Xml } from '../assets/xml.ts';
import { el, sequence } from '../assets/xml.ts';

const section = sequence('w:sectPr', [
  'w:headerReference',
  'w:footerReference',
  'w:type',
  'w:pgSz',
  'w:pgMar',
  'w:pgNumType',
  'w:cols',
] as const);

/** What a section says of its pages (ISO/IEC 29500-1, 17.6.17). */
export function sectionProperties(
  { size, top, right, bottom, left }: PageSetup,
  about: {
    columns?: number;
    gutter?: number;
    begins: 'nextPage' | 'continuous';
    header?: Child;
    footer?: Child;
    /** The number of its first page, where it does not go on from the one before. */
    number?: number | undefined;
  },
): Xml {
  const { columns = 1, gutter = 0, begins, header, footer, number } = about;
  return section({
    'w:headerReference': header,
    'w:footerReference': footer,
    'w:type': el('w:type', { 'w:val': begins }),
    'w:pgSz': el('w:pgSz', {
      'w:w': twips(size.width),
      'w:h': twips(size.height),
      'w:orient': size.width > size.height ? 'landscape' : undefined,
    }),
    'w:pgMar': el('w:pgMar', {
      'w:top': twips(top),
      'w:right': twips(right),
      'w:bottom': twips(bottom),
      'w:left': twips(left),
      'w:header': twips(top / 2),
      'w:footer': twips(bottom / 2),
      'w:gutter': 0,
    }),
    'w:pgNumType': number !== undefined && el('w:pgNumType', { 'w:start': number }),
    'w:cols': el('w:cols', columns > 1 ? { 'w:num': columns, 'w:space': twips(gutter), 'w:equalWidth': 1 } : { 'w:space': twips(12) }),
  });
}
