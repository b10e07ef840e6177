import type { Folio } from '../../folio/folio.ts';
import { multiply, translation } from '../../folio/geometry.ts';
import type { Matrix, Rect } from '../../folio/geometry.ts';
import type { Item } from '../../folio/items.ts';
import type { BoxBlock } from '../../structure/boxBlocks.ts';
import type { TextPiece, WordsPiece } from '../../structure/textPieces.ts';
import { FRAME } from './drawingObjects.ts';
import type { DrawingObjects } from './drawingObjects.ts';
import { el, pt } from './element.ts';
import type { Xml } from './element.ts';
import type { BoxContent, OdfBox, ShapeSources } from './odfSources.ts';
import type { Texts } from './texts.ts';

type Of<K extends Item['kind']> = Extract<Item, { kind: K }>;

/** Frames of text: boxes with all of a text that goes on in the next, boxes with what each holds, or boxes that are anchored in a text. */
export class TextFrames {
  constructor(
    private readonly folio: Folio,
    private readonly texts: Texts,
    private readonly objects: DrawingObjects,
    private readonly storyOf: ReadonlyMap<string, string>,
    private readonly sources: ShapeSources,
  ) {}

  frame(item: Of<'textFrame'>, origin: Matrix): Xml[] {
    const { boxes, pieces } = this.sources;
    if (boxes) return this.anchored(item, origin, boxes.get(item.id) ?? []);
    return pieces ? this.pieces(item, origin, pieces.get(item.id) ?? []) : [this.whole(item, origin)];
  }

  /** The outline of a frame, and over it the boxes that its text runs through: the first of them has all of it. */
  private anchored(item: Of<'textFrame'>, origin: Matrix, boxes: readonly OdfBox[]): Xml[] {
    return [
      ...this.objects.ground(item, origin),
      ...boxes.map((box) => this.box(item, multiply(origin, item.transform), box, boxes.length === 1)),
    ];
  }

  private box(item: Of<'textFrame'>, toPage: Matrix, { name, next, rect, content }: OdfBox, isOnly: boolean): Xml {
    const place = this.objects.place(multiply(toPage, translation(rect.x, rect.y)), rect);
    const align = { top: 'top', centre: 'middle', bottom: 'bottom', justify: 'top' }[item.verticalAlign];
    // What is turned is a drawing: frames of text documents stand upright.
    const style = this.objects.plain(
      {
        'draw:fill': 'none',
        'draw:stroke': 'none',
        'fo:border': 'none',
        'fo:padding': '0pt',
        'draw:auto-grow-height': 'false',
        'draw:textarea-vertical-align': isOnly ? align : 'top',
      },
      [],
      'draw:transform' in place ? undefined : FRAME,
    );
    return el('draw:frame', { ...this.objects.common(item), 'draw:name': name, 'draw:style-name': style, ...place }, [
      el('draw:text-box', { 'draw:chain-next-name': next }, content ? this.inside(content) : []),
      ...this.objects.about(item),
    ]);
  }

  /** A text of boxes; notes follow it, with their numbers: boxes hold none (common practice). */
  private inside({ story, blocks, notes }: BoxContent): Xml[] {
    return [...this.texts.parts(story, blocks), ...notes.flatMap((note) => this.texts.parts(story, note.blocks, note.number))];
  }

  private whole(item: Of<'textFrame'>, origin: Matrix): Xml {
    const storyId = this.storyOf.get(item.id);
    const story = storyId === undefined ? undefined : this.folio.stories[storyId];
    const at = story?.frames.findIndex((f) => f.item === item.id) ?? -1;
    const next = at >= 0 ? story?.frames[at + 1]?.item : undefined;
    const [top, right, bottom, left] = item.inset;
    if (item.verticalAlign === 'justify') this.objects.notHeld.add('Lines spread over the height of a frame');
    const style = this.objects.look(
      item,
      { x: 0, y: 0, ...item.size },
      {
        'draw:auto-grow-height': 'false',
        'draw:auto-grow-width': 'false',
        'draw:textarea-vertical-align': { top: 'top', centre: 'middle', bottom: 'bottom', justify: 'justify' }[item.verticalAlign],
        'fo:padding-top': pt(top),
        'fo:padding-right': pt(right),
        'fo:padding-bottom': pt(bottom),
        'fo:padding-left': pt(left),
        ...(item.shrinkToFit && { 'draw:fit-to-size': 'shrink-to-fit' }),
      },
      item.columns > 1 ? [el('style:columns', { 'fo:column-count': item.columns, 'fo:column-gap': pt(item.gutter) })] : [],
    );
    // The whole text stands in the first frame of its chain; the others name themselves to the one before them.
    const inside = story && at === 0 ? this.texts.blocks(story, story.order) : [];
    const name = at >= 0 && story!.frames.length > 1 ? item.id : item.name;
    return el(
      'draw:frame',
      {
        ...this.objects.common(item),
        'draw:name': name,
        'draw:style-name': style,
        ...this.objects.place(multiply(origin, item.transform), item.size),
      },
      [
        el(
          'draw:text-box',
          { 'draw:chain-next-name': next, 'draw:corner-radius': item.corner?.kind === 'round' ? pt(item.corner.radius) : undefined },
          inside,
        ),
        ...this.objects.about(item),
      ],
    );
  }

