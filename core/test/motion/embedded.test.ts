import { describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { Folio, Item } from '../../src/index.ts';
import { selfContained } from '../../src/write/html/selfContained.ts';
import { asSample, bytesOf, fontsOf, make, sample } from '../support/samples.ts';
import { tinyFolio } from '../support/tinyFolio.ts';
import { zipped } from '../support/zipped.ts';

const file = (mediaType: string, text: string) => ({ mediaType, bytes: new TextEncoder().encode(text) });
const uri = (mediaType: string, text: string): string => `data:${mediaType};base64,${Buffer.from(text).toString('base64')}`;

describe('a page with all that it loads inside it', () => {
  const files = new Map([
    [
      'a/index.html',
      file(
        'text/html',
        '<!doctype html><link rel="stylesheet" href="../b/look.css"><img src="dot.png" loading="lazy"><img src="https://elsewhere.example/x.png"><script src="turn.js"></script><a href="more.html">more</a>',
      ),
    ],
    ['a/dot.png', file('image/png', 'dot')],
    ['a/turn.js', file('text/javascript', 'turn()')],
    ['b/look.css', file('text/css', '@import "base.css";p{background:url(../a/dot.png)}q::before{content:"</style>"}')],
    ['b/base.css', file('text/css', 'i{color:red}')],
  ]);
  const page = selfContained(files, 'a/index.html')!;

  test('has its sheets, those that they name, pictures and scripts', () => {
    expect(page).toContain(`<img src="${uri('image/png', 'dot')}">`);
    expect(page).toContain(`<script src="${uri('text/javascript', 'turn()')}"></script>`);
    expect(page).toContain(`background:url(${uri('image/png', 'dot')})`);
    expect(page).toContain('i{color:red}');
    expect(page).not.toContain('<link');
  });

  test('leaves alone what lies outside, and where it leads; a sheet cannot end its element', () => {
    expect(page).toContain('src="https://elsewhere.example/x.png"');
    expect(page).toContain('href="more.html"');
    expect(page.match(/<\/style>/g)).toHaveLength(1);
  });

  test('of a page that is not there is none', () => expect(selfContained(files, 'index.html')).toBeNull());
});

const packed = (files: Record<string, string>): Uint8Array =>
  zipped(new Map(Object.entries(files).map(([path, text]) => [path, new TextEncoder().encode(text)])));

/** A page that shows something of the web. */
const showing = (source: object, more: object = {}): Folio =>
  Folio.parse(
    produce(tinyFolio(['Before'], { height: 40 }), (d) => {
      const s = d.spreads['s']!;
      s.items['e'] = Item.parse({
        kind: 'embed',
        id: 'e',
        layer: 'l',
        transform: [1, 0, 0, 1, 20, 100],
        size: { width: 120, height: 90 },
        source,
        alt: 'A strip',
        ...more,
      });
      s.order.push('e');
      d.head.media['folder'] = {
        id: 'folder',
        name: 'folder.zip',
        file: 'media/folder.zip',
        mediaType: 'application/zip',
        sha256: 'a'.repeat(64),
        bytes: 9,
      };
    }),
  );
const entry = (ledger: Awaited<ReturnType<typeof make>>['ledger']): string => {
  const e = ledger.find((x) => x.subject.id === 'e' && x.subject.aspect === 'embed')!;
  return `${e.outcome} ${e.code} ${e.check}`;
};
const frameIn = async (made: Awaited<ReturnType<typeof make>>): Promise<string> =>
  /<iframe[^>]*>/.exec(new TextDecoder().decode(await made.read('index.html')))?.[0] ?? '';

describe('a folder of files inside a page', () => {
  const zip = packed({ 'deep/index.html': '<p>deep', 'start.html': '<script>parent.document</script><p>Here' });
  const folio = showing({ from: 'bundle', media: 'folder', entry: 'start.html' });

  test('is one file in a frame without an origin, which cannot reach the page around it', async () => {
    const made = await make(asSample(folio), 'html', {}, folio, { media: async () => zip });
    const [path] = made.paths.filter((p) => p.startsWith('embeds/'));
    expect(new TextDecoder().decode(await made.read(path!))).toContain('<p>Here');
    const frame = await frameIn(made);
    expect(frame).toContain(`src="${path}"`);
    expect(frame).toContain('title="A strip"');
    expect(/sandbox="([^"]*)"/.exec(frame)![1]!.split(' ')).toEqual(['allow-scripts', 'allow-forms', 'allow-popups']);
    expect(entry(made.ledger)).toBe('kept kept confirmed');
  });

  test('begins with the page that lies highest where the one that is named is not there', async () => {
    const other = showing({ from: 'bundle', media: 'folder', entry: 'gone.html' });
    const made = await make(asSample(other), 'html', {}, other, { media: async () => zip });
    expect(new TextDecoder().decode(await made.read(made.paths.find((p) => p.startsWith('embeds/'))!))).toContain('<p>Here');
  });

  test('that would lie outside the result is refused in words', async () => {
    const hostile = packed({ '../../out.html': '<p>out', 'index.html': '<p>' });
    await expect(make(asSample(folio), 'html', {}, folio, { media: async () => hostile })).rejects.toThrow('which would lie outside it');
  });

  test('is left out where an output cannot show it, and no still picture stands for it', async () => {
    const made = await make(asSample(folio), 'pdf', {}, folio, { media: async () => zip });
    expect(entry(made.ledger)).toMatch(/^dropped embed.none/);
  });
});

