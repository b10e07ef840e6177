import { isMasterInstance } from '../folio/masters.ts';
import type { Evidence, Subject } from './entry.ts';

/** What comparing a result with its document has found so far. */
export class Findings {
  readonly list: Evidence[] = [];
  say(kind: Subject['kind'], id: string, aspect: string, agrees: boolean, says: string): void {
    this.list.push({ subject: { kind: kind === 'item' && isMasterInstance(id) ? 'masterItem' : kind, id, aspect }, agrees, says });
  }
}

/** As much of a text as tells it from others. */
export const short = (text: string): string => (text.length > 60 ? text.slice(0, 57) + '…' : text);

/** A length in points, for people. */
export const pt = (v: number): string => `${Math.round(v * 100) / 100} pt`;

/** Cells along each side of the grid of average colours by which pictures are told apart. */
export const SIGNATURE_CELLS = 8;

/** Mean difference of colour, of 255, at which two pictures count as different: above what compression does. */
const PICTURE_TOLERANCE = 9;

/** Whether two grids of average colours are those of one picture. */
export const samePicture = (a: Uint8Array, b: Uint8Array): boolean =>
  a.length === b.length && a.reduce((sum, v, i) => sum + Math.abs(v - b[i]!), 0) / a.length <= PICTURE_TOLERANCE;
