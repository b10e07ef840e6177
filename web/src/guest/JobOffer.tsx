import { useState } from 'react';
import { Button, Input } from 'antd';
import dayjs from 'dayjs';
import type { GuestAnswer, GuestJob } from '@elastic-folio/core/api';
import { languageName } from '../languages/languageName.ts';
import { plural } from '../shell/plural.ts';

/** A job before it is taken on: what it is, until when it is needed, and the choice. */
export function JobOffer({ job, onAnswer }: { job: GuestJob; onAnswer: (answer: GuestAnswer) => void }) {
  const [why, setWhy] = useState('');
  const may = [
    job.may.seesMemory && 'matches from earlier translations are shown',
    job.may.reviews && 'texts may be marked as reviewed',
  ].filter(Boolean);
  return (
    <main className="centred job-offer">
      <h1>{job.title}</h1>
      <p>
        {job.name}, this is to be translated from {languageName(job.source)} into <b>{languageName(job.language)}</b>:{' '}
        {job.words.toLocaleString('en')} words in {plural(job.units.length, 'text')}, on {plural(job.pages.length, 'page')}
        {job.due !== null && (
          <>
            , by <b>{dayjs(job.due).format('D MMMM YYYY')}</b>
          </>
        )}
        .
      </p>
      {job.message && <blockquote>{job.message}</blockquote>}
      <p className="soft">
        You translate here, beside the pages{may.length > 0 && `; ${may.join(', ')}`}. The link is good until{' '}
        {dayjs(job.until).format('D MMMM YYYY')}.
      </p>
      {job.state === 'declined' ? (
        <p role="status">You said no to this job. Ask whoever sent it, if you have thought again.</p>
      ) : (
        <>
          <Button type="primary" size="large" onClick={() => onAnswer({ says: 'accept' })}>
            Take it on
          </Button>
          <div className="decline">
            <Input
              aria-label="Why not"
              placeholder="Why not (may stay empty)"
              maxLength={5000}
              value={why}
              onChange={(e) => setWhy(e.target.value)}
            />
            <Button onClick={() => onAnswer({ says: 'decline', why })}>Say no</Button>
          </div>
        </>
      )}
    </main>
  );
}
