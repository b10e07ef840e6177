import type { Folio } from './folio.ts';

/** A reference that leads nowhere, or a rule between parts that a schema cannot say. */
export interface Incoherence {
  where: string;
  says: string;
}

/** Checks what holds between the parts of a Folio; an empty list means it can be worked with. */
export function incoherences(folio: Folio): Incoherence[] {
  const found: Incoherence[] = [];
  const say = (where: string, says: string): void => void found.push({ where, says });
  const { head } = folio;
  for (const [name, record] of Object.entries({
    swatches: head.swatches,
    layers: head.layers,
    paragraphStyles: head.paragraphStyles,
    characterStyles: head.characterStyles,
    media: head.media,
    fonts: head.fonts,
  }))
    for (const [key, value] of Object.entries(record))
      if (value.id !== key) say(`folio.json ${name}.${key}`, `its id is "${value.id}", not "${key}"`);
  for (const id of head.layerOrder) if (!head.layers[id]) say('folio.json layerOrder', `layer "${id}" does not exist`);
  for (const id of head.spreadOrder) if (!folio.spreads[id]) say('folio.json spreadOrder', `spread "${id}" is missing`);
  for (const id of head.storyOrder) if (!folio.stories[id]) say('folio.json storyOrder', `story "${id}" is missing`);
  const seen = new Map<string, string>();
  const once = (id: string, where: string): void => {
    const before = seen.get(id);
    if (before !== undefined) say(where, `id "${id}" stands in ${before} already`);
    else seen.set(id, where);
  };
  for (const spread of Object.values(folio.spreads)) {
    const where = `spreads/${spread.id}.json`;
    for (const page of spread.pages) once(page.id, where);
    for (const [key, item] of Object.entries(spread.items)) {
      if (item.id !== key) say(where, `item "${key}" calls itself "${item.id}"`);
      once(item.id, where);
      if (!head.layers[item.layer]) say(where, `item "${key}" lies on layer "${item.layer}", which does not exist`);
      if ((item.kind === 'picture' || item.kind === 'media') && item.media !== null && !head.media[item.media])
        say(where, `item "${key}" shows "${item.media}", which is not in the document`);
      if (item.kind === 'group' && hasLoop(spread.items, key)) say(where, `group "${key}" contains itself`);
    }
    for (const id of spread.order) if (!spread.items[id]) say(where, `order names "${id}", which is not there`);
  }
  for (const story of Object.values(folio.stories)) {
    const where = `stories/${story.id}.json`;
    for (const [key, block] of Object.entries(story.blocks)) {
      if (block.id !== key) say(where, `block "${key}" calls itself "${block.id}"`);
      once(block.id, where);
      if (block.kind === 'paragraph' && !head.paragraphStyles[block.style])
        say(where, `paragraph "${key}" uses style "${block.style}", which does not exist`);
    }
    for (const [key, item] of Object.entries(story.items)) {
      if (item.id !== key) say(where, `item "${key}" calls itself "${item.id}"`);
      once(item.id, where);
      if (!head.layers[item.layer]) say(where, `item "${key}" lies on layer "${item.layer}", which does not exist`);
      if (item.kind === 'group' && hasLoop(story.items, key)) say(where, `group "${key}" contains itself`);
    }
    for (const id of story.order) if (!story.blocks[id]) say(where, `order names "${id}", which is not there`);
    const frames = new Set<string>();
    for (const frame of story.frames) {
      const item = (folio.spreads[frame.spread] ?? head.masterPages[frame.spread] ?? folio.stories[frame.spread])?.items[frame.item];
      if (!item || (item.kind !== 'textFrame' && item.kind !== 'tableFrame'))
        say(where, `frame "${frame.item}" on spread "${frame.spread}" is no text frame`);
      if (frames.has(frame.item)) say(where, `the chain comes back to frame "${frame.item}"`);
      frames.add(frame.item);
    }
  }
  return found;
}

function hasLoop(items: Folio['spreads'][string]['items'], start: string): boolean {
  const walk = (id: string, above: readonly string[]): boolean => {
    if (above.includes(id)) return true;
    const item = items[id];
    return item?.kind === 'group' && item.members.some((m) => walk(m, [...above, id]));
  };
  return walk(start, []);
}
