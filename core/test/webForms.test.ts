import { beforeAll, describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { Folio } from '../src/index.ts';
import { keywordsOf } from '../src/write/html/keywords.ts';
import { purposes } from '../src/write/html/purposes.ts';
import { BAR_PARTS, HtmlSettings } from '../src/write/html/settings.ts';
import { asSample, make, sample } from './support/samples.ts';
import type { Made } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';
import { htmlOf, missingFiles, text, webFaults } from './support/webFaults.ts';

const FORMS = HtmlSettings.shape.form.unwrap().options;
/** What is read, in order: text of all pages, by their files' order and without what is only seen. */
const read = (html: string): string =>
  [...html.matchAll(/<(h[1-6]|p|li)(?: [^>]*)?>([\s\S]*?)<\/\1>/g)].map((m) => m[2]!.replace(/<[^>]+>/g, '').trim()).join('\n');

/** Two spreads of two pages, each page with a heading that begins a section. */
const twoSpreads = Folio.parse(
  produce(tinyFolio(['x']), (d) => {
    d.head.paragraphStyles['h'] = {
      ...structuredClone(tinyFolio(['x']).head.paragraphStyles['p']!),
      id: 'h',
      name: 'Head',
      role: { element: 'h1', startsSection: true, leaveOut: false },
    };
    d.head.spreadOrder = [] as unknown as [string];
    d.head.storyOrder = [];
    d.spreads = {};
    d.stories = {};
    for (const [n, titles] of [
      ['Über den Dom', 'Ōkina'],
      ['The dome', 'The dome'],
    ].entries()) {
      const id = `s${n}`;
      const frame = (k: number) => ({
        kind: 'textFrame',
        id: `f${n}${k}`,
        layer: 'l',
        transform: [1, 0, 0, 1, 10 + 300 * k, 10],
        size: { width: 200, height: 100 },
      });
      d.spreads[id] = {
        id,
        pages: [0, 1].map((k) => ({ id: `p${n}${k}`, box: { x: 300 * k, y: 0, width: 300, height: 400 } })),
        items: { [`f${n}0`]: frame(0), [`f${n}1`]: frame(1) },
        order: [`f${n}0`, `f${n}1`],
      } as never;
      d.head.spreadOrder.push(id);
      for (const [k, title] of titles.entries()) {
        const block = { kind: 'paragraph', id: `b${n}${k}`, style: 'h', content: [{ type: 'span', text: title }] };
        d.stories[`t${n}${k}`] = {
          id: `t${n}${k}`,
          blocks: { [block.id]: block },
          order: [block.id],
          frames: [{ spread: id, item: `f${n}${k}` }],
          links: {},
          items: {},
          aliases: {},
        } as never;
        d.head.storyOrder.push(`t${n}${k}`);
      }
    }
  }),
);

describe.each(FORMS)('the web edition as %s', (form) => {
  let made: Made;
  beforeAll(async () => {
    made = await make(
      asSample(twoSpreads),
      'html',
      {
        form,
        fit: 'page',
        bar: [...BAR_PARTS],
        progress: true,
        loading: 'One moment',
        measureAt: 'https://marrowby.example/collect',
        app: true,
        offline: 'all',
        address: 'https://marrowby.example/dome',
        shadow: true,
      },
      twoSpreads,
    );
  });

  test('is borne out by reading it back, with all text in it, in order', async () => {
    expect(made.ledger.filter((e) => e.check === 'contradicted')).toEqual([]);
    expect(made.valid).toBe(true);
    const files = await Promise.all(htmlOf(made).map((p) => text(made, p)));
    const first = (html: string): number => Number(/id="page-(\d+)"/.exec(html)![1]);
    const all = files.sort((a, b) => first(a) - first(b)).map((f) => read(/<main[\s\S]*<\/main>/.exec(f)![0]));
    expect(all.join('\n')).toBe('Über den Dom\nŌkina\nThe dome\nThe dome');
  });

  test('is HTML and CSS without a fault, as parse5 and css-tree read them; every file that it names is there', async () => {
    expect(await webFaults(made)).toEqual([]);
    expect(await missingFiles(made)).toEqual([]);
  });

  test('leads nowhere that is not there: every link of its own has its place', async () => {
    const pages = new Map(await Promise.all(htmlOf(made).map(async (p) => [p, await text(made, p)] as const)));
    let links = 0;
    for (const [path, html] of pages)
      for (const [, href] of html.matchAll(/<(?:a|link) [^>]*href="([^"]*)"/g)) {
        if (/^https:|\.(css|png|webmanifest)$/.test(href!)) continue;
        const [file, anchor] = href!.split('#');
        const target = pages.get(file || path);
        expect([href, target !== undefined, anchor === undefined || target!.includes(` id="${anchor}"`)]).toEqual([href, true, true]);
        links++;
      }
    expect(links).toBeGreaterThan(form === 'banner' ? -1 : 3);
  });

  test('says what it is to those who look for it', async () => {
    const html = await text(made, 'index.html');
    const data = JSON.parse(/<script type="application\/ld\+json">([\s\S]*?)<\/script>/.exec(html)![1]!) as Record<string, unknown>;
    // schema.org: a CreativeWork with its name, language and address.
    expect(data).toMatchObject({
      '@context': 'https://schema.org',
      '@type': 'CreativeWork',
      name: 'Tiny',
      inLanguage: 'en',
      url: 'https://marrowby.example/dome/',
    });
    expect(html).toContain('<link rel="canonical" href="https://marrowby.example/dome/">');
    const card = /property="og:image" content="https:\/\/marrowby\.example\/dome\/([^"]+)"/.exec(html)![1]!;
    expect(made.paths).toContain(card);
  });
});

