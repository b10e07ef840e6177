import type { Folio } from '../folio/folio.ts';
import { ChoiceOfTexts, goesOut } from './goesOut.ts';
import { wholeEdition } from './inEdition.ts';
import { standingOf } from './standing.ts';
import type { Standing } from './standing.ts';
import type { CutUnit } from './unit.ts';

/** A text that goes to translators, and how its translation stands; null where there is none. */
export interface Standings {
  unit: CutUnit;
  standing: Standing | null;
}

const USUAL = ChoiceOfTexts.parse({});
/** Whatever a job may have been asked to translate. */
const WHATEVER = ChoiceOfTexts.parse({ hiddenLayers: 'in', linkTargets: 'in', onlyNumbers: 'in' });
const known = new WeakMap<Folio['stories'], { head: Folio['head']; usual?: CutUnit[]; whatever?: CutUnit[] }>();

/** The texts that go out where nothing else is chosen, or all there are; worked out once for a document as it is. */
function textsOf(folio: Folio, which: 'usual' | 'whatever'): CutUnit[] {
  let texts = known.get(folio.stories);
  if (texts?.head !== folio.head) known.set(folio.stories, (texts = { head: folio.head }));
  return (texts[which] ??= goesOut(folio, which === 'usual' ? USUAL : WHATEVER).units);
}

/** How every text stands in a language; `only`: the texts of one job. */
export function standingsOf(folio: Folio, language: string, only?: ReadonlySet<string>): Standings[] {
  const edition = wholeEdition(folio, language);
  const units = only ? textsOf(folio, 'whatever').filter((u) => only.has(u.id)) : textsOf(folio, 'usual');
  return units.map((unit) => {
    const translated = edition?.units[unit.id];
    return { unit, standing: translated ? standingOf(unit, translated) : null };
  });
}

/** How far an edition is: texts in all, translated, and translated from a source that is another by now. */
export interface Progress {
  all: number;
  done: number;
  stale: number;
}

export function progressOf(standings: readonly Standings[]): Progress {
  const done = standings.filter(({ standing }) => standing?.target && !standing.open);
  return { all: standings.length, done: done.length, stale: done.filter(({ standing }) => standing!.changed).length };
}
