import { isAddressOfWeb, isFormAddress } from '../../folio/address.ts';
import type { Folio } from '../../folio/folio.ts';
import type { Embed, Field, Item } from '../../folio/items.ts';
import type { Cue } from '../../folio/motion.ts';
import { playedFile } from '../../folio/playedFile.ts';
import type { Treatment } from '../../ledger/entry.ts';
import { fieldNames } from '../../motion/fieldNames.ts';
import { isDead } from '../../motion/liveTargets.ts';
import { adapted, dropped, kept } from '../treatments.ts';

/** What of motion an output can hold that shows pages as designed. */
export interface MotionReach<CueCode extends string = MotionCode> {
  /** Whether a program comes with it: cues, switchers, veils, film and sound, fields. */
  plays: boolean;
  /** Whether some web content can be shown inside a page. Left out where none can. */
  shows?: (source: Embed['source']) => boolean;
  /** Whether pages come by transitions, and go on by themselves. */
  turnsPages: boolean;
  /** Whether fields can be filled in. */
  fields: boolean;
  /** Where it comes without a program: whether films and sounds are played all the same, what becomes of cards (a code), and of a cue. */
  still?: { playsMedia: boolean; cards: MotionCode; treatCue: (cue: Cue, page: string) => Treatment<CueCode> };
}

/** Sentences for the codes below. */
export const MOTION_SENTENCES = {
  'cue.still': 'This output cannot react: what the cue does is left out.',
  'cue.targetGone': 'What the cue acts on is not in the document any more: it does nothing.',
  'cue.partly': 'Some of what the cue acts on is not in the document any more; the rest is kept.',
  'cue.form': 'Answers go only to addresses that begin with https: or mailto:, so this step is left out.',
  'switcher.first': 'This output shows one card for good: the first.',
  'switcher.layers': 'All its cards are in the file, one in sight; they are turned by pressing, at once, and not by themselves.',
  'switcher.pages': 'Each further card is a page of its own, right after its page; cards are turned by going there, and not by themselves.',
  'switcher.unfolded': 'Running text has its cards one after another.',
  'card.later': 'It stands on a card after the first, and this output shows only the first.',
  'veil.lifted': 'This output shows what lies below the veil, without the veil.',
  'embed.poster': 'This output shows the poster picture instead of the web content.',
  'embed.refused': 'Only addresses that begin with http: or https: can be shown inside a page.',
  'embed.link': 'This output shows the still picture, and leads to the address from it.',
  'embed.none': 'This output cannot show web content inside a page, and no still picture stands for it.',
  'embed.missing': 'The folder or the document that it shows is not at hand.',
  'field.still': 'The field is left out; what is drawn below it stays, and can be filled in with a pen.',
  'field.renamed': 'Another field has its name, or the name has a point in it: it is called otherwise in the form.',
  'media.poster': 'Sound and film are left out; the poster picture stands in.',
  'media.missing': 'It has no film or sound.',
  'media.still': 'Sound and film are left out.',
  'transition.none': 'Reading programs turn the pages of a book in ways of their own.',
  'advance.none': 'Pages of this output do not go on by themselves.',
};
export type MotionCode = keyof typeof MOTION_SENTENCES;

const isRenamed = (folio: Folio, field: Field): boolean =>
  fieldNames(folio).get(field.id) !== (field.control.type === 'radio' ? field.control.group : field.fieldName);

/** What becomes of a part of an item that is alive; null for what is no motion. */
export function treatMotion(folio: Folio, item: Item, aspect: string, reach: MotionReach<string>): Treatment<MotionCode | 'kept'> | null {
  switch (item.kind) {
    case 'switcher':
      if (aspect !== 'motion') return null;
      return reach.plays ? kept : adapted(reach.still?.cards ?? 'switcher.first');
    case 'veil':
      return aspect === 'motion' || aspect === 'place' || aspect === 'look' ? (reach.plays ? kept : adapted('veil.lifted')) : null;
    case 'embed': {
      if (aspect !== 'embed' && aspect !== 'place') return null;
      if (reach.shows?.(item.source)) return kept;
      const isOfWeb = item.source.from === 'address' && isAddressOfWeb(item.source.href);
      if (item.poster !== undefined) return aspect === 'place' ? kept : adapted(isOfWeb && !reach.shows ? 'embed.link' : 'embed.poster');
      if (item.source.from === 'address' && !isOfWeb) return dropped('embed.refused');
      return dropped(reach.shows ? 'embed.missing' : 'embed.none');
    }
    case 'field':
      if (aspect !== 'field' && aspect !== 'place') return null;
      if (!reach.fields) return dropped('field.still');
      return aspect === 'field' && isRenamed(folio, item) ? adapted('field.renamed') : kept;
    case 'media': {
      if (aspect !== 'media' && aspect !== 'place') return null;
      if (playedFile(folio, item) && (reach.plays || reach.still?.playsMedia)) return kept;
      if (item.poster !== undefined) return aspect === 'place' ? kept : adapted('media.poster');
      return dropped(item.media === null ? 'media.missing' : 'media.still');
    }
    default:
      return null;
  }
}

/** What becomes of a cue that is no link. */
export function treatPlayedCue<CueCode extends string>(
  folio: Folio,
  cue: Cue | undefined,
  page: string,
  reach: MotionReach<CueCode>,
): Treatment<MotionCode | 'kept' | CueCode> {
  if (cue && reach.still) return reach.still.treatCue(cue, page);
  if (!cue || !reach.plays) return dropped('cue.still');
  const dead = cue.steps.filter((s) => isDead(folio, s)).length;
  if (dead) return dead === cue.steps.length ? dropped('cue.targetGone') : adapted('cue.partly');
  const refused = cue.steps.filter((s) => s.do === 'sendForm' && !isFormAddress(s.href)).length;
  return refused ? dropped('cue.form') : kept;
}
