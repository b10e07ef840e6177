import { composedSpread } from '../../compose/anchored.ts';
import { linesOf } from '../../compose/linesOf.ts';
import type { Composition } from '../../compose/marks.ts';
import type { Folio } from '../../folio/folio.ts';
import type { Item } from '../../folio/items.ts';
import type { Spread } from '../../folio/spread.ts';
import type { Destination } from '../../folio/motion.ts';
import { isMasterInstance } from '../../folio/masters.ts';
import { shownSpread } from '../../folio/shownSpread.ts';
import { pageOfItem } from '../../folio/traverse.ts';
import { paragraphRole, resolveParagraph } from '../../folio/resolve.ts';
import type { Treatment } from '../../ledger/entry.ts';
import type { SubjectInFolio } from '../../ledger/subjects.ts';
import type { FontSet } from '../../compose/fontSet.ts';
import { treatMotion, treatPlayedCue, MOTION_SENTENCES } from './planMotion.ts';
import type { MotionReach } from './planMotion.ts';
import { linkCueOf } from '../../structure/pageTargets.ts';
import { flowsFreely } from './flowing.ts';
import { groupsApart } from './groupsApart.ts';
import { adapted, dropped, excluded, kept, together } from '../treatments.ts';
import type { Scope } from '../scope.ts';
import type { Plan } from '../treatments.ts';

/** What differs between writers that place every page as designed. */
export interface FixedPageWriter<CueCode extends string = FixedPageCode> {
  /** Whether the output keeps colours in their own space; else other spaces become RGB. */
  keepsColourSpaces: boolean;
  /** Whether shadows, glows and faded edges can be written as such. */
  hasEffects: boolean;
  /** Whether a group must stand together in reading order to be shown as one. */
  groupsMustBeReadTogether: boolean;
  /** Whether a press that leads somewhere becomes a link. */
  linksCues: boolean;
  motion: MotionReach<CueCode>;
  /** Letters that are all drawn, as the recipe says. */
  draws?: 'shapes' | 'picture';
  /** Whether browsers break the lines of paragraphs that can flow. */
  flows?: boolean;
}

/** Sentences for the codes below; each writer adds its own. */
export const FIXED_PAGE_SENTENCES = {
  kept: 'Kept as designed.',
  'range.out': 'This page is not in the chosen range.',
  'layer.hidden': 'It lies on the hidden layer “{layer}”, which is left out.',
  'figure.inTexts': 'In running text the group is one figure; on pages each of its parts is read.',
  'reading.leftOut': 'It is marked to be left out of reading.',
  'text.overflow': '{characters} characters do not fit their frame and are not shown.',
  'text.partRange': 'Part of this text stands on pages outside the chosen range.',
  'text.unplaced': 'This text has no frame on a page, so it is not shown.',
  'text.notSet': 'This kind of text cannot be set yet.',
  'font.drawn': 'The font may not be embedded: its letters are drawn as shapes, with the text kept for searching.',
  'text.shapes': 'Its letters are drawn as shapes, as the recipe says, with the text kept for searching.',
  'text.picture': 'Its letters are drawn as a picture, as the recipe says, with the text kept for searching.',
  'text.flows': 'Its lines are broken by the reader’s browser, as the recipe says, and may end elsewhere than in the layout.',
  'font.notNeeded': 'Texts are drawn, so no font is needed.',
  'font.substituted': '{family} is not there; another font stands in for it.',
  'font.notEmbedded': 'The font may not be embedded, so it is not in the result.',
  'font.unused': 'No text in the result uses this font.',
  'glyph.missing': 'No font has the character {character}.',
  'colour.rgb': 'Its colour is kept in another space in the document and turned into RGB by the plain formula.',
  'group.apart': 'Something else is read between its members: its transparency is given to each of them, without blending.',
  'effect.picture': 'It is drawn as a picture behind or before the item, which stays as it is.',
  'effect.faded': 'Its faded edge is a mask made of a picture; the item under it stays as it is.',
  'effect.apart': 'Something else is read between the group’s members, so it cannot be given an effect as one.',
  ...MOTION_SENTENCES,
  'table.notYet': 'Table frames cannot be written yet.',
  'anchor.unplaced': 'The line in which it is anchored is not shown.',
  'ruby.baseOnly': 'The base text is kept; its reading is not shown yet.',
  'pin.layout': 'In this output pictures stay where the layout has them.',
  'edition.other': 'This result is in another language.',
  'master.decoration': 'Items of master pages repeat from page to page: they are seen, not read.',
  'alt.missing': 'The picture has no alt text, so nothing is announced for it.',
  'picture.missing': 'The frame has no picture.',
  'link.refused': 'Addresses of this kind are not written, because they could run a program.',
  'link.outside': 'It leads to a page outside the chosen range.',
  'outline.none': 'No headings are in the result, so there is no outline.',
  'opening.none': 'How the document opens cannot be set in this output.',
  'page.notes': 'Speaker’s notes have no place in this output.',
};
export type FixedPageCode = keyof typeof FIXED_PAGE_SENTENCES;

