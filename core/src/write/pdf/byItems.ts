import type { Folio } from '../../folio/folio.ts';
import { isFormAddress } from '../../folio/address.ts';
import type { Field } from '../../folio/items.ts';
import { isMasterInstance } from '../../folio/masters.ts';
import type { Step, Trigger } from '../../folio/motion.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import type { ObservedDocument } from '../../ledger/observed.ts';
import { named } from '../../ledger/expectMotion.ts';
import { cueFact, factKey } from '../../ledger/motionFacts.ts';
import type { MotionFacts } from '../../ledger/motionFacts.ts';
import { fieldNames } from '../../motion/fieldNames.ts';
import { isDead } from '../../motion/liveTargets.ts';
import { stateName } from '../../paint/pdf/pdfForm.ts';
import { cuesOn } from './pdfCues.ts';
import type { PdfSettings } from './settings.ts';

/** A PDF knows fields by their names and pages by their places: what was observed of them, told of our items and pages. */
export function byItems(
  observed: ObservedDocument,
  folio: Folio,
  pages: readonly PagePlace[],
  cards: PdfSettings['cards'],
): ObservedDocument {
  const names = fieldNames(folio);
  const fields = new Map<string, Field>();
  for (const { spread } of pages)
    for (const item of Object.values(spread.items))
      if (item.kind === 'field') {
        const name = names.get(item.id) ?? item.fieldName;
        fields.set(item.control.type === 'radio' ? `${name}=${stateName(item.control.value)}` : name, item);
      }
  const motion: MotionFacts = new Map();
  for (const [key, fact] of observed.motion ?? []) {
    const name = /^item (.*) field$/s.exec(key)?.[1];
    const field = name === undefined ? undefined : fields.get(name);
    const page = pages[Number(/^page (\d+) /.exec(key)?.[1]) - 1];
    if (field) {
      const { control } = field;
      const raw = control.type === 'checkBox' || control.type === 'radio' ? control.value : null;
      motion.set(factKey('item', field.id, 'field'), raw === null ? fact : fact.replace(`“${stateName(raw)}”`, `“${raw}”`));
    } else if (/ media$/.test(key) || !page) motion.set(key, fact);
    else motion.set(key.replace(/^page \d+/, `page ${page.page.id}`), fact);
  }
  for (const place of pages)
    for (const { cue, holder } of cuesOn(place)) {
      const key = factKey('cue', isMasterInstance(holder) ? `${holder}/${cue.id}` : cue.id, 'motion');
      const event = cue.trigger.when;
      const onPage = observed.motion?.get(`page ${pages.indexOf(place) + 1} ${event}`);
      const seen = motion.get(factKey('cue', cue.id, 'motion')) ?? (onPage === undefined ? undefined : `${event}: ${onPage}`);
      if (seen === undefined) continue;
      const live = cue.steps.filter((s) => !isDead(folio, s));
      // Steps that have no action are told by the ledger; all others must be there, in their order.
      const isSo = seen === `${event}: ${live.flatMap((s) => actionOf(s, event, cards) ?? []).join(', ')}`;
      motion.set(key, isSo ? cueFact(event, live.map(named)) : seen);
    }
  const inPlace = observed.pages.map((p) => ({
    ...p,
    parts: p.parts.flatMap((x) => (fields.has(x.item) ? [{ ...x, item: fields.get(x.item)!.id }] : [])),
  }));
  return { ...observed, pages: inPlace, motion };
}

/** The kind of action that a step is (ISO 32000-1, table 198); null for what has none. */
function actionOf(step: Step, event: Trigger['when'], cards: PdfSettings['cards']): string | null {
  switch (step.do) {
    case 'go':
      return step.destination.to === 'back' ? null : step.destination.to === 'address' ? 'URI' : 'GoTo';
    case 'showCard':
      if (cards === 'pages') return event === 'pageShown' || event === 'pageLeft' ? null : 'GoTo';
      return cards === 'layers' ? 'SetOCGState' : null;
    case 'show':
    case 'hide':
    case 'toggle':
      return 'SetOCGState';
    case 'play':
    case 'pause':
    case 'stop':
      return 'Rendition';
    case 'resetForm':
      return 'ResetForm';
    case 'sendForm':
      return isFormAddress(step.href) ? 'SubmitForm' : null;
    default:
      return null;
  }
}
