import sharp from 'sharp';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { Collected } from '../src/api/index.ts';
import { weightsOf } from '../src/preview/index.ts';
import { offlineProgram } from '../src/write/html/offline.ts';
import { HtmlSettings } from '../src/write/html/settings.ts';
import { asSample, make, readBack, sample, writeOnly } from './support/samples.ts';
import type { Made } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';
import { htmlOf, missingFiles, text, webFaults } from './support/webFaults.ts';
import { ofToday } from './support/ofToday.ts';

const PAGES = '1-6';

describe('pictures', () => {
  const formats = [
    ['webp', 'webp'],
    ['avif', 'heif'],
    ['jpeg', 'jpeg'],
    ['png', 'png'],
  ];
  test.each(ofToday(formats, 1))(
    'as %s: each in the widths that it says, all of one shape, borne out by reading back',
    async (pictureFormat, format) => {
      const made = await make(await sample('marrowby-almanac'), 'html', { pictureFormat, pages: PAGES });
      expect(made.ledger.filter((e) => e.check === 'contradicted')).toEqual([]);
      expect(await missingFiles(made)).toEqual([]);
      const sets = [...(await text(made, 'index.html')).matchAll(/ srcset="([^"]+)"/g)].map((m) =>
        m[1]!.split(', ').map((c) => c.split(' ')),
      );
      expect(sets.length).toBeGreaterThan(2);
      for (const set of sets) {
        const found = await Promise.all(set.map(async ([path]) => sharp(await made.read(path!)).metadata()));
        expect(found.map((m) => [`${m.width}w`, m.format])).toEqual(set.map(([, w]) => [w, format]));
        // Widths go down by half, each rounded to a pixel.
        const ratios = found.map((m) => m.width / m.height);
        for (const r of ratios) expect(Math.abs(r / ratios[0]! - 1)).toBeLessThan(0.02);
      }
    },
  );

  test('where time is taken files are smaller; none is larger', async () => {
    const s = await sample('marrowby-almanac');
    const weigh = async (thorough: boolean): Promise<number> => {
      const files = await writeOnly(s, 'html', { pages: '6', pictureFormat: 'png', thorough }, s.folio);
      return [...files].reduce((sum, [path, bytes]) => (path.startsWith('pictures/') ? sum + bytes.length : sum), 0);
    };
    const [quick, thorough] = [await weigh(false), await weigh(true)];
    expect(thorough).toBeLessThan(quick * 0.7);
  });

  test('a smaller picture that is missing is found by reading back', async () => {
    const s = await sample('marrowby-almanac');
    const files = await writeOnly(s, 'html', {}, s.folio);
    const html = new TextDecoder().decode(files.get('index.html'));
    const [, smaller] = / srcset="[^"]*, ([^" ]+) \d+w"/.exec(html)!;
    const whole = await readBack(s, 'html', files);
    files.delete(smaller!);
    const broken = await readBack(s, 'html', files);
    const against = (all: typeof whole): number => all.filter((e) => !e.agrees).length;
    expect(against(broken)).toBeGreaterThan(against(whole));
  });

  test('the first page of each file fetches its pictures at once; all others wait', async () => {
    const html = await text(await make(await sample('marrowby-almanac'), 'html', { pages: PAGES }), 'index.html');
    const [first, ...rest] = html.split('<section class="page"').slice(1);
    expect(first).toContain('<img');
    expect(first).not.toContain('loading="lazy"');
    for (const page of rest) expect((page.match(/<img/g) ?? []).length).toBe((page.match(/<img[^>]*loading="lazy"/g) ?? []).length);
  });
});

describe.each(ofToday(['shapes', 'picture'] as const, 1))('text drawn as %s', (how) => {
  let [drawn, live]: Made[] = [];
  beforeAll(async () => {
    const s = await sample('marrowby-almanac');
    const named = produce(s.folio, (d) => {
      d.head.fonts = { body: { id: 'body', family: 'Source Serif 4', weight: 400, style: 'normal' } };
    });
    drawn = await make(s, 'html', { text: how, pages: PAGES }, named);
    live = await make(s, 'html', { pages: PAGES });
  });

  test('brings no font, and says so of each', () => {
    expect(live!.paths.some((p) => p.startsWith('fonts/'))).toBe(true);
    expect(drawn!.paths.filter((p) => p.startsWith('fonts/'))).toEqual([]);
    const fonts = drawn!.ledger.filter((e) => e.subject.kind === 'font');
    expect(fonts.map((e) => [e.code, e.check])).toEqual([['font.notNeeded', 'confirmed']]);
    expect(drawn!.ledger.some((e) => e.code === `text.${how}` && e.outcome === 'adapted')).toBe(true);
    expect(drawn!.valid).toBe(true);
  });

  test('has the same text to be read, searched and heard', async () => {
    const read = async (made: Made): Promise<string> =>
      [...(await text(made, 'index.html')).matchAll(/<(h[1-6]|p|li)(?: [^>]*)?>([\s\S]*?)<\/\1>/g)]
        .map((m) => m[2]!.replace(/<[^>]+>/g, ''))
        .join('\n');
    expect(await read(drawn!)).toBe(await read(live!));
  });
});

