import { fieldText } from '../../compose/fieldText.ts';
import { nameInXml } from '../../folio/ids.ts';
import type { Item } from '../../folio/items.ts';
import { paragraphRole, resolveParagraph } from '../../folio/resolve.ts';
import type { Paragraph, Story } from '../../folio/story.ts';
import { contentLength } from '../../folio/text.ts';
import { flowOf } from '../../structure/flow.ts';
import type { FlowBlock, FlowFigure, FlowParagraph, FlowSection } from '../../structure/flow.ts';
import { headingLevel } from '../../structure/outline.ts';
import { isSafeAddress } from '../../folio/address.ts';
import { flowFields } from '../reflow/flowFields.ts';
import { drawnFigures, figuresIn } from '../reflow/flowFigures.ts';
import { usedParagraphs } from '../reflow/prepareFlow.ts';
import { seenAs } from '../reflow/readersInk.ts';
import { AutomaticStyles } from '../opendocument/automaticStyles.ts';
import { NAMESPACES } from '../opendocument/drawing.ts';
import { el, pt, text } from '../opendocument/element.ts';
import type { Xml } from '../opendocument/element.ts';
import { NotHeld } from '../opendocument/notHeld.ts';
import type { OdfFiles } from '../opendocument/placedFiles.ts';
import { Texts } from '../opendocument/texts.ts';
import { TextStyles } from '../opendocument/textStyles.ts';
import { contentsOf } from '../office/contents.ts';
import { measureOf, pageSetup } from '../office/pageSetup.ts';
import type { PageSetup } from '../office/pageSetup.ts';
import { replacementsOf } from '../office/officeSettings.ts';
import { promptsIn } from '../office/promptedJob.ts';
import { leadingOfParagraphs } from '../office/leading.ts';
import { scopeOf } from '../scope.ts';
import type { WriteJob } from '../writer.ts';
import type { OdtSettings } from './settings.ts';
import { bookmark, placeOfPage, placeOfParagraph, placesIn } from './textParts.ts';
import type { TextParts } from './textParts.ts';

interface Made {
  /** The best of it first, then what programs show that cannot. */
  hrefs: string[];
  width: number;
  height: number;
}

/** Every figure as a picture, those made of lines in pixels as well. */
async function madePictures(job: WriteJob<OdtSettings>, sections: readonly FlowSection[], files: OdfFiles): Promise<Map<string, Made>> {
  const made = new Map<string, Made>();
  if (job.settings.pictures === 'none') return made;
  for await (const { item, image, width } of drawnFigures(job, figuresIn(job, sections))) {
    const drawn = image.mediaType === 'image/svg+xml' ? await job.pictures.drawSvg(new TextDecoder().decode(image.bytes), 'picture') : null;
    const hrefs = [files.picture(image), ...(drawn ? [files.picture({ bytes: drawn, mediaType: 'image/png' })] : [])];
    made.set(item.id, { hrefs, width, height: (width * image.height) / image.width });
  }
  return made;
}

/** A document of running text, its figures made. */
export async function runningParts(job: WriteJob<OdtSettings>, files: OdfFiles): Promise<TextParts> {
  const { folio, composition, settings } = job;
  const scope = scopeOf(folio, composition, settings);
  const sections = flowOf(folio, composition, scope);
  const made = await madePictures(job, sections, files);
  const written = [...usedParagraphs(sections)].map((id) => ({ name: nameInXml(id), paragraph: id, part: null }));
  return { ...new RunningText(job, sections, pageSetup(scope.pages, composition), made).parts(), written };
}

/** What text runs around is no wider than this share of it. */
const FLOAT_WIDTH = 0.45;
/** A frame at the right edge that text runs around (part 3, 20.391, 20.301). */
const FLOATS = {
  'style:wrap': 'left',
  'style:number-wrapped-paragraphs': 'no-limit',
  'style:horizontal-pos': 'right',
  'style:horizontal-rel': 'paragraph',
  'style:vertical-pos': 'top',
  'style:vertical-rel': 'paragraph',
  'fo:margin-left': '12pt',
  'fo:padding': '0pt',
  'fo:border': 'none',
  'draw:fill': 'none',
  'draw:stroke': 'none',
};

/** One text from beginning to end, in the order in which it is read. */
class RunningText {
  private readonly automatic = new AutomaticStyles();
  private readonly texts: Texts;
  private readonly textStyles: TextStyles;
  private readonly insertions = new Map<Paragraph, { offset: number; xml: Xml }[]>();
  private readonly places: Set<string>;
  private readonly pagesWaiting: string[] = [];
  /** Frames that the next paragraph runs around. */
  private readonly floating: Xml[] = [];
  /** How wide text is set where it is being written. */
  private measure: number;
  private readonly frames: ReadonlyMap<string, Item>;

