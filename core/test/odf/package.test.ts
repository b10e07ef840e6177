import { describe, expect, test } from '@jest/globals';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import sharp from 'sharp';
import { loadFonts } from '../../src/compose/index.ts';
import { fontReport } from '../../src/check/index.ts';
import { pictureFindings } from '../../src/check/pictureFindings.ts';
import { incoherences } from '../../src/folio/coherence.ts';
import type { Folio, Item } from '../../src/index.ts';
import { colourChanges, recolouredSvg } from '../../src/read/odf/recolour.ts';
import { sharpPictures } from '../../src/ports/node.ts';
import { packed, part, readBytes, readFlat } from './support/flatFile.ts';

const require = createRequire(import.meta.url);
const workSans = join(dirname(require.resolve('@expo-google-fonts/work-sans/package.json')), '400Regular', 'WorkSans_400Regular.ttf');
const BOX = 'svg:x="1cm" svg:y="1cm" svg:width="4cm" svg:height="3cm"';
const page = (inside: string, more = ''): string => `<draw:page draw:name="P" draw:master-page-name="M" ${more}>${inside}</draw:page>`;
const content = (pages: string, fonts = '', automatic = ''): string =>
  part(
    'document-content',
    `<office:font-face-decls>${fonts}</office:font-face-decls><office:automatic-styles>${automatic}</office:automatic-styles><office:body><office:drawing>${pages}</office:drawing></office:body>`,
  );
const read = async (files: Record<string, string | Uint8Array>): Promise<Folio> => {
  const { folio, done } = await readBytes('test.odg', packed(files));
  await done();
  expect(incoherences(folio)).toEqual([]);
  return folio;
};
const itemsOf = (folio: Folio): Item[] => Object.values(Object.values(folio.spreads)[0]!.items);
const plain = (colour: string): Promise<Buffer> =>
  sharp({ create: { width: 8, height: 8, channels: 3, background: colour } })
    .png()
    .toBuffer();

