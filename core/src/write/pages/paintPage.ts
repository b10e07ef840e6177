import type { ComposedFrame, Composition } from '../../compose/marks.ts';
import type { Folio } from '../../folio/folio.ts';
import type { TextFrame } from '../../folio/items.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { boundsOfPath, rectPath } from '../../folio/geometry.ts';
import { paragraphStays, resolveParagraph } from '../../folio/resolve.ts';
import { plainText } from '../../folio/text.ts';
import { pageOfItem, printedNumber } from '../../folio/traverse.ts';
import { itemFilter, itemStyle, outlineSvg, pictureMarkup, textBoxes } from '../../paint/html/paintItem.ts';
import type { PictureSource } from '../../paint/html/paintItem.ts';
import { px } from '../../paint/html/metrics.ts';
import { paintFlowing, paintLine } from '../../paint/html/paintLine.ts';
import type { LookSheet } from '../../paint/html/styleSheet.ts';
import { pathElement } from '../../paint/svg/fillAndStroke.ts';
import { attrs, num } from '../../paint/svg/markup.ts';
import type { PageReading, ParagraphUnit, ReadingUnit } from '../../structure/reading.ts';
import type { TablePart } from '../../structure/tableParts.ts';
import { pictureOf } from '../assets/encodePictures.ts';
import type { PageItem } from './paintedPage.ts';
import type { Scope } from '../scope.ts';
import { columnOf, columnStyle, flowOf, flowStyle, unjustified } from './flowing.ts';
import type { FlowingColumn, FlowingPart, Overflow } from './flowing.ts';
import type { Frame } from './frame.ts';
import { groupMarkup } from './groupMarkup.ts';
import type { Marked } from './groupMarkup.ts';
import { linkArea } from './linkArea.ts';
import { isAlive, isPressed, movingPart, pressArea } from './movingParts.ts';

export interface HtmlPageContext {
  folio: Folio;
  composition: Composition;
  looks: LookSheet;
  language: string;
  /** File of a picture in the result. */
  source: (media: string) => PictureSource;
  /** File of a film or sound in the result. */
  mediaFile: (media: string) => string | undefined;
  /** What shows letters that are drawn. */
  letters: (item: TextFrame, frame: ComposedFrame) => string;
  /** Frames whose text is scrolled to its end. */
  scrolls: ReadonlySet<string>;
  /** Where paragraphs flow: what happens to lines that have no room. */
  flows: Overflow | null;
  scope: Pick<Scope, 'targets' | 'shown'>;
  /** What is shown inside a page, by the ids of its items; nothing where an output cannot. */
  frames: ReadonlyMap<string, Frame>;
  /** Whether pictures wait until they come near. */
  lazy: boolean;
  /** The id of a page's element. */
  anchorOf: (page: string) => string;
  /** The address of a page of the result, seen from where this page stands. */
  addressOf: (page: string) => string;
}

/** HTML elements for roles that cannot stand where a frame stands. */
const BLOCK: Record<string, { tag: string; role?: string }> = {
  figcaption: { tag: 'p' },
  aside: { tag: 'div', role: 'note' },
  th: { tag: 'p' },
  td: { tag: 'p' },
  pre: { tag: 'p' },
  li: { tag: 'li' },
};

/**
 * A page as HTML: items in the order in which they are read, stacked by `z-index` in the order in which
 * they are painted. What is decoration comes last and is hidden from assistive technology.
 */
