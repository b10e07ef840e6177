import { useCallback, useMemo, useState } from 'react';
import { Button, Segmented } from 'antd';
import { Play } from 'lucide-react';
import { pagesOf, spreadOfItem } from '@elastic-folio/core';
import type { Grid, Spread } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { useAddress } from '../shell/address.ts';
import { CueMarks } from '../table/CueMarks.tsx';
import { GridPreview } from '../table/GridPreview.tsx';
import { PageTable } from '../table/PageTable.tsx';
import { CueList } from './CueList.tsx';
import { ItemMotion } from './ItemMotion.tsx';
import { PageMotion } from './PageMotion.tsx';
import { SelectionMotion } from './SelectionMotion.tsx';
import { Rehearsal } from './Rehearsal.tsx';
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
  const withIt = search.get('with');
  const home = item === null ? undefined : spreadOfItem(folio, item);
  const chosen = useMemo(
    () => [...new Set([...(item === null ? [] : [item]), ...(withIt?.split(',') ?? [])])].filter((id) => home?.items[id]),
    [item, withIt, home],
  );
  const also = useMemo(() => chosen.slice(1), [chosen]);
  const select = useCallback(
    (ids: readonly string[]) => change({ item: ids[0] ?? null, with: ids.length > 1 ? ids.slice(1).join(',') : null }),
    [change],
  );
  const onSelect = useCallback(
    (id: string | null, add = false) => {
      // Things of one spread are chosen together; what is chosen already is let go.
      const joins = add && id !== null && chosen.length > 0 && home?.items[id];
      select(id === null ? [] : joins ? (chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id]) : [id]);
    },
    [chosen, home, select],
  );
  const onZoom = useCallback((z: number | 'fit') => change({ zoom: z === 'fit' ? null : String(z) }), [change]);
  const onPage = useCallback((n: number) => change({ page: n === 1 ? null : String(n) }), [change]);
  /** A page that cues hang on is shown with its own. */
  const toHolder = useCallback(
    (holder: string | null) => {
      const of = pagesOf(folio).find((p) => p.page.id === holder);
      if (of) change({ item: null, with: null, part: 'pages', page: String(of.number) });
      else onSelect(holder);
    },
    [folio, change, onSelect],
  );
  const played = pagesOf(folio)[Number(search.get('play')) - 1];
  const endRehearsal = useCallback(() => change({ play: null }), [change]);
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
        also={also}
        onSelect={onSelect}
        points={open}
        zoom={Number(search.get('zoom')) || 'fit'}
        onZoom={onZoom}
        page={page}
        onPage={onPage}
        over={whole ? marks : undefined}
      />
      {played !== undefined && <Rehearsal key={played.page.id} place={played} onEnd={endRehearsal} />}
      <aside className="sheet" aria-label="Details">
        <p className="path-moves">
          <Button size="small" type="primary" icon={<Play size={13} />} disabled={!whole} onClick={() => change({ play: String(page) })}>
            Rehearse page {page}
          </Button>
        </p>
        {home && chosen.length > 1 ? (
          <SelectionMotion spread={home} items={chosen.map((id) => home.items[id]!)} onSelect={select} onPreview={setPreview} />
        ) : home && item !== null ? (
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
            {part === 'pages' ? <PageMotion places={pagesOf(folio)} page={page} /> : <CueList onSelect={toHolder} />}
          </>
        )}
      </aside>
    </div>
  );
}
