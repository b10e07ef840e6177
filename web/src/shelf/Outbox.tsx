import { useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import dayjs from 'dayjs';
import { Link } from 'react-router';
import { api } from '../api/client.ts';
import { API_ROOT } from '../api/root.ts';
import { Mark } from '../shell/Mark.tsx';
import { plural } from '../shell/plural.ts';

/** The simulated outbox: mails that would have left, to be read, and their links to be opened. */
export function Outbox() {
  const letters = useQuery({ queryKey: ['outbox'], queryFn: api.outbox });
  const [open, setOpen] = useState<string | null>(null);
  const list = letters.data ?? [];
  const letter = list.find((l) => l.id === open) ?? list[0];
  return (
    <div className="shelf-page">
      <header className="top">
        <Link to="/" className="brand">
          <Mark /> Elastic Folio
        </Link>
      </header>
      <main className="outbox">
        <section>
          <h1>Outbox</h1>
          <p className="soft">Simulated: nothing leaves this machine. {letters.isSuccess && `${plural(list.length, 'mail')}.`}</p>
          <ul aria-label="Mails">
            {list.map((l) => (
              <li key={l.id}>
                <button className={l === letter ? 'now' : undefined} aria-pressed={l === letter} onClick={() => setOpen(l.id)}>
                  <b>{l.to}</b>
                  <span>{l.subject}</span>
                  <small className="soft">{dayjs(l.at).format('D MMM YYYY, H:mm')}</small>
                </button>
              </li>
            ))}
          </ul>
          {letters.isSuccess && !list.length && <p className="empty">No mail was written yet. Ask a translator, in Languages.</p>}
        </section>
        {letter && (
          <article aria-label="Mail">
            <h2>{letter.subject}</h2>
            <p className="soft">
              To {letter.to}, {dayjs(letter.at).format('D MMM YYYY, H:mm')} · <a href={`${API_ROOT}/outbox/${letter.id}`}>as a file</a>
            </p>
            {letter.text.split('\n\n').map((p, i) =>
              p === letter.link ? (
                <p key={i}>
                  <a href={p} target="_blank" rel="noreferrer">
                    {p}
                  </a>
                </p>
              ) : (
                <p key={i}>{p}</p>
              ),
            )}
          </article>
        )}
      </main>
    </div>
  );
}
