import { createHash } from 'node:crypto';
import type { Program } from '../../../../player/src/program.ts';
import { motionProgram } from '../../motion/motionProgram.ts';
import { Cancelled } from '../../ports/ports.ts';
import { shortHash } from '../assets/encodePictures.ts';
import { outputFile } from '../assets/outputFile.ts';
import { fontFaceRule, pageCss } from '../pages/pageCss.ts';
import type { Frame } from '../pages/frame.ts';
import { paintPages } from '../pages/paintPages.ts';
import { scopeOf } from '../scope.ts';
import { webFont } from '../assets/subsetFont.ts';
import type { OutputFile, WriteJob } from '../writer.ts';
import { writeEmbedded } from './embedded.ts';
import { filePage } from './filePage.ts';
import { addressIn, factsOf, sitemap } from './headMarkup.ts';
import { iconsOf, MANIFEST_FILE, manifestOf } from './homeScreen.ts';
import { OFFLINE_FILE, offlineProgram } from './offline.ts';
import { scrolledFrames } from './overset.ts';
import { ownFiles } from './ownFiles.ts';
import { groundPicture, PagePictures } from './picturesBeside.ts';
import { readingProgram } from './readingProgram.ts';
import { INDEX_FILE, searchIndex } from './searchIndex.ts';
import type { HtmlSettings } from './settings.ts';
import { siteCss } from './siteCss.ts';
import { siteOf } from './siteFiles.ts';

/**
 * Writes the web edition: one file of HTML with all pages, or a site of several; fonts and pictures beside them. `inside`: to be
 * shown inside another document's page, as a row of pages of which one is seen.
 */
export async function* writeHtml(job: WriteJob<HtmlSettings>, inside = false): AsyncGenerator<OutputFile> {
  const { offline } = job.settings;
  if (inside || offline === 'no') return yield* edition(job, inside);
  const written: { path: string; hash: string }[] = [];
  for await (const file of edition(job, inside)) {
    const chunks: Uint8Array[] = [];
    for await (const chunk of file.body) chunks.push(chunk);
    const bytes = new Uint8Array(Buffer.concat(chunks));
    // Smaller pictures and files for search programs are nothing to read without a connection.
    if (!/^(robots\.txt|sitemap\.xml)$/.test(file.path))
      written.push({ path: file.path, hash: createHash('sha256').update(bytes).digest('hex') });
    yield outputFile(file.path, file.mediaType, bytes);
  }
  yield outputFile(OFFLINE_FILE, 'text/javascript', offlineProgram(written, offline));
}

async function* edition(job: WriteJob<HtmlSettings>, inside: boolean): AsyncGenerator<OutputFile> {
  const { settings } = job;
  const scope = scopeOf(job.folio, job.composition, settings);
  const site = siteOf(job, scope, inside);
  const count = scope.pages.length;
  const frames = new Map<string, Frame>();
  yield* writeEmbedded(job, scope, frames, writeHtml);
  // What is seen at once is fetched at once; all other pictures wait until they come near.
  const atOnce = new Set(site.files.flatMap((f) => f.slots[0]?.map((p) => p.page.id) ?? []));
  const lazy = (page: string): boolean => !inside && !atOnce.has(page);
  const press = paintPages(job, scope, {
    lazy,
    fitsWindow: settings.fit !== 'size' && settings.form !== 'banner',
    frames,
    scrolls: scrolledFrames(job),
    anchorOf: site.anchorOf,
    addressOf: site.addressOf,
  });
  const bodies = new Map<string, string>();
  for await (const { place, markup, pictures } of press.pages) {
    for (const { path, mediaType, bytes } of pictures) yield outputFile(path, mediaType, bytes);
    bodies.set(place.page.id, markup);
  }
  const faces: string[] = [];
  const fonts = await Promise.all(
    press.looks.fonts().map(async (font) => ({ ...font, bytes: await webFont(font.face, font.characters, job.derived) })),
  );
  if (job.signal.aborted) throw new Cancelled();
  for (const { face, family, bytes } of fonts) {
    const path = `fonts/${face.key}-${shortHash(bytes)}.woff2`;
    faces.push(fontFaceRule(family, path));
    yield outputFile(path, 'font/woff2', bytes);
  }
  const drawn = new PagePictures(job, scope);
  const ground = inside ? undefined : await groundPicture(job);
  const cards = inside ? new Map() : await drawn.cards(site);
  const small = inside ? new Map() : await drawn.small();
  const icons = settings.app && !inside ? await iconsOf(job, scope, drawn.encoder) : [];
  const beside = new Map([...(ground ? [ground] : []), ...cards.values(), ...small.values(), ...icons].map((p) => [p.path, p]));
  for (const { path, mediaType, bytes } of beside.values()) yield outputFile(path, mediaType, bytes);
  if (!inside) for (const own of ownFiles(job)) yield outputFile(own.path, own.mediaType, await job.media(own.media));
  const sheet = inside
    ? `html{background:${settings.ground}}\nbody{margin:0}\n${pageCss(press.looks)}${ROW}`
    : `${pageCss(press.looks)}${siteCss(settings, ground?.path)}\n${settings.css}`;
  yield outputFile('style.css', 'text/css', `${faces.join('\n')}\n${sheet}`);
  yield outputFile('player.js', 'text/javascript', await job.player());
  const facts = factsOf(job, press.language, { cards, hasIcons: icons.length > 0 });
  if (icons.length) yield outputFile(MANIFEST_FILE, 'application/manifest+json', manifestOf(settings, facts, icons));
  const searches = !inside && site.files.length > 1 && settings.bar.includes('search');
  if (searches) yield outputFile(INDEX_FILE, 'text/javascript', searchIndex(site, bodies));
  const made = { count, card: cards.get('index.html')?.path, index: searches ? INDEX_FILE : undefined };
  for (const file of site.files) {
    const pages = file.slots.flat();
    const motion = motionProgram(job.folio, pages, {
      elementOf: (id) => (pages.some((p) => p.page.id === id) ? site.anchorOf(id) : undefined),
      addressOf: site.addressOf,
      fileOf: press.fileOf,
      targets: scope.targets,
      shown: scope.shown,
      language: press.language,
    });
    const program = banner({ ...motion, ...(!inside && { reading: readingProgram(job, site, file, made, press.language) }) }, settings);
    yield outputFile(file.name, 'text/html', filePage(job, { site, file, facts, bodies, count, small, program, inside }));
  }
  const address = addressIn(settings, 'index.html');
  if (!inside && address !== undefined && site.files.length > 1) {
    yield outputFile('sitemap.xml', 'application/xml', sitemap(site.files.map((f) => addressIn(settings, f.name)!)));
    const allowed = settings.listed ? `Allow: /\nSitemap: ${addressIn(settings, 'sitemap.xml')}` : 'Disallow: /';
    yield outputFile('robots.txt', 'text/plain', `User-agent: *\n${allowed}\n`);
  }
}

/** A banner goes on by itself, and begins again. */
function banner(program: Program, { form, seconds }: HtmlSettings): Program {
  if (form !== 'banner') return program;
  const advance = Object.fromEntries(program.pages.map((p) => [p, program.advance[p] ?? seconds]));
  return { ...program, advance, loop: true };
}

/** Pages in a row, one in sight, pushed on by hand where no program does it. */
const ROW = `html{background:none;overflow:auto hidden;scroll-snap-type:x mandatory;scrollbar-width:none}
html::-webkit-scrollbar{display:none}
main,form{display:flex}
.page{flex:none;margin:0;scroll-snap-align:start}
`;
