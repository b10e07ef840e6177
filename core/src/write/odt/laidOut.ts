import { fieldsAsSet } from '../../compose/fields.ts';
import { fieldText } from '../../compose/fieldText.ts';
import { noteNumbers } from '../../compose/notes.ts';
import { columnWidths } from '../../compose/table.ts';
import { isSafeAddress } from '../../folio/address.ts';
import type { Folio } from '../../folio/folio.ts';
import { nameInXml } from '../../folio/ids.ts';
import { rectPath, translation } from '../../folio/geometry.ts';
import type { Item } from '../../folio/items.ts';
import { isMasterInstance } from '../../folio/masters.ts';
import { paragraphRole } from '../../folio/resolve.ts';
import type { Block, Paragraph, Story } from '../../folio/story.ts';
import { storyOfFrame } from '../../folio/traverse.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { flowOf } from '../../structure/flow.ts';
import { headingLevel } from '../../structure/outline.ts';
import { isUnread } from '../../structure/readingOrder.ts';
import { partOf } from '../../structure/boxBlocks.ts';
import { boxChains } from '../../structure/textBoxes.ts';
import type { BoxChain } from '../../structure/textBoxes.ts';
import { flowFields } from '../reflow/flowFields.ts';
import { AutomaticStyles } from '../opendocument/automaticStyles.ts';
import { NAMESPACES } from '../opendocument/drawing.ts';
import { FRAME } from '../opendocument/drawingObjects.ts';
import { el, pt } from '../opendocument/element.ts';
import type { Xml } from '../opendocument/element.ts';
import { Looks } from '../opendocument/graphicLooks.ts';
import { NotHeld } from '../opendocument/notHeld.ts';
import type { BoxContent, OdfBox, ShapeSources } from '../opendocument/odfSources.ts';
import { PlacedFiles } from '../opendocument/placedFiles.ts';
import type { OdfFiles } from '../opendocument/placedFiles.ts';
import { shapesOf } from '../opendocument/shapes.ts';
import type { Shapes } from '../opendocument/shapes.ts';
import { Texts } from '../opendocument/texts.ts';
import { TextStyles } from '../opendocument/textStyles.ts';
import { widenedBy } from '../office/gapInLine.ts';
import { isCounted, laidItems, newCounts, notesIn, paragraphsIn } from '../office/laidPages.ts';
import { leadingOfParagraphs } from '../office/leading.ts';
import { replacementsOf } from '../office/officeSettings.ts';
import { promptsIn } from '../office/promptedJob.ts';
import { repeatedLook } from '../office/repeatedLook.ts';
import type { PageItem } from '../pages/paintedPage.ts';
import { scopeOf } from '../scope.ts';
import type { Scope } from '../scope.ts';
import { AGAIN } from '../../ports/standIns.ts';
import type { WriteJob } from '../writer.ts';
import type { OdtSettings } from './settings.ts';
import { bookmark, placeOfPage, placeOfParagraph, placesIn } from './textParts.ts';
import type { TextParts, WrittenParagraph } from './textParts.ts';

/** How far apart things of a page lie from back to front: one may be several objects. */
const DEPTHS = 1000;

/** The boxes of the texts of a document, as the file has them. */
export const chainsOf = ({ folio, composition, settings }: WriteJob<OdtSettings>, scope: Scope): BoxChain[] =>
  boxChains(folio, composition, scope, { most: Infinity, linked: settings.linked === 'linked' });

/** Paragraphs that stand in boxes once, from their beginning to their end: a text of a master page is there on every page. */
export const wholeParagraphs = (folio: Folio, chains: readonly BoxChain[]): Set<string> =>
  paragraphsIn(chains.filter(({ story }) => !isRepeated(folio, story)));

const isRepeated = (folio: Folio, story: Story): boolean => story.frames.some((f) => folio.head.masterPages[f.spread]);

/** A document page by page, for whoever opens a text document: each page a paragraph that everything on it is anchored to. */
export async function laidParts(job: WriteJob<OdtSettings>, files: OdfFiles): Promise<TextParts> {
  const scope = scopeOf(job.folio, job.composition, job.settings, true);
  const placed = await PlacedFiles.of(job, scope, files);
  return new LaidOut(job, scope, chainsOf(job, scope), placed).parts();
}

