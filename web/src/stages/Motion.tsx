import { useCallback, useMemo, useState } from 'react';
import { Segmented } from 'antd';
import { pagesOf } from '@elastic-folio/core';
import type { Grid, Spread } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { useAddress } from '../shell/address.ts';
import { CueMarks } from '../table/CueMarks.tsx';
import { GridPreview } from '../table/GridPreview.tsx';
import { PageTable } from '../table/PageTable.tsx';
import { CueList } from './CueList.tsx';
import { ItemMotion } from './ItemMotion.tsx';
import { PageMotion } from './PageMotion.tsx';
import { usePoints } from './points.ts';

const PARTS = [
  { value: 'cues', label: 'Cues' },
  { value: 'pages', label: 'Pages' },
];

/** What the parts of the layout do: marks on the pages, and beside them what happens, in sentences. */
export function Motion() {
  const [search, change] = useAddress();
  const folio = useDocument((s) => s.folio)!;
  const whole = useDocument((s) => s.loading === 'all');
  const points = usePoints();
  const item = search.get('item');
  const part = search.get('part') === 'pages' ? 'pages' : 'cues';
  const page = Number(search.get('page')) || 1;
  const onSelect = useCallback((id: string | null) => change({ item: id }), [change]);
  const onZoom = useCallback((z: number | 'fit') => change({ zoom: z === 'fit' ? null : String(z) }), [change]);
  const onPage = useCallback((n: number) => change({ page: n === 1 ? null : String(n) }), [change]);
  const home = useMemo(() => Object.values(folio.spreads).find((s) => item !== null && s.items[item]), [folio.spreads, item]);
  const [preview, setPreview] = useState<Grid | null>(null);
  const marks = useCallback(
    (spread: Spread, scale: number) => (
      <>
        <CueMarks folio={folio} spread={spread} scale={scale} selected={item} onSelect={onSelect} />
        {preview && home?.id === spread.id && <GridPreview spread={spread} grid={preview} scale={scale} />}
      </>
    ),
    [folio, item, onSelect, preview, home?.id],
  );
  const open = useMemo(
    () => new Set(points.flatMap((p) => (/^(cue|motion|field)\./.test(p.code) && p.page !== undefined ? [p.page] : []))),
    [points],
  );
  return (
    <div className="with-sheet">
      <PageTable
        selected={home ? item : null}
        onSelect={onSelect}
        points={open}
        zoom={Number(search.get('zoom')) || 'fit'}
        onZoom={onZoom}
        page={page}
        onPage={onPage}
        over={whole ? marks : undefined}
      />
      <aside className="sheet" aria-label="Details">
        {home && item !== null ? (
          <ItemMotion spread={home} item={item} onSelect={onSelect} onPreview={setPreview} />
        ) : (
          <>
            <Segmented
              block
              size="small"
              aria-label="Parts of the motion"
              value={part}
              onChange={(v) => change({ part: v === 'cues' ? null : v })}
              options={PARTS}
            />
            {part === 'pages' ? <PageMotion places={pagesOf(folio)} page={page} /> : <CueList onSelect={onSelect} />}
          </>
        )}
      </aside>
    </div>
  );
}
