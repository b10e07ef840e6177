import { z } from 'zod';
import type { Folio } from '../folio/folio.ts';
import { MediaFile } from '../folio/head.ts';
import { Id } from '../folio/ids.ts';
import { Item } from '../folio/items.ts';
import { Cue } from '../folio/motion.ts';
import { isMasterInstance } from '../folio/masters.ts';
import type { Page, Spread } from '../folio/spread.ts';
import { Story } from '../folio/story.ts';
import { CharacterStyle, ItemStyle, ListStyle, ParagraphStyle, TableStyle, CellStyle } from '../folio/styles.ts';
import { Swatch } from '../folio/colour.ts';
import { heldItems, pageOfItem, storyOfFrame } from '../folio/traverse.ts';
import { movedItem, withHeld } from './movedItem.ts';
import { TextEditError } from './place.ts';

const STYLES = {
  paragraphStyles: ParagraphStyle,
  characterStyles: CharacterStyle,
  listStyles: ListStyle,
  itemStyles: ItemStyle,
  tableStyles: TableStyle,
  cellStyles: CellStyle,
  swatches: Swatch,
} as const;
type StyleKind = keyof typeof STYLES;
const STYLE_KINDS = Object.keys(STYLES) as StyleKind[];

/**
 * Items with all that they need to stand elsewhere: what they hold, their texts whole, cues, styles and the files they show.
 * Places are measured from the corner of their page, so that they stand on another page as they stood on their own.
 */
export const Clip = z.object({
  items: z.record(Id, Item),
  /** What stands by itself, from back to front. */
  order: z.array(Id).min(1),
  stories: z.record(Id, Story),
  /** Ids of other things that cues act on → what they are called and of which kind they are, to be found again elsewhere. */
  targets: z.record(Id, z.object({ kind: z.string(), name: z.string() })),
  media: z.record(Id, MediaFile),
  decorations: z.array(Id),
  styles: z.object(
    Object.fromEntries(STYLE_KINDS.map((k) => [k, z.record(Id, STYLES[k]).default({})])) as {
      [K in StyleKind]: z.ZodDefault<z.ZodRecord<typeof Id, (typeof STYLES)[K]>>;
    },
  ),
});
export type Clip = z.infer<typeof Clip>;

/** Cues without what they hang on, to be hung on something else. */
export const CopiedCues = z.object({ cues: z.array(Cue).min(1), targets: Clip.shape.targets });
export type CopiedCues = z.infer<typeof CopiedCues>;

/** Entries whose values, or whose lists of values, are ids of what is copied. All else is words and settings, whatever it says. */
const HOLDS_IDS = new Set([
  ...['id', 'item', 'items', 'members', 'order', 'page', 'paragraph', 'target', 'switcher', 'card'],
  ...['media', 'poster', 'captions', 'cover', 'onLook', 'offLook'],
]);
const KEYED_BY_IDS = new Set(['items', 'cues', 'blocks', 'cells']);

/** Gives ids other names where they stand as ids. */
function renamed<T>(value: T, name: (id: string) => string, key = ''): T {
  if (typeof value === 'string') return (HOLDS_IDS.has(key) ? name(value) : value) as T;
  if (Array.isArray(value)) return value.map((v: unknown) => renamed(v, name, key)) as T;
  if (value === null || typeof value !== 'object') return value;
  const isKeyed = KEYED_BY_IDS.has(key);
  return Object.fromEntries(Object.entries(value).map(([k, v]) => (isKeyed ? [name(k), renamed(v, name)] : [k, renamed(v, name, k)]))) as T;
}

/** What an item is called, by which it is known again in another document; empty where it is not called anything. */
const calledBy = (item: Item): string => item.name || ('label' in item && item.label) || item.alt || '';

const stringsIn = (value: unknown, found = new Set<string>()): Set<string> => {
  if (typeof value === 'string') found.add(value);
  else if (value !== null && typeof value === 'object') Object.values(value).forEach((v) => stringsIn(v, found));
  return found;
};

/** What cues act on that is not copied with them. */
const targetsOf = (folio: Folio, cues: readonly Cue[], copied: ReadonlySet<string>): Clip['targets'] => {
  const said = stringsIn(cues);
  return Object.fromEntries(
    Object.values(folio.spreads).flatMap((s) =>
      Object.values(s.items).flatMap((i) => (said.has(i.id) && !copied.has(i.id) ? [[i.id, { kind: i.kind, name: calledBy(i) }]] : [])),
    ),
  );
};

export const copyCues = (folio: Folio, cues: Cue[]): CopiedCues => ({
  cues,
  targets: targetsOf(folio, cues, new Set()),
});