describe('text that browsers break into lines', () => {
  let [flowing, live]: Made[] = [];
  beforeAll(async () => {
    const s = await sample('marrowby-almanac');
    flowing = await make(s, 'html', { text: 'flowing' });
    live = await make(s, 'html', {});
  });
  const paragraph = async (made: Made, beginning: string): Promise<string> =>
    [...(await text(made, 'index.html')).matchAll(/<(h[1-6]|p)((?: [^>]*)?)>([\s\S]*?)<\/\1>/g)]
      .map((m) => m[0])
      .find((m) => m.replace(/<[^>]+>/g, '').includes(beginning))!;

  test('says of each such paragraph what became of it; font, size and colour of all are read back', () => {
    const flows = flowing!.ledger.filter((e) => e.code === 'text.flows');
    expect(flows.length).toBeGreaterThan(200);
    expect(flows.every((e) => e.outcome === 'adapted' && e.subject.aspect === 'look')).toBe(true);
    expect(flows.filter((e) => e.check === 'contradicted')).toEqual([]);
    expect(flowing!.valid).toBe(true);
    expect(live!.ledger.some((e) => e.code === 'text.flows')).toBe(false);
  });

  test('keeps its text, lines that were ended by hand, and what stands around something', async () => {
    const plain = (html: string): string =>
      html
        .replace(/<[^>]+>|\u00ad/g, '')
        .replace(/\s+/g, ' ')
        .trim();
    for (const beginning of ['From these pages we know', 'A walk', 'The month begins']) {
      const [a, b] = [await paragraph(flowing!, beginning), await paragraph(live!, beginning)];
      expect(a).toContain('class="fl ');
      expect(plain(a)).toBe(plain(b));
    }
    expect(await paragraph(flowing!, 'A walk')).toMatch(/A walk<\/span> <br>/);
    // Beside a drop capital every line keeps its place.
    expect(await paragraph(flowing!, 'of the Marrowby Hill')).toContain('<span class="l ');
  });

  test('without room, lines go on, are cut off, or are scrolled to by keys as well (WCAG 2.2, 2.1.1)', async () => {
    const column = async (overflow: string): Promise<string> =>
      /<div class="col"[^>]*>/.exec(
        await text(await make(await sample('five-worlds'), 'html', { text: 'flowing', overflow }), 'index.html'),
      )![0];
    expect(await column('shown')).toContain('overflow:visible');
    expect(await column('cut')).toContain('overflow:clip');
    expect(await column('scroll')).toMatch(/overflow:hidden auto.*tabindex="0"/);
  });
});

