import { z } from 'zod';
import { Paint, SolidPaint } from './colour.ts';

export const Stroke = z.object({
  paint: Paint,
  weight: z.number().min(0).max(1000),
  dashes: z.array(z.number().min(0)).default([]),
  cap: z.enum(['butt', 'round', 'square']).default('butt'),
  join: z.enum(['miter', 'round', 'bevel']).default('miter'),
  miterLimit: z.number().min(1).default(4),
  startMarker: z.enum(['none', 'arrow', 'circle', 'bar']).default('none'),
  endMarker: z.enum(['none', 'arrow', 'circle', 'bar']).default('none'),
});
export type Stroke = z.infer<typeof Stroke>;

/** The sixteen blend modes of ISO 32000-1, 11.3.5, which CSS Compositing 1 shares. */
export const BlendMode = z.enum([
  'normal',
  'multiply',
  'screen',
  'overlay',
  'darken',
  'lighten',
  'color-dodge',
  'color-burn',
  'hard-light',
  'soft-light',
  'difference',
  'exclusion',
  'hue',
  'saturation',
  'color',
  'luminosity',
]);
export type BlendMode = z.infer<typeof BlendMode>;

const Glow = { paint: SolidPaint, opacity: z.number().min(0).max(1), blur: z.number().min(0) };
export const Effects = z.object({
  outerShadow: z.object({ ...Glow, dx: z.number(), dy: z.number() }).optional(),
  innerShadow: z.object({ ...Glow, dx: z.number(), dy: z.number() }).optional(),
  glow: z.object(Glow).optional(),
  feather: z.object({ width: z.number().min(0) }).optional(),
});
export type Effects = z.infer<typeof Effects>;

export const Wrap = z.object({
  kind: z.enum(['none', 'box', 'shape', 'jump']),
  side: z.enum(['both', 'left', 'right', 'largest']).default('both'),
  offset: z.number().default(0),
});
export const Corner = z.object({ kind: z.enum(['round', 'inverse', 'bevel']), radius: z.number().min(0) });
