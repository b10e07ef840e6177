import type { Xml } from '../office/xml.ts';
import { el } from '../office/xml.ts';

const SVG_EXTENSION = '{96DAC541-7B7A-43D3-8B79-37D633B846F1}';
const SVG_NAMESPACE = 'http://schemas.microsoft.com/office/drawing/2016/SVG/main';

/** A picture to fill something with: `embed` or `link` name it by a relationship, `svg` its drawing made of lines, for programs that show such. */
export interface Blip {
  embed?: string | undefined;
  link?: string | undefined;
  svg?: string | undefined;
}

/** `blipFill` of a picture (ISO/IEC 29500-1, 20.1.8.14), whole, stretched over its box. `prefix`: of the language that it stands in. */
export const blipFill = (prefix: 'pic' | 'p', { embed, link, svg }: Blip): Xml =>
  el(
    `${prefix}:blipFill`,
    {},
    el(
      'a:blip',
      { 'r:embed': embed, 'r:link': link },
      svg !== undefined &&
        el('a:extLst', {}, el('a:ext', { uri: SVG_EXTENSION }, el('asvg:svgBlip', { 'xmlns:asvg': SVG_NAMESPACE, 'r:embed': svg }))),
    ),
    el('a:stretch', {}, el('a:fillRect')),
  );
