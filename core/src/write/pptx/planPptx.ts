import { linesOf } from '../../compose/linesOf.ts';
import type { Item } from '../../folio/items.ts';
import { pagesAt } from '../../folio/joinedSpreads.ts';
import { paragraphRole, resolveParagraph, resolveSpan } from '../../folio/resolve.ts';
import type { Paragraph } from '../../folio/story.ts';
import { initialLetters } from '../../folio/text.ts';
import type { Treatment } from '../../ledger/entry.ts';
import { readsAsStacked } from '../../ledger/office/expectSlides.ts';
import type { SubjectInFolio } from '../../ledger/subjects.ts';
import { linkCueOf } from '../../structure/pageTargets.ts';
import { cellHeads, firstColumnHeads } from '../../structure/tableHeads.ts';
import { textPieces } from '../../structure/textPieces.ts';
import { FIXED_PAGE_SENTENCES, planFixedPage } from '../pages/planFixedPage.ts';
import { adapted, dropped, excluded, kept, together } from '../treatments.ts';
import { hasSeveral, leadingOfParagraphs, leadingValues } from '../office/leading.ts';
import { SLIDE_SENTENCES } from '../office/officeSentences.ts';
import { replacementsOf } from '../office/officeSettings.ts';
import { treatGroup, treatFormatting } from '../office/planLooks.ts';
import { DRAWINGML } from '../office/placedFormat.ts';
import { isToldOtherwise } from '../office/placedPictures.ts';
import { slideScope } from '../office/slideScope.ts';
import { PLACED_WRITER } from '../office/placedWriter.ts';
import type { PaintedLeaf } from '../pages/paintedPage.ts';
import { scopeOf } from '../scope.ts';
import type { WriteJob } from '../writer.ts';
import { effectsOf } from './cueEffects.ts';
import { countsPage, decksOf, fillsSlide, LARGEST_SLIDE } from './deck.ts';
import { filledOf } from './placeholders.ts';
import type { PptxSettings } from './settings.ts';
import { MOST_COLUMNS } from './slideTable.ts';
import { hasDirection, isNearest } from './transition.ts';
import type { Plan } from '../treatments.ts';

export const PPTX_SENTENCES = {
  ...FIXED_PAGE_SENTENCES,
  ...SLIDE_SENTENCES,
  'role.none': 'Text on slides has no roles: the heading of each slide alone is known as such.',
  'outline.titles': 'The outline of a deck is the headings of its slides, one for each.',
  'look.partly':
    'Slides have no stretched, shifted or outlined letters, and none of the typeface’s further forms: it is told without them.',
  'leader.none': 'Tabs of slides have no leaders: the room is left, without dots.',
  'page.centred': 'Slides of a deck have one size: the page lies in the middle of a larger one.',
  'page.cut': 'Slides are up to 56 inches wide and high: this one is cut to that.',
  'field.words': 'Slides count their own numbers only: it is words from now on.',
  'cell.headFirstRow': 'Slides know the first row and the first column of a table as heads, and no others.',
  'table.sideBySide': 'A table of a slide has up to {most} columns: this one goes on in another beside it.',
  'table.grows': 'Rows of slides grow with their text; they begin as high as in the layout.',
  'table.upright': 'Tables of slides lie upright.',
  'transition.speed': 'Slides come at three speeds: it has the nearest.',
  'transition.nearest': 'Slides have no such style: it is the nearest.',
  'transition.direction': 'Slides come from four sides: it is the nearest of them.',
  'cue.animation': 'It is an animation of its slide.',
  'cue.animationPartly': 'Slides can do a part of it: what comes, goes and plays.',
  'cue.animationsOff': 'Animations are switched off in the recipe.',
  'link.otherFile': 'It leads to a page that is in another file of the result.',
};
export type PptxCode = keyof typeof PPTX_SENTENCES;

