import type { Program } from '../../../../player/src/program.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { px } from '../../paint/html/metrics.ts';
import { attrs, escape, num } from '../../paint/svg/markup.ts';
import { motionProgram } from '../../motion/motionProgram.ts';
import { Cancelled } from '../../ports/ports.ts';
import { PICTURE_EXTENSIONS, PictureEncoder, shortHash } from '../shared/encodePictures.ts';
import { outputFile } from '../shared/outputFile.ts';
import { fontFaceRule, pageCss } from '../shared/page/pageCss.ts';
import type { Frame } from '../shared/page/frame.ts';
import { paintPages } from '../shared/page/paintPages.ts';
import { pagePicture } from '../shared/pagePicture.ts';
import { scopeOf } from '../shared/scope.ts';
import type { Scope } from '../shared/scope.ts';
import { webFont } from '../shared/subsetFont.ts';
import { programScript } from '../shared/page/programScript.ts';
import type { OutputFile, WriteJob } from '../writer.ts';
import { aroundMarkup, barMarkup } from './barMarkup.ts';
import { writeEmbedded } from './embedded.ts';
import { addressIn, factsOf, headMarkup, sitemap } from './headMarkup.ts';
import type { SiteFacts } from './headMarkup.ts';
import { readingProgram } from './readingProgram.ts';
import type { HtmlSettings } from './settings.ts';
import { isOneAtATime, siteCss } from './siteCss.ts';
import { siteOf } from './siteFiles.ts';
import type { Site, SiteFile } from './siteFiles.ts';
import { siteWords } from './siteWords.ts';

/** Pixels across of a picture for previews (common practice: at least 1200). */
const CARD_WIDTH = 1200;

/**
 * Writes the web edition: one file of HTML with all pages, or a site of several; fonts and pictures beside them. `inside`: to be
 * shown inside another document's page, as a row of pages of which one is seen.
 */
