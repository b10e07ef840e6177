import { describe, expect, test } from '@jest/globals';
import { resolveParagraph } from '../../src/folio/resolve.ts';
import type { Folio, Item, Paragraph } from '../../src/index.ts';
import { MASTER, readFlat } from './support/flatFile.ts';

const CM = 72 / 2.54;
const page = (inside: string, attributes = ''): string =>
  `<draw:page draw:name="P1" draw:master-page-name="M" ${attributes}>${inside}</draw:page>`;
const items = (folio: Folio, n = 0): Item[] => {
  const spread = folio.spreads[folio.head.spreadOrder[n]!]!;
  return spread.order.map((id) => spread.items[id]!);
};
const paragraphs = (folio: Folio): Paragraph[] =>
  Object.values(folio.stories).flatMap((s) =>
    s.order.flatMap((id) => (s.blocks[id]!.kind === 'paragraph' ? [s.blocks[id] as Paragraph] : [])),
  );
const plain = (p: Paragraph): string =>
  p.content.map((c) => (c.type === 'span' ? c.text : c.type === 'tab' ? '\t' : c.type === 'softReturn' ? '\n' : `[${c.type}]`)).join('');
const BOX = 'svg:x="1cm" svg:y="2cm" svg:width="4cm" svg:height="3cm"';
const frame = (text: string, more = ''): string => `<draw:frame ${BOX} ${more}><draw:text-box>${text}</draw:text-box></draw:frame>`;

