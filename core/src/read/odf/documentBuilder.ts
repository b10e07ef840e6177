import { parse } from 'node:path';
import type { z } from 'zod';
import type { Folio } from '../../folio/folio.ts';
import { Structure } from '../../folio/head.ts';
import type { Item } from '../../folio/items.ts';
import { instanceId } from '../../folio/masters.ts';
import { IDENTITY, rectPath } from '../../folio/geometry.ts';
import type { Spread } from '../../folio/spread.ts';
import { Cancelled, FolioError } from '../../ports/ports.ts';
import { sketchOf } from '../../intake/pageSketch.ts';
import type { LoadedFolio, ReadJob } from '../../intake/reader.ts';
import { chainedIn, joinChains } from './chains.ts';
import type { ReadText } from './chains.ts';
import { controlsIn } from './forms.ts';
import { familiesByName, fontFaces, fontsWithoutFiles, readFonts, standInsFor } from './fonts.ts';
import { ItemBuilder } from './itemBuilder.ts';
import type { ShapeContext } from './itemBuilder.ts';
import { animationsOf } from './animations.ts';
import { PicturesInLines } from './inLines.ts';
import { Layers } from './layers.ts';
import { Links } from './links.ts';
import { fillOf } from './looks.ts';
import { readMetadata } from './metadata.ts';
import { Names } from './names.ts';
import { NotTakenList } from '../../intake/notTaken.ts';
import type { NotTaken } from '../../intake/notTaken.ts';
import type { OdfPackage } from './odfPackage.ts';
import { Pictures } from './pictures.ts';
import { ParagraphLooks } from './paragraphLooks.ts';
import { PLAIN_PAGE, pageSize } from './pageSize.ts';
import { ShapeReader } from './shapeReader.ts';
import { StyleBook } from './styleBook.ts';
import { StyleSheet } from './styleSheet.ts';
import type { Scope } from './styleSheet.ts';
import { readTableInto } from './tableReader.ts';
import { languageOf } from './textProperties.ts';
import { TextReader } from './textReader.ts';
import { listUnseen, motionOf } from './transitions.ts';
import { childOf, childrenOf, countInside, textOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

type ItemInput = z.input<typeof Item>;
type SpreadInput = z.input<typeof Spread>;
type Attributes = Record<string, string>;

const MOST_PAGES = 5000;
/** Forty on each of so many pages. */
const MOST_PARAGRAPHS = 200_000;
const PARAGRAPHS = new Set(['text:p', 'text:h']);

interface Master {
  id: string;
  element: XmlElement;
  page: Attributes;
  size: { width: number; height: number };
  items: Record<string, ItemInput>;
  order: string[];
  /** Fields of its head and foot, with the items that the page number's are. */
  fields: { kind: string; element: XmlElement; items: string[] }[];
  /** Whether some page shows its number. */
  numbered?: boolean;
}
export interface Built {
  folio: z.input<typeof Folio>;
  files: LoadedFolio['files'];
  elements: Record<string, string>;
  notTaken: NotTaken[];
}

/** Objects of a master page that stand for places which pages fill, and are seen on none. */
const PLACES = /^(title|outline|subtitle|text|graphic|object|chart|table|orgchart|page|notes|handout)$/;
const FIELDS: Record<string, string> = {
  header: 'display-header',
  footer: 'display-footer',
  'date-time': 'display-date-time',
  'page-number': 'display-page-number',
};

/** Puts a document together from an opened package: masters, pages, texts, and what they need. */
export class DocumentBuilder {
  private readonly names = new Names();
  private readonly notTaken = new NotTakenList();
  private readonly sheet = new StyleSheet();
  private readonly book: StyleBook;
  private readonly looks: ParagraphLooks;
  private readonly pictures: Pictures;
  private readonly layers: Layers;
  private readonly elements: Record<string, string> = {};
  private readonly masters = new Map<string, Master>();
  private readonly links: Links;
  /** Items by the ids that their elements have. */
  private readonly itemIds = new Map<string, string>();
  /** What elements with ids of their own became, back to front. */
  private readonly standing = new Map<string, readonly string[]>();
  private readonly decorations: string[] = [];
  private readonly inLines = new PicturesInLines(this.notTaken);
  private readonly path: { spread: string; item: string }[] = [];
  private readonly texts: ReadText[] = [];
  private readonly language: string;
  private readonly body: XmlElement;
  /** Names of frames in which the text of others goes on. */
  private readonly chained: ReadonlySet<string>;

  constructor(
    private readonly source: OdfPackage,
    private readonly job: ReadJob,
  ) {
    const { content, styles, kind } = source;
    const body = childOf(childOf(content, 'office:body'), kind === 'drawing' ? 'office:drawing' : 'office:presentation');
    if (!body)
      throw new FolioError('odf.noBody', `The file says it is a ${kind}, but holds none.`, 'Save it again with the program it came from.');
    this.body = body;
    this.chained = chainedIn(body);
    this.links = new Links(body, this.names, this.notTaken);
    const flat = styles === content;
    this.sheet.take(childOf(styles ?? undefined, 'office:styles'), false, 'styles');
    this.sheet.take(childOf(styles ?? undefined, 'office:automatic-styles'), true, 'styles');
    this.sheet.take(childOf(content, 'office:automatic-styles'), true, 'content');
    if (!flat) this.sheet.take(childOf(content, 'office:styles'), false, 'content');
    const text = this.sheet.default('graphic')['text'] ?? this.sheet.default('paragraph')['text'] ?? {};
    this.language = languageOf(text['fo:language'], text['fo:country']) ?? 'en';
    this.book = new StyleBook(this.sheet, familiesByName(fontFaces([content, styles])), this.names, this.language);
    this.looks = new ParagraphLooks(this.sheet, this.book);
    this.pictures = new Pictures(job, source, this.names, this.notTaken);
    this.layers = new Layers(childOf(childOf(styles ?? undefined, 'office:master-styles'), 'draw:layer-set'), this.names);
  }

  async build(): Promise<Built> {
    const pages = childrenOf(this.body, 'draw:page');
    if (!pages.length) throw new FolioError('odf.noPages', 'The file has no pages.', 'Choose one that has.');
    if (pages.length > MOST_PAGES)
      throw new FolioError(
        'odf.tooManyPages',
        `The file has ${pages.length} pages; at most ${MOST_PAGES} are read.`,
        'Divide it into several files, and bring in each.',
      );
    const paragraphs = countInside(this.body, PARAGRAPHS);
    if (paragraphs > MOST_PARAGRAPHS)
      throw new FolioError(
        'odf.tooManyParagraphs',
        `The file has ${paragraphs} paragraphs; at most ${MOST_PARAGRAPHS} are read.`,
        'Divide it into several files, and bring in each.',
      );
    pages.forEach((page, i) => {
      const id = this.names.free('page', page.attributes['xml:id'] ?? page.attributes['draw:id'] ?? page.attributes['draw:name']);
      for (const name of [page.attributes['draw:name'], page.attributes['xml:id'], page.attributes['draw:id'], `page${i + 1}`])
        if (name !== undefined && !this.links.pages.has(name)) this.links.pages.set(name, id);
      this.links.pages.set(`#${i}`, id);
    });
    const masterStyles = childOf(this.source.styles ?? undefined, 'office:master-styles');
    for (const element of masterStyles ? childrenOf(masterStyles, 'style:master-page') : []) await this.master(element);
    const spreads: Spread[] = [];
    for (const [i, page] of pages.entries()) {
      if (this.job.signal?.aborted) throw new Cancelled();
      this.notTaken.page = i + 1;
      // Checked once, with the whole document.
      spreads.push((await this.page(page, i)) as Spread);
      this.job.progress?.(i + 1, pages.length, page.attributes['draw:name'] ?? '');
      this.job.pageRead?.(sketchOf(spreads[i]!, i + 1, {}), pages.length);
    }
    this.notTaken.page = undefined;
    return this.assemble(spreads);
  }

  /** Page numbers that no page shows: the master page has none. */
  private dropHidden(): void {
    for (const master of this.masters.values())
      for (const { kind, items } of master.numbered ? [] : master.fields)
        for (const id of kind === 'page-number' ? items : []) {
          delete master.items[id];
          master.order = master.order.filter((other) => other !== id);
          const at = this.texts.findIndex((t) => t.home !== null && t.place.item === id);
          if (at >= 0) this.texts.splice(at, 1);
        }
  }

  private async assemble(spreads: Spread[]): Promise<Built> {
    this.dropHidden();
    const { order, against } = this.layers.order(spreads.map((s) => this.stackOf(s)));
    for (const n of against) {
      this.notTaken.page = n + 1;
      this.notTaken.add(
        'changed',
        'Stacking across layers',
        'objects of two layers lie under and over one another here; whole layers do now',
      );
    }
    this.notTaken.page = undefined;
    this.links.settle(
      this.texts.map((t) => t.content),
      spreads,
    );
    const stories = joinChains(this.texts, this.names, this.notTaken);
    const faces = fontFaces([this.source.content, this.source.styles]);
    const { fonts, files } = await readFonts(faces, this.source.files, this.names);
    for (const [path, file] of this.pictures.files) files.set(path, file);
    const masterPages = Object.fromEntries(
      [...this.masters.values()].map(({ id, element, items, order: inside }) => [
        id,
        { id, name: element.attributes['style:display-name'] ?? element.attributes['style:name'] ?? id, items, order: inside },
      ]),
    );
    if (!order.length) order.push(this.layers.idOf());
    return {
      folio: {
        head: {
          formatVersion: 1,
          id: this.names.free('document'),
          metadata: readMetadata(this.source.meta, this.language, parse(this.job.name ?? this.job.file).name),
          layers: this.layers.layers,
          layerOrder: order as [string],
          ...this.book.head,
          fonts: { ...fonts, ...fontsWithoutFiles([this.book.head, stories, masterPages], fonts, this.names) },
          standIns: standInsFor(faces),
          media: this.pictures.media,
          masterPages,
          spreadOrder: spreads.map((s) => s.id) as [string],
          storyOrder: stories.filter((s) => s.frames.length).map((s) => s.id),
          structure: Structure.parse({
            strands: this.path.length ? [{ id: this.names.free('strand'), name: 'Order of the file', entries: this.path }] : [],
            decorations: this.decorations,
          }),
        },
        spreads: Object.fromEntries(spreads.map((s) => [s.id, s])),
        stories: Object.fromEntries(stories.map((s) => [s.id, s])),
      },
      files,
      elements: this.elements,
      notTaken: this.notTaken.all(),
    };
  }

  /** What stands on a page, its master's items behind its own. */
  private stackOf(spread: Spread): Pick<Spread, 'items' | 'order'> {
    const page = spread.pages[0]!;
    const master = page.showMaster ? [...this.masters.values()].find((m) => m.id === page.master) : undefined;
    if (!master) return spread;
    return { items: { ...(master.items as Spread['items']), ...spread.items }, order: [...master.order, ...spread.order] };
  }

  /** What readers of shapes and texts need, for a page or a master page. */
  private context(
    home: string,
    controls: ReadonlyMap<string, XmlElement>,
    scope: Scope,
    declared: (field: string) => string | undefined,
  ): ShapeContext {
    return {
      sheet: this.sheet,
      book: this.book,
      looks: this.looks,
      names: this.names,
      notTaken: this.notTaken,
      pictures: this.pictures,
      controls,
      declared,
      table: (element, style, content) => readTableInto(element, this.context(home, controls, scope, declared), style, content),
      layer: (name) => this.layers.idOf(name),
      origin: (id, element) => {
        this.elements[id] = `${scope === 'styles' ? 'styles.xml' : 'content.xml'}#${element.path}`;
        const own = element.attributes['xml:id'] ?? element.attributes['draw:id'];
        if (own !== undefined && !this.itemIds.has(own)) this.itemIds.set(own, id);
      },
      destination: (href, window) => this.links.destination(href, window),
      inLine: (element, anchor, content) => this.inLines.wait(element, anchor, content),
      mark: (name, paragraph) => this.links.mark(name, paragraph),
      story: (content, place) => void this.texts.push({ content, place, home }),
      stands: (element, items) => {
        for (const own of [element.attributes['xml:id'], element.attributes['draw:id']])
          if (own !== undefined && !this.standing.has(own)) this.standing.set(own, items);
      },
      decoration: (item) => void this.decorations.push(item),
      isChained: (name) => name !== undefined && this.chained.has(name),
    };
  }

  private async master(element: XmlElement): Promise<void> {
    const a = element.attributes;
    const name = a['style:name'] ?? '';
    const id = this.names.free('master', a['style:display-name'] ?? name);
    const layout = pageSize(this.source.styles, a['style:page-layout-name']);
    const master: Master = {
      id,
      element,
      page: this.sheet.resolve('drawing-page', a['draw:style-name'], 'styles')['drawing-page'] ?? {},
      size: layout,
      items: {},
      order: [],
      fields: [],
    };
    const passed = (e: XmlElement): boolean =>
      e.attributes['presentation:placeholder'] === 'true' || PLACES.test(e.attributes['presentation:class'] ?? '');
    const reader = new ShapeReader(
      this.context(id, new Map(), 'styles', () => undefined),
      'styles',
      passed,
    );
    for (const child of childrenOf(element)) {
      const kind = child.attributes['presentation:class'];
      if (kind !== undefined && kind !== 'page-number' && FIELDS[kind]) {
        // Pages show these with texts of their own: they become items of the pages.
        master.fields.push({ kind, element: child, items: [] });
        continue;
      }
      const made = await reader.readAll({ ...element, children: [child] });
      for (const item of made.items) master.items[item.id] = item;
      for (const one of made.top) master.order.push(one);
      if (kind === 'page-number') master.fields.push({ kind, element: child, items: made.top });
    }
    await this.inLines.settle(reader);
    this.masters.set(name, master);
  }

  private async page(element: XmlElement, index: number): Promise<SpreadInput> {
    const a = element.attributes;
    const id = this.links.pages.get(`#${index}`)!;
    const spreadId = this.names.free('spread', `s${index + 1}`);
    this.elements[id] = `content.xml#${element.path}`;
    const master = this.masters.get(a['draw:master-page-name'] ?? '') ?? [...this.masters.values()][0];
    const size = master?.size ?? PLAIN_PAGE;
    const own = this.sheet.resolve('drawing-page', a['draw:style-name'], 'content')['drawing-page'] ?? {};
    const declared = this.declarations(a);
    const context = this.context(spreadId, controlsIn(childOf(element, 'office:forms')), 'content', declared);
    const reader = new ShapeReader(context, 'content', (e) => e.attributes['presentation:placeholder'] === 'true');
    const made = await reader.readAll(element);
    const back = await this.background(own, master, size, context);
    const showMaster = own['presentation:background-objects-visible'] !== 'false';
    const fields = master && showMaster ? await this.fieldsOf(master, id, own, spreadId, declared) : { overrides: {}, items: [], top: [] };
    this.takeOrder(spreadId, a['draw:nav-order'], made.items);
    const items = [...(back.item ? [back.item] : []), ...fields.items, ...made.items];
    listUnseen(element, own, this.notTaken);
    const { shown, pressed } = animationsOf(element, (own) => this.standing.get(own) ?? [], this.names, this.notTaken);
    for (const { item, cue } of pressed) {
      const found = made.items.find((i) => i.id === item);
      if (found) found.cues = { ...found.cues, [cue.id]: cue };
    }
    const motion = motionOf(own);
    if (motion.unknown) this.notTaken.add('leftOut', `Page transition “${motion.unknown}”`, 'there is none that is like it');
    const notes = this.notesOf(element, context, `${id}-notes`);
    await this.inLines.settle(reader);
    return {
      id: spreadId,
      pages: [
        {
          id,
          box: { x: 0, y: 0, ...size },
          ...(master && { master: master.id }),
          showMaster,
          background: back.paint,
          ...(motion.transition && { transition: motion.transition }),
          ...(motion.advanceAfter !== undefined && { advanceAfter: motion.advanceAfter }),
          ...(notes !== undefined && { notes }),
          ...(shown && { cues: { [shown.id]: shown } }),
        },
      ],
      items: Object.fromEntries(items.map((i) => [i.id, i])),
      order: [...(back.item ? [back.item.id] : []), ...fields.top, ...made.top],
      masterOverrides: fields.overrides,
    };
  }

  /** The order in which a page's objects are to be visited (19.193 draw:nav-order): a strand of the reading path. */
  private takeOrder(spread: string, order: string | undefined, items: readonly ItemInput[]): void {
    const here = new Set(items.map((i) => i.id));
    for (const own of (order ?? '').split(/\s+/).filter(Boolean)) {
      const item = this.itemIds.get(own);
      if (item !== undefined && here.has(item)) this.path.push({ spread, item });
    }
  }

  /** What a page says its header, footer and date fields show. */
  private declarations(page: Attributes): (field: string) => string | undefined {
    return (field) => {
      const kind = field.replace('presentation:', '');
      const name = page[`presentation:use-${kind}-name`];
      const found = childrenOf(this.body, `presentation:${kind}-decl`).find((d) => d.attributes['presentation:name'] === name);
      return found && textOf(found);
    };
  }

  /** A page's choice among its master's fields: those that are not shown are left out, those with a text of its own become its own. */
  private async fieldsOf(master: Master, page: string, own: Attributes, spread: string, declared: (field: string) => string | undefined) {
    const overrides: Record<string, null> = {};
    const items: ItemInput[] = [];
    const top: string[] = [];
    for (const { kind, element, items: numbers } of master.fields) {
      const shown = own[`presentation:${FIELDS[kind]}`] === 'true';
      if (kind === 'page-number') {
        if (shown) master.numbered = true;
        else for (const item of numbers) overrides[instanceId(page, item)] = null;
        continue;
      }
      if (!shown) continue;
      const reader = new ShapeReader(this.context(spread, new Map(), 'styles', declared), 'styles', () => false);
      const made = await reader.readAll({ ...element, children: [element] });
      for (const one of made.items) items.push(one);
      for (const one of made.top) top.push(one);
    }
    return { overrides, items, top };
  }

  /** The page's own background, or its master's; a picture becomes an item behind all others. */
  private async background(own: Attributes, master: Master | undefined, size: { width: number; height: number }, context: ShapeContext) {
    const fills = (a: Attributes | undefined): boolean => a?.['draw:fill'] !== undefined && a['draw:fill'] !== 'none';
    const a = fills(own)
      ? own
      : own['presentation:background-visible'] === 'false'
        ? undefined
        : fills(master?.page)
          ? master!.page
          : undefined;
    const none = { paint: { type: 'none' as const }, item: null };
    if (!a) return none;
    const box = { x: 0, y: 0, ...size };
    const fill = fillOf(a, this.sheet.definitions, box, this.notTaken);
    if (!fill.image) return { paint: fill.paint, item: null };
    const item = await new ItemBuilder(context, 'content').fillPicture(fill, a, rectPath(box), size, IDENTITY, undefined);
    if (!item) return none;
    this.decorations.push(item.id);
    return { ...none, item };
  }

  /** The notes of a page, as a text that stands on none. */
  private notesOf(page: XmlElement, context: ShapeContext, name: string): string | undefined {
    const notes = childOf(page, 'presentation:notes');
    const frame = notes && childrenOf(notes, 'draw:frame').find((f) => f.attributes['presentation:class'] === 'notes');
    const box = frame && childOf(frame, 'draw:text-box');
    if (!box || frame.attributes['presentation:placeholder'] === 'true' || !textOf(box).trim()) return undefined;
    const reader = new TextReader(context, {
      family: 'presentation',
      name: frame.attributes['presentation:style-name'],
      paragraph: undefined,
      scope: 'content',
    });
    for (const one of reader.read(box)) reader.content.order.push(one);
    if (!reader.content.order.length) return undefined;
    const id = this.names.free('story', name);
    this.texts.push({ content: reader.content, home: null, story: id });
    return id;
  }
}