export async function* writeHtml(job: WriteJob<HtmlSettings>, inside = false): AsyncGenerator<OutputFile> {
  const { settings } = job;
  const scope = scopeOf(job.folio, job.composition, settings);
  const site = siteOf(job, scope, inside);
  const frames = new Map<string, Frame>();
  yield* writeEmbedded(job, scope, frames, writeHtml);
  const press = paintPages(job, scope, { lazy: !inside, frames, anchorOf: site.anchorOf, addressOf: site.addressOf });
  const bodies = new Map<string, string>();
  for await (const { place, markup, pictures } of press.pages) {
    for (const { path, mediaType, bytes } of pictures) yield outputFile(path, mediaType, bytes);
    bodies.set(place.page.id, markup);
  }
  const faces: string[] = [];
  for (const { face, family, characters } of press.looks.fonts()) {
    if (!face.mayEmbed) continue;
    if (job.signal.aborted) throw new Cancelled();
    const bytes = await webFont(face, characters, job.derived);
    const path = `fonts/${face.key}-${shortHash(bytes)}.woff2`;
    faces.push(fontFaceRule(family, path));
    yield outputFile(path, 'font/woff2', bytes);
  }
  const encoder = new PictureEncoder(job);
  const [ground, card] = inside ? [undefined, null] : [await groundPicture(job), await cardPicture(job, scope, encoder)];
  for (const picture of [ground, card]) if (picture) yield outputFile(picture.path, picture.mediaType, picture.bytes);
  const sheet = inside
    ? `html{background:${settings.ground}}\nbody{margin:0}\n${pageCss(press.looks)}${ROW}`
    : `${pageCss(press.looks)}${siteCss(settings, ground?.path)}\n${settings.css}`;
  yield outputFile('style.css', 'text/css', `${faces.join('\n')}\n${sheet}`);
  yield outputFile('player.js', 'text/javascript', await job.player());
  const facts = factsOf(job, press.language, card);
  for (const file of site.files) {
    const program = {
      ...motionProgram(job.folio, file.slots.flat(), {
        elementOf: (id) => (file.slots.flat().some((p) => p.page.id === id) ? site.anchorOf(id) : undefined),
        addressOf: site.addressOf,
        fileOf: press.fileOf,
        targets: scope.targets,
        shown: scope.shown,
        language: press.language,
      }),
      ...(!inside && { reading: readingProgram(job, site, file, scope.pages.length, press.language) }),
    };
    yield outputFile(file.name, 'text/html', page(job, site, file, facts, bodies, scope.pages.length, banner(program, settings), inside));
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

interface Made {
  path: string;
  mediaType: string;
  bytes: Uint8Array;
  width: number;
  height: number;
}

/** The picture behind the pages, as it is in the document. */
async function groundPicture({ folio, settings, media }: WriteJob<HtmlSettings>): Promise<Made | undefined> {
  const file = folio.head.media[settings.groundPicture];
  if (!file?.mediaType.startsWith('image/')) return undefined;
  const bytes = await media(file.id);
  const path = `pictures/${file.id}-${shortHash(bytes)}.${file.file.split('.').pop()}`;
  return { path, mediaType: file.mediaType, bytes, width: file.width ?? 0, height: file.height ?? 0 };
}

/** The page that stands for the edition where a link to it is shown. */
async function cardPicture(job: WriteJob<HtmlSettings>, scope: Scope, encoder: PictureEncoder): Promise<Made | null> {
  const place = scope.pages.find((p) => p.number === job.settings.cardPage);
  // Previews ask for a whole address.
  if (!place || job.settings.address === '') return null;
  const { bytes, mediaType, width, height } = await pagePicture(job, encoder, place, scope, CARD_WIDTH);
  return { path: `pictures/card-${shortHash(bytes)}.${PICTURE_EXTENSIONS[mediaType]}`, mediaType, bytes, width, height };
}

/** Pages in a row, one in sight, pushed on by hand where no program does it. */
const ROW = `html{background:none;overflow:auto hidden;scroll-snap-type:x mandatory;scrollbar-width:none}
html::-webkit-scrollbar{display:none}
main,form{display:flex}
.page{flex:none;margin:0;scroll-snap-align:start}
`;

function page(
  job: WriteJob<HtmlSettings>,
  site: Site,
  file: SiteFile,
  facts: SiteFacts,
  bodies: ReadonlyMap<string, string>,
  count: number,
  program: Program,
  inside: boolean,
): string {
  const { settings } = job;
  const words = siteWords(facts.language);
  const slots = file.slots.map((pages) => slotMarkup(pages, bodies, inside));
  const form = slots.some((s) => s.includes(' data-field=')) ? '<form>\n' : '';
  const first = file.slots[0]?.[0]?.page.box;
  // What is moved about in its own box can be moved by keys (WCAG 2.2, 2.1.1).
  const isMoved = !inside && (settings.form === 'banner' || isOneAtATime(settings.form));
  const size = settings.form === 'banner' && first ? `--w:${num(px(first.width), 4)}px;--h:${num(px(first.height), 4)}px` : undefined;
  return `<!doctype html>
<html lang="${escape(facts.language)}">
<head>
${headMarkup(job, site, file, facts)}<link rel="stylesheet" href="style.css">
<script defer src="player.js"></script>
${settings.head}</head>
<body>
${inside ? '' : barMarkup(site, settings, words, count)}${!inside && settings.progress ? '<div class="progress" aria-hidden="true"></div>' : ''}${!inside && settings.loading ? `<p class="loading" role="status">${escape(settings.loading)}</p>` : ''}
<main${attrs({ style: size, ...(isMoved && { tabindex: 0, 'aria-label': facts.title }) })}>
${form}${slots.join('\n')}
${form && '</form>\n'}</main>
${inside ? '' : aroundMarkup(site, file, words)}${programScript(program)}
${settings.end}</body>
</html>
`;
}

/** The pages that are seen at once, with the room that they ask for: of all, and of the widest alone. */
function slotMarkup(pages: readonly PagePlace[], bodies: ReadonlyMap<string, string>, inside: boolean): string {
  const markup = pages.map((p) => bodies.get(p.page.id)!).join('\n');
  if (inside) return markup;
  const boxes = pages.map((p) => p.page.box);
  const width = boxes.reduce((sum, b) => sum + b.width, 0);
  const style = {
    w: width,
    h: Math.max(...boxes.map((b) => b.height)),
    ...(pages.length > 1 && { w1: Math.max(...boxes.map((b) => b.width)) }),
  };
  const vars = Object.entries(style).map(([name, v]) => `--${name}:${num(px(v), 4)}px`);
  if (pages.length === 1) vars.push('--w1:var(--w)');
  return `<div${attrs({ class: 'slot', style: vars.join(';') })}>${markup}</div>`;
}