describe('pages, masters and layers', () => {
  test('pages have the size of their master’s layout, and their master', async () => {
    const { folio } = await readFlat({ pages: page('') + page('', 'draw:id="second"') });
    expect(folio.head.spreadOrder).toHaveLength(2);
    const [one, two] = folio.head.spreadOrder.map((id) => folio.spreads[id]!.pages[0]!);
    expect(one!.box).toEqual({ x: 0, y: 0, width: expect.closeTo(20 * CM, 6), height: expect.closeTo(10 * CM, 6) });
    expect([two!.id, folio.head.masterPages[one!.master!]!.name]).toEqual(['second', 'M']);
  });

  test('what stands on a master page stands there; places that pages fill are left out; a page may hide it', async () => {
    const masters = `<style:master-page style:name="M" style:page-layout-name="PL">
      <draw:rect draw:style-name="g" svg:width="20cm" svg:height="1cm"/>
      <draw:frame presentation:class="title" presentation:placeholder="true" ${BOX}><draw:text-box/></draw:frame></style:master-page>`;
    const { folio } = await readFlat({
      kind: 'presentation',
      masters,
      automatic: `<style:style style:name="dp" style:family="drawing-page"><style:drawing-page-properties presentation:background-objects-visible="false"/></style:style>`,
      pages: page('') + page('', 'draw:style-name="dp"'),
    });
    const [master] = Object.values(folio.head.masterPages);
    expect(master!.order.map((id) => master!.items[id]!.kind)).toEqual(['shape']);
    expect(folio.head.spreadOrder.map((id) => folio.spreads[id]!.pages[0]!.showMaster)).toEqual([true, false]);
  });

  test('footers show each page’s own text where they are shown; numbers are the master’s', async () => {
    const masters = `<style:master-page style:name="M" style:page-layout-name="PL">
      <draw:frame presentation:class="footer" ${BOX}><draw:text-box><text:p><presentation:footer/></text:p></draw:text-box></draw:frame>
      <draw:frame presentation:class="page-number" ${BOX}><draw:text-box><text:p><text:page-number>1</text:page-number></text:p></draw:text-box></draw:frame></style:master-page>`;
    const shown = (name: string, on: boolean): string =>
      `<style:style style:name="${name}" style:family="drawing-page"><style:drawing-page-properties presentation:display-footer="${on}" presentation:display-page-number="${on}"/></style:style>`;
    const { folio } = await readFlat({
      kind: 'presentation',
      masters,
      automatic: shown('on', true) + shown('off', false),
      pages:
        `<presentation:footer-decl presentation:name="f1">Marrowby Hill</presentation:footer-decl>` +
        page('', 'draw:style-name="on" presentation:use-footer-name="f1"') +
        page('', 'draw:style-name="off"'),
    });
    const [on, off] = folio.head.spreadOrder.map((id) => folio.spreads[id]!);
    expect(items(folio, 0).map((i) => i.kind)).toEqual(['textFrame']);
    expect(paragraphs(folio).map(plain).sort()).toEqual(['Marrowby Hill', '[field]']);
    expect(Object.values(on!.masterOverrides)).toEqual([]);
    expect(Object.values(off!.masterOverrides)).toEqual([null]);
    expect(items(folio, 1)).toEqual([]);
  });

  test('layers keep what they show and print; those that objects lie on are stacked as the objects were', async () => {
    const set = `<draw:layer-set><draw:layer draw:name="notes" draw:display="none" draw:protected="true"/><draw:layer draw:name="over" draw:display="screen"/><draw:layer draw:name="under"/></draw:layer-set>`;
    const { folio, record } = await readFlat({
      masters: set + MASTER,
      pages: page(`<draw:rect draw:layer="under" ${BOX}/><draw:rect draw:layer="over" ${BOX}/>`),
    });
    const layers = Object.values(folio.head.layers).map((l) => [l.name, l.visible, l.printing, l.locked]);
    expect(layers).toEqual([
      ['notes', false, false, true],
      ['over', true, false, false],
      ['under', true, true, false],
    ]);
    const order = folio.head.layerOrder.map((id) => folio.head.layers[id]!.name);
    expect(order.indexOf('under')).toBeLessThan(order.indexOf('over'));
    expect(record.notTaken).toEqual([]);
  });

  test('where objects of two layers lie over and under one another, the page is named', async () => {
    const rects = ['a', 'b', 'a'].map((l) => `<draw:rect draw:layer="${l}" ${BOX}/>`).join('');
    const { record } = await readFlat({ pages: page(rects) });
    expect(record.notTaken).toEqual([expect.objectContaining({ what: 'Stacking across layers', page: 1, outcome: 'changed' })]);
  });

  test('backgrounds are the page’s, else its master’s', async () => {
    const fill = (name: string, colour: string): string =>
      `<style:style style:name="${name}" style:family="drawing-page"><style:drawing-page-properties draw:fill="solid" draw:fill-color="${colour}"/></style:style>`;
    const { folio } = await readFlat({
      automatic: fill('m', '#ff0000') + fill('p', '#00ff00'),
      masters: `<style:master-page style:name="M" style:page-layout-name="PL" draw:style-name="m"/>`,
      pages: page('') + page('', 'draw:style-name="p"'),
    });
    const colours = folio.head.spreadOrder.map((id) => (folio.spreads[id]!.pages[0]!.background as { colour: { r: number } }).colour.r);
    expect(colours).toEqual([1, 0]);
  });

  test('notes are texts of their pages that stand on none', async () => {
    const notes = `<presentation:notes>${frame('<text:p>Say this slowly.</text:p>', 'presentation:class="notes"')}</presentation:notes>`;
    const { folio } = await readFlat({ kind: 'presentation', pages: page(notes) });
    const id = folio.spreads[folio.head.spreadOrder[0]!]!.pages[0]!.notes!;
    expect(plain(Object.values(folio.stories[id]!.blocks)[0] as Paragraph)).toBe('Say this slowly.');
    expect(folio.head.storyOrder).not.toContain(id);
  });
});

