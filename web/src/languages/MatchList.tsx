import { useEffect } from 'react';
import { useQuery } from '@tanstack/react-query';
import { differences, readable } from '@elastic-folio/core/language';
import type { DeskRow } from '@elastic-folio/core/language';
import { api } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';
import { Parts } from './Parts.tsx';

interface Props {
  row: DeskRow;
  language: string;
  /** What stands there now: what says the same offers nothing. */
  text: string;
  /** What can be put in by key, in this order. */
  onOffered: (readable: readonly string[]) => void;
  onTake: (readable: string) => void;
}

/** What was translated before and is like a segment: how alike, what is different, and by which key it is put in. */
export function MatchList({ row, language, text, onOffered, onTake }: Props) {
  const id = useDocument((s) => s.id)!;
  const kept = useDocument((s) => s.kept);
  const { unit, at, segment, codes } = row;
  const found = useQuery({
    queryKey: ['matches', id, language, unit.id, at, readable(segment.source)],
    queryFn: () => api.matches(id, language, unit.id, at),
    enabled: kept,
    staleTime: 10_000,
  });
  const list = (found.data ?? []).filter((m) => readable(m.target) !== text);
  useEffect(() => {
    onOffered(list.map((m) => readable(m.target)));
  });
  if (!list.length) return null;
  return (
    <ol className="matches" aria-label="From the memory">
      {list.map((m, i) => (
        <li key={i}>
          <button title={`Alt Shift ${i + 1}`} onMouseDown={(e) => e.preventDefault()} onClick={() => onTake(readable(m.target))}>
            <b className={m.percent === 100 ? 'fir' : 'straw'}>{m.percent} %</b>
            <span lang={language}>
              <Parts parts={m.target} codes={codes} />
            </span>
          </button>
          {m.percent < 100 && (
            <small lang={unit.language} aria-label="What is different in the source">
              {differences(m.source, segment.source).map((d, j) =>
                d.in === 'both' ? (
                  <span key={j}>{d.text}</span>
                ) : d.in === 'before' ? (
                  <del key={j}>{d.text}</del>
                ) : (
                  <ins key={j}>{d.text}</ins>
                ),
              )}
            </small>
          )}
          {m.from && <small className="soft">{m.from}</small>}
        </li>
      ))}
    </ol>
  );
}
