import { useMemo } from 'react';
import type { Finding } from '@elastic-folio/core/check';
import { useDocument } from '../document/documentStore.ts';

/** Findings of one kind, as they are told together. */
export interface PointGroup {
  name: string;
  points: Finding[];
}

/** What findings are about, by the first part of their codes, in the order in which a designer looks. */
const GROUPS: [name: string, kinds: string[]][] = [
  ['Fonts', ['font', 'glyph']],
  ['Texts', ['text', 'word', 'chain', 'frame', 'table']],
  ['Styles and headings', ['style', 'heading']],
  ['Pictures', ['picture', 'alt']],
  ['Motion', ['cue', 'motion', 'field']],
  ['Pages and layers', ['item', 'page', 'layer']],
];

/** Hidden layers are as the designer left them: told, but not counted among what is to be done. */
const isPoint = (f: Finding): boolean => f.code !== 'layer.hidden';

/** What the designer should look at, as it was found after the last change. */
export function usePoints(): Finding[] {
  const findings = useDocument((s) => s.findings);
  return useMemo(() => findings.filter(isPoint), [findings]);
}

/** All that was found, with what is only told. */
export const useFindings = (): Finding[] => useDocument((s) => s.findings);

/** Points by what they are about; groups that have any. */
export const grouped = (points: readonly Finding[]): PointGroup[] =>
  GROUPS.map(([name, kinds]) => ({ name, points: points.filter((p) => kinds.includes(p.code.split('.')[0]!)) })).filter(
    (g) => g.points.length,
  );