describe('styles', () => {
  const STYLES = `<style:default-style style:family="graphic"><style:text-properties fo:font-size="20pt" fo:language="de" fo:country="AT"/></style:default-style>
    <style:style style:name="standard" style:family="graphic"><style:paragraph-properties fo:margin-left="1cm"/><style:text-properties fo:color="#ff0000"/></style:style>
    <style:style style:name="Lead_20_text" style:display-name="Lead text" style:family="graphic" style:parent-style-name="standard"><style:text-properties fo:font-size="150%" fo:font-weight="bold"/></style:style>`;
  const AUTO = `<style:style style:name="gr1" style:family="graphic" style:parent-style-name="Lead_20_text"><style:graphic-properties draw:fill="none" draw:stroke="none"/><style:text-properties fo:font-style="italic" fo:font-weight="bold"/></style:style>
    <style:style style:name="P1" style:family="paragraph"><style:paragraph-properties fo:text-align="center"/></style:style>
    <style:style style:name="T1" style:family="text"><style:text-properties fo:font-size="50%" style:text-position="super 58%"/></style:style>`;

  test('a frame’s named style is the style of its paragraphs; what automatic styles add is theirs alone', async () => {
    const { folio } = await readFlat({
      styles: STYLES,
      automatic: AUTO,
      pages: page(
        frame('<text:p text:style-name="P1">One <text:span text:style-name="T1">two</text:span></text:p>', 'draw:style-name="gr1"'),
      ),
    });
    const [p] = paragraphs(folio);
    const style = folio.head.paragraphStyles[p!.style]!;
    expect([style.name, folio.head.paragraphStyles[style.basedOn!]!.name]).toEqual(['Lead text', 'standard']);
    expect([style.character.size, style.character.fontWeight]).toEqual([30, 700]);
    // Bold comes from the style already: it is no formatting by hand.
    expect([p!.overrides, p!.character]).toEqual([{ align: 'centre' }, { fontStyle: 'italic' }]);
    const look = resolveParagraph(folio.head, p!);
    expect([look.character.language, look.paragraph.startIndent]).toEqual(['de-AT', expect.closeTo(CM, 6)]);
    expect(look.character.fill).toEqual({ type: 'colour', colour: { space: 'rgb', r: 1, g: 0, b: 0 } });
    expect(p!.content).toEqual([
      { type: 'span', text: 'One ' },
      { type: 'span', text: 'two', overrides: expect.objectContaining({ size: 15, position: 'superscript' }) },
    ]);
  });

  test('outlines of a presentation have a style for each of their levels', async () => {
    const outline = (n: number): string =>
      `<style:style style:name="D-outline${n}" style:family="presentation"${n > 1 ? ` style:parent-style-name="D-outline${n - 1}"` : ''}><style:text-properties fo:font-size="${40 - 8 * n}pt"/></style:style>`;
    const { folio } = await readFlat({
      kind: 'presentation',
      styles: outline(1) + outline(2),
      automatic: `<style:style style:name="pr1" style:family="presentation" style:parent-style-name="D-outline1"/>`,
      pages: page(
        frame(
          '<text:list><text:list-item><text:p>First</text:p><text:list><text:list-item><text:p>Second</text:p></text:list-item></text:list></text:list-item></text:list>',
          'presentation:style-name="pr1"',
        ),
      ),
    });
    expect(paragraphs(folio).map((p) => [plain(p), resolveParagraph(folio.head, p).character.size])).toEqual([
      ['First', 32],
      ['Second', 24],
    ]);
  });

  test('lists have their bullets and numbers, and hang as far as they say', async () => {
    const list = `<text:list-style style:name="L1"><text:list-level-style-bullet text:level="1" text:bullet-char="★"><style:list-level-properties text:space-before="1cm" text:min-label-width="0.5cm"/></text:list-level-style-bullet><text:list-level-style-number text:level="2" style:num-format="a" style:num-suffix=")" text:display-levels="2"/></text:list-style>`;
    const { folio } = await readFlat({
      automatic: list,
      pages: page(
        frame(
          '<text:list text:style-name="L1"><text:list-item><text:p>A</text:p><text:p>goes on</text:p><text:list><text:list-item text:start-value="3"><text:p>B</text:p></text:list-item></text:list></text:list-item></text:list>',
        ),
      ),
    });
    const [a, on, b] = paragraphs(folio);
    const style = folio.head.listStyles[a!.overrides!.list!.style]!;
    expect(style.levels.slice(0, 2).map((l) => [l.kind, l.text, l.format])).toEqual([
      ['bullet', '★', 'decimal'],
      ['number', '{1}.{n})', 'lowerAlpha'],
    ]);
    expect([a!.overrides!.startIndent, style.levels[0]!.indent]).toEqual([expect.closeTo(CM, 6), expect.closeTo(CM / 2, 6)]);
    expect([on!.overrides!.list, on!.overrides!.startIndent]).toEqual([undefined, expect.closeTo(1.5 * CM, 6)]);
    expect(b!.overrides!.list).toEqual({ style: style.id, level: 1, restart: 3 });
  });

  test('a style that is based on itself does no harm', async () => {
    const { folio } = await readFlat({
      styles: `<style:style style:name="a" style:family="graphic" style:parent-style-name="b"/><style:style style:name="b" style:family="graphic" style:parent-style-name="a"/>`,
      pages: page(frame('<text:p>x</text:p>', 'draw:style-name="a"')),
    });
    expect(paragraphs(folio).map(plain)).toEqual(['x']);
  });

  test('fonts are called by their families, and what stands in for them is of their kind', async () => {
    const { folio } = await readFlat({
      fonts: `<style:font-face style:name="F" svg:font-family="'Marrowby Slab', serif" style:font-family-generic="roman"/>`,
      automatic: `<style:style style:name="gr1" style:family="graphic"><style:text-properties style:font-name="F"/></style:style>`,
      pages: page(frame('<text:p>x</text:p>', 'draw:style-name="gr1"')),
    });
    expect(paragraphs(folio)[0]!.character!.fontFamily).toBe('Marrowby Slab');
    expect(folio.head.standIns).toEqual({ 'marrowby slab': 'Tinos' });
  });
});

