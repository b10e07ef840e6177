import { beforeAll, expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { produce } from 'immer';
import type { Folio, TextFrame } from '../../src/index.ts';
import { faultsOfOdf } from '../support/odfRules.ts';
import { asSample, make } from '../support/samples.ts';
import { grid, tableFolio } from '../support/tableFolio.ts';
import { tinyFolio } from '../support/tinyFolio.ts';

const content = async (folio: Folio, output: string, settings: object = {}): Promise<string> => {
  const bytes = await (await make(asSample(folio), output, { ...settings })).read(`document.${output}`);
  expect(faultsOfOdf(bytes)).toEqual([]);
  return new TextDecoder().decode(unzipSync(bytes)['content.xml']);
};

let folio: Folio;
beforeAll(() => {
  // Three columns with 18 points between them; the first paragraph goes over all of them.
  folio = produce(tinyFolio(['A heading', 'One two three four five six seven.', 'Eight nine ten.']), (d) => {
    const frame = Object.values(d.spreads)
      .flatMap((s) => Object.values(s.items))
      .find((i) => i.kind === 'textFrame') as TextFrame;
    Object.assign(frame, { columns: 3, gutter: 18 });
    const first = d.stories['t']!.blocks['p1']!;
    if (first.kind === 'paragraph') first.overrides = { ...first.overrides, spanColumns: true };
  });
});

test('text that the layout has in columns stands in a section of as many; what goes over all of them does not', async () => {
  const xml = await content(folio, 'odt');
  expect(xml).toMatch(/<style:columns fo:column-count="3" fo:column-gap="18pt"\/>/);
  expect(xml).toMatch(/A heading.*<text:section text:style-name="S\d+" text:name="Columns 2">.*One two.*Eight nine.*<\/text:section>/s);
  expect(xml.match(/<text:section/g)).toHaveLength(1);
});

test('all of it is in one column, where the recipe says so', async () => {
  expect(await content(folio, 'odt', { columns: 'one' })).not.toContain('<text:section');
});

test.each(['odt', 'odp'])('columns of tables that share the room are told by their widths, which fill it (%s)', async (output) => {
  const table = tableFolio(
    [
      { width: 1, unit: 'share' },
      { width: 2, unit: 'share' },
      { width: 40, unit: 'pt' },
    ],
    [{ height: 20 }],
    grid(1, 3),
  );
  const xml = await content(table, output);
  const widths = [...xml.matchAll(/style:column-width="([\d.]+)pt"/g)].map((m) => Number(m[1]));
  expect(widths).toHaveLength(3);
  expect(widths[2]).toBe(40);
  expect(widths[1]! / widths[0]!).toBeCloseTo(2, 2);
  expect(xml.match(/<table:table-column table:style-name=/g)).toHaveLength(3);
});

test('on slides a picture in a line lies over a space as wide as itself', async () => {
  const inLine = produce(tinyFolio([['A ', ' word'].map((text) => ({ type: 'span', text })) as never]), (d) => {
    const story = d.stories['t']!;
    const [paragraph] = Object.values(story.blocks);
    if (paragraph?.kind !== 'paragraph') return;
    paragraph.content.splice(1, 0, { type: 'anchor', id: 'a', item: 'star', place: 'inline' } as never);
    story.items['star'] = {
      ...(Object.values(d.spreads)[0]!.items[Object.keys(Object.values(d.spreads)[0]!.items)[0]!] as TextFrame),
      id: 'star',
      size: { width: 40, height: 10 },
    };
  });
  const xml = await content(inLine, 'odp');
  const [, name] = /<text:span text:style-name="(T\d+)">\u00A0<\/text:span>/.exec(xml)!;
  const spacing = Number(new RegExp(`style:name="${name}"[^>]*><style:text-properties fo:letter-spacing="([\\d.]+)pt"`).exec(xml)![1]);
  // A space is about a quarter of an em: of 40 points the rest is spacing.
  expect(spacing).toBeGreaterThan(34);
  expect(spacing).toBeLessThan(40);
});
