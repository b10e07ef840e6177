import type { LedgerCounts, LedgerEntry } from './entry.ts';

/** The ledger beside a result, as JSON with an entry on each line; what is as it mostly is goes without saying. */
export function ledgerFile({
  output,
  valid,
  counts,
  entries,
}: {
  output: string;
  valid: boolean;
  counts: LedgerCounts;
  entries: readonly LedgerEntry[];
}): string {
  const lines = entries.map(({ values, ...entry }) => JSON.stringify(Object.keys(values).length ? { ...entry, values } : entry));
  return `{"output":${JSON.stringify(output)},"valid":${valid},"counts":${JSON.stringify(counts)},"entries":[\n${lines.join(',\n')}\n]}\n`;
}
