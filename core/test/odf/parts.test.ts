import { describe, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { standInFor } from '../../src/compose/standIns.ts';
import { apply } from '../../src/folio/geometry.ts';
import type { Item } from '../../src/index.ts';
import { fieldOf } from '../../src/read/odf/forms.ts';
import { Layers } from '../../src/read/odf/layers.ts';
import { fillOf, shadowOf, strokeOf } from '../../src/read/odf/looks.ts';
import { Names } from '../../src/read/odf/names.ts';
import { NotTakenList } from '../../src/intake/notTaken.ts';
import { placementOf } from '../../src/read/odf/pictureLook.ts';
import { roomForText } from '../../src/read/odf/roomForText.ts';
import type { TextRoom } from '../../src/read/odf/roomForText.ts';
import { StyleSheet } from '../../src/read/odf/styleSheet.ts';
import { characterOf, languageOf, leadingFrom, paragraphOf } from '../../src/read/odf/textProperties.ts';
import type { XmlElement } from '../../src/packages/xmlTree.ts';
import { MASTER, packed, part, readBytes } from './support/flatFile.ts';

const element = (name: string, attributes: Record<string, string> = {}, children: XmlElement[] = []): XmlElement => ({
  name,
  attributes,
  children,
  path: '',
});

describe('looks (OpenDocument 1.3 part 3, 16.29)', () => {
  const sheet = new StyleSheet();
  sheet.take(
    element('office:styles', {}, [
      element('draw:gradient', { 'draw:name': 'axial', 'draw:style': 'axial', 'draw:start-color': '#ffffff', 'draw:end-color': '#000000' }),
      element('draw:gradient', {
        'draw:name': 'radial',
        'draw:style': 'radial',
        'draw:cx': '25%',
        'draw:cy': '50%',
        'draw:border': '20%',
        'draw:start-color': '#ffffff',
        'draw:start-intensity': '50%',
        'draw:end-color': '#000000',
      }),
      element('draw:gradient', {
        'draw:name': 'square',
        'draw:style': 'square',
        'draw:start-color': '#ffffff',
        'draw:end-color': '#000000',
      }),
    ]),
    false,
    'styles',
  );
  const box = { x: 0, y: 0, width: 80, height: 60 };
  const gradient = (name: string, list = new NotTakenList()) => {
    const { paint } = fillOf({ 'draw:fill': 'gradient', 'draw:fill-gradient-name': name }, sheet.definitions, box, list);
    if (paint.type !== 'gradient') throw new Error(paint.type);
    return paint.gradient;
  };
  const greys = (name: string): [number, number][] =>
    gradient(name).stops.map((s) => [s.offset, (s.paint as { colour: { r: number } }).colour.r]);

  test('an axial gradient runs to its middle and back', () => {
    expect(greys('axial')).toEqual([
      [0, 1],
      [0.5, 0],
      [1, 1],
    ]);
  });
  // The start colour is the outer one, at half its strength; the border keeps a fifth of the way for it.
  test('a radial gradient runs from the outside in, about its own centre, through the corners', () => {
    const { kind, transform } = gradient('radial');
    expect([kind, greys('radial')]).toEqual([
      'radial',
      [
        [0, 0],
        [0.8, 0.5],
      ],
    ]);
    expect(apply(transform, { x: 0, y: 0 })).toEqual({ x: 20, y: 30 });
    expect(Math.hypot(transform[0], transform[1])).toBeCloseTo(50, 9);
  });
  test('a square one is shown round, and that is said', () => {
    const list = new NotTakenList();
    gradient('square', list);
    expect(list.all().map((n) => n.outcome)).toEqual(['changed']);
  });
  test('a gradient that is not there is its plain colour; no fill is none', () => {
    const none = { 'draw:fill': 'gradient', 'draw:fill-gradient-name': 'gone', 'draw:fill-color': '#ff0000' };
    expect(fillOf(none, sheet.definitions, box, new NotTakenList()).paint).toMatchObject({ type: 'colour' });
    expect(fillOf({}, sheet.definitions, box, new NotTakenList()).paint).toEqual({ type: 'none' });
  });
  test('lines: none, a hairline, joins, ends with and without heads', () => {
    const of = (a: Record<string, string>) => strokeOf(a, sheet.definitions);
    expect([of({}), of({ 'draw:stroke': 'none' })]).toEqual([null, null]);
    expect(of({ 'draw:stroke': 'solid', 'svg:stroke-width': '0cm' })!.weight).toBe(0.25);
    expect(
      of({ 'draw:stroke': 'solid', 'draw:stroke-linejoin': 'bevel', 'draw:marker-start': 'Circle_20_1', 'draw:marker-end': 'Arrow' }),
    ).toMatchObject({ join: 'bevel', startMarker: 'circle', endMarker: 'arrow' });
  });
  test('shadows that are visible, and those that are not', () => {
    expect(shadowOf({ 'draw:shadow': 'hidden', 'draw:shadow-offset-x': '1cm' })).toEqual({});
    const shadow = {
      'draw:shadow': 'visible',
      'draw:shadow-offset-x': '3pt',
      'draw:shadow-offset-y': '-2pt',
      'draw:shadow-opacity': '40%',
    };
    expect(shadowOf(shadow).outerShadow).toMatchObject({ dx: 3, dy: -2, opacity: 0.4, blur: 0 });
  });
});

describe('pictures in their frames', () => {
  const at = (a: Record<string, string>, x: number, y: number) => {
    const p = apply(placementOf(a, 100, 50, { width: 200, height: 100 }), { x, y });
    return [Math.round(p.x * 1000) / 1000 + 0, Math.round(p.y * 1000) / 1000 + 0];
  };
  test('a whole picture fills its frame', () =>
    expect([at({}, 0, 0), at({}, 1, 1)]).toEqual([
      [0, 0],
      [100, 50],
    ]));
  // fo:clip (20.179): top, right, bottom, left of the picture's own size. A quarter of 200 is cut off on the left.
  test('what is cut off lies outside the frame; the rest fills it', () => {
    const cut = { 'fo:clip': 'rect(0pt, 0pt, 0pt, 50pt)' };
    expect([at(cut, 0.25, 0), at(cut, 1, 1), at(cut, 0, 0)]).toEqual([
      [0, 0],
      [100, 50],
      [-33.333, 0],
    ]);
  });
  test('a cut that leaves nothing is none; a mirrored picture is turned over in its frame', () => {
    expect(at({ 'fo:clip': 'rect(60pt, 0pt, 60pt, 0pt)' }, 1, 1)).toEqual([100, 50]);
    expect([at({ 'style:mirror': 'horizontal' }, 0, 0), at({ 'style:mirror': 'horizontal vertical' }, 1, 1)]).toEqual([
      [100, 0],
      [0, 0],
    ]);
  });

  test('files come in once each: PNG as it is, TIFF and drawings as pictures of their own, all with their sizes', async () => {
    const png = await sharp({ create: { width: 40, height: 20, channels: 3, background: '#336699' } })
      .png()
      .toBuffer();
    const tiff = await sharp(png).tiff().toBuffer();
    const svg = '<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10"><rect width="10" height="10" fill="#f00"/></svg>';
    const image = (name: string): string =>
      `<draw:frame svg:width="72pt" svg:height="72pt"><draw:image xlink:href="Pictures/${name}"/></draw:frame>`;
    const page = `<draw:page draw:master-page-name="M">${['a.png', 'a.png', 'b.tiff', 'c.svg'].map(image).join('')}</draw:page>`;
    const { folio, record, done } = await readBytes(
      'pictures.odg',
      packed({
        'content.xml': part('document-content', `<office:body><office:drawing>${page}</office:drawing></office:body>`),
        'styles.xml': part('document-styles', `<office:master-styles>${MASTER}</office:master-styles>`),
        'Pictures/a.png': new Uint8Array(png),
        'Pictures/b.tiff': new Uint8Array(tiff),
        'Pictures/c.svg': svg,
      }),
    );
    const shown = Object.values(Object.values(folio.spreads)[0]!.items).map((i: Item) => (i.kind === 'picture' ? i.media : null));
    expect([shown.length, new Set(shown).size]).toEqual([4, 3]);
    // A drawing an inch wide has as many pixels as print asks for.
    expect(Object.values(folio.head.media).map((m) => [m.mediaType, m.width])).toEqual([
      ['image/png', 40],
      ['image/jpeg', 40],
      ['image/png', 300],
    ]);
    expect(record.notTaken.map((n) => n.what)).toEqual(['Drawn picture (SVG)']);
    await done();
  });
});

describe('properties of text and paragraphs', () => {
  const faces = new Map([['F1', "'Marrowby Sans', sans"]]);
  test.each([
    [{ 'style:font-name': 'F1' }, { fontFamily: 'Marrowby Sans' }],
    [{ 'fo:font-size': '120%' }, { size: 12 }],
    [{ 'fo:letter-spacing': '1pt' }, { tracking: 100 }],
    [{ 'fo:text-transform': 'uppercase' }, { capitals: 'all' }],
    [{ 'fo:font-variant': 'small-caps' }, { capitals: 'small' }],
    [{ 'style:text-underline-style': 'none' }, { underline: null }],
    [{ 'style:text-position': '-33% 58%' }, { position: 'subscript' }],
    [{ 'style:text-position': '20% 100%' }, { baselineShift: 2 }],
    [{ 'style:use-window-font-color': 'true', 'fo:color': '#ff0000' }, {}],
    [{ 'style:text-scale': '90%' }, { horizontalScale: 0.9 }],
  ])('%j', (attributes, expected) => expect(characterOf(attributes as Record<string, string>, faces, 10)).toEqual(expected));

  test('languages, and texts in none', () => {
    expect([languageOf('de', 'AT'), languageOf('ja', 'none'), languageOf('zxx', 'none'), languageOf(undefined, 'GB')]).toEqual([
      'de-AT',
      'ja',
      undefined,
      undefined,
    ]);
  });
  test('a line is as high as it says, as its share of the font’s own, or at least so much', () => {
    expect(leadingFrom({ 'fo:line-height': '14pt' }, 10)).toBe(14);
    expect(leadingFrom({ 'fo:line-height': '200%' }, 10)! / leadingFrom({ 'fo:line-height': '100%' }, 10)!).toBeCloseTo(2, 9);
    expect([leadingFrom({ 'style:line-height-at-least': '30pt' }, 10), leadingFrom({}, 10)]).toEqual([30, undefined]);
  });
  test('start and end follow the direction; tabs are counted from the indent', () => {
    const rtl = paragraphOf({ 'style:writing-mode': 'rl-tb', 'fo:text-align': 'start' }, undefined);
    expect([rtl.direction, rtl.align]).toEqual(['rtl', 'right']);
    const stop = element('style:tab-stop', { 'style:position': '20pt', 'style:type': 'right', 'style:leader-style': 'dotted' });
    const properties = element('style:paragraph-properties', {}, [element('style:tab-stops', {}, [stop])]);
    expect(paragraphOf({ 'fo:margin-left': '10pt' }, properties).tabs).toEqual([{ at: 30, align: 'right', leader: '.' }]);
  });
  test('one border for all sides, keeps, breaks, drop capitals', () => {
    const properties = element('style:paragraph-properties', {}, [
      element('style:drop-cap', { 'style:lines': '3', 'style:length': 'word' }),
    ]);
    const of = paragraphOf(
      { 'fo:border': '1pt solid #ff0000', 'fo:padding': '2pt', 'fo:keep-with-next': 'always', 'fo:break-before': 'page' },
      properties,
    );
    expect(of).toMatchObject({
      border: { weight: 1, offset: 2 },
      keepWithNext: 1,
      breakBefore: 'page',
      dropCapital: { lines: 3, characters: 1 },
    });
  });
});

describe('room for text in frames that grow elsewhere', () => {
  const room: TextRoom = { size: { width: 100, height: 40 }, transform: [1, 0, 0, 1, 10, 20], inset: [5, 6, 7, 8], verticalAlign: 'top' };
  const middleOf = (r: TextRoom): number => r.transform[5] + r.size.height / 2;

  test('an unseen frame grows to where its text can: down, up, or both ways about its middle', () => {
    expect(roomForText(room, false, true, 'left')).toMatchObject({ size: { width: 100, height: 50 }, transform: room.transform });
    expect(roomForText({ ...room, verticalAlign: 'bottom' }, false, true, 'left').transform[5]).toBe(10);
    const centred: TextRoom = { ...room, verticalAlign: 'centre' };
    expect(middleOf(roomForText(centred, false, true, 'left'))).toBe(middleOf(centred));
  });
  test('lines that are not wrapped get width as well, on the side they run to', () => {
    const grown = (align: 'left' | 'centre' | 'right') => roomForText(room, false, false, align);
    expect(grown('left').size.width).toBeCloseTo(118, 9);
    expect([grown('left').transform[4], grown('centre').transform[4], grown('right').transform[4]].map((x) => +x.toFixed(6))).toEqual([
      10, 1, -8,
    ]);
  });
  test('a frame that is seen keeps its size, and gives up the inset its text needs', () => {
    expect(roomForText(room, true, true, 'left')).toMatchObject({ size: room.size, inset: [5, 6, 0, 8] });
    expect(roomForText({ ...room, verticalAlign: 'centre' }, true, true, 'left').inset).toEqual([0, 6, 2, 8]);
    expect(roomForText(room, true, false, 'centre').inset).toEqual([5, 0, 0, 2]);
  });
});

describe('form controls (chapter 13)', () => {
  test.each([
    [
      'form:radio',
      { 'form:name': 'dome', 'form:value': 'east', 'form:current-selected': 'true' },
      { type: 'radio', group: 'dome', value: 'east', on: true },
    ],
    ['form:textarea', { 'form:value': 'a', 'form:current-value': 'b' }, { type: 'text', lines: 'many', value: 'b' }],
    ['form:date', { 'form:value': '2026-03-06' }, { type: 'date', value: '2026-03-06' }],
    ['form:button', { 'form:label': 'Send' }, { type: 'button', caption: 'Send' }],
    // What was typed as a password is nobody's to publish.
    ['form:password', { 'form:current-value': 'secret' }, { type: 'text', lines: 'one', value: '' }],
  ])('%s', (name, attributes, control) => expect(fieldOf(element(name, attributes as Record<string, string>))!.control).toEqual(control));
  test('required, in order, with a label; what has no field of ours is none', () => {
    expect(
      fieldOf(element('form:text', { 'form:name': 'n', 'form:title': 'Name', 'form:input-required': 'true', 'form:tab-index': '2' })),
    ).toMatchObject({
      fieldName: 'n',
      label: 'Name',
      required: true,
      tabOrder: 2,
    });
    expect(fieldOf(element('form:frame'))).toBeNull();
  });
});

describe('layers', () => {
  const square = (id: string, layer: string, x: number): Item =>
    ({
      id,
      layer,
      kind: 'shape',
      transform: [1, 0, 0, 1, x, 0],
      path: [['M', 0, 0], ['L', 10, 0], ['L', 10, 10], ['L', 0, 10], ['Z']],
    }) as unknown as Item;
  const stack = (...items: Item[]) => ({ items: Object.fromEntries(items.map((i) => [i.id, i])), order: items.map((i) => i.id) });

  test('objects that do not touch say nothing about the order of their layers', () => {
    const layers = new Layers(undefined, new Names());
    const [a, b] = [layers.idOf('a'), layers.idOf('b')];
    expect(layers.order([stack(square('1', b, 0), square('2', a, 50))])).toEqual({ order: [a, b], against: [] });
    expect(layers.order([stack(square('1', b, 0), square('2', a, 5))])).toEqual({ order: [b, a], against: [] });
  });
  test('where pages disagree the fewer give way, and are told', () => {
    const layers = new Layers(undefined, new Names());
    const [a, b] = [layers.idOf('a'), layers.idOf('b')];
    const [up, down] = [stack(square('1', a, 0), square('2', b, 5)), stack(square('1', b, 0), square('2', a, 5))];
    expect(layers.order([up, down, up])).toEqual({ order: [a, b], against: [1] });
  });
});

// As wide letter by letter, or of the same kind; the document's own choice goes first.
test.each([
  ['Arial', {}, 'Arimo'],
  ['Times New Roman', {}, 'Tinos'],
  ['Courier New', {}, 'Cousine'],
  ['Calibri Light', {}, 'Carlito'],
  ['Liberation Mono', {}, 'Cousine'],
  ['Marrowby Hill', {}, undefined],
  ['Arial', { arial: 'Work Sans' }, 'Work Sans'],
])('what stands in for %s', (family, chosen, expected) => expect(standInFor(family, chosen as Record<string, string>)).toBe(expected));
