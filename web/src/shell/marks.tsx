import type { Outcome } from '@elastic-folio/core/ledger';

export const OUTCOME_WORDS: Record<Outcome | 'none', string> = {
  kept: 'kept',
  adapted: 'adapted',
  dropped: 'dropped',
  excluded: 'left out on purpose',
  none: 'not run',
};

/** The sign of an outcome: a full disc, a half one, a ring with a bar, a small square, a dash. Shape and words, never colour alone. */
export function OutcomeMark({ outcome, label = true }: { outcome: Outcome | 'none'; label?: boolean }) {
  const aria = label ? { role: 'img', 'aria-label': OUTCOME_WORDS[outcome] } : { 'aria-hidden': true };
  return (
    <svg width="12" height="12" viewBox="0 0 12 12" className="mark" {...aria}>
      {outcome === 'kept' && <circle cx="6" cy="6" r="5.5" fill="var(--fir)" />}
      {outcome === 'adapted' && (
        <>
          <circle cx="6" cy="6" r="4.75" fill="none" stroke="var(--straw)" strokeWidth="1.5" />
          <path d="M6 1.2a4.8 4.8 0 0 0 0 9.6z" fill="var(--straw)" />
        </>
      )}
      {outcome === 'dropped' && (
        <>
          <circle cx="6" cy="6" r="4.75" fill="none" stroke="var(--clay)" strokeWidth="1.5" />
          <path d="M2.6 9.4 9.4 2.6" stroke="var(--clay)" strokeWidth="1.8" />
        </>
      )}
      {outcome === 'excluded' && <rect x="3" y="3" width="6" height="6" fill="var(--soft)" />}
      {outcome === 'none' && <path d="M1 6h10" stroke="#8A8271" strokeWidth="1.6" />}
    </svg>
  );
}
