import type { Folio } from '../folio/folio.ts';
import type { Head } from '../folio/head.ts';
import type { Page, Spread } from '../folio/spread.ts';
import type { Block, Story } from '../folio/story.ts';
import { readText } from '../folio/text.ts';
import { KEYED } from '../folio/headKinds.ts';
import { idsIn } from './mapIds.ts';
import { same } from '../folio/same.ts';
import { mergeFields, mergeKeyed, mergeOrder } from './threeWay.ts';

/** A thing of the document that was changed on both sides, in a field. */
export interface DocumentClash {
  id: string;
  field: string;
  here: unknown;
  there: unknown;
  kept: boolean;
}

/** Fields that only the designer says anything about: there, what was decided here goes before the newer file. */
const DECIDED_HERE = new Set(['alt', 'role', 'cues', 'language', 'transition', 'advanceAfter', 'bleed', 'next']);

/** What a document was, is here, and is in the newer file (with the same ids), put together. */
export function mergeDocuments(
  was: Folio,
  here: Folio,
  there: Folio,
  keep: ReadonlySet<string>,
): { folio: Folio; clashes: DocumentClash[] } {
  const clashes: DocumentClash[] = [];
  const merge = <T extends object>(id: string, a: T, b: T, c: T): T => {
    const prefer = (field: string): 'here' | 'there' => (keep.has(id) || DECIDED_HERE.has(field) ? 'here' : 'there');
    const { merged, clashes: found } = mergeFields(a, b, c, prefer);
    for (const clash of found) clashes.push({ id, ...clash, kept: prefer(clash.field) === 'here' });
    return merged;
  };
  const bleed = commonBleed(here);
  const spreads = Object.fromEntries(
    Object.entries(there.spreads).map(([id, c]): [string, Spread] => {
      const [a, b] = [was.spreads[id], here.spreads[id]];
      if (!a || !b) return [id, { ...c, pages: c.pages.map((p) => ({ ...p, bleed })) }];
      const page = (p: Page): Page => {
        const [x, y] = [a.pages.find((q) => q.id === p.id), b.pages.find((q) => q.id === p.id)];
        return x && y ? merge(p.id, x, y, p) : { ...p, bleed };
      };
      return [
        id,
        {
          id,
          pages: c.pages.map(page),
          items: mergeKeyed(a.items, b.items, c.items, merge).merged,
          order: mergeOrder(a.order, b.order, c.order),
          masterOverrides: mergeKeyed(
            a.masterOverrides as Record<string, object>,
            b.masterOverrides as Record<string, object>,
            c.masterOverrides as Record<string, object>,
            (_, x, y, z) => (same(x, z) ? y : z),
          ).merged as Spread['masterOverrides'],
          ...(b.grids && { grids: b.grids }),
        },
      ];
    }),
  );
  const stories = Object.fromEntries(
    Object.entries(there.stories).map(([id, c]): [string, Story] => {
      const [a, b] = [was.stories[id], here.stories[id]];
      return [id, a && b ? mergeStory(a, b, c, merge) : c];
    }),
  );
  const head = mergeHead(was.head, here.head, there.head, merge);
  const folio: Folio = { head, spreads, stories, editions: here.editions, recipes: here.recipes };
  withWanted(folio, here.head, there.head);
  tidy(folio);
  return { folio, clashes };
}

/** Bleed that all pages have, for those that are new. */
function commonBleed(folio: Folio): number {
  const all = new Set(Object.values(folio.spreads).flatMap((s) => s.pages.map((p) => p.bleed)));
  return all.size === 1 ? [...all][0]! : 0;
}

type Merge = <T extends object>(id: string, was: T, here: T, there: T) => T;

function mergeStory(a: Story, b: Story, c: Story, merge: Merge): Story {
  const block = (id: string, x: Block, y: Block, z: Block): Block => {
    if (x.kind !== 'paragraph' || y.kind !== 'paragraph' || z.kind !== 'paragraph') return merge(id, x, y, z);
    // A text that only looks otherwise here is the newer file's to change.
    return readText(x) === readText(y) && !same(x.content, z.content) ? merge(id, x, { ...y, content: x.content }, z) : merge(id, x, y, z);
  };
  const { merged: blocks } = mergeKeyed(a.blocks, b.blocks, c.blocks, block);
  const order = mergeOrder(a.order, b.order, c.order).filter((id) => blocks[id]);
  return {
    id: c.id,
    ...(c.name !== undefined && { name: c.name }),
    blocks,
    order: order.length ? order : c.order,
    frames: same(a.frames, c.frames) ? b.frames : c.frames,
    links: mergeKeyed(a.links, b.links, c.links, merge).merged,
    items: mergeKeyed(a.items, b.items, c.items, merge).merged,
    aliases: b.aliases,
  };
}

