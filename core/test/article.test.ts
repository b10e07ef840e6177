import { beforeAll, describe, expect, test } from '@jest/globals';
import type { Sample } from '@elastic-folio/demo';
import { produce } from 'immer';
import { subjectKey } from '../src/ledger/index.ts';
import { elementsOf, parsePage } from '../src/ledger/html/dom.ts';
import { sharpPictures } from '../src/ports/node.ts';
import { make, sample, writeOnly } from './support/samples.ts';
import { ofToday } from './support/ofToday.ts';

const SMALL = { resolution: 72 };
let almanac: Sample;
beforeAll(async () => {
  almanac = await sample('marrowby-almanac');
});
const written = (settings: Record<string, unknown> = {}, s = almanac): Promise<Map<string, Uint8Array>> =>
  writeOnly(s, 'article', { ...SMALL, ...settings }, s.folio);
const text = (files: Map<string, Uint8Array>, path = 'index.html'): string => new TextDecoder().decode(files.get(path));

test.each(ofToday(['marrowby-almanac', 'open-dome-night', 'observers-handbook', 'five-worlds'] as const, 1))(
  'the article of %s is borne out by reading it back',
  async (id) => {
    const made = await make(await sample(id), 'article', SMALL);
    expect(made.ledger.filter((e) => e.check === 'contradicted').map((e) => [subjectKey(e.subject), e.evidence])).toEqual([]);
  },
);

describe('an article', () => {
  test('is clean HTML: no places, no styles in elements, every element one of the standard’s', async () => {
    const html = text(await written());
    expect(html).not.toMatch(/ style="|position:|<font|xml:lang|epub:|\/>/);
    const known = new Set(
      'html head meta title link body main section h1 h2 h3 h4 h5 h6 p span strong em a br img figure figcaption ul ol li table colgroup col thead tbody tfoot tr th td blockquote aside sup sub ruby rt rp code pre cite audio video details summary'.split(
        ' ',
      ),
    );
    expect([...new Set([...elementsOf(parsePage(html))].map((e) => e.tagName))].filter((tag) => !known.has(tag))).toEqual([]);
  });
  test('has a style sheet beside it, inside it, at an address, or none', async () => {
    const beside = await written();
    expect(text(beside)).toContain('<link rel="stylesheet" href="style.css">');
    expect(text(beside, 'style.css')).toMatch(/\.running-text \{/);
    const inside = await written({ styleSheet: 'inside' });
    expect(inside.has('style.css')).toBe(false);
    expect(text(inside)).toMatch(/<style>[\s\S]*\.running-text \{/);
    const linked = await written({ styleSheet: 'linked', styleAddress: 'https://site.example/a.css', scriptAddress: '/count.js' });
    expect(text(linked)).toContain('<link rel="stylesheet" href="https://site.example/a.css">');
    expect(text(linked)).toContain('<script src="/count.js" defer></script>');
    const none = await written({ styleSheet: 'none' });
    expect(text(none)).not.toMatch(/stylesheet|<style/);
  });
  test('is one file, or one for each section, each with the way to the next', async () => {
    const files = await written({ files: 'sections' });
    const pages = [...files.keys()].filter((f) => f.endsWith('.html')).sort();
    expect(pages.length).toBeGreaterThan(4);
    expect(text(files)).toContain(`<link rel="next" href="${pages[1]}">`);
    expect(text(files, pages[1])).toContain('<link rel="prev" href="index.html">');
  });
  test('has real lists, or text as it was set', async () => {
    const handbook = await sample('observers-handbook');
    expect(text(await written({}, handbook))).toMatch(/<ol>\n<li/);
    const plain = text(await written({ lists: 'text' }, handbook));
    expect(plain).not.toMatch(/<(ol|ul|li)[ >]/);
    expect(plain).toMatch(/<span class="label[^"]*">1\S*<\/span> Look along the rail/);
  });
  test('holds only what was chosen', async () => {
    const chosen = text(await written({ only: 'letter telescope-picture' }));
    expect(chosen.match(/<img/g)).toHaveLength(1);
    expect(chosen).toContain('id="t-letter-text-1"');
    expect(chosen).not.toContain('dome-feature');
  });
  test('goes by the reading path, or by the layout', async () => {
    const backwards = {
      ...almanac,
      folio: produce(almanac.folio, (d) => void d.head.structure.strands.forEach((s) => s.entries.reverse())),
    };
    expect(text(await written({ order: 'path' }, backwards))).not.toBe(text(await written({ order: 'path' })));
    expect(text(await written({ order: 'layout' }, backwards))).toBe(text(await written({ order: 'layout' })));
  });
  test.each([
    ['webp', 'webp', 'webp'],
    ['png', 'png', 'png'],
    ['jpeg', 'jpg', 'jpeg'],
  ])('has its pictures as %s', async (pictureFormat, extension, format) => {
    const files = await written({ pictureFormat });
    const pictures = [...files].filter(([path]) => path.startsWith('pictures/') && !path.endsWith('.svg'));
    expect(pictures.every(([path]) => path.endsWith(`.${extension}`))).toBe(true);
    expect((await sharpPictures.info(pictures[0]![1])).format).toBe(format);
  });
  test('has JPEG pictures that sharpen as they arrive, or not (ITU-T T.81: SOF2 marks progressive ones)', async () => {
    const marker = async (progressive: boolean): Promise<number> => {
      const [, bytes] = [...(await written({ progressive, pictureFormat: 'jpeg' }))].find(([p]) => p.endsWith('.jpg'))!;
      for (let i = 2; ; i += 2 + bytes[i + 2]! * 256 + bytes[i + 3]!) if ([0xc0, 0xc2].includes(bytes[i + 1]!)) return bytes[i + 1]!;
    };
    expect(await marker(true)).toBe(0xc2);
    expect(await marker(false)).toBe(0xc0);
  });
  test('has drawn shapes that say something as drawings', async () => {
    const speaking = {
      ...almanac,
      folio: produce(almanac.folio, (d) => void (d.spreads['s5']!.items['diary-bar']!.alt = 'A bar across the page')),
    };
    speaking.folio = produce(
      speaking.folio,
      (d) => void (d.head.structure.decorations = d.head.structure.decorations.filter((id) => id !== 'diary-bar')),
    );
    const files = await written({}, speaking);
    const drawing = [...files.keys()].find((p) => /diary-bar.*\.svg$/.test(p))!;
    expect(text(files)).toMatch(new RegExp(`<img src="${drawing}" alt="A bar across the page"`));
    expect(text(files, drawing)).toMatch(/^<svg xmlns="http:\/\/www.w3.org\/2000\/svg"/);
  });
});

test('columns of a table have their shares of the frame that it is made for, where most text is set narrower', async () => {
  const files = [...(await written())];
  const text = (end: string): string => new TextDecoder().decode(files.find(([path]) => path.endsWith(end))![1]);
  const [, columns = ''] = /<table id="f-light-table">\s*<colgroup>(.*?)<\/colgroup>/s.exec(text('.html'))!;
  // 503.276 pt, as wide as the page without its margins: 92, 62, 62, 78 and 62 of them, and what is left.
  const shares = [...columns.matchAll(/class="width-(\d+)"/g)].map((m) => Number(m[1]));
  expect(shares).toEqual([92, 62, 62, 78, 62, 147.276].map((w) => Math.round((w / 503.276) * 100)));
});