describe('files of a package', () => {
  test('fonts that travel in it are the document’s, and set its text (16.24 svg:font-face-uri)', async () => {
    const font = new Uint8Array(await readFile(workSans));
    const face =
      '<style:font-face style:name="Hill Sans" svg:font-family="Hill Sans"><svg:font-face-src><svg:font-face-uri xlink:href="Fonts/hill.ttf" svg:font-weight="400"/></svg:font-face-src></style:font-face>';
    const automatic =
      '<style:style style:name="P" style:family="paragraph"><style:text-properties style:font-name="Hill Sans"/></style:style>';
    const text = `<draw:frame ${BOX}><draw:text-box><text:p text:style-name="P">Saturn</text:p></draw:text-box></draw:frame>`;
    const folio = await read({ 'content.xml': content(page(text), face, automatic), 'Fonts/hill.ttf': font });
    const [entry] = Object.values(folio.head.fonts).filter((f) => f.file);
    expect(entry).toMatchObject({ family: 'Hill Sans', weight: 400, style: 'normal', file: expect.stringMatching(/^fonts\//) });
    const fonts = await loadFonts(folio.head, [
      {
        origin: 'document',
        list: () => [{ key: entry!.id, family: entry!.family, weight: 400, style: 'normal' }],
        bytes: async () => font,
      },
    ]);
    fonts.match({ fontFamily: 'Hill Sans', fontWeight: 400, fontStyle: 'normal', fontStretch: 100 });
    expect(fontReport(fonts)).toMatchObject([{ family: 'Hill Sans', from: 'document', by: 'Hill Sans' }]);
  });

  test('a film is a media item with its picture; one that is no file of the package is told', async () => {
    const frame = (href: string): string =>
      `<draw:frame draw:name="Film" ${BOX}><draw:plugin xlink:href="${href}" draw:mime-type="video/mp4"><draw:param draw:name="Loop" draw:value="true"/></draw:plugin><draw:image xlink:href="Pictures/still.png"/></draw:frame>`;
    const files = { 'Media/turn.mp4': new Uint8Array([0, 0, 0, 1]), 'Pictures/still.png': new Uint8Array(await plain('#224466')) };
    const folio = await read({ 'content.xml': content(page(frame('Media/turn.mp4'))), ...files });
    const [item] = itemsOf(folio);
    expect(item).toMatchObject({ kind: 'media', loop: true, autoplay: false });
    const media = item as Extract<Item, { kind: 'media' }>;
    expect([folio.head.media[media.media!]!.mediaType, folio.head.media[media.poster!]!.mediaType]).toEqual(['video/mp4', 'image/png']);
    const other = await read({ 'content.xml': content(page(frame('https://example.org/turn.mp4'))), ...files });
    expect(itemsOf(other).map((i) => i.kind)).toEqual(['picture']);
  });

  test('a picture in CMYK is told as one', async () => {
    const cmyk = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#336699' } })
      .toColourspace('cmyk')
      .jpeg()
      .toBuffer();
    const folio = await read({
      'content.xml': content(page(`<draw:frame ${BOX}><draw:image xlink:href="Pictures/ink.jpg"/></draw:frame>`)),
      'Pictures/ink.jpg': new Uint8Array(cmyk),
    });
    expect(Object.values(folio.head.media)[0]!.colours).toBe('cmyk');
    expect(pictureFindings(folio, () => 1).map((f) => f.code)).toContain('picture.cmyk');
  });

  test('a picture shown in greys is a picture of greys; the original’s colours stay elsewhere', async () => {
    const style =
      '<style:style style:name="g" style:family="graphic"><style:graphic-properties draw:color-mode="greyscale"/></style:style>';
    const image = (more: string): string => `<draw:frame ${more} ${BOX}><draw:image xlink:href="Pictures/red.png"/></draw:frame>`;
    const { folio, blobs, record, done } = await readBytes(
      'test.odg',
      packed({
        'content.xml': content(page(image('draw:style-name="g"') + image('')), '', style),
        'Pictures/red.png': new Uint8Array(await plain('#ff0000')),
      }),
    );
    const colours = await Promise.all(
      itemsOf(folio).map(async (i) => {
        const media = folio.head.media[(i as Extract<Item, { kind: 'picture' }>).media!]!;
        const { channels } = await sharp(await blobs.read(media.sha256)).stats();
        return channels.slice(0, 3).map((c) => Math.round(c.mean));
      }),
    );
    await done();
    // ITU-R BT.709 luma of pure red, as SVG 1.1 15.10 feColorMatrix “saturate” has it: 0.2126 of white.
    expect(colours).toEqual([
      [54, 54, 54],
      [255, 0, 0],
    ]);
    expect(record.notTaken).toEqual([]);
  });
});

describe('colours of pictures (20.88 draw:color-mode, draw:luminance, draw:contrast, draw:gamma)', () => {
  const shown = async (colour: string, attributes: Record<string, string>): Promise<number[]> => {
    const href = `data:image/png;base64,${(await plain(colour)).toString('base64')}`;
    const svg = recolouredSvg(href, { width: 8, height: 8 }, colourChanges(attributes)!);
    const { channels } = await sharp(await sharpPictures.drawSvg(svg, 'picture')).stats();
    return channels.slice(0, 3).map((c) => Math.round(c.mean));
  };
  test('nothing asked for is no change', () =>
    expect([colourChanges({}), colourChanges({ 'draw:color-mode': 'standard', 'draw:gamma': '100%' })]).toEqual([null, null]));
  test.each([
    ['brighter by a fifth', '#808080', { 'draw:luminance': '20%' }, 179],
    ['no contrast left', '#202020', { 'draw:contrast': '-100%' }, 128],
    ['black and white', '#909090', { 'draw:color-mode': 'mono' }, 255],
    ['black and white, the darker half', '#707070', { 'draw:color-mode': 'mono' }, 0],
    ['a watermark of black is light grey', '#000000', { 'draw:color-mode': 'watermark' }, 217],
  ])('%s', async (_, colour, attributes, value) => {
    for (const channel of await shown(colour, attributes)) expect(Math.abs(channel - value)).toBeLessThanOrEqual(2);
  });
});

describe('ways through a document', () => {
  test('links to bookmarks lead to their paragraphs, also to ones that stand further on', async () => {
    const frame = (text: string): string => `<draw:frame ${BOX}><draw:text-box>${text}</draw:text-box></draw:frame>`;
    const { folio, record } = await readFlat({
      pages:
        page(frame('<text:p><text:a xlink:href="#there">go</text:a> <text:a xlink:href="#nowhere">not</text:a></text:p>')) +
        page(frame('<text:p>One</text:p><text:p>Two<text:bookmark text:name="there"/></text:p>')),
    });
    expect(incoherences(folio)).toEqual([]);
    const two = Object.values(folio.stories)
      .flatMap((s) => Object.values(s.blocks))
      .find((b) => b.kind === 'paragraph' && JSON.stringify(b.content).includes('Two'))!;
    expect(Object.values(folio.stories).flatMap((s) => Object.values(s.links).map((l) => l.destination))).toEqual([
      { to: 'paragraph', paragraph: two.id },
    ]);
    expect(record.notTaken.map((n) => n.reason)).toEqual(['nothing here is called “nowhere”']);
  });

  test('the order in which a page’s objects are visited is a strand of the reading path (19.193 draw:nav-order)', async () => {
    const rect = (id: string): string => `<draw:rect xml:id="${id}" ${BOX}/>`;
    const { folio } = await readFlat({ pages: page(rect('a') + rect('b') + rect('c'), 'draw:nav-order="c a gone b"') + page(rect('d')) });
    const [strand] = folio.head.structure.strands;
    expect(strand!.entries.map((e) => e.item)).toEqual(['c', 'a', 'b']);
    expect(incoherences(folio)).toEqual([]);
  });
});
