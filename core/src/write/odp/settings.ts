import { z } from 'zod';
import { commonSettings } from '../shared/commonSettings.ts';
import { officeSettings } from '../shared/office/officeSettings.ts';

const { fields, pictures, pictureFormat, crops } = officeSettings;

/** The recipe of the open presentation. */
export const OdpSettings = z.object({
  ...commonSettings,
  template: z.boolean().default(false).meta({
    title: 'As a template',
    help: 'A file from which colleagues begin new presentations with the same master pages.',
    group: 'What goes in',
  }),
  notes: z.boolean().default(true).meta({
    title: 'Speaker’s notes',
    help: 'Texts that are notes to a page go along as notes to its slide.',
    group: 'What goes in',
  }),
  fields,
  pictures,
  pictureFormat,
  crops,
  media: z
    .enum(['inside', 'still'])
    .default('inside')
    .meta({
      title: 'Films and sounds',
      help: 'Whether they are in the file, or their still pictures alone.',
      group: 'Motion',
      labels: { inside: 'In the file', still: 'Still pictures' },
    }),
  transitions: z.boolean().default(true).meta({
    title: 'Page transitions',
    help: 'Slides come as pages do, in the nearest way that the format has.',
    group: 'Motion',
  }),
});
export type OdpSettings = z.infer<typeof OdpSettings>;
