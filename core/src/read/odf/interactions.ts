import type { z } from 'zod';
import type { Cue, Destination } from '../../folio/motion.ts';
import type { Names } from './names.ts';
import type { NotTakenList } from '../../intake/notTaken.ts';
import { childOf, childrenOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

/** Steps of 19.373 presentation:action that lead somewhere. */
const JUMPS: Record<string, 'next' | 'previous' | 'first' | 'last' | 'back'> = {
  'next-page': 'next',
  'previous-page': 'previous',
  'first-page': 'first',
  'last-page': 'last',
  'last-visited-page': 'back',
};

/** What pressing an object does: its events, and the link that it may stand in (10.5.2, 14.4). */
export function cuesOf(
  element: XmlElement,
  link: XmlElement | null,
  names: Names,
  destination: (href: string, window: string | undefined) => Destination | null,
  notTaken: NotTakenList,
): Record<string, z.infer<typeof Cue>> {
  const goes: Destination[] = [];
  const add = (found: Destination | null): void => void (found && goes.push(found));
  if (link) add(destination(link.attributes['xlink:href'] ?? '', link.attributes['xlink:show']));
  for (const event of childrenOf(childOf(element, 'office:event-listeners'))) {
    const { attributes: a } = event;
    if (event.name === 'script:event-listener') {
      notTaken.add('leftOut', 'Program in the document', 'programs are never run');
      continue;
    }
    if (event.name !== 'presentation:event-listener') continue;
    const action = a['presentation:action'] ?? 'none';
    if (action === 'none') continue;
    if (JUMPS[action]) goes.push({ to: JUMPS[action] });
    else if (action === 'show' && a['xlink:href']) add(destination(a['xlink:href'], a['xlink:show']));
    else notTaken.add('leftOut', `Action “${action}”`, 'there is nothing that it could become');
  }
  if (!goes.length) return {};
  const id = names.free('cue');
  return { [id]: { id, trigger: { when: 'press' }, steps: goes.map((d) => ({ do: 'go', destination: d, after: 0 })) } };
}