function mergeHead(a: Head, b: Head, c: Head, merge: Merge): Head {
  const { merged } = mergeFields<Head>(a, b, { ...c, id: b.id }, () => 'here');
  for (const kind of KEYED) {
    const [x, y, z] = [a[kind], b[kind], c[kind]] as [
      Record<string, { id: string }>,
      Record<string, { id: string }>,
      Record<string, { id: string }>,
    ];
    (merged as Record<string, unknown>)[kind] = mergeKeyed(x, y, z, merge).merged;
  }
  merged.metadata = merge('metadata', a.metadata, b.metadata, c.metadata);
  merged.standIns = { ...c.standIns, ...b.standIns };
  merged.layerOrder = mergeOrder(a.layerOrder, b.layerOrder, c.layerOrder);
  merged.spreadOrder = mergeOrder(a.spreadOrder, b.spreadOrder, c.spreadOrder);
  merged.storyOrder = mergeOrder(a.storyOrder, b.storyOrder, c.storyOrder);
  const s = structuredClone(b.structure);
  merged.structure = {
    ...s,
    decorations: mergeOrder(a.structure.decorations, s.decorations, c.structure.decorations),
    leftOut: mergeOrder(a.structure.leftOut, s.leftOut, c.structure.leftOut),
    figures: mergeOrder(a.structure.figures, s.figures, c.structure.figures),
    sectionStarts: mergeOrder(a.structure.sectionStarts, s.sectionStarts, c.structure.sectionStarts),
  };
  return merged;
}

/** Takes out what leads nowhere now: entries of lists for things that are gone. */
function tidy(folio: Folio): void {
  const { head } = folio;
  head.layerOrder = head.layerOrder.filter((id) => head.layers[id]);
  for (const id of Object.keys(head.layers)) if (!head.layerOrder.includes(id)) head.layerOrder.push(id);
  head.spreadOrder = head.spreadOrder.filter((id) => folio.spreads[id]);
  head.storyOrder = head.storyOrder.filter((id) => folio.stories[id]);
  for (const id of Object.keys(folio.stories))
    if (folio.stories[id]!.frames.length && !head.storyOrder.includes(id)) head.storyOrder.push(id);
  const items = new Map(Object.values(folio.spreads).flatMap((s) => Object.keys(s.items).map((i) => [i, s.id] as const)));
  const anywhere = new Set([
    ...items.keys(),
    ...Object.values(head.masterPages).flatMap((m) => Object.keys(m.items)),
    ...Object.values(folio.stories).flatMap((s) => Object.keys(s.items)),
  ]);
  for (const spread of Object.values(folio.spreads)) {
    spread.order = spread.order.filter((id) => spread.items[id]);
    for (const item of Object.values(spread.items)) if (item.kind === 'group') item.members = item.members.filter((id) => spread.items[id]);
  }
  const { structure } = head;
  structure.decorations = structure.decorations.filter((id) => anywhere.has(id));
  structure.leftOut = structure.leftOut.filter((id) => anywhere.has(id));
  structure.figures = structure.figures.filter((id) => anywhere.has(id));
  const paragraphs = new Set(Object.values(folio.stories).flatMap((s) => Object.keys(s.blocks)));
  structure.sectionStarts = structure.sectionStarts.filter((id) => paragraphs.has(id));
  structure.pins = Object.fromEntries(
    Object.entries(structure.pins).filter(([, p]) => anywhere.has(p.item) && paragraphs.has(p.paragraph)),
  );
  structure.outline = Object.fromEntries(Object.entries(structure.outline).filter(([id]) => paragraphs.has(id)));
  structure.captions = Object.fromEntries(Object.entries(structure.captions).filter((pair) => pair.every((id) => anywhere.has(id))));
  for (const strand of structure.strands)
    strand.entries = strand.entries.flatMap((e) => (items.has(e.item) ? [{ ...e, spread: items.get(e.item)! }] : []));
  structure.strands = structure.strands.filter((s) => s.entries.length);
}

/** Styles, layers and files that only one side has and that something still refers to. */
function withWanted(folio: Folio, ...sources: Head[]): void {
  for (let again = true; again;) {
    again = false;
    const ids = idsIn(folio);
    for (const kind of KEYED) {
      const things = folio.head[kind] as Record<string, unknown>;
      for (const source of sources)
        for (const [id, thing] of Object.entries(source[kind])) {
          if (things[id] || !ids.has(id)) continue;
          things[id] = thing;
          again = true;
        }
    }
  }
}