  constructor(
    private readonly job: WriteJob<OdtSettings>,
    private readonly sections: readonly FlowSection[],
    private readonly setup: PageSetup,
    private readonly made: ReadonlyMap<string, Made>,
  ) {
    const { folio, composition, settings } = job;
    const notHeld = new NotHeld();
    const scope = scopeOf(folio, composition, settings);
    const used = usedParagraphs(sections);
    const fields = flowFields(folio, sections).sources;
    const prompts = promptsIn(job);
    const leading = leadingOfParagraphs(folio, composition, settings.leading);
    this.measure = measureOf(setup);
    this.frames = new Map(scope.pages.flatMap((p) => Object.entries(p.spread.items)));
    this.textStyles = new TextStyles(folio.head, notHeld, { instead: replacementsOf(settings), byHand: settings.styles === 'none' });
    this.places = placesIn(folio.stories, used);
    for (const { paragraph } of contentsOf(folio, sections, settings.depth, () => undefined)) this.places.add(paragraph);
    this.texts = new Texts(folio, this.textStyles, this.automatic, notHeld, placeOfPage, {
      pieces: null,
      exactRows: settings.tables === 'exact',
      pitch: (paragraph) => leading(paragraph).points,
      field: (node, page) => {
        const shows = fieldText(folio, node, { ...fields, page: page || null });
        const worked = node.field === 'pageNumber' || node.field === 'pageCount' || node.field === 'title' || this.isPlace(node.target);
        return { shows, live: settings.fields === 'live' && worked };
      },
      target: (to, page) => {
        if (to.to === 'address') return isSafeAddress(to.href) ? { href: to.href, newWindow: to.window === 'new' } : null;
        if (to.to === 'paragraph') return used.has(to.paragraph) ? { href: `#${placeOfParagraph(to.paragraph)}`, newWindow: false } : null;
        const target = scope.targets.of(to, page);
        return target && 'page' in target ? target : null;
      },
      running: {
        heading: (p) => headingLevel(paragraphRole(folio.head, p.style).element) || null,
        insertions: (p) => this.insertions.get(p) ?? [],
        inLine: (item) => this.drawing(item, this.measure),
        measure: () => this.measure,
        isPrompt: (p) => prompts?.has(p.id) ?? false,
        isUnseen: (ink) => seenAs(ink, folio) === 'unseen',
        place: (id) => (this.isPlace(id) ? placeOfParagraph(id) : null),
      },
    });
  }

  private isPlace(id: string | undefined): boolean {
    return id !== undefined && this.places.has(id);
  }

  parts(): Omit<TextParts, 'written'> {
    const { folio, settings } = this.job;
    const body = this.inColumns(this.sections.flatMap((s) => s.blocks));
    const last = this.marks();
    const contents = settings.contents ? this.contents() : null;
    return {
      content: el('office:document-content', NAMESPACES, [
        el('office:automatic-styles', {}, this.automatic.nodes),
        el('office:body', {}, [
          el('office:text', {}, [
            contents,
            ...body,
            ...this.floatsAlone(),
            last.length > 0 &&
              el(
                'text:p',
                {},
                last.map((m) => m.xml),
              ),
            !body.length && el('text:p'),
          ]),
        ]),
      ]),
      styles: this.styles(folio.head.metadata.language),
    };
  }

  /** Blocks one after another; those that the layout has in columns stand in sections of as many. */
  private inColumns(blocks: readonly FlowBlock[]): Xml[] {
    const runs: { count: number; gap: number; blocks: FlowBlock[] }[] = [];
    for (const block of blocks) {
      const { count, gap } = this.columnsOf(block);
      const last = runs.at(-1);
      // Where a page begins, what goes on there goes on.
      if (last && (block.kind === 'pageMark' || last.count === count)) last.blocks.push(block);
      else runs.push({ count, gap, blocks: [block] });
    }
    const whole = measureOf(this.setup);
    return runs.flatMap(({ count, gap, blocks: inside }, i) => {
      this.measure = (whole - gap * (count - 1)) / count;
      const written = this.blocks(inside);
      this.measure = whole;
      if (count === 1 || !written.length) return written;
      return [el('text:section', { 'text:style-name': this.automatic.columns(count, gap), 'text:name': `Columns ${i + 1}` }, written)];
    });
  }