describe('texts', () => {
  const read = async (inside: string): Promise<{ folio: Folio; p: Paragraph[]; says: string[] }> => {
    const { folio, record } = await readFlat({ pages: page(frame(inside)) });
    return { folio, p: paragraphs(folio), says: record.notTaken.map((n) => n.what) };
  };
  // 6.1.2: white space is folded, at the beginning and the end of a paragraph it goes.
  test('white space is folded; what is meant to be space is said', async () => {
    const { p } = await read(
      '<text:p>\n  One   two <text:span> three</text:span>\n</text:p><text:p>a<text:s text:c="3"/>b<text:tab/>c<text:line-break/> d</text:p>',
    );
    expect(p.map(plain)).toEqual(['One two three', 'a   b\tc\nd']);
  });
  test('links lead to addresses and pages, and nowhere else', async () => {
    const { folio, says } = await read(
      '<text:p><text:a xlink:href="https://marrowby.example/">one</text:a> <text:a xlink:href="#P1">two</text:a> <text:a xlink:href="javascript:alert(1)">three</text:a> <text:a xlink:href="#gone">four</text:a></text:p>',
    );
    const links = Object.values(Object.values(folio.stories)[0]!.links).map((l) => l.destination);
    expect(links).toEqual([
      { to: 'address', href: 'https://marrowby.example/', window: 'same' },
      { to: 'page', page: expect.any(String) },
    ]);
    expect(says).toEqual(['Link', 'Link']);
  });
  test('notes, ruby, fields and comments', async () => {
    const { folio, p, says } = await read(
      '<text:p>a<text:note text:note-class="footnote"><text:note-citation>1</text:note-citation><text:note-body><text:p>Below</text:p></text:note-body></text:note><text:ruby><text:ruby-base>星</text:ruby-base><text:ruby-text>ほし</text:ruby-text></text:ruby><text:page-number>9</text:page-number><office:annotation><text:p>no</text:p></office:annotation><text:author-name>Mab</text:author-name></text:p>',
    );
    expect(p[0]!.content.map((c) => c.type)).toEqual(['span', 'note', 'ruby', 'field', 'span']);
    expect(p[0]!.content[2]).toMatchObject({ base: '星', reading: 'ほし' });
    const note = p[0]!.content[1] as { order: string[] };
    expect(plain(Object.values(folio.stories)[0]!.blocks[note.order[0]!] as Paragraph)).toBe('Below');
    expect([plain(p[0]!).endsWith('Mab'), says]).toEqual([true, ['Comment']]);
  });
  test('frames that go on in one another show one text, in their order', async () => {
    const chain = ['A', 'B', 'C'].map(
      (n, i, all) =>
        `<draw:frame ${BOX} draw:name="${n}"><draw:text-box${all[i + 1] ? ` draw:chain-next-name="${all[i + 1]}"` : ''}><text:p>${i ? '' : 'All of it'}</text:p></draw:text-box></draw:frame>`,
    );
    const { folio } = await readFlat({ pages: page(chain[2]! + chain[0]! + chain[1]!) });
    const [story] = Object.values(folio.stories);
    expect(Object.keys(folio.stories)).toHaveLength(1);
    expect(story!.frames.map((f) => items(folio).find((i) => i.id === f.item)!.name)).toEqual(['A', 'B', 'C']);
    expect(story!.order).toHaveLength(1);
  });
  test('a chain that comes back to itself is cut, and said', async () => {
    const ring = ['A', 'B'].map(
      (n, i) =>
        `<draw:frame ${BOX} draw:name="${n}"><draw:text-box draw:chain-next-name="${i ? 'A' : 'B'}"><text:p>${n}</text:p></draw:text-box></draw:frame>`,
    );
    const { folio, record } = await readFlat({ pages: page(ring.join('')) });
    expect(Object.values(folio.stories)[0]!.frames).toHaveLength(2);
    expect(record.notTaken.map((n) => n.what)).toEqual(['Chain of frames']);
  });
});

