import { z } from 'zod';
import { Id, Language } from './ids.ts';
import { Matrix, Path, Size } from './geometry.ts';
import { Paint } from './colour.ts';
import { BlendMode, Corner, Effects, Stroke, Wrap } from './appearance.ts';
import { Advance, Change, Cue } from './motion.ts';

/** What every item has. `transform` maps the item's own space (origin at its top left) to the spread. */
const common = {
  id: Id,
  name: z.string().optional(),
  layer: Id,
  transform: Matrix,
  style: Id.optional(),
  fill: Paint.default({ type: 'none' }),
  stroke: Stroke.nullable().default(null),
  corner: Corner.optional(),
  opacity: z.number().min(0).max(1).default(1),
  blend: BlendMode.default('normal'),
  effects: Effects.default({}),
  wrap: Wrap.default({ kind: 'none', side: 'both', offset: 0 }),
  alt: z.string().optional(),
  language: Language.optional(),
  locked: z.boolean().default(false),
  /** Not seen until a cue shows it. Outputs that cannot show it later show it from the start. */
  startsHidden: z.boolean().optional(),
  cues: z.record(Id, Cue).default({}),
};
const boxed = { ...common, size: Size };

export const TextFrame = z.object({
  ...boxed,
  kind: z.literal('textFrame'),
  columns: z.number().int().min(1).max(40).default(1),
  gutter: z.number().min(0).default(12),
  inset: z.tuple([z.number(), z.number(), z.number(), z.number()]).default([0, 0, 0, 0]).describe('top, right, bottom, left'),
  verticalAlign: z.enum(['top', 'centre', 'bottom', 'justify']).default('top'),
  firstBaseline: z.enum(['ascent', 'capHeight', 'xHeight', 'leading']).default('ascent'),
  balance: z.boolean().default(false),
  shrinkToFit: z.boolean().default(false),
});
export type TextFrame = z.infer<typeof TextFrame>;

export const Picture = z.object({
  ...boxed,
  kind: z.literal('picture'),
  media: Id.nullable(),
  /** Maps the unit square of the whole picture to the item's space; what lies outside the box is cropped. */
  placement: Matrix,
  clip: Path.optional(),
});
export type Picture = z.infer<typeof Picture>;

export const Shape = z.object({
  ...common,
  kind: z.literal('shape'),
  path: Path,
  fillRule: z.enum(['nonzero', 'evenodd']).default('nonzero'),
});
export type Shape = z.infer<typeof Shape>;

/** Members stand in spread coordinates like everything else; the group adds what they share. */
export const Group = z.object({ ...common, kind: z.literal('group'), members: z.array(Id) });
export type Group = z.infer<typeof Group>;

export const TableFrame = z.object({ ...boxed, kind: z.literal('tableFrame') });

export const Media = z.object({
  ...boxed,
  kind: z.literal('media'),
  media: Id.nullable(),
  poster: Id.optional(),
  controls: z.boolean().default(true),
  autoplay: z.boolean().default(false),
  loop: z.boolean().default(false),
  captions: Id.optional(),
  transcript: z.string().optional(),
});
export type Media = z.infer<typeof Media>;

/** How a reader turns a switcher on by hand. */
const SwitcherControls = z.object({
  arrows: z.boolean(),
  dots: z.boolean(),
  thumbnails: z.boolean(),
  swipe: z.boolean(),
  keys: z.boolean().default(true),
});

/** One of several cards at a time; items of cards stand in spread coordinates like everything else. */
export const Switcher = z.object({
  ...boxed,
  kind: z.literal('switcher'),
  cards: z
    .array(z.object({ id: Id, name: z.string(), items: z.array(Id), seconds: z.number().min(0.1).optional().describe('its own time') }))
    .min(1),
  advance: Advance.optional(),
  change: Change.default({ kind: 'cut', direction: 'left', seconds: 0.4 }),
  controls: SwitcherControls.default({ arrows: true, dots: true, thumbnails: false, swipe: true, keys: true }),
});
export type Switcher = z.infer<typeof Switcher>;

/**
 * Flakes that cover an area and lift off for good. Their colour is the item's fill; `cover` is a picture on them, whole over
 * the area or again on each flake, which makes a pattern. `rest`: the part that must be lifted until the others go too.
 */
export const Veil = z.object({
  ...boxed,
  kind: z.literal('veil'),
  outline: Path.optional(),
  flakeSize: z.number().min(1),
  flakeOverlap: z.number().min(0).optional(),
  cover: Id.optional(),
  coverEach: z.boolean().default(false),
  lift: z.enum(['cut', 'fade']).default('fade'),
  rest: z.number().min(0).max(1).default(1),
  action: z.string(),
});
export type Veil = z.infer<typeof Veil>;

export const Embed = z.object({
  ...boxed,
  kind: z.literal('embed'),
  source: z.discriminatedUnion('from', [
    z.object({ from: z.literal('address'), href: z.string() }),
    z.object({ from: z.literal('bundle'), media: Id, entry: z.string() }),
    z.object({ from: z.literal('folio'), folio: Id }),
  ]),
  scrolling: z.boolean().default(false),
  scale: z.enum(['none', 'fit']).default('fit'),
  poster: Id.optional(),
});
export type Embed = z.infer<typeof Embed>;

/** `onLook`, `offLook`: items that are drawn while it is on or off. */
export const Field = z.object({
  ...boxed,
  kind: z.literal('field'),
  control: z.discriminatedUnion('type', [
    z.object({ type: z.literal('checkBox'), on: z.boolean().default(false), value: z.string().default('yes') }),
    z.object({ type: z.literal('radio'), group: z.string(), value: z.string(), on: z.boolean().default(false) }),
    z.object({ type: z.literal('text'), lines: z.enum(['one', 'many']), value: z.string().default('') }),
    z.object({
      type: z.literal('choice'),
      options: z.array(z.object({ value: z.string(), label: z.string() })),
      value: z.string().default(''),
    }),
    z.object({ type: z.literal('date'), value: z.string().default('') }),
    z.object({ type: z.literal('signature') }),
    z.object({ type: z.literal('button'), caption: z.string() }),
  ]),
  fieldName: z.string(),
  label: z.string(),
  required: z.boolean().default(false),
  tabOrder: z.number().int().optional(),
  onLook: Id.optional(),
  offLook: Id.optional(),
});
export type Field = z.infer<typeof Field>;

/** What moves, reacts or is filled in by itself. */
export const MovingPart = z.discriminatedUnion('kind', [Media, Switcher, Veil, Embed, Field]);
export type MovingPart = z.infer<typeof MovingPart>;

export const Item = z.discriminatedUnion('kind', [TextFrame, Picture, Shape, Group, TableFrame, Media, Switcher, Veil, Embed, Field]);
export type Item = z.infer<typeof Item>;
export type ItemKind = Item['kind'];
