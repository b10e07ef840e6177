import type { Item } from '../../folio/items.ts';
import type { Inline } from '../../folio/story.ts';
import type { Judgement } from '../../ledger/entry.ts';
import type { SubjectInFolio } from '../../ledger/subjects.ts';
import { judgeFixedPage } from '../shared/judgeFixedPage.ts';
import { adapted, dropped, excluded, kept } from '../shared/judgements.ts';
import { isCounted } from '../shared/office/laidPages.ts';
import { judgeGroup, judgeLooks } from '../shared/office/judgeLooks.ts';
import { OPEN_DOCUMENT } from '../shared/office/placedFormat.ts';
import { isToldOtherwise } from '../shared/office/placedPictures.ts';
import { PLACED_WRITER } from '../shared/office/placedWriter.ts';
import type { PaintedLeaf } from '../shared/paintedPage.ts';
import { scopeOf } from '../shared/scope.ts';
import type { WriteJob } from '../writer.ts';
import { chainsOf, wholeParagraphs } from './laidOut.ts';
import type { OdtSettings } from './settings.ts';

/** Judges every subject for a text document of placed boxes, but for what is said of words. */
export function judgePlaces(job: WriteJob<OdtSettings>): (about: SubjectInFolio) => Judgement {
  const { folio, composition, fonts, settings } = job;
  const scope = scopeOf(folio, composition, settings, true);
  const judge = judgeFixedPage(folio, composition, fonts, scope, {
    ...PLACED_WRITER,
    motion: {
      plays: false,
      turnsPages: false,
      fields: true,
      still: { playsMedia: false, cards: 'switcher.first', judgeCue: () => dropped('cue.still') },
    },
  });
  let whole: ReadonlySet<string> | null = null;
  const isWhole = (id: string): boolean => (whole ??= wholeParagraphs(folio, chainsOf(job, scope))).has(id);
  const isLive = ({ field, target }: Inline & { type: 'field' }): boolean => {
    if (settings.fields !== 'live') return false;
    if (field === 'pageNumber') return scope.pages.every(isCounted);
    return field === 'title' || (target !== undefined && isWhole(target));
  };
  return (about) => {
    const judged = judge(about);
    const { subject } = about;
    if (subject.kind === 'ruby' && judged.code === 'ruby.baseOnly') return kept;
    if (judged.outcome !== 'kept') return judged;
    switch (subject.kind) {
      case 'document':
        return subject.aspect === 'outline' ? adapted('outline.boxes') : judged;
      case 'page':
        return subject.aspect === 'background' && gradientIsPoor(about.spread!.pages.find((p) => p.id === subject.id)!.background)
          ? adapted('gradient.two')
          : judged;
      case 'paragraph':
        return subject.aspect === 'place' ? adapted('lines.theirs') : judged;
      case 'field':
        return about.node?.type === 'field' && isLive(about.node) ? kept : adapted('field.words');
      case 'note':
        return adapted('note.afterBox');
      case 'item':
      case 'masterItem':
        return about.item ? judgeItem(about.item, subject.aspect, settings) : judged;
      default:
        return judged;
    }
  };
}

/** Whether a gradient is told by its first and its last colour alone. */
const gradientIsPoor = (fill: Item['fill']): boolean =>
  fill.type === 'gradient' && (fill.gradient.stops.length > 2 || fill.gradient.stops.some((s) => s.opacity < 1));

function judgeItem(item: Item, aspect: string, settings: OdtSettings): Judgement {
  if (item.kind === 'group') return judgeGroup(item, aspect, settings) ?? kept;
  if (item.kind === 'field' && item.control.type === 'signature' && (aspect === 'field' || aspect === 'place'))
    return dropped('field.signature');
  if (settings.pictures === 'none' && (item.kind === 'picture' || aspect === 'media')) return excluded('pictures.out');
  if (aspect === 'wrap') return adapted('wrap.boxes');
  const look = judgeLooks(item, aspect, settings, OPEN_DOCUMENT);
  if (look) return look;
  if (isToldOtherwise(item as PaintedLeaf, settings, OPEN_DOCUMENT) && (aspect === 'picture' || aspect === 'look' || aspect === 'place'))
    return adapted('picture.asDrawn');
  if (aspect !== 'look') return kept;
  if (gradientIsPoor(item.fill)) return adapted('gradient.two');
  return item.kind === 'textFrame' && item.opacity < 1 ? adapted('opacity.words') : kept;
}
