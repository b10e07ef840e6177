import type { Composition } from '../../compose/marks.ts';
import type { FontSet } from '../../compose/fontSet.ts';
import { isAddressOfWeb, isSafeAddress } from '../../folio/address.ts';
import type { Folio } from '../../folio/folio.ts';
import type { Item } from '../../folio/items.ts';
import { isMasterInstance } from '../../folio/masters.ts';
import { cellsByParagraph, lookOfCell } from '../../folio/tableCells.ts';
import { paragraphRole, resolveParagraph } from '../../folio/resolve.ts';
import type { Inline, Paragraph, Story, Table } from '../../folio/story.ts';
import type { Treatment } from '../../ledger/entry.ts';
import type { SubjectInFolio } from '../../ledger/subjects.ts';
import { figureGroups } from '../../structure/figureGroups.ts';
import { flowOf } from '../../structure/flow.ts';
import type { FlowBlock } from '../../structure/flow.ts';
import { adapted, dropped, excluded, kept } from '../treatments.ts';
import { FIXED_PAGE_SENTENCES } from '../pages/planFixedPage.ts';
import { playedFile } from '../../folio/playedFile.ts';
import type { Scope } from '../scope.ts';
import { isDrawable } from './flowPictures.ts';
import { usedParagraphs } from './prepareFlow.ts';
import { seenAs } from './readersInk.ts';
import type { Plan } from '../treatments.ts';

/** What differs between writers of running text. */
export interface FlowWriter {
  /** Whether the result brings the document’s typefaces. */
  embedsFonts: boolean;
  /** Whether places of printed pages are marked. */
  marksPages: boolean;
  /** Whether films and sounds play in it; they do where nothing is said. */
  plays?: boolean;
}

/** Sentences for the codes below; codes shared with outputs that show pages have the same words. */
export const FLOW_SENTENCES = {
  ...FIXED_PAGE_SENTENCES,
  'place.flows': 'Running text has no places: it is read where the reading path has it.',
  'page.flows': 'Running text has no pages of a size; where this one began is marked.',
  'page.unmarked': 'Running text has no pages, and where this one began is not marked.',
  'page.ground': 'Running text has no pages that could have a background.',
  'motion.pageless': 'Running text has no pages that could come or go.',
  'decoration.seenOnly': 'It is decoration: it is seen on the page, and not read.',
  'shape.seenOnly': 'A drawn shape without an alt text is seen on the page, and not read.',
  'box.look': 'The box around the text is not shown; its text is.',
  'picture.asDrawn': 'It is drawn as the page shows it: cropped, turned, framed.',
  'effect.flows': 'Shadows and glows belong to the page; the picture is shown without.',
  'wrap.flows': 'Text runs around it only where it is pinned as floating.',
  'colour.readers': 'Its colour would not be seen on the paper that readers choose; they see it in their own.',
  'figure.part': 'It is part of a group that is shown as one figure.',
  'figure.text': 'It is part of a group that is shown as one figure: drawn with it, read by its alt text.',
  'figure.alt': 'The figure that it is part of is read by an alt text of its own.',
  'cell.flat': 'Its ground runs from colour to colour; it is shown in the colour between.',
  'font.readers': 'Readers see the text in typefaces of their own device.',
  'table.empty': 'A table without a word is not read.',
  'selection.out': 'It is not among the items that were chosen.',
  'pin.nowhere': 'The place that it is pinned to, or the thing itself, is not in the result.',
};
export type FlowCode = keyof typeof FLOW_SENTENCES;

