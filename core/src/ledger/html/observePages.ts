import type { Matrix, Path, Rect } from '../../folio/geometry.ts';
import { angleOf, apply, boundsOfPath, IDENTITY, multiply, transformRect, translation } from '../../folio/geometry.ts';
import type { PicturePort } from '../../ports/ports.ts';
import type { ObservedBlock, ObservedCell, ObservedDocument, ObservedPage, ObservedRun, ObservedShape } from '../observed.ts';
import { resolve } from './address.ts';
import type { TextFile } from './address.ts';
import { SIGNATURE_CELLS } from '../findings.ts';
import { mergeShapes } from '../mergeShapes.ts';
import { StyleRules, unquote } from './css.ts';
import type { Declarations } from './css.ts';
import { attribute, elementsOf, isElement, isText, parsePage, textOf } from './dom.ts';
import type { Element, Node } from './dom.ts';
import { observeMotion } from './observeMotion.ts';
import { readWebFont } from './fontFiles.ts';
import type { WebFont } from './fontFiles.ts';

const PT = 0.75;
const BLOCKS = new Set(['h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'p', 'li', 'blockquote']);
const INHERITED = ['font-family', 'font-size', 'color', 'line-height', 'letter-spacing', 'word-spacing'];

export interface HtmlFiles {
  /** Bytes of a file of the result, undefined where it is missing. */
  file(path: string): Promise<Uint8Array | undefined>;
  pictures: PicturePort;
}

/** What a file says of its looks: the rules of its style sheets, and their typefaces by family. */
interface Looks {
  rules: StyleRules;
  fonts: Map<string, WebFont>;
}

/** Reads pages back from the files of a result alone: what a browser would show, worked out from HTML and CSS. */
export async function observePages(texts: readonly TextFile[], files: HtmlFiles): Promise<ObservedDocument> {
  const looksOf = sheetReader(files);
  const out: ObservedDocument = { title: '', language: '', outline: [], pages: [], embedded: [], motion: new Map() };
  const embedded = new Set<string>();
  const addresses = new Map<string, number>();
  const pages: { path: string; looks: Looks; language: string; section: Element }[] = [];
  for (const { path, text } of texts) {
    const all = [...elementsOf(parsePage(text))];
    const looks = await looksOf(path, all);
    for (const f of looks.fonts.values()) embedded.add(f.postscriptName);
    await observeMotion(path, all, files.file, out.motion!);
    const root = all.find((e) => e.tagName === 'html');
    const language = (root && attribute(root, 'lang')) ?? '';
    out.language ||= language;
    const title = all.find((e) => e.tagName === 'title');
    out.title ||= title ? textOf(title) : '';
    for (const section of all) {
      if (section.tagName !== 'section' || !(attribute(section, 'class') ?? '').split(' ').includes('page')) continue;
      if (!addresses.has(path)) addresses.set(path, pages.length);
      for (const e of [section, ...elementsOf(section)])
        if (attribute(e, 'id') !== undefined) addresses.set(`${path}#${attribute(e, 'id')}`, pages.length);
      pages.push({ path, looks, language, section });
    }
  }
  for (const { path, looks, language, section } of pages) {
    out.pages.push(await new PageWalker(looks, path, addresses, files).read(section, language));
    for (const e of elementsOf(section))
      if (/^h[1-6]$/.test(e.tagName) && !(attribute(e, 'class') ?? '').includes('continued'))
        out.outline.push({ text: textOf(e), page: out.pages.length });
    // What was read is let go of: the elements of a long document take more than all else.
    section.childNodes = [];
  }
  return { ...out, embedded: [...embedded] };
}

/** Reads the style sheets of files; files that share theirs share what was read. */
function sheetReader(files: HtmlFiles): (path: string, all: readonly Element[]) => Promise<Looks> {
  const known = new Map<string, Looks>();
  return async (path, all) => {
    const sheets = all.flatMap((e): { path: string; css: string | null }[] => {
      if (e.tagName === 'style') return [{ path, css: textOf(e) }];
      const href = e.tagName === 'link' && attribute(e, 'rel') === 'stylesheet' ? resolve(path, attribute(e, 'href') ?? '') : null;
      return href ? [{ path: href.file, css: null }] : [];
    });
    const key = JSON.stringify(sheets);
    let looks = known.get(key);
    if (looks) return looks;
    known.set(key, (looks = { rules: new StyleRules(), fonts: new Map() }));
    for (const { path: sheet, css } of sheets) {
      looks.rules.add(css ?? new TextDecoder().decode((await files.file(sheet)) ?? new Uint8Array()));
      for (const face of looks.rules.fontFaces) {
        const source = looks.fonts.has(face.family) ? null : resolve(sheet, face.source);
        const bytes = source && (await files.file(source.file));
        const font = bytes && (await readWebFont(bytes));
        if (font) looks.fonts.set(face.family, font);
      }
    }
    return looks;
  };
}

interface Where {
  matrix: Matrix;
  style: Declarations;
  ancestors: Element[];
  language: string;
  hidden: boolean;
  block: ObservedBlock | null;
  cell: ObservedCell | null;
  link: string | undefined;
  z: number;
  /** The line box in force. */
  line: { height: number; pen: Pen; font: string; size: number; matrix: Matrix } | null;
}

/** The place along a line to which it is written. Most lines are of one piece: none is measured that nothing comes after. */
class Pen {
  private at = 0;
  private ahead: (() => number)[] = [];

  place(): number {
    for (const width of this.ahead.splice(0)) this.at += width();
    return this.at;
  }

  move(width: () => number): void {
    this.ahead.push(width);
  }
}

const lengthPx = (value: string | undefined): number => (value === undefined ? 0 : Number.parseFloat(value) || 0);

class PageWalker {
  private readonly blocks: ObservedBlock[] = [];
  private readonly tables: ObservedCell[][][] = [];
  private readonly loose: ObservedRun[] = [];
  private readonly shapes: (ObservedShape & { z: number })[] = [];
  private readonly images: { z: number; box: Rect; src: string; others: string[]; alt: string | undefined; block: ObservedBlock | null }[] =
    [];

  private readonly areas: ObservedPage['areas'] = [];
  private readonly parts: ObservedPage['parts'] = [];
  private readonly rules: StyleRules;
  private readonly fonts: Map<string, WebFont>;

  constructor(
    looks: Looks,
    private readonly path: string,
    /** Which page an address of the result is on. */
    private readonly addresses: ReadonlyMap<string, number>,
    private readonly files: HtmlFiles,
  ) {
    this.rules = looks.rules;
    this.fonts = looks.fonts;
  }

  async read(section: Element, language: string): Promise<ObservedPage> {
    const style = this.rules.styleOf(section, []);
    const start: Where = {
      matrix: IDENTITY,
      style: {},
      ancestors: [section],
      language,
      hidden: false,
      block: null,
      cell: null,
      link: undefined,
      z: 0,
      line: null,
    };
    for (const child of section.childNodes) this.visit(child, start);
    const pictures: ObservedPage['pictures'] = [];
    for (const image of this.images.sort((a, b) => a.z - b.z)) {
      // Of several sizes, every one must be there: which is shown, the reader's screen decides.
      const all = await Promise.all(
        [image.src, ...image.others].map(async (src) => {
          const at = resolve(this.path, src);
          return at ? this.files.file(at.file) : undefined;
        }),
      );
      const bytes = all.every((b) => b) ? all[0] : undefined;
      const picture = bytes ? await this.files.pictures.signature(bytes, SIGNATURE_CELLS).catch(() => new Uint8Array()) : new Uint8Array();
      pictures.push({ box: image.box, alt: image.alt, picture });
      if (image.block) image.block.picture = picture;
    }
    const shapes = mergeShapes(this.shapes.sort((a, b) => a.z - b.z).map(({ box, fill, stroke }) => ({ box, fill, stroke })));
    return {
      width: lengthPx(style['width']) * PT,
      height: lengthPx(style['height']) * PT,
      ...(this.isHidden(section) && { hidden: true }),
      blocks: this.blocks.filter((b) => b.text.trim() || b.role === 'figure'),
      pictures,
      shapes,
      tables: this.tables,
      loose: this.loose,
      areas: this.areas,
      parts: this.parts,
    };
  }

  /** Whether a rule keeps a page, or what it stands in, from being seen. */
  private isHidden(section: Element): boolean {
    const chain: Element[] = [];
    for (let e: Node | null = section; e && isElement(e); e = e.parentNode) chain.unshift(e);
    return chain.some((e, i) => {
      const style = this.rules.styleOf(e, chain.slice(0, i));
      return style['display'] === 'none' || style['visibility'] === 'hidden' || Number(style['opacity'] ?? 1) === 0;
    });
  }

  private visit(node: Node, at: Where): void {
    if (isText(node)) return this.text(node.value, at);
    if (!isElement(node)) return;
    const own = this.rules.styleOf(node, at.ancestors);
    const style: Declarations = {
      ...Object.fromEntries(INHERITED.flatMap((p) => (at.style[p] === undefined ? [] : [[p, at.style[p]]]))),
      ...own,
    };
    const inside: Where = {
      ...at,
      style,
      ancestors: [...at.ancestors, node],
      language: attribute(node, 'lang') ?? at.language,
      hidden: at.hidden || attribute(node, 'aria-hidden') === 'true',
      link: node.tagName === 'a' ? this.target(attribute(node, 'href')) : at.link,
      z: own['z-index'] === undefined ? at.z : Number(own['z-index']),
    };
    // What is hidden inside a paragraph is no part of it.
    if (attribute(node, 'aria-hidden') === 'true') inside.block = null;
    const note = attribute(node, 'role') === 'note';
    if ((BLOCKS.has(node.tagName) || note) && !inside.hidden) {
      inside.block = { role: note ? 'aside' : node.tagName, text: '', language: inside.language, runs: [] };
      this.blocks.push(inside.block);
    }
    if (!inside.hidden) this.table(node, inside);
    this.place(node, own, inside, at);
    if (node.tagName === 'a' && own['position'] === 'absolute' && inside.link !== undefined && !inside.hidden)
      this.area(own, inside, inside.link);
    if (node.tagName === 'svg') return this.svg(node, own, inside);
    if (node.tagName === 'img') return this.image(node, own, inside, at);
    // A film is seen and read as its still picture is.
    if (node.tagName === 'video' && attribute(node, 'poster') !== undefined) this.image(node, own, inside, at);
    if (attribute(node, 'role') === 'img')
      this.blocks.push({ role: 'figure', text: '', language: inside.language, runs: [], alt: attribute(node, 'aria-label') });
    for (const child of node.childNodes) this.visit(child, inside);
  }

  /** Tables by their elements (HTML, section 4.9). */
  private table(node: Element, inside: Where): void {
    const span = (name: string): number => Number(attribute(node, name) ?? 1);
    if (node.tagName === 'table') this.tables.push([]);
    else if (node.tagName === 'tr') this.tables[this.tables.length - 1]?.push([]);
    else if (node.tagName === 'th' || node.tagName === 'td') {
      inside.cell = { text: '', heading: node.tagName === 'th', rows: span('rowspan'), columns: span('colspan') };
      this.tables[this.tables.length - 1]?.at(-1)?.push(inside.cell);
    }
  }

  /** Moves into the coordinate space of a positioned element. */
  private place(node: Element, own: Declarations, inside: Where, at: Where): void {
    const [x, y] = [lengthPx(own['left']), lengthPx(own['top'])];
    if (own['position'] === 'relative' && at.line) {
      inside.line = { ...at.line, matrix: multiply(at.line.matrix, translation(0, y)) };
      return;
    }
    if (own['position'] !== 'absolute') return;
    const m = /matrix\(([^)]+)\)/
      .exec(own['transform'] ?? '')?.[1]
      ?.split(/[\s,]+/)
      .map(Number);
    inside.matrix = multiply(at.matrix, multiply(translation(x, y), m?.length === 6 ? (m as unknown as Matrix) : IDENTITY));
    if (own['white-space'] === 'pre') {
      const style = inside.style;
      inside.line = {
        height: lengthPx(style['line-height']),
        pen: new Pen(),
        font: style['font-family'] ?? '',
        size: lengthPx(style['font-size']),
        matrix: inside.matrix,
      };
    }
    const item = attribute(node, 'data-item');
    if (item === undefined || this.parts.some((p) => p.item === item)) return;
    this.parts.push({
      item,
      box: scaled(transformRect(inside.matrix, { x: 0, y: 0, width: lengthPx(own['width']), height: lengthPx(own['height']) })),
    });
  }

  private target(href: string | undefined): string | undefined {
    const inside = href === undefined ? null : resolve(this.path, href);
    const index = inside ? this.addresses.get(inside.id ? `${inside.file}#${inside.id}` : inside.file) : undefined;
    return index === undefined ? href : `page:${index + 1}`;
  }

  private text(value: string, at: Where): void {
    if (at.block) at.block.text += value;
    if (at.cell && at.block) at.cell.text += value;
    if (!value) return;
    if (!at.line) return this.flowing(value, at);
    const families = (at.style['font-family'] ?? '').split(',').map(unquote);
    const font = this.fonts.get(families[0] ?? '');
    const size = lengthPx(at.style['font-size']);
    const base = this.fonts.get(unquote(at.line.font.split(',')[0] ?? ''));
    // CSS 2.2, 10.8.1: half the leading above and below; ascent and descent are whole px in browsers.
    const [a, d] = base
      ? [Math.round(base.ascent * at.line.size), Math.round(base.descent * at.line.size)]
      : [at.line.size * 0.8, at.line.size * 0.2];
    const baseline = (at.line.height - (a + d)) / 2 + a;
    // Spaces at the ends of lines have no place that anybody sees.
    const p = value.trim() ? apply(at.line.matrix, { x: at.line.pen.place(), y: baseline }) : null;
    const { style } = at;
    at.line.pen.move(
      () =>
        (font ? font.width(value) * size : value.length * size * 0.5) +
        [...value].filter((c) => c === ' ' || c === '\u00A0').length * lengthPx(style['word-spacing']) +
        [...value].length * lengthPx(style['letter-spacing']),
    );
    const colour = at.style['color'] ?? '';
    const run: ObservedRun = {
      text: value,
      font: font?.postscriptName ?? families[0] ?? '',
      size: size * PT,
      colour: colour === 'transparent' ? 'drawn' : colour,
      start: p && { x: p.x * PT, y: p.y * PT },
      angle: angleOf(at.line.matrix),
      link: at.link,
      language: at.language,
    };
    if (at.block) at.block.runs.push(run);
    else this.loose.push(run);
  }

  /** Letters whose lines the browser breaks: they have a look, but no place that is known here. */
  private flowing(value: string, at: Where): void {
    if (!at.block || !value.trim()) return;
    const [family = ''] = (at.style['font-family'] ?? '').split(',').map(unquote);
    const colour = at.style['color'] ?? '';
    at.block.runs.push({
      text: value,
      font: this.fonts.get(family)?.postscriptName ?? family,
      size: lengthPx(at.style['font-size']) * PT,
      colour: colour === 'transparent' ? 'drawn' : colour,
      start: null,
      angle: angleOf(at.matrix),
      link: at.link,
      language: at.language,
    });
  }

  /** A link that is a place and has no text of its own. */
  private area(own: Declarations, { matrix }: Where, target: string): void {
    const box = { x: 0, y: 0, width: lengthPx(own['width']), height: lengthPx(own['height']) };
    this.areas.push({ box: scaled(transformRect(matrix, box)), target });
  }

  private image(node: Element, own: Declarations, inside: Where, at: Where): void {
    const isFilm = node.tagName === 'video';
    const fills = isFilm || own['width']?.endsWith('%');
    const holder = [...at.ancestors]
      .reverse()
      .map((e) => this.rules.styleOf(e, []))
      .find((s) => s['width']);
    const box = fills
      ? { x: 0, y: 0, width: lengthPx(holder?.['width']), height: lengthPx(holder?.['height']) }
      : { x: 0, y: 0, width: lengthPx(own['width']), height: lengthPx(own['height']) };
    const alt = attribute(node, isFilm ? 'aria-label' : 'alt');
    const onPage = scaled(transformRect(inside.matrix, box));
    const block: ObservedBlock | null = inside.hidden
      ? null
      : { role: 'figure', text: '', language: inside.language, runs: [], alt: alt ?? '', box: onPage };
    if (block) this.blocks.push(block);
    const others = (attribute(node, 'srcset') ?? '').split(',').flatMap((s) => s.trim().split(/\s/)[0] || []);
    this.images.push({ z: inside.z, box: onPage, src: attribute(node, isFilm ? 'poster' : 'src') ?? '', others, alt, block });
  }

  private svg(node: Element, own: Declarations, inside: Where): void {
    const view = (attribute(node, 'viewbox') ?? attribute(node, 'viewBox') ?? '').split(/\s+/).map(Number);
    const [w, h] = [lengthPx(attribute(node, 'width')), lengthPx(attribute(node, 'height'))];
    if (view.length !== 4 || !view[2] || !view[3]) return;
    const toBox: Matrix = [w / view[2], 0, 0, h / view[3], (-view[0]! * w) / view[2], (-view[1]! * h) / view[3]];
    const m = multiply(inside.matrix, toBox);
    for (const child of node.childNodes) {
      if (!isElement(child) || child.tagName !== 'path') continue;
      const ink = (name: string): string | null => {
        const v = attribute(child, name);
        return !v || v === 'none' ? null : v.startsWith('url(') ? 'gradient' : v;
      };
      const isGround = !inside.ancestors.some((e) => attribute(e, 'data-item') !== undefined);
      if (!isGround)
        this.shapes.push({
          z: inside.z,
          box: scaled(boundsOfPath(readPath(attribute(child, 'd') ?? ''), m)),
          fill: ink('fill'),
          stroke: ink('stroke'),
        });
    }
    void own;
  }
}

const scaled = (r: Rect): Rect => ({ x: r.x * PT, y: r.y * PT, width: r.width * PT, height: r.height * PT });

/** Path data of absolute M, L, C and Z, as SVG 2 (9.3) writes it. */
function readPath(d: string): Path {
  const path: Path = [];
  for (const [, letter, numbers] of d.matchAll(/([MLCZ])([^MLCZ]*)/g)) {
    const n = (numbers!.match(/-?(?:\d+(?:\.\d+)?|\.\d+)(?:e-?\d+)?/g) ?? []).map(Number);
    path.push([letter, ...n] as unknown as Path[number]);
  }
  return path;
}