describe('kept on a device', () => {
  let made: Made;
  const recipe = { form: 'sections', app: true, offline: 'all', theme: '#1E5B4B', appName: 'Almanac', bar: ['search'], pages: PAGES };
  beforeAll(async () => void (made = await make(await sample('marrowby-almanac'), 'html', recipe)));

  test('its manifest says what installing asks for (W3C Web Application Manifest; icons of 192 and 512 px are common practice)', async () => {
    const manifest = JSON.parse(await text(made, 'app.webmanifest')) as Record<string, unknown> & { icons: Record<string, string>[] };
    expect(manifest).toMatchObject({
      name: 'The Marrowby Almanac',
      short_name: 'Almanac',
      lang: 'en',
      start_url: './index.html',
      scope: './',
      display: 'standalone',
      theme_color: '#1E5B4B',
    });
    expect(manifest.icons.map((i) => `${i['sizes']} ${i['purpose']}`)).toEqual(['192x192 any', '512x512 any', '512x512 maskable']);
    for (const icon of manifest.icons) {
      const meta = await sharp(await made.read(icon['src']!)).metadata();
      expect(`${meta.width}x${meta.height} image/${meta.format}`).toBe(`${icon['sizes']} ${icon['type']}`);
    }
    for (const path of htmlOf(made)) {
      const html = await text(made, path);
      expect(html).toContain('<link rel="manifest" href="app.webmanifest">');
      expect(html).toContain('<meta name="theme-color" content="#1E5B4B">');
    }
    expect(await webFaults(made)).toEqual([]);
  });

  test('an icon that is not square stands whole in a square of the theme colour', async () => {
    const s = await sample('marrowby-almanac');
    const [wide] = Object.values(s.folio.head.media).filter((m) => m.mediaType === 'image/jpeg' && m.width! > m.height! * 1.2);
    const { read } = await make(s, 'html', { ...recipe, icon: wide!.id });
    const { data, info } = await sharp(await read('icons/any-512.png'))
      .raw()
      .toBuffer({ resolveWithObject: true });
    const at = (x: number, y: number): number[] => [
      ...data.subarray((y * info.width + x) * info.channels, (y * info.width + x) * info.channels + 3),
    ];
    expect(info.width).toBe(info.height);
    expect(at(256, 2)).toEqual([0x1e, 0x5b, 0x4b]);
    expect(at(256, 509)).toEqual([0x1e, 0x5b, 0x4b]);
    expect(at(256, 256)).not.toEqual([0x1e, 0x5b, 0x4b]);
  });

  test('the program that keeps it names every file, and one version by what is in them', async () => {
    const program = await text(made, 'offline.js');
    const first = JSON.parse(/const FIRST = (\[.*\]);/.exec(program)![1]!) as string[];
    expect([...first, 'offline.js'].sort()).toEqual([...made.paths].filter((p) => !/^(robots|sitemap)/.test(p)).sort());
    // It is a program without a fault.
    expect(() => new Function(program)).not.toThrow();
    const versionOf = (hash: string, keep: 'all' | 'opened' = 'all'): string =>
      /PREFIX \+ "([0-9a-f]+)"/.exec(
        offlineProgram(
          [
            { path: 'index.html', hash },
            { path: 'a.jpg', hash: '1' },
          ],
          keep,
        ),
      )![1]!;
    expect(versionOf('1')).toBe(versionOf('1'));
    expect(versionOf('1')).not.toBe(versionOf('2'));
    expect(
      offlineProgram(
        [
          { path: 'index.html', hash: '1' },
          { path: 'a.jpg', hash: '1' },
        ],
        'opened',
      ),
    ).toContain('const FIRST = ["index.html"]');
  });

  test('the search of a site knows the text of all its files', async () => {
    const editionText = JSON.parse((await text(made, 'search.js')).replace(/^self\.editionText=|;\s*$/g, '')) as [number, string, string][];
    expect(editionText.map(([n]) => n)).toEqual([1, 2, 3, 4, 5, 6]);
    for (const [, address] of editionText) {
      const [file, anchor] = address.split('#');
      expect(await text(made, file!)).toContain(`id="${anchor}"`);
    }
    expect(editionText[1]![2]).toContain('There is a sound that everyone who has worked a night on Marrowby Hill knows');
    // Words that are divided at a line's end are whole.
    expect(editionText[2]![2]).toContain('Observatory weighs');
  });
});

describe('where the kilobytes go', () => {
  test('every byte of an edition is in one place, and pages count what comes with them first', async () => {
    const s = await sample('marrowby-almanac');
    const made = await make(s, 'html', { pages: PAGES, bar: ['contents', 'overview'] });
    const texts = await Promise.all(htmlOf(made).map(async (path) => ({ path, text: await text(made, path) })));
    const files = await Promise.all(
      made.files.filter((f) => f.path !== 'ledger.json').map(async (f) => ({ ...f, bytes: (await made.read(f.path)).length })),
    );
    const { pages, shared, spare } = weightsOf(s.folio, files, texts);
    const sum = (o: object): number => (Object.values(o) as number[]).reduce((a, b) => a + b, 0);
    expect(pages.reduce((n, p) => n + sum(p.now), 0) + sum(shared) + spare).toBe(files.reduce((n, f) => n + f.bytes, 0));
    expect(pages.map((p) => p.label)).toEqual(['1', '2', '3', '4', '5', '6']);
    const cover = /src="(pictures\/dusk-[^"]+)"/.exec(texts[0]!.text)![1]!;
    expect(pages[0]!.now.pictures).toBe((await made.read(cover)).length);
    expect(pages[0]!.was).toBe(s.folio.head.media['dusk']!.bytes);
  });
});

