import type { Item } from '../../folio/items.ts';
import { paragraphRole, resolveParagraph } from '../../folio/resolve.ts';
import type { Paragraph } from '../../folio/story.ts';
import type { Treatment } from '../../ledger/entry.ts';
import { readsAsStacked } from '../../ledger/office/expectSlides.ts';
import type { SubjectInFolio } from '../../ledger/subjects.ts';
import { cellHeads } from '../../structure/tableHeads.ts';
import { textPieces } from '../../structure/textPieces.ts';
import { FIXED_PAGE_SENTENCES, planFixedPage } from '../pages/planFixedPage.ts';
import { adapted, dropped, excluded, kept, together } from '../treatments.ts';
import { replacementsOf } from '../office/officeSettings.ts';
import { OPEN_SENTENCES, SLIDE_SENTENCES } from '../office/officeSentences.ts';
import { hasSeveral, leadingOfParagraphs, leadingValues } from '../office/leading.ts';
import { treatGroup, treatFormatting } from '../office/planLooks.ts';
import { OPEN_DOCUMENT } from '../office/placedFormat.ts';
import { isToldOtherwise } from '../office/placedPictures.ts';
import { slideScope } from '../office/slideScope.ts';
import { PLACED_WRITER } from '../office/placedWriter.ts';
import type { PaintedLeaf } from '../pages/paintedPage.ts';
import { scopeOf } from '../scope.ts';
import type { WriteJob } from '../writer.ts';
import type { OdpSettings } from './settings.ts';
import { OriginalPages } from './originalPages.ts';
import { countsPage } from './writeOdp.ts';
import type { Plan } from '../treatments.ts';
import { hasMoreThanOpenDocument } from '../opendocument/moreThanHeld.ts';

export const ODP_SENTENCES = {
  ...FIXED_PAGE_SENTENCES,
  ...SLIDE_SENTENCES,
  'page.original': 'Its page came in like this and goes out as it came, with all that it holds.',
  'role.styleOnly': 'Text on slides has no roles: what it is, is told by the name of its style alone.',
  'outline.none': 'Slides have names, and no outline of headings.',
  ...OPEN_SENTENCES,
  'cell.headByRow': 'Tables of slides know rows as heads, and no columns.',
  'transition.nearest': 'It is the nearest of the transitions that the format has, at one of three speeds.',
  'corner.round': 'The format has round corners only.',
};
export type OdpCode = keyof typeof ODP_SENTENCES;

/** Plans every subject for a presentation of OpenDocument: what stands on pages as they came is what it was. */
export async function planOdp(job: WriteJob<OdpSettings>): Promise<Plan<OdpCode>> {
  const original = await OriginalPages.of(job, slideScope(job), null);
  const plan = treatAnew(job, (page) => original?.has(page) ?? false);
  return (about) => (original && isOnPages(about, (page) => original.has(page)) ? ORIGINAL : plan(about));
}

/** Whether something stands on such pages alone. */
export const isOnPages = ({ pages }: SubjectInFolio, has: (page: string) => boolean): boolean => pages.length > 0 && pages.every(has);
const ORIGINAL: Treatment<OdpCode> = { outcome: 'kept', code: 'page.original' };

