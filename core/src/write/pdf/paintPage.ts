import type { ComposedFrame } from '../../compose/marks.ts';
import { rectPath, transformRect } from '../../folio/geometry.ts';
import { isAddressOfWeb } from '../../folio/address.ts';
import type { Field, Group, Media } from '../../folio/items.ts';
import type { Spread } from '../../folio/spread.ts';
import { itemBounds, leavesOf, pageOfItem } from '../../folio/traverse.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { hasEffects } from '../../paint/effects.ts';
import { inItemSpace, paintBoxes, paintFill, paintLines, paintPicture, paintPlacedImage, paintStroke } from '../../paint/pdf/paintItem.ts';
import { fieldNames } from '../../motion/fieldNames.ts';
import type { PdfCanvas, StructElement } from '../../paint/pdf/pdfCanvas.ts';
import type { PdfField, PdfForm } from '../../paint/pdf/pdfForm.ts';
import type { LayerRef, PdfLayers } from '../../paint/pdf/pdfLayers.ts';
import { linkCueOf } from '../../structure/pageTargets.ts';
import type { PageReading, ParagraphUnit, ReadingUnit } from '../../structure/reading.ts';
import { pageDestination } from '../../structure/pageDestination.ts';
import type { EffectDrawer, EffectImage, EffectImages } from '../assets/effectImages.ts';
import { pictureOf } from '../assets/encodePictures.ts';
import type { PictureEncoder } from '../assets/encodePictures.ts';
import { sharedGroups } from '../pages/paintedPage.ts';
import type { PageItem, PaintedLeaf } from '../pages/paintedPage.ts';
import type { Scope } from '../scope.ts';
import type { WriteJob } from '../writer.ts';
import { EVENTS } from './cueActions.ts';
import { isCard } from './pageStates.ts';
import type { PageState, PageStates, StateItem } from './pageStates.ts';
import { paintParagraph } from './paintParagraph.ts';
import { cuesOn, rendition } from './pdfCues.ts';
import type { PdfCues } from './pdfCues.ts';
import type { PdfSettings } from './settings.ts';
import type { TaggedParts } from './tagTree.ts';
import { transitionDictionary, transitionOfCard } from './transition.ts';

