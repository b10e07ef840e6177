import { Composer } from '../../compose/compose.ts';
import { isAddressOfWeb } from '../../folio/address.ts';
import type { Embed } from '../../folio/items.ts';
import { pagesOf } from '../../folio/traverse.ts';
import { px } from '../../paint/html/metrics.ts';
import { openBundle } from '../../read/media/openBundle.ts';
import { shortHash } from '../shared/encodePictures.ts';
import { outputFile } from '../shared/outputFile.ts';
import type { Frame } from '../shared/page/frame.ts';
import type { Scope } from '../shared/scope.ts';
import type { OutputFile, WriteJob } from '../writer.ts';
import { HtmlSettings } from './settings.ts';

/** Writes a web edition; given by the writer itself, so that editions can hold editions without a circle of files. */
type WriteEdition = (job: WriteJob<HtmlSettings>, inside: boolean) => AsyncIterable<OutputFile>;

/**
 * What is shown inside pages: unpacked folders and other documents' web editions, each once in a folder of its own. Files come as
 * they are made; frames by their items' ids are whole once all have come. What another document shows is not shown in it again.
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
      let frame: Frame | null = null;
      const files = source.from === 'bundle' ? bundle(job, source) : edition(job, source.folio, writeEdition);
      for await (const made of files) {
        if ('src' in made) frame = made;
        else yield made;
      }
      made.set(key, frame);
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

/** A folder of files as it was packed. It begins with the file that is named, or with the page that lies highest. */
async function* bundle(
  job: WriteJob<HtmlSettings>,
  { media, entry }: { media: string; entry: string },
): AsyncGenerator<OutputFile | Frame> {
  const file = job.folio.head.media[media];
  if (file?.mediaType !== 'application/zip') return;
  const bytes = await job.media(media);
  const folder = `embeds/${media}-${shortHash(bytes)}`;
  const pages: string[] = [];
  for await (const part of openBundle(bytes)) {
    if (/\.x?html?$/i.test(part.path)) pages.push(part.path);
    yield outputFile(`${folder}/${part.path}`, part.mediaType, part.bytes);
  }
  const depth = (path: string): number => path.split('/').length * 2 - Number(/(^|\/)index\.x?html?$/i.test(path));
  const first = pages.includes(entry) ? entry : pages.sort((a, b) => depth(a) - depth(b) || (a < b ? -1 : 1))[0];
  if (first !== undefined) yield { src: `${folder}/${first.split('/').map(encodeURIComponent).join('/')}` };
}

async function* edition(job: WriteJob<HtmlSettings>, id: string, writeEdition: WriteEdition): AsyncGenerator<OutputFile | Frame> {
  const other = job.others?.get(id);
  const first = other && pagesOf(other.folio)[0];
  if (!first) return;
  const fonts = await other.fonts();
  const inner: WriteJob<HtmlSettings> = {
    ...job,
    folio: other.folio,
    fonts,
    media: other.media,
    others: new Map(),
    composition: new Composer(fonts).compose(other.folio),
    settings: HtmlSettings.parse({ resolution: job.settings.resolution, quality: job.settings.quality, gap: 0 }),
    progress: () => undefined,
  };
  const folder = `embeds/${id}`;
  for await (const file of writeEdition(inner, true)) yield { ...file, path: `${folder}/${file.path}` };
  const { width, height } = first.page.box;
  yield { src: `${folder}/index.html`, size: { width: px(width), height: px(height) } };
}
