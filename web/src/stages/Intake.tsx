import { useCallback, useMemo, useRef } from 'react';
import { pagesOf } from '@elastic-folio/core';
import type { Finding } from '@elastic-folio/core/check';
import { useDocument } from '../document/documentStore.ts';
import { useAddress } from '../shell/address.ts';
import { PageTable } from '../table/PageTable.tsx';
import { FontList } from './FontList.tsx';
import { ItemSheet } from './ItemSheet.tsx';
import { NotTakenList } from './NotTakenList.tsx';
import { PageLay } from './PageLay.tsx';
import { PointList } from './PointList.tsx';
import { useFindings, usePoints } from './points.ts';

/** The pages, and what should be looked at first; or what is selected on them. */
export function Intake() {
  const [search, change] = useAddress();
  const points = usePoints();
  const findings = useFindings();
  const spreads = useDocument((s) => s.folio!.spreads);
  const id = useDocument((s) => s.id);
  const item = search.get('item');
  const onSelect = useCallback((id: string | null) => change({ item: id }), [change]);
  const onZoom = useCallback((z: number | 'fit') => change({ zoom: z === 'fit' ? null : String(z) }), [change]);
  const onPage = useCallback((n: number) => change({ page: n === 1 ? null : String(n) }), [change]);
  const known = useMemo(() => new Set(Object.values(spreads).flatMap((s) => Object.keys(s.items))), [spreads]);
  const itemOf = useCallback(({ item: own, subject }: Finding) => [own, subject].find((id) => id !== undefined && known.has(id)), [known]);
  // An entry without an item leads to its page by the first item that stands there.
  const goTo = useCallback(
    (n: number) => change({ item: pagesOf(useDocument.getState().folio!)[n - 1]?.spread.order[0] ?? null }),
    [change],
  );
  const fonts = useRef<HTMLHeadingElement>(null);
  const toFonts = useCallback(() => fonts.current?.scrollIntoView({ block: 'start' }), []);
  const zoom = Number(search.get('zoom')) || 'fit';
  const pages = useMemo(() => new Set(points.flatMap((p) => (p.page ? [p.page] : []))), [points]);
  const exists = item !== null && known.has(item);
  return (
    <div className="with-sheet">
      <PageTable
        selected={exists ? item : null}
        onSelect={onSelect}
        points={pages}
        zoom={zoom}
        onZoom={onZoom}
        page={Number(search.get('page')) || 1}
        onPage={onPage}
      />
      <aside className="sheet" aria-label="Details">
        {exists ? (
          <ItemSheet id={item} onClose={() => onSelect(null)} />
        ) : (
          <>
            <h2>What to look at</h2>
            <p className="soft">
              {points.length
                ? 'Found while reading the document. Choose one to see its place.'
                : 'Nothing: texts fit, pictures have words, fonts are there.'}
            </p>
            {findings.length > 0 && (
              <PointList points={findings} itemOf={itemOf} onItem={(found) => change({ item: found })} onFont={toFonts} />
            )}
            <h2 ref={fonts}>Fonts</h2>
            {id && <FontList id={id} />}
            <h2>Pages</h2>
            <PageLay />
            {id && <NotTakenList id={id} onPage={goTo} />}
            <p className="soft hint">Select something on a page to read what it is, and to edit its text.</p>
          </>
        )}
      </aside>
    </div>
  );
}
