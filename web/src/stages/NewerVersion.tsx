import { useRef, useState } from 'react';
import { Button, Progress, Radio, Select } from 'antd';
import { useNavigate } from 'react-router';
import type { NewerChoice, NewerProposal } from '@elastic-folio/core/api';
import type { NewerReport, Unmatched } from '@elastic-folio/core/newer';
import { api, newerPicture, sendNewer } from '../api/client.ts';
import type { ApiProblem } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';
import { actorId } from '../document/identity.ts';

type Step =
  | { at: 'choose' }
  | { at: 'sending'; share: number; cancel: () => void }
  | { at: 'decide'; proposal: NewerProposal }
  | { at: 'taking'; proposal: NewerProposal };

/** A newer version of the document's source: what it brings, what has to be decided, and taking it over. */
export function NewerVersion() {
  const id = useDocument((s) => s.id)!;
  const title = useDocument((s) => s.folio!.head.metadata.title);
  const navigate = useNavigate();
  const input = useRef<HTMLInputElement>(null);
  const [step, setStep] = useState<Step>({ at: 'choose' });
  const [choice, setChoice] = useState<NewerChoice>({ pairs: {}, keep: [] });
  const [problem, setProblem] = useState<string | null>(null);
  const failed = (error: unknown): void => {
    const p = error as ApiProblem;
    setProblem(p.code === 'cancelled' ? null : `${p.message} ${p.advice ?? ''}`);
  };
  const take = (file: File | undefined): void => {
    if (!file) return;
    setProblem(null);
    setChoice({ pairs: {}, keep: [] });
    const { done, cancel } = sendNewer(id, file, (share) => setStep({ at: 'sending', share, cancel }));
    setStep({ at: 'sending', share: 0, cancel });
    done.then(
      (proposal) => setStep({ at: 'decide', proposal }),
      (error: unknown) => {
        setStep({ at: 'choose' });
        failed(error);
      },
    );
  };
  const decide = async (proposal: NewerProposal, next: NewerChoice): Promise<void> => {
    setChoice(next);
    try {
      setStep({ at: 'decide', proposal: await api.newer(id, proposal.token, next) });
    } catch (error) {
      failed(error);
    }
  };
  const takeOver = async (proposal: NewerProposal): Promise<void> => {
    setStep({ at: 'taking', proposal });
    try {
      await api.takeNewer(id, proposal.token, { ...choice, actor: actorId() });
      useDocument.getState().close();
      await useDocument.getState().open(id);
      void navigate(`/d/${id}/intake`);
    } catch (error) {
      setStep({ at: 'decide', proposal });
      failed(error);
    }
  };
  const proposal = step.at === 'decide' || step.at === 'taking' ? step.proposal : null;
  return (
    <div className="newer">
      <h1>A newer version of “{title}”</h1>
      {problem && (
        <p className="warn" role="alert">
          {problem}
        </p>
      )}
      {!proposal && (
        <div
          className="bring-in"
          onDragOver={(e) => e.preventDefault()}
          onDrop={(e) => (e.preventDefault(), take(e.dataTransfer.files[0]))}
        >
          <input
            ref={input}
            type="file"
            accept=".odg,.odp,.otg,.otp,.fodg,.fodp"
            hidden
            aria-label="Newer version"
            onChange={(e) => (take(e.target.files?.[0]), (e.target.value = ''))}
          />
          <button className="bring-button" onClick={() => input.current?.click()}>
            <b>Choose the newer file</b>
            <span>What you decided here stays with what it was decided for; nothing changes before you have seen what it brings</span>
          </button>
          {step.at === 'sending' && (
            <div role="status">
              <p>{step.share < 1 ? 'Sending …' : 'Reading and comparing …'}</p>
              <Progress percent={Math.round(step.share * 100)} size="small" strokeColor="var(--fir)" />
              <Button size="small" onClick={step.cancel}>
                Cancel
              </Button>
            </div>
          )}
        </div>
      )}
      {proposal && (
        <>
          <p className="soft">{proposal.name} has been read. Nothing has been changed yet.</p>
          <Summary report={proposal.report} />
          <Clashes report={proposal.report} keep={choice.keep} onKeep={(keep) => void decide(proposal, { ...choice, keep })} />
          <Missing id={id} proposal={proposal} pairs={choice.pairs} onPairs={(pairs) => void decide(proposal, { ...choice, pairs })} />
          <div className="newer-end">
            <Button type="primary" loading={step.at === 'taking'} onClick={() => void takeOver(proposal)}>
              Take it over
            </Button>
            <Button disabled={step.at === 'taking'} onClick={() => void navigate(`/d/${id}/intake`)}>
              Leave the document as it is
            </Button>
            <span className="soft">It is one step: Undo brings back what was.</span>
          </div>
        </>
      )}
    </div>
  );
}

const KINDS = ['pages', 'items', 'paragraphs'] as const;

