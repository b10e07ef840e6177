import { useCallback, useEffect, useMemo } from 'react';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { App, Button } from 'antd';
import dayjs from 'dayjs';
import type { GuestAnswer, GuestJob, ServerEvent } from '@elastic-folio/core/api';
import type { Spread } from '@elastic-folio/core';
import { api } from '../api/client.ts';
import type { ApiProblem } from '../api/client.ts';
import { useServerEvents } from '../api/events.ts';
import { useDocument } from '../document/documentStore.ts';
import { Desk } from '../languages/Desk.tsx';
import { GrowthTint } from '../languages/GrowthTint.tsx';
import { TextOutline } from '../languages/TextOutline.tsx';
import { useScriptFont } from '../languages/useScriptFont.ts';
import { useAddress } from '../shell/address.ts';
import { useKeys } from '../shell/keys.ts';
import { UndoButtons } from '../shell/UndoButtons.tsx';
import { SetAsideList } from '../shell/SetAsideList.tsx';
import { Mark } from '../shell/Mark.tsx';
import { PageTable } from '../table/PageTable.tsx';
import { AskQuestion } from './AskQuestion.tsx';
import { JobOffer } from './JobOffer.tsx';
import { languageName } from '../languages/languageName.ts';

/** What a translator’s link opens: their job, to take on or to refuse; then a desk with its texts and pages, and nothing else. */
export function GuestDesk() {
  const client = useQueryClient();
  const { message } = App.useApp();
  const job = useQuery({ queryKey: ['job'], queryFn: api.guestJob, retry: false });
  const answer = async (said: GuestAnswer): Promise<void> => {
    try {
      client.setQueryData(['job'], await api.answerJob(said));
      if (said.says === 'question') void message.success('Your question was sent.');
    } catch (error) {
      void message.warning(`${(error as ApiProblem).message} ${(error as ApiProblem).advice}`);
      void client.invalidateQueries({ queryKey: ['job'] });
    }
  };
  if (job.error)
    return (
      <main className="centred">
        <h1>{job.error.message}</h1>
        <p>{(job.error as ApiProblem).advice}</p>
      </main>
    );
  if (!job.data) return <main className="centred">Opening …</main>;
  if (job.data.state === 'invited' || job.data.state === 'declined') return <JobOffer job={job.data} onAnswer={(a) => void answer(a)} />;
  return <AtWork job={job.data} onAnswer={(a) => void answer(a)} />;
}

function AtWork({ job, onAnswer }: { job: GuestJob; onAnswer: (answer: GuestAnswer) => void }) {
  const { language } = job;
  const folio = useDocument((s) => s.folio);
  const loading = useDocument((s) => s.loading);
  const problem = useDocument((s) => s.problem);
  const kept = useDocument((s) => s.kept);
  const notice = useDocument((s) => s.notice);
  const { open, undoStep, redoStep, showLanguage, dismiss } = useDocument.getState();
  const client = useQueryClient();
  const { message } = App.useApp();
  const [search, change] = useAddress();
  useEffect(() => void open(job.folio), [job.folio, open]);
  useEffect(() => () => useDocument.getState().close(), []);
  useEffect(() => {
    if (loading === 'all') showLanguage(language);
  }, [loading, language, showLanguage]);
  useEffect(() => {
    if (notice) void message.warning({ content: notice, duration: 8, onClose: dismiss });
  }, [notice, message, dismiss]);
  useServerEvents(useCallback((e: ServerEvent) => e.type === 'jobs' && void client.invalidateQueries({ queryKey: ['job'] }), [client]));
  useKeys(
    useMemo(
      () => ({ 'mod+z': () => void undoStep(), 'mod+y': () => void redoStep(), 'mod+shift+z': () => void redoStep() }),
      [undoStep, redoStep],
    ),
  );
  useScriptFont(folio ? language : null);
  const { name, units, may, state } = job;
  const guest = useMemo(
    () => ({ name, units: new Set(units), seesMemory: may.seesMemory, reviews: may.reviews, writes: state === 'accepted' }),
    [name, units, may.seesMemory, may.reviews, state],
  );
  const text = search.get('text');
  const tint = useCallback(
    (spread: Spread, scale: number) => (
      <>
        <GrowthTint spread={spread} scale={scale} />
        <TextOutline spread={spread} text={text} scale={scale} />
      </>
    ),
    [text],
  );
  const none = useMemo(() => new Set<number>(), []);
  const onSelect = useCallback((id: string | null) => change({ item: id }), [change]);
  const onZoom = useCallback((z: number | 'fit') => change({ zoom: z === 'fit' ? null : String(z) }), [change]);
  const onPage = useCallback((n: number) => change({ page: n === 1 ? null : String(n) }), [change]);
  useEffect(() => {
    document.title = `${job.title}, ${languageName(language)}`;
  }, [job.title, language]);
  const { all, done } = job.progress;
  return (
    <div className="document guest">
      <header className="top">
        <span className="home">
          <Mark />
        </span>
        <div className="doc-name">
          <h1>{job.title}</h1>
          <small>
            {languageName(job.source)} to {languageName(language)} · {done} of {all} texts
            {job.due !== null && ` · needed by ${dayjs(job.due).format('D MMMM')}`} · {kept ? 'every change kept' : 'keeping …'}
          </small>
        </div>
        <div className="top-right">
          <UndoButtons />
          <AskQuestion onAsk={(text) => onAnswer({ says: 'question', text })} />
          {state === 'accepted' ? (
            <Button type="primary" disabled={!kept} onClick={() => onAnswer({ says: 'done' })}>
              Deliver
            </Button>
          ) : (
            <b>Delivered; thank you, {name}</b>
          )}
        </div>
      </header>
      <SetAsideList />
      {loading === 'failed' ? (
        <main className="stage centred">
          <h1>{problem?.message}</h1>
          <p>{problem?.advice}</p>
        </main>
      ) : folio && loading === 'all' ? (
        <main className="stage with-sheet editions-stage desk-open">
          <PageTable
            selected={search.get('item')}
            onSelect={onSelect}
            points={none}
            zoom={Number(search.get('zoom')) || 'fit'}
            onZoom={onZoom}
            page={Number(search.get('page')) || (job.pages[0] ?? 1)}
            onPage={onPage}
            over={tint}
          />
          <aside className="sheet" aria-label="Texts">
            <Desk
              language={language}
              guest={guest}
              onShow={(frame, page, text) => change({ item: frame, text, ...(page !== null && { page: String(page) }) })}
            />
          </aside>
        </main>
      ) : (
        <main className="stage centred">Opening …</main>
      )}
    </div>
  );
}