/** Takes a copy of items of one spread. Texts that flow on into other frames cannot be copied in part. */
export function copyItems(folio: Folio, spread: Spread, chosen: readonly string[]): Clip {
  const held = heldItems(spread);
  const tops = spread.order.filter((id) => chosen.includes(id) && !held.has(id) && !isMasterInstance(id));
  if (!tops.length) throw new TextEditError('There is nothing to copy: what stands on master pages or inside others is copied there.');
  const ids = withHeld(spread, tops);
  const { box } = pageOfItem(spread, spread.items[tops[0]!]!);
  const items = Object.fromEntries(ids.map((id) => [id, movedItem(spread.items[id]!, -box.x, -box.y)]));
  const stories: Clip['stories'] = {};
  // What is anchored in a text may hold texts of its own.
  const frames = [...ids];
  for (const id of frames) {
    const story = folio.stories[storyOfFrame(folio).get(id) ?? ''];
    if (!story || stories[story.id]) continue;
    if (story.frames.some((f) => !frames.includes(f.item)))
      throw new TextEditError('A text that flows on into other frames is copied with all of them.');
    stories[story.id] = { ...story, aliases: {} };
    frames.push(...Object.keys(story.items));
  }
  const { head } = folio;
  const copied = new Set(ids);
  const said = stringsIn([items, stories]);
  const styles = Object.fromEntries(STYLE_KINDS.map((k) => [k, {}])) as Clip['styles'];
  // A style may be based on another, name a list or a swatch: round after round until nothing is added.
  for (let before = -1; before !== said.size;) {
    before = said.size;
    for (const kind of STYLE_KINDS)
      for (const [id, style] of Object.entries(head[kind]))
        if (said.has(id) && !styles[kind][id]) {
          styles[kind][id] = style as never;
          stringsIn(style, said);
        }
  }
  return {
    items,
    order: tops,
    stories,
    targets: targetsOf(
      folio,
      Object.values(items).flatMap((i) => Object.values(i.cues)),
      copied,
    ),
    media: Object.fromEntries(Object.entries(head.media).filter(([id]) => said.has(id))),
    decorations: head.structure.decorations.filter((id) => copied.has(id)),
    styles,
  };
}

/** What things are called here that were called otherwise where they were copied: what is here keeps its id, what is not is looked for by kind and name. */
function targetsHere(draft: Folio, spread: Spread, targets: Clip['targets']): Map<string, string> {
  const near = [spread, ...Object.values(draft.spreads).filter((s) => s.id !== spread.id)];
  const here = new Map<string, string>();
  for (const [id, { kind, name }] of Object.entries(targets)) {
    if (!name || near.some((s) => s.items[id])) continue;
    const found = near.flatMap((s) => Object.values(s.items)).find((i) => i.kind === kind && calledBy(i) === name);
    if (found) here.set(id, found.id);
  }
  return here;
}

/** Where a file of another document is stored with this one: by its content, since another file may have its name here. */
export const pathOfCopy = ({ sha256, file }: MediaFile): string => `media/${sha256.slice(0, 20)}${/\.[A-Za-z0-9]+$/.exec(file)?.[0] ?? ''}`;

/** Hangs copied cues on an item or a page, beside those that are there. */
export function pasteCues(draft: Folio, spread: Spread, cues: Record<string, Cue>, copied: CopiedCues, as: string): void {
  const here = targetsHere(draft, spread, copied.targets);
  for (const cue of copied.cues) {
    const id = `${cue.id.split('.')[0]!.slice(0, 40)}.${as}`;
    cues[id] = { ...renamed(cue, (t) => here.get(t) ?? t), id };
  }
}

/** Puts a copy on a page. `as` makes its ids new. A style that is here by the same id is taken as it is here. */
export function pasteItems(draft: Folio, spread: Spread, page: Page, clip: Clip, as: string): void {
  const { head } = draft;
  for (const kind of STYLE_KINDS)
    for (const [id, style] of Object.entries(clip.styles[kind])) (head[kind] as Record<string, unknown>)[id] ??= style;
  // The same file may be here by another id, and another file by the same one.
  const files = new Map<string, string>();
  for (const file of Object.values(clip.media)) {
    const known = Object.values(head.media).find((m) => m.sha256 === file.sha256);
    const id = known?.id ?? (head.media[file.id] ? `${file.id}.${as}` : file.id);
    if (!known) head.media[id] = { ...file, id, file: pathOfCopy(file) };
    files.set(file.id, id);
  }
  const ids = [
    ...Object.values(clip.items).flatMap((i) => [i.id, ...Object.keys(i.cues), ...(i.kind === 'switcher' ? i.cards.map((c) => c.id) : [])]),
    ...Object.values(clip.stories).flatMap((s) => [
      s.id,
      ...Object.keys(s.blocks),
      ...Object.keys(s.items),
      ...Object.values(s.blocks).flatMap((b) =>
        b.kind === 'table' ? Object.keys(b.cells) : b.content.flatMap((n) => ('id' in n ? [n.id] : [])),
      ),
    ]),
  ];
  const own = new Map(ids.map((id, i) => [id, `${id.split('.')[0]!.slice(0, 40)}.${as}-${i}`]));
  const here = targetsHere(draft, spread, clip.targets);
  const name = (id: string): string => own.get(id) ?? here.get(id) ?? files.get(id) ?? id;
  const layer = (id: string): string =>
    head.layers[id] ? id : (head.layerOrder.findLast((l) => head.layers[l]?.visible) ?? head.layerOrder[0]!);
  const laid = (item: Item): Item => ({ ...movedItem(renamed(item, name), page.box.x, page.box.y), layer: layer(item.layer) }) as Item;
  for (const item of Object.values(clip.items)) {
    const id = name(item.id);
    if (spread.items[id]) throw new TextEditError('It has been put there already.');
    spread.items[id] = laid(item);
  }
  spread.order.push(...clip.order.map(name));
  for (const story of Object.values(clip.stories)) {
    const copy = renamed(story, name);
    copy.frames = story.frames.map((f) => ({ spread: own.get(f.spread) ?? spread.id, item: name(f.item) }));
    for (const item of Object.values(copy.items)) item.layer = layer(item.layer);
    draft.stories[copy.id] = copy;
    head.storyOrder.push(copy.id);
  }
  head.structure.decorations.push(...clip.decorations.map(name));
}
