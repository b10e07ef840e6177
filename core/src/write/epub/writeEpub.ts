import { Cancelled } from '../../ports/ports.ts';
import type { EncodedPicture } from '../../ports/ports.ts';
import { escape } from '../../paint/svg/markup.ts';
import { BASE_CSS } from '../shared/flow/baseCss.ts';
import { prepareFlow } from '../shared/flow/prepareFlow.ts';
import type { FlowFile, OutlineEntry, PreparedFlow } from '../shared/flow/prepareFlow.ts';
import { PICTURE_EXTENSIONS, PictureEncoder, shortHash } from '../shared/encodePictures.ts';
import { pagePicture } from '../shared/pagePicture.ts';
import { scopeOf } from '../shared/scope.ts';
import { webFont } from '../shared/subsetFont.ts';
import type { OutputFile, WriteJob } from '../writer.ts';
import { accessibilityOf } from './accessibility.ts';
import { navigationDocument, wordsFor } from './navigation.ts';
import { packBook } from './packBook.ts';
import type { BookFile } from './packBook.ts';
import { CONTAINER, identifierOf, packageDocument } from './packageDocument.ts';
import type { ManifestItem } from './packageDocument.ts';
import { encryptionXml, scramble } from './scramble.ts';
import type { EpubSettings } from './settings.ts';

/** Pixels across of a cover that is drawn from a page (common practice of bookshops: 1,600 on the longer side at least). */
const COVER_WIDTH = 1600;

/** Writes the e-book that reflows: one package of live text, styled by what the document’s styles say. */
export async function* writeEpub(job: WriteJob<EpubSettings>): AsyncGenerator<OutputFile> {
  const { folio, settings } = job;
  const title = settings.title || folio.head.metadata.title;
  const flow = await prepareFlow(job, {
    fileOf: (i) => `text-${String(i).padStart(3, '0')}.xhtml`,
    split: true,
    pictures: 'pictures/',
    book: true,
    lists: 'lists',
    pageMarks: settings.pageList,
    namesFonts: settings.fonts !== 'reader',
  });
  const files: BookFile[] = [];
  const items: ManifestItem[] = [];
  const add = (path: string, mediaType: string, bytes: BookFile['bytes'], properties?: string): string => {
    const id = `i-${path.replace(/[^A-Za-z0-9]+/g, '-')}`;
    files.push({ path: `EPUB/${path}`, bytes, stored: /^(image\/(png|jpeg)|font\/woff2)$/.test(mediaType) });
    items.push({ id, href: path, mediaType, ...(properties && { properties }) });
    return id;
  };
  const spine: { id: string; properties?: string }[] = [];
  const words = wordsFor(flow.language);
  const cover = await coverOf(job);
  if (cover) {
    const name = `pictures/cover-${shortHash(cover.bytes)}.${PICTURE_EXTENSIONS[cover.mediaType]}`;
    add(name, cover.mediaType, cover.bytes, 'cover-image');
    spine.push({ id: add('cover.xhtml', 'application/xhtml+xml', coverDocument(flow.language, words.cover, title, name)) });
  }
  const bodies = flow.files.map((file) => textDocument(file, flow));
  flow.files.forEach((file, i) => spine.push({ id: add(file.name, 'application/xhtml+xml', bodies[i]!) }));
  const outline = flow.outline.filter((o) => o.level <= settings.depth);
  const contents: OutlineEntry[] = outline.length ? outline : [{ level: 1, text: title || words.text, href: flow.files[0]!.name }];
  const navigation = navigationDocument({
    title: title || words.contents,
    language: flow.language,
    words,
    outline: contents,
    pages: flow.pages,
    landmarks: [
      ...(cover ? [{ type: 'cover', title: words.cover, href: 'cover.xhtml' }] : []),
      { type: 'bodymatter', title: words.text, href: flow.files[0]!.name },
    ],
  });
  add('nav.xhtml', 'application/xhtml+xml', navigation, 'nav');
  for (const p of flow.pictures) add(`pictures/${p.path}`, p.mediaType, p.bytes);
  const faces = settings.fonts === 'reader' ? [] : await fontsOf(job, flow, add);
  // After the texts: a sheet holds what they asked for.
  add(
    'style.css',
    'text/css',
    [faces.map((f) => f.css).join('\n'), BASE_CSS, flow.styles.css(), settings.css].filter(Boolean).join('\n') + '\n',
  );
  const book = packageDocument(folio, {
    title,
    language: flow.language,
    modified: job.clock(),
    items,
    spine,
    accessibility: accessibilityOf(flow.sections, {
      outline: outline.length > 0,
      pages: flow.pages.length > 0,
      picture: flow.shows,
      decorations: new Set(folio.head.structure.decorations),
    }),
  });
  const scrambled = settings.fonts === 'scrambled' ? faces.map((f) => `EPUB/${f.path}`) : [];
  const all: BookFile[] = [
    { path: 'META-INF/container.xml', bytes: CONTAINER },
    ...(scrambled.length ? [{ path: 'META-INF/encryption.xml', bytes: encryptionXml(scrambled) }] : []),
    { path: 'EPUB/package.opf', bytes: book },
    ...files,
  ];
  yield { path: 'book.epub', mediaType: 'application/epub+zip', body: packBook(all) };
}

