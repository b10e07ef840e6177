import { noteNumbers } from '../../compose/notes.ts';
import type { Composition } from '../../compose/marks.ts';
import type { Folio } from '../../folio/folio.ts';
import { multiply, rectPath, transformRect, translation } from '../../folio/geometry.ts';
import type { Rect } from '../../folio/geometry.ts';
import { isMasterInstance } from '../../folio/masters.ts';
import type { Inline, Story } from '../../folio/story.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { isUnread } from '../../structure/readingOrder.ts';
import { partOf } from '../../structure/boxBlocks.ts';
import type { BoxChain } from '../../structure/textBoxes.ts';
import { geometryXml } from '../ooxml/drawing/geometry.ts';
import { lineXml } from '../ooxml/drawing/line.ts';
import { fillXml } from '../ooxml/drawing/paint.ts';
import { placementOf } from '../ooxml/drawing/placement.ts';
import { shapeOf } from '../ooxml/drawing/shapeLook.ts';
import { OFFICE } from '../ooxml/officePackage.ts';
import { opacityOfWhole } from '../office/drawnLooks.ts';
import type { DrawnBox } from '../office/drawnLooks.ts';
import { isCounted, laidItems, newCounts } from '../office/laidPages.ts';
import { repeatedLook } from '../office/repeatedLook.ts';
import type { OfficePackage, Part } from '../ooxml/officePackage.ts';
import type { Xml } from '../assets/xml.ts';
import { all, el, xmlFile } from '../assets/xml.ts';
import type { PageItem, PaintedLeaf } from '../pages/paintedPage.ts';
import type { Scope } from '../scope.ts';
import { raised, run } from './inlineContent.ts';
import { DEPTHS } from './laidPictures.ts';
import type { LaidPictures } from './laidPictures.ts';
import { CONTENT, NAMESPACES } from '../ooxml/wordNamespaces.ts';
import { sectionProperties } from './sectionProperties.ts';
import { onPaper } from '../office/pageSetup.ts';
import type { PageSetup } from '../office/pageSetup.ts';
import { hair } from './runningText.ts';
import { shapeXml } from './wordAnchors.ts';
import type { BoxLook, DrawingFacts, ShapeText } from './wordAnchors.ts';
import type { WordContext } from './wordContext.ts';
import { paragraphXml } from './wordParagraph.ts';
import { tableXml } from './wordTable.ts';

/** The boxes of a frame lie over its outline, each over the one before it, up to so many. */
const BOXES = 40;

interface LaidOutOptions {
  folio: Folio;
  composition: Composition;
  scope: Scope;
  chains: readonly BoxChain[];
  pictures: LaidPictures;
  pack: OfficePackage;
  setup: PageSetup;
  /** Where what repeats from page to page stands: in the headers of pages, or on each of them. */
  masters: 'header' | 'page';
  nextId(): number;
}

/** A box of a chain: which, and whether the text goes on after it. */
interface InChain {
  chain: BoxChain;
  number: number;
  place: number;
  rect: Rect;
  goesOn: boolean;
}

/** Writes a document page by page: every page a section of its own size, everything on it anchored in its place. */
export class LaidOut {
  private readonly boxes = new Map<string, InChain[]>();
  private readonly headers = new Map<string, Part>();
  private bare: Part | undefined;

  constructor(
    private readonly c: WordContext,
    private readonly o: LaidOutOptions,
  ) {
    for (const [i, chain] of o.chains.entries())
      for (const [place, area] of chain.areas.entries()) {
        const known = this.boxes.get(area.item) ?? [];
        this.boxes.set(area.item, known);
        known.push({ chain, number: i + 1, place, rect: area.rect, goesOn: place < chain.areas.length - 1 });
      }
  }

  body(): Xml {
    const { pages } = this.o.scope;
    let last: Xml | null = null;
    const numbers = newCounts(pages);
    const sections = pages.map((place, i) => {
      const told = (at: PageItem): PageItem => ({ ...at, item: this.o.pictures.looks.told(at.item) });
      const items = laidItems(this.o.folio, this.o.scope, place).map(({ at, z }) => ({ at: told(at), z }));
      const isRepeated = ({ item }: PageItem): boolean =>
        this.o.masters === 'header' && isMasterInstance(item.id) && !this.o.pictures.looks.isOfPage(item.id);
      const header = this.headerOf(
        place,
        items.filter(({ at }) => isRepeated(at)),
      );
      const own = items.filter(({ at }) => !isRepeated(at));
      const section = sectionProperties(this.setupOf(place), { begins: 'nextPage', header, number: numbers[i] });
      const mark = this.c.bookmarks.around('pg', place.page.id, all());
      const drawn = [this.background(place), ...own.map(({ at, z }) => this.draw(place, at, z, this.c))].filter((x) => x !== null);
      const isLast = i === pages.length - 1;
      if (isLast) last = section;
      return hair(isLast ? null : section, mark, ...drawn);
    });
    return el('w:body', {}, sections, last);
  }

