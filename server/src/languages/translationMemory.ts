import { createHash } from 'node:crypto';
import type { Folio, TextPart, TranslatedUnit } from '@elastic-folio/core';
import type { FoundMatch, MemoryEntry } from '@elastic-folio/core/api';
import { FolioError } from '@elastic-folio/core/node';
import { deskRows, fromMatch, Memory, memoryKey, primary, unitWith, wordsOf } from '@elastic-folio/core/language';
import type { DeskRow, Lengths, MemoryUnit } from '@elastic-folio/core/language';
import { fromJson } from '../database/json.ts';
import type { Db } from '../database/db.ts';

const OWNER = 'desk';
/** Rows of one statement. */
const AT_ONCE = 200;
/** Entries of a list, and pairs of languages whose index is kept. */
const LISTED = 200;
const INDEXED = 4;

/** Long keys are told by their hash: an index holds no long texts. */
const short = (key: string): string => createHash('sha256').update(key).digest('hex');

/** Everything that was translated once, by pairs of languages; what is said anew of the same source stands beside it. */
export class TranslationMemory {
  private readonly indexes = new Map<string, { sign: string; memory: Memory }>();
  constructor(private readonly db: Db) {}

  /** What there is from one language into another, the oldest first; variants of a language know each other’s. */
  async of(documents: string, pair: { source?: string; target: string }): Promise<MemoryUnit[]> {
    const rows = await this.db.query<{ unit: unknown }>(
      'SELECT unit FROM memory_units WHERE owner = $1 AND source = $2 AND target = $3 ORDER BY at',
      [OWNER, primary(pair.source || documents), primary(pair.target)],
    );
    return rows.map(({ unit }) => fromJson(unit) as MemoryUnit);
  }

  /** What is like a text, the best first. */
  async matches(source: string, target: string, text: readonly TextPart[]): Promise<FoundMatch[]> {
    const memory = await this.index(source, target);
    return memory.find(text).map((match) => ({
      source: match.unit.source,
      target: [...(fromMatch(match, text) ?? match.unit.target)],
      kind: match.kind,
      percent: match.percent,
      ...(match.unit.from !== undefined && { from: match.unit.from }),
      ...(match.unit.by !== undefined && { by: match.unit.by }),
    }));
  }

  /** Texts that have no translation, with that of the memory where all of their segments are there word by word. */
  async known(folio: Folio, language: string, at: string): Promise<Record<string, TranslatedUnit>> {
    const memory = await this.index(folio.head.metadata.language, language);
    const units: Record<string, TranslatedUnit> = {};
    const byUnit = new Map<string, DeskRow[]>();
    for (const row of deskRows(folio, language)) byUnit.set(row.unit.id, [...(byUnit.get(row.unit.id) ?? []), row]);
    for (const [id, rows] of byUnit) {
      if (!rows.some((r) => !r.segment.target)) continue;
      let found = 0;
      const segments = rows.map(({ segment }) => {
        const best = segment.target ? undefined : memory.same(segment.source)[0];
        const target = best && fromMatch(best, segment.source);
        if (!target) return segment;
        found++;
        return { ...segment, target: [...target], state: 'translated' as const, by: `memory: ${best.unit.from ?? ''}`, at };
      });
      if (found) units[id] = { ...unitWith(rows, -1, segments[0]!), segments };
    }
    return units;
  }

  /** How long texts are in both languages, of all that was translated between them. */
  async lengths(source: string, target: string): Promise<Lengths> {
    const out = { source: 0, target: 0, texts: 0 };
    for (const unit of (await this.index(source, target)).units()) {
      out.source += wordsOf(unit.source).length;
      out.target += wordsOf(unit.target).length;
      out.texts++;
    }
    return out;
  }

  /** The index over one pair of languages, made anew where the memory is another. */
  private async index(source: string, target: string): Promise<Memory> {
    const pair = [OWNER, primary(source), primary(target)];
    const [now] = await this.db.query<{ sign: string }>(
      "SELECT count(*) || ' ' || coalesce(max(at)::text, '') AS sign FROM memory_units WHERE owner = $1 AND source = $2 AND target = $3",
      pair,
    );
    const name = pair.join(' ');
    const known = this.indexes.get(name);
    if (known && known.sign === now!.sign) return known.memory;
    const memory = new Memory(await this.of(source, { target }));
    this.indexes.delete(name);
    this.indexes.set(name, { sign: now!.sign, memory });
    if (this.indexes.size > INDEXED) this.indexes.delete(this.indexes.keys().next().value!);
    return memory;
  }

  /** Entries that hold some words in either language, and how many there are in all. */
  async search(source: string, target: string, words: string): Promise<{ of: number; entries: MemoryEntry[] }> {
    const rows = await this.db.query<{ key: string; said: string; unit: unknown }>(
      'SELECT key, said, unit FROM memory_units WHERE owner = $1 AND source = $2 AND target = $3 ORDER BY at DESC, key',
      [OWNER, primary(source), primary(target)],
    );
    const wanted = words.trim().toLowerCase();
    const entries = rows.flatMap(({ key, said, unit: stored }): MemoryEntry[] => {
      const unit = fromJson(stored) as MemoryUnit;
      if (wanted && !`${wordsOf(unit.source)}\n${wordsOf(unit.target)}`.toLowerCase().includes(wanted)) return [];
      return [{ entry: `${key}.${said}`, source: unit.source, target: unit.target, ...saidOf(unit) }];
    });
    return { of: entries.length, entries: entries.slice(0, LISTED) };
  }

  /** Says something else of a source that the memory has. */
  async change(source: string, target: string, entry: string, to: readonly TextPart[]): Promise<void> {
    const [key, said] = entry.split('.');
    const pair = [OWNER, primary(source), primary(target), key, said];
    await this.db.transaction(async (query) => {
      const [row] = await query<{ unit: unknown }>(
        'DELETE FROM memory_units WHERE owner = $1 AND source = $2 AND target = $3 AND key = $4 AND said = $5 RETURNING unit',
        pair,
      );
      if (!row) throw gone();
      const unit = fromJson(row.unit) as MemoryUnit;
      await query(
        'INSERT INTO memory_units (owner, source, target, key, said, unit) VALUES ($1, $2, $3, $4, $5, $6) ON CONFLICT DO NOTHING',
        [...pair.slice(0, 4), short(memoryKey(to)), JSON.stringify({ ...unit, target: to })],
      );
    });
  }

  async forget(source: string, target: string, entry: string): Promise<void> {
    const [key, said] = entry.split('.');
    const [row] = await this.db.query(
      'DELETE FROM memory_units WHERE owner = $1 AND source = $2 AND target = $3 AND key = $4 AND said = $5 RETURNING key',
      [OWNER, primary(source), primary(target), key, said],
    );
    if (!row) throw gone();
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

const gone = (): FolioError => new FolioError('memory.none', 'This is not in the memory any more.', 'Reload the page.');

const saidOf = ({ from, by, at }: MemoryUnit): Pick<MemoryEntry, 'from' | 'by' | 'at'> => ({
  ...(from !== undefined && { from }),
  ...(by !== undefined && { by }),
  ...(at !== undefined && { at }),
});
