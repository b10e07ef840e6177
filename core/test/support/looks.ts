import { Folio } from '../../src/index.ts';

type Loose = Record<string, unknown>;
const grey = (value: number): Loose => ({ type: 'colour', colour: { space: 'grey', value } });
export const red = { type: 'colour', colour: { space: 'rgb', r: 0.8, g: 0.1, b: 0.1 } } as const;
const path = (w: number, h: number): unknown => [['M', 0, 0], ['L', w, 0], ['L', w, h], ['L', 0, h], ['Z']];

/** A page of 400 by 300 points with one item given, or several from back to front. */
export function lookPage(items: Loose[], head: Loose = {}): Folio {
  return Folio.parse({
    head: {
      formatVersion: 1,
      id: 'looks',
      metadata: { title: 'Looks', language: 'en' },
      layers: { l: { id: 'l', name: 'Layer' } },
      layerOrder: ['l'],
      paragraphStyles: {},
      spreadOrder: ['s'],
      storyOrder: [],
      ...head,
    },
    spreads: {
      s: {
        id: 's',
        pages: [{ id: 'pg', box: { x: 0, y: 0, width: 400, height: 300 } }],
        items: Object.fromEntries(items.map((i) => [i.id, { layer: 'l', ...i }])),
        order: items.map((i) => i.id),
      },
    },
    stories: {},
  });
}

/** A filled square of 100 points at (x, y). */
export const square = (id: string, x: number, y: number, more: Loose = {}): Loose => ({
  kind: 'shape',
  id,
  transform: [1, 0, 0, 1, x, y],
  path: path(100, 100),
  fill: grey(0.6),
  ...more,
});
export const black = grey(0);