  private setupOf({ page }: PagePlace): PageSetup {
    const { setup } = this.o;
    const { width, height } = onPaper(page.box);
    const fits = setup.left + setup.right < width * 0.9 && setup.top + setup.bottom < height * 0.9;
    const edge = Math.min(width, height) * 0.1;
    return { ...(fits ? setup : { top: edge, right: edge, bottom: edge, left: edge }), size: { width, height } };
  }

  private headerOf(place: PagePlace, items: { at: PageItem; z: number }[]): Xml {
    const { pack } = this.o;
    const reference = (part: Part): Xml =>
      el('w:headerReference', { 'w:type': 'default', 'r:id': this.c.part.relate(`${OFFICE}/header`, part) });
    if (!items.length) {
      // A section without a header of its own has that of the one before.
      this.bare ??= pack.add('word/header0.xml', CONTENT.header, xmlFile(el('w:hdr', NAMESPACES, hair())));
      return reference(this.bare);
    }
    const shown = items.map(({ at }) => at);
    const counts = this.c.liveFields && isCounted(place);
    const key = repeatedLook(this.o.folio, this.o.composition, place, shown, counts);
    let part = this.headers.get(key);
    if (!part) {
      part = pack.add(`word/header${this.headers.size + 1}.xml`, CONTENT.header);
      this.headers.set(key, part);
      // A number that is none of the format’s own stands there as words.
      const c = { ...this.c, part, liveFields: counts };
      const drawn = items.map(({ at, z }) => this.draw(place, at, z, c)).filter((x) => x !== null);
      part.content = xmlFile(el('w:hdr', NAMESPACES, hair(null, ...drawn)));
    }
    return reference(part);
  }

  private background(place: PagePlace): Xml | null {
    const { page } = place;
    if (page.background.type === 'none') return null;
    const { bleed, box } = page;
    const whole = { x: -bleed, y: -bleed, width: box.width + 2 * bleed, height: box.height + 2 * bleed };
    const facts: DrawingFacts = { id: this.o.nextId(), name: 'Page', alt: '', decorative: true };
    const ground = { swatches: this.o.folio.head.swatches, opacity: 1, box: whole };
    const look: BoxLook = {
      geometry: geometryXml(rectPath(whole), whole),
      fill: fillXml(page.background, ground),
      line: lineXml(null, ground),
      effects: null,
      anchor: 't',
    };
    return shapeXml({ ...whole, rotation: 0, flipV: false, z: 1 }, facts, look, null);
  }

  /** An item with what is drawn under and over it, or drawn whole. */
  private draw(place: PagePlace, at: PageItem, z: number, c: WordContext): Xml | null {
    const { pictures } = this.o;
    const { under, over, instead } = pictures.looks.of(at.item);
    const drawn = (box: DrawnBox, depth: number): Xml => {
      const effect: DrawingFacts = { id: this.o.nextId(), name: 'Effect', alt: '', decorative: true };
      return pictures.drawn(box, place, depth, effect, c.part, box.opacity ?? at.opacity);
    };
    const itself = (): Xml | null => {
      if (!instead) return this.itself(place, at, z, c);
      const opacity = opacityOfWhole(at.item, at.opacity);
      return pictures.drawn(instead, place, z * DEPTHS, this.factsOf(at.item, place, c), c.part, opacity);
    };
    return all(
      under.map((box, i) => drawn(box, z * DEPTHS - under.length + i)),
      itself(),
      over.map((box, i) => drawn(box, z * DEPTHS + BOXES + 1 + i)),
    );
  }

  private itself(place: PagePlace, at: PageItem, z: number, c: WordContext): Xml | null {
    const { item } = at;
    switch (item.kind) {
      case 'veil':
      case 'tableFrame':
        return null;
      case 'picture':
      case 'media':
      case 'embed': {
        const facts = this.factsOf(item, place, c);
        return this.o.pictures.anchored(at, place, z, facts, c.part) ?? this.shape(place, at, z, c);
      }
      case 'textFrame':
        return all(this.shape(place, at, z, c), at.own && this.text(place, at, z, c));
      default:
        return this.shape(place, at, z, c);
    }
  }

