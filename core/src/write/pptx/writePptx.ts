import { fieldsAsSet } from '../../compose/fields.ts';
import { rectPath } from '../../folio/geometry.ts';
import type { Destination } from '../../folio/motion.ts';
import { paragraphRole, resolveParagraph } from '../../folio/resolve.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { flowOf } from '../../structure/flow.ts';
import { headingLevel } from '../../structure/outline.ts';
import { textPieces } from '../../structure/textPieces.ts';
import type { TextPiece, WordsPiece } from '../../structure/textPieces.ts';
import { geometryXml } from '../ooxml/drawing/geometry.ts';
import { lineXml } from '../ooxml/drawing/line.ts';
import { fillXml } from '../ooxml/drawing/paint.ts';
import { placementOf } from '../ooxml/drawing/placement.ts';
import { flowFields } from '../reflow/flowFields.ts';
import { divide, isOfPage } from '../office/dividePage.ts';
import { writeProperties } from '../ooxml/documentProperties.ts';
import { leadingOfParagraphs } from '../office/leading.ts';
import { emu } from '../ooxml/lengths.ts';
import { OFFICE, OfficePackage } from '../ooxml/officePackage.ts';
import type { Part } from '../ooxml/officePackage.ts';
import { replacementsOf } from '../office/officeSettings.ts';
import { PictureParts } from '../office/pictureParts.ts';
import { DrawnLooks } from '../office/drawnLooks.ts';
import { DRAWINGML } from '../office/placedFormat.ts';
import { promptsIn } from '../office/promptedJob.ts';
import { PlacedPictures } from '../office/placedPictures.ts';
import { repeatedLook } from '../office/repeatedLook.ts';
import type { Xml } from '../assets/xml.ts';
import { el, xmlFile } from '../assets/xml.ts';
import { outputFile, streamedFile } from '../assets/outputFile.ts';
import { itemsOfPage } from '../pages/paintedPage.ts';
import type { Scope } from '../scope.ts';
import { pagesAt } from '../../folio/joinedSpreads.ts';
import { slideScope } from '../office/slideScope.ts';
import type { OutputFile, WriteJob } from '../writer.ts';
import { effectsOnPage, playsAtOnce } from './cueEffects.ts';
import { countsPage, decksOf, fillsSlide, offsetOf, slideName } from './deck.ts';
import type { Deck } from './deck.ts';
import { CONTENT, NAMESPACES } from './namespaces.ts';
import { NOTES, NotesSlides } from './notesSlides.ts';
import { filledOf, promptsOf } from './placeholders.ts';
import type { Filled } from './placeholders.ts';
import { faceOf } from './runLook.ts';
import type { PptxSettings } from './settings.ts';
import { shapeTree, shapeXml } from './shapes.ts';
import type { SlideContext } from './slideContext.ts';
import { layoutFile, lookOfPiece, masterFile, placeholderXml } from './slideMaster.ts';
import { SlideMedia } from './slideMedia.ts';
import { SlideShapes } from './slideShapes.ts';
import { SlideTexts } from './slideTexts.ts';
import { tableStylesFile } from './tableStyles.ts';
import { themeFile } from './theme.ts';
import { timingXml } from './timing.ts';
import { transitionXml } from './transition.ts';

const MEDIA_TYPE = 'application/vnd.openxmlformats-officedocument.presentationml';
/** Numbers of masters and layouts begin here, those of slides at 256 (ISO/IEC 29500-1, 19.7.2 and 19.7.3). */
const FIRST_MASTER = 2_147_483_648;
const FIRST_SLIDE = 256;

/** Writes decks of slides (PresentationML, ISO/IEC 29500-1): every page a slide, everything on it in its place. */
export async function* writePptx(job: WriteJob<PptxSettings>): AsyncGenerator<OutputFile> {
  const { folio, composition, settings } = job;
  const scope = slideScope(job);
  const pieces = textPieces(folio, composition, scope);
  const pictures = await PlacedPictures.of(job, scope, DRAWINGML);
  const looks = await DrawnLooks.of(job, scope, DRAWINGML);
  const beside = new Map<string, { mediaType: string; bytes: Uint8Array }>();
  for (const deck of decksOf(scope.pages, settings)) {
    const writer = new DeckWriter(job, scope, deck, pieces, pictures, looks);
    const pack = await writer.packed();
    yield streamedFile(deck.path, `${MEDIA_TYPE}.${settings.template ? 'template' : 'presentation'}`, pack.bytes());
    for (const [path, image] of writer.beside) beside.set(path, image);
  }
  for (const [path, image] of beside) yield outputFile(path, image.mediaType, image.bytes);
}

