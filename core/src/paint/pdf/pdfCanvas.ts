import PDFDocument from 'pdfkit';
import type { GlyphRun } from '../../compose/marks.ts';
import type { Paint, SolidPaint, Swatch } from '../../folio/colour.ts';
import type { BlendMode, Stroke } from '../../folio/appearance.ts';
import type { Matrix, Path, Rect } from '../../folio/geometry.ts';
import { invert, pathData } from '../../folio/geometry.ts';
import { PdfColours } from './pdfColours.ts';
import { PageTree } from './pageTree.ts';
import { PdfLetters } from './pdfLetters.ts';
import { n } from './pdfkitParts.ts';
import type { Doc, MaskImage, StructContent, StructElement, StructOptions } from './pdfkitParts.ts';

export type { StructContent, StructElement } from './pdfkitParts.ts';

interface ElementInternals extends StructElement {
  dictionary: { data: Record<string, unknown> };
  _flushChild(child: unknown): void;
}
/** A group being drawn: its operators are gathered instead of going to the page. */
interface OpenGroup {
  form: { data: Record<string, unknown>; end(content: string): void };
  operators: string[];
  write: (chunk: unknown) => void;
  begin: Matrix;
}

const BLEND: Record<BlendMode, string> = {
  normal: 'Normal',
  multiply: 'Multiply',
  screen: 'Screen',
  overlay: 'Overlay',
  darken: 'Darken',
  lighten: 'Lighten',
  'color-dodge': 'ColorDodge',
  'color-burn': 'ColorBurn',
  'hard-light': 'HardLight',
  'soft-light': 'SoftLight',
  difference: 'Difference',
  exclusion: 'Exclusion',
  hue: 'Hue',
  saturation: 'Saturation',
  color: 'Color',
  luminosity: 'Luminosity',
};

export interface PdfInfo {
  title: string;
  language: string;
  author?: string | undefined;
  subject?: string | undefined;
  keywords?: string | undefined;
  created: Date;
}

/**
 * A PDF being drawn, in points with y down. The only place that knows pdfkit; what pdfkit has no call
 * for (exact glyph runs, blend modes, spot tints, page boxes) is written here as PDF operators.
 */
export class PdfCanvas {
  private readonly doc: Doc;
  private readonly colours: PdfColours;
  private readonly letters: PdfLetters;
  private readonly pages: PageTree;
  private readonly images = new Map<string, unknown>();
  private readonly inks = new Map<string, string>();
  private masks = 0;
  private readonly groups: OpenGroup[] = [];
  private readonly inForm = new WeakMap<object, { page: unknown; form: unknown }>();
  private readonly annotated = new WeakMap<object, unknown>();
  private groupCount = 0;
  /** What actions call the first page that was begun. */
  firstPage: unknown;
  private layerCount = 0;
  private readonly openLayers: unknown[] = [];
  private readonly atEnd: Record<string, unknown> = {};

  constructor(info: PdfInfo, swatches: Record<string, Swatch>) {
    this.doc = new PDFDocument({
      autoFirstPage: false,
      font: null as unknown as string,
      pdfVersion: '1.7',
      tagged: true,
      lang: info.language,
      displayTitle: true,
      compress: true,
      info: {
        Title: info.title,
        Creator: 'Elastic Folio',
        Producer: 'Elastic Folio',
        CreationDate: info.created,
        ModDate: info.created,
        ...(info.author && { Author: info.author }),
        ...(info.subject && { Subject: info.subject }),
        ...(info.keywords && { Keywords: info.keywords }),
      },
    }) as unknown as Doc;
    this.colours = new PdfColours(this.doc, swatches);
    this.letters = new PdfLetters(this.doc, this.colours);
    this.pages = new PageTree(this.doc);
  }

  get stream(): AsyncIterable<Uint8Array> {
    return this.doc as unknown as AsyncIterable<Uint8Array>;
  }

  end(): void {
    // Bookmarks ask to be shown when they are written: what the document says goes before.
    this.doc.endOutline();
    const { ViewerPreferences, ...entries } = this.atEnd;
    const { data } = this.doc._root;
    Object.assign(data, entries);
    // What is shown of the window is an object of its own already.
    Object.assign((data['ViewerPreferences'] as { data: object }).data, ViewerPreferences);
    // The form is written by hand, with looks that pdfkit's has not.
    this.doc.endOutline = this.doc.endAcroForm = () => undefined;
    this.pages.end();
    this.doc.end();
  }

