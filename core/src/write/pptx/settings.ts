import { z } from 'zod';
import { commonSettings } from '../commonSettings.ts';
import { officeSettings } from '../office/officeSettings.ts';
import { slideSettings } from '../office/slideSettings.ts';

const { words, leading, fields, replacements, pictures, pictureFormat, whiteGround, effects, blends, crops } = officeSettings;
const { spreads, notes, media, transitions } = slideSettings;

/** The recipe of the deck of slides. */
export const PptxSettings = z.object({
  ...commonSettings,
  template: z.boolean().default(false).meta({
    title: 'As a template',
    help: 'A file from which colleagues begin new decks with the same layouts.',
    group: 'What goes in',
  }),
  words,
  sizes: z
    .enum(['one', 'each'])
    .default('one')
    .meta({
      title: 'Pages of different sizes',
      help: 'A deck has one size. Either all pages are in one file, as large as the largest of them, or there is a file for each size.',
      group: 'What goes in',
      labels: { one: 'In one file, smaller ones in the middle', each: 'A file for each size' },
    }),
  spreads,
  masters: z
    .enum(['layouts', 'slides'])
    .default('layouts')
    .meta({
      title: 'What repeats on pages',
      help: 'Items of master pages stand on layouts, so that new slides have them too, or on each slide like all else.',
      group: 'What goes in',
      labels: { layouts: 'On layouts', slides: 'On each slide' },
    }),
  notes,
  leading,
  fit: z
    .enum(['stays', 'shrinks', 'grows'])
    .default('stays')
    .meta({
      title: 'Text that needs more room',
      help: 'What happens when somebody writes more into a box than it holds, or lacks the typeface.',
      group: 'Text',
      labels: { stays: 'Runs over its box', shrinks: 'Is made smaller', grows: 'Its box grows' },
    }),
  fields,
  replacements,
  pictures,
  pictureFormat,
  whiteGround,
  crops,
  effects,
  blends,
  media,
  transitions,
  animations: z.boolean().default(true).meta({
    title: 'Animations',
    help: 'What cues show, hide and move becomes animations, as far as slides have such.',
    group: 'Motion',
  }),
});
export type PptxSettings = z.infer<typeof PptxSettings>;
