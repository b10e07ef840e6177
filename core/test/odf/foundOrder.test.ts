import { describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { pagesOf, paragraphsOf, storyOfFrame } from '../../src/folio/traverse.ts';
import { readText } from '../../src/index.ts';
import { pathOf } from '../../src/structure/readingOrder.ts';
import { readBytes } from './support/flatFile.ts';
import { foundFiles } from './support/foundFiles.ts';

const found = await foundFiles();
/** Without Debian's packages these are skipped, and counted as skipped. */
const withFiles = found.length ? describe : describe.skip;

/** Stands at the foot of every page of one of them, as text of the page itself. */
const FOOT = 'OpenStreetMap on Android mapsforge.org';

/** By hand, from looking at the pages: how each thing on a page begins that is read one after another. */
const BY_HAND: [file: string, page: number, order: string[]][] = [
  ['Introduction_of_py7zr.odp', 2, ['Pure Python 7zip', '7-zip support on Pure python']],
  ['Introduction_of_py7zr.odp', 3, ['Usage', '$ pip install py7zr', 'import py7zr']],
  ['Introduction_of_py7zr.odp', 7, ['Popular archiving formats', 'Name']],
  ['Introduction_of_py7zr.odp', 9, ['Copyright and license', 'py7zr is distributed']],
  ['2011-06-29 c-base.odp', 2, ['Agenda', 'Quick introduction of the', FOOT]],
  ['2011-06-29 c-base.odp', 3, ['About mapsforge', 'The mapsforge project', '[picture]', FOOT]],
  ['2011-06-29 c-base.odp', 5, ['OpenStreetMap on Android', 'The OpenStreetMap (OSM) project', '[picture]', FOOT]],
  ['2011-06-29 c-base.odp', 7, ['Challenges of mobile map rendering', 'Rendering a map is difficult', FOOT]],
];

withFiles('the path on pages by other people, worked out from where things stand', () => {
  test.each(BY_HAND)('%s, page %i', async (name, number, order) => {
    const read = await readBytes(name, found.find((f) => f.name === name)!.bytes);
    // Without the order that the file itself names.
    const folio = produce(read.folio, (d) => void (d.head.structure.strands = []));
    await read.done();
    const { spread } = pagesOf(folio)[number - 1]!;
    const said = pathOf(folio, spread).flatMap((item) => {
      const story = folio.stories[storyOfFrame(folio).get(item.id) ?? ''];
      if (item.kind === 'picture') return ['[picture]'];
      const text = story ? [...paragraphsOf(story)].map((p) => readText(p).replace(/\s+/g, ' ').trim()).find(Boolean) : undefined;
      return text === undefined ? [] : [text];
    });
    expect(said.map((t, i) => (order[i] !== undefined && t.startsWith(order[i]) ? order[i] : t))).toEqual(order);
  });
});
