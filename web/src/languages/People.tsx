import { useCallback } from 'react';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Button, Popconfirm, Progress } from 'antd';
import dayjs from 'dayjs';
import { Link } from 'react-router';
import type { JobOnList, JobState, ServerEvent } from '@elastic-folio/core/api';
import { costOf } from '@elastic-folio/core/language';
import { api } from '../api/client.ts';
import { useServerEvents } from '../api/events.ts';
import { inWords } from '../api/untilAnswered.ts';
import { useDocument } from '../document/documentStore.ts';
import { AskTranslator } from './AskTranslator.tsx';

const WORDS: Record<JobState, string> = {
  invited: 'asked, no answer yet',
  accepted: 'at work',
  declined: 'said no',
  done: 'delivered',
  withdrawn: 'taken back',
};

interface Props {
  language: string;
  /** Looks at the file that a job delivered. */
  onDelivery: (job: string) => void;
}

/** Who was asked to translate into a language, how far each is, and whom to ask next. */
export function People({ language, onDelivery }: Props) {
  const id = useDocument((s) => s.id)!;
  const folio = useDocument((s) => s.folio)!;
  const client = useQueryClient();
  const again = useCallback(() => void client.invalidateQueries({ queryKey: ['jobs', id] }), [client, id]);
  useServerEvents(useCallback((e: ServerEvent) => e.type === 'jobs' && e.folio === id && again(), [id, again]));
  const jobs = useQuery({ queryKey: ['jobs', id], queryFn: () => api.jobs(id) });
  const mine = (jobs.data ?? []).filter((j) => j.language === language);
  // What was chosen to go out for files holds here as well.
  const recipe = Object.values(folio.recipes).findLast((r) => r.settings['target'] === language);
  return (
    <div className="people">
      {mine.length > 0 && (
        <ul aria-label="Jobs">
          {mine.map((job) => (
            <OneJob key={job.id} job={job} onChanged={again} onDelivery={onDelivery} />
          ))}
        </ul>
      )}
      {jobs.error && <p className="warn">{(jobs.error as Error).message}</p>}
      <h2>Ask for a translation</h2>
      <AskTranslator language={language} chosen={recipe ? choiceIn(recipe.settings) : {}} onAsked={again} />
      <p className="soft">
        Mails go to the <Link to="/outbox">simulated outbox</Link>, where their links can be opened.
      </p>
    </div>
  );
}

/** Of a recipe’s settings, those that say what goes out. */
const choiceIn = (settings: Record<string, unknown>): Record<string, unknown> =>
  Object.fromEntries(Object.entries(settings).filter(([key]) => !['target', 'source', 'pages'].includes(key)));

function OneJob({ job, onChanged, onDelivery }: { job: JobOnList; onChanged: () => void; onDelivery: (job: string) => void }) {
  const { progress, state } = job;
  const { cost, days } = costOf(job.analysis, job.rates);
  const percent = progress.all ? Math.floor((progress.done / progress.all) * 100) : 0;
  const late = job.due !== null && (state === 'invited' || state === 'accepted') && job.due < dayjs().format('YYYY-MM-DD');
  const complain = useDocument((s) => s.complain);
  const act = async (what: Promise<unknown>): Promise<void> => {
    await what.catch((e: unknown) => complain(inWords(e)));
    onChanged();
  };
  return (
    <li>
      <header>
        <b>{job.for.kind === 'person' ? job.for.name : 'Simulated service'}</b>
        <span className="soft">{job.for.kind === 'service' && state === 'accepted' ? 'at work, sends a file' : WORDS[state]}</span>
      </header>
      {job.for.kind === 'person' && (
        <Progress percent={percent} size="small" strokeColor="var(--fir)" aria-label={`${progress.done} of ${progress.all} texts`} />
      )}
      <p className="soft">
        {job.analysis.total.words.toLocaleString('en')} words,{' '}
        {cost.toLocaleString('en', { style: 'currency', currency: job.rates.currency })}, {days === 1 ? '1 day' : `${days} days`}
        {job.chosen.pages ? `, pages ${job.chosen.pages}` : ''}
        {job.due !== null && (
          <>
            , needed by <span className={late ? 'warn' : undefined}>{dayjs(job.due).format('D MMM YYYY')}</span>
          </>
        )}
        , asked {dayjs(job.asked).format('D MMM, H:mm')}
      </p>
      <div className="job-actions">
        {job.delivered !== null && (
          <Button size="small" type="primary" onClick={() => onDelivery(job.id)}>
            Look at what came
          </Button>
        )}
        {job.for.kind === 'person' && (
          <>
            {state === 'done' && (
              <Button size="small" onClick={() => void act(api.moveJob(job.id, 'accepted'))}>
                Open again
              </Button>
            )}
            {state !== 'done' && (
              <Button
                size="small"
                title="With a new link; the one before opens nothing any more"
                onClick={() => void act(api.askAgain(job.id))}
              >
                {state === 'declined' || state === 'withdrawn' ? 'Ask again' : 'Send the mail again'}
              </Button>
            )}
            {(state === 'invited' || state === 'accepted') && (
              <Button size="small" onClick={() => void act(api.moveJob(job.id, 'withdrawn'))}>
                Take back
              </Button>
            )}
          </>
        )}
        <Popconfirm
          title="Forget this job? Its mails and notices go too; what was translated stays."
          okText="Forget it"
          onConfirm={() => void act(api.removeJob(job.id))}
        >
          <Button size="small" type="text">
            Forget
          </Button>
        </Popconfirm>
      </div>
    </li>
  );
}
