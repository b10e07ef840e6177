import { beforeAll, describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { applyEdit, Folio, groupAround, runsOn } from '../src/index.ts';
import { pictureFindings } from '../src/check/pictureFindings.ts';
import { subjectKey } from '../src/ledger/index.ts';
import { sharpPictures } from '../src/ports/node.ts';
import type { Sample } from '@elastic-folio/demo';
import { plainHead } from './support/plainHead.ts';
import { PUBLICATIONS, asSample, make, readBack, sample, writeOnly } from './support/samples.ts';
import { ofToday } from './support/ofToday.ts';

/** A page with a group of two frames and a shape, one frame a caption, and a paragraph before and after it. */
function grouped(): Folio {
  const frame = (id: string, y: number, x = 20) => ({
    kind: 'textFrame',
    id,
    layer: 'l',
    transform: [1, 0, 0, 1, x, y],
    size: { width: 200, height: 40 },
  });
  const text = (id: string, frames: string[], style: string, words: string) => ({
    id,
    frames: frames.map((item) => ({ spread: 's', item })),
    order: [`${id}-p`],
    blocks: { [`${id}-p`]: { kind: 'paragraph', id: `${id}-p`, style, content: [{ type: 'span', text: words }] } },
  });
  const paragraphStyle = (id: string, element: string) => ({ id, name: id, role: { element, startsSection: false, leaveOut: false } });
  return Folio.parse({
    head: plainHead({
      paragraphStyles: { body: paragraphStyle('body', 'p'), caption: paragraphStyle('caption', 'figcaption') },
      storyOrder: ['before', 'label', 'caption', 'after'],
    }),
    spreads: {
      s: {
        id: 's',
        pages: [{ id: 'p', box: { x: 0, y: 0, width: 400, height: 600 } }],
        items: {
          f1: frame('f1', 20),
          label: frame('label', 110),
          frame: {
            kind: 'shape',
            id: 'frame',
            layer: 'l',
            transform: [1, 0, 0, 1, 20, 100],
            fill: { type: 'colour', colour: { space: 'rgb', r: 0.2, g: 0.6, b: 0.4 } },
            path: [['M', 0, 0], ['L', 200, 0], ['L', 200, 80], ['L', 0, 80], ['Z']],
          },
          caption: frame('caption', 190),
          g: { kind: 'group', id: 'g', layer: 'l', transform: [1, 0, 0, 1, 0, 0], members: ['frame', 'label', 'caption'] },
          f2: frame('f2', 300),
        },
        order: ['f1', 'g', 'f2'],
      },
    },
    stories: {
      before: text('before', ['f1'], 'body', 'Before the figure.'),
      label: text('label', ['label'], 'body', 'A word in the drawing.'),
      caption: text('caption', ['caption'], 'caption', 'What is to be seen.'),
      after: text('after', ['f2'], 'body', 'After the figure.'),
    },
  });
}
const chosen = (folio: Folio): Folio =>
  applyEdit(applyEdit(folio, { kind: 'item.figure', args: { item: 'g', figure: true } }).folio, {
    kind: 'item.alt',
    args: { spread: 's', item: 'g', alt: 'A green board with a word on it.' },
  }).folio;
const article = async (folio: Folio) => {
  const made = await make(asSample(folio), 'article', {});
  const html = new TextDecoder().decode(await made.read('index.html'));
  return { made, main: html.slice(html.indexOf('<main>')) };
};

describe('a group that a person made one figure', () => {
  test('is a picture in running text, where it stands, with its captions as texts', async () => {
    const { made, main } = await article(chosen(grouped()));
    expect(main.replace(/<[^>]+>/g, ' ')).not.toContain('A word in the drawing.');
    expect(main).toMatch(
      /Before the figure\.[\s\S]*<figure[^>]*><img src="pictures\/g-[0-9a-f]+\.svg" alt="A green board with a word on it\."[\s\S]*<figcaption[^>]*>What is to be seen\.[\s\S]*After the figure\./,
    );
    expect(made.ledger.filter((e) => e.check === 'contradicted')).toEqual([]);
    const said = Object.fromEntries(made.ledger.map((e) => [subjectKey(e.subject), e.code]));
    expect(said['paragraph:label-p:text']).toBe('figure.text');
    expect(said['item:frame:place']).toBe('figure.part');
    expect(said['item:g:alt']).toBe('kept');
    expect(said['paragraph:caption-p:text']).toBe('kept');
  });
  test('is drawn with its words and without its captions', async () => {
    const { made } = await article(chosen(grouped()));
    const path = made.paths.find((p) => p.endsWith('.svg'))!;
    const svg = new TextDecoder().decode(await made.read(path));
    // The board is as large as the group without its caption would be; letters are outlines.
    expect(svg).toContain('<use ');
    expect(svg).not.toContain('data-item');
    expect((await sharpPictures.info(await made.read(path))).width).toBeGreaterThan(100);
  });
  test('is not one before, and not where one of its texts goes on outside it', async () => {
    const plain = grouped();
    expect((await article(plain)).main).toContain('A word in the drawing.');
    const runs = produce(chosen(plain), (d) => void d.stories['label']!.frames.push({ spread: 's', item: 'f2' }));
    const spread = runs.spreads['s']!;
    expect(runsOn(runs, spread, groupAround(spread, 'label')!)).toBe(true);
    expect((await article(runs)).main).toContain('A word in the drawing.');
  });
  test('is pinned and put in order by any of its parts', async () => {
    const folio = produce(chosen(grouped()), (d) => {
      d.head.structure.strands = [
        {
          id: 'x',
          name: 'X',
          entries: [
            { spread: 's', item: 'frame' },
            { spread: 's', item: 'f1' },
          ],
        },
      ];
    });
    expect((await article(folio)).main).toMatch(/<figure[\s\S]*Before the figure\./);
    const pinned = produce(chosen(grouped()), (d) => {
      d.head.structure.pins['pin'] = { id: 'pin', item: 'label', paragraph: 'after-p', offset: 0, as: 'after' };
    });
    const { made, main } = await article(pinned);
    expect(main).toMatch(/After the figure\.[\s\S]*<figure/);
    expect(made.ledger.find((e) => e.subject.kind === 'pin')).toMatchObject({ outcome: 'kept', check: 'confirmed' });
  });
  test('asks for an alt text where it has none', () => {
    const silent = applyEdit(grouped(), { kind: 'item.figure', args: { item: 'g', figure: true } }).folio;
    const found = (f: Folio) => pictureFindings(f, () => 1).filter((x) => x.code === 'alt.missing' && x.subject === 'g').length;
    expect([found(grouped()), found(silent), found(chosen(grouped()))]).toEqual([0, 1, 0]);
  });
});

describe('groups of the Almanac as figures', () => {
  let almanac: Sample;
  let folio: Folio;
  beforeAll(async () => {
    almanac = await sample('marrowby-almanac');
    folio = produce(almanac.folio, (d) => {
      d.head.structure.figures = ['dial', 'moons'];
      for (const spread of Object.values(d.spreads))
        for (const id of ['dial', 'moons']) if (spread.items[id]) spread.items[id].alt = `What ${id} shows.`;
    });
  });
  test.each(
    ofToday(
      PUBLICATIONS.map((w) => w.id),
      3,
      (id) => id,
    ),
  )('%s is borne out by reading it back', async (output) => {
    const made = await make(almanac, output, { resolution: 36, cover: 'none' }, folio);
    expect(made.ledger.filter((e) => e.check === 'contradicted').map((e) => [subjectKey(e.subject), e.evidence])).toEqual([]);
  });
  test('one that is not there is missed', async () => {
    const files = await writeOnly(almanac, 'epub', { resolution: 36, cover: 'none' }, almanac.folio);
    const against = (await readBack({ ...almanac, folio }, 'epub', files, { resolution: 36, cover: 'none' })).filter((e) => !e.agrees);
    expect(against.map((e) => subjectKey(e.subject))).toContain('item:dial:alt');
  });
});
