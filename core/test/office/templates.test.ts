import { beforeAll, describe, expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import mammoth from 'mammoth';
import type { Sample } from '@elastic-folio/demo';
import type { Folio } from '../../src/index.ts';
import { subjectKey } from '../../src/ledger/index.ts';
import { promptedFolio } from '../../src/structure/prompts.ts';
import { corrections } from '../support/changedDocx.ts';
import { faultsOfOdf } from '../support/odfRules.ts';
import { against, asSample, make, SAMPLES, sample } from '../support/samples.ts';
import { faultsOfPptx } from '../support/slideSchema.ts';
import { grid, tableFolio } from '../support/tableFolio.ts';
import { tinyFolio } from '../support/tinyFolio.ts';
import { faultsOfDocx } from '../support/wordSchema.ts';
import { ofToday } from '../support/ofToday.ts';

const TEMPLATES: [string, Record<string, unknown>, string, (bytes: Uint8Array) => string[]][] = [
  ['docx', { way: 'running' }, 'document.dotx', faultsOfDocx],
  ['docx', { way: 'laid' }, 'document.dotx', faultsOfDocx],
  ['pptx', {}, 'document.potx', faultsOfPptx],
  ['odt', {}, 'document.ott', faultsOfOdf],
  ['odp', {}, 'document.otp', faultsOfOdf],
];

describe.each(TEMPLATES)('a template as %s %j', (output, way, file, faultsOf) => {
  test.each(ofToday(SAMPLES, 1))('of %s keeps the rules of the standard, and is read back as its ledger says', async (id) => {
    const made = await make(await sample(id), output, { ...way, template: true, resolution: 36 });
    expect(await faultsOf(await made.read(file))).toEqual([]);
    expect(against(made)).toEqual([]);
  });

  test('holds prompts and none of the document’s words; its own words, where it is asked for them', async () => {
    const folio = named(tinyFolio(['The dome turns slowly.', 'And again it turns.']));
    const read = async (settings: object): Promise<string> => {
      const bytes = await (await make(asSample(folio), output, { ...way, template: true, ...settings })).read(file);
      const text = ([path, part]: [string, Uint8Array]): string => (path.endsWith('.xml') ? new TextDecoder().decode(part) : '');
      return Object.entries(unzipSync(bytes)).map(text).join('');
    };
    const prompts = await read({});
    expect(prompts).not.toMatch(/dome turns|again/);
    expect(prompts.match(/Running text/g)?.length).toBeGreaterThanOrEqual(1);
    expect(await read({ words: 'document' })).toContain('The dome turns slowly.');
  });

  test('says in its ledger that words are left out, and that looks are kept', async () => {
    const made = await make(asSample(tinyFolio(['One.', 'Two.'])), output, { ...way, template: true });
    const code = (key: string): string | undefined => made.ledger.find((e) => subjectKey(e.subject) === key)?.code;
    expect([code('paragraph:p1:text'), code('paragraph:p2:text'), code('paragraph:p2:look')]).toEqual([
      'text.prompt',
      'text.prompt',
      'text.prompt',
    ]);
    expect(code('paragraph:p1:look')).not.toBe('text.prompt');
  });

  test('is nothing that comes back', async () => {
    const folio = tinyFolio(['One.']);
    const bytes = await (await make(asSample(folio), output, { ...way, template: true })).read(file);
    await expect(corrections(folio, bytes)).rejects.toMatchObject({ code: 'corrections.unknown' });
  });
});

/** The same with a name for its style. */
function named(folio: Folio): Folio {
  const [style] = Object.values(folio.head.paragraphStyles);
  return {
    ...folio,
    head: { ...folio.head, paragraphStyles: { ...folio.head.paragraphStyles, [style!.id]: { ...style!, name: 'Running text' } } },
  };
}

describe('a document of prompts', () => {
  let almanac: Sample;
  beforeAll(async () => {
    almanac = await sample('marrowby-almanac');
  });
  test('has one for each stretch of paragraphs of a style; what master pages say stays', () => {
    const { folio, prompts, stories } = promptedFolio(almanac.folio);
    for (const id of stories) {
      const { order, blocks } = folio.stories[id]!;
      order.forEach((block, i) => {
        const [here, before] = [blocks[block]!, i > 0 ? blocks[order[i - 1]!] : undefined];
        if (here.kind === 'paragraph' && before?.kind === 'paragraph') expect(here.style).not.toBe(before.style);
      });
    }
    const repeated = Object.entries(almanac.folio.stories).filter(([, s]) =>
      s.frames.some((f) => almanac.folio.head.masterPages[f.spread]),
    );
    expect(repeated.length).toBeGreaterThan(0);
    for (const [id, story] of repeated) expect(folio.stories[id]).toBe(story);
    expect(prompts.size).toBeGreaterThan(20);
    // Frames, pictures and styles are not touched.
    expect([folio.head, folio.spreads]).toEqual([almanac.folio.head, almanac.folio.spreads]);
  });

  test('keeps the heads of tables, and says in each cell what belongs there', () => {
    const folio = tableFolio(Array(2).fill({ width: 60, unit: 'pt' }), Array(3).fill({ height: 20 }), grid(3, 2), { headerRows: 1 });
    const { folio: made, prompts } = promptedFolio(folio);
    const text = (id: string): string => {
      const block = made.stories['t']!.blocks[id];
      return block?.kind === 'paragraph' && block.content[0]?.type === 'span' ? block.content[0].text : '';
    };
    expect(['q0', 'q1'].map(text)).toEqual(['r0c0', 'r0c1']);
    expect(['q0', 'q1', 'q2', 'q5'].map((q) => prompts.has(q))).toEqual([false, false, true, true]);
  });
});

test('in a text document a prompt is a place of its own that goes with the first letter (ISO/IEC 29500-1, 17.5.2)', async () => {
  const bytes = await (await make(asSample(named(tinyFolio(['One.']))), 'docx', { template: true })).read('document.dotx');
  const xml = new TextDecoder().decode(unzipSync(bytes)['word/document.xml']);
  expect(xml).toMatch(
    /<w:sdt><w:sdtPr><w:temporary\/><w:showingPlcHdr\/><w:text\/><\/w:sdtPr><w:sdtContent>.*?Running text.*?<\/w:sdtContent><\/w:sdt>/s,
  );
  // A reader that had no part in making it finds the words of the prompt.
  expect((await mammoth.extractRawText({ buffer: Buffer.from(bytes) })).value).toContain('Running text');
});

test('on slides the places of heading and text are empty, and say what belongs there on their layouts', async () => {
  const handbook = await sample('observers-handbook');
  const made = await make(handbook, 'pptx', { template: true, resolution: 36 });
  const files = unzipSync(await made.read('document.potx'));
  const text = (path: string): string => new TextDecoder().decode(files[path]);
  const slides = Object.keys(files).filter((p) => /slides\/slide\d+\.xml$/.test(p));
  const places = slides.flatMap((p) =>
    [...text(p).matchAll(/<p:sp>(?:(?!<p:sp>).)*?<p:ph type="(?:title|body)".*?<\/p:sp>/gs)].map((m) => m[0]),
  );
  expect(places.length).toBeGreaterThan(20);
  for (const place of places) expect(place).not.toContain('<a:t>');
  const layouts = Object.keys(files).filter((p) => /slideLayout\d+\.xml$/.test(p));
  const said = layouts.flatMap((p) =>
    [...text(p).matchAll(/<p:ph type="(?:title|body)"(?:(?!<\/p:sp>).)*<a:t>([^<]+)</gs)].map((m) => m[1]),
  );
  // By the names of its styles.
  const names = Object.values(handbook.folio.head.paragraphStyles).map((p) => p.name);
  expect(said.length).toBeGreaterThan(1);
  for (const prompt of said) expect(names).toContain(prompt);
});
