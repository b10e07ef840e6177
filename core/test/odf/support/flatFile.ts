import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { zipSync } from 'fflate';
import { FileBlobs, sharpPictures } from '../../../src/ports/node.ts';
import type { Origin } from '../../../src/ports/origin.ts';
import type { LoadedFolio } from '../../../src/read/index.ts';
import { DEFAULT_LIMITS, originOf, readFolio, recordOf } from '../../../src/read/index.ts';
import type { IntakeRecord } from '../../../src/intake/intakeRecord.ts';
import type { Folio } from '../../../src/index.ts';

const NAMESPACES = Object.entries({
  office: 'office:1.0',
  style: 'style:1.0',
  text: 'text:1.0',
  table: 'table:1.0',
  draw: 'drawing:1.0',
  presentation: 'presentation:1.0',
  fo: 'xsl-fo-compatible:1.0',
  svg: 'svg-compatible:1.0',
  smil: 'smil-compatible:1.0',
  anim: 'animation:1.0',
  dr3d: 'dr3d:1.0',
  form: 'form:1.0',
  script: 'script:1.0',
  meta: 'meta:1.0',
  manifest: 'manifest:1.0',
})
  .map(([prefix, name]) => `xmlns:${prefix}="urn:oasis:names:tc:opendocument:xmlns:${name}"`)
  .concat('xmlns:xlink="http://www.w3.org/1999/xlink"', 'xmlns:dc="http://purl.org/dc/elements/1.1/"')
  .join(' ');

export interface FlatParts {
  kind?: 'graphics' | 'presentation';
  meta?: string;
  fonts?: string;
  styles?: string;
  automatic?: string;
  masters?: string;
  pages: string;
}
const LAYOUT = `<style:page-layout style:name="PL"><style:page-layout-properties fo:page-width="20cm" fo:page-height="10cm"/></style:page-layout>`;
export const MASTER = `<style:master-page style:name="M" style:page-layout-name="PL"/>`;

/** A flat OpenDocument file of the parts given. */
export function flat({
  kind = 'graphics',
  meta = '',
  fonts = '',
  styles = '',
  automatic = '',
  masters = MASTER,
  pages,
}: FlatParts): string {
  const body = kind === 'graphics' ? 'drawing' : 'presentation';
  return `<?xml version="1.0" encoding="UTF-8"?><office:document ${NAMESPACES} office:version="1.3" office:mimetype="application/vnd.oasis.opendocument.${kind}"><office:meta>${meta}</office:meta><office:font-face-decls>${fonts}</office:font-face-decls><office:styles>${styles}</office:styles><office:automatic-styles>${LAYOUT}${automatic}</office:automatic-styles><office:master-styles>${masters}</office:master-styles><office:body><office:${body}>${pages}</office:${body}></office:body></office:document>`;
}

/** A package with the parts of a flat file, as other programs write it. */
export function packed(files: Record<string, string | Uint8Array>, mimetype = 'application/vnd.oasis.opendocument.graphics'): Uint8Array {
  const bytes = Object.entries(files).map(([path, v]) => [path, typeof v === 'string' ? new TextEncoder().encode(v) : v] as const);
  return zipSync({ mimetype: [new TextEncoder().encode(mimetype), { level: 0 }], ...Object.fromEntries(bytes) });
}
/** An `office:document-content` or `-styles` around what stands in it. */
export const part = (name: string, inside: string): string =>
  `<office:${name} ${NAMESPACES} office:version="1.3">${inside}</office:${name}>`;

/** Reads a file as it would come in, in a folder of its own. */
export async function readBytes(
  name: string,
  bytes: string | Uint8Array,
): Promise<{
  folio: Folio;
  record: IntakeRecord;
  origin: Origin;
  blobs: FileBlobs;
  files: LoadedFolio['files'];
  paths: string[];
  done(): Promise<void>;
}> {
  const folder = await mkdtemp(join(tmpdir(), 'odf-'));
  const done = (): Promise<void> => rm(folder, { recursive: true, force: true, maxRetries: 5, retryDelay: 50 });
  try {
    const file = join(folder, name);
    await writeFile(file, bytes);
    const blobs = new FileBlobs(join(folder, 'blobs'));
    const { folio, files } = await readFolio(name, { file, blobs, pictures: sharpPictures, limits: DEFAULT_LIMITS });
    const [record, origin] = [await recordOf({ folio, files }, blobs), await originOf({ folio, files }, blobs)];
    return { folio, record: record!, origin: origin!, blobs, files, paths: [...files.keys()], done };
  } catch (error) {
    await done();
    throw error;
  }
}

/** Reads a flat file's document and its record. */
export async function readFlat(parts: FlatParts): Promise<{ folio: Folio; record: IntakeRecord }> {
  const { folio, record, done } = await readBytes(parts.kind === 'presentation' ? 'test.fodp' : 'test.fodg', flat(parts));
  await done();
  return { folio, record };
}
