import { beforeAll, describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { subjectKey } from '../../src/ledger/index.ts';
import type { Damage } from './damage.ts';
import { readBack, sample, writeOnly } from './samples.ts';

/** Damage to different things is made in one file, so that not every one costs a whole result written and read. */
const AT_MOST = 8;

/** Damage that is told of more than its own subject stands in a file of its own. */
const FAR_REACHING = new Set([
  'a hidden layer is shown',
  'a page is another size',
  'all slides are higher',
  'two texts are read in the wrong order',
  'text lies over what covered it',
  'the document’s language is another',
]);

/** Things that are changed by the same damage stand for each other: the first part of a subject’s name without what is asked of it. */
const thing = (subject: string): string => subject.replace(/:[^:]*$/, '');

function batches(damages: readonly Damage[]): Damage[][] {
  const made: Damage[][] = [];
  for (const damage of damages) {
    const [what, , subject] = damage;
    const free = made.find(
      (batch) => batch.length < AT_MOST && !FAR_REACHING.has(batch[0]![0]) && batch.every(([, , other]) => thing(other) !== thing(subject)),
    );
    if (free && !FAR_REACHING.has(what)) free.push(damage);
    else made.push([damage]);
  }
  return made;
}

/**
 * Writes the Almanac damaged, reads it back against the Almanac as it is, and asks that each damage is told of its own subject, that the
 * same subject is not accused in files without that damage, and that what is never touched is not accused at all.
 */
export function describeDamage(output: string, settings: Record<string, unknown>, damages: readonly Damage[]): void {
  describe.each(batches(damages).map((batch, i) => [i + 1, batch] as const))(`${output} read back, damaged file %i`, (_, batch) => {
    let accused: string[];
    beforeAll(async () => {
      const almanac = await sample('marrowby-almanac');
      const damaged = produce(almanac.folio, (d) => batch.forEach(([, alter]) => void alter(d)));
      const evidence = await readBack(almanac, output, await writeOnly(almanac, output, settings, damaged), settings);
      accused = evidence.filter((e) => !e.agrees).map((e) => subjectKey(e.subject));
    });
    test.each(batch)('%s', (_what, _alter, subject) => {
      expect(accused).toContain(subject);
    });
    test('and nothing that has nothing to do with it', () => {
      const here = new Set(batch.map(([, , subject]) => thing(subject)));
      const elsewhere = damages.map(([, , subject]) => subject).filter((s) => !here.has(thing(s)) && !/:(look|role|order)$/.test(s));
      if (!FAR_REACHING.has(batch[0]![0])) expect(accused.filter((s) => elsewhere.includes(s))).toEqual([]);
      expect(accused.filter((s) => /cover-(masthead|lines)/.test(s) && !/look|role/.test(s))).toEqual([]);
    });
  });
}