describe('what readers do', () => {
  test('nobody is asked, and nothing knows of a collector, where none is named', async () => {
    const html = await text(await make(asSample(tinyFolio(['x'])), 'html', {}, tinyFolio(['x'])), 'index.html');
    expect(html).not.toContain('measuring');
  });

  test('the question is the designer’s own, or a plain one in the edition’s language', async () => {
    const german = produce(tinyFolio(['x']), (d) => void (d.head.metadata.language = 'de'));
    const ask = async (measureAsk: string): Promise<string> => {
      const html = await text(
        await make(asSample(german), 'html', { measureAt: 'https://marrowby.example/c', measureAsk }, german),
        'index.html',
      );
      return (JSON.parse(/id="program">(.*?)<\/script>/.exec(html)![1]!) as { reading: { measuring: { words: { ask: string } } } }).reading
        .measuring.words.ask;
    };
    expect(await ask('Dürfen wir zählen?')).toBe('Dürfen wir zählen?');
    expect(await ask('')).toMatch(/^Darf der Verlag/);
  });

  test('an address that is none is refused, and so is what a collector cannot use', () => {
    expect(HtmlSettings.safeParse({ measureAt: 'marrowby' }).success).toBe(false);
    expect(HtmlSettings.safeParse({ shareAt: 'javascript:alert(1)' }).success).toBe(false);
    const event = { kind: 'page', at: 0, page: 1 };
    const sent = { id: 'x', visit: 'abc123', title: '', language: 'en', events: [event] };
    expect(Collected.safeParse(sent).success).toBe(true);
    for (const wrong of [{ events: [] }, { visit: '<b>' }, { events: [{ ...event, kind: 'name' }] }, { events: [{ ...event, page: -1 }] }])
      expect(Collected.safeParse({ ...sent, ...wrong }).success).toBe(false);
  });
});

describe('own files', () => {
  const withFiles = produce(tinyFolio(['x']), (d) => {
    const file = (id: string, name: string, mediaType: string) => ({ id, name, file: `media/${id}.x`, mediaType, sha256: id, bytes: 3 });
    d.head.media = {
      a: file('a', 'Own looks.css', 'text/css'),
      b: file('b', 'count.js', 'text/javascript'),
      c: file('c', 'count.js', 'text/javascript'),
      d: file('d', '../../sky <1>.json', 'application/json'),
    };
  });
  test('come in their order and to their places, under names that lead nowhere else; what is gone is passed over', async () => {
    const files = [
      { media: 'b', as: 'end' },
      { media: 'a', as: 'head' },
      { media: 'gone', as: 'head' },
      { media: 'c', as: 'head' },
      { media: 'd', as: 'beside' },
    ];
    const made = await make(asSample(withFiles), 'html', { files, head: '<meta name="last">' }, withFiles, {
      media: async (id) => new TextEncoder().encode(`/*${id}*/`),
    });
    expect(made.paths.filter((p) => p.startsWith('own/')).sort()).toEqual([
      'own/Own-looks.css',
      'own/count-2.js',
      'own/count.js',
      'own/sky-1-.json',
    ]);
    const html = await text(made, 'index.html');
    const [head, body] = html.split('<body>');
    expect(head).toContain(
      '<link rel="stylesheet" href="own/Own-looks.css">\n<script src="own/count-2.js" defer></script>\n<meta name="last">',
    );
    expect(body).toContain('<script src="own/count.js"></script>');
    expect(await text(made, 'own/count.js')).toBe('/*b*/');
    expect(await missingFiles(made)).toEqual([]);
  });
});

describe('own code', () => {
  test('a style sheet that hides the pages is found by reading back, and said', async () => {
    const s = await sample('five-worlds');
    for (const css of ['main{display:none}', '.page{opacity:0}', 'body{visibility:hidden}']) {
      const made = await make(s, 'html', { css });
      expect(made.valid).toBe(false);
      const [found] = made.ledger.filter((e) => e.check === 'contradicted');
      expect(found).toMatchObject({ subject: { kind: 'page' } });
      expect(JSON.stringify(found)).toContain('hides the page');
    }
    expect((await make(s, 'html', { css: '.page{opacity:.9}' })).valid).toBe(true);
  });
});

test('spreads that stay together are seen at once in every form; a site has a file for each', async () => {
  const s = await sample('marrowby-almanac');
  const slots = async (settings: object): Promise<number[]> => {
    const made = await make(s, 'html', { pages: '1-5', joined: true, ...settings });
    expect(made.valid).toBe(true);
    const files = await Promise.all(htmlOf(made).map((p) => text(made, p)));
    return files
      .flatMap((f) =>
        f
          .split('<div class="slot"')
          .slice(1)
          .map((slot) => slot.split('<section').length - 1),
      )
      .sort();
  };
  expect(await slots({ form: 'stacked' })).toEqual([1, 2, 2]);
  expect(await slots({ form: 'slides' })).toEqual([1, 2, 2]);
  expect(await slots({ form: 'site' })).toEqual([1, 2, 2]);
});
