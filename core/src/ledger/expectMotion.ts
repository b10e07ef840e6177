import type { Folio } from '../folio/folio.ts';
import type { Embed, Field, Item } from '../folio/items.ts';
import { isMasterInstance } from '../folio/masters.ts';
import type { Cue, Step } from '../folio/motion.ts';
import { pageOfItem } from '../folio/traverse.ts';
import { playedFile } from '../folio/playedFile.ts';
import { fieldNames } from '../motion/fieldNames.ts';
import { flakeGrid } from '../motion/flakes.ts';
import { isDead } from '../motion/liveTargets.ts';
import { linkCueOf } from '../structure/pageTargets.ts';
import type { ExpectScope } from './expected.ts';
import { cueFact, factKey, fieldFact, switcherFact, transitionFact, veilFact } from './motionFacts.ts';
import type { MotionFacts } from './motionFacts.ts';

/** What a result that moves should say of each part of its pages. */
export function expectMotion(folio: Folio, scope: ExpectScope): MotionFacts {
  const facts: MotionFacts = new Map();
  for (const { page, spread } of scope.pages) {
    if (page.transition) facts.set(factKey('page', page.id, 'transition'), transitionFact(page.transition));
    if (page.advanceAfter !== undefined) facts.set(factKey('page', page.id, 'advance'), `after ${page.advanceAfter} s`);
    for (const cue of Object.values(page.cues)) cueOf(folio, cue, cue.id, facts);
    for (const item of Object.values(spread.items)) {
      if (!scope.shown(item) || pageOfItem(spread, item).id !== page.id) continue;
      const link = linkCueOf(item);
      for (const cue of Object.values(item.cues))
        if (cue !== link?.cue || link.destination.to === 'back')
          cueOf(folio, cue, isMasterInstance(item.id) ? `${item.id}/${cue.id}` : cue.id, facts);
      partOf(folio, item, facts);
    }
  }
  return facts;
}

function cueOf(folio: Folio, cue: Cue, id: string, facts: MotionFacts): void {
  const steps = cue.steps.filter((s) => !isDead(folio, s)).map(named);
  if (steps.length) facts.set(factKey('cue', id, 'motion'), cueFact(cue.trigger.when, steps));
}

/** A step as players call it. */
export const named = (step: Step): string =>
  (({ showCard: 'card', openFile: 'open', resetForm: 'reset', sendForm: 'send' }) as Partial<Record<Step['do'], string>>)[step.do] ??
  step.do;

function partOf(folio: Folio, item: Item, facts: MotionFacts): void {
  if (item.kind === 'switcher') {
    const { cards, change, advance } = item;
    const goes = advance && { seconds: cards.map((c) => c.seconds ?? advance.interval), loop: advance.end === 'loop' };
    facts.set(factKey('item', item.id, 'motion'), switcherFact({ cards, change, advance: goes }));
  } else if (item.kind === 'veil') {
    const { rows, size, pitch } = flakeGrid(item);
    const { lift, rest, action } = item;
    facts.set(factKey('item', item.id, 'motion'), veilFact({ flakes: rows.flat().length, size, pitch, lift, rest, action }));
  } else if (item.kind === 'field')
    facts.set(factKey('item', item.id, 'field'), fieldFact(fieldOf(item, fieldNames(folio).get(item.id) ?? item.fieldName)));
  else if (item.kind === 'media') {
    const file = playedFile(folio, item);
    if (file) facts.set(factKey('item', item.id, 'media'), `${file.bytes} bytes`);
  } else if (item.kind === 'embed') facts.set(factKey('item', item.id, 'embed'), shownIn(item.source));
}

/** What an embed shows: an address, or files that come along. */
const shownIn = (source: Embed['source']): string =>
  source.from === 'address' ? source.href.trim() : `files of ${source.from === 'bundle' ? source.media : source.folio}`;

/** A field as forms know it: its kind, its name, what is said of it, and what is in it. */
function fieldOf({ control, label, required }: Field, name: string): Parameters<typeof fieldFact>[0] {
  const ticked = control.type === 'checkBox' || control.type === 'radio';
  return {
    type: control.type === 'signature' ? 'text' : control.type,
    name,
    label,
    value: 'value' in control ? control.value : '',
    on: ticked && control.on,
    required,
  };
}
