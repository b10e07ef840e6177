import { execFile } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { unzipSync, zipSync } from 'fflate';
import { SaxesParser } from 'saxes';
import sharp from 'sharp';
import { FileBlobs, sharpPictures } from '@elastic-folio/core/node';
import { DEFAULT_LIMITS, readFolio } from '@elastic-folio/core/read';
import { median } from './median.ts';

const PAGES = 100;
/** Bytes of pictures on a page, so that the whole comes to about 20 MB. */
const PICTURE_PIXELS = 440;

const SPACES = [
  'office:office',
  'style:style',
  'text:text',
  'draw:drawing',
  'presentation:presentation',
  'fo:xsl-fo-compatible',
  'svg:svg-compatible',
]
  .map((pair) => pair.split(':'))
  .map(([prefix, name]) => `xmlns:${prefix}="urn:oasis:names:tc:opendocument:xmlns:${name}:1.0"`)
  .concat('xmlns:xlink="http://www.w3.org/1999/xlink"')
  .join(' ');
const WORDS = 'The dome turns slowly in frost and the wheels below it speak up one after another before the stars come out'.split(' ');
const sentence = (seed: number, length: number): string =>
  Array.from({ length }, (_, i) => WORDS[(seed * 5 + i * 3) % WORDS.length]).join(' ');

/** A presentation of a hundred pages: a title, a list, shapes drawn by formulas, a table of boxes and a picture on each. */
export async function largePresentation(): Promise<Uint8Array> {
  const files: Record<string, [Uint8Array, { level: 0 | 6 }]> = {
    mimetype: [new TextEncoder().encode('application/vnd.oasis.opendocument.presentation'), { level: 0 }],
  };
  let pages = '';
  for (let p = 0; p < PAGES; p++) {
    const noise = Buffer.from(
      Array.from({ length: PICTURE_PIXELS * PICTURE_PIXELS * 3 }, (_, i) => ((i * 2654435761 + p * 40503) >>> 13) & 255),
    );
    const picture = await sharp(noise, { raw: { width: PICTURE_PIXELS, height: PICTURE_PIXELS, channels: 3 } })
      .jpeg({ quality: 95 })
      .toBuffer();
    files[`Pictures/p${p}.jpg`] = [new Uint8Array(picture), { level: 0 }];
    const list = Array.from(
      { length: 12 },
      (_, i) =>
        `<text:list-item><text:p text:style-name="P1">${sentence(p + i, 14)} <text:span text:style-name="T1">${sentence(i, 4)}</text:span></text:p></text:list-item>`,
    ).join('');
    const boxes = Array.from(
      { length: 24 },
      (_, i) =>
        `<draw:custom-shape draw:style-name="gr1" svg:x="${i}cm" svg:y="15cm" svg:width="0.9cm" svg:height="1cm"><text:p>${i}</text:p><draw:enhanced-geometry svg:viewBox="0 0 21600 21600" draw:modifiers="3600" draw:enhanced-path="M ?f0 0 X 0 ?f0 L 0 ?f1 Y ?f0 21600 L ?f2 21600 X 21600 ?f1 L 21600 ?f0 Y ?f2 0 Z N"><draw:equation draw:name="f0" draw:formula="$0"/><draw:equation draw:name="f1" draw:formula="bottom-?f0"/><draw:equation draw:name="f2" draw:formula="right-?f0"/></draw:enhanced-geometry></draw:custom-shape>`,
    ).join('');
    pages += `<draw:page draw:name="page${p}" draw:master-page-name="M"><draw:frame presentation:style-name="pr1" svg:x="1cm" svg:y="1cm" svg:width="26cm" svg:height="2cm"><draw:text-box><text:p>${sentence(p, 6)}</text:p></draw:text-box></draw:frame><draw:frame presentation:style-name="pr2" svg:x="1cm" svg:y="4cm" svg:width="16cm" svg:height="10cm"><draw:text-box><text:list>${list}</text:list></draw:text-box></draw:frame><draw:frame svg:x="18cm" svg:y="4cm" svg:width="9cm" svg:height="9cm"><draw:image xlink:href="Pictures/p${p}.jpg"/></draw:frame>${boxes}</draw:page>`;
  }
  const content = `<office:document-content ${SPACES}><office:automatic-styles><style:style style:name="P1" style:family="paragraph"><style:paragraph-properties fo:margin-top="0.2cm"/></style:style><style:style style:name="T1" style:family="text"><style:text-properties fo:font-weight="bold"/></style:style><style:style style:name="gr1" style:family="graphic" style:parent-style-name="standard"/><style:style style:name="pr1" style:family="presentation" style:parent-style-name="D-title"/><style:style style:name="pr2" style:family="presentation" style:parent-style-name="D-outline1"/></office:automatic-styles><office:body><office:presentation>${pages}</office:presentation></office:body></office:document-content>`;
  const named = (name: string, family: string, size: number): string =>
    `<style:style style:name="${name}" style:family="${family}"><style:graphic-properties draw:fill="solid" draw:fill-color="#1e5b4b" draw:stroke="none"/><style:text-properties fo:font-size="${size}pt"/></style:style>`;
  const styles = `<office:document-styles ${SPACES}><office:styles>${named('standard', 'graphic', 12)}${named('D-title', 'presentation', 30)}${named('D-outline1', 'presentation', 16)}</office:styles><office:automatic-styles><style:page-layout style:name="PL"><style:page-layout-properties fo:page-width="28cm" fo:page-height="21cm"/></style:page-layout></office:automatic-styles><office:master-styles><style:master-page style:name="M" style:page-layout-name="PL"/></office:master-styles></office:document-styles>`;
  files['content.xml'] = [new TextEncoder().encode(content), { level: 6 }];
  files['styles.xml'] = [new TextEncoder().encode(styles), { level: 6 }];
  return zipSync(files);
}

