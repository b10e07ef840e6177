import type { Composition } from '../../compose/marks.ts';
import type { Folio } from '../../folio/folio.ts';
import type { Group } from '../../folio/items.ts';
import type { Spread } from '../../folio/spread.ts';
import { leavesOf } from '../../folio/traverse.ts';
import { readingOfSpread } from '../../structure/reading.ts';
import type { PageReading } from '../../structure/reading.ts';
import { isShownAsOne } from './paintedPage.ts';
import type { Scope } from '../scope.ts';

/**
 * Groups of a spread whose members something else is read between. Where the order of the marks is the order of
 * reading, as in HTML, such a group cannot be one element.
 */
export function groupsApart(folio: Folio, composition: Composition, spread: Spread, scope: Scope): Set<string> {
  const groups = Object.values(spread.items).filter((i): i is Group => i.kind === 'group' && isShownAsOne(i));
  if (!groups.length) return new Set();
  return apartIn(spread, groups, readingOfSpread(folio, composition, spread, scope.shown).values());
}

function apartIn(spread: Spread, groups: readonly Group[], readings: Iterable<PageReading>): Set<string> {
  const held = groups.map((group) => ({ group, members: leavesOf(spread.items, group) }));
  const apart = new Set<string>();
  for (const { units } of readings)
    for (const { group, members } of held) {
      let state: 'before' | 'in' | 'after' = 'before';
      for (const { item } of units) {
        if (members.has(item)) {
          if (state === 'after') apart.add(group.id);
          state = 'in';
        } else if (state === 'in') state = 'after';
      }
    }
  return apart;
}