describe('items', () => {
  const GR = (properties: string): string =>
    `<style:style style:name="g" style:family="graphic"><style:graphic-properties ${properties}/></style:style>`;
  const one = async (
    element: string,
    properties = 'draw:fill="none" draw:stroke="none"',
    styles = '',
  ): Promise<{ item: Item; folio: Folio; says: string[] }> => {
    const { folio, record } = await readFlat({ automatic: GR(properties), styles, pages: page(element) });
    return { item: items(folio)[0]!, folio, says: record.notTaken.map((n) => n.what) };
  };

  test('shapes stand where they say, with fill and line', async () => {
    const { item } = await one(
      `<draw:ellipse draw:style-name="g" draw:name="Moon" ${BOX}><svg:title>The moon</svg:title><svg:desc>Half full</svg:desc></draw:ellipse>`,
      'draw:fill="solid" draw:fill-color="#336699" draw:opacity="50%" draw:stroke="solid" svg:stroke-width="2mm" svg:stroke-color="#000000" svg:stroke-linecap="round"',
    );
    expect(item).toMatchObject({ kind: 'shape', name: 'Moon', alt: 'The moon. Half full', opacity: 0.5 });
    expect(item.transform).toEqual([1, 0, 0, 1, expect.closeTo(CM, 6), expect.closeTo(2 * CM, 6)]);
    expect(item.stroke).toMatchObject({ weight: expect.closeTo(0.2 * CM, 6), cap: 'round' });
  });
  test('turned objects keep their own space', async () => {
    const { item } = await one(
      '<draw:rect draw:style-name="g" svg:width="4cm" svg:height="2cm" draw:transform="rotate (1.5707963267949) translate (5cm 5cm)"/>',
    );
    expect(item.transform.map((n) => +n.toFixed(4) + 0)).toEqual([0, -1, 1, 0, +(5 * CM).toFixed(4), +(5 * CM).toFixed(4)]);
  });
  // 14.6: a linear gradient runs from the top down; turned by 90 degrees against the clock its start is on the left.
  test('gradients run as they are turned', async () => {
    const gradient = (angle: string): string =>
      `<draw:gradient draw:name="G" draw:style="linear" draw:start-color="#ff0000" draw:end-color="#0000ff" draw:angle="${angle}" draw:border="0%"/>`;
    const direction = async (angle: string): Promise<number[]> => {
      const { item } = await one(
        `<draw:rect draw:style-name="g" svg:width="2cm" svg:height="2cm"/>`,
        'draw:fill="gradient" draw:fill-gradient-name="G"',
        gradient(angle),
      );
      const g = (item.fill as { gradient: { transform: number[]; stops: { paint: { colour: { r: number } } }[] } }).gradient;
      expect(g.stops.map((s) => s.paint.colour.r)).toEqual([1, 0]);
      return g.transform.slice(0, 2).map((n) => Math.round(n / CM) + 0);
    };
    expect(await direction('0')).toEqual([0, 2]);
    expect(await direction('900')).toEqual([2, 0]);
  });
  test('a fill that fades is a gradient of one colour', async () => {
    const { item } = await one(
      `<draw:rect draw:style-name="g" ${BOX}/>`,
      'draw:fill="solid" draw:fill-color="#ff0000" draw:opacity-name="O"',
      '<draw:opacity draw:name="O" draw:style="linear" draw:start="100%" draw:end="0%"/>',
    );
    expect((item.fill as { gradient: { stops: { opacity: number }[] } }).gradient.stops.map((s) => s.opacity)).toEqual([1, 0]);
  });
  test('dashes are as long as they say, or so many times the line’s weight', async () => {
    const { item } = await one(
      '<draw:line draw:style-name="g" svg:x1="0cm" svg:y1="0cm" svg:x2="5cm" svg:y2="0cm"/>',
      'draw:stroke="dash" draw:stroke-dash="D" svg:stroke-width="2pt"',
      '<draw:stroke-dash draw:name="D" draw:dots1="1" draw:dots1-length="6pt" draw:dots2="2" draw:dots2-length="100%" draw:distance="3pt"/>',
    );
    expect(item.stroke!.dashes).toEqual([6, 3, 2, 3, 2, 3]);
  });
  test('text in a box is one item; text in another shape stands over it, joined with it', async () => {
    const box = await one(
      `<draw:rect draw:style-name="g" ${BOX}><text:p>Hello</text:p></draw:rect>`,
      'draw:fill="solid" draw:fill-color="#ffffff" fo:padding="0.1cm"',
    );
    expect([box.item.kind, (box.item as { inset: number[] }).inset[3]]).toEqual(['textFrame', expect.closeTo(0.1 * CM, 6)]);
    const round = await one(`<draw:circle draw:style-name="g" ${BOX}><text:p>Hello</text:p></draw:circle>`);
    expect(round.item.kind).toBe('group');
    const spread = round.folio.spreads[round.folio.head.spreadOrder[0]!]!;
    expect((round.item as { members: string[] }).members.map((m) => spread.items[m]!.kind)).toEqual(['shape', 'textFrame']);
  });
  test('custom shapes are drawn by their formulas', async () => {
    const { item } = await one(
      `<draw:custom-shape draw:style-name="g" svg:width="2cm" svg:height="1cm"><draw:enhanced-geometry svg:viewBox="0 0 100 100" draw:modifiers="25" draw:enhanced-path="M ?f0 0 L 100 100 0 100 Z N"><draw:equation draw:name="f0" draw:formula="$0*2"/></draw:enhanced-geometry></draw:custom-shape>`,
    );
    const { path } = item as Extract<Item, { kind: 'shape' }>;
    expect(path[0]).toEqual(['M', expect.closeTo(CM, 6), 0]);
    expect(path[1]).toEqual(['L', expect.closeTo(2 * CM, 6), expect.closeTo(CM, 6)]);
  });
  test('groups hold their members; an empty one is none', async () => {
    const { folio } = await one(`<draw:g draw:name="Two"><draw:rect ${BOX}/><draw:g/><draw:rect ${BOX}/></draw:g>`);
    expect(items(folio).map((i) => (i.kind === 'group' ? i.members.length : 0))).toEqual([2]);
  });
  test('z-index goes before the order in the file', async () => {
    const { folio } = await readFlat({
      pages: page(`<draw:rect draw:name="top" draw:z-index="1" ${BOX}/><draw:rect draw:name="bottom" draw:z-index="0" ${BOX}/>`),
    });
    expect(items(folio).map((i) => i.name)).toEqual(['bottom', 'top']);
  });
  test('what is pressed leads where it says: events and links around objects', async () => {
    const events = `<office:event-listeners><presentation:event-listener script:event-name="dom:click" presentation:action="next-page"/><script:event-listener script:language="x" script:event-name="dom:click"/></office:event-listeners>`;
    const { folio, record } = await readFlat({
      kind: 'presentation',
      pages: page(`<draw:rect ${BOX}>${events}</draw:rect><draw:a xlink:href="https://marrowby.example/"><draw:rect ${BOX}/></draw:a>`),
    });
    expect(items(folio).map((i) => Object.values(i.cues)[0]!.steps[0])).toEqual([
      { do: 'go', destination: { to: 'next' }, after: 0 },
      { do: 'go', destination: { to: 'address', href: 'https://marrowby.example/', window: 'same' }, after: 0 },
    ]);
    expect(record.notTaken.map((n) => n.what)).toEqual(['Program in the document']);
  });
  test('form controls become fields', async () => {
    const forms = `<office:forms><form:form><form:checkbox form:id="c" form:name="agree" form:label="Agreed" form:current-state="checked"/><form:listbox form:id="l" form:name="dome"><form:option form:label="East"/><form:option form:label="West" form:current-selected="true"/></form:listbox><form:image form:id="i"/></form:form></office:forms>`;
    const { folio, record } = await readFlat({
      pages: page(forms + ['c', 'l', 'i'].map((id) => `<draw:control draw:control="${id}" ${BOX}/>`).join('')),
    });
    expect(items(folio).map((i) => (i.kind === 'field' ? [i.fieldName, i.label, i.control] : null))).toEqual([
      ['agree', 'Agreed', { type: 'checkBox', on: true, value: 'yes' }],
      [
        'dome',
        'dome',
        {
          type: 'choice',
          options: [
            { value: 'East', label: 'East' },
            { value: 'West', label: 'West' },
          ],
          value: 'West',
        },
      ],
    ]);
    expect(record.notTaken.map((n) => n.what)).toEqual(['Form control']);
  });
  test('tables are texts with one table, spans and header rows kept', async () => {
    const cell = (text: string, more = ''): string => `<table:table-cell ${more}><text:p>${text}</text:p></table:table-cell>`;
    const table = `<table:table><table:table-column table:style-name="co" table:number-columns-repeated="2"/><table:table-header-rows><table:table-row>${cell('Head', 'table:number-columns-spanned="2"')}<table:covered-table-cell/></table:table-row></table:table-header-rows><table:table-row>${cell('a')}${cell('b')}</table:table-row></table:table>`;
    const { folio } = await readFlat({
      automatic:
        '<style:style style:name="co" style:family="table-column"><style:table-column-properties style:column-width="3cm"/></style:style>',
      pages: page(`<draw:frame ${BOX}>${table}</draw:frame>`),
    });
    const block = Object.values(Object.values(folio.stories)[0]!.blocks).find((b) => b.kind === 'table')!;
    expect([block.columns.map((c) => Math.round(c.width)), block.rows.length, block.headerRows]).toEqual([[85, 85], 2, 1]);
    expect(Object.values(block.cells).map((c) => [c.row, c.column, c.columns])).toEqual([
      [0, 0, 2],
      [1, 0, 1],
      [1, 1, 1],
    ]);
  });
  test('what cannot be taken over is named with its page', async () => {
    const { folio, record } = await readFlat({
      automatic: GR('draw:fill="gradient" draw:fill-gradient-name="H"'),
      styles: '<draw:gradient draw:name="H" draw:style="square" draw:start-color="#000000" draw:end-color="#ffffff"/>',
      pages:
        page('') +
        page(
          `<dr3d:scene ${BOX}/><draw:rect draw:style-name="g" ${BOX}/><draw:rect draw:style-name="g" ${BOX}/><draw:frame ${BOX}><draw:image xlink:href="https://marrowby.example/x.png"/></draw:frame>`,
        ),
    });
    expect(record.notTaken.map((n) => [n.what, n.page, n.outcome, n.times])).toEqual([
      ['Scene in three dimensions', 2, 'leftOut', 1],
      ['Gradient in the form of a square', 2, 'changed', 2],
      ['Linked picture', 2, 'leftOut', 1],
    ]);
    expect(items(folio, 1)).toHaveLength(2);
  });
  test('objects of other programs, and objects nobody knows, are named by what became of them', async () => {
    const { record } = await readFlat({
      pages: page(
        `<draw:frame ${BOX}><draw:object/></draw:frame><draw:frame ${BOX}><draw:plugin/></draw:frame><draw:future/><draw:page-thumbnail/>`,
      ),
    });
    expect(record.notTaken.map((n) => [n.what, n.outcome])).toEqual([
      ['Chart or object of another program', 'leftOut'],
      ['Sound or film', 'leftOut'],
      ['Object “future”', 'leftOut'],
    ]);
  });
  test('every element of ours is found again in the original', async () => {
    const { folio, record } = await readFlat({ pages: page(frame('<text:p>x</text:p>')) });
    for (const id of [items(folio)[0]!.id, paragraphs(folio)[0]!.id, folio.spreads[folio.head.spreadOrder[0]!]!.pages[0]!.id])
      expect(record.elements[id]).toMatch(/^content\.xml#(\/\d+)+$/);
  });
});

describe('page transitions (19.391–19.405; SMIL 3.0, 12.4)', () => {
  const read = async (properties: string) => {
    const { folio, record } = await readFlat({
      kind: 'presentation',
      automatic: `<style:style style:name="dp" style:family="drawing-page"><style:drawing-page-properties ${properties}/></style:style>`,
      pages: page('', 'draw:style-name="dp"'),
    });
    const { transition, advanceAfter } = folio.spreads[folio.head.spreadOrder[0]!]!.pages[0]!;
    return { transition, advanceAfter, says: record.notTaken.map((n) => n.what) };
  };
  test.each([
    ['smil:type="barWipe" smil:subtype="leftToRight" presentation:transition-speed="fast"', { style: 'wipe', direction: 0, seconds: 0.5 }],
    ['smil:type="barWipe" smil:subtype="topToBottom" smil:direction="reverse"', { style: 'wipe', direction: 90 }],
    ['smil:type="pushWipe" smil:subtype="fromBottom"', { style: 'push', direction: 90 }],
    ['smil:type="slideWipe" smil:subtype="fromRight"', { style: 'cover', direction: 180 }],
    ['smil:type="barnDoorWipe" smil:subtype="horizontal"', { style: 'split', axis: 'horizontal', motion: 'outward' }],
    ['smil:type="fade" smil:subtype="crossfade" presentation:transition-speed="slow"', { style: 'fade', seconds: 2 }],
    ['presentation:transition-style="fade-from-left"', { style: 'wipe', direction: 0, seconds: 1 }],
    ['presentation:transition-style="move-from-upperright"', { style: 'cover', direction: 225 }],
    ['presentation:transition-style="uncover-to-left"', { style: 'uncover', direction: 180 }],
    ['presentation:transition-style="close-vertical"', { style: 'split', axis: 'vertical', motion: 'inward' }],
    ['presentation:transition-style="dissolve"', { style: 'dissolve' }],
  ])('%s', async (properties, expected) => expect((await read(properties)).transition).toMatchObject(expected));

  test('pages that go by themselves, and a transition that has no counterpart', async () => {
    expect((await read('presentation:transition-type="automatic" presentation:duration="PT5S"')).advanceAfter).toBe(5);
    const odd = await read('smil:type="clockWipe" smil:subtype="clockwiseTwelve"');
    expect([odd.transition, odd.says]).toEqual([undefined, ['Page transition “clockWipe”']]);
  });
});

test('title, people, subjects and language come from the document’s own record', async () => {
  const { folio } = await readFlat({
    meta: '<dc:title>The hill</dc:title><meta:initial-creator>Ada Fenwick</meta:initial-creator><meta:keyword>dome</meta:keyword><dc:language>de-AT</dc:language>',
    pages: page(''),
  });
  expect(folio.head.metadata).toMatchObject({ title: 'The hill', creators: ['Ada Fenwick'], subjects: ['dome'], language: 'de-AT' });
});

describe('frames that text goes on in', () => {
  test('frames of a chain and with columns keep their size: more room would move the text; a single unseen one gets some', async () => {
    const box = (name: string, next = ''): string =>
      `<draw:frame draw:name="${name}" ${BOX}><draw:text-box ${next && `draw:chain-next-name="${next}"`}><text:p>${name}</text:p></draw:text-box></draw:frame>`;
    const { folio } = await readFlat({ pages: page(box('a', 'b') + box('b') + box('alone')) });
    const heights = items(folio).map((i) => Math.round((i as { size: { height: number } }).size.height / CM));
    expect(heights).toEqual([3, 3, 4]);
  });

  test('an initial has the look of the style that it names (16.27 style:drop-cap)', async () => {
    const styles =
      '<style:style style:name="red" style:family="text"><style:text-properties fo:color="#ff0000"/></style:style>' +
      '<style:style style:name="first" style:family="paragraph"><style:paragraph-properties><style:drop-cap style:lines="3" style:length="1" style:style-name="red"/></style:paragraph-properties></style:style>';
    const { folio } = await readFlat({ styles, pages: page(frame('<text:p text:style-name="first">Saturn</text:p>')) });
    const [p] = paragraphs(folio);
    const cap = resolveParagraph(folio.head, p!).paragraph.dropCapital!;
    expect([cap.lines, folio.head.characterStyles[cap.style!]!.name]).toEqual([3, 'red']);
  });
});
