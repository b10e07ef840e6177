import { describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import sharp from 'sharp';
import { composedSpread, Composer } from '../../src/compose/index.ts';
import { incoherences } from '../../src/folio/coherence.ts';
import type { Folio, Paragraph } from '../../src/index.ts';
import { newerVersion } from '../../src/newer/newerVersion.ts';
import { fontsOf } from '../support/samples.ts';
import { packed, part, readBytes } from './support/flatFile.ts';

const BOX = 'svg:x="1cm" svg:y="1cm" svg:width="12cm" svg:height="6cm"';
const picture = (more = '', file = 'red.png'): string =>
  `<draw:frame svg:x="3cm" svg:width="36pt" svg:height="24pt" text:anchor-type="as-char" ${more}><draw:image xlink:href="Pictures/${file}"/><svg:desc>A red lamp.</svg:desc></draw:frame>`;
const odg = (paragraphs: string): string =>
  part(
    'document-content',
    `<office:body><office:drawing><draw:page draw:name="P" draw:master-page-name="M"><draw:frame ${BOX}><draw:text-box>${paragraphs}</draw:text-box></draw:frame></draw:page></office:drawing></office:body>`,
  );
async function read(paragraphs: string): Promise<{ folio: Folio; told: string[] }> {
  const red = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#cc0000' } })
    .png()
    .toBuffer();
  const { folio, record, done } = await readBytes('test.odg', packed({ 'content.xml': odg(paragraphs), 'Pictures/red.png': red }));
  await done();
  expect(incoherences(folio)).toEqual([]);
  return { folio, told: record.notTaken.map((n) => n.what) };
}
const storyOf = (folio: Folio) => Object.values(folio.stories)[0]!;
const contentsOf = (folio: Folio) => storyOf(folio).order.map((id) => (storyOf(folio).blocks[id] as Paragraph).content);

describe('pictures in the line of a text (part 3, 10.4.2 and 19.771 text:anchor-type)', () => {
  test('are items of the text, where they stand among its words', async () => {
    const { folio, told } = await read(`<text:p>Look for the ${picture('draw:name="Lamp"')} lamp.</text:p>`);
    const [item] = Object.values(storyOf(folio).items);
    expect(item).toMatchObject({
      kind: 'picture',
      name: 'Lamp',
      alt: 'A red lamp.',
      size: { width: 36, height: 24 },
      transform: [1, 0, 0, 1, 0, 0],
    });
    expect(contentsOf(folio)).toEqual([
      [
        { type: 'span', text: 'Look for the ' },
        { type: 'anchor', id: expect.any(String), item: item!.id, place: 'inline' },
        { type: 'span', text: ' lamp.' },
      ],
    ]);
    expect(told).toEqual([]);
    // It is set on the baseline of its line, right behind the words before it.
    const composition = new Composer(await fontsOf(folio)).compose(folio);
    const [spread] = Object.values(folio.spreads);
    const placed = Object.values(composedSpread(folio, composition, spread!).items).find((i) => i.kind === 'picture')!;
    const [line] = [...composition.frames.values()][0]!.lines;
    const frame = Object.values(spread!.items).find((i) => i.kind === 'textFrame')!;
    expect(placed.transform[4]).toBeCloseTo(frame.transform[4] + line!.x + line!.runs[0]!.x + line!.runs[0]!.width, 2);
    expect(placed.transform[5]).toBeCloseTo(frame.transform[5] + line!.baseline - 24, 2);
  });
  test('also in spans, links, entries of lists and cells of tables, each by itself', async () => {
    const { folio, told } = await read(
      `<text:p><text:span>${picture()}</text:span> one</text:p><text:list><text:list-item><text:p>two ${picture()}</text:p></text:list-item></text:list>` +
        `<text:p><draw:a xlink:href="https://marrowby.example/">${picture()}</draw:a></text:p>`,
    );
    expect(contentsOf(folio).map((c) => c.filter((n) => n.type === 'anchor').length)).toEqual([1, 1, 1]);
    const items = Object.values(storyOf(folio).items);
    expect(new Set(items.map((i) => i.id)).size).toBe(3);
    expect(Object.values(items[2]!.cues)).toHaveLength(1);
    expect(told).toEqual([]);
  });
  test('are known again in a newer version: what was said of them stays, also where others come before them', async () => {
    const line = `<text:p>Look for the ${picture()} lamp by the gate.</text:p>`;
    const was = (await read(line)).folio;
    const [item] = Object.keys(storyOf(was).items);
    const here = produce(was, (d) => void (storyOf(d).items[item!]!.alt = 'A lamp with red glass.'));
    const update = async (paragraphs: string) =>
      newerVersion({ was, here, there: (await read(paragraphs)).folio, chosen: new Map(), keep: new Set() }).folio;
    expect(await update(line)).toEqual(here);
    const more = await update(`<text:p>Come up ${picture()} here, and then:</text:p>${line}`);
    expect(incoherences(more)).toEqual([]);
    const { items } = storyOf(more);
    expect(Object.keys(items)).toHaveLength(2);
    expect(items[item!]!.alt).toBe('A lamp with red glass.');
    const holder = contentsOf(more)[1]!;
    expect(holder.find((n) => n.type === 'anchor')).toMatchObject({ item });
  });
  test('one without a file is left out and told; a drawn shape and a box of text too', async () => {
    const { folio, told } = await read(
      `<text:p>a${picture('', 'gone.png')}b</text:p><text:p>c<draw:rect ${BOX}/>d<draw:frame ${BOX}><draw:text-box><text:p>x</text:p></draw:text-box></draw:frame>e</text:p>`,
    );
    expect(storyOf(folio).items).toEqual({});
    expect(contentsOf(folio).map((c) => c.map((n) => (n.type === 'span' ? n.text : n.type)).join('|'))).toEqual(['a|b', 'cde']);
    expect(told).toContain('Picture in a line');
    expect(told).toContain('Object inside a text');
  });
  test('one that is tied to its paragraph stands in its line, and that is told', async () => {
    const { folio, told } = await read(`<text:p>Here ${picture().replace('as-char', 'paragraph')}</text:p>`);
    expect(Object.values(storyOf(folio).items)).toHaveLength(1);
    expect(told).toEqual(['Picture beside a text']);
  });
});
