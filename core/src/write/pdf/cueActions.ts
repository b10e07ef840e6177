import { isFormAddress } from '../../folio/address.ts';
import type { Folio } from '../../folio/folio.ts';
import type { Cue, Destination, Step, Trigger } from '../../folio/motion.ts';
import type { Treatment } from '../../ledger/entry.ts';
import { isDead } from '../../motion/liveTargets.ts';
import { adapted, dropped, kept } from '../treatments.ts';
import type { PdfSettings } from './settings.ts';
import type { MotionCode } from '../pages/planMotion.ts';

/** What begins an action: a press, or an entry of additional actions (ISO 32000-1, tables 194 and 195). */
export const EVENTS: Partial<Record<Trigger['when'], 'A' | 'E' | 'X' | 'Fo' | 'O' | 'C'>> = {
  press: 'A',
  pointerOver: 'E',
  pointerOut: 'X',
  focus: 'Fo',
  pageShown: 'O',
  pageLeft: 'C',
};

/** What ISO 32000-1 has no action for (table 198), each by the code the ledger tells it with. */
export const PDF_CUE_SENTENCES = {
  'pdf.noTrigger': 'A PDF does not notice this: nothing happens then.',
  'pdf.noPrint': 'A PDF has no action that prints.',
  'pdf.noAnimation': 'A PDF has no action that moves or fades something.',
  'pdf.noBack': 'A PDF has no action that goes back to where the reader was; reading programs have a key for it.',
  'pdf.noSeek': 'A PDF has no action that goes to a second of a film or sound.',
  'pdf.noFile': 'A PDF opens no file of this kind by an action: it is not in the result.',
  'pdf.noCards': 'The recipe shows one card for good, so there is nothing to turn.',
  'pdf.cardOfPage': 'Where cards are pages of their own, opening or leaving a page turns none: it would lead away from the page at once.',
  'pdf.form': 'Answers go only to addresses that begin with https: or mailto:.',
  'pdf.noPage': 'The page that it goes to is not in the result.',
  'pdf.atOnce': 'Actions of a PDF do not wait: what should come later comes at once.',
} as const;

export interface PdfReach {
  /** How cards are in the file. */
  cards: PdfSettings['cards'];
  /** Whether a destination is in the result, or outside and may be opened. */
  leads: (destination: Destination) => boolean;
}

/** Why a PDF cannot do a step; null where it can. */
export function lackOf(step: Step, when: Trigger['when'], { cards, leads }: PdfReach): keyof typeof PDF_CUE_SENTENCES | null {
  switch (step.do) {
    case 'go':
      if (step.destination.to === 'back') return 'pdf.noBack';
      return leads(step.destination) ? null : 'pdf.noPage';
    case 'showCard':
      if (cards === 'first') return 'pdf.noCards';
      return cards === 'pages' && (when === 'pageShown' || when === 'pageLeft') ? 'pdf.cardOfPage' : null;
    case 'print':
      return 'pdf.noPrint';
    case 'animate':
      return 'pdf.noAnimation';
    case 'seek':
      return 'pdf.noSeek';
    case 'openFile':
      return 'pdf.noFile';
    case 'sendForm':
      return isFormAddress(step.href) ? null : 'pdf.form';
    default:
      return null;
  }
}

/** What becomes of a cue in a PDF. */
export function treatPdfCue(folio: Folio, cue: Cue, reach: PdfReach): Treatment<keyof typeof PDF_CUE_SENTENCES | MotionCode | 'kept'> {
  if (!EVENTS[cue.trigger.when]) return dropped('pdf.noTrigger');
  const live = cue.steps.filter((s) => !isDead(folio, s));
  if (!live.length) return dropped('cue.targetGone');
  const lacks = live.flatMap((s) => lackOf(s, cue.trigger.when, reach) ?? []);
  if (lacks.length === live.length) return dropped(lacks[0]!);
  if (lacks.length) return adapted(lacks[0]!);
  if (live.length < cue.steps.length) return adapted('cue.partly');
  return live.some((s) => s.after > 0) ? adapted('pdf.atOnce') : kept;
}
