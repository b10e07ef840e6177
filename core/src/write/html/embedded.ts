import { Composer } from '../../compose/compose.ts';
import { isAddressOfWeb } from '../../folio/address.ts';
import type { Embed } from '../../folio/items.ts';
import { pagesOf } from '../../folio/traverse.ts';
import { px } from '../../paint/html/metrics.ts';
import { openBundle } from '../../read/media/openBundle.ts';
import { shortHash } from '../assets/encodePictures.ts';
import { outputFile } from '../assets/outputFile.ts';
import type { Frame } from '../pages/frame.ts';
import type { Scope } from '../scope.ts';
import type { OutputFile, WriteJob } from '../writer.ts';
import { selfContained } from './selfContained.ts';
import type { BundledFile } from './selfContained.ts';
import { HtmlSettings } from './settings.ts';

/** Writes a web edition; given by the writer itself, so that editions can hold editions without a circle of files. */
type WriteEdition = (job: WriteJob<HtmlSettings>, inside: boolean) => AsyncIterable<OutputFile>;

/**
 * What is shown inside pages: folders of files and other documents' web editions, each once and as one page. Files come as they
 * are made; frames by their items' ids are whole once all have come. What another document shows is not shown in it again.
 */
export async function* writeEmbedded(
  job: WriteJob<HtmlSettings>,
  scope: Scope,
  frames: Map<string, Frame>,
  writeEdition: WriteEdition,
): AsyncGenerator<OutputFile> {
  const made = new Map<string, Frame | null>();
  for (const item of embedsOf(scope)) {
    const { source } = item;
    if (source.from === 'address') {
      if (isAddressOfWeb(source.href)) frames.set(item.id, { src: source.href.trim() });
      continue;
    }
    const key = source.from === 'bundle' ? `${source.media}/${source.entry}` : source.folio;
    if (!made.has(key)) {
      const content = source.from === 'bundle' ? await bundle(job, source) : await edition(job, source.folio, writeEdition);
      made.set(key, content && { src: content.path, ...(content.size && { size: content.size }) });
      if (content) yield outputFile(content.path, 'text/html', content.page);
    }
    const frame = made.get(key);
    if (frame) frames.set(item.id, frame);
  }
}

const embedsOf = (scope: Scope): Embed[] => [
  ...new Map(
    scope.pages.flatMap(({ spread }) =>
      Object.values(spread.items).flatMap((i) => (i.kind === 'embed' && scope.shown(i) ? [[i.id, i] as const] : [])),
    ),
  ).values(),
];

interface Content {
  path: string;
  page: string;
  /** Its own size in px, where it has one. */
  size?: { width: number; height: number };
}

/** A folder of files as one page. It begins with the file that is named, or with the page that lies highest. */
async function bundle(job: WriteJob<HtmlSettings>, { media, entry }: { media: string; entry: string }): Promise<Content | null> {
  if (job.folio.head.media[media]?.mediaType !== 'application/zip') return null;
  const bytes = await job.media(media);
  const files = new Map<string, BundledFile>();
  for await (const part of openBundle(bytes)) files.set(part.path, part);
  const pages = [...files.keys()].filter((path) => /\.x?html?$/i.test(path));
  const depth = (path: string): number => path.split('/').length * 2 - Number(/(^|\/)index\.x?html?$/i.test(path));
  const first = pages.includes(entry) ? entry : pages.sort((a, b) => depth(a) - depth(b) || (a < b ? -1 : 1))[0];
  const page = first === undefined ? null : selfContained(files, first);
  return page === null ? null : { path: `embeds/${media}-${shortHash(bytes)}.html`, page };
}

/** Another document's web edition as one page. */
async function edition(job: WriteJob<HtmlSettings>, id: string, writeEdition: WriteEdition): Promise<Content | null> {
  const other = job.others?.get(id);
  const first = other && pagesOf(other.folio)[0];
  if (!first) return null;
  const fonts = await other.fonts();
  const inner: WriteJob<HtmlSettings> = {
    ...job,
    folio: other.folio,
    fonts,
    media: other.media,
    others: new Map(),
    composition: new Composer(fonts).compose(other.folio),
    settings: HtmlSettings.parse({ resolution: job.settings.resolution, quality: job.settings.quality, sizes: false, gap: 0 }),
    progress: () => undefined,
  };
  const files = new Map<string, BundledFile>();
  for await (const { path, mediaType, body } of writeEdition(inner, true)) {
    const chunks: Uint8Array[] = [];
    for await (const chunk of body) chunks.push(chunk);
    files.set(path, { mediaType, bytes: new Uint8Array(Buffer.concat(chunks)) });
  }
  const page = selfContained(files, 'index.html');
  const { width, height } = first.page.box;
  return page === null ? null : { path: `embeds/${id}.html`, page, size: { width: px(width), height: px(height) } };
}
