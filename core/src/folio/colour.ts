import { z } from 'zod';
import { Id } from './ids.ts';
import { Matrix } from './geometry.ts';

const Unit = z.number().min(0).max(1);

const Process = [
  z.object({ space: z.literal('rgb'), r: Unit, g: Unit, b: Unit }),
  z.object({ space: z.literal('cmyk'), c: Unit, m: Unit, y: Unit, k: Unit }),
  z.object({ space: z.literal('grey'), value: Unit }),
] as const;
export const ProcessColour = z.discriminatedUnion('space', [...Process]);
export type ProcessColour = z.infer<typeof ProcessColour>;

/** A colour keeps the space it was made in; a spot colour carries what stands in for its ink. */
export const Colour = z.discriminatedUnion('space', [
  ...Process,
  z.object({ space: z.literal('spot'), ink: z.string().min(1), alternate: ProcessColour }),
]);
export type Colour = z.infer<typeof Colour>;

export const Swatch = z.object({ id: Id, name: z.string(), colour: Colour });
export type Swatch = z.infer<typeof Swatch>;

const Solid = [
  z.object({ type: z.literal('swatch'), swatch: Id, tint: Unit.default(1) }),
  z.object({ type: z.literal('colour'), colour: Colour }),
] as const;
export const SolidPaint = z.discriminatedUnion('type', [...Solid]);
export type SolidPaint = z.infer<typeof SolidPaint>;

export const GradientStop = z.object({ offset: Unit, paint: SolidPaint, opacity: Unit.default(1) });
/** Linear: from (0,0) to (1,0); radial: centre (0,0), radius 1; `transform` maps that to the item's space. */
export const Gradient = z.object({
  kind: z.enum(['linear', 'radial']),
  stops: z.array(GradientStop).min(2),
  transform: Matrix,
});
export type Gradient = z.infer<typeof Gradient>;

export const Paint = z.discriminatedUnion('type', [
  z.object({ type: z.literal('none') }),
  ...Solid,
  z.object({ type: z.literal('gradient'), gradient: Gradient }),
]);
export type Paint = z.infer<typeof Paint>;

export interface Rgb {
  r: number;
  g: number;
  b: number;
}

/** The plain formula of ISO 32000-1, 10.3: no profile, so a ledger calls the result adapted. */
export function toRgb(colour: Colour, tint = 1): Rgb {
  const full = fullRgb(colour);
  return { r: 1 - (1 - full.r) * tint, g: 1 - (1 - full.g) * tint, b: 1 - (1 - full.b) * tint };
}

function fullRgb(colour: Colour): Rgb {
  switch (colour.space) {
    case 'rgb':
      return { r: colour.r, g: colour.g, b: colour.b };
    case 'grey':
      return { r: colour.value, g: colour.value, b: colour.value };
    case 'cmyk':
      return {
        r: 1 - Math.min(1, colour.c + colour.k),
        g: 1 - Math.min(1, colour.m + colour.k),
        b: 1 - Math.min(1, colour.y + colour.k),
      };
    case 'spot':
      return fullRgb(colour.alternate);
  }
}

/** `#rrggbb`. */
export const hex = ({ r, g, b }: Rgb): string =>
  '#' +
  [r, g, b]
    .map((v) =>
      Math.round(Math.min(1, Math.max(0, v)) * 255)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('');

/** A solid paint as colour and tint; an unknown swatch is black, as a missing ink would print. */
export function solidColour(paint: SolidPaint, swatches: Record<string, Swatch>): { colour: Colour; tint: number } {
  if (paint.type === 'colour') return { colour: paint.colour, tint: 1 };
  return { colour: swatches[paint.swatch]?.colour ?? { space: 'grey', value: 0 }, tint: paint.tint };
}

export function solidHex(paint: SolidPaint, swatches: Record<string, Swatch>): string {
  const { colour, tint } = solidColour(paint, swatches);
  return hex(toRgb(colour, tint));
}

/** The contrast of two colours, from 1 to 21 (WCAG 2.2, relative luminance and contrast ratio). */
export function contrast(one: Rgb, other: Rgb): number {
  const [dark, light] = [luminance(one), luminance(other)].sort((a, b) => a - b) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}
function luminance(colour: Rgb): number {
  const [r, g, b] = [colour.r, colour.g, colour.b].map((v) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4)) as [
    number,
    number,
    number,
  ];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** The one colour that stands for a paint where there can be no gradient: the mean of its stops; null for no paint. */
export function flatRgb(paint: Paint, swatches: Record<string, Swatch>): Rgb | null {
  if (paint.type === 'none') return null;
  const solids = paint.type === 'gradient' ? paint.gradient.stops.map((s) => s.paint) : [paint];
  const all = solids.map((p) => {
    const { colour, tint } = solidColour(p, swatches);
    return toRgb(colour, tint);
  });
  const mean = (of: (c: Rgb) => number): number => all.reduce((sum, c) => sum + of(c), 0) / all.length;
  return { r: mean((c) => c.r), g: mean((c) => c.g), b: mean((c) => c.b) };
}

export const WHITE: Rgb = { r: 1, g: 1, b: 1 };
export const BLACK: SolidPaint = { type: 'colour', colour: { space: 'grey', value: 0 } };
