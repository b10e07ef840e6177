import type { Judgement } from '../../ledger/entry.ts';
import type { SubjectInFolio } from '../../ledger/subjects.ts';
import { adapted, kept } from '../judgements.ts';
import { judgeBoxes } from '../office/judgeBoxes.ts';
import { BOX_SENTENCES } from '../office/officeSentences.ts';
import { LARGEST_PAGE } from '../office/pageSetup.ts';
import { DRAWINGML } from '../office/placedFormat.ts';
import type { WriteJob } from '../writer.ts';
import { judgeWords } from './judgeDocx.ts';
import type { DocxSettings } from './settings.ts';

export const LAID_SENTENCES: Record<string, string> = {
  ...BOX_SENTENCES,
  'page.clipped': 'Pages of the format are up to 22 inches wide and high: this one is cut to that.',
};

/** Judges every subject for a text document of placed boxes. */
export function judgeLaid(job: WriteJob<DocxSettings>): (about: SubjectInFolio) => Judgement {
  const places = judgeBoxes(job, {
    ...DRAWINGML,
    fields: false,
    more: ({ subject, spread }) => {
      if (subject.kind !== 'page' || subject.aspect !== 'size') return null;
      const { box } = spread!.pages.find((p) => p.id === subject.id)!;
      return Math.max(box.width, box.height) > LARGEST_PAGE ? adapted('page.clipped') : null;
    },
    look: ({ stroke }) => (stroke && [stroke.startMarker, stroke.endMarker].includes('bar') ? adapted('ends.bare') : kept),
  });
  return judgeWords(job, places);
}
