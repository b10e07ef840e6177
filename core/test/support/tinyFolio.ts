import { Folio } from '../../src/index.ts';
import type { Inline } from '../../src/index.ts';

type Overrides = {
  width?: number;
  height?: number;
  paragraph?: Record<string, unknown>;
  character?: Record<string, unknown>;
  frames?: number;
};

/** A document with one text in one or more frames, for tests of the typesetter and of edits. */
export function tinyFolio(paragraphs: (string | Inline[])[], o: Overrides = {}): Folio {
  const frames = Array.from({ length: o.frames ?? 1 }, (_, i) => ({ spread: 's', item: `f${i + 1}` }));
  const size = { width: o.width ?? 200, height: o.height ?? 300 };
  return Folio.parse({
    head: {
      formatVersion: 1,
      id: 'tiny',
      metadata: { title: 'Tiny', language: 'en' },
      layers: { l: { id: 'l', name: 'Layer' } },
      layerOrder: ['l'],
      paragraphStyles: {
        p: {
          id: 'p',
          name: 'Text',
          character: { fontFamily: 'Work Sans', size: 10, leading: 12, ...o.character },
          paragraph: o.paragraph ?? {},
        },
      },
      spreadOrder: ['s'],
      storyOrder: ['t'],
    },
    spreads: {
      s: {
        id: 's',
        pages: [{ id: 'pg', box: { x: 0, y: 0, width: 595, height: 842 } }],
        items: Object.fromEntries(
          frames.map((f, i) => [
            f.item,
            { kind: 'textFrame', id: f.item, layer: 'l', transform: [1, 0, 0, 1, 10, 10 + i * (size.height + 10)], size },
          ]),
        ),
        order: frames.map((f) => f.item),
      },
    },
    stories: {
      t: {
        id: 't',
        frames,
        order: paragraphs.map((_, i) => `p${i + 1}`),
        blocks: Object.fromEntries(
          paragraphs.map((text, i) => [
            `p${i + 1}`,
            {
              kind: 'paragraph',
              id: `p${i + 1}`,
              style: 'p',
              content: typeof text === 'string' ? (text ? [{ type: 'span', text }] : []) : text,
            },
          ]),
        ),
      },
    },
  });
}
