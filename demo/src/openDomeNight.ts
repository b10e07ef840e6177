import { mm, rectPath } from '@elastic-folio/core';
import { flyerGerman } from './editions/german.ts';
import { flyerJapanese } from './editions/japanese.ts';
import { domeAtDusk } from './art/scenes.ts';
import { SampleAssembly, ink, para, rgb, role, soft, styled } from './sampleAssembly.ts';
import type { Sample } from './sampleAssembly.ts';

const THINGS = [
  ['A warm coat.', ' The dome is open, so it is as cold inside as out.'],
  ['A red lamp,', ' or a torch with red paper over it.'],
  ['Sturdy shoes', ' for the path behind the mill.'],
  ['Something hot', ' in a flask. There is no kiosk on the hill.'],
  ['A question', ' you have always wanted to ask about the sky.'],
  ['Gloves,', ' if you would like to pull the rope.'],
] as const;

/** Open Dome Night: a flyer on one page, with a checklist, and formatted by hand as such flyers are. */
export async function openDomeNight(): Promise<Sample> {
  const [w, h] = [mm(148), mm(210)];
  const b = new SampleAssembly('open-dome-night', 'Open Dome Night', { description: 'Flyer for an open evening at the observatory.' });
  b.swatch('night', 'Night', rgb('#17233B'));
  b.swatch('lamp', 'Lamp', rgb('#F0B36A'));
  b.swatch('text', 'Text', rgb('#22302C'));
  b.swatch('white', 'White', { space: 'grey', value: 1 });
  b.style({
    id: 'body',
    name: 'Body',
    character: { fontFamily: 'Work Sans', size: 9.5, leading: 13.5, fill: ink('text') },
    paragraph: { spaceAfter: 5 },
    role: role('p'),
  });
  b.style({
    id: 'title',
    name: 'Flyer title',
    character: { fontFamily: 'Source Serif 4', fontWeight: 700, size: 36, leading: 37, fill: ink('white') },
    role: role('h1'),
  });
  b.style({ id: 'checklist', name: 'Checklist line', basedOn: 'body', paragraph: { spaceAfter: 6 }, role: role('li') });
  await b.art('dusk', 'Dome at dusk', domeAtDusk(900, 800));

  const s = b.spread('front', [{ id: 'front-page', width: w, height: h }]);
  const picture = s.picture('picture', 'dusk', [0, 0, w, 262], { alt: 'The lit dome of the observatory on its hill at dusk.' });
  const title = s.text('title-frame', [26, 26, w - 52, 90]);
  b.story('title-text', [title], [para('title', ['Open', soft, 'Dome Night'])]);
  // Formatted by hand, span by span, as people do who have no style for it.
  const when = s.text('when', [26, 276, w - 52, 74]);
  b.story(
    'when-text',
    [when],
    [
      para('body', [styled('Friday, 6 March, from seven in the evening', { fontWeight: 700, size: 14, fill: ink('night') })], {
        overrides: { spaceAfter: 6 },
      }),
      para(
        'body',
        [
          'Once an hour we switch off the motor and turn nine tonnes of dome ',
          styled('by hand', { fontStyle: 'italic' }),
          '. Come and take the rope; ',
          styled('children go first', { fontWeight: 600 }),
          '.',
        ],
        { character: { size: 10.5, leading: 14.5 } },
      ),
    ],
  );
  s.add({
    kind: 'textFrame',
    id: 'bring',
    layer: 'text',
    transform: [1, 0, 0, 1, 26, 356],
    size: { width: w - 52, height: 27 },
    fill: ink('lamp'),
    inset: [3, 8, 3, 8],
    verticalAlign: 'centre',
    corner: { kind: 'round', radius: 4 },
  });
  b.story(
    'bring-text',
    [{ spread: 'front', item: 'bring' }],
    [
      para('body', 'What to bring', {
        character: { fontFamily: 'Source Serif 4', fontWeight: 700, size: 13 },
        overrides: { spaceAfter: 0 },
      }),
    ],
  );
  THINGS.forEach((_, i) =>
    s.shape(`box-${i + 1}`, rectPath({ x: 30, y: 396 + i * 19.5, width: 10, height: 10 }), {
      stroke: { paint: ink('text'), weight: 0.8 },
      fill: ink('white'),
      layer: 'text',
    }),
  );
  // What the boxes are on screen; on paper they are ticked with a pen.
  THINGS.forEach(([what], i) =>
    s.add({
      kind: 'field',
      id: `tick-${i + 1}`,
      layer: 'text',
      transform: [1, 0, 0, 1, 30, 396 + i * 19.5],
      size: { width: 10, height: 10 },
      control: { type: 'checkBox' },
      fieldName: `bring-${i + 1}`,
      label: what.replace(/[.,]$/, ''),
    }),
  );
  const list = s.text('list', [50, 393.5, w - 76, 124]);
  b.story(
    'list-text',
    [list],
    THINGS.map(([what, why]) => para('checklist', [styled(what, { fontWeight: 700 }), why])),
  );
  s.shape('foot', rectPath({ x: 0, y: h - 62, width: w, height: 62 }), { fill: ink('night') });
  const foot = s.text('foot-text-frame', [26, h - 62, w - 52, 62], { verticalAlign: 'centre' });
  b.story(
    'foot-text',
    [foot],
    [
      para(
        'body',
        [
          'Marrowby Hill Observatory, the path behind the mill. No charge. If it is cloudy we turn the dome all the same. ',
          { type: 'span', text: 'marrowby.example', link: 'site', overrides: { fontWeight: 600, fill: ink('lamp') } },
        ],
        { character: { fill: ink('white'), size: 8.5, leading: 12 } },
      ),
    ],
    { site: { id: 'site', destination: { to: 'address', href: 'https://marrowby.example/', window: 'same' } } },
  );
  b.decoration('foot', ...THINGS.map((_, i) => `box-${i + 1}`));
  b.edition('de', 'German', flyerGerman);
  b.edition('ja', 'Japanese', flyerJapanese, { overrides: { italics: 'bold' } });
  b.strand('flyer', 'Flyer', [title, picture, when, { spread: 'front', item: 'bring' }, list, foot]);
  return b.finish();
}
