import type { Xml } from '../../assets/xml.ts';
import { el } from '../../assets/xml.ts';

/** Says that a drawing is for the eye alone, and not to be read ([MS-ODRAWXML] 2.3.4: `decorative`). */
export const decorativeXml = (): Xml =>
  el(
    'a:extLst',
    {},
    el(
      'a:ext',
      { uri: '{C183D7F6-B498-43B3-948B-1728B52AA6E4}' },
      el('adec:decorative', { 'xmlns:adec': 'http://schemas.microsoft.com/office/drawing/2017/decorative', val: 1 }),
    ),
  );
