import { useCallback, useMemo } from 'react';
import { useSearchParams } from 'react-router';
import type { Spread } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { PageTable } from '../table/PageTable.tsx';
import { PathRule } from '../table/PathRule.tsx';
import { PathSheet } from './PathSheet.tsx';
import { RoleList } from './RoleList.tsx';

const NO_POINTS: ReadonlySet<number> = new Set();

/** What the layout means: the path on the pages, and beside it what each style means or how the chosen item is read. */
export function Structure() {
  const [search, setSearch] = useSearchParams();
  const folio = useDocument((s) => s.folio)!;
  const whole = useDocument((s) => s.loading === 'all');
  const item = search.get('item');
  const change = useCallback(
    (name: string, value: string | null) =>
      setSearch(
        (old) => {
          const next = new URLSearchParams(old);
          if (value === null) next.delete(name);
          else next.set(name, value);
          return next;
        },
        { replace: true },
      ),
    [setSearch],
  );
  const onSelect = useCallback((id: string | null) => change('item', id), [change]);
  const onZoom = useCallback((z: number | 'fit') => change('zoom', z === 'fit' ? null : String(z)), [change]);
  const onPage = useCallback((n: number) => change('page', n === 1 ? null : String(n)), [change]);
  const home = useMemo(() => Object.values(folio.spreads).find((s) => item !== null && s.items[item]), [folio.spreads, item]);
  const rule = useCallback(
    (spread: Spread, scale: number) => <PathRule folio={folio} spread={spread} scale={scale} selected={item} />,
    [folio, item],
  );
  return (
    <div className="with-sheet">
      <PageTable
        selected={home ? item : null}
        onSelect={onSelect}
        points={NO_POINTS}
        zoom={Number(search.get('zoom')) || 'fit'}
        onZoom={onZoom}
        page={Number(search.get('page')) || 1}
        onPage={onPage}
        over={whole ? rule : undefined}
      />
      <aside className="sheet" aria-label="Details">
        {home && item !== null ? <PathSheet spread={home} item={item} onSelect={onSelect} /> : <RoleList />}
      </aside>
    </div>
  );
}
