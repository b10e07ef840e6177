import type { Folio } from '@elastic-folio/core';
import { progressOf, standingsOf } from '@elastic-folio/core/language';

type Progress = ReturnType<typeof progressOf>;

/** Documents never change: what is another has another progress. */
const known = new WeakMap<Folio, Map<string, Progress>>();

/** How far an edition has come. Every window asks for it whenever anything changes on the shelf. */
export function editionProgress(folio: Folio, language: string): Progress {
  let ofFolio = known.get(folio);
  if (!ofFolio) known.set(folio, (ofFolio = new Map()));
  let progress = ofFolio.get(language);
  if (!progress) ofFolio.set(language, (progress = progressOf(standingsOf(folio, language))));
  return progress;
}
