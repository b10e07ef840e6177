import type { Item } from '../../folio/items.ts';
import type { Judgement } from '../../ledger/entry.ts';
import type { SubjectInFolio } from '../../ledger/subjects.ts';
import { judgeFixedPage } from '../shared/judgeFixedPage.ts';
import { adapted, dropped, excluded, kept } from '../shared/judgements.ts';
import type { PaintedLeaf } from '../shared/paintedPage.ts';
import { scopeOf } from '../shared/scope.ts';
import type { WriteJob } from '../writer.ts';
import { judgeWords } from './judgeDocx.ts';
import { LARGEST_PAGE } from '../shared/office/pageSetup.ts';
import { judgeGroup, judgeLooks } from '../shared/office/judgeLooks.ts';
import { DRAWINGML } from '../shared/office/placedFormat.ts';
import { isToldOtherwise } from '../shared/office/placedPictures.ts';
import { PLACED_WRITER } from '../shared/office/placedWriter.ts';
import { BOX_SENTENCES } from '../shared/office/officeSentences.ts';
import type { DocxSettings } from './settings.ts';

export const LAID_SENTENCES: Record<string, string> = {
  ...BOX_SENTENCES,
  'page.clipped': 'Pages of the format are up to 22 inches wide and high: this one is cut to that.',
};

/** Judges every subject for a text document of placed boxes. */
export function judgeLaid(job: WriteJob<DocxSettings>): (about: SubjectInFolio) => Judgement {
  const { folio, composition, fonts, settings } = job;
  const scope = scopeOf(folio, composition, settings, true);
  const judge = judgeFixedPage(folio, composition, fonts, scope, {
    ...PLACED_WRITER,
    motion: {
      plays: false,
      turnsPages: false,
      fields: false,
      still: { playsMedia: false, cards: 'switcher.first', judgeCue: () => dropped('cue.still') },
    },
  });
  return judgeWords(job, (about) => {
    const judged = judge(about);
    const { subject } = about;
    if (subject.kind === 'ruby' && judged.code === 'ruby.baseOnly') return kept;
    if (judged.outcome !== 'kept') return judged;
    switch (subject.kind) {
      case 'document':
        return subject.aspect === 'outline' ? adapted('outline.boxes') : judged;
      case 'page': {
        const { box } = about.spread!.pages.find((p) => p.id === subject.id)!;
        return subject.aspect === 'size' && Math.max(box.width, box.height) > LARGEST_PAGE ? adapted('page.clipped') : judged;
      }
      case 'paragraph':
        return subject.aspect === 'place' ? adapted('lines.theirs') : judged;
      case 'note':
        return adapted('note.afterBox');
      case 'item':
      case 'masterItem':
        return about.item ? judgeItem(about.item, subject.aspect, settings) : judged;
      default:
        return judged;
    }
  });
}

function judgeItem(item: Item, aspect: string, settings: DocxSettings): Judgement {
  if (item.kind === 'group') return judgeGroup(item, aspect, settings) ?? kept;
  if (settings.pictures === 'none' && (item.kind === 'picture' || aspect === 'media')) return excluded('pictures.out');
  if (aspect === 'wrap') return adapted('wrap.boxes');
  const look = judgeLooks(item, aspect, settings, DRAWINGML);
  if (look) return look;
  if (isToldOtherwise(item as PaintedLeaf, settings, DRAWINGML) && (aspect === 'picture' || aspect === 'look' || aspect === 'place'))
    return adapted('picture.asDrawn');
  if (aspect !== 'look') return kept;
  if (item.stroke && [item.stroke.startMarker, item.stroke.endMarker].includes('bar')) return adapted('ends.bare');
  if (item.kind === 'textFrame' && item.opacity < 1) return adapted('opacity.words');
  return kept;
}