/** Plans every subject for an output of running text. Total: each subject gets an answer. */
export function planFlow(folio: Folio, composition: Composition, fonts: FontSet, scope: Scope, writer: FlowWriter): Plan<FlowCode> {
  const sections = flowOf(folio, composition, scope);
  const used = usedParagraphs(sections);
  const figures = new Set<string>();
  const frames = new Set<string>();
  const tables = new Set<string>();
  const visit = (b: FlowBlock): void => {
    if (b.kind === 'figure') {
      figures.add(b.item.id);
      b.captions.forEach(visit);
    } else if (b.kind === 'paragraph') {
      frames.add(b.item);
      for (const { figure } of b.inline) figures.add(figure.item.id);
      for (const n of b.paragraph.content) if (n.type === 'anchor' && n.place === 'inline') figures.add(n.item);
    } else if (b.kind === 'table') tables.add(b.table.id);
    else if (b.kind === 'box') b.blocks.forEach(visit);
  };
  for (const s of sections) s.blocks.forEach(visit);
  const parts = figureGroups(folio);
  const inScope = new Set(scope.pages.map((p) => p.page.id));
  const substituted = new Map(fonts.asked.filter((a) => a.standsIn).map((a) => [a.family.toLowerCase(), a.family]));
  const outOf = (about: SubjectInFolio): Treatment<FlowCode> | null => {
    const layer = about.item && folio.head.layers[about.item.layer];
    if (about.item && !scope.chosen(about.item)) return excluded('selection.out');
    if (about.item && layer && !scope.shown(about.item)) return excluded('layer.hidden', { layer: layer.name });
    return !about.pages.length || about.pages.some((p) => inScope.has(p)) ? null : excluded('range.out');
  };
  return (about) => {
    const { subject } = about;
    switch (subject.kind) {
      case 'document':
        return subject.aspect === 'opening' ? dropped('opening.none') : kept;
      case 'layer': {
        const layer = folio.head.layers[subject.id]!;
        return layer.visible || scope.hiddenLayers ? kept : excluded('layer.hidden', { layer: layer.name });
      }
      case 'font':
        return treatFont(folio, fonts, subject.id, writer);
      case 'pin': {
        const pin = folio.head.structure.pins[subject.id]!;
        const item = parts.get(pin.item)?.id ?? pin.item;
        return used.has(pin.paragraph) && (figures.has(item) || frames.has(item)) ? kept : dropped('pin.nowhere');
      }
      case 'edition':
        return excluded('edition.other');
      case 'page':
        return outOf(about) ?? treatPage(subject.aspect, writer);
      case 'cue':
        return outOf(about) ?? dropped('cue.still');
      case 'masterItem':
        return outOf(about) ?? excluded('master.decoration');
      case 'item':
        if (parts.has(subject.id) && figures.has(parts.get(subject.id)!.id))
          return subject.aspect === 'alt' ? excluded('figure.alt') : adapted('figure.part');
        return (
          outOf(about) ?? treatItem(folio, about.item ?? about.story!.items[subject.id]!, subject.aspect, figures.has(subject.id), writer)
        );
      case 'anchor':
        return used.has(about.paragraph!) || (about.node?.type === 'anchor' && figures.has(about.node.item))
          ? kept
          : notRead(folio, scope, about);
      case 'table':
      case 'cell': {
        const table = about.story!.blocks[subject.id];
        const id =
          table?.kind === 'table'
            ? table.id
            : Object.values(about.story!.blocks).find((b) => b.kind === 'table' && b.cells[subject.id])!.id;
        if (tables.has(id)) return runs(folio, about.story!, id, subject.id) ? adapted('cell.flat') : kept;
        return isEmptyTable(about.story!, id) ? excluded('table.empty') : notRead(folio, scope, about);
      }
      case 'story':
        return outOf(about) ?? kept;
      default:
        if (!used.has(about.paragraph!)) return notRead(folio, scope, about);
        return treatText(folio, composition, substituted, about, writer, (id) => used.has(id) || inScope.has(id));
    }
  };
}

function treatFont(folio: Folio, fonts: FontSet, id: string, writer: FlowWriter): Treatment<FlowCode> {
  const font = folio.head.fonts[id]!;
  if (!writer.embedsFonts) return excluded('font.readers');
  const face = fonts.faceOf(font);
  if (!face) return dropped('font.substituted', { family: font.family });
  return face.mayEmbed ? kept : dropped('font.notEmbedded', { family: font.family });
}