class DeckWriter {
  private readonly pack = new OfficePackage();
  private readonly presentation: Part;
  private readonly master: Part;
  private readonly slides = new Map<string, Part>();
  private readonly layouts = new Map<string, { part: Part; shapes: Xml[]; name: string }>();
  private readonly names = new Map<string, number>();
  private readonly files: PictureParts;
  private readonly context: Omit<SlideContext, 'part' | 'page' | 'countsPages'>;
  private readonly texts = new SlideTexts();
  private themes = 0;

  constructor(
    private readonly job: WriteJob<PptxSettings>,
    private readonly scope: Scope,
    private readonly deck: Deck,
    private readonly pieces: ReadonlyMap<string, readonly TextPiece[]>,
    private readonly pictures: PlacedPictures,
    private readonly looks: DrawnLooks,
  ) {
    const { folio, composition, fonts, settings } = job;
    this.presentation = this.pack.add('ppt/presentation.xml', settings.template ? CONTENT.template : CONTENT.presentation);
    this.pack.relate(`${OFFICE}/officeDocument`, this.presentation);
    this.master = this.pack.add('ppt/slideMasters/slideMaster1.xml', CONTENT.master);
    deck.pages.forEach((place, i) => {
      const part = this.pack.add(`ppt/slides/slide${i + 1}.xml`, CONTENT.slide);
      for (const { id } of pagesAt(place)) this.slides.set(id, part);
    });
    this.files = new PictureParts(this.pack, 'ppt/media', settings.pictures === 'beside' ? 'beside' : 'inside');
    this.context = {
      folio,
      fonts,
      replacements: replacementsOf(settings),
      fields: { ...flowFields(folio, flowOf(folio, composition, scope)).sources, ...fieldsAsSet(folio, composition) },
      leading: leadingOfParagraphs(folio, composition, settings.leading),
      press: (destination, title, page, part) => this.press(destination, title, page, part),
    };
  }

  /** Whether it is a template whose words are prompts. */
  private get prompted(): boolean {
    return promptsIn(this.job) !== null;
  }

  get beside(): PictureParts['beside'] {
    return this.files.beside;
  }

  async packed(): Promise<OfficePackage> {
    const { folio, settings } = this.job;
    const media =
      settings.media === 'inside'
        ? await SlideMedia.of(this.job, this.pack, this.deck.pages, (i) => this.scope.shown(i))
        : SlideMedia.none(folio, this.pack);
    const notes = new NotesSlides(this.pack, this.presentation, () => this.theme());
    this.deck.pages.forEach((place, i) => this.slide(place, i, media, notes));
    const masterContext = this.contextOf(this.master, '', false);
    const layouts = [...this.layouts.values()].map(({ part, shapes, name }, i) => {
      part.content = layoutFile(name, shapes);
      part.relate(`${OFFICE}/slideMaster`, this.master);
      return { id: FIRST_MASTER + 1 + i, relation: this.master.relate(`${OFFICE}/slideLayout`, part) };
    });
    this.master.content = masterFile(this.deck.size, layouts, masterContext);
    this.master.relate(`${OFFICE}/theme`, this.theme());
    this.writePresentation(notes.relation);
    // What is filled in elsewhere does not come back.
    if (!this.prompted) this.texts.write(this.pack, this.presentation, folio);
    writeProperties(this.job, this.pack);
    return this.pack;
  }

  private contextOf(part: Part, page: string, countsPages: boolean): SlideContext {
    return { ...this.context, part, page, countsPages: countsPages && this.job.settings.fields === 'live' };
  }

