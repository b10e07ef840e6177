import { compareDocuments } from '../../ledger/compare.ts';
import type { Format } from '../../ledger/compare.ts';
import type { Evidence } from '../../ledger/entry.ts';
import { expectDocument } from '../../ledger/expected.ts';
import type { ExpectedDocument } from '../../ledger/expected.ts';
import type { ObservedDocument } from '../../ledger/observed.ts';
import { SIGNATURE_CELLS } from '../../ledger/findings.ts';
import { scopeOf } from './scope.ts';
import type { WriteJob } from '../writer.ts';

interface PageSettings {
  pages: string;
  hiddenLayers: 'in' | 'out';
  title: string;
  language: string;
}

type Headings = ExpectedDocument['outline'];

/** Reads back an output that shows pages as designed: what was observed against what the document asks for; `listed` tells which headings it lists, `isStill` that it shows the first cards only. */
export async function* readBackPages(
  job: WriteJob<PageSettings>,
  observed: ObservedDocument,
  format: Format,
  listed: (headings: Headings) => Headings = (all) => all,
  isStill = false,
): AsyncGenerator<Evidence> {
  const { folio, composition, settings } = job;
  const expected = expectDocument(folio, composition, scopeOf(folio, composition, settings, isStill), settings);
  expected.outline = listed(expected.outline);
  const signatures = new Map<string, Promise<Uint8Array>>();
  const signature = (media: string): Promise<Uint8Array> => {
    let kept = signatures.get(media);
    if (!kept) signatures.set(media, (kept = job.media(media).then((bytes) => job.pictures.signature(bytes, SIGNATURE_CELLS))));
    return kept;
  };
  yield* await compareDocuments(expected, observed, { folio, format, signature });
}
