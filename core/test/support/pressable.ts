import { Folio } from '../../src/index.ts';

const square = (id: string, at: number, step: Record<string, unknown>): [string, unknown] => [
  id,
  {
    kind: 'shape',
    id,
    layer: 'l',
    transform: [1, 0, 0, 1, at, 20],
    path: [['M', 0, 0], ['L', 40, 0], ['L', 40, 40], ['L', 0, 40], ['Z']],
    fill: { type: 'colour', colour: { space: 'rgb', r: 0.1, g: 0.4, b: 0.3 } },
    cues: { [`to${id}`]: { id: `to${id}`, trigger: { when: 'press' }, steps: [step] } },
  },
];

/** Two pages; on the first stand things that lead somewhere when they are pressed, and one that moves. */
export function pressable(): Folio {
  const go = (destination: Record<string, unknown>) => ({ do: 'go', destination });
  const items = Object.fromEntries([
    square('Page', 10, go({ to: 'page', page: 'two' })),
    square('Address', 60, go({ to: 'address', href: 'https://marrowby.example/' })),
    square('Next', 110, go({ to: 'next' })),
    square('Script', 160, go({ to: 'address', href: 'javascript:alert(1)' })),
    square('Motion', 210, { do: 'animate', items: ['Motion'], kind: 'fade', seconds: 1 }),
  ]);
  const page = (id: string) => ({ id, box: { x: 0, y: 0, width: 300, height: 200 } });
  return Folio.parse({
    head: {
      formatVersion: 1,
      id: 'pressable',
      metadata: { title: 'To be pressed', language: 'en' },
      layers: { l: { id: 'l', name: 'Layer' } },
      layerOrder: ['l'],
      spreadOrder: ['s1', 's2'],
      storyOrder: [],
    },
    spreads: {
      s1: { id: 's1', pages: [page('one')], items, order: Object.keys(items) },
      s2: { id: 's2', pages: [page('two')] },
    },
    stories: {},
  });
}
