import { zipSync } from 'fflate';
import type { Zippable } from 'fflate';

/** Packages written by hand after OpenDocument 1.3 (OASIS), not by the writer here. */
const URN = 'urn:oasis:names:tc:opendocument:xmlns';
export const NS = [
  ...['office', 'style', 'text', 'table', 'presentation', 'meta', 'manifest', 'script'].map((n) => `xmlns:${n}="${URN}:${n}:1.0"`),
  `xmlns:draw="${URN}:drawing:1.0" xmlns:fo="${URN}:xsl-fo-compatible:1.0" xmlns:svg="${URN}:svg-compatible:1.0" xmlns:smil="${URN}:smil-compatible:1.0"`,
  'xmlns:xlink="http://www.w3.org/1999/xlink" xmlns:dc="http://purl.org/dc/elements/1.1/"',
].join(' ');
export interface OdfParts {
  body: string;
  kind?: 'presentation' | 'text';
  automatic?: string;
  styles?: string;
  masters?: string;
  masterStyles?: string;
}
const LAYOUT = `<style:page-layout style:name="PL"><style:page-layout-properties fo:page-width="10cm" fo:page-height="5in"/></style:page-layout>`;
export function handMadeOdf(
  {
    body,
    kind = 'text',
    automatic = '',
    styles = '',
    masters = '<style:master-page style:name="M" style:page-layout-name="PL"/>',
    masterStyles = '',
  }: OdfParts,
  more: Zippable = {},
): Uint8Array {
  const files: Record<string, string> = {
    mimetype: `application/vnd.oasis.opendocument.${kind}`,
    'content.xml': `<office:document-content ${NS}><office:automatic-styles>${automatic}</office:automatic-styles><office:body><office:${kind}>${body}</office:${kind}></office:body></office:document-content>`,
    'styles.xml': `<office:document-styles ${NS}><office:styles>${styles}</office:styles><office:automatic-styles>${LAYOUT}${masterStyles}</office:automatic-styles><office:master-styles>${masters}</office:master-styles></office:document-styles>`,
    'meta.xml': `<office:document-meta ${NS}><office:meta><dc:title>A title</dc:title><dc:language>de-AT</dc:language></office:meta></office:document-meta>`,
    'META-INF/manifest.xml': `<manifest:manifest ${NS}>${['/', 'content.xml', 'styles.xml', 'meta.xml', ...Object.keys(more)].map((f) => `<manifest:file-entry manifest:full-path="${f}"/>`).join('')}</manifest:manifest>`,
  };
  return zipSync({ ...Object.fromEntries(Object.entries(files).map(([k, v]) => [k, new TextEncoder().encode(v)])), ...more });
}

export const style = (name: string, family: string, inside: string, parent = ''): string =>
  `<style:style style:name="${name}" style:family="${family}"${parent && ` style:parent-style-name="${parent}"`}>${inside}</style:style>`;
