import type { Embed } from '../../folio/items.ts';
import { factKey } from '../../ledger/motionFacts.ts';
import { compareDocuments } from '../../ledger/compare.ts';
import type { Format } from '../../ledger/format.ts';
import type { Evidence } from '../../ledger/entry.ts';
import { expectDocument } from '../../ledger/expected.ts';
import type { ExpectedDocument } from '../../ledger/expected.ts';
import type { ObservedDocument } from '../../ledger/observed.ts';
import { SIGNATURE_CELLS } from '../../ledger/findings.ts';
import { scopeOf } from '../scope.ts';
import type { WriteJob } from '../writer.ts';

interface PageSettings {
  pages: string;
  hiddenLayers: 'in' | 'out';
  title: string;
  language: string;
}

type Headings = ExpectedDocument['outline'];

/** Reads back an output that shows pages as designed: what was observed against what the document asks for; `listed` tells which headings it lists, `isStill` that it shows the first cards only, `shows` what of the web it has frames for. */
export async function* readBackPages(
  job: WriteJob<PageSettings>,
  observed: ObservedDocument,
  format: Format,
  listed: (headings: Headings) => Headings = (all) => all,
  isStill = false,
  shows: (source: Embed['source']) => boolean = () => false,
): AsyncGenerator<Evidence> {
  const { folio, composition, settings } = job;
  const scope = scopeOf(folio, composition, settings, isStill);
  const expected = expectDocument(folio, composition, scope, settings);
  expected.outline = listed(expected.outline);
  // A frame is looked for only where what it shows is at hand.
  for (const { spread } of scope.pages)
    for (const item of Object.values(spread.items))
      if (item.kind === 'embed' && !shows(item.source)) expected.motion.delete(factKey('item', item.id, 'embed'));
  const signatures = new Map<string, Promise<Uint8Array>>();
  const signature = (media: string): Promise<Uint8Array> => {
    let kept = signatures.get(media);
    if (!kept) signatures.set(media, (kept = job.media(media).then((bytes) => job.pictures.signature(bytes, SIGNATURE_CELLS))));
    return kept;
  };
  yield* await compareDocuments(expected, observed, { folio, format, signature });
}
