import type { Item } from '../../folio/items.ts';
import type { Judgement } from '../../ledger/entry.ts';
import type { SubjectInFolio } from '../../ledger/subjects.ts';
import type { WriteJob } from '../writer.ts';
import { judgeFixedPage } from '../pages/judgeFixedPage.ts';
import { adapted, dropped, excluded, kept } from '../judgements.ts';
import type { PaintedLeaf } from '../pages/paintedPage.ts';
import { scopeOf } from '../scope.ts';
import { judgeGroup, judgeLooks } from './judgeLooks.ts';
import type { PlacedFormat } from './placedFormat.ts';
import { isToldOtherwise } from './placedPictures.ts';
import type { PlacedPictureSettings } from './placedPictures.ts';
import { PLACED_WRITER } from './placedWriter.ts';

interface BoxSettings extends PlacedPictureSettings {
  pages: string;
  hiddenLayers: 'out' | 'in';
}

/** What formats of text documents of placed boxes differ in. */
interface BoxFormat extends PlacedFormat {
  /** Whether forms are filled in. */
  fields: boolean;
  /** What becomes of pages, fields and the like; null where they are as designed. */
  more(about: SubjectInFolio): Judgement | null;
  /** What its words for looks cannot say of an item. */
  look(item: Item): Judgement;
  /** What it has no words for at all. */
  unheld?(item: Item, aspect: string): Judgement | null;
}

/** Judges what stands on pages of a text document of placed boxes, but for what is said of words. */
export function judgeBoxes(job: WriteJob<BoxSettings>, format: BoxFormat): (about: SubjectInFolio) => Judgement {
  const { folio, composition, fonts, settings } = job;
  const judge = judgeFixedPage(folio, composition, fonts, scopeOf(folio, composition, settings, true), {
    ...PLACED_WRITER,
    motion: {
      plays: false,
      turnsPages: false,
      fields: format.fields,
      still: { playsMedia: false, cards: 'switcher.first', judgeCue: () => dropped('cue.still') },
    },
  });

  const judgeItem = (item: Item, aspect: string): Judgement => {
    if (item.kind === 'group') return judgeGroup(item, aspect, settings) ?? kept;
    const unheld = format.unheld?.(item, aspect);
    if (unheld) return unheld;
    if (settings.pictures === 'none' && (item.kind === 'picture' || aspect === 'media')) return excluded('pictures.out');
    if (aspect === 'wrap') return adapted('wrap.boxes');
    const look = judgeLooks(item, aspect, settings, format);
    if (look) return look;
    if (isToldOtherwise(item as PaintedLeaf, settings, format) && (aspect === 'picture' || aspect === 'look' || aspect === 'place'))
      return adapted('picture.asDrawn');
    if (aspect !== 'look') return kept;
    const own = format.look(item);
    return own === kept && item.kind === 'textFrame' && item.opacity < 1 ? adapted('opacity.words') : own;
  };

  return (about) => {
    const judged = judge(about);
    const { subject } = about;
    if (subject.kind === 'ruby' && judged.code === 'ruby.baseOnly') return kept;
    if (judged.outcome !== 'kept') return judged;
    const more = format.more(about);
    if (more) return more;
    switch (subject.kind) {
      case 'document':
        return subject.aspect === 'outline' ? adapted('outline.boxes') : judged;
      case 'paragraph':
        return subject.aspect === 'place' ? adapted('lines.theirs') : judged;
      case 'note':
        return adapted('note.afterBox');
      case 'item':
      case 'masterItem':
        return about.item ? judgeItem(about.item, subject.aspect) : judged;
      default:
        return judged;
    }
  };
}