  /** Begins a page of exactly this trim size, with bleed around it; the origin is the trim's top left. */
  addPage(width: number, height: number, bleed: number): void {
    this.doc.addPage({ size: [width + 2 * bleed, height + 2 * bleed], margin: 0 });
    this.pages.add(this.doc.page.dictionary);
    const { data } = this.doc.page.dictionary;
    this.firstPage ??= this.doc.page.dictionary;
    data['TrimBox'] = [bleed, bleed, bleed + width, bleed + height];
    if (bleed) data['BleedBox'] = [0, 0, width + 2 * bleed, height + 2 * bleed];
    data['Tabs'] = 'S';
    if (bleed) this.doc.translate(bleed, bleed);
  }

  save(): void {
    this.doc.save();
  }

  restore(): void {
    this.doc.restore();
  }

  transform(m: Matrix): void {
    this.doc.transform(...m);
  }

  clip(path: Path, rule: 'nonzero' | 'evenodd' = 'nonzero'): void {
    this.doc.path(pathData(path, 5)).clip(rule === 'evenodd' ? 'even-odd' : 'non-zero');
  }

  /** Opacity of what follows, for fills and strokes. */
  opacity(value: number): void {
    this.doc.opacity(value);
  }

  /** Blend mode of what follows (ISO 32000-1, 11.3.5). */
  blend(mode: BlendMode): void {
    const name = `Bm${BLEND[mode]}`;
    const state = (this.inks.get(name) as unknown as { end(): void } | undefined) ?? this.doc.ref({ Type: 'ExtGState', BM: BLEND[mode] });
    if (!this.inks.has(name)) {
      this.inks.set(name, state as unknown as string);
      state.end();
    }
    this.doc.page.ext_gstates[name] = state;
    this.doc.addContent(`/${name} gs`);
  }

  fill(path: Path, paint: Paint, rule: 'nonzero' | 'evenodd'): void {
    if (paint.type === 'none') return;
    this.colours.set(paint, false);
    this.doc.path(pathData(path, 5));
    this.doc.addContent(rule === 'evenodd' ? 'f*' : 'f');
  }

  stroke(path: Path, stroke: Stroke): void {
    if (stroke.paint.type === 'none' || stroke.weight <= 0) return;
    this.colours.set(stroke.paint, true);
    this.doc.lineWidth(stroke.weight).lineCap(stroke.cap).lineJoin(stroke.join).miterLimit(stroke.miterLimit);
    this.doc.addContent(stroke.dashes.length ? `[${stroke.dashes.map((d) => n(d)).join(' ')}] 0 d` : '[] 0 d');
    this.doc.path(pathData(path, 5)).stroke();
  }

  /** A picture that fills the unit square under the matrix in force; pictures of one key are embedded once. */
  image(key: string, bytes: Uint8Array): void {
    let image = this.images.get(key);
    if (!image) this.images.set(key, (image = this.doc.openImage(Buffer.from(bytes))));
    this.doc.image(image as string, 0, 0, { width: 1, height: 1 });
  }

  /**
   * What follows is shown only as far as a grey picture lets it: white whole, black not at all (ISO 32000-1, 11.5.3,
   * a soft mask by luminosity). The picture fills `box` in the space in force.
   */
  softMask(key: string, bytes: Uint8Array, box: Rect): void {
    let image = this.images.get(key) as MaskImage | undefined;
    if (!image) this.images.set(key, (image = this.doc.openImage(Buffer.from(bytes)) as MaskImage));
    if (!image.obj) image.embed(this.doc);
    const name = `Sm${(this.masks += 1)}`;
    const form = this.doc.ref({
      Type: 'XObject',
      Subtype: 'Form',
      BBox: [box.x, box.y, box.x + box.width, box.y + box.height],
      Group: { Type: 'Group', S: 'Transparency', CS: 'DeviceGray' },
      Resources: { XObject: { Im: image.obj } },
    });
    form.end(`q ${n(box.width)} 0 0 ${n(-box.height)} ${n(box.x)} ${n(box.y + box.height)} cm /Im Do Q`);
    const state = this.doc.ref({ Type: 'ExtGState', SMask: { Type: 'Mask', S: 'Luminosity', G: form } });
    state.end();
    this.doc.page.ext_gstates[name] = state;
    this.doc.addContent(`/${name} gs`);
  }

  /** What follows, up to `endGroup`, is painted as one picture first (ISO 32000-1, 11.6.6, a transparency group). */
  beginGroup(): void {
    const { page } = this.doc;
    const key = this.doc.createStructParentTreeNextKey();
    this.doc.getStructParentTree().add(key, []);
    const form = this.doc.ref({
      Type: 'XObject',
      Subtype: 'Form',
      BBox: [0, 0, page.width, page.height],
      Group: { Type: 'Group', S: 'Transparency', I: true },
      Resources: page.resources,
      StructParents: key,
    });
    const operators: string[] = [];
    const begin = [...this.doc._ctm] as unknown as Matrix;
    this.groups.push({ form, operators, write: page.write, begin });
    page.write = (chunk) => void operators.push(String(chunk));
    this.doc.addContent(`${begin.map((v) => n(v)).join(' ')} cm`);
  }