/** What writes into one file of the package. */
interface Part {
  automatic: AutomaticStyles;
  texts: Texts;
  shapes: Shapes;
}

class LaidOut {
  private readonly notHeld = new NotHeld();
  private readonly looks: Looks;
  private readonly textStyles: TextStyles;
  private readonly body: Part;
  private readonly headers: Part;
  private readonly whole: ReadonlySet<string>;
  private readonly byPage: ReadonlyMap<string, PagePlace>;
  /** What of the page that is being written has a picture. */
  private readonly shown = new Map<string, { at: PageItem; place: PagePlace }>();
  private readonly layouts = new Map<string, { name: string; node: Xml }>();
  private readonly masters = new Map<string, { name: string; node: Xml }>();
  private readonly written: WrittenParagraph[] = [];
  private readonly told = new Set<string>();
  /** Paragraphs of which boxes have parts, and those of texts that repeat from page to page. */
  private readonly cut: ReadonlyMap<Block, Cut>;
  private readonly repeated = new Set<string>();

  constructor(
    private readonly job: WriteJob<OdtSettings>,
    private readonly scope: Scope,
    chains: readonly BoxChain[],
    private readonly placed: PlacedFiles,
  ) {
    const { folio } = job;
    this.whole = wholeParagraphs(folio, chains);
    for (const { story } of chains) if (isRepeated(folio, story)) for (const id of Object.keys(story.blocks)) this.repeated.add(id);
    const cut = new Map<Block, Cut>();
    this.cut = cut;
    this.byPage = new Map(scope.pages.map((p) => [p.page.id, p]));
    this.looks = new Looks(folio.head, this.notHeld);
    this.textStyles = new TextStyles(folio.head, this.notHeld, {
      instead: replacementsOf(job.settings),
      byHand: job.settings.styles === 'none',
    });
    const sources = this.sources(boxesOf(chains, cut));
    const storyOf = storyOfFrame(folio);
    const part = (): Part => {
      const automatic = new AutomaticStyles();
      const texts = new Texts(folio, this.textStyles, automatic, this.notHeld, placeOfPage, sources);
      const { looks, notHeld } = this;
      return { automatic, texts, shapes: shapesOf(folio, { texts, looks, automatic, notHeld, pageName: placeOfPage, storyOf, sources }) };
    };
    this.body = part();
    this.headers = part();
  }

  parts(): TextParts {
    const { folio, settings } = this.job;
    const { automatic, shapes } = this.body;
    const numbers = newCounts(this.scope.pages);
    const pages = this.scope.pages.map((place, i) => this.page(place, numbers[i]));
    const controls = shapes.controls.map((c) => c.node);
    return {
      content: el('office:document-content', NAMESPACES, [
        el('office:automatic-styles', {}, automatic.nodes),
        el('office:body', {}, [
          el('office:text', {}, [
            controls.length > 0 && el('office:forms', {}, [el('form:form', { 'form:name': 'Form' }, controls)]),
            ...pages,
          ]),
        ]),
      ]),
      styles: this.styles(settings.language || folio.head.metadata.language),
      written: this.written,
    };
  }

  /** A page: a paragraph that begins it, with everything anchored there. */
  private page(place: PagePlace, number: number | undefined): Xml {
    const items = laidItems(this.job.folio, this.scope, place);
    const repeats = ({ item }: PageItem): boolean =>
      this.job.settings.masters === 'header' && isMasterInstance(item.id) && !this.placed.looks.isOfPage(item.id);
    const master = this.masterFor(
      place,
      items.filter(({ at }) => repeats(at)),
    );
    const style = this.body.automatic.pageStart(master, number);
    const own = items.filter(({ at }) => !repeats(at));
    return el('text:p', { 'text:style-name': style }, [
      bookmark(placeOfPage(place.page.id)),
      this.ground(place),
      ...own.flatMap((item) => this.draw(place, item, this.body)),
    ]);
  }

