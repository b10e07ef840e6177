import type { Start, StartSetting } from '../writer.ts';
import type { HtmlSettings } from './settings.ts';

const set = <K extends keyof HtmlSettings>(setting: K, value: HtmlSettings[K], why: string): StartSetting => ({ setting, value, why });

/** What each way of reading asks of an edition. */
const READ: Record<string, { label: string; settings: StartSetting[] }> = {
  leafed: {
    label: 'Leafed through, like paper',
    settings: [
      set('form', 'spreads', 'Pages that were designed side by side are seen side by side, and a leaf is turned.'),
      set('turnsBy', ['keys', 'swipe'], 'Leaves are turned by hand.'),
      set('bar', ['contents', 'arrows', 'slider', 'number', 'fullScreen'], 'The slider is the thickness of the paper under the thumb.'),
      set('shadow', true, 'Pages lie on something.'),
    ],
  },
  long: {
    label: 'Read at length',
    settings: [
      set('form', 'stacked', 'Texts go on below, as readers of long texts expect.'),
      set('turnsBy', ['keys', 'swipe'], 'Arrow keys still go from page to page.'),
      set('bar', ['contents', 'number', 'search', 'enlarge'], 'Long texts are searched, and left and come back to.'),
      set('progress', true, 'Readers see how much is before them.'),
      set('gap', 24, 'A gap shows where one page ends.'),
    ],
  },
  scroll: {
    label: 'As one page that scrolls',
    settings: [
      set('form', 'continuous', 'No gap breaks the pages apart.'),
      set('bar', ['contents'], 'Nothing but the way to each part stands over the page.'),
      set('progress', true, 'It has no page numbers to go by.'),
    ],
  },
  site: {
    label: 'As a small site',
    settings: [
      set('form', 'sections', 'Each section has an address of its own, which can be linked and found.'),
      set('bar', ['contents', 'search', 'share'], 'Visitors arrive in the middle: they see what else there is.'),
      set('listed', true, 'A site wants to be found.'),
    ],
  },
  home: {
    label: 'Kept on a home screen, like a program',
    settings: [
      set('form', 'slides', 'One page is in sight at a time, as in programs on a phone.'),
      set('turnsBy', ['keys', 'swipe'], 'Thumbs swipe.'),
      set('bar', ['contents', 'overview', 'search'], 'There is no browser around it: it brings its own ways about.'),
      set('barAt', 'bottom', 'Below, thumbs reach it.'),
      set('app', true, 'It gets an icon and a window of its own.'),
      set('window', 'standalone', 'The bar is enough.'),
    ],
  },
  slides: {
    label: 'Shown as slides',
    settings: [
      set('form', 'slides', 'One page is in sight at a time.'),
      set('turnsBy', ['keys', 'swipe', 'wheel'], 'Remote controls send keys; the wheel turns as well.'),
      set('bar', ['arrows', 'number', 'fullScreen'], 'What is needed while something is shown, and no more.'),
      set('barAt', 'bottom', 'Below, it is out of the way of titles.'),
      set('ground', '#17211E', 'Dark around the page, so that it alone is lit.'),
    ],
  },
  strip: {
    label: 'As a strip that moves by itself',
    settings: [
      set('form', 'banner', 'Pages follow one another by themselves and begin again; a button stops them.'),
      set('seconds', 4, 'Long enough to read a line or two.'),
      set('bar', [], 'It stands inside something else.'),
      set('listed', false, 'It is part of another page, which is what should be found.'),
    ],
  },
};

/** Forms in which a page that is larger than the window would be cut off. */
const WHOLE = new Set(['leafed', 'slides', 'home']);

/** From so many pages on, one file would be slow to come and to search. */
const MANY_PAGES = 100;

/** A web edition by what it is for: some answers make a recipe, each setting with its reason. */
export const purposes: Start = {
  questions: [
    { id: 'read', ask: 'How will it be read?', answers: Object.entries(READ).map(([id, { label }]) => ({ id, label })) },
    {
      id: 'layout',
      ask: 'Must pages keep their size?',
      answers: [
        { id: 'adapt', label: 'No, they may fit the window' },
        { id: 'hold', label: 'Yes, they stay as large as designed' },
      ],
    },
    {
      id: 'connection',
      ask: 'Must it work without a connection?',
      answers: [
        { id: 'no', label: 'No, or from a folder only' },
        { id: 'yes', label: 'Yes, once it has been opened' },
      ],
    },
    {
      id: 'length',
      ask: 'How long is it?',
      answers: [
        { id: 'short', label: `Up to ${MANY_PAGES} pages`, pages: { most: MANY_PAGES } },
        { id: 'long', label: `More than ${MANY_PAGES} pages`, pages: { least: MANY_PAGES + 1 } },
      ],
    },
  ],
  settle: ({ read = 'leafed', layout = 'adapt', connection = 'no', length = 'short' }) => {
    const { settings } = READ[read] ?? READ['leafed']!;
    if (read === 'strip') return settings;
    const offline =
      connection === 'yes'
        ? [
            length === 'long'
              ? set('offline', 'opened', 'So long an edition is not fetched as a whole: what was opened stays.')
              : set('offline', 'all', 'The first visit fetches everything; later ones need no connection.'),
          ]
        : [];
    const inFiles =
      length === 'long' && (read === 'long' || read === 'scroll')
        ? [set('form', 'sections', 'So many pages come in one file for each section, so that none waits for all others.')]
        : [];
    const changed = new Set(inFiles.map((s) => s.setting));
    const fit =
      layout === 'hold'
        ? set('fit', 'size', 'Pages are as large as on paper; in small windows they are moved about.')
        : WHOLE.has(read)
          ? set('fit', 'page', 'The whole page is in sight, as large as the window allows.')
          : set('fit', 'width', 'Pages are as wide as the window: on a phone, too, nothing is cut off.');
    return [...settings.filter((s) => !changed.has(s.setting)), ...inFiles, fit, ...offline];
  },
};
