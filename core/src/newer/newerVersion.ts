import { layOf, layPages } from '../edit/facingPages.ts';
import { nameLooks } from '../edit/nameLooks.ts';
import { handFormatted } from '../check/handFormatted.ts';
import { Folio } from '../folio/folio.ts';
import type { Spread } from '../folio/spread.ts';
import { mapIds, idsIn } from './mapIds.ts';
import { matchDocuments } from './matchDocuments.ts';
import { mergeDocuments } from './mergeDocuments.ts';
import type { NewerReport } from './report.ts';
import { reportOn } from './reportOn.ts';

export interface NewerInput {
  /** The document as its source was read. */
  was: Folio;
  /** The document as it is. */
  here: Folio;
  /** The newer source as it was read. */
  there: Folio;
  /** What a person said is the same: our ids by ids of the newer source. */
  chosen: ReadonlyMap<string, string>;
  /** Ids of what clashes and stays as it is here. */
  keep: ReadonlySet<string>;
}
export interface Newer {
  folio: Folio;
  /** Our ids by the newer source's. */
  ids: Map<string, string>;
  /** The newer source's paths of pictures, media and fonts by their paths here. */
  files: Map<string, string>;
  report: NewerReport;
}

/**
 * A newer version of a document's source over the document: what is the same is found by identity, by what it says and by its
 * place; what the source changed is taken, what the designer decided stays; what could not be matched is told. Changes none of
 * what it is given.
 */
export function newerVersion({ was, here, there, chosen, keep }: NewerInput): Newer {
  const lay = layOf(here);
  const single = inSingles(was, here);
  const found = matchDocuments(was, there, chosen);
  const ids = withFreeIds(found, was, single, there);
  const mapped = mapIds(there, (id) => ids.get(id) ?? id);
  const files = withFreePaths(mapped, was, here);
  const { folio, clashes } = mergeDocuments(was, single, mapped, keep);
  // Where no look was left without a style, none is now.
  if (handFormatted(was) && !handFormatted(here)) nameLooks(folio);
  if (lay !== null && lay !== 'single') layPages(folio, lay);
  const report = reportOn({ was, here: single, there, mapped, ids, found, clashes });
  return { folio: Folio.parse(folio), ids, files, report };
}

/** The document with its pages one by one, on spreads that are called as they were when it came in. */
function inSingles(was: Folio, here: Folio): Folio {
  const single = structuredClone(here);
  if (layOf(here) !== 'single') layPages(single, 'single');
  const home = new Map(Object.values(was.spreads).flatMap((s) => s.pages.map((p) => [p.id, s.id] as const)));
  const renamed = new Map<string, string>();
  for (const spread of Object.values(single.spreads)) {
    const before = home.get(spread.pages[0]!.id);
    if (before !== undefined && before !== spread.id) renamed.set(spread.id, before);
  }
  if (!renamed.size) return single;
  const put = (place: { spread: string }): void => void (place.spread = renamed.get(place.spread) ?? place.spread);
  const spreads: Record<string, Spread> = {};
  for (const [id, spread] of Object.entries(single.spreads)) spreads[renamed.get(id) ?? id] = { ...spread, id: renamed.get(id) ?? id };
  single.spreads = spreads;
  single.head.spreadOrder = single.head.spreadOrder.map((id) => renamed.get(id) ?? id);
  for (const story of Object.values(single.stories)) story.frames.forEach(put);
  for (const strand of single.head.structure.strands) strand.entries.forEach(put);
  return single;
}

/** Ids for what is new: its own where nothing here is or was called so. */
function withFreeIds(found: ReadonlyMap<string, string>, was: Folio, here: Folio, there: Folio): Map<string, string> {
  const ids = new Map(found);
  const taken = new Set([...idsIn(was), ...idsIn(here), ...found.values()]);
  for (const id of idsIn(there)) {
    if (ids.has(id)) continue;
    let free = id;
    for (let n = 2; taken.has(free); n++) free = `${id.slice(0, 70)}-v${n}`;
    taken.add(free);
    ids.set(id, free);
  }
  return ids;
}

/** Gives files of the newer source paths that stand for nothing else here. Changes the entries of `there`. */
function withFreePaths(there: Folio, ...others: Folio[]): Map<string, string> {
  const files = new Map<string, string>();
  const entries = ({ head }: Folio) => [...Object.values(head.media), ...Object.values(head.fonts)];
  const taken = new Map(others.flatMap(entries).flatMap((e) => (e.file === undefined ? [] : [[e.file, e.sha256] as const])));
  for (const entry of entries(there)) {
    if (entry.file === undefined) continue;
    const raw = entry.file;
    const [, folder = '', ending = ''] = /^([a-z]+)\/.*?(\.[A-Za-z0-9]+)?$/.exec(raw) ?? [];
    for (let n = 2; taken.has(entry.file) && taken.get(entry.file) !== entry.sha256; n++)
      entry.file = `${folder}/${entry.id}-v${n}${ending}`;
    taken.set(entry.file, entry.sha256);
    files.set(entry.file, raw);
  }
  return files;
}
