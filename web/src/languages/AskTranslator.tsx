import { useState } from 'react';
import { Button, Checkbox, DatePicker, Input, InputNumber, Segmented } from 'antd';
import dayjs from 'dayjs';
import { NewJob } from '@elastic-folio/core/api';
import type { JobFor } from '@elastic-folio/core/api';
import type { ChoiceOfTexts } from '@elastic-folio/core/language';
import { api } from '../api/client.ts';
import type { ApiProblem } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { ratesKept } from './rates.ts';

interface Props {
  language: string;
  /** What goes out, as it was chosen for files. */
  chosen: Partial<ChoiceOfTexts>;
  onAsked: () => void;
}

/** How the fields of a job are called on the screen. */
const FIELDS: Record<string, string> = {
  name: 'The name',
  address: 'The mail address',
  due: 'The day',
  pages: 'Pages',
  message: 'The message',
};

/** Asks someone by mail to translate here, or the simulated service, which sends a file back. */
export function AskTranslator({ language, chosen, onAsked }: Props) {
  const id = useDocument((s) => s.id)!;
  const kept = useDocument((s) => s.kept);
  const [kind, setKind] = useState<JobFor['kind']>('person');
  const [name, setName] = useState('');
  const [address, setAddress] = useState('');
  const [seconds, setSeconds] = useState(20);
  const [breaksCodes, setBreaksCodes] = useState(false);
  const [pages, setPages] = useState('');
  const [due, setDue] = useState<string | null>(null);
  const [message, setMessage] = useState('');
  const [seesMemory, setSeesMemory] = useState(true);
  const [reviews, setReviews] = useState(false);
  const [fills, setFills] = useState(true);
  const [problem, setProblem] = useState<string | null>(null);
  const [asking, setAsking] = useState(false);
  const ask = async (): Promise<void> => {
    const job = NewJob.safeParse({
      language,
      for: kind === 'person' ? { kind, name, address } : { kind, seconds, breaksCodes },
      chosen: { ...chosen, pages },
      may: { seesMemory, reviews },
      due: kind === 'person' ? due : null,
      message,
      rates: ratesKept(),
    });
    if (!job.success) {
      const { path, message: says } = job.error.issues[0]!;
      return setProblem(`${FIELDS[String(path.at(-1))] ?? 'Something here'} ${says}.`);
    }
    setAsking(true);
    setProblem(null);
    try {
      if (fills && kind === 'person') await fillFromMemory(id, language);
      await api.askFor(id, job.data);
      setMessage('');
      onAsked();
    } catch (error) {
      setProblem(`${(error as ApiProblem).message} ${(error as ApiProblem).advice}`);
    }
    setAsking(false);
  };
  return (
    <form className="ask-translator" aria-label="Ask for a translation" onSubmit={(e) => e.preventDefault()}>
      <Segmented
        block
        size="small"
        aria-label="Whom to ask"
        value={kind}
        onChange={setKind}
        options={[
          { value: 'person', label: 'A translator' },
          { value: 'service', label: 'Simulated service' },
        ]}
      />
      {kind === 'person' ? (
        <>
          <div className="two">
            <label>
              <span className="soft">Name</span>
              <Input size="small" aria-label="Name" value={name} maxLength={200} onChange={(e) => setName(e.target.value)} />
            </label>
            <label>
              <span className="soft">Mail</span>
              <Input
                size="small"
                aria-label="Mail"
                type="email"
                value={address}
                maxLength={320}
                onChange={(e) => setAddress(e.target.value)}
              />
            </label>
          </div>
          <label>
            <span className="soft">A word with it</span>
            <Input.TextArea
              size="small"
              aria-label="A word with it"
              autoSize={{ minRows: 1, maxRows: 5 }}
              maxLength={5000}
              value={message}
              onChange={(e) => setMessage(e.target.value)}
            />
          </label>
        </>
      ) : (
        <>
          <p className="soft">
            It stands in for an agency: what the memory has, and a pseudo-translation of all else, comes back as a file after a while.
          </p>
          <label>
            <span className="soft">Seconds until it delivers</span>
            <InputNumber
              size="small"
              aria-label="Seconds until it delivers"
              min={0}
              max={86_400}
              value={seconds}
              onChange={(v) => v !== null && setSeconds(v)}
            />
          </label>
          <Checkbox checked={breaksCodes} onChange={(e) => setBreaksCodes(e.target.checked)}>
            Lose some codes, to see what is found
          </Checkbox>
        </>
      )}
      <div className="two">
        <label>
          <span className="soft">Pages</span>
          <Input size="small" aria-label="Pages" placeholder="all" value={pages} onChange={(e) => setPages(e.target.value)} />
        </label>
        {kind === 'person' && (
          <label>
            <span className="soft">Needed by</span>
            <DatePicker
              size="small"
              aria-label="Needed by"
              format="D MMM YYYY"
              value={due === null ? null : dayjs(due)}
              minDate={dayjs()}
              onChange={(d) => setDue(d ? d.format('YYYY-MM-DD') : null)}
            />
          </label>
        )}
      </div>
      {kind === 'person' && (
        <div className="may">
          <Checkbox checked={fills} onChange={(e) => setFills(e.target.checked)}>
            what the memory has word by word is filled in first
          </Checkbox>
          <Checkbox checked={seesMemory} onChange={(e) => setSeesMemory(e.target.checked)}>
            sees matches from the memory
          </Checkbox>
          <Checkbox checked={reviews} onChange={(e) => setReviews(e.target.checked)}>
            may mark texts as reviewed
          </Checkbox>
        </div>
      )}
      {problem && (
        <p className="warn" role="alert">
          {problem}
        </p>
      )}
      {/* A mail leaves when this is pressed, and not by a key in one of the fields. */}
      <Button type="primary" loading={asking || !kept} onClick={() => void ask()}>
        {kind === 'person' ? 'Send the mail' : 'Give it the job'}
      </Button>
    </form>
  );
}

/** Texts that were translated before, word by word, are in the edition before anybody starts; one undo takes them back. */
async function fillFromMemory(id: string, language: string): Promise<void> {
  const { units } = await api.known(id, language);
  if (!Object.keys(units).length) return;
  useDocument.getState().change([{ kind: 'edition.units', args: { language, units } }], newBurst());
  // What is asked for is counted by the server: it has to have arrived.
  while (!useDocument.getState().kept) await new Promise((r) => setTimeout(r, 30));
}
