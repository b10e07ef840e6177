import { z } from 'zod';
import { commonSettings } from '../commonSettings.ts';
import { deviceSettings } from './deviceSettings.ts';
import { measuringSettings } from './measuringSettings.ts';

/** What the bar can hold, in the order in which it stands there. */
export const BAR_PARTS = [
  'contents',
  'overview',
  'arrows',
  'slider',
  'number',
  'search',
  'enlarge',
  'sound',
  'share',
  'fullScreen',
] as const;

const reading = 'How it is read';
const drawing = 'Text and drawing';
const fitting = 'Size on the screen';
const behind = 'Behind the pages';
const bar = 'The bar';
const finding = 'Finding and sharing';
const own = 'Your own code';

/** The recipe of the web edition. */
export const HtmlSettings = z.object({
  form: z
    .enum(['stacked', 'continuous', 'slides', 'slidesDown', 'spreads', 'site', 'sections', 'banner'])
    .default('stacked')
    .meta({
      title: 'Form',
      help: 'How readers get from page to page.',
      group: reading,
      labels: {
        stacked: 'Pages below one another',
        continuous: 'One long page without gaps',
        slides: 'One page at a time, sideways',
        slidesDown: 'One page at a time, downwards',
        spreads: 'Spreads whose leaves turn',
        site: 'A site: a web page for each page',
        sections: 'A site: a web page for each section',
        banner: 'A banner that plays by itself',
      },
    }),
  turnsBy: z
    .array(z.enum(['keys', 'swipe', 'wheel']))
    .default(['keys', 'swipe'])
    .meta({
      title: 'Pages turn by',
      help: 'Beside what the bar holds. The wheel turns pages only where they come one at a time.',
      group: reading,
      labels: { keys: 'Arrow keys', swipe: 'Swiping', wheel: 'The wheel' },
      showIf: { form: ['stacked', 'continuous', 'slides', 'slidesDown', 'spreads', 'site', 'sections'] },
    }),
  joined: z
    .boolean()
    .default(false)
    .meta({
      title: 'Spreads stay together',
      help: 'Pages that were designed side by side are shown side by side.',
      group: reading,
      showIf: { form: ['stacked', 'continuous', 'slides', 'slidesDown', 'site', 'sections'] },
    }),
  sideBySide: z
    .number()
    .int()
    .min(0)
    .max(4000)
    .default(0)
    .meta({
      title: 'Side by side from',
      help: 'In windows narrower than this the pages of a spread stand below one another. 0: in all that are higher than wide.',
      unit: 'px',
      group: reading,
      format: 'number',
      showIf: { form: ['spreads'] },
    }),
  text: z
    .enum(['live', 'flowing', 'shapes', 'picture'])
    .default('live')
    .meta({
      title: 'Text',
      help: 'Drawn text needs no fonts and looks the same everywhere; it can still be searched, copied and heard.',
      group: drawing,
      labels: {
        live: 'Live, every line in its place',
        flowing: 'Live, lines broken by the browser',
        shapes: 'Drawn as shapes',
        picture: 'Drawn as pictures',
      },
    }),
  groups: z
    .enum(['parts', 'picture'])
    .default('parts')
    .meta({
      title: 'Groups',
      help: 'As one picture they are light to draw and need no further care; groups with texts or anything to press stay parts.',
      group: drawing,
      labels: { parts: 'Every part by itself', picture: 'Drawn as one picture' },
    }),
  overset: z
    .enum(['cut', 'shown', 'scroll'])
    .default('cut')
    .meta({
      title: 'Text that does not fit',
      help: 'What readers get of texts that the layout itself has no room for.',
      group: drawing,
      labels: { cut: 'Is cut off', shown: 'Goes on below its frame', scroll: 'Is scrolled to in its frame' },
    }),
  overflow: z
    .enum(['shown', 'cut', 'scroll'])
    .default('shown')
    .meta({
      title: 'Lines too many',
      help: 'Where a browser needs more lines for a text than the layout has.',
      group: drawing,
      labels: { shown: 'Go on below', cut: 'Are cut off', scroll: 'Are scrolled to' },
      showIf: { text: ['flowing'] },
    }),
  seconds: z
    .number()
    .min(1)
    .max(60)
    .default(4)
    .meta({
      title: 'Each page for',
      help: 'How long a page of the banner is seen; pages with a time of their own keep it.',
      unit: 's',
      group: reading,
      showIf: { form: ['banner'] },
    }),
  fit: z
    .enum(['size', 'width', 'page', 'between'])
    .default('size')
    .meta({
      title: 'Pages are shown',
      help: 'Readers can always enlarge them, with two fingers or their browser’s own way.',
      group: fitting,
      labels: {
        size: 'In the size they were designed',
        width: 'As wide as the window',
        page: 'Whole, as large as the window allows',
        between: 'Whole, but within limits',
      },
      showIf: { form: ['stacked', 'continuous', 'slides', 'slidesDown', 'spreads', 'site', 'sections'] },
    }),
  least: z
    .number()
    .int()
    .min(10)
    .max(100)
    .default(50)
    .meta({
      title: 'Never smaller than',
      help: 'In smaller windows pages keep this size, and are moved about.',
      unit: '%',
      group: fitting,
      showIf: { fit: ['between'] },
    }),
  most: z
    .number()
    .int()
    .min(100)
    .max(400)
    .default(150)
    .meta({
      title: 'Never larger than',
      help: 'In larger windows pages keep this size.',
      unit: '%',
      group: fitting,
      showIf: { fit: ['between'] },
    }),
  ...commonSettings,
  pictureFormat: z
    .enum(['auto', 'webp', 'avif', 'jpeg', 'png'])
    .default('auto')
    .meta({
      title: 'Format of pictures',
      help: 'WebP and AVIF are smaller at the same quality; browsers since 2020 (WebP) and 2023 (AVIF) show them.',
      group: 'Pictures',
      labels: { auto: 'JPEG, and PNG where something shows through', webp: 'WebP', avif: 'AVIF', jpeg: 'JPEG', png: 'PNG' },
    }),
  sizes: z
    .boolean()
    .default(true)
    .meta({ title: 'Several sizes', help: 'Small screens fetch smaller pictures. More files, less to load.', group: 'Pictures' }),
  thorough: z.boolean().default(false).meta({
    title: 'Take time for smaller files',
    help: 'Pictures are packed as tightly as their format can; PNG pictures get a table of 256 colours.',
    group: 'Pictures',
  }),
  ground: z
    .string()
    .regex(/^#[0-9a-fA-F]{6}$/, 'must be a colour such as #ECE7DC')
    .default('#ECE7DC')
    .meta({ title: 'Colour', help: 'The colour that shows around the pages.', group: behind, format: 'colour' }),
  groundPicture: z.string().default('').meta({
    title: 'Picture',
    help: 'A picture of the document that lies behind the pages.',
    group: behind,
    choicesFrom: 'pictures',
  }),
  groundFit: z
    .enum(['cover', 'tile', 'middle'])
    .default('cover')
    .meta({
      title: 'The picture',
      help: 'How it fills the room around the pages.',
      group: behind,
      labels: { cover: 'Fills everything', tile: 'Is repeated', middle: 'Stands in the middle' },
      showIf: { groundPicture: 'any' },
    }),
  shadow: z.boolean().default(false).meta({ title: 'Shadow', help: 'Pages cast a soft shadow on what is behind them.', group: behind }),
  gap: z
    .number()
    .int()
    .min(0)
    .max(200)
    .default(24)
    .meta({
      title: 'Space between pages',
      help: 'How far apart the stacked pages stand.',
      unit: 'px',
      group: behind,
      showIf: { form: ['stacked', 'sections'] },
    }),
  bar: z
    .array(z.enum(BAR_PARTS))
    .default([])
    .meta({
      title: 'Readers find there',
      help: 'Nothing chosen: there is no bar, and the pages stand alone.',
      group: bar,
      labels: {
        contents: 'Contents',
        overview: 'Small pictures of all pages',
        arrows: 'Back and next',
        slider: 'A slider over all pages',
        number: 'Which page this is',
        search: 'A search in the text',
        enlarge: 'Larger and smaller',
        sound: 'Sound off and on',
        share: 'Sharing',
        fullScreen: 'Full screen',
      },
      showIf: { form: ['stacked', 'continuous', 'slides', 'slidesDown', 'spreads', 'site', 'sections'] },
    }),
  barAt: z
    .enum(['top', 'bottom'])
    .default('top')
    .meta({
      title: 'It stands',
      help: 'Where the bar stays.',
      group: bar,
      labels: { top: 'At the top', bottom: 'At the bottom' },
      showIf: { bar: 'any' },
    }),
  progress: z
    .boolean()
    .default(false)
    .meta({ title: 'Progress', help: 'A thin line at the top shows how far the reader has come.', group: bar }),
  loading: z.string().max(120).default('').meta({
    title: 'While it loads',
    help: 'Words that stand there until everything has come, such as “One moment”. Empty: none.',
    group: bar,
  }),
  ...measuringSettings,
  ...deviceSettings,
  description: z.string().max(500).default('').meta({
    title: 'Description',
    help: 'One or two sentences for lists of results and previews. Empty: the document’s own.',
    group: finding,
    format: 'lines',
  }),
  keywords: z.string().max(500).default('').meta({
    title: 'Keywords',
    help: 'With commas between. Empty: the document’s subjects, then words that stand out in its text.',
    group: finding,
    format: 'keywords',
  }),
  address: z
    .string()
    .max(500)
    .regex(/^(https?:\/\/[^\s"<>]+)?$/, 'an address that begins with https:')
    .default('')
    .meta({
      title: 'Address',
      help: 'Where the edition will stand, such as https://marrowby.example/almanac/. Search programs and previews need it.',
      group: finding,
    }),
  cardPage: z.number().int().min(0).max(5000).default(1).meta({
    title: 'Picture for previews',
    help: 'The page whose picture stands beside a link that was shared; 0 for none.',
    group: finding,
    format: 'number',
  }),
  shareAt: z
    .string()
    .max(500)
    .regex(/^(https?:\/\/[^\s"<>]+)?$/, 'an address that begins with https:')
    .default('')
    .meta({
      title: 'Address to share',
      help: 'What the share button hands on, such as a page that introduces the edition. Empty: the page that is open.',
      group: finding,
    }),
  sharePicture: z.boolean().default(false).meta({
    title: 'Share a picture, too',
    help: 'The share button hands on the picture for previews, where devices take pictures.',
    group: finding,
  }),
  listed: z
    .boolean()
    .default(true)
    .meta({ title: 'Search programs may list it', help: 'Off: they are asked to pass it over.', group: finding }),
  files: z
    .array(z.object({ media: z.string().max(100), as: z.enum(['head', 'end', 'beside']) }))
    .max(50)
    .default([])
    .meta({
      title: 'Files',
      help: 'Style sheets, scripts and other files, in this order, in the folder own/. Style sheets always come in the head.',
      group: own,
      format: 'ownFiles',
      labels: { head: 'In the head', end: 'At the end', beside: 'Only beside it' },
    }),
  css: z.string().max(100_000).default('').meta({
    title: 'Style sheet',
    help: 'Rules that come after all others. Pages are .page, the bar is .bar.',
    group: own,
    format: 'code',
  }),
  head: z.string().max(100_000).default('').meta({
    title: 'Into the head',
    help: 'HTML that comes last in the head of every file.',
    group: own,
    format: 'code',
  }),
  end: z.string().max(100_000).default('').meta({
    title: 'At the end',
    help: 'HTML that comes last in the body of every file, after the player.',
    group: own,
    format: 'code',
  }),
});
export type HtmlSettings = z.infer<typeof HtmlSettings>;
