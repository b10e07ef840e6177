import type { Xml } from '../assets/xml.ts';
import { el, sequence } from '../assets/xml.ts';
import { NAMESPACES } from '../ooxml/wordNamespaces.ts';

/** `w:settings` in the order of its schema (ISO/IEC 29500-1, 17.15.1.78, CT_Settings). */
const settings = sequence('w:settings', [
  'w:embedTrueTypeFonts',
  'w:defaultTabStop',
  'w:autoHyphenation',
  'w:characterSpacingControl',
  'w:footnotePr',
  'w:endnotePr',
  'w:compat',
  'w:themeFontLang',
  'w:decimalSymbol',
  'w:listSeparator',
] as const);

/** The mode in which programs lay out what is made today ([MS-DOCX] 2.3.1, compatibilityMode). */
const MODE = 15;
const SOURCE = 'http://schemas.microsoft.com/office/word';

const lines = (kind: 'footnote' | 'endnote'): Xml => el(`w:${kind}Pr`, {}, el(`w:${kind}`, { 'w:id': 0 }), el(`w:${kind}`, { 'w:id': 1 }));

/** What holds for the whole of a text document. */
export const documentSettings = (about: { fonts: boolean; language: string; notes: { footnote: boolean; endnote: boolean } }): Xml =>
  settings(
    {
      'w:embedTrueTypeFonts': about.fonts && el('w:embedTrueTypeFonts'),
      'w:autoHyphenation': el('w:autoHyphenation'),
      // Half an inch, as the layout’s own stops where none are set.
      'w:defaultTabStop': el('w:defaultTabStop', { 'w:val': 720 }),
      'w:characterSpacingControl': el('w:characterSpacingControl', { 'w:val': 'doNotCompress' }),
      'w:footnotePr': about.notes.footnote && lines('footnote'),
      'w:endnotePr': about.notes.endnote && lines('endnote'),
      'w:compat': el('w:compat', {}, el('w:compatSetting', { 'w:name': 'compatibilityMode', 'w:uri': SOURCE, 'w:val': MODE })),
      'w:themeFontLang': el('w:themeFontLang', { 'w:val': about.language }),
      'w:decimalSymbol': el('w:decimalSymbol', { 'w:val': '.' }),
      'w:listSeparator': el('w:listSeparator', { 'w:val': ',' }),
    },
    NAMESPACES,
  );