  private factsOf(item: PaintedLeaf, { page }: PagePlace, c: WordContext): DrawingFacts {
    const { folio } = this.o;
    const id = this.o.nextId();
    const leads = c.linkOf(item, page.id, c.part);
    const decorative = isUnread(folio, item.id);
    const alt = item.kind === 'textFrame' || decorative ? '' : (item.alt ?? '');
    return { id, name: (item.name ?? `${item.kind} ${id}`).slice(0, 200), alt, decorative, link: leads };
  }

  /** Its box or outline, where anything of it is seen. */
  private shape(place: PagePlace, at: PageItem, z: number, c: WordContext): Xml | null {
    const shape = shapeOf(at, place.page, this.o.folio.head.swatches);
    return shape && shapeXml({ ...shape.at, z: z * DEPTHS }, this.factsOf(at.item, place, c), { ...shape.look, anchor: 't' }, null);
  }

  /** The boxes of a text frame: the first of a chain has all of its text. */
  private text(place: PagePlace, { item }: PageItem, z: number, c: WordContext): Xml | null {
    if (item.kind !== 'textFrame') return null;
    const toPage = multiply(translation(-place.page.box.x, -place.page.box.y), item.transform);
    const boxes = this.boxes.get(item.id) ?? [];
    const anchor = boxes.length > 1 ? 't' : ({ top: 't', justify: 't', centre: 'ctr', bottom: 'b' } as const)[item.verticalAlign];
    return all(
      boxes.map((box, i) => {
        const upright = transformRect(toPage, box.rect);
        const at = placementOf(toPage, box.rect) ?? { ...upright, rotation: 0, flipV: false };
        const ground = { swatches: {}, opacity: 1, box: box.rect };
        const look: BoxLook = {
          geometry: geometryXml(rectPath(box.rect), box.rect),
          fill: fillXml({ type: 'none' }, ground),
          line: lineXml(null, ground),
          effects: null,
          anchor,
        };
        const { number: chain, place: at_, goesOn } = box;
        const text: ShapeText =
          at_ === 0
            ? { kind: 'text', chain, goesOn, content: this.content(box, place.page.id, c) }
            : { kind: 'goesOn', chain, place: at_, goesOn };
        return shapeXml({ ...at, flipV: false, z: z * DEPTHS + Math.min(BOXES, i + 1) }, this.factsOf(item, place, c), look, text);
      }),
    );
  }

  private content({ chain, rect }: InChain, page: string, c: WordContext): Xml {
    const { story, blocks } = chain;
    const notes: (Inline & { type: 'note' })[] = [];
    const { numbers } = noteNumbers(story, story.order);
    const here: WordContext = {
      ...c,
      measure: rect.width,
      initials: false,
      note: (_, node) => {
        notes.push(node);
        return { instead: numbers.get(node.id) ?? '', raised: true, standsFor: node.id };
      },
    };
    const out: Xml[] = [];
    // A text of a master page is there on every page.
    const repeated = story.frames.some((f) => this.o.folio.head.masterPages[f.spread]);
    for (const [i, held] of blocks.entries()) {
      const { block, begins } = held;
      if (block.kind === 'table') {
        if (out.length && blocks[i - 1]!.block.kind === 'table') out.push(hair());
        out.push(...tableXml(story, block, here));
        if (i === blocks.length - 1) out.push(hair());
        continue;
      }
      // The room above a text begins with its box.
      const paragraph = i === 0 && begins ? { ...block, overrides: { ...block.overrides, spaceBefore: 0 } } : block;
      out.push(paragraphXml(story, paragraph, { page, part: partOf(held), repeats: repeated }, here));
    }
    for (let i = 0; i < notes.length && i < 1000; i++) out.push(...this.note(story, notes[i]!, numbers.get(notes[i]!.id) ?? '', here));
    return out.length ? all(out) : el('w:p');
  }

  /** Boxes of text can hold no notes (common practice of programs): they follow the text, with their numbers. */
  private note(story: Story, note: Inline & { type: 'note' }, number: string, c: WordContext): Xml[] {
    return note.order.flatMap((id, i) => {
      const block = story.blocks[id];
      if (block?.kind !== 'paragraph') return [];
      const before = i === 0 && run(raised(block, c), el('w:t', { 'xml:space': 'preserve' }, `${number} ` as Xml));
      return [paragraphXml(story, block, { page: null, before }, c)];
    });
  }
}