  private draw(place: PagePlace, { at, z }: { at: PageItem; z: number }, { texts, shapes }: Part): Xml[] {
    const { page, spread } = place;
    const { item, opacity } = at;
    this.shown.set(item.id, { at, place });
    texts.page = page.id;
    shapes.objects.depth = z * DEPTHS;
    const origin = translation(-page.box.x, -page.box.y);
    // A text stands where most of its frame is.
    if (item.kind === 'textFrame' && !at.own) return shapes.objects.ground({ ...item, opacity }, origin);
    return shapes.item(spread.items, item, origin, item.opacity > 0 ? opacity / item.opacity : 0);
  }

  private ground({ page: { background, bleed, box } }: PagePlace): Xml | null {
    if (background.type === 'none') return null;
    const { shapes } = this.body;
    shapes.objects.depth = 0;
    const whole = { x: -bleed, y: -bleed, width: box.width + 2 * bleed, height: box.height + 2 * bleed };
    return shapes.objects.sheet(background, rectPath(whole));
  }

  /** The master page of a size, with what repeats at its head; pages where that is the same share it. */
  private masterFor(place: PagePlace, items: readonly { at: PageItem; z: number }[]): string {
    const { folio, composition } = this.job;
    const { width, height } = place.page.box;
    const layout = this.layoutFor(width, height);
    const shown = items.map(({ at }) => at);
    const key = `${layout} ${items.length ? repeatedLook(folio, composition, place, shown, this.counts(place)) : ''}`;
    const known = this.masters.get(key);
    if (known) return known.name;
    const name = `Page${this.masters.size + 1}`;
    const style = this.headers.automatic.pageStart(undefined, undefined);
    const header = el('text:p', { 'text:style-name': style }, [...items.flatMap((item) => this.draw(place, item, this.headers))]);
    const title = place.page.master === undefined ? undefined : folio.head.masterPages[place.page.master]?.name;
    const node = el(
      'style:master-page',
      {
        'style:name': name,
        'style:display-name': title === undefined ? undefined : `${title} (${name})`,
        'style:page-layout-name': layout,
      },
      [el('style:header', {}, [header])],
    );
    this.masters.set(key, { name, node });
    return name;
  }

  /** Whether programs go on counting the number that is printed on a page. */
  private counts(place: PagePlace): boolean {
    return this.job.settings.fields === 'live' && isCounted(place);
  }

  /** The id of a paragraph, or of a part of one; what only stands there again has one that says so. */
  private idOf(paragraph: Paragraph): string {
    const part = this.cut.get(paragraph) ?? null;
    const name = nameInXml(part ? `${paragraph.id}.${part.from}` : paragraph.id);
    if (this.told.has(name) || this.repeated.has(paragraph.id)) return `${AGAIN}${++this.again}`;
    this.told.add(name);
    this.written.push({ name, paragraph: paragraph.id, part });
    return name;
  }
  private again = 0;

  private layoutFor(width: number, height: number): string {
    const key = `${Math.round(width * 10)} ${Math.round(height * 10)}`;
    const known = this.layouts.get(key);
    if (known) return known.name;
    const name = `Paper${this.layouts.size + 1}`;
    const node = el('style:page-layout', { 'style:name': name }, [
      el('style:page-layout-properties', {
        'fo:page-width': pt(width),
        'fo:page-height': pt(height),
        'fo:margin': '0pt',
        'style:print-orientation': width > height ? 'landscape' : 'portrait',
      }),
      el('style:header-style', {}, [el('style:header-footer-properties', { 'fo:min-height': '0pt', 'fo:margin-bottom': '0pt' })]),
    ]);
    this.layouts.set(key, { name, node });
    return name;
  }

  private styles(language: string): Xml {
    const { textStyles, looks } = this;
    const frame = el('style:style', { 'style:name': FRAME, 'style:family': 'graphic' }, [
      el('style:graphic-properties', { 'text:anchor-type': 'paragraph', 'fo:padding': '0pt', 'fo:border': 'none' }),
    ]);
    const defaults = [textStyles.defaults('graphic', language), textStyles.defaults('paragraph', language)];
    const layouts = [...this.layouts.values()].map((l) => l.node);
    return el('office:document-styles', NAMESPACES, [
      el('office:styles', {}, [...looks.definitions, ...defaults, frame, ...textStyles.named()]),
      el('office:automatic-styles', {}, [...layouts, ...this.headers.automatic.nodes]),
      el(
        'office:master-styles',
        {},
        [...this.masters.values()].map((m) => m.node),
      ),
    ]);
  }