/** What an item is painted from, all of it at hand. */
interface Ready extends StateItem {
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
    private readonly layers: PdfLayers,
    private readonly cues: PdfCues,
  ) {}

  /** Paints a page as one state shows it, and adds what was painted to the parts of what is read; repeated things are read once. */
  async paint({ place, state, items }: PageStates['all'][number], reading: PageReading, parts: TaggedParts): Promise<void> {
    const { canvas } = this;
    const { page, spread } = place;
    const again = (isRepeated: boolean, draw: () => void): void => (isRepeated ? canvas.repeated(draw) : draw());
    const paper = rectPath({ x: 0, y: 0, width: page.box.width, height: page.box.height });
    canvas.addPage(page.box.width, page.box.height, page.bleed);
    canvas.nameThisPage(state.name);
    const transition = state.card ? transitionOfCard(state.card.switcher.change) : page.transition;
    canvas.pageEntries({
      ...(transition && { Trans: transitionDictionary(transition) }),
      ...(page.advanceAfter !== undefined && { Dur: page.advanceAfter }),
      ...(!state.card && pageActions(this.cues, place, state)),
    });
    canvas.save();
    if (!page.bleed) canvas.clip(paper);
    if (page.background.type !== 'none')
      again(state.card !== null, () => canvas.artifact(() => canvas.fill(paper, page.background, 'nonzero')));
    canvas.transform([1, 0, 0, 1, -page.box.x, -page.box.y]);
    const looks = looksOfFields(spread, items, reading);
    const drawn = new Map<string, (() => void)[]>();
    for (const [z, entry] of items.entries()) {
      // A veil that cannot be lifted would hide what lies below it for good.
      if (entry.item.kind === 'veil') continue;
      for (const group of entry.within.slice(sharedGroups(items[z - 1], entry)).filter(isGroup)) {
        const { under, cover } = await this.effects.of(spread, group);
        canvas.beginGroup();
        again(entry.repeated, () => this.lay(under));
        if (under || cover) canvas.beginGroup();
      }
      const { item, own, repeated } = entry;
      const media = pictureOf(item);
      const composed = item.kind === 'textFrame' ? this.job.composition.frames.get(item.id) : undefined;
      const picture = media ? { media, bytes: (await this.encoder.get(media)).bytes } : null;
      const told = own ? reading.units.filter((u) => u.item === item.id) : [];
      const units = repeated ? [] : told;
      const layers = this.cues.layersOf(item, entry.within.filter(isCard));
      const effects = await this.effects.of(spread, item);
      const played = own && item.kind === 'media' && item.media !== null ? await this.played(item, item.media) : null;
      const look = looks.get(item.id);
      const ready = { ...entry, picture, units: look === undefined ? told : [], composed, effects, page: page.id };
      if (look !== undefined) drawn.set(look, [...(drawn.get(look) ?? []), () => this.paintItem(ready, new Map())]);
      else if (!entry.unseen) {
        this.layers.draw(layers, () => again(repeated, () => this.paintItem(ready, parts)));
        if (own) await this.liven(place, state, entry, units, layers.at(-1), played, parts);
      }
      for (const group of entry.within
        .slice(sharedGroups(entry, items[z + 1]))
        .filter(isGroup)
        .reverse()) {
        const { under, over, cover } = await this.effects.of(spread, group);
        if (under || cover) canvas.endGroup(1, 'normal', cover);
        again(entry.repeated, () => this.lay(over));
        canvas.endGroup(group.opacity, group.blend, null);
      }
    }
    for (const add of this.waiting.splice(0)) add(drawn);
    canvas.restore();
  }

  /** Fields whose looks are drawn after them. */
  private readonly waiting: ((drawn: ReadonlyMap<string, (() => void)[]>) => void)[] = [];

  /** What an item does: a film or sound that is played in it, places to press, links. Each is read with what it lies on. */
  private async liven(
    place: PagePlace,
    state: PageState,
    { item, repeated }: StateItem,
    units: readonly ReadingUnit[],
    layer: LayerRef | undefined,
    played: LayerRef | null,
    parts: TaggedParts,
  ): Promise<void> {
    const { canvas, cues } = this;
    const box = itemBounds(place.spread.items, item);
    const told = item.alt ?? item.name ?? textOfUnits(units) ?? item.id;
    const seen = (own?: LayerRef): Record<string, unknown> => ((own ?? layer) ? { OC: own ?? layer } : {});
    const hang = (element: StructElement): void => {
      const unit = units.at(-1);
      const known = unit && parts.get(unit);
      if (known && !('element' in known[0]!)) known.push({ element });
      else this.further.push(element);
    };
    if (played && item.kind === 'media') {
      const element = canvas.element('Form', { alt: told });
      const ref = cues.screenOf(item.id, state);
      const play = { S: 'Rendition', OP: 0, R: played, AN: ref };
      // Table 194, PO: as soon as its page is opened; not again when a card is turned.
      const begins = item.autoplay && !repeated ? { AA: { PO: play } } : {};
      const data = { Subtype: 'Screen', NM: text(`item ${item.id}`), T: text(told), A: play, ...begins };
      canvas.annotation(box, { ...data, ...seen() }, element, ref);
      element.end();
      hang(element);
    }
    const link = linkCueOf(item);
    const target = this.scope.targets.of(link?.destination, place.page.id) ?? linkOfEmbed(item);
    if (target) {
      const element = canvas.element('Link');
      canvas.linkTo(box, 'page' in target ? { page: pageDestination(target.page) } : target, told, element);
      element.end();
      hang(element);
    }
    for (const { action, layer: own } of cues.ownTurns(place, state, item)) {
      const element = canvas.element('Link');
      canvas.annotation(box, { Contents: text(told), ...seen(own), Subtype: 'Link', A: action }, element);
      element.end();
      hang(element);
    }
    const others = Object.values(item.cues).filter((c) => c !== link?.cue || !target);
    for (const cue of others) {
      const event = EVENTS[cue.trigger.when];
      if (!event || event === 'O' || event === 'C') continue;
      for (const [n, { action, layer: own }] of cues.actions(place, state, cue, item.id).entries()) {
        const element = canvas.element(event === 'A' ? 'Link' : 'Form', event === 'A' ? {} : { alt: told });
        const data = { NM: text(`cue ${cue.id}`), Contents: text(told), ...seen(own) };
        if (event === 'A') canvas.annotation(box, { ...data, Subtype: 'Link', A: action }, element);
        else
          this.form.notice(
            box,
            `${cue.id}-${n}${state.card ? `-${state.card.switcher.id}-${state.card.index}` : ''}`,
            told,
            { ...data, AA: { [event]: action } },
            element,
          );
        element.end();
        hang(element);
      }
    }
  }

  /** Elements of the page that have nothing to be read with; they are read last. */
  readonly further: StructElement[] = [];

  private async played(item: Media, media: string): Promise<LayerRef | null> {
    const file = this.job.folio.head.media[media];
    if (!file) return null;
    const ref = this.cues.renditionOf(item.id);
    // It is in the file already where its page is there more than once.
    if ('Type' in ref.data) return ref;
    const bytes = await this.job.media(media);
    const embedded = this.canvas.file(file.name, file.mediaType, bytes, item.alt ?? item.transcript ?? file.name);
    Object.assign(ref.data, rendition(item, file, embedded));
    ref.end();
    return ref;
  }

  /** One item; where its inks and effects lie on one another, its transparency is that of all of them together. */
  private paintItem(ready: Ready, parts: TaggedParts): void {
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

  private paintBody(ready: Ready, parts: TaggedParts, inside: (draw: () => void) => void): void {
    const { canvas } = this;
    const { item, picture, repeated, composed, page } = ready;
    const units = repeated ? [] : ready.units;
    const body = (): void => {
      paintFill(canvas, item);
      if (picture) paintPicture(canvas, item, picture.media, picture.bytes);
      paintStroke(canvas, item);
    };
    const figure = units.find((u) => u.kind === 'figure');
    if (figure && (picture || item.kind === 'shape'))
      return void parts.set(figure, [{ content: canvas.content('Figure', () => inside(body)) }]);
    if (hasFill(item) || hasStroke(item) || picture) canvas.artifact(() => inside(body));
    const told = ready.units[0];
    if (item.kind === 'field' && told) {
      // A field that is there on several pages of the file is one: what is filled in is filled in on each.
      const add = (element: StructElement): void => void parts.set(told, [...(parts.get(told) ?? []), { element }]);
      if (item.onLook === undefined && item.offLook === undefined) return add(this.form.add(this.fieldOf(item, ready.often)));
      this.waiting.push((drawn) => {
        const field = this.fieldOf(item, ready.often);
        const look = (id: string | undefined): unknown => {
          const draws = id === undefined ? undefined : drawn.get(id);
          return draws && canvas.captured(field.box, () => draws.forEach((d) => d()));
        };
        add(this.form.add(field, { on: look(item.onLook), off: look(item.offLook) }));
      });
      return;
    }
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

  private fieldOf(item: Field, often: boolean): PdfField {
    const { control: k, label, required } = item;
    const box = transformRect(item.transform, { x: 0, y: 0, ...item.size });
    const name = fieldNames(this.job.folio).get(item.id)!;
    const control: PdfField['control'] =
      k.type === 'text'
        ? { type: 'text', many: k.lines === 'many', value: k.value }
        : k.type === 'date'
          ? { type: 'text', many: false, value: k.value }
          : k;
    return { box, name, label, required, control, often };
  }

  private lay(image: EffectImage | null): void {
    if (image) this.canvas.artifact(() => paintPlacedImage(this.canvas, image));
  }
}

const text = (value: string): unknown => new String(value);
const textOfUnits = (units: readonly ReadingUnit[]): string | undefined =>
  units.flatMap((u) => (u.kind === 'paragraph' ? u.lines.flatMap((l) => l.runs.map((r) => r.text)) : [])).join('') || undefined;

/** What web content leads to where its still picture stands for it. */
const linkOfEmbed = (item: PaintedLeaf): { href: string } | null =>
  item.kind === 'embed' && item.poster !== undefined && item.source.from === 'address' && isAddressOfWeb(item.source.href)
    ? { href: item.source.href.trim() }
    : null;

/** What happens when a page is opened and closed (table 195); each cue with its name, by which it is known again. */
function pageActions(cues: PdfCues, place: PagePlace, state: PageState): Record<string, unknown> {
  const AA: Record<string, unknown> = {};
  for (const { cue, holder } of cuesOn(place)) {
    const event = EVENTS[cue.trigger.when];
    const item = place.spread.items[holder];
    if ((event !== 'O' && event !== 'C') || AA[event] || (item && pageOfItem(place.spread, item).id !== place.page.id)) continue;
    const [first] = cues.actions(place, state, cue, holder);
    if (first) AA[event] = first.action;
  }
  return Object.keys(AA).length ? { AA } : {};
}

/** What is drawn as the look of a field that is filled in, by its id → the look's: a group's members are drawn for it. */
function looksOfFields({ items: all }: Spread, items: readonly PageItem[], reading: PageReading): Map<string, string> {
  const read = new Set(reading.units.map((u) => u.item));
  const among = new Map<string, string>();
  for (const { item, own } of items) {
    if (item.kind !== 'field' || !own || !read.has(item.id) || (item.control.type !== 'checkBox' && item.control.type !== 'radio'))
      continue;
    for (const look of [item.onLook, item.offLook]) {
      const shown = look === undefined ? undefined : all[look];
      if (!shown) continue;
      for (const leaf of shown.kind === 'group' ? leavesOf(all, shown) : [shown.id]) among.set(leaf, shown.id);
    }
  }
  return among;
}

const isGroup = (holder: PageItem['within'][number]): holder is Group => holder.kind === 'group';
const hasFill = (item: PageItem['item']): boolean => item.fill.type !== 'none';
const hasStroke = (item: PageItem['item']): boolean => item.stroke !== null && item.stroke.paint.type !== 'none';

/** Layers of ink that an item lays on itself: letters may lie on boxes, boxes on a fill. */
const inksOf = ({ item, picture, composed }: Ready): number =>
  [hasFill(item), hasStroke(item), picture, composed?.boxes.length, composed?.lines.length].filter(Boolean).length;
