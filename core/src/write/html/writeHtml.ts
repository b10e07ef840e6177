import type { Program } from '../../../../player/src/program.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { px } from '../../paint/html/metrics.ts';
import type { LookSheet } from '../../paint/html/styleSheet.ts';
import { attrs, escape, num } from '../../paint/svg/markup.ts';
import { motionProgram } from '../../motion/motionProgram.ts';
import { Cancelled } from '../../ports/ports.ts';
import { shortHash } from '../shared/encodePictures.ts';
import { outputFile } from '../shared/outputFile.ts';
import { fontFaceRule, pageCss } from '../shared/page/pageCss.ts';
import type { Frame } from '../shared/page/frame.ts';
import { paintPages } from '../shared/page/paintPages.ts';
import { scopeOf } from '../shared/scope.ts';
import { webFont } from '../shared/subsetFont.ts';
import { programScript } from '../shared/page/programScript.ts';
import type { OutputFile, WriteJob } from '../writer.ts';
import { writeEmbedded } from './embedded.ts';
import type { HtmlSettings } from './settings.ts';

const anchorOf = (place: PagePlace): string => `page-${place.number}`;

/**
 * Writes the web edition: one page of HTML with stacked, live pages; fonts and pictures beside it. `inside`: to be shown inside
 * another document's page, as a row of pages of which one is seen.
 */
export async function* writeHtml(job: WriteJob<HtmlSettings>, inside = false): AsyncGenerator<OutputFile> {
  const scope = scopeOf(job.folio, job.composition, job.settings);
  const anchors = new Map(scope.pages.map((p) => [p.page.id, anchorOf(p)]));
  const anchor = (page: string): string => anchors.get(page)!;
  const frames = new Map<string, Frame>();
  yield* writeEmbedded(job, scope, frames, writeHtml);
  const press = paintPages(job, scope, { lazy: !inside, frames, anchorOf: anchor, addressOf: (page) => `#${anchor(page)}` });
  const bodies: string[] = [];
  for await (const { markup, pictures } of press.pages) {
    for (const { path, mediaType, bytes } of pictures) yield outputFile(path, mediaType, bytes);
    bodies.push(markup);
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
  yield outputFile('style.css', 'text/css', styleSheet(faces, press.looks, job.settings) + (inside ? ROW : ''));
  const program = motionProgram(job.folio, scope.pages, {
    elementOf: (id) => anchors.get(id),
    addressOf: (id) => `#${anchor(id)}`,
    fileOf: press.fileOf,
    targets: scope.targets,
    shown: scope.shown,
    language: press.language,
  });
  yield outputFile('player.js', 'text/javascript', await job.player());
  yield outputFile('index.html', 'text/html', page(job, press.language, bodies, scope.pages[0], program));
}

const styleSheet = (faces: string[], looks: LookSheet, s: HtmlSettings): string => `${faces.join('\n')}
html{background:${s.ground};-webkit-text-size-adjust:100%;text-size-adjust:100%}
body{margin:0}
main,form{display:flow-root}
${pageCss(looks)}.page{margin:0 auto ${s.gap}px}
.page:last-child{margin-bottom:0}
@media print{html{background:none}.page{margin:0;break-after:page}}
`;

/** Pages in a row, one in sight, pushed on by hand where no program does it. */
const ROW = `html{background:none;overflow:auto hidden;scroll-snap-type:x mandatory;scrollbar-width:none}
html::-webkit-scrollbar{display:none}
main,form{display:flex}
.page{flex:none;margin:0;scroll-snap-align:start}
`;

function page(job: WriteJob<HtmlSettings>, language: string, bodies: string[], first: PagePlace | undefined, program: Program): string {
  const { metadata } = job.folio.head;
  const form = bodies.some((b) => b.includes(' data-field=')) ? '<form>\n' : '';
  const title = job.settings.title || metadata.title;
  const meta = (name: string, content: string | undefined): string => (content ? `<meta${attrs({ name, content })}>\n` : '');
  return `<!doctype html>
<html lang="${escape(language)}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=${num(Math.ceil(px(first?.page.box.width ?? 600)), 0)}">
<title>${escape(title)}</title>
${meta('description', metadata.description)}${meta('author', metadata.creators.join(', '))}${meta('keywords', metadata.subjects.join(', '))}<link rel="stylesheet" href="style.css">
<script defer src="player.js"></script>
</head>
<body>
<main>
${form}${bodies.join('\n')}
${form && '</form>\n'}</main>
${programScript(program)}
</body>
</html>
`;
}