  private slide(place: PagePlace, at: number, media: SlideMedia, notes: NotesSlides): void {
    const { folio, composition, settings } = this.job;
    const { page } = place;
    const part = this.slides.get(page.id)!;
    const counts = countsPage(this.deck, at);
    const context = this.contextOf(part, page.id, counts);
    const offset = offsetOf(this.deck, page);
    const { pieces, pictures, looks, files } = this;
    const sources = { composition, pieces, pictures, looks, files, media, fit: settings.fit, emptyPlaces: this.prompted };
    const items = itemsOfPage(folio, place, this.scope, () => true)
      .filter((i) => !i.unseen)
      .map((i) => ({ ...i, item: looks.told(i.item) }));
    const { onLayout, onSlide } =
      settings.masters === 'layouts'
        ? divide(items, place, (id) => looks.isOfPage(id) || isOfPage(folio, composition, id, context.countsPages))
        : { onLayout: [], onSlide: items };
    const filled = filledOf(folio, place, this.pieces, this.prompted);
    const shapes = new SlideShapes(context, sources, place, offset, filled, (shape) => this.texts.of(FIRST_SLIDE + at, shape));
    const drawn = shapes.draw(onSlide);
    const prompts = this.prompted ? promptsOf(filled) : null;
    const key = `${repeatedLook(folio, composition, place, onLayout, context.countsPages)} ${!!filled.title} ${!!filled.body} ${JSON.stringify([offset, prompts])}`;
    let layout = this.layouts.get(key);
    if (!layout) {
      const own = this.pack.add(`ppt/slideLayouts/slideLayout${this.layouts.size + 1}.xml`, CONTENT.layout);
      const inLayout = this.contextOf(own, page.id, counts);
      const repeated = new SlideShapes(inLayout, sources, place, offset);
      const fixed = repeated.draw(onLayout);
      layout = { part: own, name: this.layoutName(place), shapes: [...fixed, ...this.places(filled, place, inLayout)] };
      this.layouts.set(key, layout);
    }
    part.relate(`${OFFICE}/slideLayout`, layout.part);
    if (settings.notes) notes.write(place, part, { ...context, wrote: this.texts.of(FIRST_SLIDE + at, 'notes') });
    const background = this.background(place);
    part.content = xmlFile(
      el(
        'p:sld',
        NAMESPACES,
        el('p:cSld', { name: slideName(place) }, background.fills, shapeTree([...background.shapes, ...drawn])),
        el('p:clrMapOvr', {}, el('a:masterClrMapping')),
        settings.transitions && transitionXml(page.transition, page.advanceAfter),
        this.timing(place, shapes, media),
      ),
    );
    this.job.progress(at + 1, this.deck.pages.length);
  }

  private timing(place: PagePlace, { shapes }: SlideShapes, media: SlideMedia): Xml | null {
    const { folio, settings } = this.job;
    const shown = (item: Parameters<Scope['shown']>[0]): boolean => this.scope.shown(item);
    const played = Object.values(place.spread.items).flatMap((item) => {
      const kind = item.kind === 'media' ? media.kindOf(item) : null;
      const [shape] = shapes.get(item.id) ?? [];
      return kind && shape !== undefined ? [{ shape, kind, loop: item.kind === 'media' && item.loop, item: item.id }] : [];
    });
    const plays = new Set(played.map((p) => p.item));
    return timingXml({
      shapes,
      cues: settings.animations ? effectsOnPage(folio, place.spread, place.page, shown) : [],
      atOnce: playsAtOnce(place.spread, place.page, shown).filter((e) => plays.has(e.item)),
      media: played,
    });
  }

  /** The grounds of pages: that of the slide, or sheets on it where the slide is larger. */
  private background(place: PagePlace): { fills: Xml | null; shapes: Xml[] } {
    const { page } = place;
    const { swatches } = this.job.folio.head;
    const isGround = !place.joins && fillsSlide(this.deck, page);
    const { dx, dy } = offsetOf(this.deck, page);
    const shapes = pagesAt(place).flatMap(({ background, box: at }, i): Xml[] => {
      if (isGround || background.type === 'none') return [];
      const box = { x: 0, y: 0, width: at.width, height: at.height };
      const ground = { swatches, opacity: 1, box };
      const facts = { id: 2_000_000 + i, name: 'Page', alt: '', decorative: true, press: null };
      const look = {
        geometry: geometryXml(rectPath(box), box),
        fill: fillXml(background, ground),
        line: lineXml(null, ground),
        effects: null,
      };
      const place = { ...box, x: at.x - page.box.x + dx, y: at.y - page.box.y + dy, rotation: 0, flipV: false };
      return [shapeXml(facts, place, look, null)];
    });
    if (!isGround || page.background.type === 'none') return { fills: null, shapes };
    const fill = fillXml(page.background, { swatches, opacity: 1, box: { x: 0, y: 0, width: page.box.width, height: page.box.height } });
    return { fills: el('p:bg', {}, el('p:bgPr', {}, fill, el('a:effectLst'))), shapes };
  }

  /** The places of a layout, where its first slide fills them. */
  private places(filled: Filled, place: PagePlace, c: SlideContext): Xml[] {
    const { title, body } = filled;
    const says = this.prompted ? promptsOf(filled) : { title: '', body: '' };
    const { dx, dy } = offsetOf(this.deck, place.page);
    const placed = (piece: WordsPiece | null, id: number, as: Parameters<typeof placeholderXml>[1], said: string): Xml[] => {
      const frame = piece && place.spread.items[piece.item];
      const at = frame && placementOf(frame.transform, piece.rect);
      if (!at) return [];
      const { box } = place.page;
      return [placeholderXml(id, as, { ...at, x: at.x - box.x + dx, y: at.y - box.y + dy }, lookOfPiece(piece, c), said)];
    };
    return [...placed(title, 1_000_001, { type: 'title' }, says.title), ...placed(body, 1_000_002, { type: 'body', idx: 1 }, says.body)];
  }

