import { describe, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { drawGeometry } from '../../src/read/odf/geometry/enhancedGeometry.ts';
import { hatchSvg, tiledSvg } from '../../src/read/odf/patterns.ts';
import { readXml } from '../../src/packages/xmlTree.ts';
import { sharpPictures } from '../../src/ports/node.ts';
import type { Item } from '../../src/index.ts';
import { readFlat } from './support/flatFile.ts';

const DRAW = 'urn:oasis:names:tc:opendocument:xmlns:drawing:1.0';
const hatch = (attributes: string) => readXml(`<draw:hatch xmlns:draw="${DRAW}" ${attributes}/>`, 'test');
/** How dark a picture is in rows or columns of pixels, from 0 to 1. */
async function darkness(svg: string, along: 'rows' | 'columns'): Promise<number[]> {
  const { data, info } = await sharp(await sharpPictures.drawSvg(svg, 'picture'))
    .flatten({ background: '#fff' })
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const lines = along === 'rows' ? info.height : info.width;
  const others = along === 'rows' ? info.width : info.height;
  return Array.from({ length: lines }, (_, i) => {
    let sum = 0;
    for (let k = 0; k < others; k++) sum += 255 - data[along === 'rows' ? i * info.width + k : k * info.width + i]!;
    return sum / others / 255;
  });
}
const peaks = (values: number[]): number =>
  values.filter((v, i) => v > 0.3 && v >= (values[i - 1] ?? 0) && v > (values[i + 1] ?? 0)).length;

describe('patterns that fill shapes', () => {
  test('a hatch has its lines at its distance: ten in a hundred points at ten (14.10 draw:hatch)', async () => {
    const svg = hatchSvg(hatch('draw:style="single" draw:distance="10pt" draw:rotation="0"'), '#000000', null, { width: 100, height: 100 });
    expect(peaks(await darkness(svg, 'rows'))).toBeGreaterThanOrEqual(9);
    expect(peaks(await darkness(svg, 'rows'))).toBeLessThanOrEqual(11);
    expect(peaks(await darkness(svg, 'columns'))).toBe(0);
  });

  test('turned by a quarter its lines stand upright; a double one has both', async () => {
    const turned = hatchSvg(hatch('draw:style="single" draw:distance="10pt" draw:rotation="900"'), '#000000', null, {
      width: 100,
      height: 100,
    });
    expect([peaks(await darkness(turned, 'rows')), peaks(await darkness(turned, 'columns')) >= 9]).toEqual([0, true]);
    const double = hatchSvg(hatch('draw:style="double" draw:distance="10pt"'), '#000000', null, { width: 100, height: 100 });
    expect([peaks(await darkness(double, 'rows')) >= 9, peaks(await darkness(double, 'columns')) >= 9]).toEqual([true, true]);
  });

  test('a hatch on a colour covers all of its shape; one without lets show through what is behind', async () => {
    const alpha = async (back: string | null): Promise<number> => {
      const svg = hatchSvg(hatch('draw:distance="20pt"'), '#000000', back, { width: 60, height: 60 });
      const { channels } = await sharp(await sharpPictures.drawSvg(svg, 'picture'))
        .ensureAlpha()
        .stats();
      return channels[3]!.mean / 255;
    };
    expect(await alpha('#ffeecc')).toBe(1);
    expect(await alpha(null)).toBeLessThan(0.2);
  });

  test('a repeated picture fills a shape in its own size: four times across twice its width', async () => {
    const tile = await sharp({ create: { width: 2, height: 1, channels: 3, background: '#fff' } })
      .composite([
        {
          input: await sharp({ create: { width: 1, height: 1, channels: 3, background: '#000' } })
            .png()
            .toBuffer(),
          left: 0,
          top: 0,
        },
      ])
      .png()
      .toBuffer();
    const svg = tiledSvg(
      `data:image/png;base64,${tile.toString('base64')}`,
      { width: 20, height: 20 },
      { 'draw:fill-image-ref-point': 'top-left' },
      { width: 80, height: 20 },
    );
    const dark = await darkness(svg, 'columns');
    const changes = dark.filter((v, i) => i > 0 && v > 0.5 !== dark[i - 1]! > 0.5).length;
    expect(changes).toBe(7);
  });

  test('a hatched shape in a file is a picture cut out along it; the same hatch in the same size is one picture', async () => {
    const rect = (x: number): string => `<draw:rect draw:style-name="g" svg:x="${x}cm" svg:y="1cm" svg:width="2cm" svg:height="2cm"/>`;
    const { folio, record } = await readFlat({
      styles: '<draw:hatch draw:name="H" draw:style="single" draw:color="#336699" draw:distance="0.1cm" draw:rotation="450"/>',
      automatic:
        '<style:style style:name="g" style:family="graphic"><style:graphic-properties draw:fill="hatch" draw:fill-hatch-name="H"/></style:style>',
      pages: `<draw:page draw:master-page-name="M">${rect(1)}${rect(4)}</draw:page>`,
    });
    const items = Object.values(Object.values(folio.spreads)[0]!.items);
    expect(items.filter((i) => i.kind === 'picture' && i.clip).length).toBe(2);
    expect(Object.keys(folio.head.media)).toHaveLength(1);
    expect(record.notTaken).toEqual([]);
  });

  test('a line that shows through does so; one around a fill that does not is told', async () => {
    const style = (name: string, more: string): string =>
      `<style:style style:name="${name}" style:family="graphic"><style:graphic-properties draw:stroke="solid" svg:stroke-opacity="40%" ${more}/></style:style>`;
    const { folio, record } = await readFlat({
      automatic: style('l', 'draw:fill="none"') + style('f', 'draw:fill="solid"'),
      pages: `<draw:page draw:master-page-name="M"><draw:line draw:style-name="l" svg:x1="1cm" svg:y1="1cm" svg:x2="3cm" svg:y2="1cm"/><draw:ellipse draw:style-name="l" svg:width="2cm" svg:height="2cm"/><draw:ellipse draw:style-name="f" svg:width="2cm" svg:height="2cm"/></draw:page>`,
    });
    const spread = Object.values(folio.spreads)[0]!;
    expect(spread.order.map((id) => (spread.items[id] as Item).opacity)).toEqual([0.4, 0.4, 1]);
    expect(record.notTaken.map((n) => n.what)).toEqual(['Transparent line']);
  });
});

describe('shapes that keep the proportions of their parts (19.221 draw:path-stretchpoint-x), worked by hand', () => {
  const draw = (stretch: { x: number; y: number }, width: number, height: number) =>
    drawGeometry(
      {
        viewBox: { x: 0, y: 0, width: 100, height: 100 },
        path: 'M 0 0 L 20 20 80 20 100 100 N',
        equations: new Map(),
        modifiers: [],
        textAreas: undefined,
        mirror: { horizontal: false, vertical: false },
        stretch,
        hasStroke: true,
        hasFill: true,
      },
      width,
      height,
    ).parts[0]!.path.map((s) => s.slice(1));
  test.each([
    ['three times as wide as high: what is left of the point stays, what is right of it moves by the rest', 300, [20, 280, 300]],
    ['no longer than its view box in that direction: all of it is scaled', 50, [10, 40, 50]],
  ])('%s', (_, width, [left, right, end]) => {
    expect(draw({ x: 50, y: 0 }, width, 100)).toEqual([
      [0, 0],
      [left, 20],
      [right, 20],
      [end, 100],
    ]);
  });
});
