import { ParseSpeeds, PDFDict, PDFDocument, PDFHexString, PDFName, PDFNumber, PDFRawStream, PDFString } from '@cantoo/pdf-lib';
import type { PDFObject } from '@cantoo/pdf-lib';

/** The objects of a file, by which is read what pdf.js does not tell, or tells for each page anew. */
export const openFile = (bytes: Uint8Array): Promise<PDFDocument> =>
  PDFDocument.load(bytes, { updateMetadata: false, parseSpeed: ParseSpeeds.Fastest });

/** What stands under a key, looked up where it is a reference. */
export const at = (dict: PDFDict | undefined, key: string): PDFObject | undefined => dict?.lookup(PDFName.of(key));

/** A dictionary under a key, or that of a stream. */
export function dictAt(dict: PDFDict | undefined, key: string): PDFDict | undefined {
  const value = at(dict, key);
  return value instanceof PDFDict ? value : value instanceof PDFRawStream ? value.dict : undefined;
}

export function numberAt(dict: PDFDict | undefined, key: string): number | undefined {
  const value = at(dict, key);
  return value instanceof PDFNumber ? value.asNumber() : undefined;
}

export const textOf = (value: PDFObject | undefined): string | undefined =>
  value instanceof PDFString || value instanceof PDFHexString ? value.decodeText() : undefined;

export const nameOf = (value: PDFObject | undefined): string | undefined => (value instanceof PDFName ? value.decodeText() : undefined);
