import type { ComposedFrame } from '../../compose/marks.ts';
import { rectPath, transformRect } from '../../folio/geometry.ts';
import type { Field, Group } from '../../folio/items.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { hasEffects } from '../../paint/effects.ts';
import { inItemSpace, paintBoxes, paintFill, paintLines, paintPicture, paintPlacedImage, paintStroke } from '../../paint/pdf/paintItem.ts';
import { fieldNames } from '../../motion/fieldNames.ts';
import type { PdfCanvas } from '../../paint/pdf/pdfCanvas.ts';
import type { PdfField, PdfForm } from '../../paint/pdf/pdfForm.ts';
import type { PageReading, ParagraphUnit, ReadingUnit } from '../../structure/reading.ts';
import type { EffectDrawer, EffectImage, EffectImages } from '../shared/effectImages.ts';
import { pictureOf } from '../shared/encodePictures.ts';
import type { PictureEncoder } from '../shared/encodePictures.ts';
import { sharedGroups } from '../shared/paintedPage.ts';
import type { PageItem } from '../shared/paintedPage.ts';
import type { Scope } from '../shared/scope.ts';
import type { WriteJob } from '../writer.ts';
import { destination, paintParagraph } from './paintParagraph.ts';
import type { PdfSettings } from './settings.ts';
import type { TaggedPart } from './tagTree.ts';
import { transitionDictionary } from './transition.ts';

/** What an item is painted from, all of it at hand. */
interface Ready extends PageItem {
  picture: { media: string; bytes: Uint8Array } | null;
  units: readonly ReadingUnit[];
  composed: ComposedFrame | undefined;
  effects: EffectImages;
  page: string;
}

/** Paints pages from back to front, and says what was painted for each thing that is read. */
export class PagePainter {
  constructor(
    private readonly job: WriteJob<PdfSettings>,
    private readonly canvas: PdfCanvas,
    private readonly encoder: PictureEncoder,
    private readonly effects: EffectDrawer,
    private readonly scope: Scope,
    private readonly form: PdfForm,
  ) {}

  async paint(place: PagePlace, items: readonly PageItem[], reading: PageReading): Promise<Map<ReadingUnit, TaggedPart[]>> {
    const { canvas } = this;
    const { page, spread } = place;
    const paper = rectPath({ x: 0, y: 0, width: page.box.width, height: page.box.height });
    canvas.addPage(page.box.width, page.box.height, page.bleed);
    canvas.nameThisPage(destination(page.id));
    canvas.pageEntries({
      ...(page.transition && { Trans: transitionDictionary(page.transition) }),
      ...(page.advanceAfter !== undefined && { Dur: page.advanceAfter }),
    });
    const parts = new Map<ReadingUnit, TaggedPart[]>();
    canvas.save();
    if (!page.bleed) canvas.clip(paper);
    if (page.background.type !== 'none') canvas.artifact(() => canvas.fill(paper, page.background, 'nonzero'));
    canvas.transform([1, 0, 0, 1, -page.box.x, -page.box.y]);
    for (const [z, entry] of items.entries()) {
      for (const group of entry.within.slice(sharedGroups(items[z - 1], entry)).filter(isGroup)) {
        const { under, cover } = await this.effects.of(spread, group);
        canvas.beginGroup();
        this.lay(under);
        if (under || cover) canvas.beginGroup();
      }
      const { item, own } = entry;
      const media = pictureOf(item);
      const composed = item.kind === 'textFrame' ? this.job.composition.frames.get(item.id) : undefined;
      const picture = media ? { media, bytes: (await this.encoder.get(media)).bytes } : null;
      const units = own ? reading.units.filter((u) => u.item === item.id) : [];
      this.paintItem({ ...entry, picture, units, composed, effects: await this.effects.of(spread, item), page: page.id }, parts);
      for (const group of entry.within
        .slice(sharedGroups(entry, items[z + 1]))
        .filter(isGroup)
        .reverse()) {
        const { under, over, cover } = await this.effects.of(spread, group);
        if (under || cover) canvas.endGroup(1, 'normal', cover);
        this.lay(over);
        canvas.endGroup(group.opacity, group.blend, null);
      }
    }
    canvas.restore();
    return parts;
  }

