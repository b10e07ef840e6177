import type { TranslatedUnit } from '../folio/edition.ts';
import { memoryKey } from './memory.ts';
import type { MemoryUnit } from './memory.ts';

/** What a memory keeps of translated texts: a pair for each segment that has a target. */
export function memoryUnitsOf(units: Readonly<Record<string, TranslatedUnit>>, from: { title: string }, signed?: string): MemoryUnit[] {
  return Object.values(units).flatMap((u) =>
    u.segments.flatMap(({ source, target, by, at }, i): MemoryUnit[] =>
      target
        ? [
            {
              source,
              target,
              // Neighbours inside a paragraph; its first and last have those of the texts around it, which may change.
              ...(u.segments[i - 1] && { before: memoryKey(u.segments[i - 1]!.source) }),
              ...(u.segments[i + 1] && { after: memoryKey(u.segments[i + 1]!.source) }),
              from: from.title,
              ...((signed ?? by) !== undefined && { by: signed ?? by }),
              ...(at !== undefined && { at }),
            },
          ]
        : [],
    ),
  );
}
