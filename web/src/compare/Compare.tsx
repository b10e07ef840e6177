import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { Button, Segmented } from 'antd';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { Link } from 'react-router';
import { pageNumbers, pagesOf, PX_PER_PT } from '@elastic-folio/core';
import { api } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';
import { useAddress } from '../shell/address.ts';
import { useKeys } from '../shell/keys.ts';
import { FixedBookView } from './FixedBookView.tsx';
import type { Spreads } from './FixedBookView.tsx';
import { PagePicture } from './PagePicture.tsx';
import { PdfPage } from './PdfPage.tsx';
import { ReadingView } from './ReadingView.tsx';

/** The source page and the output's page side by side, at one scale and in step. */
export function Compare() {
  const folio = useDocument((s) => s.folio)!;
  const id = useDocument((s) => s.id)!;
  const show = useDocument((s) => s.show);
  const painted = useDocument((s) => s.painted);
  const [search, change] = useAddress();
  const host = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState({ width: 900, height: 600 });
  const states =
    useQuery({
      queryKey: ['outputs', id],
      queryFn: () => api.outputs(id),
      refetchInterval: (q) => (q.state.data?.some((o) => o.state === 'running' || o.state === 'waiting') ? 1000 : false),
    }).data ?? [];
  const kinds = useQuery({ queryKey: ['kinds'], queryFn: api.outputKinds, staleTime: Infinity }).data ?? [];
  const resultPort = useQuery({ queryKey: ['settings'], queryFn: api.settings, staleTime: Infinity }).data?.resultPort;
  // Texts for translators have no pages to lie beside the layout’s.
  const ready = states.filter((o) => o.lastDone && kinds.find((k) => k.id === o.output)?.view !== 'texts');
  const output = ready.find((o) => o.recipe === search.get('output')) ?? ready[0];
  const edition = folio.recipes[output?.recipe ?? '']?.edition ?? null;
  const showLanguage = useDocument((s) => s.showLanguage);
  useEffect(() => {
    showLanguage(edition);
    return () => showLanguage(null);
  }, [edition, showLanguage]);
  const pages = useMemo(() => pagesOf(folio), [folio]);
  const range = folio.recipes[output?.recipe ?? '']?.settings['pages'];
  const inRange = useMemo(() => numbersIn(range, pages.length), [range, pages.length]);
  const number = Math.min(Math.max(1, Number(search.get('page')) || 1), pages.length);
  const place = pages[number - 1]!;
  const index = inRange.indexOf(number);

  useLayoutEffect(() => {
    if (!host.current) return undefined;
    const observer = new ResizeObserver(([e]) => setRoom({ width: e!.contentRect.width, height: e!.contentRect.height }));
    observer.observe(host.current);
    return () => observer.disconnect();
  }, [ready.length]);
  useEffect(() => show([place.spread.id]), [place.spread.id, show]);

  const go = (n: number): void => change({ page: String(Math.min(Math.max(1, n), pages.length)) });
  useKeys({
    PageDown: () => go(number + 1),
    PageUp: () => go(number - 1),
    ArrowRight: () => go(number + 1),
    ArrowLeft: () => go(number - 1),
    Home: () => go(1),
    End: () => go(pages.length),
  });

  if (!output)
    return (
      <div className="centred">
        <h1>Nothing to compare yet</h1>
        <p className="soft">Run an output first; then its pages lie here beside the layout’s.</p>
        <Link to="../outputs">To the outputs</Link>
      </div>
    );
  const { box } = place.page;
  // One scale for both sides: half the room in width, all of it in height.
  const scale = Math.max(0.1, Math.min((room.width - 72) / 2 / box.width, (room.height - 40) / box.height));
  const run = output.lastDone!;
  const kind = kinds.find((k) => k.id === output.output);
  const isBook = kind?.entry.endsWith('.epub') ?? false;
  const laidOut = kind?.view === 'boxes' || folio.recipes[output.recipe]?.settings['way'] === 'laid';
  const label = `Page ${number} of ${output.name}`;
  // An article knows no pages: it is shown where the first paragraph of the page begins.
  const first = painted[place.spread.id]?.places.filter((p) => p.box.x < box.x + box.width && p.box.x + p.box.width > box.x);
  const beginning = first?.length ? `t-${first.reduce((a, b) => (b.box.y < a.box.y ? b : a)).paragraph}` : '';
  return (
    <div className="compare">
      <div className="compare-head">
        <h1>Compare</h1>
        <Segmented
          value={output.recipe}
          onChange={(v) => change({ output: String(v) })}
          options={ready.map((o) => ({ value: o.recipe, label: o.name }))}
        />
        {output.state === 'stale' && <span className="straw">The result is stale: the document has changed since.</span>}
        <span className="pager">
          <Button
            type="text"
            icon={<ChevronLeft size={17} />}
            aria-label="Previous page"
            disabled={number === 1}
            onClick={() => go(number - 1)}
          />
          Page {number} of {pages.length}
          <Button
            type="text"
            icon={<ChevronRight size={17} />}
            aria-label="Next page"
            disabled={number === pages.length}
            onClick={() => go(number + 1)}
          />
          <span className="soft">{Math.round(scale * 100)} %</span>
        </span>
      </div>
      <div className="pair" ref={host}>
        <figure>
          <figcaption>The layout</figcaption>
          <PagePicture place={place} scale={scale} />
        </figure>
        <figure className={(kind?.view === 'flow' && !kind.redrawn) || isBook ? 'flow' : undefined}>
          <figcaption>{output.name}</figcaption>
          {index < 0 ? (
            <div className="paper absent" style={{ width: box.width * scale, height: box.height * scale }}>
              This page is not in the chosen range.
            </div>
          ) : kind?.redrawn ? (
            resultPort && (
              <RedrawnText
                src={`http://${run.id}.localhost:${resultPort}/redrawn${laidOut ? `?page=${index + 1}` : ''}#page-${place.page.id}`}
                width={box.width}
                scale={scale}
                height={laidOut ? box.height * scale : room.height - 40}
                label={label}
              />
            )
          ) : kind?.view === 'flow' ? (
            resultPort && (
              <ReadingView
                address={`http://${run.id}.localhost:${resultPort}/${isBook ? 'book/reading' : kind.entry}`}
                isBook={isBook}
                anchor={isBook ? `page-${place.page.id}` : beginning}
                label={label}
                fresh={run.id}
              />
            )
          ) : isBook ? (
            resultPort && (
              <FixedBookView
                address={(at) => `http://${run.id}.localhost:${resultPort}/book/at/${at}`}
                place={place}
                shown={inRange}
                spreads={(folio.recipes[output.recipe]?.settings['spreads'] as Spreads | undefined) ?? 'auto'}
                label={label}
              />
            )
          ) : output.output === 'pdf' ? (
            <PdfPage run={run.id} page={place.page.id} width={box.width * scale} height={box.height * scale} label={label} />
          ) : (
            resultPort && (
              <WebPage
                src={`http://${run.id}.localhost:${resultPort}/at/${number}`}
                width={box.width}
                height={box.height}
                scale={scale}
                label={label}
              />
            )
          )}
        </figure>
      </div>
    </div>
  );
}

