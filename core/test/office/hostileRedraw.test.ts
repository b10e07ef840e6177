import { expect, test } from '@jest/globals';
import { strFromU8, strToU8, unzipSync } from 'fflate';
import { parse } from 'parse5';
import type { DefaultTreeAdapterMap } from 'parse5';
import { Folio } from '../../src/index.ts';
import { sharpPictures } from '../../src/ports/node.ts';
import { writerById, WRITERS } from '../../src/write/index.ts';
import { fontsOf, make, sample } from '../support/samples.ts';
import { zipped } from '../support/zipped.ts';
import { ofToday } from '../support/ofToday.ts';

type Node = DefaultTreeAdapterMap['node'];
type Element = DefaultTreeAdapterMap['element'];

/** What tries to leave where it stands: an attribute, a style sheet, a comment, a text. */
const HOSTILE = `"'><script>x()</script></style><img src=x onerror=x()><!--]]>&lt;url(http://evil.example/)`;
const REDRAWN = WRITERS.filter((w) => w.redraw).map((w) => w.id);

/** Everything in a page that could run, lead somewhere, or fetch something: there must be nothing of it. */
function harmIn(html: string): string[] {
  const harm: string[] = [];
  // Its policy stands before all else in its head, and lets its styles fetch nothing (CSP 3, 3.3).
  const fetchesNothing = html.startsWith(
    '<!doctype html><html><head><meta charset="utf-8"><meta http-equiv="Content-Security-Policy" content="default-src \'none\'; img-src data:; font-src data:; style-src \'unsafe-inline\';',
  );
  const visit = (node: Node): void => {
    if ('tagName' in node) harm.push(...harmOf(node, fetchesNothing));
    if ('content' in node) visit(node.content);
    if ('childNodes' in node) node.childNodes.forEach(visit);
  };
  visit(parse(html));
  return harm;
}

function harmOf(element: Element, fetchesNothing: boolean): string[] {
  const found = element.attrs
    .filter(
      ({ name, value }) =>
        /^on|^formaction$|^srcdoc$/.test(name) ||
        // An address without a scheme leads to a place beside the page, where there is nothing.
        (/^(src|href|xlink:href|action|data)$/.test(name) &&
          /^\s*[a-z][a-z0-9+.-]*:/i.test(value) &&
          !/^(data:(image|font)\/|https?:|mailto:|tel:)/.test(value)) ||
        (name === 'src' && !value.startsWith('data:')) ||
        (name === 'style' && !fetchesNothing && fetches(value)),
    )
    .map(({ name, value }) => `${element.tagName} ${name}=${value}`);
  if (/^(script|iframe|object|embed|base|form|link)$/.test(element.tagName) || element.attrs.some((a) => a.value === 'refresh'))
    found.push(element.tagName);
  const sheet = element.tagName === 'style' ? element.childNodes.map((n) => ('value' in n ? n.value : '')).join('') : '';
  if (!fetchesNothing && fetches(sheet)) found.push('style sheet');
  return found;
}

/** Whether CSS asks for something that it does not hold itself: outside of what it quotes. */
const fetches = (css: string): boolean => /@import|url\(\s*["']?(?!data:)/i.test(css.replace(/"(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*'/g, '""'));

/** The document with the hostile text in each of its words, names and descriptions. */
function hostile(folio: Folio): Folio {
  const named = new Set(['name', 'title', 'text', 'alt', 'description', 'rights', 'publisher', 'label', 'fontFamily']);
  const changed = (value: unknown, key = ''): unknown => {
    if (typeof value === 'string') return named.has(key) ? `${value} ${HOSTILE}` : value;
    if (Array.isArray(value)) return value.map((v) => changed(v, key === 'creators' || key === 'subjects' ? 'name' : ''));
    if (value && typeof value === 'object') return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, changed(v, k)]));
    return value;
  };
  const { spreads, stories, head } = folio;
  return Folio.parse({ ...folio, head: changed(head), spreads: changed(spreads), stories: changed(stories) });
}

