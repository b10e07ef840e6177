import type { Folio } from '../../folio/folio.ts';
import { hex, toRgb } from '../../folio/colour.ts';
import { emu } from '../ooxml/lengths.ts';
import type { Xml } from '../assets/xml.ts';
import { el, xmlFile } from '../assets/xml.ts';

/** Colours of a theme that a document’s own swatches can be (ISO/IEC 29500-1, 20.1.6.2). */
const OWN = [
  'a:dk2',
  'a:lt2',
  'a:accent1',
  'a:accent2',
  'a:accent3',
  'a:accent4',
  'a:accent5',
  'a:accent6',
  'a:hlink',
  'a:folHlink',
] as const;

/** The theme of a deck: the document’s colours and typefaces are those that programs offer first. */
export function themeFile({ head }: Folio, typefaces: { headings: string; text: string }): string {
  const swatches = Object.values(head.swatches).map((s) => hex(toRgb(s.colour)).slice(1).toUpperCase());
  const own = [...new Set(swatches)].filter((c) => c !== '000000' && c !== 'FFFFFF');
  const colour = (name: string, value: string): Xml => el(name, {}, el('a:srgbClr', { val: value }));
  const font = (name: string, family: string): Xml =>
    el(name, {}, el('a:latin', { typeface: family }), el('a:ea', { typeface: '' }), el('a:cs', { typeface: '' }));
  const ink = el('a:solidFill', {}, el('a:schemeClr', { val: 'phClr' }));
  const three = (x: Xml): Xml[] => [x, x, x];
  const name = (head.metadata.title || 'Folio').slice(0, 100);
  return xmlFile(
    el(
      'a:theme',
      { 'xmlns:a': 'http://schemas.openxmlformats.org/drawingml/2006/main', name },
      el(
        'a:themeElements',
        {},
        el(
          'a:clrScheme',
          { name },
          colour('a:dk1', '000000'),
          colour('a:lt1', 'FFFFFF'),
          // Where the document has fewer colours, greys from dark to light take their places.
          OWN.map((slot, i) => colour(slot, own[i] ?? `${(0x33 + i * 0x10).toString(16)}`.toUpperCase().repeat(3))),
        ),
        el('a:fontScheme', { name }, font('a:majorFont', typefaces.headings), font('a:minorFont', typefaces.text)),
        el(
          'a:fmtScheme',
          { name },
          el('a:fillStyleLst', {}, three(ink)),
          el('a:lnStyleLst', {}, three(el('a:ln', { w: emu(0.75) }, ink, el('a:prstDash', { val: 'solid' })))),
          el('a:effectStyleLst', {}, three(el('a:effectStyle', {}, el('a:effectLst')))),
          el('a:bgFillStyleLst', {}, three(ink)),
        ),
      ),
    ),
  );
}