  /** Names of layouts are those of master pages; several of one are counted. */
  private layoutName({ page }: PagePlace): string {
    const name = (page.master !== undefined && this.job.folio.head.masterPages[page.master]?.name) || 'Page';
    const count = (this.names.get(name) ?? 0) + 1;
    this.names.set(name, count);
    return count === 1 ? name : `${name} ${count}`;
  }

  /** Where a press leads (20.1.2.2.23, 21.1.2.3.5); text keeps its own ink. */
  private press(destination: Destination, title: string | undefined, page: string, part: Part): Xml | null {
    const tooltip = title?.slice(0, 260);
    if (destination.to === 'back')
      return el('a:hlinkClick', { 'r:id': '', action: 'ppaction://hlinkshowjump?jump=lastslideviewed', tooltip });
    const target = this.scope.targets.of(destination, page);
    if (!target) return null;
    if ('href' in target) return el('a:hlinkClick', { 'r:id': part.relateOutside(`${OFFICE}/hyperlink`, target.href), tooltip }, OWN_INK);
    const slide = this.slides.get(target.page);
    // A page in another file of the result is out of reach.
    if (!slide) return null;
    return el('a:hlinkClick', { 'r:id': part.relate(`${OFFICE}/slide`, slide), action: 'ppaction://hlinksldjump', tooltip }, OWN_INK);
  }

  private theme(): Part {
    const { folio } = this.job;
    const paragraphs = Object.values(folio.stories).flatMap((s) => Object.values(s.blocks).filter((b) => b.kind === 'paragraph'));
    const usual = (isHeading: boolean): string => {
      const count = new Map<string, number>();
      for (const p of paragraphs) {
        if (!!headingLevel(paragraphRole(folio.head, p.style).element) !== isHeading) continue;
        const { family } = faceOf(resolveParagraph(folio.head, p).character, this.context);
        count.set(family, (count.get(family) ?? 0) + 1);
      }
      return [...count].sort((a, b) => b[1] - a[1])[0]?.[0] ?? '';
    };
    const text = usual(false) || usual(true) || 'Arial';
    const content = themeFile(folio, { headings: usual(true) || text, text });
    return this.pack.add(`ppt/theme/theme${++this.themes}.xml`, CONTENT.theme, content);
  }

  private writePresentation(notesMaster: string | null): void {
    const { presentation, deck } = this;
    const slides = [...new Set(this.slides.values())].map((part) => presentation.relate(`${OFFICE}/slide`, part));
    const master = presentation.relate(`${OFFICE}/slideMaster`, this.master);
    presentation.relate(
      `${OFFICE}/presProps`,
      this.pack.add('ppt/presProps.xml', CONTENT.properties, xmlFile(el('p:presentationPr', NAMESPACES))),
    );
    presentation.relate(
      `${OFFICE}/tableStyles`,
      this.pack.add('ppt/tableStyles.xml', CONTENT.tableStyles, tableStylesFile(this.job.folio.head)),
    );
    for (const { target } of this.master.relationships.filter((r) => r.type === `${OFFICE}/theme`))
      presentation.relate(`${OFFICE}/theme`, this.pack.get(`ppt/${target.replace('../', '')}`)!);
    presentation.content = xmlFile(
      el(
        'p:presentation',
        { ...NAMESPACES, firstSlideNum: deck.first === 1 ? undefined : deck.first, saveSubsetFonts: 1, autoCompressPictures: 0 },
        el('p:sldMasterIdLst', {}, el('p:sldMasterId', { id: FIRST_MASTER, 'r:id': master })),
        notesMaster !== null && el('p:notesMasterIdLst', {}, el('p:notesMasterId', { 'r:id': notesMaster })),
        el(
          'p:sldIdLst',
          {},
          slides.map((relation, i) => el('p:sldId', { id: FIRST_SLIDE + i, 'r:id': relation })),
        ),
        el('p:sldSz', { cx: emu(deck.size.width), cy: emu(deck.size.height) }),
        el('p:notesSz', { cx: emu(NOTES.width), cy: emu(NOTES.height) }),
      ),
    );
  }
}

/** Links in text have the ink of the document, not that of the theme (of 2018; programs before it pass it over). */
const OWN_INK = el(
  'a:extLst',
  {},
  el(
    'a:ext',
    { uri: '{A12FA001-AC4F-418D-AE19-62706E023703}' },
    el('ahyp:hlinkClr', { 'xmlns:ahyp': 'http://schemas.microsoft.com/office/drawing/2018/hyperlinkcolor', val: 'tx' }),
  ),
);
