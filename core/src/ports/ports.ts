import type { Rect } from '../folio/geometry.ts';
import type { Readable } from 'node:stream';

/** Bytes by the SHA-256 of their content. `put` stores all or nothing. */
export interface BlobStore {
  put(content: Readable | Uint8Array): Promise<{ sha256: string; bytes: number }>;
  /** The same for what is in memory, with its name as soon as that is known; it is there to stay only when `stored` has come. */
  begin(content: Uint8Array): Promise<{ sha256: string; bytes: number; stored: Promise<void> }>;
  /** The same for a file on disk. */
  putFile(file: string): Promise<{ sha256: string; bytes: number }>;
  has(sha256: string): Promise<boolean>;
  read(sha256: string): Promise<Uint8Array>;
  stream(sha256: string): Readable;
}

export interface PictureInfo {
  width: number;
  height: number;
  format: string;
  hasAlpha: boolean;
  /** What its colours are mixed of. */
  colours: 'rgb' | 'cmyk' | 'grey';
  /** Pixels to the inch, where the file says so. */
  density?: number | undefined;
}

export interface EncodedPicture {
  bytes: Uint8Array;
  mediaType: 'image/jpeg' | 'image/png' | 'image/webp' | 'image/avif' | 'image/tiff';
  width: number;
  height: number;
}

export interface PictureOptions {
  maxWidth: number;
  quality: number;
  /** JPEG or PNG by what shows through, where nothing is said. */
  format?: 'auto' | 'jpeg' | 'png' | 'webp' | 'avif' | 'tiff';
  /** Whether a JPEG appears whole at once and sharpens; it does where nothing is said. */
  progressive?: boolean;
  /** Whether more time may be taken for smaller files; a PNG then gets a table of its colours. */
  thorough?: boolean;
  /** Whether a JPEG is packed without a search for its smallest coding: in a quarter of the time, by a fifth larger. */
  quick?: boolean;
  /** Whether white that surrounds what a picture shows is seen through; such a picture is no JPEG then. */
  throughWhite?: boolean;
}

/** Decoding and encoding of pictures, with a limit on pixels so that a hostile file cannot fill memory. */
export interface PicturePort {
  info(bytes: Uint8Array): Promise<PictureInfo>;
  /** Whether all of a picture can be decoded: its head may be whole where its end is missing. */
  decodes(bytes: Uint8Array): Promise<boolean>;
  /** Re-encodes a picture no wider than `maxWidth` pixels. What shows through is white in a JPEG. */
  encode(bytes: Uint8Array, options: PictureOptions): Promise<EncodedPicture>;
  /** Whether what a picture shows stands on white, nearly all around its edge. */
  hasWhiteGround(bytes: Uint8Array): Promise<boolean>;
  /** Draws an SVG at its own size as PNG; `cover` gives its opacity alone, as grey from black (nothing) to white. */
  drawSvg(svg: string, show: 'picture' | 'cover'): Promise<Uint8Array>;
  /** Average colours of a grid over the picture, or over a part of it in shares of its width and height, row by row, three bytes each: enough to tell pictures apart. */
  signature(bytes: Uint8Array, cells: number, region?: Rect): Promise<Uint8Array>;
  /** The same for pixels that are decoded already, 3 or 4 bytes each. */
  signatureOfPixels(pixels: Uint8Array, width: number, height: number, channels: 3 | 4, cells: number): Promise<Uint8Array>;
}

/** Derived work that all runs share, by a key of input hash, operation, parameters and version. */
export interface DerivedStore {
  get(key: string): Promise<Uint8Array | undefined>;
  put(key: string, bytes: Uint8Array): Promise<void>;
}

/** A failure that a person can understand and act on. */
export class FolioError extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly advice: string,
  ) {
    super(message);
    this.name = 'FolioError';
  }
}

export class Cancelled extends Error {
  constructor() {
    super('cancelled');
    this.name = 'Cancelled';
  }
}
