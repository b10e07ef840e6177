import { num } from '../svg/markup.ts';

/** The parts of pdfkit that its types do not show. */
interface Internals {
  _font: EmbeddedFont;
  _root: { data: Record<string, unknown> };
  page: {
    width: number;
    height: number;
    fonts: Record<string, unknown>;
    ext_gstates: Record<string, unknown>;
    colorSpaces: Record<string, unknown>;
    dictionary: { data: Record<string, unknown> };
    annotations: object[];
    resources: unknown;
    xobjects: Record<string, unknown>;
    structParentTreeKey: number;
    write(chunk: unknown): void;
  };
  _ctm: number[];
  _convertRect(x: number, y: number, width: number, height: number): number[];
  createStructParentTreeNextKey(): number;
  getStructParentTree(): { add(key: number, parents: unknown[]): void; get(key: number): unknown[] };
  addContent(content: string): void;
  ref(data: Record<string, unknown>): { data: Record<string, unknown>; end(content?: string): void };
  spotColors: Record<string, { id: string; ref: unknown }>;
  addSpotColor(ink: string, c: number, m: number, y: number, k: number): void;
  struct(type: string, options?: StructOptions): StructElement;
  endOutline(): void;
  endAcroForm(): void;
  addStructure(element: StructElement): void;
  markStructureContent(tag: string, options?: Record<string, unknown>): StructContent;
  markContent(tag: string, options?: Record<string, unknown>): void;
  endMarkedContent(): void;
  openImage(bytes: Buffer): unknown;
}
export interface MaskImage {
  obj?: unknown;
  embed(doc: unknown): void;
}
export interface EmbeddedFont {
  id: string;
  font: { getGlyph(gid: number): { advanceWidth: number } };
  subset: { includeGlyph(gid: number): number; glyphs: number[] };
  widths: number[];
  unicode: number[][];
  scale: number;
  ref(): unknown;
}

export interface StructOptions {
  alt?: string;
  lang?: string;
  title?: string;
  actual?: string;
  bbox?: number[];
  /** Of a table's cell: what it heads, and how many rows and columns it takes (ISO 32000-1, 14.8.5.7). */
  cell?: { scope: 'Column' | 'Row' | null; rows: number; columns: number };
}
export interface StructElement {
  add(child: StructElement | StructContent): StructElement;
  end(): void;
}
/** Marked content of a page, to be hung into the structure tree. */
export interface StructContent {
  readonly refs: { pageRef: unknown; mcid: number }[];
}

/** A document of pdfkit with all that is used of it. */
export type Doc = Omit<PDFKit.PDFDocument, keyof Internals> & Internals;

/** A number as PDF operators have it. */
export const n = (value: number, decimals = 5): string => num(value, decimals);
