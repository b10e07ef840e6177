import type { Folio } from '../folio/folio.ts';
import type { Item } from '../folio/items.ts';
import { PT_PER_INCH } from '../folio/units.ts';
import { isOnHiddenLayer } from '../folio/traverse.ts';
import type { Finding } from './finding.ts';

/** Pixels to the inch below which a picture looks coarse on a good screen, and in print (common practice). */
const SCREEN_PPI = 150;
const PRINT_PPI = 300;
/** Files above this many bytes make a document slow to send and to open (common practice). */
const HEAVY = 5 * 2 ** 20;

type PictureItem = Extract<Item, { kind: 'picture' }>;

/** What is to be looked at in a document's pictures: words, resolution, weight, files that are there twice or not at all. */
export function pictureFindings(folio: Folio, pageOf: (spread: string, item: string) => number | undefined): Finding[] {
  const found: Finding[] = [];
  const shown = new Map<string, { item: PictureItem; page: number | undefined }>();
  for (const spread of Object.values(folio.spreads))
    for (const item of Object.values(spread.items)) {
      if (
        item.kind === 'group' &&
        folio.head.structure.figures.includes(item.id) &&
        !item.alt &&
        !folio.head.structure.decorations.includes(item.id)
      )
        found.push({
          code: 'alt.missing',
          says: `The figure ${item.name ?? item.id} has no alt text.`,
          page: pageOf(spread.id, item.id),
          subject: item.id,
        });
      if (item.kind !== 'picture' || isOnHiddenLayer(folio, item)) continue;
      const page = pageOf(spread.id, item.id);
      if (item.media !== null && !shown.has(item.media)) shown.set(item.media, { item, page });
      found.push(...onePicture(folio, item, page));
    }
  return [...found, ...fileFindings(folio, shown)];
}

function onePicture(folio: Folio, item: PictureItem, page: number | undefined): Finding[] {
  const at = { page, subject: item.id };
  const file = item.media === null ? undefined : folio.head.media[item.media];
  const name = file?.name ?? item.name ?? item.id;
  const found: Finding[] = [];
  if (!file) found.push({ code: 'picture.missing', says: `The picture ${name} has no file: its place is empty.`, ...at });
  else if (file.damaged)
    found.push({
      code: 'picture.damaged',
      says: `The picture ${name} is damaged and cannot be shown: outputs say so in its place. Place it again from a whole file.`,
      ...at,
    });
  if (!item.alt && !folio.head.structure.decorations.includes(item.id))
    found.push({ code: 'alt.missing', says: `The picture ${name} has no alt text.`, ...at });
  const ppi = Math.round(resolutionOf(folio, item));
  if (ppi < SCREEN_PPI)
    found.push({
      code: 'picture.coarse',
      says: `The picture ${name} has ${ppi} pixels per inch where it stands: coarse on a screen.`,
      ...at,
    });
  else if (ppi < PRINT_PPI)
    found.push({
      code: 'picture.coarseForPrint',
      says: `The picture ${name} has ${ppi} pixels per inch where it stands: too few for print.`,
      ...at,
    });
  return found;
}

/** Pixels of the file to an inch of the page, along its width; infinite where that is unknown. */
function resolutionOf(folio: Folio, item: PictureItem): number {
  const file = item.media === null ? undefined : folio.head.media[item.media];
  const inches = (Math.hypot(item.placement[0], item.placement[1]) * Math.hypot(item.transform[0], item.transform[1])) / PT_PER_INCH;
  return file?.width && inches > 0 ? file.width / inches : Infinity;
}

function fileFindings(folio: Folio, shown: ReadonlyMap<string, { item: PictureItem; page: number | undefined }>): Finding[] {
  const found: Finding[] = [];
  const byContent = new Map<string, string[]>();
  for (const file of Object.values(folio.head.media)) {
    const place = shown.get(file.id);
    const at = place && { page: place.page, subject: place.item.id };
    if (file.bytes > HEAVY)
      found.push({ code: 'picture.heavy', says: `The file ${file.name} weighs ${(file.bytes / 2 ** 20).toFixed(1)} MiB.`, ...at });
    if (file.colours === 'cmyk')
      found.push({
        code: 'picture.cmyk',
        says: `The picture ${file.name} is in CMYK: screens and e-books get it in RGB, a little otherwise.`,
        ...at,
      });
    if (file.sha256) byContent.set(file.sha256, [...(byContent.get(file.sha256) ?? []), file.name]);
  }
  for (const names of byContent.values())
    if (names.length > 1)
      found.push({ code: 'picture.twice', says: `The same picture is in the document ${names.length} times: ${names.join(', ')}.` });
  return found;
}
