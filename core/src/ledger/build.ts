import type { Composition } from '../compose/marks.ts';
import type { Folio } from '../folio/folio.ts';
import { subjectKey } from './entry.ts';
import type { Evidence, Treatment, LedgerEntry } from './entry.ts';
import { pagesAsSet } from './setPages.ts';
import { subjectsOf } from './subjects.ts';
import type { SubjectInFolio } from './subjects.ts';

/**
 * The ledger of a run: every subject of the document, what the writer says of it, and what reading
 * back found. Complete by construction: it walks the subjects, not what the writer happened to do. Without evidence it is the plan alone.
 */
export function buildLedger(
  folio: Folio,
  composition: Composition,
  plan: (subject: SubjectInFolio) => Treatment,
  evidence: readonly Evidence[] | null,
): LedgerEntry[] {
  const pagesOf = pagesAsSet(folio, composition);
  const found = new Map<string, Evidence[]>();
  for (const e of evidence ?? []) {
    const key = subjectKey(e.subject);
    found.set(key, [...(found.get(key) ?? []), e]);
  }
  const entries: LedgerEntry[] = [];
  for (const about of subjectsOf(folio)) {
    const { outcome, code, values = {}, also, repair } = plan(about);
    const seen = found.get(subjectKey(about.subject)) ?? [];
    // What was dropped is not found as designed: that bears the entry out.
    const against = outcome === 'dropped' ? undefined : seen.find((e) => !e.agrees);
    const check = !evidence ? 'planned' : against ? 'contradicted' : seen.length ? 'confirmed' : 'uncheckable';
    const says = (against ?? seen[0])?.says;
    entries.push({
      subject: about.subject,
      pages: pagesOf(about),
      outcome,
      code,
      values,
      ...(also?.length && { also: also.map((r) => ({ code: r.code, values: r.values ?? {} })) }),
      check,
      ...(says !== undefined && { evidence: says }),
      ...(repair !== undefined && { repair }),
    });
  }
  return entries;
}

/** A run whose files contradict its own ledger is not valid. */
export const isValid = (entries: readonly LedgerEntry[]): boolean => entries.every((e) => e.check !== 'contradicted');
