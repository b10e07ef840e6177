import { useState } from 'react';
import { Link } from 'react-router';
import { Segmented } from 'antd';
import type { Folio } from '@elastic-folio/core';
import type { LedgerEntry } from '@elastic-folio/core/ledger';
import { OUTCOME_WORDS, OutcomeMark } from '../shell/marks.tsx';
import { aspectName, byWeight, entriesOn, sentenceOf, subjectName } from './score.ts';
import type { LedgerFile } from './score.ts';

const CHECK_WORDS: Record<LedgerEntry['check'], string> = {
  planned: 'planned',
  confirmed: 'read back',
  contradicted: 'contradicted',
  uncheckable: 'not checked',
};

/** What a run did, or will do, item by item, each with its reasons and what reading the files back found. */
export function LedgerList({
  folio,
  ledger,
  title,
  pages,
  sentences,
}: {
  folio: Folio;
  ledger: LedgerFile;
  title: string;
  pages: string[] | null;
  sentences: Record<string, string>;
}) {
  const [all, setAll] = useState(false);
  const scope = pages ? entriesOn(ledger, pages) : ledger.entries;
  const isPlan = ledger.entries[0]?.check === 'planned';
  const notable = scope.filter((e) => e.outcome !== 'kept' || e.check === 'contradicted');
  const entries = byWeight(all ? scope : notable).slice(0, 400);
  const count = (o: LedgerEntry['outcome']): number => scope.filter((e) => e.outcome === o).length;
  const sums = (['kept', 'adapted', 'dropped', 'excluded'] as const)
    .filter((o) => count(o))
    .map((o) => `${count(o)} ${OUTCOME_WORDS[o]}`)
    .join(', ');
  return (
    <section className="ledger" aria-label={isPlan ? 'Plan' : 'Ledger'}>
      <header>
        <b>{title}</b> <span className="soft">· {sums || 'nothing on this page'}</span>
        <Segmented
          size="small"
          value={all ? 'all' : 'notable'}
          onChange={(v) => setAll(v === 'all')}
          options={[
            { value: 'notable', label: isPlan ? 'What will change' : 'What changed' },
            { value: 'all', label: 'Everything' },
          ]}
        />
      </header>
      {entries.length === 0 && (
        <p className="soft">
          {isPlan
            ? 'Everything will be kept as designed.'
            : `Everything was kept as designed${ledger.valid ? ', and reading the files back confirms it' : ''}.`}
        </p>
      )}
      <ul>
        {entries.map((e) => (
          <li key={`${e.subject.kind}:${e.subject.id}:${e.subject.aspect}`}>
            <OutcomeMark outcome={e.outcome} />
            <span className="soft">{aspectName(e.subject.aspect)}</span>
            <b>
              {e.subject.kind === 'item' && folioHas(folio, e.subject.id) ? (
                <Link to={`../intake?item=${e.subject.id}`}>{subjectName(e, folio)}</Link>
              ) : (
                subjectName(e, folio)
              )}
            </b>
            <span>{[e, ...(e.also ?? [])].map((reason) => sentenceOf(reason, sentences)).join(' ')}</span>
            <span className={e.check === 'contradicted' ? 'clay' : 'soft'} title={e.evidence}>
              {CHECK_WORDS[e.check]}
              {e.check === 'contradicted' && `: ${e.evidence}`}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

const folioHas = (folio: Folio, item: string): boolean => Object.values(folio.spreads).some((s) => s.items[item]);