/** The pages a recipe takes, in order; all while its range cannot be read. */
function numbersIn(range: unknown, count: number): number[] {
  try {
    return [...pageNumbers(typeof range === 'string' ? range : '', count)].sort((a, b) => a - b);
  } catch {
    return [...pageNumbers('', count)];
  }
}

/** An office file drawn from its bytes on a sheet as wide as the page, at the page’s scale; running text is read on below. */
function RedrawnText({ src, width, height, scale, label }: { src: string; width: number; height: number; scale: number; label: string }) {
  const factor = scale / PX_PER_PT;
  return (
    <div className="paper clip" style={{ width: width * scale, height }}>
      <iframe
        key={src}
        title={label}
        sandbox=""
        src={src}
        style={{ width: width * PX_PER_PT, height: height / factor, transform: `scale(${factor})` }}
      />
    </div>
  );
}

/** A page of the web edition, live, in a frame that can do nothing but show it. */
function WebPage({ src, width, height, scale, label }: { src: string; width: number; height: number; scale: number; label: string }) {
  const [w, h] = [width * PX_PER_PT, height * PX_PER_PT];
  const factor = (width * scale) / w;
  return (
    <div className="paper clip" style={{ width: width * scale, height: height * scale }}>
      <iframe title={label} sandbox="allow-scripts" src={src} style={{ width: w, height: h, transform: `scale(${factor})` }} />
    </div>
  );
}