  /** Lays a group on the page, or on the group around it. */
  endGroup(opacity: number, blend: BlendMode, cover: { key: string; bytes: Uint8Array; box: Rect } | null): void {
    const { form, operators, write, begin } = this.groups.pop()!;
    const { page } = this.doc;
    page.write = write;
    form.end(operators.join('\n'));
    const name = `Gr${(this.groupCount += 1)}`;
    page.xobjects[name] = form;
    this.save();
    if (cover) this.softMask(cover.key, cover.bytes, cover.box);
    if (opacity !== 1) this.opacity(opacity);
    if (blend !== 'normal') this.blend(blend);
    // The group's own space is the page's: gradients, which are placed in it, stay where they are.
    const back = invert(begin);
    if (back) this.doc.addContent(`${back.map((v) => n(v)).join(' ')} cm /${name} Do`);
    this.restore();
  }

  /** A filled rectangle in a solid colour: underlines and strikes. */
  bar(box: Rect, paint: SolidPaint): void {
    this.colours.setSolid(paint, false);
    this.doc.addContent(`${n(box.x)} ${n(box.y)} ${n(box.width)} ${n(box.height)} re f`);
  }

  /** A run of letters at a baseline, as live text (`PdfLetters.show`). */
  glyphs(run: GlyphRun, x: number, baseline: number, spaceAfter: boolean): void {
    this.letters.show(run, x, baseline, spaceAfter);
  }

  /** The same as shapes, for a font that may not be embedded. */
  outlines(run: GlyphRun, x: number, baseline: number): void {
    this.letters.outlines(run, x, baseline);
  }

  artifact(draw: () => void): void {
    this.doc.markContent('Artifact', { type: 'Layout' });
    draw();
    this.doc.endMarkedContent();
  }

  /** Draws what another page of the file shows as well, and is read there: marked so that it is not counted twice. */
  repeated(draw: () => void): void {
    this.doc.addContent('/Repeated BMC');
    draw();
    this.doc.addContent('EMC');
  }

  /** Draws content that belongs to the structure tree and gives the handle to hang it there. */
  content(tag: string, draw: () => void): StructContent {
    const content = this.doc.markStructureContent(tag);
    const group = this.groups[this.groups.length - 1];
    if (group) this.moveToForm(content, group);
    draw();
    this.doc.endMarkedContent();
    return content;
  }

  /**
   * Content inside a group belongs to the group's stream, not to the page's (ISO 32000-1, 14.7.4.2). Ids stay the
   * page's, so that they are unique, and the page's list of parents keeps it too: some readers look only there.
   */
  private moveToForm(content: StructContent, { form }: OpenGroup): void {
    const [ref] = content.refs;
    const parents = this.doc.getStructParentTree().get(form.data['StructParents'] as number);
    while (parents.length <= ref!.mcid) parents.push(null);
    this.inForm.set(content, { page: ref!.pageRef, form });
    content.refs.push({ pageRef: form, mcid: ref!.mcid });
  }

  element(type: string, options: StructOptions = {}): StructElement {
    const { cell, ...rest } = options;
    const element = this.doc.struct(type, rest) as ElementInternals;
    if (cell)
      element.dictionary.data['A'] = {
        O: 'Table',
        ...(cell.scope && { Scope: cell.scope }),
        ...(cell.rows > 1 && { RowSpan: cell.rows }),
        ...(cell.columns > 1 && { ColSpan: cell.columns }),
      };
    const flush = element._flushChild.bind(element);
    element._flushChild = (child) => {
      const { annotationRef } = child as { annotationRef?: object };
      const page = annotationRef && this.annotated.get(annotationRef);
      // pdfkit takes the page that is being painted, which may be a later one by now.
      if (page) return void (element.dictionary.data['K'] as unknown[]).push({ Type: 'OBJR', Obj: annotationRef, Pg: page });
      const at = this.inForm.get(child as object);
      if (!at) return flush(child);
      const { data } = element.dictionary;
      data['Pg'] ??= at.page;
      (data['K'] as unknown[]).push({ Type: 'MCR', Pg: at.page, Stm: at.form, MCID: (child as StructContent).refs[0]!.mcid });
    };
    return element;
  }

  addRoot(element: StructElement): void {
    this.doc.addStructure(element);
  }

  /** A place links can lead to: the top of the current page. */
  nameThisPage(name: string): void {
    this.doc.addNamedDestination(name, 'Fit');
  }