type Add = (path: string, mediaType: string, bytes: Uint8Array) => string;

/** The faces that the texts need, as files of the book; one that must not be embedded is left to the reader. */
async function fontsOf(job: WriteJob<EpubSettings>, flow: PreparedFlow, add: Add): Promise<{ path: string; css: string }[]> {
  const out: { path: string; css: string }[] = [];
  const identifier = identifierOf(job.folio);
  for (const [face, characters] of flow.fonts.characters) {
    if (!face.mayEmbed) continue;
    if (job.signal.aborted) throw new Cancelled();
    const bytes = await webFont(face, characters, job.derived);
    const path = `fonts/${face.key.replace(/[^A-Za-z0-9]+/g, '-')}-${shortHash(bytes)}.woff2`;
    if (out.some((f) => f.path === path)) continue;
    add(path, 'font/woff2', job.settings.fonts === 'scrambled' ? scramble(bytes, identifier) : bytes);
    out.push({
      path,
      css: `@font-face {\n  font-family: "${face.family}";\n  font-weight: ${face.weight};\n  font-style: ${face.style};\n  src: url("${path}") format("woff2");\n}`,
    });
  }
  return out;
}

/** The picture that stands for the book: the document’s own, or its first page drawn. */
async function coverOf(job: WriteJob<EpubSettings>): Promise<EncodedPicture | null> {
  const { folio, composition, settings } = job;
  const { cover } = folio.head.metadata;
  if (settings.cover === 'none') return null;
  const media = cover === undefined ? undefined : folio.head.media[cover];
  if (settings.cover === 'picture' && media)
    return job.pictures.encode(await job.media(media.id), {
      maxWidth: Math.min(COVER_WIDTH, media.width ?? COVER_WIDTH),
      quality: settings.quality,
    });
  const scope = scopeOf(folio, composition, settings);
  const first = scope.pages[0];
  return first ? pagePicture(job, new PictureEncoder(job), first, scope, COVER_WIDTH) : null;
}

const head = (language: string, title: string, body: string): string => `<?xml version="1.0" encoding="UTF-8"?>
<!DOCTYPE html>
<html xmlns="http://www.w3.org/1999/xhtml" xmlns:epub="http://www.idpf.org/2007/ops" lang="${escape(language)}" xml:lang="${escape(language)}">
<head>
<meta charset="utf-8"/>
<title>${escape(title)}</title>
<link rel="stylesheet" type="text/css" href="style.css"/>
</head>
${body}
</html>
`;

const textDocument = (file: FlowFile, flow: PreparedFlow): string => head(flow.language, file.title, `<body>\n${flow.body(file)}\n</body>`);

const coverDocument = (language: string, word: string, title: string, picture: string): string =>
  head(
    language,
    title || word,
    `<body epub:type="cover">\n<section epub:type="cover" aria-label="${escape(word)}">\n<img role="doc-cover" src="${picture}" alt="${escape(title ? `${word}: ${title}` : word)}"/>\n</section>\n</body>`,
  );
