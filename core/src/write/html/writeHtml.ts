import type { Composition } from '../../compose/marks.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { px } from '../../paint/html/metrics.ts';
import { LookSheet } from '../../paint/html/styleSheet.ts';
import { attrs, escape, num } from '../../paint/svg/markup.ts';
import { Cancelled } from '../../ports/ports.ts';
import { readingOfSpread } from '../../structure/reading.ts';
import type { PageReading } from '../../structure/reading.ts';
import { PICTURE_EXTENSIONS, PictureEncoder, pictureOf, shortHash } from '../shared/encodePictures.ts';
import { groupsApart } from '../shared/groupsApart.ts';
import { itemsOfPage } from '../shared/paintedPage.ts';
import { scopeOf } from '../shared/scope.ts';
import { outputFile } from '../shared/outputFile.ts';
import { webFont } from '../shared/subsetFont.ts';
import type { OutputFile, WriteJob } from '../writer.ts';
import { paintHtmlPage } from './paintPage.ts';
import type { HtmlSettings } from './settings.ts';

const anchorOf = (place: PagePlace): string => `page-${place.number}`;

/** Writes the web edition: one page of HTML with stacked, live pages; fonts and pictures beside it. */
export async function* writeHtml(job: WriteJob<HtmlSettings>): AsyncGenerator<OutputFile> {
  const { folio, composition, settings } = job;
  const scope = scopeOf(folio, composition, settings);
  const looks = new LookSheet(folio.head.swatches);
  const language = settings.language || folio.head.metadata.language;
  const total = scope.pages.length;
  const apart = new Map([...new Set(scope.pages.map((p) => p.spread))].map((s) => [s, groupsApart(folio, composition, s, scope)]));
  const pages = scope.pages.map((place) => ({
    place,
    items: itemsOfPage(folio, place, scope, (group) => apart.get(place.spread)!.has(group.id)),
  }));
  const encoder = new PictureEncoder(job);
  for (const { items } of pages) for (const { item } of items) encoder.want(item);

  const written = new Map<string, string>();
  const anchors = new Map(scope.pages.map((p) => [p.page.id, anchorOf(p)]));
  const bodies: string[] = [];
  const readings = readingsOf(job, composition);
  for (const { place, items } of pages) {
    if (job.signal.aborted) throw new Cancelled();
    for (const { item } of items) {
      const media = pictureOf(item);
      if (!media || written.has(media)) continue;
      const picture = await encoder.get(media);
      const path = `pictures/${media}-${shortHash(picture.bytes)}.${PICTURE_EXTENSIONS[picture.mediaType]}`;
      written.set(media, path);
      yield outputFile(path, picture.mediaType, picture.bytes);
    }
    bodies.push(
      paintHtmlPage(place, items, readings(place), {
        folio,
        composition,
        looks,
        language,
        source: (m) => written.get(m)!,
        hasPage: (id) => anchors.has(id),
        anchorOf: (id) => anchors.get(id)!,
      }),
    );
    job.progress(bodies.length, total);
  }

  const faces: string[] = [];
  for (const { face, family, characters } of looks.fonts()) {
    if (!face.mayEmbed) continue;
    if (job.signal.aborted) throw new Cancelled();
    const bytes = await webFont(face, characters, job.derived);
    const path = `fonts/${face.key}-${shortHash(bytes)}.woff2`;
    faces.push(`@font-face{font-family:"${family}";src:url("${path}") format("woff2");font-display:block}`);
    yield outputFile(path, 'font/woff2', bytes);
  }
  yield outputFile('style.css', 'text/css', styleSheet(faces, looks, settings));
  yield outputFile('player.js', 'text/javascript', await job.player());
  yield outputFile('index.html', 'text/html', page(job, language, bodies, [...anchors.values()], pages[0]?.place));
}

function readingsOf(job: WriteJob<HtmlSettings>, composition: Composition): (place: PagePlace) => PageReading {
  const scope = scopeOf(job.folio, job.composition, job.settings);
  let last: { spread: string; readings: Map<string, PageReading> } | undefined;
  return (place) => {
    if (last?.spread !== place.spread.id)
      last = { spread: place.spread.id, readings: readingOfSpread(job.folio, composition, place.spread, scope.shown) };
    return last.readings.get(place.page.id)!;
  };
}

function styleSheet(faces: string[], looks: LookSheet, s: HtmlSettings): string {
  return `${faces.join('\n')}
html{background:${s.ground};-webkit-text-size-adjust:100%;text-size-adjust:100%}
body{margin:0}
main{display:flow-root}
.page{position:relative;overflow:hidden;margin:0 auto ${s.gap}px;background:#fff;isolation:isolate;font-kerning:normal;font-synthesis:none;text-rendering:geometricPrecision}
.page:last-child{margin-bottom:0}
.i,.g,.o,.l,.c img{position:absolute;transform-origin:0 0}
.g{left:0;top:0;width:0;height:0}
.o{overflow:visible;pointer-events:none}
.c{position:absolute;inset:0;overflow:hidden}
.c img{display:block;max-width:none}
.l{white-space:pre}
.l *{line-height:0}
h1,h2,h3,h4,h5,h6,p,ul,li,blockquote,aside,div,table,th,td{margin:0;padding:0;font-size:inherit;font-weight:inherit;font-style:inherit}
table{border-collapse:collapse}
th{text-align:inherit}
h1,h2,h3,h4,h5,h6,strong,em,cite,dfn{font-weight:normal;font-style:normal}
ul{list-style:none}
a{color:inherit;text-decoration-thickness:from-font}
a:focus-visible,.page:focus-visible{outline:3px solid #1E5B4B;outline-offset:2px}
${looks.css()}
@media print{html{background:none}.page{margin:0;break-after:page}}
`;
}

function page(job: WriteJob<HtmlSettings>, language: string, bodies: string[], anchors: string[], first: PagePlace | undefined): string {
  const { metadata } = job.folio.head;
  const title = job.settings.title || metadata.title;
  const meta = (name: string, content: string | undefined): string => (content ? `<meta${attrs({ name, content })}>\n` : '');
  const program = JSON.stringify({ version: 1, pages: anchors }).replace(/</g, '\\u003c');
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
${bodies.join('\n')}
</main>
<script type="application/json" id="program">${program}</script>
</body>
</html>
`;
}