describe('another document’s web edition inside a page', () => {
  const folio = showing({ from: 'folio', folio: 'five-worlds' });

  test('is one file of its own, made to fit, its pages in a row', async () => {
    const worlds = await sample('five-worlds');
    const others = new Map([
      ['five-worlds', { folio: worlds.folio, fonts: () => fontsOf(worlds.folio), media: (id: string) => bytesOf(worlds, id) }],
    ]);
    const made = await make(asSample(folio), 'html', {}, folio, { others });
    const page = new TextDecoder().decode(await made.read('embeds/five-worlds.html'));
    expect(page.match(/class="page"/g)).toHaveLength(5);
    expect(page).not.toMatch(/(src|href)="(?!data:|#)[^"]*\.(css|js|jpg|png|woff2)"/);
    expect(page).toContain('scroll-snap-type:x mandatory');
    // A panel is 960 × 540 pt, 1280 × 720 px; the box 160 × 120 px: an eighth, in the middle.
    expect(await frameIn(made)).toMatch(/left:0px;top:15px;.*width:1280px;height:720px;transform:scale\(0.125\)/);
    expect([entry(made.ledger), made.valid]).toEqual(['kept kept confirmed', true]);
  });

  test('that is not at hand is told to be missing', async () => {
    const made = await make(asSample(folio), 'html', {}, folio);
    expect([entry(made.ledger), made.valid]).toEqual(['dropped embed.missing uncheckable', true]);
  });
});

test('an address leads on from its still picture where it cannot be shown', async () => {
  const almanac = await sample('marrowby-almanac');
  const folio = produce(showing({ from: 'address', href: 'https://marrowby.example/sky' }, { poster: 'dusk' }), (d) => {
    d.head.media['dusk'] = almanac.folio.head.media['dusk']!;
  });
  const more = { media: () => bytesOf(almanac, 'dusk') };
  for (const output of ['pdf', 'epub', 'epub-fixed']) {
    const made = await make(asSample(folio), output, {}, folio, more);
    expect([output, entry(made.ledger).replace(/ \w+$/, ''), made.valid]).toEqual([output, 'adapted embed.link', true]);
  }
  const bad = showing({ from: 'address', href: 'javascript:alert(1)' });
  expect(entry((await make(asSample(bad), 'html', {}, bad)).ledger)).toMatch(/^dropped embed.refused/);
});
