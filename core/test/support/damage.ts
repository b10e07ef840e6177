import type { CharacterOverrides, Folio, Paragraph } from '../../src/index.ts';
import { Stroke } from '../../src/index.ts';

/**
 * Damage, and the subject it must be reported at. The damaged file is made by writing the Almanac altered in just this way, and
 * is read back against the unaltered one.
 */
export type Damage = [what: string, alter: (draft: Folio) => void, subject: string];

const paragraph = (folio: Folio, story: string, id: string): Paragraph => folio.stories[story]!.blocks[id] as Paragraph;

/** What every output must notice. */
export const DAMAGE: Damage[] = [
  ['a heading loses its meaning', (d) => (d.head.paragraphStyles['title']!.role!.element = 'p'), 'paragraph:night-words-text-1:role'],
  ['a heading is of another level', (d) => (d.head.paragraphStyles['head']!.role!.element = 'h3'), 'paragraph:dome-feature-3:role'],
  [
    'a link is gone',
    (d) => paragraph(d, 'dome-feature', 'dome-feature-9').content.forEach((n) => n.type === 'span' && delete n.link),
    'link:dome-feature-9/toSite:target',
  ],
  [
    'a link leads elsewhere',
    (d) =>
      (d.stories['dome-feature']!.links['toSite']!.destination = { to: 'address', href: 'https://elsewhere.example/', window: 'same' }),
    'link:dome-feature-9/toSite:target',
  ],
  [
    'another picture',
    (d) => ((d.spreads['s2']!.items['telescope-picture'] as { media: string }).media = 'map'),
    'item:telescope-picture:picture',
  ],
  [
    'a picture is missing',
    (d) => ((d.spreads['s2']!.items['telescope-picture'] as { media: string | null }).media = null),
    'item:telescope-picture:picture',
  ],
  ['an alt text is lost', (d) => delete d.spreads['s2']!.items['telescope-picture']!.alt, 'item:telescope-picture:alt'],
  [
    'a word is changed',
    (d) => (paragraph(d, 'sky-text-story', 'sky-text-story-1').content = [{ type: 'span', text: 'Something else stands here now.' }]),
    'paragraph:sky-text-story-1:text',
  ],
  ['a paragraph is gone', (d) => void d.stories['diary-text']!.order.splice(2, 1), 'paragraph:diary-text-3:text'],
  [
    'a paragraph stands twice',
    (d) => {
      const story = d.stories['diary-text']!;
      story.blocks['twin'] = { ...(story.blocks['diary-text-3'] as Paragraph), id: 'twin' };
      story.order.splice(3, 0, 'twin');
    },
    'paragraph:diary-text-3:text',
  ],
  [
    'a paragraph loses its language',
    (d) => delete paragraph(d, 'letter-text', 'letter-text-2').character,
    'paragraph:letter-text-2:language',
  ],
  ['letters are smaller', (d) => (d.head.paragraphStyles['caption']!.character.size = 8), 'paragraph:telescope-caption-text-1:look'],
  [
    'two texts are read in the wrong order',
    (d) => void d.head.structure.strands.find((s) => s.id === 'sky')!.entries.reverse(),
    'document:marrowby-almanac:order',
  ],
  ['the title is another', (d) => (d.head.metadata.title = 'Another'), 'document:marrowby-almanac:title'],
  ['the document’s language is another', (d) => (d.head.metadata.language = 'fr'), 'document:marrowby-almanac:language'],
  ['a hidden layer is shown', (d) => (d.head.layers['notes']!.visible = true), 'paragraph:cover-note-text-1:text'],
];

const TEAL = { type: 'colour', colour: { space: 'rgb', r: 0, g: 0.5, b: 0.5 } } as const;
const inWords = (folio: Folio, id: string, overrides: CharacterOverrides): void =>
  (folio.stories['dome-feature']!.blocks[id] as Paragraph).content.forEach((n) => n.type === 'span' && (n.overrides = overrides));

/** What only running text notices so: its styles are rules of its own. */
export const IN_TEXT: Damage[] = [
  ['a heading is unstyled', (d) => (d.head.paragraphStyles['head']!.character = {}), 'paragraph:dome-feature-3:look'],
  ['a heading has another colour', (d) => (d.head.paragraphStyles['head']!.character.fill = TEAL), 'paragraph:dome-feature-3:look'],
  ['emphasis stands upright', (d) => (d.head.characterStyles['emphasis']!.character = {}), 'paragraph:dome-feature-4:look'],
  ['words are struck through', (d) => inWords(d, 'dome-feature-4', { strike: {} }), 'paragraph:dome-feature-4:look'],
  ['words are larger', (d) => inWords(d, 'dome-feature-4', { size: 12 }), 'paragraph:dome-feature-4:look'],
  ['a cell has lost its ground', (d) => delete d.head.cellStyles['head']!.fill, 'cell:light-table-1-1:place'],
  ['a cell has another ground', (d) => (d.head.cellStyles['head']!.fill = TEAL), 'cell:light-table-1-1:place'],
  [
    'cells have lines',
    (d) => (d.head.cellStyles['cell']!.sides = { bottom: Stroke.parse({ paint: TEAL, weight: 1 }) }),
    'cell:light-table-2-1:place',
  ],
];

/** What is noticed where initials are told. */
export const INITIAL: Damage = [
  'an initial is gone',
  (d) => delete d.head.paragraphStyles['first']!.paragraph.dropCapital,
  'paragraph:dome-feature-1:look',
];

/** What only outputs that show pages can notice. */
export const ON_PAGES: Damage[] = [
  ['a frame moved by 2 pt', (d) => (d.spreads['s2']!.items['night-words']!.transform[4] += 2), 'item:night-words:place'],
  [
    'a turned frame is turned further',
    (d) => (d.spreads['s3']!.items['quote']!.transform = [0.9659258, -0.258819, 0.258819, 0.9659258, 430, 240]),
    'item:quote:place',
  ],
  ['a picture stands elsewhere', (d) => (d.spreads['s3']!.items['map-picture']!.transform[5] += 3), 'item:map-picture:place'],
  [
    'a colour is changed',
    (d) => (d.head.paragraphStyles['quote']!.character.fill = { type: 'swatch', swatch: 'night', tint: 1 }),
    'paragraph:quote-text-1:look',
  ],
  ['bold becomes regular', (d) => (d.head.characterStyles['strong']!.character.fontWeight = 400), 'paragraph:dome-feature-1:look'],
  [
    'a shape has another colour',
    (d) => (d.spreads['s5']!.items['diary-bar']!.fill = { type: 'swatch', swatch: 'night', tint: 1 }),
    'item:diary-bar:look',
  ],
  ['a shape is gone', (d) => (d.spreads['s3']!.items['quote-ground']!.fill = { type: 'none' }), 'item:quote-ground:look'],
  ['a page is another size', (d) => (d.spreads['s5']!.pages[1]!.box.height -= 20), 'page:page-8:size'],
];
