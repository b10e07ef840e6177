import type { Format } from '../../ledger/format.ts';
import type { Evidence } from '../../ledger/entry.ts';
import { compareFlow } from '../../ledger/flow/compareFlow.ts';
import type { ExpectedFlow } from '../../ledger/flow/expectFlow.ts';
import type { ObservedFlow } from '../../ledger/flow/observedFlow.ts';
import type { Telling } from '../../ledger/flow/telling.ts';
import { SIGNATURE_CELLS } from '../../ledger/findings.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import type { WriteJob } from '../writer.ts';
import type { PaintedLeaf } from '../pages/paintedPage.ts';
import { isToldOtherwise } from './placedPictures.ts';
import type { PlacedFormat } from './placedFormat.ts';

/** How office files of pages are compared: everything within a twentieth of a point of its place. */
export const PLACED: Format = {
  roleFor: (element) => element,
  joinsParts: false,
  baselineTolerance: 0,
  linksCues: true,
  plays: false,
  acts: false,
  placeTolerance: 0.05,
};

/** Items of which such a file shows something else than themselves, so that they are not looked for. */
export const toldOtherwise = (
  pages: readonly PagePlace[],
  settings: Parameters<typeof isToldOtherwise>[1],
  format: PlacedFormat,
): Set<string> =>
  new Set(
    pages.flatMap(({ spread }) =>
      Object.values(spread.items).flatMap((i) => (isToldOtherwise(i as PaintedLeaf, settings, format) ? [i.id] : [])),
    ),
  );

/** The average colours of a media file of the document. */
export const signatureIn =
  (job: Pick<WriteJob<unknown>, 'media' | 'pictures'>) =>
  async (media: string): Promise<Uint8Array> =>
    job.pictures.signature(await job.media(media), SIGNATURE_CELLS);

/** Holds the words of boxes against those that are expected. `carries`: whether typefaces are in the file. */
export const compareBoxedWords = (
  { folio, fonts, media, pictures }: Pick<WriteJob<unknown>, 'folio' | 'fonts' | 'media' | 'pictures'>,
  expected: ExpectedFlow,
  observed: ObservedFlow,
  telling: Telling,
  carries = false,
): Promise<Evidence[]> =>
  compareFlow(expected, observed, {
    folio,
    fonts,
    embeds: true,
    carries,
    telling,
    styled: true,
    navigates: false,
    signature: signatureIn({ media, pictures }),
  });