  private columnsOf(b: FlowBlock): { count: number; gap: number } {
    const one = { count: 1, gap: 0 };
    if (this.job.settings.columns !== 'layout' || (b.kind !== 'paragraph' && b.kind !== 'table')) return one;
    if (b.kind === 'paragraph' && resolveParagraph(this.job.folio.head, b.paragraph).paragraph.spanColumns) return one;
    const frame = this.frames.get(b.item);
    return frame?.kind === 'textFrame' && frame.columns > 1 ? { count: frame.columns, gap: frame.gutter } : one;
  }

  /** Blocks one after another; paragraphs of a text that follow one another stand together, as their lists do. */
  private blocks(blocks: readonly FlowBlock[]): Xml[] {
    const out: Xml[] = [];
    let open = null as { story: Story; page: string; paragraphs: Paragraph[] } | null;
    const flush = (): void => {
      if (!open) return;
      this.texts.page = open.page;
      out.push(...this.texts.parts(open.story, open.paragraphs));
      open = null;
    };
    for (const b of blocks) {
      switch (b.kind) {
        case 'pageMark':
          this.pagesWaiting.push(b.page);
          break;
        case 'paragraph': {
          const paragraph = this.prepared(b);
          if (open?.story !== b.story || open.page !== b.page) {
            flush();
            open = { story: b.story, page: b.page, paragraphs: [] };
          }
          open.paragraphs.push(paragraph);
          break;
        }
        case 'table': {
          flush();
          out.push(...this.floatsAlone());
          const marks = this.marks();
          if (marks.length)
            out.push(
              el(
                'text:p',
                {},
                marks.map((m) => m.xml),
              ),
            );
          this.texts.page = b.page;
          out.push(...this.texts.parts(b.story, [b.table]));
          break;
        }
        case 'figure':
          flush();
          if (b.pin?.as === 'float') this.floatFigure(b);
          else out.push(...this.floatsAlone(), ...this.figure(b));
          break;
        case 'box':
          flush();
          if (b.pin.as === 'float') this.float(FLOAT_WIDTH * this.measure, () => this.blocks(b.blocks));
          else out.push(...this.floatsAlone(), ...this.blocks(b.blocks));
      }
    }
    flush();
    return out;
  }

  /** A pinned picture beside the paragraph that runs around it, its caption with it. */
  private floatFigure({ item, captions, pin }: FlowFigure): void {
    const width = Math.min(pin?.width ? pin.width * this.measure : this.measure, FLOAT_WIDTH * this.measure);
    const drawn = this.drawing(item, width);
    if (drawn || captions.length) this.float(width, () => [...(drawn ? [el('text:p', {}, [drawn])] : []), ...this.blocks(captions)]);
  }

  private float(width: number, write: () => Xml[]): void {
    const before = this.floating.splice(0);
    const inside = write();
    const style = this.automatic.graphic(undefined, FLOATS);
    const frame = el('draw:frame', { 'draw:style-name': style, 'text:anchor-type': 'paragraph', 'svg:width': pt(width) }, [
      el('draw:text-box', { 'fo:min-height': '1pt' }, inside),
    ]);
    this.floating.push(...before, frame);
  }

  /** Where no paragraph follows, they stand in one of their own. */
  private floatsAlone(): Xml[] {
    return this.floating.length ? [el('text:p', {}, this.floating.splice(0))] : [];
  }

  /** A paragraph with the places that begin at it, and what stands in its lines. */
  private prepared(b: FlowParagraph): Paragraph {
    const inserted = [
      ...this.marks(),
      ...this.floating.splice(0).map((xml) => ({ offset: 0, xml })),
      ...(this.places.has(b.paragraph.id) ? [{ offset: 0, xml: bookmark(placeOfParagraph(b.paragraph.id)) }] : []),
      ...b.breaks.map(({ offset, page }) => ({ offset, xml: bookmark(placeOfPage(page)) })),
      ...b.inline.flatMap(({ offset, figure }) => {
        const drawn = this.drawing(figure.item, this.measure, resolveParagraph(this.job.folio.head, b.paragraph).character.size * 1.2);
        return drawn ? [{ offset: Math.min(offset, contentLength(b.paragraph.content)), xml: drawn }] : [];
      }),
    ];
    if (inserted.length) this.insertions.set(b.paragraph, inserted);
    return b.paragraph;
  }

  /** Pages of the layout that began since the last paragraph. */
  private marks(): { offset: number; xml: Xml }[] {
    return this.pagesWaiting.splice(0).map((page) => ({ offset: 0, xml: bookmark(placeOfPage(page)) }));
  }

