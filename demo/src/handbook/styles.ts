import type { SampleAssembly } from '../sampleAssembly.ts';
import { ink, rgb, role } from '../sampleAssembly.ts';

const SERIF = 'Source Serif 4';
const SANS = 'Work Sans';
/** Lines of text stand this far apart, in points: the step of the baseline grid. */
export const STEP = 18;

/** Inks and styles of the handbook: large text, to be read by a red lamp. */
export function handbookStyles(b: SampleAssembly): void {
  b.swatch('text', 'Text', rgb('#22302C'));
  b.swatch('fir', 'Fir', rgb('#1E5B4B'));
  b.swatch('amber', 'Amber', rgb('#C9772B'));
  b.swatch('paper', 'Paper', { space: 'grey', value: 1 });
  b.swatch('night', 'Night', rgb('#17233B'));
  b.head.listStyles = {
    chapters: { id: 'chapters', name: 'Chapter numbers', levels: [level('{n}', 0)] },
    parts: { id: 'parts', name: 'Part numbers', levels: [{ ...level('Part {n}', 0), format: 'upperRoman', texts: { de: 'Teil {n}' } }] },
    figures: {
      id: 'figures',
      name: 'Figure numbers',
      levels: [{ ...level('Figure {n}', 0), texts: { de: 'Abbildung {n}' }, character: 'number' }],
    },
    tables: {
      id: 'tables',
      name: 'Table numbers',
      levels: [{ ...level('Table {n}', 0), texts: { de: 'Tabelle {n}' }, character: 'number' }],
    },
    steps: { id: 'steps', name: 'Steps', levels: [{ ...level('{n}', 20), character: 'number' }] },
    bullets: { id: 'bullets', name: 'Points', levels: [{ ...level('•', 20), kind: 'bullet', character: 'number' }] },
  };
  b.characterStyle({ id: 'number', name: 'Number', character: { fontFamily: SANS, fontWeight: 600, fill: ink('fir') } });
  b.style({
    id: 'running',
    name: 'Running text',
    character: { fontFamily: SERIF, size: 12.5, leading: STEP, fill: ink('text'), language: 'en' },
    paragraph: {
      align: 'justify',
      firstLineIndent: 16,
      composer: 'totalFit',
      hyphenation: { before: 2, after: 3, inARow: 2, capitals: false },
      hangingPunctuation: true,
      orphans: 2,
      widows: 2,
      alignToGrid: true,
    },
    role: role('p'),
  });
  b.style({ id: 'opening', name: 'Opening paragraph', basedOn: 'running', paragraph: { firstLineIndent: 0 } });
  const display = {
    align: 'left' as const,
    composer: 'totalFit' as const,
    hyphenation: null,
    hangingPunctuation: false,
    firstLineIndent: 0,
  };
  b.style({
    id: 'part',
    name: 'Part title',
    character: { fontFamily: SERIF, fontWeight: 600, size: 31, leading: 36, fill: ink('fir') },
    paragraph: {
      ...display,
      breakBefore: 'page',
      spaceAfter: 18,
      keepWithNext: 2,
      startIndent: 112,
      firstLineIndent: -112,
      tabs: [{ at: 112, align: 'left' }],
      list: { style: 'parts', level: 0 },
    },
    role: role('h1', { startsSection: true }),
  });
  b.style({
    id: 'chapter',
    name: 'Chapter title',
    character: { fontFamily: SERIF, fontWeight: 600, size: 25, leading: 30, fill: ink('night') },
    paragraph: {
      ...display,
      breakBefore: 'page',
      spaceAfter: 24,
      keepWithNext: 2,
      startIndent: 40,
      firstLineIndent: -40,
      tabs: [{ at: 40, align: 'left' }],
      list: { style: 'chapters', level: 0 },
      ruleBelow: { weight: 1.2, offset: 12, paint: ink('amber'), width: 'column' },
    },
    role: role('h2', { startsSection: true }),
  });
  b.style({
    id: 'section',
    name: 'Section head',
    character: { fontFamily: SANS, fontWeight: 600, size: 13, leading: STEP, fill: ink('fir') },
    paragraph: { ...display, spaceBefore: STEP, keepWithNext: 2, alignToGrid: true },
    role: role('h3'),
  });
  b.style({
    id: 'step',
    name: 'Step',
    basedOn: 'opening',
    paragraph: {
      align: 'left',
      hangingPunctuation: false,
      list: { style: 'steps', level: 0 },
      tabs: [{ at: 20, align: 'left' }],
      orphans: 2,
    },
    role: role('li'),
  });
  b.style({ id: 'bullet', name: 'Point', basedOn: 'step', paragraph: { list: { style: 'bullets', level: 0 } }, role: role('li') });
  b.style({
    id: 'extract',
    name: 'From the log',
    basedOn: 'opening',
    character: { fontStyle: 'italic' },
    paragraph: {
      startIndent: 20,
      endIndent: 20,
      shading: { paint: ink('amber', 0.12), offset: 8 },
      spaceBefore: STEP,
      spaceAfter: STEP,
      keepLines: true,
    },
    role: role('blockquote'),
  });
  b.style({
    id: 'figure',
    name: 'Figure',
    character: { fontFamily: SANS, size: 9, leading: 10 },
    paragraph: { ...display, align: 'centre', spaceBefore: STEP, keepWithNext: 2 },
    role: role('p'),
  });
  const small = { fontFamily: SANS, size: 9.5, leading: 13.5, fill: ink('text'), language: 'en' as const };
  b.style({
    id: 'figureCaption',
    name: 'Figure caption',
    character: small,
    paragraph: {
      ...display,
      spaceBefore: 6,
      spaceAfter: STEP,
      tabs: [{ at: 54, align: 'left' }],
      keepLines: true,
      list: { style: 'figures', level: 0 },
    },
    role: role('figcaption'),
  });
  b.style({
    id: 'tableCaption',
    name: 'Table caption',
    character: small,
    paragraph: {
      ...display,
      spaceBefore: STEP,
      spaceAfter: 5,
      tabs: [{ at: 48, align: 'left' }],
      keepLines: true,
      keepWithNext: 3,
      list: { style: 'tables', level: 0 },
    },
    role: role('p', { class: 'tableCaption' }),
  });
  b.style({ id: 'tableText', name: 'Table text', character: { ...small, leading: 13 }, paragraph: display, role: role('td') });
  b.style({
    id: 'tableHead',
    name: 'Table head',
    basedOn: 'tableText',
    character: { fontWeight: 600, fill: ink('fir') },
    role: role('th'),
  });
  b.style({ id: 'afterTable', name: 'After a table', character: { ...small, size: 4, leading: 6 }, role: role('p', { leaveOut: true }) });
  b.head.cellStyles = {
    cell: { id: 'cell', name: 'Cell', inset: 5, stroke: null },
    shaded: { id: 'shaded', name: 'Every other row', inset: 5, stroke: null, fill: ink('fir', 0.07) },
    head: { id: 'head', name: 'Head cell', inset: 5, stroke: null, fill: ink('fir', 0.16) },
  };
  b.head.tableStyles = {
    ruled: { id: 'ruled', name: 'Shaded rows', body: 'cell', header: 'head', alternate: { every: 1, style: 'shaded' } },
  };
  b.style({
    id: 'footnote',
    name: 'Footnote',
    character: { fontFamily: SERIF, size: 9.5, leading: 12.5, fill: ink('text'), language: 'en' },
    paragraph: { ...display, startIndent: 14, firstLineIndent: -14, tabs: [{ at: 14, align: 'left' }] },
    role: role('aside'),
  });
  b.style({
    id: 'pageNumber',
    name: 'Page number',
    character: { ...small, size: 9 },
    paragraph: { align: 'left' },
    role: role('p', { leaveOut: true }),
  });
  b.style({
    id: 'pageNumberRight',
    name: 'Page number, right',
    basedOn: 'pageNumber',
    paragraph: { align: 'right' },
    role: role('p', { leaveOut: true }),
  });
  b.style({
    id: 'runningHead',
    name: 'Running head',
    basedOn: 'pageNumber',
    character: { fill: ink('fir') },
    role: role('p', { leaveOut: true }),
  });
  b.style({
    id: 'runningHeadRight',
    name: 'Running head, right',
    basedOn: 'runningHead',
    paragraph: { align: 'right' },
    role: role('p', { leaveOut: true }),
  });
  const contents = (indent: number, more: object = {}) => ({
    ...display,
    startIndent: indent,
    endIndent: 30,
    tabs: [
      { at: indent, align: 'left' as const },
      { at: 305, align: 'right' as const, leader: ' .' },
    ],
    ...more,
  });
  b.style({
    id: 'contents1',
    name: 'Contents, part',
    character: { fontFamily: SANS, fontWeight: 600, size: 11, leading: 15, fill: ink('fir') },
    paragraph: contents(0, { spaceBefore: 8, keepWithNext: 1, endIndent: 0 }),
    role: role('p', { class: 'contents' }),
  });
  b.style({
    id: 'contents2',
    name: 'Contents, chapter',
    character: { fontFamily: SERIF, size: 11.5, leading: 16, fill: ink('text') },
    paragraph: contents(0, { endIndent: 0 }),
    role: role('p', { class: 'contents' }),
  });
  b.style({
    id: 'bookTitle',
    name: 'Book title',
    character: { fontFamily: SERIF, fontWeight: 600, size: 40, leading: 44, fill: ink('paper') },
    paragraph: display,
    role: role('h1'),
  });
  b.style({
    id: 'bookLine',
    name: 'Line on the title page',
    character: { fontFamily: SANS, size: 12, leading: 17, fill: ink('paper') },
    paragraph: display,
    role: role('p'),
  });
  b.style({
    id: 'frontHead',
    name: 'Heading without a number',
    basedOn: 'chapter',
    paragraph: { list: null, startIndent: 0, firstLineIndent: 0 },
    role: role('h1', { startsSection: true }),
  });
  b.style({
    id: 'imprint',
    name: 'Imprint',
    character: small,
    paragraph: { ...display, spaceAfter: 5 },
    role: role('p', { class: 'imprint' }),
  });
  b.style({
    id: 'term',
    name: 'Glossary entry',
    character: { fontFamily: SERIF, size: 11, leading: 15, fill: ink('text'), language: 'en' },
    paragraph: { ...display, startIndent: 14, firstLineIndent: -14, spaceAfter: 3, keepLines: true },
    role: role('p', { class: 'term' }),
  });
  b.style({
    id: 'indexLine',
    name: 'Index line',
    character: { fontFamily: SERIF, size: 10, leading: 13.5, fill: ink('text'), language: 'en' },
    paragraph: { ...display, startIndent: 12, firstLineIndent: -12, keepLines: true },
    role: role('li', { class: 'index' }),
  });
}

const level = (text: string, indent: number) => ({
  kind: 'number' as 'number' | 'bullet',
  text,
  texts: {},
  format: 'decimal' as 'decimal' | 'upperRoman',
  indent,
});
