import { z } from 'zod';

/** Settings that office files have in common, worded once. */
export const officeSettings = {
  words: z
    .enum(['prompts', 'document'])
    .default('prompts')
    .meta({
      title: 'Words of the template',
      help: 'Whether every paragraph says what belongs there, by the name of its style, or the document’s own words stay as an example.',
      group: 'What goes in',
      labels: { prompts: 'Say what belongs there', document: 'The document’s own' },
      showIf: { template: [true] },
    }),
  styles: z
    .enum(['named', 'none'])
    .default('named')
    .meta({
      title: 'Styles',
      help: 'Whether the document’s styles are styles of the file, by their names, or all of it is formatted by hand.',
      group: 'Text',
      labels: { named: 'Become styles', none: 'All by hand' },
    }),
  leading: z
    .enum(['safe', 'even', 'tightest', 'loosest', 'opening'])
    .default('safe')
    .meta({
      title: 'Distance between lines',
      help: 'A layout may give every line its own; these files know one for each paragraph.',
      group: 'Text',
      labels: {
        safe: 'Keeps the height, and nothing collides',
        even: 'The mean of all',
        tightest: 'The smallest',
        loosest: 'The largest',
        opening: 'That of the first line',
      },
    }),
  fields: z
    .enum(['live', 'text'])
    .default('live')
    .meta({
      title: 'Page numbers and references',
      help: 'Whether they go on being worked out while others write, or are words from now on.',
      group: 'Text',
      labels: { live: 'Stay live', text: 'Become words' },
    }),
  replacements: z
    .string()
    .max(5000)
    .regex(/^(?:[^\S\n]*(?:[^\s=][^=\n]*=[^=\n]*[^\s=][^\S\n]*)?(?:\n|$))*$/, 'must have a line for each, like Work Sans = Arial')
    .default('')
    .meta({
      title: 'Typefaces instead',
      help: 'For colleagues who lack a typeface, one that they have; a line for each, like Work Sans = Arial.',
      group: 'Typefaces',
      format: 'lines',
    }),
  columns: z
    .enum(['layout', 'one'])
    .default('layout')
    .meta({
      title: 'Columns',
      help: 'Whether text that the layout has in columns is in columns here, too.',
      group: 'Text',
      labels: { layout: 'As in the layout', one: 'One column throughout' },
    }),
  tables: z
    .enum(['free', 'exact'])
    .default('free')
    .meta({
      title: 'Tables',
      help: 'Whether rows and columns grow with what others write into them, or stay at the layout’s sizes.',
      group: 'Tables',
      labels: { free: 'Grow with their text', exact: 'Exactly as laid out' },
    }),
  pictures: z
    .enum(['inside', 'beside', 'none'])
    .default('inside')
    .meta({
      title: 'Pictures',
      help: 'Whether pictures are in the file, lie beside it in a folder, or are left out.',
      group: 'Pictures',
      labels: { inside: 'In the file', beside: 'In a folder beside it', none: 'Left out' },
    }),
  pictureFormat: z
    .enum(['auto', 'jpeg', 'png', 'tiff'])
    .default('auto')
    .meta({
      title: 'Format of pictures',
      help: 'Automatic: JPEG for photographs, PNG where something shows through. TIFF is for those who print: large, and not shown everywhere.',
      group: 'Pictures',
      labels: { auto: 'Automatic', jpeg: 'JPEG', png: 'PNG', tiff: 'TIFF' },
      showIf: { pictures: ['inside', 'beside'] },
    }),
  whiteGround: z
    .enum(['keep', 'through'])
    .default('keep')
    .meta({
      title: 'White ground of pictures',
      help: 'Whether the white around what a picture shows, where nearly all of its edge is white, lets through what lies below. Such pictures are no JPEGs then.',
      group: 'Pictures',
      labels: { keep: 'Stays white', through: 'Lets through what is below' },
      showIf: { pictures: ['inside', 'beside'] },
    }),
  effects: z
    .enum(['native', 'drawn', 'none'])
    .default('native')
    .meta({
      title: 'Shadows, glows and soft edges',
      help: 'The format’s own can be changed by others, and are drawn where it has none; drawn ones look the same in every program.',
      group: 'Looks',
      labels: { native: 'The format’s own', drawn: 'Drawn', none: 'Left out' },
    }),
  blends: z
    .enum(['plain', 'drawn'])
    .default('plain')
    .meta({
      title: 'Colours that mix with those below',
      help: 'These formats lay things on one another without mixing. A drawing looks right, and holds what shows through from below.',
      group: 'Looks',
      labels: { plain: 'Laid over without mixing', drawn: 'Drawn with what is below' },
      showIf: { pictures: ['inside', 'beside'] },
    }),
  crops: z
    .enum(['keep', 'cut'])
    .default('keep')
    .meta({
      title: 'What frames crop',
      help: 'Whether the parts of pictures that their frames hide stay in the file, so that others can move them, or are cut away.',
      group: 'Pictures',
      labels: { keep: 'Stays in the file', cut: 'Is cut away' },
    }),
};

/** What the recipe says instead of typefaces, by their names in small letters. */
export const replacementsOf = ({ replacements }: { replacements: string }): Map<string, string> =>
  new Map(
    replacements.split('\n').flatMap((line): [string, string][] => {
      const [from, to] = line.split('=').map((s) => s.trim());
      return from && to ? [[from.toLowerCase(), to]] : [];
    }),
  );
