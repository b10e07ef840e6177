import { angleOf, lengthOf } from './lengths.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

/** Pixels to the inch of a pattern that is drawn as a picture, and the most of them across. */
const PPI = 200;
const MOST_PIXELS = 4000;
/** The thinnest line that every device draws (common practice): a hatch says nothing of its lines' weight. */
const HAIRLINE = 0.5;

interface Size {
  width: number;
  height: number;
}

/**
 * A hatch (OpenDocument 1.3 part 3, 14.10): lines at a distance and an angle, crossed once or twice; on a colour where it has
 * one. As an SVG of the size that it fills, in points.
 */
export function hatchSvg(hatch: XmlElement | undefined, ink: string, back: string | null, size: Size): string {
  const a = hatch?.attributes ?? {};
  const distance = Math.max(1, lengthOf(a['draw:distance']) ?? 6);
  const angle = angleOf(a['draw:rotation'], 'tenths') ?? 0;
  const line = (x: number, y: number): string => `<path d="M0 0L${x} ${y}" stroke="${ink}" stroke-width="${HAIRLINE}"/>`;
  const d = distance;
  const style = a['draw:style'] ?? 'single';
  const crossed = style === 'double' || style === 'triple' ? line(0, d) : '';
  // Diagonals of the squares, corner to corner: their ends meet those of the next square.
  const diagonal =
    style === 'triple' ? `<path d="M0 ${d}L${d} 0M${-d / 4} ${d / 4}L${d / 4} ${-d / 4}" stroke="${ink}" stroke-width="${HAIRLINE}"/>` : '';
  const pattern = `<pattern id="p" width="${d}" height="${d}" patternUnits="userSpaceOnUse" patternTransform="rotate(${-angle})">${line(d, 0)}${crossed}${diagonal}</pattern>`;
  return filled(size, pattern, back);
}

/** Where the first tile stands, as shares of what is free (20.138 draw:fill-image-ref-point). */
const PLACES: Record<string, [number, number]> = {
  'top-left': [0, 0],
  top: [0.5, 0],
  'top-right': [1, 0],
  left: [0, 0.5],
  center: [0.5, 0.5],
  right: [1, 0.5],
  'bottom-left': [0, 1],
  bottom: [0.5, 1],
  'bottom-right': [1, 1],
};

/** A picture repeated over what it fills: in its own size or in the one that the style gives, from a point of it on. */
export function tiledSvg(href: string, natural: Size, a: Record<string, string>, size: Size): string {
  const own = (text: string | undefined, whole: number): number | undefined => {
    const share = /^([\d.]+)%$/.exec(text ?? '')?.[1];
    return share === undefined ? lengthOf(text) : (Number(share) / 100) * whole;
  };
  const width = Math.max(1, own(a['draw:fill-image-width'], size.width) || natural.width);
  const height = Math.max(1, own(a['draw:fill-image-height'], size.height) || natural.height);
  const [px, py] = PLACES[a['draw:fill-image-ref-point'] ?? 'center'] ?? PLACES['center']!;
  const at = [(size.width - width) * px, (size.height - height) * py];
  const pattern = `<pattern id="p" x="${at[0]}" y="${at[1]}" width="${width}" height="${height}" patternUnits="userSpaceOnUse"><image width="${width}" height="${height}" preserveAspectRatio="none" href="${href}"/></pattern>`;
  return filled(size, pattern, null);
}

function filled({ width, height }: Size, pattern: string, back: string | null): string {
  const scale = Math.min(PPI / 72, MOST_PIXELS / Math.max(width, height, 1));
  const [w, h] = [Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale))];
  const rect = (fill: string): string => `<rect width="${width}" height="${height}" fill="${fill}"/>`;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}" viewBox="0 0 ${width} ${height}" preserveAspectRatio="none"><defs>${pattern}</defs>${back === null ? '' : rect(back)}${rect('url(#p)')}</svg>`;
}