function treatPage(aspect: string, writer: FlowWriter): Treatment<FlowCode> {
  // Who wants running text wants no places on pages, and none that come or go: they are left out on purpose.
  if (aspect === 'size') return excluded(writer.marksPages ? 'page.flows' : 'page.unmarked');
  if (aspect === 'background') return dropped('page.ground');
  return aspect === 'notes' ? dropped('page.notes') : excluded('motion.pageless');
}

/** Running text has each card after the other, and what lies below veils; fields and web content need a page. */
function treatMotion(folio: Folio, item: Item, aspect: string, shown: boolean, { plays = true }: FlowWriter): Treatment<FlowCode> | null {
  switch (item.kind) {
    case 'media':
      if (!plays || !playedFile(folio, item)) return null;
      if (aspect === 'alt') return item.alt ? kept : dropped('alt.missing');
      return aspect === 'media' ? kept : aspect === 'place' ? excluded('place.flows') : null;
    case 'switcher':
      return aspect === 'motion' ? adapted('switcher.unfolded') : aspect === 'place' ? excluded('place.flows') : null;
    case 'veil':
      return adapted('veil.lifted');
    case 'embed':
      if (aspect !== 'embed' && aspect !== 'place') return null;
      if (aspect === 'place' && shown) return excluded('place.flows');
      if (!shown) return dropped('embed.none');
      return adapted(item.source.from === 'address' && isAddressOfWeb(item.source.href) ? 'embed.link' : 'embed.poster');
    case 'field':
      return dropped('field.still');
    case 'tableFrame':
      return dropped('table.notYet');
    default:
      return null;
  }
}

function treatItem(folio: Folio, item: Item, aspect: string, isFigure: boolean, writer: FlowWriter): Treatment<FlowCode> {
  if (isMasterInstance(item.id)) return excluded('master.decoration');
  const { decorations, leftOut } = folio.head.structure;
  if (leftOut.includes(item.id)) return excluded('reading.leftOut');
  if (decorations.includes(item.id)) return excluded('decoration.seenOnly');
  const shown = isFigure && isDrawable(folio, item);
  const alive = treatMotion(folio, item, aspect, shown, writer);
  if (alive) return alive;
  if (item.kind === 'shape' && !isFigure) return excluded('shape.seenOnly');
  if (aspect === 'wrap') return dropped('wrap.flows');
  if (aspect.startsWith('effect.')) return dropped('effect.flows');
  switch (aspect) {
    case 'place':
      return item.kind === 'textFrame' || item.kind === 'group' || shown
        ? excluded('place.flows')
        : dropped(item.kind === 'media' ? 'media.still' : 'picture.missing');
    case 'look':
      return shown ? adapted('picture.asDrawn') : dropped('box.look');
    case 'picture':
      return shown ? kept : dropped('picture.missing');
    case 'media':
      return shown ? adapted('media.poster') : dropped('media.still');
    case 'alt':
      return item.alt ? (shown ? kept : dropped('picture.missing')) : dropped('alt.missing');
    default:
      return kept;
  }
}

