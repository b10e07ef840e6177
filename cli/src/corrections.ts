import { createWriteStream } from 'node:fs';
import { resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { applyEdit, takeCorrections } from '@elastic-folio/core';
import { DEFAULT_LIMITS, readCorrections } from '@elastic-folio/core/read';
import { packFolio } from '@elastic-folio/core/write';
import { withDocument } from './openDocument.ts';
import type { CorrectionsResult } from './results.ts';

/** What colleagues changed in an office file that was written from a document; with `out`, a package in which all of it is taken that nobody changed here as well. */
export function corrections(file: string, from: string, out: string | undefined): Promise<CorrectionsResult> {
  return withDocument(file, async ({ folio, files, blobs }) => {
    const found = await readCorrections(folio, from, DEFAULT_LIMITS);
    const take = out === undefined ? [] : found.corrections.filter((c) => !c.changedHere);
    if (out !== undefined) {
      const corrected = takeCorrections(folio, take).reduce((f, edit) => applyEdit(f, edit).folio, folio);
      await pipeline(packFolio(corrected, files, blobs), createWriteStream(resolve(out)));
    }
    return { ...found, taken: take.length };
  });
}