function treatAnew(job: WriteJob<OdpSettings>, isOriginal: (page: string) => boolean): Plan<OdpCode> {
  const { folio, composition, fonts, settings } = job;
  const { head } = folio;
  const scope = scopeOf(folio, composition, settings, true);
  const playsMedia = settings.media === 'inside';
  const replacements = replacementsOf(settings);
  const plan = planFixedPage(folio, composition, fonts, scope, {
    ...PLACED_WRITER,
    motion: {
      plays: false,
      turnsPages: true,
      fields: true,
      still: { playsMedia, cards: 'switcher.first', treatCue: () => dropped('cue.still') },
    },
  });
  const slides = slideScope(job);
  const leading = leadingOfParagraphs(folio, composition, settings.leading);
  let stacked: boolean | null = null;
  const isInOrder = (): boolean =>
    (stacked ??= readsAsStacked(
      folio,
      slides.pages.filter((p) => !isOriginal(p.page.id)),
      textPieces(folio, composition, slides),
    ));

  const treatLook = (block: Paragraph): Treatment<OdpCode> => {
    const resolved = resolveParagraph(head, block);
    const family = replacements.get(resolved.character.fontFamily.toLowerCase());
    const pitch = leading(block);
    const reasons = together<OdpCode>(
      family ? adapted('font.replaced', { family }) : kept,
      hasSeveral(pitch) ? adapted('leading.one', leadingValues(pitch)) : kept,
      hasMoreThanOpenDocument(head, block, resolved) ? adapted('look.partly') : kept,
    );
    return reasons.outcome === 'kept' ? adapted('font.byName') : reasons;
  };

  const treatPage = (about: SubjectInFolio, treatment: Treatment<OdpCode>): Treatment<OdpCode> => {
    const page = about.spread!.pages.find((p) => p.id === about.subject.id)!;
    const place = slides.pages.find((p) => p.joins?.some(({ id }) => id === page.id));
    const isLater = !!place && place.page.id !== page.id;
    switch (about.subject.aspect) {
      case 'size':
        return place ? adapted('page.onSpread') : treatment;
      case 'transition':
        if (isLater && page.transition && settings.transitions) return dropped('transition.ofFirst');
        return !settings.transitions ? excluded('transition.off') : page.transition ? adapted('transition.nearest') : treatment;
      case 'advance':
        if (isLater) return dropped('transition.ofFirst');
        return settings.transitions ? treatment : excluded('transition.off');
      case 'notes':
        return settings.notes ? kept : excluded('notes.off');
      case 'background':
        return page.background.type === 'gradient' ? adapted('gradient.two') : treatment;
      default:
        return treatment;
    }
  };

  return (about) => {
    const { subject } = about;
    const treatment = plan(about);
    if (subject.kind === 'font') {
      const font = head.fonts[subject.id]!;
      const family = replacements.get(font.family.toLowerCase());
      if (family) return adapted('font.replaced', { family });
      return fonts.faceOf(font) ? excluded('font.byName') : treatment;
    }
    if (subject.kind === 'page' && treatment.code !== 'range.out') return treatPage(about, treatment);
    if (treatment.outcome === 'excluded' || treatment.outcome === 'dropped') return treatment;
    if ((subject.kind === 'item' || subject.kind === 'masterItem') && about.item) return treatItem(about.item, subject.aspect, treatment);
    if (subject.kind === 'ruby') return kept;
    return together(treatment, treatText(about, treatment));
  };

  /** What slides cannot hold of texts and of the document as a whole. */
  function treatText(about: SubjectInFolio, treatment: Treatment<OdpCode>): Treatment<OdpCode> {
    const { subject } = about;
    switch (subject.kind) {
      case 'document':
        if (subject.aspect === 'outline') return dropped('outline.none');
        return subject.aspect === 'order' && !isInOrder() ? adapted('order.stacked') : kept;
      case 'note':
        return adapted('note.atFoot');
      case 'field': {
        const { node } = about;
        const isCounted = slides.pages.every((p) => countsPage(slides, p));
        const isLive = node?.type === 'field' && (node.field === 'title' || (node.field === 'pageNumber' && isCounted));
        return isLive && settings.fields === 'live' ? kept : adapted('field.words');
      }
      case 'cell': {
        const table = Object.values(about.story!.blocks).find((b) => b.kind === 'table' && b.cells[subject.id]);
        if (table?.kind !== 'table') return kept;
        const cell = table.cells[subject.id]!;
        return cell.row < table.headerRows === (cellHeads(head, about.story!, table, cell) !== null) ? kept : adapted('cell.headByRow');
      }
      default:
        break;
    }
    const block = about.paragraph && about.story!.blocks[about.paragraph];
    if (block && block.kind === 'paragraph') {
      if (subject.aspect === 'look') return treatLook(block);
      if (subject.aspect === 'place') return adapted('lines.box');
      if (subject.aspect === 'role') {
        const { element } = paragraphRole(head, block.style);
        const { list } = resolveParagraph(head, block).paragraph;
        return element === 'p' || (element === 'li' && list) ? kept : adapted('role.styleOnly');
      }
    }
    return treatment;
  }

  function treatItem(item: Item, aspect: string, treatment: Treatment<OdpCode>): Treatment<OdpCode> {
    if (item.kind === 'group') return treatGroup(item, aspect, settings) ?? treatment;
    if (item.kind === 'field' && item.control.type === 'signature' && (aspect === 'field' || aspect === 'place'))
      return dropped('field.signature');
    if (settings.pictures === 'none' && item.kind === 'picture') return excluded('pictures.out');
    if (item.kind === 'media' && !playsMedia && treatment.code === 'media.poster') return adapted('media.settings');
    const look = treatFormatting(item, aspect, settings, OPEN_DOCUMENT);
    if (look) return together<OdpCode>(treatment, look);
    if (aspect === 'wrap') return adapted('wrap.boxes');
    if (isToldOtherwise(item as PaintedLeaf, settings, OPEN_DOCUMENT) && (aspect === 'picture' || aspect === 'look' || aspect === 'place'))
      return together<OdpCode>(treatment, adapted('picture.asDrawn'));
    if (aspect !== 'look') return treatment;
    const { fill } = item;
    const isPoor = fill.type === 'gradient' && (fill.gradient.stops.length > 2 || fill.gradient.stops.some((s) => s.opacity < 1));
    return together<OdpCode>(
      treatment,
      isPoor ? adapted('gradient.two') : kept,
      item.corner && item.corner.kind !== 'round' ? adapted('corner.round') : kept,
      item.kind === 'textFrame' && item.opacity < 1 ? adapted('opacity.words') : kept,
    );
  }
}
