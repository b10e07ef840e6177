/** Namespaces of WordprocessingML and what stands in it (ISO/IEC 29500-1, transitional; those of 2010 by [MS-DOCX]). */
export const NAMESPACES = {
  'xmlns:w': 'http://schemas.openxmlformats.org/wordprocessingml/2006/main',
  'xmlns:r': 'http://schemas.openxmlformats.org/officeDocument/2006/relationships',
  'xmlns:wp': 'http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing',
  'xmlns:a': 'http://schemas.openxmlformats.org/drawingml/2006/main',
  'xmlns:pic': 'http://schemas.openxmlformats.org/drawingml/2006/picture',
  'xmlns:mc': 'http://schemas.openxmlformats.org/markup-compatibility/2006',
  'xmlns:wps': 'http://schemas.microsoft.com/office/word/2010/wordprocessingShape',
  'xmlns:v': 'urn:schemas-microsoft-com:vml',
  'xmlns:w14': 'http://schemas.microsoft.com/office/word/2010/wordml',
  // What a program does not know of these it may pass over (29500-3, 7.2).
  'mc:Ignorable': 'w14',
} as const;

const MAIN = 'application/vnd.openxmlformats-officedocument.wordprocessingml';
export const CONTENT = {
  document: `${MAIN}.document.main+xml`,
  template: `${MAIN}.template.main+xml`,
  styles: `${MAIN}.styles+xml`,
  numbering: `${MAIN}.numbering+xml`,
  settings: `${MAIN}.settings+xml`,
  fontTable: `${MAIN}.fontTable+xml`,
  footnotes: `${MAIN}.footnotes+xml`,
  endnotes: `${MAIN}.endnotes+xml`,
  header: `${MAIN}.header+xml`,
  footer: `${MAIN}.footer+xml`,
  app: 'application/vnd.openxmlformats-officedocument.extended-properties+xml',
  font: 'application/vnd.openxmlformats-officedocument.obfuscatedFont',
} as const;
