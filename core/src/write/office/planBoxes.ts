import type { Item } from '../../folio/items.ts';
import type { Treatment } from '../../ledger/entry.ts';
import type { SubjectInFolio } from '../../ledger/subjects.ts';
import type { WriteJob } from '../writer.ts';
import { planFixedPage } from '../pages/planFixedPage.ts';
import { adapted, dropped, excluded, kept, together } from '../treatments.ts';
import type { PaintedLeaf } from '../pages/paintedPage.ts';
import { scopeOf } from '../scope.ts';
import { treatGroup, treatFormatting } from './planLooks.ts';
import type { PlacedFormat } from './placedFormat.ts';
import { isToldOtherwise } from './placedPictures.ts';
import type { PlacedPictureSettings } from './placedPictures.ts';
import { PLACED_WRITER } from './placedWriter.ts';
import type { Plan } from '../treatments.ts';
import type { FixedPageCode } from '../pages/planFixedPage.ts';
import type { BoxCode, OfficeCode } from './officeSentences.ts';

interface BoxSettings extends PlacedPictureSettings {
  pages: string;
  hiddenLayers: 'out' | 'in';
}

/** What formats of text documents of placed boxes differ in. */
interface BoxFormat<Code extends string> extends PlacedFormat {
  /** Whether forms are filled in. */
  fields: boolean;
  /** What becomes of pages, fields and the like; null where they are as designed. */
  more(about: SubjectInFolio): Treatment<Code> | null;
  /** What its words for looks cannot say of an item. */
  look(item: Item): Treatment<Code>;
  /** What it has no words for at all. */
  unheld?(item: Item, aspect: string): Treatment<Code> | null;
}

/** Codes that such documents have in common. */
type PlacedBoxCode = FixedPageCode | OfficeCode | BoxCode;

/** Plans what stands on pages of a text document of placed boxes, but for what is said of words. */
export function planBoxes<Code extends string>(job: WriteJob<BoxSettings>, format: BoxFormat<Code>): Plan<Code | PlacedBoxCode> {
  const { folio, composition, fonts, settings } = job;
  const plan = planFixedPage(folio, composition, fonts, scopeOf(folio, composition, settings, true), {
    ...PLACED_WRITER,
    motion: {
      plays: false,
      turnsPages: false,
      fields: format.fields,
      still: { playsMedia: false, cards: 'switcher.first', treatCue: () => dropped('cue.still') },
    },
  });

  const treatItem = (item: Item, aspect: string): Treatment<Code | PlacedBoxCode> => {
    if (item.kind === 'group') return treatGroup(item, aspect, settings) ?? kept;
    const unheld = format.unheld?.(item, aspect);
    if (unheld) return unheld;
    if (settings.pictures === 'none' && (item.kind === 'picture' || aspect === 'media')) return excluded('pictures.out');
    if (aspect === 'wrap') return adapted('wrap.boxes');
    const look = treatFormatting(item, aspect, settings, format);
    if (look) return look;
    if (isToldOtherwise(item as PaintedLeaf, settings, format) && (aspect === 'picture' || aspect === 'look' || aspect === 'place'))
      return adapted('picture.asDrawn');
    if (aspect !== 'look') return kept;
    return together<Code | PlacedBoxCode>(
      format.look(item),
      item.kind === 'textFrame' && item.opacity < 1 ? adapted('opacity.words') : kept,
    );
  };

  return (about) => {
    const treatment = plan(about);
    const { subject } = about;
    if (subject.kind === 'ruby' && treatment.code === 'ruby.baseOnly') return kept;
    if (treatment.outcome === 'dropped' || treatment.outcome === 'excluded') return treatment;
    return together(treatment, format.more(about) ?? treatText(about));
  };

  function treatText(about: SubjectInFolio): Treatment<Code | PlacedBoxCode> {
    const { subject } = about;
    switch (subject.kind) {
      case 'document':
        return subject.aspect === 'outline' ? adapted('outline.boxes') : kept;
      case 'paragraph':
        return subject.aspect === 'place' ? adapted('lines.theirs') : kept;
      case 'note':
        return adapted('note.afterBox');
      case 'item':
      case 'masterItem':
        return about.item ? treatItem(about.item, subject.aspect) : kept;
      default:
        return kept;
    }
  }
}
