import type { Folio } from '../folio/folio.ts';

/** How far something may stand from its place: half a point, less than an eye sees at arm's length. */
export const PLACE_TOLERANCE = 0.5;

export interface Format {
  /** What an element of our roles is in this format, as its observer names it. */
  roleFor(element: string): string;
  /** Whether parts of a paragraph in several frames of a page are one block. */
  joinsParts: boolean;
  /** Extra room for baselines, in points: browsers put them on whole pixels. */
  baselineTolerance: number;
  /** Whether what leads somewhere when it is pressed is a link. */
  linksCues: boolean;
  /** Whether a program comes with it, by which parts react and move; else only fields and pages are asked about. */
  plays: boolean;
  /** Whether it does what cues say, and plays films and sounds, by actions of its own. */
  acts: boolean;
  /** How far something may stand from its place, in points, where that is less than usual. */
  placeTolerance?: number;
  /** Whether all letters are drawn, so that no font comes along. */
  drawsText?: boolean;
}

export interface CompareContext {
  folio: Folio;
  format: Format;
  /** A grid of average colours of a media file of the document. */
  signature(media: string): Promise<Uint8Array>;
}
