import { createHash } from 'node:crypto';
import { memoryKey, primary } from '@elastic-folio/core/language';
import type { MemoryUnit } from '@elastic-folio/core/language';
import type { Db } from '../database/db.ts';

const OWNER = 'desk';
/** Rows of one statement. */
const AT_ONCE = 200;

/** Long keys are told by their hash: an index holds no long texts. */
const short = (key: string): string => createHash('sha256').update(key).digest('hex');

/** Everything that was translated once, by pairs of languages; what is said anew of the same source stands beside it. */
export class TranslationMemory {
  constructor(private readonly db: Db) {}

  /** What there is from one language into another, the oldest first; variants of a language know each other’s. */
  async of(documents: string, pair: { source?: string; target: string }): Promise<MemoryUnit[]> {
    const rows = await this.db.query<{ unit: MemoryUnit | string }>(
      'SELECT unit FROM memory_units WHERE owner = $1 AND source = $2 AND target = $3 ORDER BY at',
      [OWNER, primary(pair.source || documents), primary(pair.target)],
    );
    return rows.map(({ unit }) => (typeof unit === 'string' ? (JSON.parse(unit) as MemoryUnit) : unit));
  }

  /** Keeps units; gives how many are new. */
  async add(source: string, target: string, units: readonly MemoryUnit[]): Promise<number> {
    let added = 0;
    for (let i = 0; i < units.length; i += AT_ONCE) {
      const some = units.slice(i, i + AT_ONCE);
      const values = some.flatMap((u) => [short(memoryKey(u.source)), short(memoryKey(u.target)), JSON.stringify(u)]);
      const places = some.map((_, n) => `($1, $2, $3, $${n * 3 + 4}, $${n * 3 + 5}, $${n * 3 + 6}::jsonb)`).join(', ');
      const rows = await this.db.query(
        `INSERT INTO memory_units (owner, source, target, key, said, unit) VALUES ${places} ON CONFLICT DO NOTHING RETURNING key`,
        [OWNER, primary(source), primary(target), ...values],
      );
      added += rows.length;
    }
    return added;
  }
}
