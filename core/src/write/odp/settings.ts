import { z } from 'zod';
import { commonSettings } from '../commonSettings.ts';
import { officeSettings } from '../office/officeSettings.ts';
import { slideSettings } from '../office/slideSettings.ts';

const { words, leading, fields, replacements, pictures, pictureFormat, whiteGround, effects, blends, crops } = officeSettings;
const { spreads, notes, media, transitions } = slideSettings;

/** The recipe of the open presentation. */
export const OdpSettings = z.object({
  ...commonSettings,
  template: z.boolean().default(false).meta({
    title: 'As a template',
    help: 'A file from which colleagues begin new presentations with the same master pages.',
    group: 'What goes in',
  }),
  originals: z
    .enum(['own', 'anew'])
    .default('own')
    .meta({
      title: 'Pages that came in as slides',
      help: 'Those of an open presentation that nobody has changed since go out as they came, with all that they hold, or are written anew like all others.',
      group: 'What goes in',
      labels: { own: 'As they came', anew: 'Written anew' },
    }),
  words,
  spreads,
  notes,
  leading,
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
});
export type OdpSettings = z.infer<typeof OdpSettings>;