export function paintHtmlPage(place: PagePlace, items: PageItem[], reading: PageReading, c: HtmlPageContext): string {
  const { page } = place;
  const byId = new Map(items.map((e, z) => [e.item.id, { ...e, z: z + 1 }]));
  const out: Marked[] = [];
  const done = new Set<string>();
  for (const units of stretchesOf(reading.units)) {
    const [unit] = units;
    const entry = byId.get(unit!.item);
    if (!entry?.own) continue;
    const rest = done.has(unit!.item);
    done.add(unit!.item);
    const text = unit!.kind === 'paragraph' ? textOf(units, reading.units, entry, place.page.id, rest, c) : undefined;
    const alt = unit!.kind === 'figure' && !isAlive(entry.item) ? unit!.alt : '';
    const markup = rest ? furtherText(place, entry, text!) : shell(place, entry, c, text, alt) + pressable(place, entry, c);
    out.push({ ...entry, markup });
  }
  for (const entry of byId.values()) {
    if (done.has(entry.item.id)) continue;

    const link = entry.own ? pressable(place, entry, c) : '';
    out.push({ ...entry, markup: shell(place, entry, c, decorText(entry.item.id, c), '') + link });
  }
  for (const { item, z, within } of byId.values())
    if (item.kind === 'switcher')
      for (const [index, { id }] of item.cards.entries())
        out.push({ z, markup: '', within: [...within, { kind: 'card', id, switcher: item, index }] });
  for (const group of Object.values(place.spread.items))
    if (group.kind === 'group' && c.scope.shown(group) && pageOfItem(place.spread, group).id === page.id)
      out.push({
        within: [],
        z: byId.size + 1,
        markup: linkArea(place, group, byId.size + 1, c) + pressArea(place, group, byId.size + 1, c),
      });
  const ground = pathElement(
    `${page.id}-ground`,
    rectPath({ x: 0, y: 0, width: page.box.width, height: page.box.height }),
    page.background,
    null,
    c.folio.head.swatches,
  );
  const paper = ground
    ? `<svg class="o" style="left:0;top:0" width="${num(px(page.box.width), 4)}" height="${num(px(page.box.height), 4)}" viewBox="0 0 ${num(page.box.width, 4)} ${num(page.box.height, 4)}" aria-hidden="true">${ground}</svg>`
    : '';
  return `<section${attrs({ class: 'page', id: c.anchorOf(page.id), 'data-page': page.id, 'aria-label': `Page ${printedNumber(place)}`, style: `width:${num(px(page.box.width), 4)}px;height:${num(px(page.box.height), 4)}px` })}>${paper}\n${groupMarkup(out, place, c.folio.head, (item) => isPressed(item, page.id, c))}\n</section>`;
}

const pressable = (place: PagePlace, { item, z }: PageItem & { z: number }, c: HtmlPageContext): string =>
  linkArea(place, item, z, c) + pressArea(place, item, z, c);

/** Units of one item that are read one after another: what is anchored in a text is read between its paragraphs. */
function stretchesOf(units: readonly ReadingUnit[]): ReadingUnit[][] {
  const out: ReadingUnit[][] = [];
  for (const unit of units) {
    const last = out[out.length - 1];
    if (last?.[0]!.item === unit.item) last.push(unit);
    else out.push([unit]);
  }
  return out;
}

/** More text of a frame whose box is there already. */
function furtherText(place: PagePlace, { item, z, opacity }: PageItem & { z: number }, text: string): string {
  const size = 'size' in item ? item.size : { width: 0, height: 0 };
  return `<div${attrs({ class: 'i', 'data-item': item.id, style: itemStyle(item, size, { z, origin: place.page.box, opacity }) })}>${text}</div>`;
}

/** The box of one item with its outline, picture and text. `text` undefined: no text; alt '' : nothing to announce. */
function shell(
  place: PagePlace,
  entry: PageItem & { z: number },
  c: HtmlPageContext,
  text: string | undefined,
  alt: string | undefined,
): string {
  const { item } = entry;
  const { head } = c.folio;
  const bounds = item.kind === 'shape' ? boundsOfPath(item.path) : null;
  const size = bounds ? { width: bounds.width, height: bounds.height } : (item as { size: { width: number; height: number } }).size;
  const style = itemStyle(item, size, { z: entry.z, origin: place.page.box, opacity: entry.opacity });
  const media = pictureOf(item);
  const frame = c.composition.frames.get(item.id);
  const composed = item.kind === 'textFrame' && frame ? { item, frame } : null;
  const body =
    (item.kind === 'veil' ? '' : outlineSvg(item, head, item.kind === 'picture' ? 'fill' : 'both')) +
    (item.kind === 'picture' && media ? pictureMarkup(item, c.source(media), alt ?? '', c.lazy) + outlineSvg(item, head, 'stroke') : '') +
    movingPart(item, c) +
    (composed
      ? scrolled(composed.item, textBoxes(composed.frame, composed.item, head) + (text ?? '') + c.letters(composed.item, composed.frame), c)
      : (text ?? ''));
  if (!body && item.kind !== 'veil') return '';
  const speaks = isAlive(item) || (entry.own && ((text !== undefined && !text.startsWith('<!--d-->')) || alt !== ''));
  const label =
    item.kind === 'shape' && alt
      ? { role: 'img', 'aria-label': alt }
      : item.kind === 'veil'
        ? { role: 'group', 'aria-label': item.alt || item.action }
        : {};
  const box = `<div${attrs({ class: entry.unseen ? 'i unseen' : 'i', 'data-item': item.id, 'data-press': isAlive(item) && isPressed(item, place.page.id, c) ? item.id : undefined, style, 'aria-hidden': speaks ? undefined : 'true', ...label })}>${body.replace('<!--d-->', '')}</div>`;
  return itemFilter(item, size, head) + box;
}

