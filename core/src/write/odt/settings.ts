import { z } from 'zod';
import { commonSettings } from '../commonSettings.ts';
import { officeSettings } from '../office/officeSettings.ts';
import { textDocumentSettings } from '../office/textDocumentSettings.ts';

const { words, styles, leading, fields, replacements, tables, pictures, pictureFormat, whiteGround } = officeSettings;
const { way, template, linked, masters, columns, contents, depth, pageNumbers, crops, effects, blends } = textDocumentSettings;

/** The recipe of the open text document. */
export const OdtSettings = z.object({
  ...commonSettings,
  way,
  template,
  words,
  styles,
  leading,
  linked,
  masters,
  columns,
  fields,
  replacements,
  tables,
  contents,
  depth,
  pageNumbers,
  pictures,
  pictureFormat,
  whiteGround,
  crops,
  effects,
  blends,
});
export type OdtSettings = z.infer<typeof OdtSettings>;