  private figure({ item, captions, pin }: FlowFigure): Xml[] {
    const width = pin?.width ? pin.width * this.measure : this.measure;
    const drawn = this.drawing(item, width);
    const marks = this.marks().map((m) => m.xml);
    const centred = this.automatic.plainParagraph({ 'fo:text-align': 'center', 'fo:keep-with-next': captions.length ? 'always' : 'auto' });
    const shown = drawn ? [el('text:p', { 'text:style-name': centred }, [...marks, drawn])] : [];
    const alone = !drawn && marks.length ? [el('text:p', {}, marks)] : [];
    return [...shown, ...alone, ...this.blocks(captions)];
  }

  /** A picture in a line (10.4.2), no wider than so much, and no higher where it stands among words. */
  private drawing(item: Item, most: number, high = Infinity): Xml | null {
    const made = this.made.get(item.id);
    if (!made) return null;
    const share = Math.min(1, most / made.width, high / made.height);
    return el(
      'draw:frame',
      {
        'draw:name': item.name,
        'text:anchor-type': 'as-char',
        'svg:width': pt(made.width * share),
        'svg:height': pt(made.height * share),
        'style:rel-height': 'scale',
      },
      [
        ...made.hrefs.map((href) => el('draw:image', { 'xlink:type': 'simple', 'xlink:href': href, 'xlink:show': 'embed' })),
        item.alt ? el('svg:desc', {}, [text(item.alt)]) : null,
      ],
    );
  }

  /** A table of contents that can be made anew, filled with what it lists already (8.3). */
  private contents(): Xml | null {
    const { folio, settings } = this.job;
    const fields = flowFields(folio, this.sections).sources;
    const entries = contentsOf(folio, this.sections, settings.depth, (id) => fields.pageOf(id));
    if (!entries.length) return null;
    return el('text:table-of-content', { 'text:name': 'Contents', 'text:protected': 'false' }, [
      el('text:table-of-content-source', { 'text:outline-level': settings.depth }),
      el(
        'text:index-body',
        {},
        entries.map(({ level, text: words, paragraph, printed }) =>
          el('text:p', { 'text:style-name': `Contents_${level}` }, [
            el('text:a', { 'xlink:type': 'simple', 'xlink:href': `#${placeOfParagraph(paragraph)}` }, [
              text(words),
              el('text:tab'),
              printed === undefined ? null : text(printed),
            ]),
          ]),
        ),
      ),
    ]);
  }

  private styles(language: string): Xml {
    const { settings } = this.job;
    const { size, top, right, bottom, left } = this.setup;
    const defaults = this.textStyles.defaults('paragraph', language);
    const entries = Array.from({ length: settings.depth }, (_, i) =>
      el('style:style', { 'style:name': `Contents_${i + 1}`, 'style:display-name': `Contents ${i + 1}`, 'style:family': 'paragraph' }, [
        el('style:paragraph-properties', { 'fo:margin-left': pt(12 * i) }, [
          el('style:tab-stops', {}, [
            el('style:tab-stop', {
              'style:position': pt(this.measure - 12 * i),
              'style:type': 'right',
              'style:leader-style': 'dotted',
              'style:leader-text': '.',
            }),
          ]),
        ]),
      ]),
    );
    const footer =
      settings.pageNumbers &&
      el('style:footer', {}, [
        el('text:p', { 'text:style-name': 'PageNumber' }, [el('text:page-number', { 'text:select-page': 'current' }, [text('1')])]),
      ]);
    const number = el('style:style', { 'style:name': 'PageNumber', 'style:family': 'paragraph' }, [
      el('style:paragraph-properties', { 'fo:text-align': 'center' }),
    ]);
    const page = el('style:page-layout', { 'style:name': 'Paper' }, [
      el('style:page-layout-properties', {
        'fo:page-width': pt(size.width),
        'fo:page-height': pt(size.height),
        'fo:margin-top': pt(top),
        'fo:margin-right': pt(right),
        'fo:margin-bottom': pt(bottom),
        'fo:margin-left': pt(left),
        'style:print-orientation': size.width > size.height ? 'landscape' : 'portrait',
      }),
    ]);
    return el('office:document-styles', NAMESPACES, [
      el('office:styles', {}, [defaults, ...entries, number, ...this.textStyles.named()]),
      el('office:automatic-styles', {}, [page]),
      el('office:master-styles', {}, [el('style:master-page', { 'style:name': 'Standard', 'style:page-layout-name': 'Paper' }, [footer])]),
    ]);
  }
}