/** Plans every subject for an output that shows pages as designed. Total: each subject gets an answer. */
export function planFixedPage<CueCode extends string = FixedPageCode>(
  folio: Folio,
  composition: Composition,
  fonts: FontSet,
  scope: Scope,
  writer: FixedPageWriter<CueCode>,
): Plan<FixedPageCode | CueCode> {
  const substituted = new Map(fonts.asked.filter((a) => a.standsIn).map((a) => [a.family.toLowerCase(), a.family]));
  const onPages = new Map<string, ParagraphState>();
  const inScope = new Set(scope.pages.map((p) => p.page.id));
  const pageOfFrame = frameWhereabouts(folio, composition, scope);

  const paragraphState = (id: string): ParagraphState => {
    if (!onPages.size)
      for (const [frame, composed] of composition.frames)
        for (const line of composed.lines) merge(onPages, line.paragraph, pageOfFrame(frame));
    return onPages.get(id) ?? { inRange: false, outRange: false, hidden: null, leftOut: false };
  };

  const itemState = (about: SubjectInFolio): Treatment<FixedPageCode> | null => {
    if (about.item && !scope.shown(about.item)) return notShownAt(folio, scope, about.item);
    return about.pages.some((p) => inScope.has(p)) ? null : excluded('range.out');
  };

  const apartIn = new Map<string, Set<string>>();
  const isApart = (bare: Spread, item: Item): boolean => {
    if (item.kind !== 'group' || !writer.groupsMustBeReadTogether) return false;
    if (!apartIn.has(bare.id))
      apartIn.set(bare.id, groupsApart(folio, composition, composedSpread(folio, composition, folio.spreads[bare.id]!), scope));
    return apartIn.get(bare.id)!.has(item.id);
  };

  const onSpread = ({ subject, ...about }: SubjectInFolio): Treatment<FixedPageCode> | null => {
    const at = about.spread && about.item ? { spread: about.spread, item: about.item, pages: about.pages } : anchored().get(subject.id);
    if (!at) return null;
    const state = itemState({ ...about, ...at, subject });
    return state ?? treatItem(folio, at.item, subject.aspect, writer, isApart(at.spread, at.item));
  };
  let places: ReturnType<typeof anchoredPlaces> | null = null;
  const anchored = (): ReturnType<typeof anchoredPlaces> => (places ??= anchoredPlaces(folio, composition));

  /** A press that leads somewhere is a link. */
  const treatCue = (about: SubjectInFolio): Treatment<FixedPageCode | CueCode> => {
    const cue = about.subject.id.split('/').pop()!;
    const held = about.item ? undefined : Object.values(about.story?.items ?? {}).find((i) => cue in i.cues);
    const at = held ? anchored().get(held.id) : about;
    const state = at ? itemState({ ...about, ...at }) : dropped('anchor.unplaced');
    const pressed = writer.linksCues && at?.item ? linkCueOf(at.item) : null;
    if (state) return state;
    if (pressed?.cue.id === cue && pressed.destination.to !== 'back') return treatTarget(pressed.destination, at!.pages[0], scope);
    const page = about.spread?.pages.find((p) => cue in p.cues);
    return treatPlayedCue(folio, (at?.item ?? page)?.cues[cue], at?.pages[0] ?? page?.id ?? '', writer.motion);
  };

  return (about) => {
    const { subject } = about;
    switch (subject.kind) {
      case 'document':
        if (subject.aspect === 'opening') return dropped('opening.none');
        return kept;
      case 'layer': {
        const layer = folio.head.layers[subject.id]!;
        return layer.visible || scope.hiddenLayers ? kept : excluded('layer.hidden', { layer: layer.name });
      }
      case 'font': {
        const font = folio.head.fonts[subject.id]!;
        const face = fonts.faceOf(font);
        if (!face) return dropped('font.substituted', { family: font.family });
        if (!usedFaces(composition).has(face)) return excluded('font.unused');
        if (writer.draws) return excluded('font.notNeeded');
        return face.mayEmbed ? kept : dropped('font.notEmbedded', { family: font.family });
      }
      case 'pin':
        return excluded('pin.layout');
      case 'edition':
        return excluded('edition.other');
      case 'page': {
        if (!inScope.has(subject.id)) return excluded('range.out');
        const codes: Record<string, Treatment<FixedPageCode>> = {
          size: kept,
          background: kept,
          transition: writer.motion.turnsPages ? kept : dropped('transition.none'),
          advance: writer.motion.turnsPages ? kept : dropped('advance.none'),
          notes: dropped('page.notes'),
        };
        return codes[subject.aspect] ?? kept;
      }
      case 'cue':
        return treatCue(about);
      case 'masterItem':
      case 'item':
        return onSpread(about) ?? dropped('anchor.unplaced');
      case 'anchor': {
        const at = about.node?.type === 'anchor' ? anchored().get(about.node.item) : undefined;
        return at ? (itemState({ ...about, ...at }) ?? kept) : dropped('anchor.unplaced');
      }
      case 'table':
      case 'cell': {
        if (about.pages.length && !about.pages.some((p) => inScope.has(p))) return excluded('range.out');
        const table = about.story!.blocks[subject.id];
        const cells = table?.kind === 'table' ? Object.keys(table.cells) : [subject.id];
        if (cells.some((id) => !placedCells(composition).has(id))) return leftOver(composition, about);
        return kept;
      }
      case 'story': {
        if (about.pages.length && !about.pages.some((p) => inScope.has(p))) return excluded('range.out');
        const over = composition.stories.get(subject.id)?.overflow;
        return over ? dropped('text.overflow', { characters: over.characters, lines: over.lines }) : kept;
      }
      default: {
        const state = paragraphState(about.paragraph!);
        if (!state.inRange && state.hidden) return state.hidden;
        if (!state.inRange) return state.outRange ? excluded('range.out') : notShown(composition, about);
        const block = about.story!.blocks[about.paragraph!]!;
        const left = state.leftOut || (block.kind === 'paragraph' && paragraphRole(folio.head, block.style).leaveOut);
        if (left && (subject.aspect === 'role' || subject.aspect === 'language' || subject.kind === 'field'))
          return subject.kind === 'field' ? kept : excluded('reading.leftOut');
        return treatText(folio, composition, substituted, state.outRange, about, scope, writer);
      }
    }
  };
}

