import type { GlyphRun } from '../../compose/marks.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { rectPath, transformRect } from '../../folio/geometry.ts';
import type { Rect } from '../../folio/geometry.ts';
import type { Destination } from '../../folio/motion.ts';
import { inItemSpace, paintBoxes, paintFill, paintLines, paintPicture, paintRun, paintStroke } from '../../paint/pdf/paintItem.ts';
import { PdfCanvas } from '../../paint/pdf/pdfCanvas.ts';
import type { StructContent, StructElement } from '../../paint/pdf/pdfCanvas.ts';
import { Cancelled } from '../../ports/ports.ts';
import { headingsOf, readingOfSpread } from '../../structure/reading.ts';
import type { PageReading, ParagraphUnit, ReadingUnit } from '../../structure/reading.ts';
import { PictureEncoder, pictureOf } from '../shared/encodePictures.ts';
import { isSafeAddress } from '../../folio/address.ts';
import { itemsOfPage } from '../shared/paintedPage.ts';
import type { PageItem } from '../shared/paintedPage.ts';
import { scopeOf } from '../shared/scope.ts';
import type { Scope } from '../shared/scope.ts';
import type { OutputFile, WriteJob } from '../writer.ts';
import type { PdfSettings } from './settings.ts';
import { TagTree } from './tagTree.ts';
import type { TaggedPart } from './tagTree.ts';

const destination = (page: string): string => `page.${page}`;

/** Writes a tagged PDF: pages painted in z-order, read in the order of the reading path. */

export async function* writePdf(job: WriteJob<PdfSettings>): AsyncGenerator<OutputFile> {
  yield { path: 'document.pdf', mediaType: 'application/pdf', body: pdfBytes(job) };
}

async function* pdfBytes(job: WriteJob<PdfSettings>): AsyncGenerator<Uint8Array> {
  const { folio, settings } = job;
  const { metadata } = folio.head;
  const scope = scopeOf(folio, settings);
  const language = settings.language || metadata.language;
  const canvas = new PdfCanvas(
    {
      title: settings.title || metadata.title,
      language,
      author: metadata.creators.join(', ') || undefined,
      subject: metadata.description,
      keywords: metadata.subjects.join(', ') || undefined,
      created: job.clock(),
    },
    folio.head.swatches,
  );
  const painting = paintPages(job, canvas, scope, language);
  // Bytes leave as pages are finished; a failure while painting ends the stream with that failure.
  let failure: unknown;
  void painting.catch((error: unknown) => {
    failure = error;
    (canvas.stream as unknown as { destroy(): void }).destroy();
  });
  try {
    for await (const chunk of canvas.stream) yield chunk;
  } catch (error) {
    throw failure ?? error;
  }
  await painting;
}

async function paintPages(job: WriteJob<PdfSettings>, canvas: PdfCanvas, scope: Scope, language: string): Promise<void> {
  const tags = new TagTree(canvas, job.folio, language);
  const encoder = new PictureEncoder(job);
  const pages = scope.pages.map((place) => ({ place, items: itemsOfPage(job.folio, place, scope) }));
  for (const { items } of pages) for (const { item } of items) encoder.want(item);
  const outline: { level: number; handle: unknown }[] = [];
  let reading: { spread: string; pages: Map<string, PageReading> } | undefined;
  let done = 0;
  for (const { place, items } of pages) {
    if (job.signal.aborted) throw new Cancelled();
    if (reading?.spread !== place.spread.id)
      reading = { spread: place.spread.id, pages: readingOfSpread(job.folio, job.composition, place.spread, scope.shown) };
    const units = reading.pages.get(place.page.id)!;
    await paintPage(job, canvas, tags, encoder, scope, place, items, units);
    if (job.settings.bookmarks)
      for (const heading of headingsOf(place.page.id, units)) {
        while (outline.length && outline[outline.length - 1]!.level >= heading.level) outline.pop();
        const item = place.spread.items[heading.item]!;
        const top = 'size' in item ? transformRect(item.transform, { x: 0, y: heading.top, width: 1, height: 1 }).y - place.page.box.y : 0;
        outline.push({
          level: heading.level,
          handle: canvas.bookmark(outline[outline.length - 1]?.handle, heading.text, Math.max(0, top)),
        });
      }
    job.progress(++done, pages.length);
    // Lets cancellation and other work in between pages.
    await new Promise((resolve) => setImmediate(resolve));
  }
  tags.end();
  canvas.end();
}