/** Plans every subject for slides. */
export function planPptx(job: WriteJob<PptxSettings>): Plan<PptxCode> {
  const { folio, composition, fonts, settings } = job;
  const { head } = folio;
  const scope = scopeOf(folio, composition, settings, true);
  const slides = slideScope(job);
  const decks = decksOf(slides.pages, settings);
  const deckOf = new Map(decks.flatMap((d) => d.pages.flatMap((p, at) => pagesAt(p).map(({ id }) => [id, { deck: d, at }] as const))));
  const leading = leadingOfParagraphs(folio, composition, settings.leading);
  const replacements = replacementsOf(settings);
  const playsMedia = settings.media === 'inside';
  const plan = planFixedPage(folio, composition, fonts, scope, {
    ...PLACED_WRITER,
    motion: {
      plays: false,
      turnsPages: true,
      fields: false,
      still: { playsMedia, cards: 'switcher.first', treatCue: () => dropped('cue.still') },
    },
  });
  const titles = new Set<string>();
  const pieces = textPieces(folio, composition, slides);
  for (const place of slides.pages) for (const { block } of filledOf(folio, place, pieces).title?.blocks ?? []) titles.add(block.id);
  /** Tables that stand in turned frames. */
  const turned = new Set(
    slides.pages.flatMap(({ spread }) =>
      [...pieces].flatMap(([id, list]) =>
        Math.abs(spread.items[id]?.transform[1] ?? 0) > 1e-6 ? list.flatMap((p) => (p.kind === 'table' ? [p.table.id] : [])) : [],
      ),
    ),
  );
  let stacked: boolean | null = null;
  /** Whether slides are read as the reading path is. */
  const isInOrder = (): boolean => (stacked ??= readsAsStacked(folio, slides.pages, pieces));

  const treatLook = (block: Paragraph): Treatment<PptxCode> => {
    const { character, paragraph } = resolveParagraph(head, block);
    const { family } = fonts.match(character).familyOfFour;
    const instead = replacements.get(family.toLowerCase());
    const isFlat = paragraph.dropCapital && initialLetters(block, paragraph.dropCapital.characters);
    const pitch = leading(block);
    const looks = [character, ...block.content.flatMap((n) => (n.type === 'span' ? [resolveSpan(head, character, n)] : []))];
    const isMore = looks.some(
      (c) =>
        c.horizontalScale !== 1 ||
        c.verticalScale !== 1 ||
        c.baselineShift !== 0 ||
        c.stroke !== null ||
        Object.entries(c.features).some(([, on]) => on > 0),
    );
    const hasLeaders = paragraph.tabs.some((t) => t.leader) && block.content.some((n) => n.type === 'tab');
    const reasons = together<PptxCode>(
      instead ? adapted('font.replaced', { family: instead }) : kept,
      isFlat ? adapted('initial.flat') : kept,
      hasSeveral(pitch) ? adapted('leading.one', leadingValues(pitch)) : kept,
      isMore ? adapted('look.partly') : kept,
      hasLeaders ? adapted('leader.none') : kept,
    );
    return reasons.outcome === 'kept' ? adapted('font.byName') : reasons;
  };

  const treatPage = (about: SubjectInFolio, treatment: Treatment<PptxCode>): Treatment<PptxCode> => {
    const page = about.spread!.pages.find((p) => p.id === about.subject.id)!;
    const { deck, at } = deckOf.get(page.id)!;
    const { joins } = deck.pages[at]!;
    const isLater = !!joins && joins[0]!.id !== page.id;
    switch (about.subject.aspect) {
      case 'size':
        if (joins) return adapted('page.onSpread');
        if (Math.max(page.box.width, page.box.height) > LARGEST_SLIDE) return adapted('page.cut');
        return fillsSlide(deck, page) ? kept : adapted('page.centred');
      case 'transition': {
        if (!settings.transitions) return excluded('transition.off');
        const { transition } = page;
        if (!transition) return treatment;
        if (isLater) return dropped('transition.ofFirst');
        if (isNearest(transition)) return adapted('transition.nearest');
        return hasDirection(transition) ? adapted('transition.speed') : adapted('transition.direction');
      }
      case 'advance':
        if (isLater) return dropped('transition.ofFirst');
        return settings.transitions ? treatment : excluded('transition.off');
      case 'notes':
        return settings.notes ? kept : excluded('notes.off');
      default:
        return treatment;
    }
  };

  const treatAnimation = (about: SubjectInFolio, treatment: Treatment<PptxCode>): Treatment<PptxCode> => {
    const id = about.subject.id.split('/').pop()!;
    const page = about.spread?.pages.find((p) => id in p.cues);
    const cue = (about.item ?? page)?.cues[id];
    if (!cue || !about.spread || treatment.code !== 'cue.still') return treatment;
    const place = slides.pages.find((p) => pagesAt(p).some(({ id }) => about.pages.includes(id) || id === page?.id));
    const done = place && effectsOf(folio, place.spread, about.item ?? null, cue);
    if (!done?.effects.length) return treatment;
    if (!settings.animations) return excluded('cue.animationsOff');
    return adapted(done.left ? 'cue.animationPartly' : 'cue.animation');
  };

  return (about) => {
    const { subject } = about;
    const treatment = plan(about);
    if (subject.kind === 'font') return fonts.faceOf(head.fonts[subject.id]!) ? excluded('font.byName') : treatment;
    if (subject.kind === 'page' && treatment.code !== 'range.out') return treatPage(about, treatment);
    if (subject.kind === 'cue') return isInOtherFile(about) ? dropped('link.otherFile') : treatAnimation(about, treatment);
    if (treatment.outcome === 'excluded' || treatment.outcome === 'dropped') return treatment;
    if (subject.kind === 'link' && isInOtherFile(about)) return dropped('link.otherFile');
    if ((subject.kind === 'item' || subject.kind === 'masterItem') && about.item) return treatItem(about.item, subject.aspect, treatment);
    return together(treatment, treatText(about, treatment));
  };

  /** What slides cannot hold of texts and of the document as a whole. */
  function treatText(about: SubjectInFolio, treatment: Treatment<PptxCode>): Treatment<PptxCode> {
    const { subject } = about;
    switch (subject.kind) {
      case 'document':
        if (subject.aspect === 'outline') return adapted('outline.titles');
        return subject.aspect === 'order' && !isInOrder() ? adapted('order.stacked') : kept;
      case 'note':
        return adapted('note.atFoot');
      case 'field':
        return treatField(about);
      case 'table':
      case 'cell':
        return treatTable(about);
      default:
        break;
    }
    const block = about.paragraph && about.story!.blocks[about.paragraph];
    if (block && block.kind === 'paragraph') {
      if (subject.aspect === 'look') return treatLook(block);
      if (subject.aspect === 'place') return adapted('lines.box');
      if (subject.aspect === 'role') {
        const { element } = paragraphRole(head, block.style);
        return element === 'p' || titles.has(block.id) ? kept : adapted('role.none');
      }
    }
    return treatment;
  }

  function treatField({ node, paragraph }: SubjectInFolio): Treatment<PptxCode> {
    if (node?.type !== 'field' || node.field !== 'pageNumber' || settings.fields !== 'live') return adapted('field.words');
    const pages = scope.pages.filter((p) => linesOf(composition, paragraph!).length && deckOf.has(p.page.id));
    return pages.every((p) => countsPage(deckOf.get(p.page.id)!.deck, deckOf.get(p.page.id)!.at)) ? kept : adapted('field.words');
  }

  function treatTable({ subject, story }: SubjectInFolio): Treatment<PptxCode> {
    const table = Object.values(story!.blocks).find((b) => b.kind === 'table' && (b.id === subject.id || b.cells[subject.id]));
    if (table?.kind !== 'table') return kept;
    if (table.columns.length > MOST_COLUMNS) return adapted('table.sideBySide', { most: MOST_COLUMNS });
    if (subject.kind === 'table') return adapted(turned.has(table.id) ? 'table.upright' : 'table.grows');
    const cell = table.cells[subject.id]!;
    const told = (table.headerRows > 0 && cell.row === 0) || (firstColumnHeads(head, story!, table) && cell.column === 0);
    return told === (cellHeads(head, story!, table, cell) !== null) ? kept : adapted('cell.headFirstRow');
  }

  function treatItem(item: Item, aspect: string, treatment: Treatment<PptxCode>): Treatment<PptxCode> {
    if (item.kind === 'group') return treatGroup(item, aspect, settings) ?? treatment;
    if (settings.pictures === 'none' && (item.kind === 'picture' || (aspect === 'media' && !playsMedia))) return excluded('pictures.out');
    if (item.kind === 'media' && !playsMedia && treatment.code === 'media.poster') return adapted('media.settings');
    if (aspect === 'wrap') return adapted('wrap.boxes');
    const look = treatFormatting(item, aspect, settings, DRAWINGML);
    if (look) return together<PptxCode>(treatment, look);
    if (isToldOtherwise(item as PaintedLeaf, settings, DRAWINGML) && (aspect === 'picture' || aspect === 'look' || aspect === 'place'))
      return together<PptxCode>(treatment, adapted('picture.asDrawn'));
    if (aspect !== 'look') return treatment;
    const isBare = item.stroke && [item.stroke.startMarker, item.stroke.endMarker].includes('bar');
    const isFaded = item.kind === 'textFrame' && item.opacity < 1;
    return together<PptxCode>(treatment, isBare ? adapted('ends.bare') : kept, isFaded ? adapted('opacity.words') : kept);
  }

  /** Whether a link leads to a page of another file of the result. */
  function isInOtherFile({ subject, story, item, pages }: SubjectInFolio): boolean {
    if (decks.length < 2) return false;
    const destination =
      subject.kind === 'link' ? story?.links[subject.id.split('/').pop()!]?.destination : item && linkCueOf(item)?.destination;
    const from = pages[0] ?? '';
    const target = slides.targets.of(destination, from);
    return !!target && 'page' in target && deckOf.get(target.page)?.deck !== deckOf.get(from)?.deck;
  }
}
