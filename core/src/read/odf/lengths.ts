/** Points in each unit of OpenDocument 1.3 part 3, 18.3.18 (length), after XSL 5.9.11; a pixel is 1/96 inch. */
const POINTS: Record<string, number> = { cm: 72 / 2.54, mm: 72 / 25.4, in: 72, pt: 1, pc: 12, px: 0.75 };
const NUMBER = String.raw`[-+]?(?:\d+(?:\.\d*)?|\.\d+)(?:[eE][-+]?\d+)?`;
const LENGTH = new RegExp(`^\\s*(${NUMBER})\\s*(cm|mm|in|pt|pc|px)\\s*$`);
const PERCENT = new RegExp(`^\\s*(${NUMBER})\\s*%\\s*$`);
const ANGLE = new RegExp(`^\\s*(${NUMBER})\\s*(?:(deg|grad|rad)\\s*)?$`);
/** No sheet of paper is larger; what claims to be is taken for nonsense rather than overflow. */
const LARGEST = 1e6;

/** A length in points; undefined where the text is none. Numbers without a unit are none: only geometry has such. */
export function lengthOf(text: string | undefined): number | undefined {
  const found = text === undefined ? null : LENGTH.exec(text);
  if (!found) return undefined;
  const points = Number(found[1]) * POINTS[found[2]!]!;
  return Number.isFinite(points) && Math.abs(points) <= LARGEST ? points : undefined;
}

/** A percentage as a share of one. */
export function percentOf(text: string | undefined): number | undefined {
  const found = text === undefined ? null : PERCENT.exec(text);
  return found ? Number(found[1]) / 100 : undefined;
}

/** An angle in degrees (18.3.1); a bare number is degrees, except where `bare` says otherwise (gradients: tenths of one). */
export function angleOf(text: string | undefined, bare: 'degrees' | 'tenths' | 'radians' = 'degrees'): number | undefined {
  const found = text === undefined ? null : ANGLE.exec(text);
  if (!found) return undefined;
  const value = Number(found[1]);
  switch (found[2]) {
    case 'deg':
      return value;
    case 'grad':
      return value * 0.9;
    case 'rad':
      return (value * 180) / Math.PI;
    default:
      return bare === 'degrees' ? value : bare === 'tenths' ? value / 10 : (value * 180) / Math.PI;
  }
}

/** A whole number, or undefined. */
export function integerOf(text: string | undefined): number | undefined {
  return text !== undefined && /^\s*-?\d{1,9}\s*$/.test(text) ? Number(text) : undefined;
}

/** Seconds of an XML Schema duration (`PT1M30.5S`) or of a clock value with a unit (`1.5s`, `200ms`). */
export function secondsOf(text: string | undefined): number | undefined {
  if (text === undefined) return undefined;
  const iso = /^\s*P(?:(\d+)D)?T?(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:[.,]\d+)?)S)?\s*$/.exec(text);
  if (iso && /\d/.test(text))
    return Number(iso[1] ?? 0) * 86400 + Number(iso[2] ?? 0) * 3600 + Number(iso[3] ?? 0) * 60 + Number((iso[4] ?? '0').replace(',', '.'));
  const clock = /^\s*(\d+(?:\.\d+)?)(h|min|s|ms)?\s*$/.exec(text);
  if (!clock) return undefined;
  return Number(clock[1]) * { h: 3600, min: 60, s: 1, ms: 0.001 }[clock[2] ?? 's']!;
}

/** `#rrggbb` as a colour of ours; undefined for anything else. */
export function colourOf(text: string | undefined): { space: 'rgb'; r: number; g: number; b: number } | undefined {
  const found = text === undefined ? null : /^\s*#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})\s*$/i.exec(text);
  if (!found) return undefined;
  const [r, g, b] = found.slice(1).map((h) => parseInt(h, 16) / 255) as [number, number, number];
  return { space: 'rgb', r, g, b };
}
