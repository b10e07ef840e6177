import { z } from 'zod';
import { commonSettings } from '../shared/commonSettings.ts';
import { officeSettings } from '../shared/office/officeSettings.ts';
import { textDocumentSettings } from '../shared/office/textDocumentSettings.ts';

const { words, leading, fields, pictures, pictureFormat, whiteGround } = officeSettings;
const { way, template, linked, masters, columns, contents, depth, pageNumbers, crops, effects, blends } = textDocumentSettings;

/** The recipe of the open text document. */
export const OdtSettings = z.object({
  ...commonSettings,
  way,
  template,
  words,
  leading,
  linked,
  masters,
  columns,
  fields,
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
