import { z } from 'zod';
import { commonSettings } from '../commonSettings.ts';
import { officeSettings } from '../office/officeSettings.ts';
import { textDocumentSettings } from '../office/textDocumentSettings.ts';

const { words, styles, leading, fields, replacements, tables, pictures, pictureFormat, whiteGround } = officeSettings;
const { way, template, linked, masters, columns, contents, depth, pageNumbers, crops, effects, blends } = textDocumentSettings;

/** The recipe of the text document. */
export const DocxSettings = z.object({
  ...commonSettings,
  way,
  template,
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
  linked,
  masters,
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
  columns,
  fields,
  contents,
  depth,
  pageNumbers,
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
  crops,
  effects,
  blends,
});
export type DocxSettings = z.infer<typeof DocxSettings>;