  linkTo(box: Rect, target: { href: string } | { page: string }, contents: string, element: StructElement): void {
    const options = {
      ...this.layered(),
      structParent: element,
      Contents: new String(contents),
      Border: [0, 0, 0],
    } as unknown as PDFKit.Mixins.AnnotationOption;
    if ('href' in target) this.doc.link(box.x, box.y, box.width, box.height, target.href, options);
    else this.doc.goTo(box.x, box.y, box.width, box.height, target.page, options);
    this.noteAnnotation();
  }

  /** A place of the page that can be filled in, with its element in the structure tree; gives its object. */
  widget(box: Rect, data: Record<string, unknown>, element: StructElement): unknown {
    const options = {
      ...this.layered(),
      ...data,
      Subtype: 'Widget',
      structParent: element,
      Border: [0, 0, 0],
    } as unknown as PDFKit.Mixins.AnnotationOption;
    this.doc.annotate(box.x, box.y, box.width, box.height, options);
    return this.noteAnnotation();
  }

  /** An annotation of some kind (ISO 32000-1, 12.5), in an object that may be known already. */
  annotation(box: Rect, data: Record<string, unknown>, element: StructElement, ref = this.object({})): void {
    const { doc } = this;
    const make = doc.ref;
    // pdfkit makes the object itself, and knows it again in the structure tree by that.
    doc.ref = (entries) => {
      doc.ref = make;
      Object.assign(ref.data, entries);
      return ref;
    };
    const options = { F: 4, P: doc.page.dictionary, ...data, structParent: element } as unknown as PDFKit.Mixins.AnnotationOption;
    doc.annotate(box.x, box.y, box.width, box.height, options);
    this.noteAnnotation();
  }

  /** Takes note of the page that the last annotation is on; gives its object. */
  private noteAnnotation(): unknown {
    const ref = this.doc.page.annotations.at(-1);
    if (ref) this.annotated.set(ref, this.doc.page.dictionary);
    return ref;
  }

  /** Draws what is seen only while a group of optional content is (8.11.3.2). */
  inLayer(group: unknown, draw: () => void): void {
    const name = `Oc${(this.layerCount += 1)}`;
    const { data } = this.doc.page.resources as { data: { Properties?: Record<string, unknown> } };
    (data.Properties ??= {})[name] = group;
    this.doc.addContent(`/OC /${name} BDC`);
    this.openLayers.push(group);
    draw();
    this.openLayers.pop();
    this.doc.addContent('EMC');
  }

  /** What is drawn, as a form of its own (8.10) that is laid over a box of the page: the look of a field. */
  captured(box: Rect, draw: () => void): unknown {
    const { page } = this.doc;
    const BBox = this.doc._convertRect(box.x, box.y, box.width, box.height);
    const form = this.doc.ref({ Type: 'XObject', Subtype: 'Form', BBox, Resources: page.resources });
    const operators: string[] = [];
    const { write } = page;
    page.write = (chunk) => void operators.push(String(chunk));
    this.doc.addContent(`${this.doc._ctm.map((v) => n(v)).join(' ')} cm`);
    try {
      draw();
    } finally {
      page.write = write;
    }
    form.end(operators.join('\n'));
    return form;
  }

  /** What is pressed or filled in inside a layer is there only while that is seen (8.11.3.3). */
  private layered(): Record<string, unknown> {
    return this.openLayers.length ? { OC: this.openLayers.at(-1) } : {};
  }

  /** A file inside the file (7.11.4), which reading programs also list; gives its specification. */
  file(name: string, mediaType: string, bytes: Uint8Array, description: string): unknown {
    return this.doc.file(Buffer.from(bytes), { name, type: mediaType, description, relationship: 'Supplement' } as never);
  }

  /** An object of the file's own, to be ended by who asked for it. */
  object(data: Record<string, unknown>): { data: Record<string, unknown>; end(content?: string): void } {
    return this.doc.ref(data);
  }

  /** Entries of the page that is being painted (ISO 32000-1, table 30). */
  pageEntries(entries: Record<string, unknown>): void {
    Object.assign(this.doc.page.dictionary.data, entries);
  }

  /** Entries of the document's catalog (table 28), which are the last word on them. */
  catalog(entries: Record<string, unknown>): void {
    Object.assign(this.atEnd, entries);
  }

  /** Adds a bookmark to a page of the file, counted from none; gives the handle to nest others under. */
  bookmark(parent: unknown, title: string, page: number, top: number): unknown {
    const holder = (parent ?? this.doc.outline) as { addItem(t: string, o: Record<string, unknown>): unknown };
    return holder.addItem(title, { expanded: true, pageNumber: page, left: this.doc.page.width, top });
  }
}
