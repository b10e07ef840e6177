import { createHash } from 'node:crypto';
import { primary, Term } from '@elastic-folio/core/language';
import type { KeptTerm } from '@elastic-folio/core/api';
import { fromJson } from '../database/json.ts';
import type { Db } from '../database/db.ts';

const OWNER = 'desk';
/** Rows of one statement. */
const AT_ONCE = 200;

const idOf = (term: Term): string =>
  createHash('sha256').update(`${term.source.toLowerCase()}\n${term.target.toLowerCase()}`).digest('hex').slice(0, 24);

/** Terms by pairs of languages: how a word is always to be translated. */
export class Terms {
  constructor(private readonly db: Db) {}

  async of(source: string, target: string): Promise<KeptTerm[]> {
    const rows = await this.db.query<{ id: string; term: unknown }>(
      "SELECT id, term FROM terms WHERE owner = $1 AND source = $2 AND target = $3 ORDER BY lower(term->>'source'), id",
      [OWNER, primary(source), primary(target)],
    );
    return rows.map(({ id, term }) => ({ id, ...Term.parse(fromJson(term)) }));
  }

  /** Keeps terms; gives how many are new. What is there already gets its new note. */
  async take(source: string, target: string, terms: readonly Term[]): Promise<number> {
    const before = (await this.of(source, target)).length;
    const unique = [...new Map(terms.map((t) => [idOf(t), t]))];
    for (let i = 0; i < unique.length; i += AT_ONCE) {
      const some = unique.slice(i, i + AT_ONCE);
      const places = some.map((_, n) => `($1, $2, $3, $${n * 2 + 4}, $${n * 2 + 5}::jsonb)`).join(', ');
      await this.db.query(
        `INSERT INTO terms (owner, source, target, id, term) VALUES ${places} ON CONFLICT (owner, source, target, id) DO UPDATE SET term = excluded.term`,
        [OWNER, primary(source), primary(target), ...some.flatMap(([id, term]) => [id, JSON.stringify(term)])],
      );
    }
    return (await this.of(source, target)).length - before;
  }

  async remove(source: string, target: string, id: string): Promise<void> {
    await this.db.query('DELETE FROM terms WHERE owner = $1 AND source = $2 AND target = $3 AND id = $4', [
      OWNER,
      primary(source),
      primary(target),
      id,
    ]);
  }
}
