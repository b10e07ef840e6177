import { Item } from '../folio/items.ts';
import type { Embed, Field, Media, Veil } from '../folio/items.ts';
import { boundsOfPath, multiply, translation } from '../folio/geometry.ts';
import type { Path } from '../folio/geometry.ts';
import type { Folio } from '../folio/folio.ts';
import { itemBounds } from '../folio/traverse.ts';
import type { Spread } from '../folio/spread.ts';
import { fieldNames } from './fieldNames.ts';

/** Flakes as large as this are lifted by a finger without trouble, in points. */
const FLAKE = 27;

/**
 * A field over an item: on screen it is filled in where paper has what is drawn below. What is about as high as wide is to be
 * ticked, all else is for words. A new check box is off; its name is one that the form has not.
 */
export function newField(folio: Folio, spread: Spread, over: Item, id: string, label: string): Field {
  const { x, y, width, height } = itemBounds(spread.items, over);
  const isBox = width < height * 1.6 && height < 60;
  const taken = new Set(fieldNames(folio).values());
  let n = 1;
  const kind = isBox ? 'tick' : 'words';
  while (taken.has(`${kind}-${n}`)) n++;
  return Item.parse({
    kind: 'field',
    id,
    layer: topLayer(folio),
    transform: translation(x, y),
    size: { width, height },
    control: isBox ? { type: 'checkBox' } : { type: 'text', lines: height > 30 ? 'many' : 'one' },
    fieldName: `${kind}-${n}`,
    label,
  }) as Field;
}

/** A veil over an item, in its outline where it has one of its own. */
export function newVeil(folio: Folio, spread: Spread, over: Item, id: string): Veil {
  const { x, y, width, height } = itemBounds(spread.items, over);
  const box = over.kind === 'shape' ? boundsOfPath(over.path) : null;
  const outline = box && over.kind === 'shape' ? moved(over.path, -box.x, -box.y) : undefined;
  return Item.parse({
    kind: 'veil',
    id,
    layer: topLayer(folio),
    transform: box ? multiply(over.transform, translation(box.x, box.y)) : translation(x, y),
    size: box ? { width: box.width, height: box.height } : { width, height },
    ...(outline && { outline }),
    flakeSize: Math.min(FLAKE, Math.max(8, Math.min(width, height) / 4)),
    action: 'Show what lies below',
    fill: { type: 'colour', colour: { space: 'grey', value: 0.55 } },
  }) as Veil;
}

/** A film or sound in the place of an item; a picture there becomes what is seen until it plays. */
export const newMedia = (folio: Folio, spread: Spread, over: Item, id: string): Media =>
  Item.parse({ kind: 'media', media: null, ...inPlaceOf(folio, spread, over, id) }) as Media;

/** Web content in the place of an item; a picture there becomes what is seen where it cannot be shown. */
export const newEmbed = (folio: Folio, spread: Spread, over: Item, id: string): Embed =>
  Item.parse({ kind: 'embed', source: { from: 'address', href: 'https://' }, ...inPlaceOf(folio, spread, over, id) }) as Embed;

function inPlaceOf(folio: Folio, spread: Spread, over: Item, id: string): Record<string, unknown> {
  const { x, y, width, height } = itemBounds(spread.items, over);
  const poster = over.kind === 'picture' && over.media !== null ? over.media : undefined;
  return {
    id,
    layer: topLayer(folio),
    transform: translation(x, y),
    size: { width, height },
    ...(over.alt !== undefined && { alt: over.alt }),
    ...(poster !== undefined && { poster }),
  };
}

/** Nothing lies over a part that is pressed or pointed at. */
const topLayer = ({ head }: Folio): string => head.layerOrder.findLast((id) => head.layers[id]?.visible) ?? head.layerOrder[0]!;

const moved = (path: Path, dx: number, dy: number): Path =>
  path.map((step) => [step[0], ...step.slice(1).map((n, i) => (n as number) + (i % 2 ? dy : dx))] as Path[number]);
