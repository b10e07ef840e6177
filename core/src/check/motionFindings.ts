import { isAddressOfWeb, isFormAddress } from '../folio/address.ts';
import type { Folio } from '../folio/folio.ts';
import type { Item, Media } from '../folio/items.ts';
import type { Cue } from '../folio/motion.ts';
import { isOnHiddenLayer, storyOfFrame } from '../folio/traverse.ts';
import { fieldNames } from '../motion/fieldNames.ts';
import { itemsById, targetsOfStep } from '../motion/liveTargets.ts';
import type { Finding } from './finding.ts';

/** What repeats faster than three times a second may flash (WCAG 2.2, 2.3.1). */
const FLASH_SECONDS = 1 / 3;

/** What is wrong with cues, fields and what plays by itself. */
export function motionFindings(folio: Folio, pageOf: (spread: string, item: string) => number | undefined): Finding[] {
  const found: Finding[] = [];
  const texts = storyOfFrame(folio);
  const names = fieldNames(folio);
  const items = itemsById(folio);
  for (const spread of Object.values(folio.spreads)) {
    for (const page of spread.pages) for (const cue of Object.values(page.cues)) found.push(...cueFindings(folio, cue, items, {}));
    for (const item of Object.values(spread.items)) {
      const at = { page: pageOf(spread.id, item.id), subject: item.id };
      const cues = Object.values(item.cues);
      for (const cue of cues) found.push(...cueFindings(folio, cue, items, at));
      const isPressed = cues.some((c) => c.trigger.when === 'press');
      if (isPressed && !item.alt && !texts.has(item.id) && !item.name && item.kind !== 'field')
        found.push({ code: 'cue.noLabel', says: 'What can be pressed has neither words nor an alt text nor a name.', ...at });
      const isPointed = cues.some((c) => c.trigger.when === 'pointerOver' || c.trigger.when === 'pointerOut');
      if (isPointed && !isPressed && !['field', 'media', 'switcher', 'veil'].includes(item.kind))
        found.push({ code: 'cue.pointerOnly', says: 'It reacts to the pointer only: it cannot be reached by keys or by a finger.', ...at });
      found.push(...partFindings(folio, item, at));
      if (item.kind === 'field' && item.control.type !== 'radio' && names.get(item.id) !== item.fieldName)
        found.push({
          code: 'field.nameTwice',
          says: `The name “${item.fieldName}” is taken or has a point in it: the form calls it “${names.get(item.id)}”.`,
          ...at,
        });
    }
  }
  return found;
}

type At = Pick<Finding, 'page' | 'subject'>;

function cueFindings(folio: Folio, cue: Cue, items: ReadonlyMap<string, Item>, at: At): Finding[] {
  const out: Finding[] = [];
  for (const step of cue.steps) {
    const { there, gone } = targetsOfStep(folio, step);
    if (gone.length) out.push({ code: 'cue.targetGone', says: 'What a cue acts on is not in the document any more.', ...at });
    const hidden = there.flatMap((id) => items.get(id) ?? []).find((i) => isOnHiddenLayer(folio, i));
    if (hidden)
      out.push({
        code: 'cue.targetHidden',
        says: `What a cue acts on lies on the hidden layer “${folio.head.layers[hidden.layer]?.name}”.`,
        ...at,
      });
    if (step.do === 'sendForm' && !isFormAddress(step.href))
      out.push({ code: 'cue.address', says: 'A form can be sent to addresses that begin with https: or mailto: only.', ...at });
    if (step.do === 'animate' && step.repeat === 'again' && step.seconds > 0 && step.seconds < FLASH_SECONDS)
      out.push({ code: 'cue.flashes', says: 'It moves more than three times a second, which may flash (WCAG 2.3.1).', ...at });
  }
  return out;
}

function partFindings(folio: Folio, item: Item, at: At): Finding[] {
  if (item.kind === 'switcher' && item.advance && Math.min(...item.cards.map((c) => c.seconds ?? item.advance!.interval)) < FLASH_SECONDS)
    return [{ code: 'cue.flashes', says: 'Its cards change more than three times a second, which may flash (WCAG 2.3.1).', ...at }];
  if (item.kind === 'media' && item.autoplay && !item.controls && !isShort(folio, item))
    return [{ code: 'motion.noPause', says: 'It plays by itself and cannot be stopped: let its controls be shown (WCAG 2.2.2).', ...at }];
  if (item.kind === 'field' && !item.label.trim())
    return [{ code: 'field.noLabel', says: 'The field has no label: nobody is told what it asks.', ...at }];
  if (item.kind === 'embed' && item.source.from === 'address' && !isAddressOfWeb(item.source.href))
    return [{ code: 'motion.address', says: 'Only addresses that begin with http: or https: can be shown inside a page.', ...at }];
  return [];
}

/** So long a film may move, and a sound be heard, without a way to stop it (WCAG 2.2, 2.2.2 and 1.4.2), in seconds. */
const FREE_TO_MOVE = 5;
const FREE_TO_SOUND = 3;

/** Whether a film or sound is over before anyone must be able to stop it; one of which nothing is known is not. */
function isShort(folio: Folio, { media, loop }: Media): boolean {
  const file = media === null ? undefined : folio.head.media[media];
  if (loop || file?.seconds === undefined) return false;
  return file.seconds <= (file.mediaType.startsWith('audio/') ? FREE_TO_SOUND : FREE_TO_MOVE);
}
