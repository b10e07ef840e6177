import { expect, test } from '@jest/globals';
import { readFlat } from './support/flatFile.ts';

/**
 * What moves on a page: OpenDocument 1.3 part 3, chapter 15, and SMIL 3.0, 5.4 (begins are counted from the container's own).
 */
const shape = (id: string, inside = ''): string =>
  `<draw:rect xml:id="${id}" draw:id="${id}" svg:x="1cm" svg:y="1cm" svg:width="3cm" svg:height="2cm">${inside}</draw:rect>`;
const effect = (body: string, attributes = '', kind = 'entrance'): string =>
  `<anim:par presentation:preset-class="${kind}" ${attributes}>${body}</anim:par>`;
const set = (target: string): string =>
  `<anim:set smil:begin="0s" smil:dur="0.001s" smil:fill="hold" smil:targetElement="${target}" smil:attributeName="visibility" smil:to="visible"/>`;
const fade = (target: string, seconds: string): string =>
  `${set(target)}<anim:transitionFilter smil:dur="${seconds}" smil:targetElement="${target}" smil:type="fade" smil:subtype="crossfade"/>`;
const group = (begin: string, body: string, inner = '0s'): string =>
  `<anim:par smil:begin="${begin}"><anim:par smil:begin="${inner}">${body}</anim:par></anim:par>`;
const main = (...groups: string[]): string =>
  `<anim:par presentation:node-type="timing-root"><anim:seq presentation:node-type="main-sequence">${groups.join('')}</anim:seq></anim:par>`;

async function page(shapes: string, timing: string) {
  const { folio, record } = await readFlat({
    kind: 'presentation',
    pages: `<draw:page draw:name="One" draw:master-page-name="M">${shapes}${timing}</draw:page>`,
  });
  const spread = Object.values(folio.spreads)[0]!;
  return { spread, cues: Object.values(spread.pages[0]!.cues), listed: record.notTaken.map((n) => n.what) };
}

test('what begins by itself begins when the page is shown, each part at its own time', async () => {
  const { cues, listed } = await page(
    shape('a') + shape('b'),
    main(group('0s', effect(fade('a', '0.5s')) + effect(set('b'), 'smil:begin="1.5s"'), '2s')),
  );
  expect(listed).toEqual([]);
  expect(cues).toHaveLength(1);
  expect(cues[0]!.trigger).toEqual({ when: 'pageShown' });
  // 2 s of the container, and 1.5 s of its own.
  expect(cues[0]!.steps).toEqual([
    { do: 'animate', items: ['a'], kind: 'fade', seconds: 0.5, easing: 'linear', from: 'left', repeat: 'once', after: 2 },
    { do: 'animate', items: ['b'], kind: 'appear', seconds: 0, easing: 'linear', from: 'left', repeat: 'once', after: 3.5 },
  ]);
});

test.each([
  ['moves in', '<anim:animate smil:dur="1s" smil:targetElement="a" smil:attributeName="y" smil:values="1;y"/>', 'moveIn'],
  ['grows', '<anim:animate smil:dur="1s" smil:targetElement="a" smil:attributeName="width" smil:values="0;width"/>', 'scale'],
  ['is scaled', '<anim:animateTransform smil:dur="1s" smil:targetElement="a" svg:type="scale" smil:from="0,0"/>', 'scale'],
  ['comes out of nothing', '<anim:animate smil:dur="1s" smil:targetElement="a" smil:attributeName="opacity" smil:values="0;1"/>', 'fade'],
])('an object that %s', async (_, part, kind) => {
  const { cues, listed } = await page(
    shape('a'),
    main(group('0s', effect(set('a') + part, 'smil:accelerate="0.5" smil:decelerate="0.5" smil:repeatCount="indefinite"'))),
  );
  expect(cues[0]!.steps).toMatchObject([{ kind, seconds: 1, easing: 'ease', repeat: 'again' }]);
  expect(listed).toEqual([]);
});

test('a wipe is shown as a fade, and that is told', async () => {
  const wipe = '<anim:transitionFilter smil:dur="1s" smil:targetElement="a" smil:type="barWipe"/>';
  const { cues, listed } = await page(shape('a'), main(group('0s', effect(set('a') + wipe))));
  expect(cues[0]!.steps).toMatchObject([{ kind: 'fade', seconds: 1 }]);
  expect(listed).toEqual(['Animation of a kind of its own']);
});

test('what waits for a click, goes away, or moves a line of a text is listed, and nothing else of it is done', async () => {
  const paragraph = '<text:p xml:id="line">A line.</text:p>';
  const { cues, listed } = await page(
    shape('a', paragraph),
    main(group('next', effect(fade('a', '1s'))), group('0s', effect(set('a'), '', 'exit') + effect(set('line')))),
  );
  expect(cues).toEqual([]);
  expect(listed).toEqual(['Animations that begin at a click', 'Animation of the kind “exit”', 'Animation of a part of a text']);
});

test('an object’s press begins what another does', async () => {
  const sequence = `<anim:par presentation:node-type="timing-root"><anim:seq presentation:node-type="interactive-sequence">${group('a.click', effect(fade('b', '1s')))}</anim:seq></anim:par>`;
  const { spread, cues } = await page(shape('a') + shape('b'), sequence);
  expect(cues).toEqual([]);
  const own = Object.values(spread.items['a']!.cues);
  expect(own).toMatchObject([{ trigger: { when: 'press' }, steps: [{ do: 'animate', items: ['b'], kind: 'fade' }] }]);
});

test('a shape moves with the text that stands in it', async () => {
  const ellipse =
    '<draw:ellipse xml:id="a" svg:x="1cm" svg:y="1cm" svg:width="5cm" svg:height="4cm"><text:p>Inside</text:p></draw:ellipse>';
  const { spread, cues } = await page(ellipse, main(group('0s', effect(set('a')))));
  const [step] = cues[0]!.steps;
  const moved = step!.do === 'animate' ? spread.items[step!.items[0]!] : undefined;
  expect(moved).toMatchObject({ kind: 'group' });
});

test('pages without animations say nothing of them', async () => {
  const { cues, listed } = await page(shape('a'), main());
  expect(cues).toEqual([]);
  expect(listed).toEqual([]);
});
