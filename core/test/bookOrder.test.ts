import { describe, expect, test } from '@jest/globals';
import { observeEpub } from '../src/ledger/flow/observeEpub.ts';
import { observeFixedEpub } from '../src/ledger/book/observeFixedEpub.ts';
import { sharpPictures } from '../src/ports/node.ts';
import { sample, writeOnly } from './support/samples.ts';
import type { SampleId } from './support/samples.ts';
import { ofToday } from './support/ofToday.ts';

/** Orders written down by hand, by looking at the pages: how each thing that is read begins. */
const FLYER = [
  'Open Dome Night',
  'Friday, 6 March, from seven in the evening',
  'Once an hour we switch off the motor',
  'What to bring',
  'A warm coat.',
  'A red lamp,',
  'Sturdy shoes',
  'Something hot',
  'A question',
  'Gloves,',
  'Marrowby Hill Observatory, the path behind the mill.',
];
const WORLDS = [
  ['Ember', 'Where it rains glass', 'So close to its star', 'A day 31 hours', 'A year 4 days', 'By day 1,100'],
  ['Mirror', 'One sea, no shore', 'A world of water', 'Depth of the sea 140 km', 'Highest wave 90 m', 'Land none'],
  ['Shepherd', 'A hundred and twelve moons', 'Its rings are wider', 'Moons 112', 'Width of the rings 480,000 km', 'Thickness 30 m'],
  ['Evenfall', 'Always ten minutes after sunset', 'It keeps the same face', 'A day never ends', 'A night never ends', 'Dusk 600 km wide'],
  ['Lantern', 'The one that shines by itself', 'It has lost its star', 'Distance 41 light years', 'Sun none', 'Found by a cloudy night'],
].flat();
/** Of the larger ones, what stands on pages 4 to 7 of the magazine and 8 to 11 of the book. */
const ALMANAC = [
  'It would be simpler to leave the rope on its hook',
  'The copper will be looked over',
  'What the wheels say',
  'In return the dome asks',
  'A night in the log',
  'It goes on in another hand',
  'The screw has never been missed',
  'Before you come',
  'Dogs are welcome',
  'Reading the sky in March',
  'The month begins with a thin moon',
  'First half of the night',
  'Towards morning',
];
const HANDBOOK = [
  'A pencil. Ink freezes',
  'Something hot in a flask',
  'Leave the big torch in the hut',
  'What happens when',
  'A public evening has a shape',
  'one hour before',
  'when the keeper says',
  'You will not be asked to do all of it',
  'Who is who',
  'If you are ever in doubt',
  'The path home',
  'Leave together',
  'The dome weighs a little over nine tonnes',
];

/** Without the bullets that fixed pages show as letters. */
const plain = (text: string): string =>
  text
    .replace(/\s+/g, ' ')
    .replace(/^\s*•\s*/, '')
    .trim();
const SMALL = { resolution: 36, cover: 'none' };
const readIn = {
  epub: async (bytes: Uint8Array) => (await observeEpub(bytes, sharpPictures)).blocks.map((b) => plain(b.text)),
  'epub-fixed': async (bytes: Uint8Array) =>
    (await observeFixedEpub(bytes, sharpPictures)).pages.flatMap((p) =>
      p.blocks.filter((b) => b.role !== 'figure').map((b) => plain(b.text)),
    ),
};

describe.each(ofToday(['epub', 'epub-fixed'] as const, 1, (id) => id))('what is read in %s', (output) => {
  const texts = async (id: SampleId): Promise<string[]> => {
    const s = await sample(id);
    return (await readIn[output]((await writeOnly(s, output, SMALL, s.folio)).get('book.epub')!)).filter(Boolean);
  };
  test.each([
    ['open-dome-night', FLYER],
    ['five-worlds', WORLDS],
  ] as const)('of %s is all of it, in the order written down by hand', async (id, byHand) => {
    const read = await texts(id);
    expect(read.map((t, i) => (t.startsWith(byHand[i] ?? '?') ? byHand[i] : t))).toEqual(byHand);
  });
  test.each([
    ['marrowby-almanac', ALMANAC],
    ['observers-handbook', HANDBOOK],
  ] as const)('of %s follows the order written down by hand', async (id, byHand) => {
    const read = await texts(id);
    // Each begins after the one before it: the same words may stand on the cover as well.
    let at = -1;
    for (const begins of byHand) {
      const next = read.findIndex((t, i) => i > at && t.startsWith(begins));
      expect([begins, next > at]).toEqual([begins, true]);
      at = next;
    }
  });
});