const usedCache = new WeakMap<Composition, Set<FontSet['faces'][number]>>();
/** Faces that any set line uses. */
function usedFaces(composition: Composition): Set<FontSet['faces'][number]> {
  let used = usedCache.get(composition);
  if (!used) {
    used = new Set();
    for (const frame of composition.frames.values()) for (const line of frame.lines) for (const run of line.runs) used.add(run.font);
    usedCache.set(composition, used);
  }
  return used;
}

/** Where the frames of a paragraph stand, as far as the result has them; `hidden` says why one is not shown. */
interface ParagraphState {
  inRange: boolean;
  outRange: boolean;
  hidden: Treatment<FixedPageCode> | null;
  leftOut: boolean;
}

/** Why an item on a page in range is not shown: another card stands before it, or its layer is left out. */
const notShownAt = (folio: Folio, scope: Scope, item: Item): Treatment<FixedPageCode> =>
  scope.laterCards.has(item.id)
    ? dropped('card.later')
    : excluded('layer.hidden', { layer: folio.head.layers[item.layer]?.name ?? item.layer });

function merge(map: Map<string, ParagraphState>, paragraph: string, frame: Omit<ParagraphState, 'outRange'>): void {
  const state = map.get(paragraph) ?? { inRange: false, outRange: false, hidden: null, leftOut: false };
  if (frame.hidden) state.hidden = frame.hidden;
  else if (frame.inRange) state.inRange = true;
  else state.outRange = true;
  state.leftOut ||= frame.leftOut;
  map.set(paragraph, state);
}

