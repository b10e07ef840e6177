import { Folio } from '../../src/index.ts';
import { plainHead } from './plainHead.ts';

/** A document of one text, paragraph by paragraph in its styles. */
export const styledFolio = (styles: Record<string, object>, paragraphs: [style: string, text: string][]): Folio =>
  Folio.parse({
    head: plainHead({
      paragraphStyles: Object.fromEntries(Object.entries(styles).map(([id, s]) => [id, { id, name: id, ...s }])),
      storyOrder: ['t'],
    }),
    spreads: {
      s: {
        id: 's',
        pages: [{ id: 'p', box: { x: 0, y: 0, width: 500, height: 700 } }],
        items: { f: { kind: 'textFrame', id: 'f', layer: 'l', transform: [1, 0, 0, 1, 0, 0], size: { width: 400, height: 600 } } },
        order: ['f'],
      },
    },
    stories: {
      t: {
        id: 't',
        frames: [{ spread: 's', item: 'f' }],
        order: paragraphs.map((_, i) => `p${i}`),
        blocks: Object.fromEntries(
          paragraphs.map(([style, text], i) => [`p${i}`, { kind: 'paragraph', id: `p${i}`, style, content: [{ type: 'span', text }] }]),
        ),
      },
    },
  });
