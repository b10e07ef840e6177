import type { Sample } from './sampleAssembly.ts';
import { ink, para, rgb, role, SampleAssembly, strong } from './sampleAssembly.ts';

const [W, H] = [800, 600];
/** Pixels of a picture that is nothing but grain, so that it weighs about 200 kB as a JPEG. */
const GRAIN = 770;
const LINES = 12;
const BOXES = 24;
const WORDS = 'The dome turns slowly in frost and the wheels below it speak up one after another before the stars come out'.split(' ');

const sentence = (seed: number, length: number): string =>
  Array.from({ length }, (_, i) => WORDS[(seed * 5 + i * 3) % WORDS.length]).join(' ');

const grain = (seed: number): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${GRAIN}" height="${GRAIN}"><filter id="g"><feTurbulence type="fractalNoise" baseFrequency="0.9" numOctaves="3" seed="${seed}"/></filter><rect width="${GRAIN}" height="${GRAIN}" filter="url(#g)"/></svg>`;

/** A presentation for measuring with, of as many pages as wished: a title, a list, a picture and a row of labelled boxes on each. */
export async function largePresentation(pages: number): Promise<Sample> {
  const b = new SampleAssembly('night-log', 'Night Log', {});
  b.swatch('ink', 'Ink', rgb('#1E5B4B'));
  const character = { fontFamily: 'Work Sans', language: 'en' as const };
  b.style({ id: 'title', name: 'Title', character: { ...character, size: 30, leading: 36 }, role: role('h1') });
  b.style({
    id: 'entry',
    name: 'Entry',
    character: { ...character, size: 14, leading: 18 },
    paragraph: { spaceBefore: 4 },
    role: role('li'),
  });
  b.style({
    id: 'label',
    name: 'Label',
    character: { ...character, size: 10, leading: 12 },
    paragraph: { align: 'centre' },
    role: role('p'),
  });
  const pictures = await Promise.all(Array.from({ length: pages }, (_, p) => b.art(`grain-${p}`, `Night ${p + 1}`, grain(p))));
  for (const [p, media] of pictures.entries()) {
    const s = b.spread(`night-${p}`, [{ id: `page-${p}`, width: W, height: H }]);
    const title = s.text(`title-${p}`, [30, 30, 740, 60]);
    const list = s.text(`list-${p}`, [30, 110, 460, 290]);
    s.picture(`picture-${p}`, media, [510, 110, 260, 260], { alt: `Night ${p + 1}` });
    b.story(`title-text-${p}`, [title], [para('title', sentence(p, 6))]);
    const entries = Array.from({ length: LINES }, (_, i) => para('entry', [`${sentence(p + i, 14)} `, strong(sentence(i, 4))]));
    b.story(`list-text-${p}`, [list], entries);
    for (let i = 0; i < BOXES; i++) {
      const box = s.text(`box-${p}-${i}`, [30 + i * 31, 430, 26, 28], { fill: ink('ink', 0.3), corner: { kind: 'round', radius: 4 } });
      b.story(`label-${p}-${i}`, [box], [para('label', String(i))]);
    }
  }
  return b.finish();
}
