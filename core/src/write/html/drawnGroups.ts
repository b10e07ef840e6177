import { createHash } from 'node:crypto';
import type { Folio } from '../../folio/folio.ts';
import { Item } from '../../folio/items.ts';
import type { Group } from '../../folio/items.ts';
import type { Spread } from '../../folio/spread.ts';
import { heldItems, itemBounds, leavesOf } from '../../folio/traverse.ts';
import { PT_PER_INCH } from '../../folio/units.ts';
import { effectReach, hasEffects, reachedBy } from '../../paint/effects.ts';
import { attrs, num } from '../../paint/svg/markup.ts';
import { GlyphOutlines } from '../../paint/svg/glyphs.ts';
import { paintItem } from '../../paint/svg/paintSpread.ts';
import { drawingEncoder, drawnSources } from '../assets/drawnSources.ts';
import type { WriteJob } from '../writer.ts';
import type { HtmlSettings } from './settings.ts';

/** A group that is drawn as one picture, with all that it holds. */
interface DrawnGroup {
  spread: Spread;
  group: Group;
  leaves: ReadonlySet<string>;
}

/**
 * Groups that can be one picture: of shapes and pictures alone, with nothing in them that is read as text, pressed or played, or
 * that something else acts upon.
 */
export function groupsToDraw(folio: Folio, { groups }: Pick<HtmlSettings, 'groups'>): DrawnGroup[] {
  if (groups !== 'picture') return [];
  const all = Object.values(folio.spreads).flatMap((s) => [...s.pages, ...Object.values(s.items)]);
  // Whatever a step of a cue is about is named in it by its id.
  const acted = JSON.stringify(all.map((i) => i.cues));
  return Object.values(folio.spreads).flatMap((spread) => {
    const held = heldItems(spread);
    return Object.values(spread.items).flatMap((group) => {
      if (group.kind !== 'group' || held.has(group.id)) return [];
      const leaves = leavesOf(spread.items, group);
      const isStill = (item: Item | undefined): boolean =>
        !!item && !item.startsHidden && !Object.keys(item.cues).length && !acted.includes(JSON.stringify(item.id));
      const isDrawn = [...leaves].every((id) => {
        const item = spread.items[id];
        return isStill(item) && (item!.kind === 'shape' || item!.kind === 'picture') && folio.head.layers[item!.layer]?.visible;
      });
      return leaves.size > 0 && isDrawn && isStill(group) ? [{ spread, group, leaves }] : [];
    });
  });
}

/** The same job for a document in which such groups are pictures: everything that writes and reads back then treats them so. */
export async function withGroupsDrawn(job: WriteJob<HtmlSettings>): Promise<WriteJob<HtmlSettings>> {
  const drawn = groupsToDraw(job.folio, job.settings);
  if (!drawn.length) return job;
  const { folio } = job;
  const pictures = new Map<string, Uint8Array>();
  const media = { ...folio.head.media };
  const spreads = { ...folio.spreads };
  const becomes = new Map<string, string>();
  for (const { spread, group, leaves } of drawn) {
    const box = boxOf(spread, group, leaves);
    const bytes = await drawing(job, spread, group, leaves, box);
    const id = `drawn-${group.id}`;
    pictures.set(id, bytes);
    media[id] = {
      id,
      name: `${group.name ?? group.id}.png`,
      file: `media/${id}.png`,
      mediaType: 'image/png',
      sha256: createHash('sha256').update(bytes).digest('hex'),
      bytes: bytes.length,
    };
    const alt = group.alt ?? [...leaves].flatMap((l) => spread.items[l]!.alt ?? []).join(' ');
    const items = { ...(spreads[spread.id] ?? spread).items };
    for (const leaf of leaves) {
      becomes.set(leaf, group.id);
      delete items[leaf];
    }
    items[group.id] = Item.parse({
      kind: 'picture',
      id: group.id,
      ...(group.name !== undefined && { name: group.name }),
      layer: group.layer,
      blend: group.blend,
      wrap: group.wrap,
      transform: [1, 0, 0, 1, box.x, box.y],
      size: { width: box.width, height: box.height },
      media: id,
      placement: [box.width, 0, 0, box.height, 0, 0],
      ...(alt && { alt }),
    });
    spreads[spread.id] = { ...(spreads[spread.id] ?? spread), items };
  }
  const named = <T>(ids: readonly T[], of: (t: T) => string): T[] => {
    const seen = new Set<string>();
    return ids.flatMap((t) => {
      const id = becomes.get(of(t)) ?? of(t);
      if (seen.has(id)) return [];
      seen.add(id);
      return [typeof t === 'string' ? (id as T) : ({ ...t, item: id } as T)];
    });
  };
  const { structure } = folio.head;
  const own = (id: string): string => id;
  return {
    ...job,
    folio: {
      ...folio,
      spreads,
      head: {
        ...folio.head,
        media,
        structure: {
          ...structure,
          strands: structure.strands.map((s) => ({ ...s, entries: named(s.entries, (e) => e.item) })),
          decorations: named(structure.decorations, own).filter((id) => !drawn.some((d) => d.group.id === id && !isDecoration(folio, d))),
          leftOut: named(structure.leftOut, own),
        },
      },
    },
    media: async (id) => pictures.get(id) ?? (await job.media(id)),
  };
}

/** Whether all of a group is decoration; where only some of it is, the rest has something to say. */
const isDecoration = ({ head }: Folio, { group, leaves }: DrawnGroup): boolean =>
  head.structure.decorations.includes(group.id) || [...leaves].every((l) => head.structure.decorations.includes(l));

function boxOf(spread: Spread, group: Group, leaves: ReadonlySet<string>): ReturnType<typeof itemBounds> {
  const reachOf = ({ effects }: Item): number => (hasEffects(effects) ? effectReach(effects) : 0);
  const reach = Math.max(reachOf(group), ...[...leaves].map((l) => reachOf(spread.items[l]!) + strokeOf(spread.items[l]!)));
  const box = itemBounds(spread.items, group);
  return reach > 0 ? reachedBy(box, reach) : box;
}
const strokeOf = ({ stroke }: Item): number => (stroke ? stroke.weight : 0);

async function drawing(
  job: WriteJob<HtmlSettings>,
  spread: Spread,
  group: Group,
  leaves: ReadonlySet<string>,
  box: ReturnType<typeof itemBounds>,
): Promise<Uint8Array> {
  const { folio, composition, settings } = job;
  const sources = await drawnSources(
    job,
    drawingEncoder(job),
    [...leaves].map((l) => spread.items[l]!),
  );
  const outlines = new GlyphOutlines();
  const inner = paintItem(
    folio,
    composition,
    spread,
    { ...group, blend: 'normal' },
    {
      outlines,
      href: (m) => sources.get(m),
      shown: () => true,
      forReaders: true,
    },
  );
  const scale = settings.resolution / PT_PER_INCH;
  const svg = `<svg${attrs({ xmlns: 'http://www.w3.org/2000/svg', width: num(box.width * scale, 2), height: num(box.height * scale, 2), viewBox: [box.x, box.y, box.width, box.height].map((n) => num(n, 4)).join(' ') })}><defs>${outlines.take()}</defs>${inner}</svg>`;
  return job.pictures.drawSvg(svg, 'picture');
}
