import { z } from 'zod';
import { Id } from './ids.ts';
import { Rect } from './geometry.ts';
import { Item } from './items.ts';
import { Cue, Transition } from './motion.ts';
import { Paint } from './colour.ts';

export const Page = z.object({
  id: Id,
  /** Where the page lies on its spread, in points. */
  box: Rect,
  /** How far ink runs over the trim on each side, in points. */
  bleed: z.number().min(0).default(0),
  /** The printed page number, where it is not simply counted on. */
  number: z.string().optional(),
  master: Id.optional(),
  showMaster: z.boolean().default(true),
  background: Paint.default({ type: 'none' }),
  transition: Transition.optional(),
  advanceAfter: z.number().min(0).optional(),
  notes: Id.optional(),
  cues: z.record(Id, Cue).default({}),
});
export type Page = z.infer<typeof Page>;

/** Items repeated in rows and columns: the first place has them themselves, the others their copies; distances in points. */
export const Grid = z.object({
  id: Id,
  seeds: z.array(Id).min(1),
  rows: z.number().int().min(1).max(100),
  columns: z.number().int().min(1).max(100),
  dx: z.number(),
  dy: z.number(),
});
export type Grid = z.infer<typeof Grid>;

/** Pages that lie beside each other, and everything on them. `order` runs from back to front. */
export const Spread = z.object({
  id: Id,
  pages: z.array(Page).min(1).max(10),
  items: z.record(Id, Item).default({}),
  order: z.array(Id).default([]),
  /** Own versions of master items on these pages, under `page/masterItem`. */
  masterOverrides: z.record(z.string(), Item.nullable()).default({}),
  /** What is repeated, so that its spacing can be changed as one. */
  grids: z.record(Id, Grid).optional(),
});
export type Spread = z.infer<typeof Spread>;

/** A master page: items that appear on every page based on it, in that page's coordinates. */
export const MasterPage = z.object({
  id: Id,
  name: z.string(),
  basedOn: Id.optional(),
  items: z.record(Id, Item).default({}),
  order: z.array(Id).default([]),
});
export type MasterPage = z.infer<typeof MasterPage>;