/** A frame's text in a room of its own where it is scrolled, by keys as well (WCAG 2.2, 2.1.1). */
function scrolled({ id, size }: TextFrame, text: string, c: HtmlPageContext): string {
  if (!c.scrolls.has(id)) return text;
  const style = `left:0;top:0;width:${num(px(size.width), 4)}px;height:${num(px(size.height), 4)}px;overflow:hidden auto`;
  return `<div${attrs({ class: 'col', style, tabindex: 0 })}>${text}</div>`;
}

/** Text that is seen but not read: page numbers and the like. */
function decorText(frame: string, c: HtmlPageContext): string | undefined {
  const composed = c.composition.frames.get(frame);
  if (!composed?.lines.length) return undefined;
  const story = c.folio.stories[composed.story]!;
  return (
    '<!--d-->' +
    composed.lines.map((l) => paintLine(l, { head: c.folio.head, looks: c.looks, language: '', href: () => void story }, true)).join('')
  );
}

/** Paragraphs of one frame in reading order, list lines gathered into lists; with the first go lines that are not read. */
function textOf(
  units: readonly ReadingUnit[],
  all: readonly ReadingUnit[],
  { item: frameItem }: PageItem,
  page: string,
  rest: boolean,
  c: HtmlPageContext,
): string {
  const frame = frameItem.id;
  const isText = (u: ReadingUnit): u is ParagraphUnit => u.kind === 'paragraph' && u.item === frame;
  const mine = units.filter(isText);
  let out = '';
  let inList = false;
  const flows = mine.map((u) => (c.flows ? flowOf(u) : null));
  let column: { of: number; room: FlowingColumn; pen: number } | null = null;
  for (let i = 0; i < mine.length; i++) {
    const unit = mine[i]!;
    const flow = flows[i] ?? null;
    if ((flow?.column ?? null) !== (column?.of ?? null)) {
      out += `${inList ? '</ul>' : ''}${column ? '</div>' : ''}`;
      inList = false;
      column = flow && { of: flow.column, room: roomFrom(mine, flows, i, frameItem), pen: flow.top };
      if (column)
        out += `<div${attrs({ class: 'col', style: columnStyle(column.room, c.flows!), tabindex: c.flows === 'scroll' ? 0 : undefined })}>`;
    }
    const isItem = unit.role.element === 'li' && !unit.cell;
    if (isItem !== inList) out += isItem ? '<ul>' : '</ul>';
    inList = isItem;
    if (!unit.cell) {
      out += paragraphMarkup(unit, page, c, flow && column && { part: flow, room: column.room, gap: flow.top - column.pen });
      if (flow && column) column.pen = flow.top + flow.lines * flow.leading;
      continue;
    }
    const { part } = unit.cell;
    const from = i;
    while (mine[i + 1]?.cell?.part === part) i++;
    out += tableMarkup(part, mine.slice(from, i + 1), page, c);
  }
  const unread = rest ? '' : unreadLines(all.filter(isText), frame, c);
  return `${out}${inList ? '</ul>' : ''}${column ? '</div>' : ''}${unread}`;
}

/** The room of the paragraphs that flow from one on: down to what stands below them in their column, or to the frame's end. */
function roomFrom(
  units: readonly ParagraphUnit[],
  flows: readonly (FlowingPart | null)[],
  from: number,
  item: PageItem['item'],
): FlowingColumn {
  const first = flows[from]!;
  let to = from + 1;
  while (flows[to]?.column === first.column) to++;
  const next = units[to]?.lines[0];
  const frameEnd = px('size' in item ? item.size.height : 0);
  const bottom = next && next.column === first.column ? px(next.baseline - next.ascent) : frameEnd;
  return columnOf(flows.slice(from, to) as FlowingPart[], bottom);
}

