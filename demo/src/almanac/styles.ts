import type { SampleAssembly } from '../sampleAssembly.ts';
import { ink, rgb, role } from '../sampleAssembly.ts';

const SERIF = 'Source Serif 4';
const SANS = 'Work Sans';

/** Inks and styles of the Almanac, with what each style means. */
export function almanacStyles(b: SampleAssembly): void {
  b.swatch('night', 'Night', rgb('#17233B'));
  b.swatch('paper', 'Paper', { space: 'grey', value: 1 });
  b.swatch('text', 'Text', rgb('#22302C'));
  b.swatch('dusk', 'Dusk', { space: 'cmyk', c: 0.14, m: 0.5, y: 0.6, k: 0.2 });
  b.swatch('straw', 'Lamp', rgb('#F0B36A'));
  b.swatch('fir', 'Fir', rgb('#1E5B4B'));
  b.swatch('copper', 'Copper (spot)', {
    space: 'spot',
    ink: 'Marrowby Copper',
    alternate: { space: 'cmyk', c: 0.1, m: 0.55, y: 0.7, k: 0.15 },
  });

  b.style({
    id: 'running',
    name: 'Running text',
    character: { fontFamily: SERIF, size: 11, leading: 15.4, fill: ink('text'), language: 'en' },
    paragraph: {
      align: 'justify',
      firstLineIndent: 12,
      composer: 'totalFit',
      hyphenation: { before: 2, after: 3, inARow: 2, capitals: false },
      hangingPunctuation: true,
      orphans: 2,
      widows: 2,
    },
    role: role('p'),
  });
  b.style({ id: 'opening', name: 'Opening paragraph', basedOn: 'running', paragraph: { firstLineIndent: 0 } });
  b.style({
    id: 'first',
    name: 'First paragraph',
    basedOn: 'opening',
    paragraph: { dropCapital: { lines: 3, characters: 1, style: 'initial' } },
  });
  b.characterStyle({ id: 'initial', name: 'Initial', character: { fontWeight: 600, fill: ink('dusk') } });
  b.style({ id: 'light', name: 'Running text on night', basedOn: 'opening', character: { fill: ink('paper') } });
  b.style({
    id: 'title',
    name: 'Feature title',
    character: { fontFamily: SERIF, fontWeight: 600, size: 38, leading: 40, fill: ink('paper') },
    paragraph: { spaceAfter: 10 },
    role: role('h1', { startsSection: true }),
  });
  b.style({ id: 'masthead', name: 'Masthead', basedOn: 'title', character: { size: 58, leading: 58 }, role: role('h1') });
  b.style({ id: 'darkTitle', name: 'Feature title on paper', basedOn: 'title', character: { fill: ink('night') } });
  b.style({
    id: 'head',
    name: 'Section head',
    character: { fontFamily: SANS, fontWeight: 600, size: 13.5, leading: 18, fill: ink('dusk') },
    paragraph: { spaceBefore: 12, spaceAfter: 4, keepWithNext: 2 },
    role: role('h2'),
  });
  b.style({
    id: 'standfirst',
    name: 'Standfirst',
    character: { fontFamily: SANS, size: 12, leading: 17, fill: ink('paper') },
    role: role('p', { class: 'standfirst' }),
  });
  b.style({
    id: 'caption',
    name: 'Caption',
    character: { fontFamily: SANS, size: 8.6, leading: 12, fill: ink('text') },
    role: role('figcaption'),
  });
  b.style({
    id: 'quote',
    name: 'Pull quote',
    character: { fontFamily: SERIF, fontStyle: 'italic', size: 17, leading: 22, fill: ink('fir') },
    paragraph: { align: 'centre', composer: 'totalFit' },
    role: role('aside'),
  });
  b.style({
    id: 'letter',
    name: 'Letter',
    basedOn: 'opening',
    paragraph: { startIndent: 14, endIndent: 14, spaceBefore: 4, spaceAfter: 4 },
    role: role('blockquote'),
  });
  b.style({
    id: 'coverLine',
    name: 'Cover line',
    character: { fontFamily: SANS, fontWeight: 600, size: 13, leading: 19, fill: ink('paper') },
    role: role('li'),
  });
  b.style({
    id: 'season',
    name: 'Season',
    character: { fontFamily: SANS, size: 12, leading: 16, tracking: 60, fill: ink('straw') },
    role: role('p', { class: 'season' }),
  });
  b.style({
    id: 'pageNumber',
    name: 'Page number',
    character: { fontFamily: SANS, size: 8, leading: 10, fill: ink('text') },
    paragraph: { align: 'centre' },
    role: role('p', { leaveOut: true }),
  });
  b.style({ id: 'runningHead', name: 'Running head', basedOn: 'pageNumber', paragraph: { align: 'left' } });
  b.style({
    id: 'diary',
    name: 'Diary line',
    character: { fontFamily: SANS, size: 11, leading: 16, fill: ink('text') },
    paragraph: { startIndent: 84, firstLineIndent: -84, tabs: [{ at: 84, align: 'left' }], spaceAfter: 7 },
    role: role('li'),
  });
  b.style({
    id: 'note',
    name: 'Printer’s note',
    character: { fontFamily: SANS, size: 10, leading: 13, fill: ink('dusk') },
    role: role('p'),
  });
  b.style({
    id: 'label',
    name: 'Label',
    character: { fontFamily: SANS, fontWeight: 700, size: 13, leading: 15, fill: ink('night') },
    paragraph: { align: 'centre' },
    role: role('p', { class: 'label' }),
  });
  b.style({
    id: 'imprint',
    name: 'Imprint',
    character: { fontFamily: SANS, size: 8.8, leading: 13, fill: ink('text') },
    paragraph: { spaceAfter: 4 },
    role: role('p', { class: 'imprint' }),
  });
  b.style({
    id: 'side',
    name: 'Side note',
    character: { fontFamily: SANS, size: 8.4, leading: 11.4, fill: ink('dusk') },
    paragraph: { align: 'right' },
    role: role('aside'),
  });
  b.style({
    id: 'footnote',
    name: 'Footnote',
    character: { fontFamily: SERIF, size: 8.6, leading: 11.4, fill: ink('text'), language: 'en' },
    paragraph: { startIndent: 12, firstLineIndent: -12, tabs: [{ at: 12, align: 'left' }] },
    role: role('aside'),
  });
  b.style({
    id: 'spanningHead',
    name: 'Head across columns',
    basedOn: 'head',
    character: { fontFamily: SERIF, size: 20, leading: 24, fill: ink('fir') },
    paragraph: {
      spanColumns: true,
      spaceBefore: 0,
      spaceAfter: 8,
      ruleBelow: { weight: 0.8, offset: 7, paint: ink('copper'), width: 'column' },
    },
    role: role('h2'),
  });
  b.head.listStyles = {
    points: {
      id: 'points',
      name: 'Points',
      levels: [{ kind: 'bullet', text: '•', texts: {}, format: 'decimal', indent: 12, character: 'initial' }],
    },
    steps: {
      id: 'steps',
      name: 'Steps',
      levels: [{ kind: 'number', text: '{n}.', texts: {}, format: 'decimal', indent: 20, character: 'initial' }],
    },
  };
  b.style({
    id: 'point',
    name: 'Point',
    character: { fontFamily: SANS, size: 9.4, leading: 13.2, fill: ink('text') },
    paragraph: { spaceAfter: 3, keepLines: true, list: { style: 'points', level: 0 }, tabs: [{ at: 12, align: 'left' }] },
    role: role('li'),
  });
  b.style({
    id: 'step',
    name: 'Step',
    basedOn: 'opening',
    character: { size: 12, leading: 17 },
    paragraph: {
      align: 'left',
      hangingPunctuation: false,
      spaceAfter: 6,
      list: { style: 'steps', level: 0 },
      tabs: [{ at: 20, align: 'left' }],
    },
    role: role('li'),
  });
  b.style({
    id: 'question',
    name: 'Question',
    basedOn: 'opening',
    character: { fontStyle: 'italic', fill: ink('fir') },
    paragraph: { align: 'left', spaceBefore: 8, keepWithNext: 2, shading: { paint: ink('fir', 0.08), offset: 4 } },
    role: role('h3'),
  });
  b.style({ id: 'answer', name: 'Answer', basedOn: 'opening', paragraph: { spaceBefore: 6, spaceAfter: 6 } });
  b.style({
    id: 'jump',
    name: 'Where a text goes on',
    character: { fontFamily: SANS, fontWeight: 600, size: 8.6, leading: 12, capitals: 'small', tracking: 40, fill: ink('dusk') },
    role: role('p', { class: 'jump' }),
  });
  b.style({
    id: 'cellText',
    name: 'Table text',
    character: { fontFamily: SANS, size: 9.4, leading: 12, fill: ink('text') },
    role: role('td'),
  });
  b.style({ id: 'cellDay', name: 'Day', basedOn: 'cellText', character: { fontWeight: 600 }, role: role('td') });
  b.style({
    id: 'cellHead',
    name: 'Table head',
    basedOn: 'cellText',
    character: { fontWeight: 600, fill: ink('paper') },
    role: role('th'),
  });
  b.head.cellStyles = {
    cell: { id: 'cell', name: 'Cell', inset: 5, stroke: null },
    band: { id: 'band', name: 'Every other row', inset: 5, stroke: null, fill: ink('fir', 0.08) },
    head: { id: 'head', name: 'Head cell', inset: 5, stroke: null, fill: ink('fir') },
  };
  b.head.tableStyles = {
    almanacTable: { id: 'almanacTable', name: 'Banded', body: 'cell', header: 'head', alternate: { every: 1, style: 'band' } },
  };
  b.style({
    id: 'backQuote',
    name: 'Quotation on the back',
    basedOn: 'title',
    character: { fontStyle: 'italic', size: 34, leading: 40 },
    paragraph: { align: 'centre', spaceAfter: 12 },
    role: role('blockquote'),
  });
  b.style({ id: 'backLine', name: 'Its source', basedOn: 'standfirst', paragraph: { align: 'centre' } });
}