async function paintPage(
  job: WriteJob<PdfSettings>,
  canvas: PdfCanvas,
  tags: TagTree,
  encoder: PictureEncoder,
  scope: Scope,
  place: PagePlace,
  items: PageItem[],
  reading: PageReading,
): Promise<void> {
  const { page } = place;
  canvas.addPage(page.box.width, page.box.height, page.bleed);
  canvas.nameThisPage(destination(page.id));
  const unitsOf = new Map<string, ReadingUnit[]>();
  for (const unit of reading.units) unitsOf.set(unit.item, [...(unitsOf.get(unit.item) ?? []), unit]);
  const parts = new Map<ReadingUnit, TaggedPart[]>();
  canvas.save();
  if (!page.bleed) canvas.clip(rectPath({ x: 0, y: 0, width: page.box.width, height: page.box.height }));
  if (page.background.type !== 'none')
    canvas.artifact(() =>
      canvas.fill(rectPath({ x: 0, y: 0, width: page.box.width, height: page.box.height }), page.background, 'nonzero'),
    );
  canvas.transform([1, 0, 0, 1, -page.box.x, -page.box.y]);
  for (const entry of items) {
    const { item, opacity, own } = entry;
    const media = pictureOf(item);
    const picture = media ? { media, bytes: (await encoder.get(media)).bytes } : null;
    const units = own ? (unitsOf.get(item.id) ?? []) : [];
    const figure = units.find((u) => u.kind === 'figure');
    const inside = (draw: () => void): void => inItemSpace(canvas, item, opacity, draw);
    const body = (): void => {
      paintFill(canvas, item);
      if (picture) paintPicture(canvas, item, picture.media, picture.bytes);
      paintStroke(canvas, item);
    };
    if (figure) {
      if (picture || item.kind === 'shape') parts.set(figure, [{ content: canvas.content('Figure', () => inside(body)) }]);
      else if (hasInk(item)) canvas.artifact(() => inside(body));
      continue;
    }
    if (hasInk(item) || picture) canvas.artifact(() => inside(body));
    const composed = item.kind === 'textFrame' ? job.composition.frames.get(item.id) : undefined;
    if (!composed) continue;
    if (composed.boxes.length) canvas.artifact(() => inside(() => paintBoxes(canvas, composed)));
    const paragraphs = units.filter((u): u is ParagraphUnit => u.kind === 'paragraph');
    const read = new Set(paragraphs.map((u) => u.paragraph));
    for (const unit of paragraphs) parts.set(unit, paintParagraph(job, canvas, scope, entry, unit));
    const rest = composed.lines.flatMap((l) => {
      const unread = read.has(l.paragraph) ? l.runs.filter((r) => r.decoration) : l.runs;
      return unread.length ? [{ ...l, runs: unread, spaceAtEnd: l.spaceAtEnd && unread === l.runs }] : [];
    });
    if (rest.length) canvas.artifact(() => inside(() => paintLines(canvas, { lines: rest })));
  }
  canvas.restore();
  tags.addPage(reading.units, parts);
}

const hasInk = (item: PageItem['item']): boolean =>
  item.fill.type !== 'none' || (item.stroke !== null && item.stroke.paint.type !== 'none');

/** Paints a paragraph as stretches of tagged content, links apart from plain text. */
function paintParagraph(job: WriteJob<PdfSettings>, canvas: PdfCanvas, scope: Scope, entry: PageItem, unit: ParagraphUnit): TaggedPart[] {
  const story = job.folio.stories[unit.story]!;
  const stretches: { link: string | undefined; drawn: boolean; draws: (() => void)[]; boxes: Rect[]; text: string }[] = [];
  for (const line of unit.lines)
    line.runs.forEach((run, i) => {
      if (run.decoration) return;
      const link = run.link;
      let stretch = stretches[stretches.length - 1];
      const drawn = !run.font.mayEmbed;
      if (!stretch || stretch.link !== link || stretch.drawn !== drawn)
        stretches.push((stretch = { link, drawn, draws: [], boxes: [], text: '' }));
      const last = i === line.runs.length - 1 && line.spaceAtEnd;
      // Where a tab left room, a space keeps the words apart when they are copied.
      const space = last || nextRead(line.runs, i)?.joint === 'tab';
      stretch.draws.push(() => paintRun(canvas, line, run, space));
      stretch.boxes.push({ x: line.x + run.x, y: line.baseline - line.ascent, width: run.width, height: line.ascent + line.descent });
      stretch.text += run.text + (space ? ' ' : '');
    });
  const tag = unit.role.element;
  return stretches.map((stretch): TaggedPart => {
    const draw = (name: string) =>
      canvas.content(name, () => inItemSpace(canvas, entry.item, entry.opacity, () => stretch.draws.forEach((d) => d())));
    const target = stretch.link === undefined ? undefined : targetOf(story.links[stretch.link]?.destination, scope);
    if (!target && stretch.drawn) return { element: drawnText(canvas, stretch.text, draw('Span')) };
    if (!target) return { content: draw(/^h[1-6]$/.test(tag) ? tag.toUpperCase() : 'P') };
    const element: StructElement = canvas.element('Link');
    element.add(stretch.drawn ? drawnText(canvas, stretch.text, draw('Span')) : draw('Link'));
    for (const box of stretch.boxes) {
      const onSpread = transformRect(entry.item.transform, box);
      canvas.linkTo(onSpread, target, story.links[stretch.link!]?.title ?? stretch.text, element);
    }
    element.end();
    return { element };
  });
}

/** The next run of a line that is read. */
const nextRead = (runs: readonly GlyphRun[], i: number): GlyphRun | undefined => runs.slice(i + 1).find((r) => !r.decoration);

/** Letters drawn as shapes, with the text they stand for (ISO 32000-1, 14.9.4). */
function drawnText(canvas: PdfCanvas, text: string, content: StructContent): StructElement {
  const element = canvas.element('Span', { actual: text });
  element.add(content);
  element.end();
  return element;
}

function targetOf(d: Destination | undefined, scope: Scope): { href: string } | { page: string } | undefined {
  if (d?.to === 'address') return isSafeAddress(d.href) ? { href: d.href } : undefined;
  if (d?.to === 'page') return scope.hasPage(d.page) ? { page: destination(d.page) } : undefined;
  return undefined;
}
