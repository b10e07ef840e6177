import { headingsOf } from '../../structure/reading.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { printedNumber } from '../../folio/traverse.ts';
import { isPlayed, motionProgram } from '../../motion/motionProgram.ts';
import { px } from '../../paint/html/metrics.ts';
import type { BookContent } from '../book/accessibility.ts';
import { accessibilityOf } from '../book/accessibility.ts';
import { Book, bookText } from '../book/book.ts';
import { bookJob } from '../book/bookSounds.ts';
import { addCover } from '../book/cover.ts';
import type { PackageFacts } from '../book/packageDocument.ts';
import { navigationDocument, wordsFor } from '../book/navigation.ts';
import { fontFaceRule, pageCss } from '../pages/pageCss.ts';
import { paintPages } from '../pages/paintPages.ts';
import { programScript } from '../pages/programScript.ts';
import type { OutlineEntry } from '../reflow/prepareFlow.ts';
import { scopeOf } from '../scope.ts';
import type { OutputFile, WriteJob } from '../writer.ts';
import { pageSide, readsFromRight } from './pageSide.ts';
import type { FixedEpubSettings } from './settings.ts';

/** EPUB 3.3, 8.2.2.3: when two pages are seen at once. */
const SPREADS = { auto: 'auto', turned: 'landscape', always: 'both', never: 'none' } as const;

/** Writes the e-book whose pages are as designed: one document a page, its text live and placed line by line. */
export async function* writeFixedEpub(job: WriteJob<FixedEpubSettings>): AsyncGenerator<OutputFile> {
  yield Book.file(job, async (book) => fill(await bookJob(job), book));
}

async function fill(job: WriteJob<FixedEpubSettings>, book: Book): Promise<PackageFacts> {
  const { folio, composition, settings } = job;
  const scope = scopeOf(folio, composition, settings);
  const title = settings.title || folio.head.metadata.title;
  const names = new Map(scope.pages.map((p) => [p.page.id, `page-${String(p.number).padStart(3, '0')}.xhtml`]));
  const addressOf = (page: string): string => names.get(page)!;
  const elementOf = (page: string): string => `page-${page}`;
  const press = paintPages(job, scope, { lazy: () => false, frames: new Map(), anchorOf: elementOf, addressOf });
  const { language } = press;
  const words = wordsFor(language);
  await addCover(job, scope, book);
  const outline: OutlineEntry[] = [];
  const pictures: BookContent['pictures'] = [];
  let tables = false;
  let scripted = false;
  for await (const { place, reading, markup, pictures: files } of press.pages) {
    const name = addressOf(place.page.id);
    const side = pageSide(folio, place);
    const program = motionProgram(folio, [place], {
      elementOf: (page) => (page === place.page.id ? elementOf(page) : undefined),
      addressOf,
      fileOf: press.fileOf,
      targets: scope.targets,
      shown: scope.shown,
      language,
    });
    // Reading programs turn the pages of a book, each in its own way.
    const script = isPlayed(program, markup) ? programScript({ ...program, transitions: {}, advance: {} }) : '';
    scripted ||= script !== '';
    const properties = [markup.includes('<svg ') && 'svg', script && 'scripted'].filter(Boolean).join(' ');
    await book.addText(name, pageText(place, language, title, markup, script), {
      item: properties || undefined,
      spine: side ? (side === 'center' ? 'rendition:page-spread-center' : `page-spread-${side}`) : undefined,
    });
    for (const { path, mediaType, bytes } of files) await book.add(path, mediaType, bytes);
    for (const { level, listed, paragraph } of headingsOf(folio, place.page.id, reading))
      if (listed !== null && level <= settings.depth) outline.push({ level, text: listed, href: `${name}#${paragraph}` });
    for (const u of reading.units)
      if (u.kind === 'figure') pictures.push({ described: !!u.alt });
      else tables ||= u.cell !== null;
  }
  if (scripted) await book.add('player.js', 'text/javascript', await job.player());
  const pages = scope.pages.map((place) => ({ printed: printedNumber(place), href: addressOf(place.page.id) }));
  const first = pages[0]?.href ?? '';
  const contents = outline.length ? outline : pages.map((p): OutlineEntry => ({ level: 1, text: p.printed, href: p.href }));
  await book.addNavigation(
    navigationDocument({
      title: title || words.contents,
      language,
      words,
      outline: contents,
      pages: settings.pageList ? pages : [],
      landmarks: [{ type: 'bodymatter', title: words.text, href: first }],
    }),
  );
  const faces = new Map(press.looks.fonts().map((f) => [f.face, f.family]));
  const fonts = await book.addFonts(press.looks.characters, settings.fonts === 'scrambled');
  const rules = fonts.map(({ face, path }) => fontFaceRule(faces.get(face)!, path));
  await book.add(
    'style.css',
    'text/css',
    `${[...rules, 'html,body{margin:0}', pageCss(press.looks), 'a{text-decoration:none}'].join('\n')}\n${settings.css}\n`,
  );
  return {
    title,
    language,
    direction: readsFromRight(folio) ? 'rtl' : 'ltr',
    // EPUB 3.3, 8.2: every page is laid out already.
    meta: [
      ['rendition:layout', 'pre-paginated'],
      ['rendition:spread', SPREADS[settings.spreads]],
      ['rendition:orientation', settings.orientation],
    ],
    accessibility: accessibilityOf({
      pictures,
      tables,
      outline: outline.length > 0,
      pages: settings.pageList ? 'listed' : 'none',
      reflows: false,
    }),
  };
}

/**
 * A page as a document of its own, of the page’s size (EPUB 3.3, 8.2.2.6). Whole pixels, since many programs read no parts
 * of them, and never more than the page has: a hairline of nothing would show at its edge.
 */
function pageText(place: PagePlace, language: string, title: string, markup: string, script: string): string {
  const [width, height] = [place.page.box.width, place.page.box.height].map((v) => Math.max(1, Math.floor(px(v))));
  return bookText({
    language,
    title: `${title ? `${title}, ` : ''}${printedNumber(place)}`,
    head: `<meta name="viewport" content="width=${width}, height=${height}"/>\n${script && '<script defer="" src="player.js"></script>\n'}`,
    body: `<body>\n${asXml(markup)}\n${script}</body>`,
  });
}

/** HTML knows the namespace of drawings by itself; XML has to be told. Text cannot hold the mark that is looked for: it is escaped. */
const asXml = (markup: string): string => markup.replaceAll('<svg ', '<svg xmlns="http://www.w3.org/2000/svg" ');