test('the check finds what it is there to find', () => {
  expect(harmIn(`<p>${HOSTILE}</p>`)).toEqual(['script', 'img src=x', 'img onerror=x()']);
  expect(harmIn('<style>a{background:url(http://evil.example/)}</style><p style="background:url(x)">')).toHaveLength(2);
  expect(harmIn('<a href="javascript:x()">x</a><a href="https://example.org/">x</a>')).toEqual(['a href=javascript:x()']);
  expect(harmIn(`<p style="font-family:'url(x)'">a</p>`)).toEqual([]);
});

test.each(ofToday(REDRAWN, 1, (id) => id))(
  'texts and names of a document in %s are drawn as texts, whatever is in them',
  async (output) => {
    const flyer = await sample('open-dome-night');
    const folio = hostile(flyer.folio);
    const made = await make(flyer, output, {}, folio);
    const files = made.files.map((f) => ({ ...f, bytes: () => made.read(f.path) }));
    const { faces } = await fontsOf(flyer.folio);
    const html = await writerById(output)!.redraw!(files, 1, faces, sharpPictures);
    expect(harmIn(html)).toEqual([]);
    // The texts are there: what was looked through is a page, not an empty one.
    expect(html).toContain('&lt;script>x()'.replace('>', html.includes('&lt;script&gt;') ? '&gt;' : '>'));
  },
);

/** What a file of somebody else may have for a value: of a colour, a length, a typeface, an address. */
const VALUE = `#fff" onload="x()" a=';background:url(http://evil.example/);}</style><script>x()</script>`;
/** Attributes that name a part of the package, by which its parts are found at all. */
const FINDS_PARTS = /^(PartName|ContentType|Extension|Target|Type|Id|xmlns.*)$/;

/** How many parts the attributes of a file are divided into: all at once would leave nothing to draw. */
const GROUPS = 10;

/** The same package with some attributes, in all of its parts, set to a value. */
function withAttributes(parts: ReadonlyMap<string, string>, names: readonly string[], value: string): Map<string, string> {
  const escaped = value.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');
  const set = new Set(names);
  return new Map(
    [...parts].map(([path, xml]) => [
      path,
      xml.replace(/(\s)([\w:.-]+)="[^"]*"/g, (all, space: string, name: string) => (set.has(name) ? `${space}${name}="${escaped}"` : all)),
    ]),
  );
}

test.each(ofToday(REDRAWN, 1, (id) => id))(
  'whatever attributes of %s hold, the page that is drawn of it runs and fetches nothing',
  async (output) => {
    const flyer = await sample('open-dome-night');
    const made = await make(flyer, output);
    const file = made.paths.find((p) => /\.(docx|pptx|odt|odp)$/.test(p))!;
    const whole = Object.entries(unzipSync(await made.read(file)));
    const xml = new Map(whole.filter(([path]) => /\.(xml|rels)$/.test(path)).map(([path, bytes]) => [path, strFromU8(bytes)]));
    const names = [...new Set([...xml.values()].flatMap((text) => [...text.matchAll(/\s([\w:.-]+)="/g)].map((m) => m[1]!)))].filter(
      (n) => !FINDS_PARTS.test(n),
    );
    const others = made.files.filter((f) => f.path !== file).map((f) => ({ ...f, bytes: () => made.read(f.path) }));
    const { faces } = await fontsOf(flyer.folio);
    let drawn = 0;
    for (let group = 0; group < GROUPS; group++)
      for (const value of [VALUE, 'javascript:x()']) {
        const chosen = names.filter((_, i) => i % GROUPS === group);
        const changed = withAttributes(xml, chosen, value);
        const bytes = zipped(new Map(whole.map(([path, b]) => [path, changed.has(path) ? strToU8(changed.get(path)!) : b])));
        const files = [{ path: file, mediaType: '', bytes: async () => bytes }, ...others];
        // One that cannot be drawn any more is refused, or is an empty page.
        const html = await writerById(output)!.redraw!(files, 1, faces, sharpPictures).catch(() => '');
        drawn += html.includes('<p') ? 1 : 0;
        expect({ chosen, value, harm: harmIn(html) }).toEqual({ chosen, value, harm: [] });
      }
    expect(drawn).toBeGreaterThan(5);
  },
  240_000,
);
