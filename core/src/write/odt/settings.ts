import { z } from 'zod';
import { commonSettings } from '../shared/commonSettings.ts';
import { officeSettings } from '../shared/office/officeSettings.ts';

const { words, leading, columns, fields, pictures, pictureFormat, whiteGround } = officeSettings;

/** The recipe of the open text document. */
export const OdtSettings = z.object({
  ...commonSettings,
  template: z.boolean().default(false).meta({
    title: 'As a template',
    help: 'A file from which colleagues begin new documents in the same styles.',
    group: 'What goes in',
  }),
  words,
  leading,
  columns,
  fields,
  contents: z.boolean().default(true).meta({
    title: 'Table of contents',
    help: 'A list of headings at the beginning that can be made anew after changes.',
    group: 'Finding one’s way',
  }),
  depth: z
    .number()
    .int()
    .min(1)
    .max(6)
    .default(3)
    .meta({
      title: 'Depth of the contents',
      help: 'Headings down to this level are listed.',
      group: 'Finding one’s way',
      showIf: { contents: [true] },
    }),
  pageNumbers: z.boolean().default(true).meta({
    title: 'Page numbers',
    help: 'At the foot of every page of the new document.',
    group: 'Finding one’s way',
  }),
  pictures,
  pictureFormat,
  whiteGround,
});
export type OdtSettings = z.infer<typeof OdtSettings>;
