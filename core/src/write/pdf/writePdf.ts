import { transformRect } from '../../folio/geometry.ts';
import { PdfCanvas } from '../../paint/pdf/pdfCanvas.ts';
import { PdfForm } from '../../paint/pdf/pdfForm.ts';
import { PdfLayers } from '../../paint/pdf/pdfLayers.ts';
import { Cancelled } from '../../ports/ports.ts';
import { headingsOf, readingOfSpread } from '../../structure/reading.ts';
import type { PageReading } from '../../structure/reading.ts';
import { EffectDrawer } from '../assets/effectImages.ts';
import { PictureEncoder } from '../assets/encodePictures.ts';
import { scopeOf } from '../scope.ts';
import type { Scope } from '../scope.ts';
import type { OutputFile, WriteJob } from '../writer.ts';
import type { PdfSettings } from './settings.ts';
import { PagePainter } from './paintPage.ts';
import { PageStates } from './pageStates.ts';
import { PdfCues } from './pdfCues.ts';
import { TagTree } from './tagTree.ts';
import type { TaggedParts } from './tagTree.ts';
import { openingEntries, openingView } from './transition.ts';

/** Writes a tagged PDF: pages painted in z-order, read in the order of the reading path. */
export async function* writePdf(job: WriteJob<PdfSettings>): AsyncGenerator<OutputFile> {
  yield { path: 'document.pdf', mediaType: 'application/pdf', body: pdfBytes(job) };
}

async function* pdfBytes(asked: WriteJob<PdfSettings>): AsyncGenerator<Uint8Array> {
  const { folio, settings } = asked;
  const job = { ...asked, settings: { ...settings, quick: !settings.tight } };
  const { metadata } = folio.head;
  const scope = scopeOf(folio, job.composition, settings, settings.cards === 'first');
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
  const form = new PdfForm(canvas);
  const layers = new PdfLayers(canvas);
  const states = new PageStates(job.folio, scope, job.settings.cards);
  const cues = new PdfCues(job, scope, canvas, layers, states);
  const painter = new PagePainter(job, canvas, encoder, new EffectDrawer(job, encoder), scope, form, layers, cues);
  for (const { items } of states.all) for (const { item } of items) encoder.want(item);
  const outline: { level: number; handle: unknown }[] = [];
  let reading: { spread: string; pages: Map<string, PageReading> } | undefined;
  let parts: TaggedParts = new Map();
  for (const [n, page] of states.all.entries()) {
    const { place } = page;
    if (job.signal.aborted) throw new Cancelled();
    if (reading?.spread !== place.spread.id)
      reading = { spread: place.spread.id, pages: readingOfSpread(job.folio, job.composition, place.spread, scope.shown) };
    const units = reading.pages.get(place.page.id)!;
    await painter.paint(page, units, parts);
    job.progress(n + 1, states.all.length);
    // Lets cancellation and other work in between pages.
    await new Promise((resolve) => setImmediate(resolve));
    // What cards hold is read where it stands among the rest of its page, which is complete with its last state.
    if (states.all[n + 1]?.place === place) continue;
    tags.addPage(units.units, parts);
    parts = new Map();
    for (const element of painter.further.splice(0)) tags.add(element);
    if (job.settings.bookmarks)
      for (const heading of headingsOf(job.folio, place.page.id, units)) {
        if (heading.listed === null) continue;
        while (outline.length && outline[outline.length - 1]!.level >= heading.level) outline.pop();
        const item = place.spread.items[heading.item]!;
        const top = 'size' in item ? transformRect(item.transform, { x: 0, y: heading.top, width: 1, height: 1 }).y - place.page.box.y : 0;
        outline.push({
          level: heading.level,
          handle: canvas.bookmark(
            outline[outline.length - 1]?.handle,
            heading.listed,
            states.firstPageOf(heading.item, place),
            Math.max(0, top),
          ),
        });
      }
  }
  if (states.areMore) canvas.catalog({ PageLabels: { Nums: states.labels() } });
  form.end();
  cues.end();
  layers.end();
  const { opening } = job.folio.head;
  if (opening) {
    const view = openingView(opening);
    canvas.catalog({ ...openingEntries(opening, states.areMore), ...(view && { OpenAction: [canvas.firstPage, ...view] }) });
  }
  tags.end();
  canvas.end();
}