function frameWhereabouts(folio: Folio, composition: Composition, scope: Scope): (frame: string) => Omit<ParagraphState, 'outRange'> {
  const { decorations, leftOut } = folio.head.structure;
  return (frame) => {
    const spread = composedSpread(folio, composition, folio.spreads[composition.frames.get(frame)!.spread]!);
    const item = spread.items[frame]!;
    const hidden = scope.shown(item) ? null : notShownAt(folio, scope, item);
    return {
      inRange: scope.takes(spread, item),
      hidden,
      leftOut: isMasterInstance(frame) || decorations.includes(frame) || leftOut.includes(frame),
    };
  };
}

/** Where the items anchored in texts came to stand; of a master page's text, where they stand first. */
function anchoredPlaces(folio: Folio, composition: Composition): Map<string, { spread: Spread; item: Item; pages: string[] }> {
  const out = new Map<string, { spread: Spread; item: Item; pages: string[] }>();
  for (const [id, spread] of Object.entries(folio.spreads)) {
    const own = shownSpread(folio, spread).items;
    const composed = composedSpread(folio, composition, spread);
    for (const item of Object.values(composed.items))
      if (!own[item.id]) {
        const key = isMasterInstance(item.id) ? item.id.slice(item.id.indexOf('/') + 1) : item.id;
        if (!out.has(key)) out.set(key, { spread: folio.spreads[id]!, item, pages: [pageOfItem(composed, item).id] });
      }
  }
  return out;
}

/** A paragraph that no line shows: its text does not fit, or it has no frame at all. */
function notShown(composition: Composition, about: SubjectInFolio): Treatment<FixedPageCode> {
  const left = leftOver(composition, about);
  return left.code === 'text.unplaced' && !about.story!.order.includes(about.paragraph!) ? dropped('text.notSet') : left;
}

function leftOver(composition: Composition, about: SubjectInFolio): Treatment<FixedPageCode> {
  const over = composition.stories.get(about.story!.id)?.overflow;
  return over ? dropped('text.overflow', { characters: over.characters, lines: over.lines }) : dropped('text.unplaced');
}

const cellsCache = new WeakMap<Composition, Set<string>>();
/** Cells of tables that stand in some frame. */
function placedCells(composition: Composition): Set<string> {
  let cells = cellsCache.get(composition);
  if (!cells) {
    cells = new Set(
      [...composition.frames.values()].flatMap((f) =>
        f.boxes.flatMap((b) => (b.kind === 'cell' && b.subject !== undefined ? [b.subject] : [])),
      ),
    );
    cellsCache.set(composition, cells);
  }
  return cells;
}

/** Effects stay effects where the output has them; else they are pictures beside the item, or a mask over it. */
function treatEffect(aspect: string, writer: FixedPageWriter<string>, apart: boolean): Treatment<FixedPageCode> {
  if (apart) return dropped('effect.apart');
  if (writer.hasEffects) return kept;
  return adapted(aspect === 'effect.feather' ? 'effect.faded' : 'effect.picture');
}

