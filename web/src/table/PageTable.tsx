import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { ReactNode } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Button } from 'antd';
import { Minus, Plus, Scan } from 'lucide-react';
import { pageOfItem, pagesOf } from '@elastic-folio/core';
import type { Spread } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { useKeys } from '../shell/keys.ts';
import { PageRuler } from './PageRuler.tsx';
import { SpreadView, spreadBox } from './SpreadView.tsx';
import type { Select } from './SpreadView.tsx';

const LABEL = 26;
const GAP = 22;
const MARGIN = 32;

interface Props {
  selected: string | null;
  also?: readonly string[] | undefined;
  onSelect: Select;
  /** Pages with something to look at. */
  points: ReadonlySet<number>;
  zoom: number | 'fit';
  onZoom: (zoom: number | 'fit') => void;
  page: number;
  onPage: (page: number) => void;
  /** What a stage draws over a spread. */
  over?: ((spread: Spread, scale: number) => ReactNode) | undefined;
}

/** Spreads on the table, scrolled and zoomed; only those in view are drawn. */
export function PageTable({ selected, also, onSelect, points, zoom, onZoom, page, onPage, over }: Props) {
  // Not the whole document: what is typed into texts is none of the table's business, the typesetter paints it.
  const head = useDocument((s) => s.folio!.head);
  const allSpreads = useDocument((s) => s.folio!.spreads);
  const show = useDocument((s) => s.show);
  const complete = useDocument((s) => s.loading === 'all');
  const host = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState({ width: 800, height: 600 });
  const spreads = useMemo(() => head.spreadOrder.flatMap((id) => (allSpreads[id] ? [allSpreads[id]] : [])), [head.spreadOrder, allSpreads]);
  const pages = useMemo(
    () => pagesOf(useDocument.getState().folio!),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what pages are made of
    [head.spreadOrder, head.masterPages, allSpreads],
  );

  useLayoutEffect(() => {
    const observer = new ResizeObserver(([e]) => setRoom({ width: e!.contentRect.width, height: e!.contentRect.height }));
    observer.observe(host.current!);
    return () => observer.disconnect();
  }, []);

  const widest = useMemo(() => spreads.reduce((w, s) => Math.max(w, spreadBox(s).width), 1), [spreads]);
  const tallest = useMemo(() => spreads.reduce((h, s) => Math.max(h, spreadBox(s).height), 1), [spreads]);
  const fit = Math.max(0.02, Math.min((room.width - 2 * MARGIN) / widest, (room.height - LABEL - GAP) / tallest));
  const scale = zoom === 'fit' ? fit : zoom;

  const virtual = useVirtualizer({
    count: spreads.length,
    getScrollElement: () => host.current,
    estimateSize: (i) => spreadBox(spreads[i]!).height * scale + LABEL + GAP,
    overscan: 1,
    paddingStart: 10,
  });
  useEffect(() => virtual.measure(), [scale, virtual, spreads.length]);
  const shown = virtual.getVirtualItems();
  const ids = shown.map((v) => spreads[v.index]?.id).filter((id): id is string => !!id);
  const key = ids.join(' ');
  useEffect(() => show(key ? key.split(' ') : []), [key, show, spreads.length]);

  const middle = (virtual.scrollOffset ?? 0) + room.height / 3;
  const current = shown.find((v) => v.start + v.size > middle)?.index ?? 0;
  const currentPage = pages.find((p) => p.spread.id === spreads[current]?.id)?.number ?? 1;
  const jumped = useRef(false);
  useEffect(() => {
    if (jumped.current && currentPage !== page && !pages.some((p) => p.number === page && p.spread.id === spreads[current]?.id))
      onPage(currentPage);
  }, [currentPage, page, onPage, pages, spreads, current]);

  const goToSpread = useCallback(
    (index: number) => virtual.scrollToIndex(Math.max(0, Math.min(spreads.length - 1, index)), { align: 'start' }),
    [virtual, spreads.length],
  );
  const goToPage = useCallback(
    (n: number) => goToSpread(spreads.findIndex((s) => s.id === pages[n - 1]?.spread.id)),
    [goToSpread, pages, spreads],
  );
  useEffect(() => {
    // Pages come in one after another: the one asked for may not be there yet.
    if (jumped.current || room.height === 600 || (page > pages.length && !complete)) return;
    jumped.current = true;
    if (page > 1) goToPage(page);
  }, [goToPage, page, pages.length, room.height, complete]);

  // Something chosen from a list is brought into sight.
  const brought = useRef<string | null>(null);
  useEffect(() => {
    if (!selected || brought.current === selected || !jumped.current) return;
    const at = spreads.findIndex((s) => s.items[selected]);
    if (at < 0) return;
    brought.current = selected;
    if (
      !shown.some(
        (v) =>
          v.index === at &&
          v.start < (virtual.scrollOffset ?? 0) + room.height * 0.7 &&
          v.start + v.size > (virtual.scrollOffset ?? 0) + LABEL * 3,
      )
    )
      goToSpread(at);
  }, [selected, spreads, shown, goToSpread, virtual.scrollOffset, room.height]);

  const step = useCallback(
    (factor: number) => onZoom(Math.min(8, Math.max(0.05, Math.round(scale * factor * 1000) / 1000))),
    [onZoom, scale],
  );
  useKeys(
    useMemo(
      () => ({
        PageDown: () => goToSpread(current + 1),
        PageUp: () => goToSpread(current - 1),
        Home: () => goToSpread(0),
        End: () => goToSpread(spreads.length - 1),
        '+': () => step(1.25),
        '=': () => step(1.25),
        '-': () => step(0.8),
        '0': () => onZoom('fit'),
        Escape: () => onSelect(null),
      }),
      [goToSpread, current, spreads.length, step, onZoom, onSelect],
    ),
  );

  useEffect(() => {
    const element = host.current!;
    // Not passive: the browser would zoom the whole page otherwise.
    const onWheel = (e: WheelEvent): void => {
      if (!e.ctrlKey && !e.metaKey) return;
      e.preventDefault();
      step(Math.exp(-e.deltaY / 300));
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, [step]);

  // Drawn ahead is not seen: the ruler marks what lies inside the window.
  const top = virtual.scrollOffset ?? 0;
  const inSight = shown
    .filter((v) => v.start + v.size - GAP > top + 8 && v.start + LABEL < top + room.height - 8)
    .map((v) => spreads[v.index]?.id);
  const sighted = pages.filter((p) => inSight.includes(p.spread.id)).map((p) => p.number);
  return (
    <div className="table-area">
      <div className="table" ref={host} tabIndex={0} role="region" aria-label="Pages">
        <div
          style={{ height: virtual.getTotalSize(), width: Math.max(widest * scale + 2 * MARGIN, room.width - 20), position: 'relative' }}
        >
          {shown.map((v) => {
            const spread = spreads[v.index]!;
            const numbers = pages.filter((p) => p.spread.id === spread.id).map((p) => p.number);
            const open = numbers.filter((n) => points.has(n)).length;
            return (
              <section key={spread.id} className="on-table" style={{ transform: `translateY(${v.start}px)` }} data-spread={spread.id}>
                <h2 className="spread-label">
                  {numbers.length > 1 ? `Pages ${numbers[0]}–${numbers[numbers.length - 1]}` : `Page ${numbers[0]}`}
                  {open > 0 && <span className="clay"> · {open === 1 ? 'something to look at' : 'both have something to look at'}</span>}
                </h2>
                <SpreadView
                  head={head}
                  spread={spread}
                  scale={scale}
                  selected={selected}
                  also={also}
                  onSelect={onSelect}
                  over={over?.(spread, scale)}
                />
              </section>
            );
          })}
        </div>
      </div>
      <div className="zoom" role="group" aria-label="Zoom">
        <Button type="text" size="small" icon={<Minus size={14} />} aria-label="Smaller" onClick={() => step(0.8)} />
        <button className="zoom-value" onClick={() => onZoom('fit')} title="Fit the spread (0)">
          {Math.round(scale * 100)} %
        </button>
        <Button type="text" size="small" icon={<Plus size={14} />} aria-label="Larger" onClick={() => step(1.25)} />
        <Button type="text" size="small" icon={<Scan size={14} />} aria-label="Fit the spread" onClick={() => onZoom('fit')} />
      </div>
      <PageRuler count={pages.length} from={sighted[0] ?? 1} to={sighted[sighted.length - 1] ?? 1} points={points} onGo={goToPage} />
    </div>
  );
}

/** The page number of an item. */
export const pageNumberOf = (
  folio: NonNullable<ReturnType<typeof useDocument.getState>['folio']>,
  spread: string,
  item: string,
): number | undefined => {
  const s = folio.spreads[spread];
  const i = s?.items[item];
  return s && i ? pagesOf(folio).find((p) => p.page.id === pageOfItem(s, i).id)?.number : undefined;
};
