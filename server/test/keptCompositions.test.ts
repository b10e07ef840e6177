import { describe, expect, jest, test } from '@jest/globals';
import type { Folio } from '@elastic-folio/core';
import { loadFonts } from '@elastic-folio/core/compose';
import { shippedFontSource } from '@elastic-folio/core/node';
import { sample } from '../../core/test/support/samples.ts';
import { KeptCompositions, settingKey } from '../src/conversion/keptCompositions.ts';

const poster = async (): Promise<Folio> => (await sample('open-dome-night')).folio;
const fontsOf = async (folio: Folio) => loadFonts(folio.head, [await shippedFontSource()]);

describe('compositions that a thread keeps', () => {
  test('outputs of one document share its typefaces and how it is set; another text is set anew', async () => {
    const folio = await poster();
    const load = jest.fn(() => fontsOf(folio));
    const kept = new KeptCompositions();
    const first = await kept.of(settingKey(folio, []), load);
    const composition = first.compose(folio);
    const copy = structuredClone(folio);
    const again = await kept.of(settingKey(copy, []), load);
    expect(again.compose(copy)).toBe(composition);
    expect(again.fonts).toBe(first.fonts);
    expect(load).toHaveBeenCalledTimes(1);
    const other = { ...folio, head: { ...folio.head, metadata: { ...folio.head.metadata, title: 'Another' } } };
    expect((await kept.of(settingKey(other, []), load)).compose(other)).not.toBe(composition);
  });

  test('recipes and translations are none of what a document is set from; its text and its files are', async () => {
    const folio = await poster();
    const key = settingKey(folio, [['font', 'a']]);
    expect(settingKey({ ...folio, recipes: {}, editions: {} }, [['font', 'a']])).toBe(key);
    expect(settingKey(folio, [['font', 'b']])).not.toBe(key);
    const worded = structuredClone(folio);
    const block = Object.values(Object.values(worded.stories)[0]!.blocks).find((b) => b.kind !== 'table');
    const span = block && 'content' in block ? block.content.find((n) => n.type === 'span') : undefined;
    if (span?.type === 'span') span.text += '!';
    expect(settingKey(worded, [['font', 'a']])).not.toBe(key);
  });

  test('no more documents are kept than may be, however short', async () => {
    const folio = await poster();
    const kept = new KeptCompositions(800, 2);
    const compositionOf = async (key: string) => (await kept.of(key, () => fontsOf(folio))).compose(folio);
    const [a, b] = [await compositionOf('a'), await compositionOf('b')];
    expect(await compositionOf('a')).toBe(a);
    await compositionOf('c');
    expect(await compositionOf('a')).toBe(a);
    expect(await compositionOf('b')).not.toBe(b);
  });

  test('documents in the same fonts share their faces, and a face whose bytes nobody vouches for is its own', async () => {
    const folio = await poster();
    const [one, other] = [await fontsOf(folio), await fontsOf(folio)];
    expect(one.faces.length).toBeGreaterThan(0);
    expect(other.faces).toEqual(one.faces);
    for (const [i, face] of one.faces.entries()) expect(other.faces[i]).toBe(face);
    const { origin, list, bytes } = await shippedFontSource();
    const apart = await loadFonts(folio.head, [{ origin, list, bytes }]);
    expect(apart.faces[0]).not.toBe(one.faces[0]);
  });

  test('no more pages are kept than there is room for: the oldest goes first, and one that is too long after its turn', async () => {
    const folio = await poster();
    const [a, b] = [folio, structuredClone(folio)];
    const load = jest.fn(() => fontsOf(folio));
    const kept = new KeptCompositions(1);
    const composition = (await kept.of('a', load)).compose(a);
    expect((await kept.of('a', load)).compose(a)).toBe(composition);
    (await kept.of('b', load)).compose(b);
    expect((await kept.of('a', load)).compose(a)).not.toBe(composition);
    expect(load).toHaveBeenCalledTimes(3);
    const none = new KeptCompositions(0);
    const long = (await none.of('a', load)).compose(a);
    none.settle('a');
    expect((await none.of('a', load)).compose(a)).not.toBe(long);
  });
});
