/** Namespaces of PresentationML and what stands in it (ISO/IEC 29500-1, transitional). */
export const NAMESPACES = {
  'xmlns:a': 'http://schemas.openxmlformats.org/drawingml/2006/main',
  'xmlns:r': 'http://schemas.openxmlformats.org/officeDocument/2006/relationships',
  'xmlns:p': 'http://schemas.openxmlformats.org/presentationml/2006/main',
} as const;

const MAIN = 'application/vnd.openxmlformats-officedocument.presentationml';
export const CONTENT = {
  presentation: `${MAIN}.presentation.main+xml`,
  template: `${MAIN}.template.main+xml`,
  slide: `${MAIN}.slide+xml`,
  layout: `${MAIN}.slideLayout+xml`,
  master: `${MAIN}.slideMaster+xml`,
  notes: `${MAIN}.notesSlide+xml`,
  notesMaster: `${MAIN}.notesMaster+xml`,
  properties: `${MAIN}.presProps+xml`,
  tableStyles: `${MAIN}.tableStyles+xml`,
  theme: 'application/vnd.openxmlformats-officedocument.theme+xml',
} as const;