export interface IntakeTimes {
  mb: number;
  readMs: number;
  /** Unzipping all of it and parsing its XML, and nothing else. */
  plainMs: number;
  ratio: number;
  /** When the first and the last page were read, as shares of the whole time. */
  firstPage: number;
  lastPage: number;
  /** The most memory that a process holds that reads it and does nothing else, in MiB. */
  peakMiB: number;
}

/** Reading a large presentation, against unzipping and parsing it alone, by turns; medians of `rounds`. */
export async function intakeTimes(rounds: number): Promise<IntakeTimes> {
  const folder = await mkdtemp(join(tmpdir(), 'folio-bench-intake-'));
  try {
    const file = join(folder, 'large.odp');
    const bytes = await largePresentation();
    await writeFile(file, bytes);
    const all: { read: number; plain: number; first: number; last: number }[] = [];
    for (let i = 0; i <= rounds; i++) {
      const began = performance.now();
      let first = 0;
      let last = 0;
      const progress = (done: number, total: number): void => {
        if (total !== PAGES) return;
        last = performance.now();
        if (done === 1) first = last;
      };
      await readFolio('large.odp', {
        file,
        blobs: new FileBlobs(join(folder, `blobs${i}`)),
        pictures: sharpPictures,
        limits: DEFAULT_LIMITS,
        progress,
      });
      const read = performance.now() - began;
      const between = performance.now();
      const parts = unzipSync(new Uint8Array(await readFile(file)));
      for (const part of ['content.xml', 'styles.xml'])
        new SaxesParser({ xmlns: true }).write(new TextDecoder().decode(parts[part])).close();
      const plain = performance.now() - between;
      // The first go warms both up.
      if (i) all.push({ read, plain, first: (first - began) / read, last: (last - began) / read });
    }
    const { stdout } = await promisify(execFile)(process.execPath, ['scripts/run.mjs', 'bench/readAlone.ts', file]);
    return {
      peakMiB: (JSON.parse(stdout) as { peak: number }).peak,
      mb: bytes.length / 1e6,
      readMs: median(all.map((a) => a.read)),
      plainMs: median(all.map((a) => a.plain)),
      ratio: median(all.map((a) => a.read / a.plain)),
      firstPage: median(all.map((a) => a.first)),
      lastPage: median(all.map((a) => a.last)),
    };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
