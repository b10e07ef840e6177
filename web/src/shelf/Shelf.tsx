import { useRef, useState } from 'react';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Button, Progress } from 'antd';
import dayjs from 'dayjs';
import relativeTime from 'dayjs/plugin/relativeTime';
import { Link, useNavigate } from 'react-router';
import { toMm } from '@elastic-folio/core';
import type { OutputState, Run, ShelfEntry } from '@elastic-folio/core/api';
import type { Outcome } from '@elastic-folio/core/ledger';
import type { ApiProblem } from '../api/client.ts';
import { askAgain } from '../api/askAgain.ts';
import { api, upload } from '../api/client.ts';
import { EditionBars } from './EditionBars.tsx';
import { PageSketches, useReading } from './PageSketches.tsx';
import { FontShelf } from './FontShelf.tsx';
import { SampleFiles } from './SampleFiles.tsx';
import { useMaking } from '../outputs/refresh.ts';
import { Mark } from '../shell/Mark.tsx';
import { OutcomeMark } from '../shell/marks.tsx';
import { RunsNow, useRuns } from '../shell/RunsNow.tsx';
import { NoticeBell } from '../shell/NoticeBell.tsx';
import { languageName } from '../languages/languageName.ts';
import { plural } from '../shell/plural.ts';

dayjs.extend(relativeTime);

/** All documents, how their outputs stand, and the place to bring in another. */
export function Shelf() {
  const shelf = useQuery({ queryKey: ['shelf'], queryFn: api.shelf });
  // A first start brings its samples in behind the shelf.
  const comingQuery = useQuery({
    queryKey: ['coming'],
    queryFn: api.coming,
    refetchInterval: (q) => (q.state.data?.length ? 700 : false),
  });
  const coming = comingQuery.data ?? [];
  const runs = useRuns().data ?? [];
  const documents = shelf.data ?? [];
  const results = documents.flatMap((d) => d.outputs.filter((o) => o.lastDone));
  const stale = results.filter((o) => o.state === 'stale').length;
  return (
    <div className="shelf-page">
      <header className="top">
        <span className="brand">
          <Mark /> Elastic Folio
        </span>
        <div className="top-right">
          <RunsNow />
          <NoticeBell />
          <b>Studio desk</b>
        </div>
      </header>
      <main className="shelf">
        <section>
          <h1>Shelf</h1>
          <p className="soft">
            {plural(documents.length, 'document')}
            {results.length > 0 && ` · ${plural(results.length, 'result')}`}
            {stale > 0 && `, ${stale} of them stale since the last change`}
          </p>
          {shelf.error && <p className="warn">{(shelf.error as Error).message}</p>}
          {coming.map((c) => (
            <p className="remaking" role="status" key={c.title}>
              <span>{c.pages ? `Bringing in “${c.title}”: page ${c.page} of ${c.pages}` : `Preparing ${c.title}`}</span>
              <Progress size="small" percent={c.pages ? Math.round((c.page / c.pages) * 100) : 0} aria-label={`Progress of ${c.title}`} />
            </p>
          ))}
          {documents.map((d) => (
            <ShelfRow key={d.id} entry={d} />
          ))}
          {shelf.isSuccess && !documents.length && comingQuery.isSuccess && !coming.length && (
            <p className="empty">The shelf is empty. Bring in a layout to begin.</p>
          )}
        </section>
        <aside>
          <BringIn />
          <FontShelf />
          <h2>Runs</h2>
          {runs.length === 0 && <p className="soft">No output has been made yet. Open a document and go to Outputs.</p>}
          {runs.slice(0, 8).map((r) => {
            const document = documents.find((d) => d.id === r.folio);
            const output = document?.outputs.find((o) => o.recipe === r.recipe)?.name ?? r.output;
            return <RunLine key={r.id} run={r} title={document?.title ?? ''} output={output} />;
          })}
        </aside>
      </main>
    </div>
  );
}

function ShelfRow({ entry }: { entry: ShelfEntry }) {
  const stale = entry.outputs.filter((o) => o.state === 'stale');
  const { refresh } = useMaking(entry.id);
  const size = `${Math.round(toMm(entry.width))} × ${Math.round(toMm(entry.height))} mm`;
  return (
    <article className="shelf-row" data-document={entry.id}>
      <Link to={`/d/${entry.id}/intake`} className="cover" aria-label={`Open ${entry.title}`} tabIndex={-1}>
        <img src={entry.cover} alt="" />
      </Link>
      <div className="shelf-body">
        <h2>
          <Link to={`/d/${entry.id}/intake`}>{entry.title}</Link>
        </h2>
        <p className="soft">
          {plural(entry.pages, 'page')}, {size} · {[entry.language, ...entry.editions.map((e) => e.language)].map(languageName).join(', ')}{' '}
          · changed {dayjs(entry.changedAt).fromNow()}
        </p>
        {entry.editions.length > 0 && <EditionBars editions={entry.editions} />}
        <div className="chips">
          {entry.outputs.map((o) => (
            <OutputChip key={o.recipe} id={entry.id} output={o} />
          ))}
          {!entry.outputs.length && (
            <Link className="chip quiet" to={`/d/${entry.id}/outputs`}>
              No outputs yet
            </Link>
          )}
        </div>
        <p className="soft points-line">
          {stale.length > 0 && (
            <Button type="primary" size="small" onClick={() => void refresh()}>
              Refresh {stale.length} stale
            </Button>
          )}
          {entry.openPoints === null ? (
            <span>Being looked through …</span>
          ) : entry.openPoints.length ? (
            <span title={entry.openPoints.join('\n')}>{plural(entry.openPoints.length, 'open point')}</span>
          ) : (
            <span>No open points.</span>
          )}
        </p>
      </div>
    </article>
  );
}