/** A table as one; its text stands where the layout has it, so rows and cells themselves take no room. */
function tableMarkup(part: TablePart, units: readonly ParagraphUnit[], page: string, c: HtmlPageContext): string {
  const row = ({ cells }: TablePart['rows'][number]): string =>
    `<tr>${cells
      .map(({ cell, heads }) => {
        const span = { colspan: cell.columns > 1 ? cell.columns : undefined, rowspan: cell.rows > 1 ? cell.rows : undefined };
        const text = units
          .filter((u) => u.cell!.cell === cell)
          .map((u) => (u.role.element === 'li' ? `<ul>${paragraphMarkup(u, page, c)}</ul>` : paragraphMarkup(u, page, c)))
          .join('');
        return heads
          ? `<th${attrs({ scope: heads === 'column' ? 'col' : 'row', ...span })}>${text}</th>`
          : `<td${attrs(span)}>${text}</td>`;
      })
      .join('')}</tr>`;
  const body = part.rows.findIndex((r) => !r.heading);
  const head = part.rows.slice(0, body < 0 ? part.rows.length : body);
  const rest = part.rows.slice(head.length);
  return `<table>${head.length ? `<thead>${head.map(row).join('')}</thead>` : ''}${rest.length ? `<tbody>${rest.map(row).join('')}</tbody>` : ''}</table>`;
}

/** Lines of the frame that no reading unit has (roles that are left out): seen, not read. */
function unreadLines(units: readonly ParagraphUnit[], frame: string, c: HtmlPageContext): string {
  const read = new Set(units.map((u) => u.paragraph));
  const lines = (c.composition.frames.get(frame)?.lines ?? []).filter((l) => !read.has(l.paragraph) && l.runs.length);
  return lines.length
    ? `<div aria-hidden="true">${lines.map((l) => paintLine(l, { head: c.folio.head, looks: c.looks, language: '', href: () => undefined }, true)).join('')}</div>`
    : '';
}

function paragraphMarkup(
  unit: ParagraphUnit,
  page: string,
  c: HtmlPageContext,
  flowing: { part: FlowingPart; room: FlowingColumn; gap: number } | null = null,
): string {
  const story = c.folio.stories[unit.story]!;
  const block = story.blocks[unit.paragraph]!;
  if (block.kind !== 'paragraph') return '';
  const { character, paragraph } = resolveParagraph(c.folio.head, block);
  const { tag, role } = BLOCK[unit.role.element] ?? { tag: unit.role.element };
  const href = (link: string) => {
    const found = story.links[link];
    const target = c.scope.targets.of(found?.destination, page);
    if (!target) return undefined;
    const newWindow = 'href' in target && target.newWindow;
    return { href: 'href' in target ? target.href : c.addressOf(target.page), newWindow, title: found?.title };
  };
  const plain = plainText(block.content);
  const context = { head: c.folio.head, looks: c.looks, language: character.language, href };
  const lines = unit.lines
    .map((l, i) => {
      const more = i < unit.lines.length - 1 || !unit.ends;
      if (!flowing) return paintLine(l, context, more);
      // A line that was ended by hand ends there in every browser.
      return paintFlowing({ ...l, runs: l.runs.map(unjustified) }, context, more) + (plain[l.end] === '\n' ? '<br>' : '');
    })
    .join('');
  const style = flowing ? flowStyle(flowing.part, paragraph, unit.ends, flowing.room, flowing.gap) : undefined;
  // The font of its first letters decides where the baselines are.
  const [main] = unit.lines[0]?.runs ?? [];
  const strut =
    flowing && main && !main.look.underline && !main.look.strike
      ? `fl ${c.looks.classOf(unjustified({ ...main, shift: 0 }))}`
      : flowing
        ? 'fl'
        : undefined;
  const name = [strut, unit.role.class, unit.begins ? undefined : 'continued'].filter(Boolean).join(' ');
  return `<${tag}${attrs({ id: unit.begins ? unit.paragraph : undefined, class: name || undefined, role, lang: character.language === c.language ? undefined : character.language, dir: paragraph.direction === 'rtl' ? 'rtl' : undefined, translate: paragraphStays(c.folio.head, block) ? 'no' : undefined, style })}>${lines}</${tag}>`;
}
