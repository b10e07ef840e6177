import { useCallback, useMemo } from 'react';
import { Segmented } from 'antd';
import { useSearchParams } from 'react-router';
import type { Spread } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { PageTable } from '../table/PageTable.tsx';
import { PathRule } from '../table/PathRule.tsx';
import { PathSheet } from './PathSheet.tsx';
import { AboutSheet } from './AboutSheet.tsx';
import { OutlineList } from './OutlineList.tsx';
import { PictureList } from './PictureList.tsx';
import { RoleList } from './RoleList.tsx';

const PARTS = [
  { value: 'styles', label: 'Styles' },
  { value: 'pictures', label: 'Pictures' },
  { value: 'outline', label: 'Outline' },
  { value: 'about', label: 'About' },
];
const NO_POINTS: ReadonlySet<number> = new Set();

/** What the layout means: the path on the pages, and beside it what each style means or how the chosen item is read. */
export function Structure() {
  const [search, setSearch] = useSearchParams();
  const folio = useDocument((s) => s.folio)!;
  const whole = useDocument((s) => s.loading === 'all');
  const item = search.get('item');
  const asked = search.get('part');
  const part = PARTS.some((p) => p.value === asked) ? asked! : 'styles';
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
        {home && item !== null ? (
          <PathSheet spread={home} item={item} onSelect={onSelect} />
        ) : (
          <>
            <Segmented
              block
              size="small"
              aria-label="Parts of the structure"
              value={part}
              onChange={(v) => change('part', v === 'styles' ? null : v)}
              options={PARTS}
            />
            {part === 'pictures' ? (
              <PictureList onSelect={onSelect} />
            ) : part === 'outline' ? (
              <OutlineList onSelect={onSelect} />
            ) : part === 'about' ? (
              <AboutSheet />
            ) : (
              <RoleList />
            )}
          </>
        )}
      </aside>
    </div>
  );
}