/** The worst that happened in a run. */
function worst(run: Run | null): Outcome | 'none' {
  if (!run?.counts) return 'none';
  return run.counts.dropped ? 'dropped' : run.counts.adapted ? 'adapted' : 'kept';
}

function OutputChip({ id, output }: { id: string; output: OutputState }) {
  const words: Record<OutputState['state'], string> = {
    never: 'not run',
    waiting: 'waiting',
    running: 'being made',
    fresh: '',
    stale: 'stale',
    failed: 'failed',
    cancelled: 'cancelled',
  };
  return (
    <Link className={`chip ${output.state}`} to={`/d/${id}/outputs?output=${output.recipe}`}>
      <OutcomeMark outcome={worst(output.lastDone)} /> {output.name}{' '}
      {words[output.state] && <span className="soft">{words[output.state]}</span>}
    </Link>
  );
}

function RunLine({ run, title, output }: { run: Run; title: string; output: string }) {
  const going = run.state === 'running' || run.state === 'waiting';
  const says: Record<Run['state'], string> = {
    waiting: 'waiting',
    running: run.pagesTotal ? `page ${run.pagesDone} of ${run.pagesTotal}` : 'beginning',
    done: dayjs(run.finishedAt).format('H:mm'),
    failed: 'failed',
    cancelled: 'cancelled',
  };
  return (
    <div className="run-line">
      <Link to={`/d/${run.folio}/outputs?output=${run.recipe}`}>
        {title} → {output}
      </Link>
      <span className={going ? '' : 'soft'}>{says[run.state]}</span>
      {going && (
        <Progress
          percent={run.pagesTotal ? (100 * run.pagesDone) / run.pagesTotal : 0}
          showInfo={false}
          size="small"
          strokeColor="var(--fir)"
          railColor="var(--rule)"
        />
      )}
    </div>
  );
}

type Arrival =
  | { state: 'idle' }
  | { state: 'sending'; name: string; share: number; cancel: () => void }
  | { state: 'reading'; name: string; cancel?: () => void }
  | { state: 'done'; id: string; title: string }
  | { state: 'failed'; name: string; message: string; advice: string };

function BringIn() {
  const input = useRef<HTMLInputElement>(null);
  const [arrival, setArrival] = useState<Arrival>({ state: 'idle' });
  const [over, setOver] = useState(false);
  const client = useQueryClient();
  const navigate = useNavigate();
  const { pages, newReading } = useReading();

  const take = (file: File | undefined): void => {
    if (!file) return;
    const reading = newReading();
    const { done, cancel } = upload(file, reading, (share) =>
      setArrival(share < 1 ? { state: 'sending', name: file.name, share, cancel } : { state: 'reading', name: file.name, cancel }),
    );
    setArrival({ state: 'sending', name: file.name, share: 0, cancel });
    arrive(file.name, done);
  };
  const arrive = (name: string, done: Promise<{ id: string; title: string }>): void =>
    void done.then(
      ({ id, title }) => {
        setArrival({ state: 'done', id, title });
        void askAgain(client, ['shelf']);
      },
      (e: ApiProblem) =>
        setArrival(e.code === 'cancelled' ? { state: 'idle' } : { state: 'failed', name, message: e.message, advice: e.advice }),
    );
  return (
    <div
      className={over ? 'bring-in over' : 'bring-in'}
      onDragOver={(e) => (e.preventDefault(), setOver(true))}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => (e.preventDefault(), setOver(false), take(e.dataTransfer.files[0]))}
    >
      <input
        ref={input}
        type="file"
        accept=".efolio,.odg,.odp,.otg,.otp,.fodg,.fodp"
        hidden
        aria-label="Document file"
        onChange={(e) => (take(e.target.files?.[0]), (e.target.value = ''))}
      />
      <button className="bring-button" onClick={() => input.current?.click()}>
        <b>Bring in a layout</b>
        <span>An OpenDocument drawing or presentation, or an .efolio package; drop it here</span>
      </button>
      <SampleFiles
        onTake={(name) => {
          setArrival({ state: 'reading', name });
          arrive(name, api.bringInSample(name));
        }}
      />
      <div role="status" aria-live="polite">
        {(arrival.state === 'sending' || arrival.state === 'reading') && (
          <>
            <div className="under-way">
              <p>
                {arrival.state === 'sending' ? arrival.name : `Reading ${arrival.name} …`}
                {arrival.state === 'reading' && pages.total > 0 && ` page ${pages.read.length} of ${pages.total}`}
              </p>
              {/* Above all that grows, so that it stays under the hand that reaches for it. */}
              {arrival.cancel && (
                <Button size="small" onClick={arrival.cancel}>
                  Cancel
                </Button>
              )}
            </div>
            {arrival.state === 'sending' && <Progress percent={Math.round(arrival.share * 100)} size="small" strokeColor="var(--fir)" />}
            {arrival.state === 'reading' && <PageSketches pages={pages.read} />}
          </>
        )}
        {arrival.state === 'done' && (
          <p>
            <OutcomeMark outcome="kept" /> {arrival.title} is on the shelf.{' '}
            <Button type="link" size="small" onClick={() => void navigate(`/d/${arrival.id}/intake`)}>
              Open it
            </Button>
          </p>
        )}
        {arrival.state === 'failed' && (
          <p className="warn">
            <b>{arrival.name} was not brought in.</b> {arrival.message} {arrival.advice}
          </p>
        )}
      </div>
    </div>
  );
}