function treatItem(folio: Folio, item: Item, aspect: string, writer: FixedPageWriter<string>, apart: boolean): Treatment<FixedPageCode> {
  const alive = treatMotion(folio, item, aspect, writer.motion);
  if (alive) return alive;
  if (aspect === 'table' || (aspect === 'place' && item.kind === 'tableFrame')) return dropped('table.notYet');
  if (aspect === 'wrap') return kept;
  if (aspect.startsWith('effect.')) return treatEffect(aspect, writer, apart);
  if (aspect === 'picture') return item.kind === 'picture' && item.media === null ? dropped('picture.missing') : kept;
  if (aspect === 'alt') {
    if (isMasterInstance(item.id)) return excluded('master.decoration');
    if (item.kind === 'group') return excluded('figure.inTexts');
    if (folio.head.structure.decorations.includes(item.id)) return kept;
    return item.alt ? kept : dropped('alt.missing');
  }
  if (aspect === 'look') {
    return together<FixedPageCode>(
      apart ? adapted('group.apart') : kept,
      !writer.keepsColourSpaces && usesOtherSpaces(folio, item) ? adapted('colour.rgb') : kept,
    );
  }
  return kept;
}

function usesOtherSpaces(folio: Folio, item: Item): boolean {
  const paints = [item.fill, item.stroke?.paint].flatMap((p) =>
    !p || p.type === 'none' ? [] : p.type === 'gradient' ? p.gradient.stops.map((s) => s.paint) : [p],
  );
  return paints.some((p) => {
    const colour = p.type === 'colour' ? p.colour : folio.head.swatches[p.swatch]?.colour;
    return colour?.space === 'cmyk' || colour?.space === 'spot';
  });
}

function treatText(
  folio: Folio,
  composition: Composition,
  substituted: Map<string, string>,
  partly: boolean,
  about: SubjectInFolio,
  scope: Scope,
  writer: FixedPageWriter<string>,
): Treatment<FixedPageCode> {
  const { subject, story } = about;
  if (subject.kind === 'note') {
    const { node } = about;
    const shown = node?.type === 'note' && node.order.every((id) => linesOf(composition, id).length > 0);
    return shown ? kept : leftOver(composition, about);
  }
  if (subject.kind === 'ruby') return adapted('ruby.baseOnly');
  if (subject.kind === 'field') return kept;
  const block = story!.blocks[about.paragraph!]!;
  if (block.kind !== 'paragraph') return kept;
  if (subject.kind === 'link') {
    const { destination } = story!.links[subject.id.split('/').pop()!]!;
    return treatTarget(destination, about.pages[0], scope);
  }
  if (subject.aspect === 'text') {
    const { missingGlyphs = [], overflow: over } = composition.stories.get(story!.id) ?? {};
    const missing = missingGlyphs.find((g) => g.paragraph === block.id);
    const lost = [
      missing ? dropped('glyph.missing', { character: missing.character }) : kept,
      over && isCut(composition, block.id) ? dropped('text.overflow', { characters: over.characters, lines: over.lines }) : kept,
    ];
    const treatment = together<FixedPageCode>(...lost);
    return treatment.outcome === 'kept' && partly ? excluded('text.partRange') : treatment;
  }
  if (subject.aspect === 'look') {
    const { character } = resolveParagraph(folio.head, block);
    if (writer.draws) return adapted(`text.${writer.draws}`);
    const family = substituted.get(character.fontFamily.toLowerCase());
    return together<FixedPageCode>(
      drawsLetters(composition, block.id) ? adapted('font.drawn') : kept,
      family ? adapted('font.substituted', { family }) : kept,
      writer.flows && flowsFreely(linesOf(composition, block.id)) ? adapted('text.flows') : kept,
    );
  }
  return kept;
}

/** What becomes of a link: those that go back to where one was need a program. */
function treatTarget(destination: Destination, page: string | undefined, scope: Scope): Treatment<FixedPageCode> {
  if (destination.to === 'back') return dropped('cue.still');
  if (scope.targets.of(destination, page ?? '')) return kept;
  return dropped(destination.to === 'address' ? 'link.refused' : 'link.outside');
}

const isCut = (composition: Composition, paragraph: string): boolean => !linesOf(composition, paragraph).some((l) => l.last);
const drawsLetters = (composition: Composition, paragraph: string): boolean =>
  linesOf(composition, paragraph).some((l) => l.runs.some((r) => !r.font.mayEmbed));
