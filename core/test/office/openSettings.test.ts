import { beforeAll, describe, expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { produce } from 'immer';
import type { Sample } from '@elastic-folio/demo';
import { faultsOfOdf } from '../support/odfRules.ts';
import { against, asSample, make, sample } from '../support/samples.ts';
import type { Made } from '../support/samples.ts';
import { grid, tableFolio } from '../support/tableFolio.ts';
import { tinyFolio } from '../support/tinyFolio.ts';

/** What recipes of OpenDocument ask for of styles, typefaces and tables (part 3; numbers of sections by memory). */
const partOf = (bytes: Uint8Array, path = 'content.xml'): string => new TextDecoder().decode(unzipSync(bytes)[path]);
const fileOf = (made: Made): Promise<Uint8Array> => made.read(made.paths.find((p) => p.startsWith('document.'))!);

let almanac: Sample;
beforeAll(async () => {
  almanac = await sample('marrowby-almanac');
});

test.each([
  ['odt', { styles: 'none', tables: 'exact', replacements: 'Work Sans = Arial' }],
  ['odt', { way: 'laid', styles: 'none', tables: 'exact', replacements: 'Work Sans = Arial\nSource Serif 4 = Georgia' }],
  ['odp', { replacements: 'Work Sans = Arial' }],
] as const)('the Almanac as %s, %j', async (output, settings) => {
  const made = await make(almanac, output, { resolution: 36, ...settings });
  expect(faultsOfOdf(await fileOf(made))).toEqual([]);
  expect(against(made)).toEqual([]);
  expect(made.ledger.some((e) => e.code === 'font.replaced')).toBe(true);
  const bytes = await fileOf(made);
  const all = partOf(bytes) + partOf(bytes, 'styles.xml');
  expect(all).toContain('fo:font-family="Arial"');
  expect(all).not.toContain('fo:font-family="Work Sans"');
});

describe('all by hand', () => {
  const folio = tinyFolio(['Words', [{ type: 'span', text: 'more', overrides: { fontStyle: 'italic' } }] as never]);
  test('no style of the document is one of the file, and the look is the same', async () => {
    const made = await make(asSample(folio), 'odt', { styles: 'none' });
    const bytes = await fileOf(made);
    const names = Object.keys(folio.head.paragraphStyles);
    expect(names.length).toBeGreaterThan(0);
    for (const name of names) {
      expect(partOf(bytes, 'styles.xml')).not.toContain(`style:name="${name}"`);
      expect(partOf(bytes)).not.toContain(`style-name="${name}"`);
    }
    expect(partOf(bytes)).toMatch(/<style:style style:name="P\d+" style:family="paragraph">/);
    expect(against(made)).toEqual([]);
  });
});

describe('rows of tables', () => {
  const folio = tableFolio(Array(2).fill({ width: 60, unit: 'pt' }), [{ height: 20 }, { height: 30 }], grid(2, 2));
  const rows = async (settings: object, alter = folio): Promise<string> =>
    partOf(await fileOf(await make(asSample(alter), 'odt', { ...settings })));
  test('are as high at least as they are, and grow (20.310)', async () => {
    const xml = await rows({});
    expect(xml).toContain('style:min-row-height="20pt"');
    expect(xml).not.toContain('style:row-height=');
  });
  test('are exactly so high, where the recipe says so (20.346)', async () => {
    const xml = await rows({ tables: 'exact' });
    expect(xml).toContain('style:row-height="20pt" style:use-optimal-row-height="false"');
    expect(xml).toContain('style:row-height="30pt"');
    expect(xml).not.toContain('style:min-row-height');
  });
  test('one whose height is exact in the layout is so here', async () => {
    const exact = produce(folio, (d) => {
      for (const story of Object.values(d.stories))
        for (const b of Object.values(story.blocks)) if (b.kind === 'table') b.rows[1]!.exact = true;
    });
    const xml = await rows({}, exact);
    expect(xml).toContain('style:min-row-height="20pt"');
    expect(xml).toContain('style:row-height="30pt"');
  });
});