  /** What a frame holds, piece by piece: one box with its outline where its text fills it. */
  private pieces(item: Of<'textFrame'>, origin: Matrix, pieces: readonly TextPiece[]): Xml[] {
    const toPage = multiply(origin, item.transform);
    const [only, ...more] = pieces;
    const [top, right, bottom, left] = item.inset;
    const inner = { x: left, y: top, width: item.size.width - left - right, height: item.size.height - top - bottom };
    const fills = only?.kind === 'words' && !more.length && sameRect(only.rect, inner);
    if (fills) return [this.wordsBox(item, only, toPage, { x: 0, y: 0, ...item.size }, true)];
    const isSeen = item.fill.type !== 'none' || (item.stroke?.weight ?? 0) > 0;
    const ground = isSeen ? [this.wordsBox(item, null, toPage, { x: 0, y: 0, ...item.size }, true)] : [];
    return [
      ...ground,
      ...pieces.map((piece) =>
        piece.kind === 'words' ? this.wordsBox(item, piece, toPage, piece.rect, false) : this.tableBox(item, piece, toPage),
      ),
    ];
  }

  /** A box of text; `dressed`: with the ground and the outline of its frame. */
  private wordsBox(item: Of<'textFrame'>, piece: WordsPiece | null, toPage: Matrix, box: Rect, dressed: boolean): Xml {
    const rect = piece?.rect ?? box;
    const room = [rect.y - box.y, box.x + box.width - rect.x - rect.width, box.y + box.height - rect.y - rect.height, rect.x - box.x];
    const more = {
      'draw:auto-grow-height': 'false',
      'draw:auto-grow-width': 'false',
      'draw:textarea-vertical-align': { top: 'top', centre: 'middle', bottom: 'bottom' }[piece?.align ?? 'top'],
      'fo:padding-top': pt(room[0]!),
      'fo:padding-right': pt(room[1]!),
      'fo:padding-bottom': pt(room[2]!),
      'fo:padding-left': pt(room[3]!),
    };
    const columns =
      piece && piece.columns.count > 1
        ? [el('style:columns', { 'fo:column-count': piece.columns.count, 'fo:column-gap': pt(piece.columns.gutter) })]
        : [];
    const plain = { 'draw:fill': 'none', 'draw:stroke': 'none' };
    const style = dressed ? this.objects.look(item, box, more, columns) : this.objects.plain({ ...plain, ...more }, columns);
    const blocks = piece ? piece.blocks.map((b) => b.block) : [];
    const name = piece ? this.named(item, piece.blocks) : {};
    const inside = piece ? this.onPageOf(item, () => this.texts.parts(piece.story, blocks, piece.note?.number)) : [];
    const corner = dressed && item.corner?.kind === 'round' ? pt(item.corner.radius) : undefined;
    return el(
      'draw:frame',
      {
        ...this.objects.common(item),
        ...name,
        'draw:style-name': style,
        ...this.objects.place(multiply(toPage, translation(box.x, box.y)), box),
      },
      [el('draw:text-box', { 'draw:corner-radius': corner }, inside), ...this.objects.about(item)],
    );
  }

  private tableBox(
    item: Of<'textFrame'>,
    { rect, story, table, widths, heights }: Extract<TextPiece, { kind: 'table' }>,
    toPage: Matrix,
  ): Xml {
    const rows = table.rows.map((row, i) => ({ ...row, height: heights[i] ?? row.height }));
    const name = this.named(item, []);
    return el(
      'draw:frame',
      { ...this.objects.common(item), ...name, ...this.objects.place(multiply(toPage, translation(rect.x, rect.y)), rect) },
      [
        ...this.onPageOf(item, () =>
          this.texts.parts(story, [{ ...table, rows, columns: widths.map((width) => ({ width, unit: 'pt' as const })) }]),
        ),
      ],
    );
  }

  /** The name of a box with text, by which its text is found again. */
  private named({ name = 'Text' }: Item, blocks: readonly BoxBlock[]): Record<string, string> {
    const { takes } = this.sources;
    return takes ? { 'draw:name': takes.box(name, blocks) } : {};
  }

  /** Writes a text as it is on the page of the layout where its frame stands. */
  private onPageOf<T>(item: Item, write: () => T): T {
    const { page } = this.texts;
    this.texts.page = this.sources.pageOf?.(item, page) ?? page;
    const out = write();
    this.texts.page = page;
    return out;
  }
}

const sameRect = (a: Rect, b: Rect): boolean =>
  [a.x - b.x, a.y - b.y, a.width - b.width, a.height - b.height].every((n) => Math.abs(n) < 0.01);