  private sources(boxes: ReadonlyMap<string, readonly OdfBox[]>): ShapeSources {
    const { job, scope, placed, whole } = this;
    const { folio, composition, settings } = job;
    const leading = leadingOfParagraphs(folio, composition, settings.leading);
    const prompts = promptsIn(job);
    const places = placesIn(folio.stories, whole);
    // On pages fields show what they show in the layout.
    const fields = { ...flowFields(folio, flowOf(folio, composition, scope)).sources, ...fieldsAsSet(folio, composition) };
    return {
      shown: scope.shown,
      unread: (item: Item) => isUnread(folio, item.id),
      picture: (item) => {
        const known = this.shown.get(item.id);
        return known ? placed.picture(known.at, known.place) : null;
      },
      drawn: (item) => placed.drawn(item),
      played: () => null,
      pieces: null,
      boxes,
      exactRows: settings.tables === 'exact',
      gap: (width, look) => widenedBy(width, look, job.fonts),
      pitch: (paragraph) => leading(paragraph).points,
      field: (node, page) => {
        const place = this.byPage.get(page);
        const isThere = node.target !== undefined && places.has(node.target);
        const live = node.field === 'pageNumber' ? !!place && this.counts(place) : node.field === 'title' || isThere;
        return { shows: fieldText(folio, node, { ...fields, page }), live: settings.fields === 'live' && live };
      },
      target: (to, page) => {
        if (to.to === 'address') return isSafeAddress(to.href) ? { href: to.href, newWindow: to.window === 'new' } : null;
        if (to.to === 'paragraph' && places.has(to.paragraph)) return { href: `#${placeOfParagraph(to.paragraph)}`, newWindow: false };
        return scope.targets.of(to, page);
      },
      running: {
        idOf: (p) => this.idOf(p),
        heading: (p) => headingLevel(paragraphRole(folio.head, p.style).element) || null,
        insertions: (p) => (places.has(p.id) ? [{ offset: 0, xml: bookmark(placeOfParagraph(p.id)) }] : []),
        inLine: () => null,
        measure: () => 0,
        isPrompt: (p) => prompts?.has(p.id) ?? false,
        isUnseen: () => false,
        place: (id) => (places.has(id) ? placeOfParagraph(id) : null),
      },
    };
  }
}

/** Where in its paragraph a part begins and ends. */
type Cut = NonNullable<ReturnType<typeof partOf>>;

/** The boxes of frames, with what the first of each text holds. */
function boxesOf(chains: readonly BoxChain[], cut: Map<Block, Cut>): Map<string, OdfBox[]> {
  const out = new Map<string, OdfBox[]>();
  for (const [n, chain] of chains.entries()) {
    const nameOf = (at: number): string => `Text ${n + 1}.${at + 1}`;
    for (const [at, { item, rect }] of chain.areas.entries()) {
      const goesOn = at + 1 < chain.areas.length;
      const box = {
        name: nameOf(at),
        next: goesOn ? nameOf(at + 1) : undefined,
        rect,
        content: at === 0 ? contentOf(chain, rect.width, cut) : null,
      };
      out.set(item, [...(out.get(item) ?? []), box]);
    }
  }
  return out;
}

function contentOf({ story, blocks }: BoxChain, width: number, cut: Map<Block, Cut>): BoxContent {
  const { numbers } = noteNumbers(story, story.order);
  const fitted = (block: Block): Block =>
    block.kind === 'table'
      ? { ...block, columns: columnWidths(block.columns, width).map((w) => ({ width: w, unit: 'pt' as const })) }
      : block;
  const held = blocks.map((b, i): Block => {
    const { block } = b;
    // The room above a text begins with its box.
    const topmost = i === 0 && b.begins && block.kind === 'paragraph';
    const written = topmost ? { ...block, overrides: { ...block.overrides, spaceBefore: 0 } } : fitted(block);
    const part = partOf(b);
    if (part) cut.set(written, part);
    return written;
  });
  const notes = notesIn(
    story,
    blocks.map((b) => b.block),
  ).map(({ id, order }) => ({ number: numbers.get(id) ?? '', blocks: order.flatMap((b) => story.blocks[b] ?? []) }));
  return { story, blocks: held, notes };
}