describe('how an edition is divided into files', () => {
  const names = async (form: string, more: object = {}): Promise<string[]> =>
    htmlOf(await make(asSample(twoSpreads), 'html', { form, ...more }, twoSpreads)).sort();

  test('one for each page or section, called by its heading; a name that is taken is counted on', async () => {
    expect(await names('site')).toEqual(['index.html', 'okina.html', 'the-dome-2.html', 'the-dome.html']);
    expect(await names('sections')).toEqual(['index.html', 'okina.html', 'the-dome-2.html', 'the-dome.html']);
    expect(await names('site', { pages: '2-3' })).toEqual(['index.html', 'the-dome.html']);
    expect(await names('spreads')).toEqual(['index.html']);
  });

  test('pages of one spread are seen at once where leaves turn, and told of their room', async () => {
    const html = await text(await make(asSample(twoSpreads), 'html', { form: 'spreads' }, twoSpreads), 'index.html');
    const slots = [...html.matchAll(/<div class="slot" style="([^"]*)">/g)].map((m) => m[1]);
    expect(slots).toEqual(Array(2).fill('--w:800px;--h:533.3333px;--w1:400px'));
  });

  test('a site with an address lists its files for search programs, or asks them to pass it over', async () => {
    const site = await make(asSample(twoSpreads), 'html', { form: 'site', address: 'https://marrowby.example/a/' }, twoSpreads);
    const listed = [...(await text(site, 'sitemap.xml')).matchAll(/<loc>(.*?)<\/loc>/g)].map((m) => m[1]);
    expect(listed).toEqual(['', 'okina.html', 'the-dome.html', 'the-dome-2.html'].map((f) => `https://marrowby.example/a/${f}`));
    const hidden = await make(
      asSample(twoSpreads),
      'html',
      { form: 'site', address: 'https://marrowby.example/a/', listed: false },
      twoSpreads,
    );
    expect(await text(hidden, 'robots.txt')).toContain('Disallow: /');
    expect(await text(hidden, 'index.html')).toContain('<meta name="robots" content="noindex">');
  });
});

test('settings that mean nothing, or are no address, are refused; own code comes last', async () => {
  expect(HtmlSettings.safeParse({ address: 'javascript:alert(1)' }).success).toBe(false);
  expect(HtmlSettings.safeParse({ address: 'https://a.example/"><script>' }).success).toBe(false);
  expect(HtmlSettings.safeParse({ bar: ['nothing'] }).success).toBe(false);
  const own = { css: '.page{outline:1px solid red}', head: '<meta name="own" content="1">', end: '<script src="own.js"></script>' };
  const made = await make(asSample(twoSpreads), 'html', own, twoSpreads);
  const html = await text(made, 'index.html');
  expect(html.indexOf(own.head)).toBeGreaterThan(html.indexOf('player.js'));
  expect(html.slice(html.indexOf(own.end)).replace(own.end, '').trim()).toBe('</body>\n</html>');
  expect((await text(made, 'style.css')).trimEnd().endsWith(own.css)).toBe(true);
});

describe('words that stand out in a text', () => {
  test('of the samples: what they are about, none that says nothing', async () => {
    const almanac = keywordsOf((await sample('marrowby-almanac')).folio);
    expect(almanac).toEqual(expect.arrayContaining(['dome', 'night', 'stars']));
    expect(almanac.filter((w) => ['the', 'when', 'with', 'first', 'every'].includes(w))).toEqual([]);
    expect(keywordsOf((await sample('observers-handbook')).folio)).toEqual(expect.arrayContaining(['dome', 'telescope']));
  });

  test('in Japanese, where words stand without spaces', () => {
    const folio = produce(
      tinyFolio(['天文台のドームは夜に開く。', '天文台の望遠鏡は大きい。天文台へ行く。望遠鏡で月を見る。']),
      (d) => void (d.head.metadata.language = 'ja'),
    );
    expect(keywordsOf(folio)).toEqual(expect.arrayContaining(['望遠鏡']));
  });
});

describe('a start from what the edition is for', () => {
  const { questions, settle } = purposes;
  const ways = questions.reduce<Record<string, string>[]>(
    (all, q) => all.flatMap((w) => q.answers.map((a) => ({ ...w, [q.id]: a.id }))),
    [{}],
  );

  test.each(ways)('%j makes a recipe that can be used, each setting with its reason', (answers) => {
    const settings = settle(answers);
    const parsed = HtmlSettings.parse(Object.fromEntries(settings.map((s) => [s.setting, s.value])));
    for (const { setting, value, why } of settings) {
      expect(parsed[setting as keyof typeof parsed]).toEqual(value);
      expect(why).toMatch(/^[A-Z].*\.$/);
    }
    // Each setting is one that is asked about in this form.
    expect(new Set(settings.map((s) => s.setting)).size).toBe(settings.length);
    if (answers['layout'] === 'hold' && answers['read'] !== 'strip') expect(parsed.fit).toBe('size');
    if (answers['read'] !== 'strip') expect(parsed.offline !== 'no').toBe(answers['connection'] === 'yes');
  });

  test('above 100 pages one file for each section is proposed, to be kept as it is opened', () => {
    const answers = { read: 'long', layout: 'adapt', connection: 'yes', length: 'long' };
    const set = Object.fromEntries(settle(answers).map((s) => [s.setting, s.value]));
    expect(set).toMatchObject({ form: 'sections', offline: 'opened' });
    // Which answer is right, the number of pages says.
    const { answers: lengths } = questions.find((q) => q.id === 'length')!;
    expect(lengths.map((a) => a.pages)).toEqual([{ most: 100 }, { least: 101 }]);
  });
});