function Summary({ report }: { report: NewerReport }) {
  return (
    <table className="newer-counts">
      <thead>
        <tr>
          <th scope="col"> </th>
          <th scope="col">the same</th>
          <th scope="col">changed</th>
          <th scope="col">new</th>
          <th scope="col">gone</th>
        </tr>
      </thead>
      <tbody>
        {KINDS.map((kind) => (
          <tr key={kind}>
            <th scope="row">{kind}</th>
            <td>{report[kind].same}</td>
            <td>{report[kind].changed}</td>
            <td>{report[kind].added}</td>
            <td>{report[kind].removed}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const WHAT = { text: 'Text', altText: 'Alt text', title: 'Title' } as const;

/** What was changed here and in the newer file: a person says which stays. */
function Clashes({ report, keep, onKeep }: { report: NewerReport; keep: string[]; onKeep: (keep: string[]) => void }) {
  if (!report.clashes.length) return null;
  return (
    <section>
      <h2>Changed here and in the newer file</h2>
      <ul className="clashes">
        {report.clashes.map((c) => (
          <li key={`${c.id} ${c.what}`}>
            <p className="soft">
              {WHAT[c.what]}
              {c.page !== undefined && `, page ${c.page}`}
            </p>
            <Radio.Group
              value={c.kept ? 'here' : 'there'}
              disabled={c.what === 'altText'}
              onChange={(e) => onKeep(e.target.value === 'here' ? [...keep, c.id] : keep.filter((k) => k !== c.id))}
            >
              <Radio value="here">
                <b>Yours</b> <span>{c.here || 'none'}</span>
              </Radio>
              <Radio value="there">
                <b>The newer file’s</b> <span>{c.there || 'none'}</span>
              </Radio>
            </Radio.Group>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What was not found again, side by side with what is new: a person may say that two are the same. */
function Missing({
  id,
  proposal,
  pairs,
  onPairs,
}: {
  id: string;
  proposal: NewerProposal;
  pairs: Record<string, string>;
  onPairs: (pairs: Record<string, string>) => void;
}) {
  const { older, newer } = proposal.report;
  const chosenFor = new Map(Object.entries(pairs).map(([theirs, ours]) => [ours, theirs]));
  if (!older.length && !Object.keys(pairs).length) return null;
  const choose = (ours: string, theirs: string | null): void => {
    const next = Object.fromEntries(Object.entries(pairs).filter(([t, o]) => o !== ours && t !== theirs));
    onPairs(theirs === null ? next : { ...next, [theirs]: ours });
  };
  return (
    <section>
      <h2>Not found again</h2>
      <p className="soft">
        {older.length ? 'Say what each became, or leave it: what was decided about it then goes.' : 'All of it has been given its place.'}
        {Object.keys(pairs).length > 0 && (
          <Button type="link" size="small" onClick={() => onPairs({})}>
            Forget my {Object.keys(pairs).length === 1 ? 'choice' : 'choices'}
          </Button>
        )}
      </p>
      <ul className="missing">
        {older.map((o) => {
          const options = newer.filter((n) => n.kind === o.kind && n.of === o.of).map((n) => ({ value: n.id, label: nameOf(n) }));
          return (
            <li key={o.id}>
              <figure>
                <img src={newerPicture(id, proposal.token, 'here', o.page)} alt={`Page ${o.page} as it is here`} loading="lazy" />
                <figcaption>
                  <b>{nameOf(o)}</b>
                  {o.decided.length > 0 && <span className="soft"> with {o.decided.join(', ')}</span>}
                </figcaption>
              </figure>
              <div>
                <Select
                  allowClear
                  showSearch
                  size="small"
                  aria-label={`What ${nameOf(o)} became`}
                  placeholder={options.length ? 'is gone' : 'is gone: nothing new is of its kind'}
                  disabled={!options.length}
                  value={chosenFor.get(o.id) ?? null}
                  options={options}
                  optionFilterProp="label"
                  popupMatchSelectWidth={false}
                  onChange={(theirs) => choose(o.id, theirs ?? null)}
                />
              </div>
            </li>
          );
        })}
      </ul>
      {newer.some((n) => n.kind === 'page') && (
        <>
          <h3>New pages</h3>
          <ul className="new-pages">
            {newer
              .filter((n) => n.kind === 'page')
              .map((n) => (
                <li key={n.id}>
                  <img src={newerPicture(id, proposal.token, 'there', n.page)} alt={`Page ${n.page} of the newer file`} loading="lazy" />
                  <span>Page {n.page}</span>
                </li>
              ))}
          </ul>
        </>
      )}
    </section>
  );
}

const OF: Record<string, string> = {
  textFrame: 'Text',
  picture: 'Picture',
  shape: 'Shape',
  group: 'Group',
  media: 'Media',
  field: 'Field',
};

function nameOf(u: Unmatched): string {
  const says = u.says && ` “${u.says}”`;
  return u.kind === 'page' ? `Page ${u.page}${says}` : `${OF[u.of ?? ''] ?? 'Item'}${says}, page ${u.page}`;
}
