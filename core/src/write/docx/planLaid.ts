import { adapted, kept } from '../treatments.ts';
import { planBoxes } from '../office/planBoxes.ts';
import { BOX_SENTENCES } from '../office/officeSentences.ts';
import { LARGEST_PAGE } from '../office/pageSetup.ts';
import { DRAWINGML } from '../office/placedFormat.ts';
import type { WriteJob } from '../writer.ts';
import { planWords } from './planDocx.ts';
import type { WordCode } from './planDocx.ts';
import type { DocxSettings } from './settings.ts';
import type { Plan } from '../treatments.ts';

export const LAID_SENTENCES = {
  ...BOX_SENTENCES,
  'page.clipped': 'Pages of the format are up to 22 inches wide and high: this one is cut to that.',
};
export type LaidCode = keyof typeof LAID_SENTENCES;

/** Plans every subject for a text document of placed boxes. */
export function planLaid(job: WriteJob<DocxSettings>): Plan<WordCode | LaidCode> {
  const places = planBoxes(job, {
    ...DRAWINGML,
    fields: false,
    more: ({ subject, spread }) => {
      if (subject.kind !== 'page' || subject.aspect !== 'size') return null;
      const { box } = spread!.pages.find((p) => p.id === subject.id)!;
      return Math.max(box.width, box.height) > LARGEST_PAGE ? adapted('page.clipped') : null;
    },
    look: ({ stroke }) => (stroke && [stroke.startMarker, stroke.endMarker].includes('bar') ? adapted('ends.bare') : kept),
  });
  return planWords(job, places);
}