  /** One item; where its inks and effects lie on one another, its transparency is that of all of them together. */
  private paintItem(ready: Ready, parts: Map<ReadingUnit, TaggedPart[]>): void {
    const { canvas } = this;
    const { item, opacity, effects } = ready;
    const asOne = (opacity !== 1 || item.blend !== 'normal') && (hasEffects(item.effects) || inksOf(ready) > 1);
    if (asOne) canvas.beginGroup();
    const look = asOne ? { opacity: 1, blend: 'normal' as const } : { opacity, blend: item.blend };
    this.lay(effects.under);
    this.paintBody(ready, parts, (draw) => inItemSpace(canvas, item, look, draw, effects.cover));
    this.lay(effects.over);
    if (asOne) canvas.endGroup(opacity, item.blend, null);
  }

  private paintBody(ready: Ready, parts: Map<ReadingUnit, TaggedPart[]>, inside: (draw: () => void) => void): void {
    const { canvas } = this;
    const { item, picture, units, composed, page } = ready;
    const body = (): void => {
      paintFill(canvas, item);
      if (picture) paintPicture(canvas, item, picture.media, picture.bytes);
      paintStroke(canvas, item);
    };
    const figure = units.find((u) => u.kind === 'figure');
    if (figure && (picture || item.kind === 'shape'))
      return void parts.set(figure, [{ content: canvas.content('Figure', () => inside(body)) }]);
    if (hasFill(item) || hasStroke(item) || picture) canvas.artifact(() => inside(body));
    if (item.kind === 'field' && figure) return void parts.set(figure, [{ element: this.form.add(this.fieldOf(item)) }]);
    if (!composed) return;
    if (composed.boxes.length) canvas.artifact(() => inside(() => paintBoxes(canvas, composed)));
    const paragraphs = units.filter((u): u is ParagraphUnit => u.kind === 'paragraph');
    const read = new Set(paragraphs.map((u) => u.paragraph));
    for (const unit of paragraphs) parts.set(unit, paintParagraph(this.job, canvas, this.scope, item, inside, unit, page));
    const rest = composed.lines.flatMap((l) => {
      const unread = read.has(l.paragraph) ? l.runs.filter((r) => r.decoration) : l.runs;
      return unread.length ? [{ ...l, runs: unread, spaceAtEnd: l.spaceAtEnd && unread === l.runs }] : [];
    });
    if (rest.length) canvas.artifact(() => inside(() => paintLines(canvas, { lines: rest })));
  }

  private fieldOf(item: Field): PdfField {
    const { control: k, label, required } = item;
    const box = transformRect(item.transform, { x: 0, y: 0, ...item.size });
    const name = fieldNames(this.job.folio).get(item.id)!;
    const control: PdfField['control'] =
      k.type === 'text'
        ? { type: 'text', many: k.lines === 'many', value: k.value }
        : k.type === 'date'
          ? { type: 'text', many: false, value: k.value }
          : k;
    return { box, name, label, required, control };
  }

  private lay(image: EffectImage | null): void {
    if (image) this.canvas.artifact(() => paintPlacedImage(this.canvas, image));
  }
}

const isGroup = (holder: PageItem['within'][number]): holder is Group => holder.kind === 'group';
const hasFill = (item: PageItem['item']): boolean => item.fill.type !== 'none';
const hasStroke = (item: PageItem['item']): boolean => item.stroke !== null && item.stroke.paint.type !== 'none';

/** Layers of ink that an item lays on itself: letters may lie on boxes, boxes on a fill. */
const inksOf = ({ item, picture, composed }: Ready): number =>
  [hasFill(item), hasStroke(item), picture, composed?.boxes.length, composed?.lines.length].filter(Boolean).length;