/** A paragraph that is not in the flow: outside the range, hidden, left out, or without a frame. */
function notRead(folio: Folio, scope: Scope, about: SubjectInFolio): Treatment<FlowCode> {
  const inScope = new Set(scope.pages.map((p) => p.page.id));
  if (about.pages.length && !about.pages.some((p) => inScope.has(p))) return excluded('range.out');
  const story = about.story!;
  const frames = story.frames.flatMap((f) => folio.spreads[f.spread]?.items[f.item] ?? []);
  if (frames.length && !frames.some((f) => scope.chosen(f))) return excluded('selection.out');
  const inFigures = figureGroups(folio);
  if (frames.length && frames.every((f) => inFigures.has(f.id))) return adapted('figure.text');
  const hidden = frames.find((f) => !scope.shown(f));
  if (frames.length && frames.every((f) => !scope.shown(f)))
    return excluded('layer.hidden', { layer: folio.head.layers[hidden!.layer]?.name ?? '' });
  if (story.frames.some((f) => folio.head.masterPages[f.spread])) return excluded('master.decoration');
  const block = about.paragraph === undefined ? undefined : story.blocks[about.paragraph];
  const { decorations, leftOut } = folio.head.structure;
  if (frames.some((f) => decorations.includes(f.id) || leftOut.includes(f.id))) return excluded('reading.leftOut');
  if (block?.kind === 'paragraph' && paragraphRole(folio.head, block.style).leaveOut) return excluded('reading.leftOut');
  // An empty line says nothing, and nothing of it is missing.
  if (block?.kind === 'paragraph' && !block.content.some(says)) return kept;
  return scope.pages.length < folio.head.spreadOrder.length ? excluded('range.out') : dropped('text.unplaced');
}

/** Whether no cell of a table has any text. */
function isEmptyTable(story: Story, id: string): boolean {
  const table = story.blocks[id];
  const hasText = (p: string): boolean => {
    const block = story.blocks[p];
    return block?.kind === 'paragraph' && block.content.some(says);
  };
  return table?.kind === 'table' && !Object.values(table.cells).some((cell) => cell.order.some(hasText));
}

const says = (node: Inline): boolean =>
  node.type === 'span' ? node.text.trim() !== '' : node.type === 'field' || node.type === 'note' || node.type === 'ruby';

function treatText(
  folio: Folio,
  composition: Composition,
  substituted: ReadonlyMap<string, string>,
  { subject, story, paragraph }: SubjectInFolio,
  writer: FlowWriter,
  isThere: (id: string) => boolean,
): Treatment<FlowCode> {
  const block = story!.blocks[paragraph!]!;
  if (block.kind !== 'paragraph') return kept;
  if (subject.kind === 'link') {
    const { destination: d } = story!.links[subject.id.split('/').pop()!]!;
    if (d.to === 'address') return isSafeAddress(d.href) ? kept : dropped('link.refused');
    if (d.to === 'page') return isThere(d.page) && writer.marksPages ? kept : dropped('link.outside');
    return d.to === 'paragraph' ? (isThere(d.paragraph) ? kept : dropped('link.outside')) : dropped('cue.still');
  }
  // A note, a field and a reading are there with their paragraph.
  if (subject.kind !== 'paragraph') return kept;
  if (subject.aspect === 'place') return excluded('place.flows');
  if (subject.aspect === 'text') {
    const missing = composition.stories.get(story!.id)?.missingGlyphs.find((g) => g.paragraph === block.id);
    return missing ? dropped('glyph.missing', { character: missing.character }) : kept;
  }
  if (subject.aspect !== 'look') return kept;
  const { character } = resolveParagraph(folio.head, block);
  if (!writer.embedsFonts) return adapted('font.readers');
  const family = substituted.get(character.fontFamily.toLowerCase());
  if (family) return adapted('font.substituted', { family });
  return seenAs(character.fill, folio) === 'unseen' && !hasGround(folio, story!, block) ? adapted('colour.readers') : kept;
}

/** Whether a cell’s ground is a gradient. */
function runs(folio: Folio, story: Story, table: string, cell: string): boolean {
  const block = story.blocks[table];
  const found = block?.kind === 'table' ? block.cells[cell] : undefined;
  return !!found && lookOfCell(folio.head, block as Table, found).fill?.type === 'gradient';
}

/** Whether a paragraph brings the ground that it is read on: its own, or its cell’s. */
function hasGround(folio: Folio, story: Story, paragraph: Paragraph): boolean {
  if (resolveParagraph(folio.head, paragraph).paragraph.shading) return true;
  const place = cellsByParagraph(story).get(paragraph.id);
  const fill = place && lookOfCell(folio.head, place.table, place.cell).fill;
  return !!fill && fill.type !== 'none';
}
