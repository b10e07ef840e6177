import { Stroke, translation } from '@elastic-folio/core';
import { ink, para, rgb, role, SampleAssembly, strong, tab } from '../sampleAssembly.ts';
import type { Sample } from '../sampleAssembly.ts';
import { worldArt, WORLDS } from './worlds.ts';

/** A panel, sixteen by nine. */
const [W, H] = [960, 540];

/** Five Worlds: five wide panels with the same parts in the same places, for a carousel and for slides. */
export async function fiveWorlds(): Promise<Sample> {
  const b = new SampleAssembly('five-worlds', 'Five Worlds', {
    description: 'Five wide panels about five worlds that nobody has been to.',
    subjects: ['planets', 'exhibition'],
    cover: 'ember-art',
  });
  b.swatch('white', 'White', { space: 'grey', value: 1 });
  b.swatch('ink', 'Ink', rgb('#0B1220'));
  b.swatch('lamp', 'Lamp', rgb('#F0B36A'));
  const sans = { fontFamily: 'Work Sans', fill: ink('white'), language: 'en' as const };
  b.style({
    id: 'name',
    name: 'Name of a world',
    character: { ...sans, fontFamily: 'Source Serif 4', fontWeight: 600, size: 76, leading: 80 },
    paragraph: { spaceAfter: 8 },
    role: role('h1', { startsSection: true }),
  });
  b.style({
    id: 'line',
    name: 'Line below the name',
    character: { ...sans, fontWeight: 600, size: 22, leading: 28, fill: ink('lamp') },
    paragraph: { spaceAfter: 14 },
    role: role('p', { class: 'line' }),
  });
  b.style({
    id: 'text',
    name: 'Text',
    character: { ...sans, size: 17, leading: 25 },
    paragraph: { composer: 'totalFit' },
    role: role('p'),
  });
  b.style({
    id: 'fact',
    name: 'Fact',
    character: { ...sans, size: 15, leading: 24 },
    paragraph: { tabs: [{ at: 292, align: 'right', leader: ' .' }] },
    role: role('li'),
  });
  b.style({
    id: 'count',
    name: 'Number of the panel',
    character: { ...sans, fontWeight: 600, size: 13, leading: 16 },
    paragraph: { align: 'right' },
    role: role('p', { leaveOut: true }),
  });
  b.head.itemStyles = {
    factBox: {
      id: 'factBox',
      name: 'Box of facts',
      fill: ink('ink'),
      stroke: Stroke.parse({ paint: ink('lamp'), weight: 1 }),
      opacity: 0.88,
    },
  };
  const master = b.master('panel', 'Panel');
  const count = master.text('count', [W - 140, H - 40, 100, 20]);
  b.story(
    'count-text',
    [count],
    [
      para('count', [
        { type: 'field', id: 'count-page', field: 'pageNumber' },
        ' of ',
        { type: 'field', id: 'count-all', field: 'pageCount' },
      ]),
    ],
  );
  for (const [i, world] of WORLDS.entries()) {
    const media = await b.art(`${world.id}-art`, world.name, worldArt(world, 1600, 900));
    const s = b.spread(`panel-${i + 1}`, [{ id: `page-${i + 1}`, width: W, height: H, master: 'panel' }]);
    const picture = s.picture(`${world.id}-picture`, media, [0, 0, W, H], { alt: world.alt });
    const words = s.text(`${world.id}-words`, [56, 64, 420, 250], {
      effects: { outerShadow: { paint: ink('ink'), opacity: 0.7, blur: 12, dx: 0, dy: 2 } },
    });
    b.story(`${world.id}-text`, [words], [para('name', world.name), para('line', world.line), para('text', world.text)]);
    s.add({
      kind: 'textFrame',
      id: `${world.id}-facts`,
      layer: 'text',
      style: 'factBox',
      transform: translation(56, 372),
      size: { width: 328, height: 108 },
      inset: [16, 18, 16, 18],
      corner: { kind: 'round', radius: 8 },
      verticalAlign: 'centre',
    });
    const facts = { spread: `panel-${i + 1}`, item: `${world.id}-facts` };
    b.story(
      `${world.id}-facts-text`,
      [facts],
      world.facts.map(([what, value]) => para('fact', [what, tab, strong(value)])),
    );
    b.strand(world.id, world.name, [words, picture, facts]);
  }
  // By itself, panel after panel, and from the beginning again.
  b.advances(5);
  return b.finish();
}
