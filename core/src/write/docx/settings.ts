import { z } from 'zod';
import { commonSettings } from '../shared/commonSettings.ts';
import { officeSettings } from '../shared/office/officeSettings.ts';

const { words, columns, styles, leading, fields, replacements, tables, pictures, pictureFormat, whiteGround, crops, effects, blends } =
  officeSettings;

/** The recipe of the text document. */
export const DocxSettings = z.object({
  ...commonSettings,
  way: z
    .enum(['running', 'laid'])
    .default('running')
    .meta({
      title: 'What for',
      help: 'To be rewritten as one text from beginning to end, or page by page as it is laid out, everything in its place.',
      group: 'What goes in',
      labels: { running: 'Running text', laid: 'As laid out' },
    }),
  template: z.boolean().default(false).meta({
    title: 'As a template',
    help: 'A file from which colleagues begin new documents in the same styles.',
    group: 'What goes in',
  }),
  words,
  styles,
  headings: z
    .enum(['standard', 'own'])
    .default('standard')
    .meta({
      title: 'Names of headings',
      help: 'By the standard’s names, programs find headings for their outline; the document’s own stay beside them as other names.',
      group: 'Text',
      labels: { standard: 'The standard’s, with your own beside them', own: 'Your own alone' },
      showIf: { styles: ['named'] },
    }),
  leading,
  linked: z
    .enum(['linked', 'apart'])
    .default('linked')
    .meta({
      title: 'Texts over several frames',
      help: 'Whether words go on from box to box when others write, or every box keeps its own.',
      group: 'Text',
      labels: { linked: 'Go on from box to box', apart: 'Each box has its own' },
      showIf: { way: ['laid'] },
    }),
  masters: z
    .enum(['header', 'page'])
    .default('header')
    .meta({
      title: 'What repeats on pages',
      help: 'Items of master pages stand in the headers of pages, out of the way of those who write, or on each page like all else.',
      group: 'What goes in',
      labels: { header: 'In the headers', page: 'On each page' },
      showIf: { way: ['laid'] },
    }),
  initials: z
    .enum(['framed', 'plain'])
    .default('framed')
    .meta({
      title: 'Initials',
      help: 'Whether a large first letter stands in a frame of its own, as word processors have it, or is a letter like the others.',
      group: 'Text',
      labels: { framed: 'Over several lines', plain: 'Letters like the others' },
      showIf: { way: ['running'] },
    }),
  columns: columns.meta({ ...columns.meta(), showIf: { way: ['running'] } }),
  fields,
  contents: z
    .boolean()
    .default(true)
    .meta({
      title: 'Table of contents',
      help: 'A list of headings at the beginning that can be made anew after changes.',
      group: 'Finding one’s way',
      showIf: { way: ['running'] },
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
      showIf: { way: ['running'], contents: [true] },
    }),
  pageNumbers: z
    .boolean()
    .default(true)
    .meta({
      title: 'Page numbers',
      help: 'At the foot of every page of the new document.',
      group: 'Finding one’s way',
      showIf: { way: ['running'] },
    }),
  fonts: z
    .enum(['embed', 'names'])
    .default('embed')
    .meta({
      title: 'Typefaces',
      help: 'Whether the file brings its typefaces where their licences allow it to be worked on with, or only names them.',
      group: 'Typefaces',
      labels: { embed: 'In the file, where allowed', names: 'By name only' },
    }),
  replacements,
  tables,
  pictures,
  pictureFormat,
  whiteGround,
  crops: crops.meta({ ...crops.meta(), showIf: { way: ['laid'] } }),
  effects: effects.meta({ ...effects.meta(), showIf: { way: ['laid'] } }),
  blends: blends.meta({ ...blends.meta(), showIf: { way: ['laid'], pictures: ['inside', 'beside'] } }),
});
export type DocxSettings = z.infer<typeof DocxSettings>;
