import { thousandths } from '../lengths.ts';
import type { Xml } from '../../assets/xml.ts';
import { el } from '../../assets/xml.ts';

const SVG_EXTENSION = '{96DAC541-7B7A-43D3-8B79-37D633B846F1}';
const SVG_NAMESPACE = 'http://schemas.microsoft.com/office/drawing/2016/SVG/main';

/** A picture to fill something with: `embed` or `link` name it by a relationship, `svg` its drawing made of lines, for programs that show such. */
export interface Blip {
  embed?: string | undefined;
  link?: string | undefined;
  svg?: string | undefined;
  /** What of it is cut away on each side, as shares of its size; less than nothing where its box is larger. */
  crop?: { left: number; top: number; right: number; bottom: number } | undefined;
  opacity?: number;
}

/** `blipFill` of a picture (ISO/IEC 29500-1, 20.1.8.14), stretched over its box. `prefix`: of the language that it stands in. */
export const blipFill = (prefix: 'pic' | 'p', { embed, link, svg, crop, opacity = 1 }: Blip): Xml =>
  el(
    `${prefix}:blipFill`,
    {},
    el(
      'a:blip',
      { 'r:embed': embed, 'r:link': link },
      opacity < 1 && el('a:alphaModFix', { amt: thousandths(opacity) }),
      svg !== undefined &&
        el('a:extLst', {}, el('a:ext', { uri: SVG_EXTENSION }, el('asvg:svgBlip', { 'xmlns:asvg': SVG_NAMESPACE, 'r:embed': svg }))),
    ),
    crop &&
      Object.values(crop).some((n) => Math.abs(n) > 1e-6) &&
      el('a:srcRect', { l: thousandths(crop.left), t: thousandths(crop.top), r: thousandths(crop.right), b: thousandths(crop.bottom) }),
    el('a:stretch', {}, el('a:fillRect')),
  );
