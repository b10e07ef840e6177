import { useEffect, useMemo, useState } from 'react';
import { Button, Checkbox, Select } from 'antd';
import type { BackHome } from '@elastic-folio/core/api';
import { isGood, isTakeable, taken, unitsOf } from '@elastic-folio/core/language';
import type { Returned } from '@elastic-folio/core/language';
import { api, deliveryOf, sendBack } from '../api/client.ts';
import { inWords, untilAnswered } from '../api/untilAnswered.ts';
import type { ApiProblem } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { ChooseFile } from '../shell/ChooseFile.tsx';
import { plural } from '../shell/plural.ts';
import { Parts } from './Parts.tsx';

const SHOWN = ['all', 'changed', 'found', 'unknown'] as const;
type Shown = (typeof SHOWN)[number];
const WORDS: Record<Shown, string> = {
  all: 'Everything',
  changed: 'New and changed',
  found: 'With something to look at',
  unknown: 'Not in the document',
};
const KINDS: Record<Returned['kind'], string> = {
  new: 'new',
  changed: 'changed',
  unchanged: 'as it is here',
  empty: 'empty',
  unknown: 'not in the document',
};
/** Rows that are drawn at once; more on demand. */
const AT_ONCE = 200;

interface Props {
  language: string;
  /** A job whose file is looked at without being chosen. */
  job: string | null;
  /** Another file is looked at than that of the job. */
  onLeft: () => void;
}

/** What a translator sent back: old and new beside each other, what is wrong with it, and what of it is taken. */
export function BringBack({ language, job, onLeft }: Props) {
  const folio = useDocument((s) => s.folio)!;
  const id = useDocument((s) => s.id)!;
  const change = useDocument((s) => s.change);
  const complain = useDocument((s) => s.complain);
  const [reading, setReading] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [found, setFound] = useState<(BackHome & { name: string }) | null>(null);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [shown, setShown] = useState<Shown>('changed');
  const [most, setMost] = useState(AT_ONCE);
  const [said, setSaid] = useState('');
  const codes = useMemo(() => new Map(found ? unitsOf(folio).map((u) => [u.id, u.codes]) : []), [folio, found]);
  const read = async (file: File): Promise<void> => {
    setReading(true);
    setProblem(null);
    setSaid('');
    try {
      const back = await sendBack(id, language, file);
      setFound({ ...back, name: file.name });
      setChosen(new Set((back.segments as Returned[]).filter(isGood).map((s) => s.id)));
      setMost(AT_ONCE);
    } catch (error) {
      setFound(null);
      setProblem(`${(error as ApiProblem).message} ${(error as ApiProblem).advice ?? ''}`);
    }
    setReading(false);
  };
  useEffect(() => {
    if (job !== null)
      void deliveryOf(job)
        .then(read)
        .catch((e: Error) => setProblem(e.message));
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each job
  }, [job]);
  const segments = (found?.segments ?? []) as Returned[];
  const takeable = segments.filter(isTakeable);
  const good = takeable.filter(isGood);
  const take = (list: readonly Returned[]): void => {
    if (!found) return;
    const back = { language, segments, units: new Map(Object.entries(found.units)), passedOver: [] };
    const edition = taken(folio.editions[language], back, new Set(list.map((s) => s.id)), found.name, new Date().toISOString());
    const touched = Object.fromEntries(
      [...new Set(list.map((s) => s.unit))].flatMap((u) => (edition.units[u] ? [[u, edition.units[u]] as const] : [])),
    );
    change([{ kind: 'edition.units', args: { language, units: touched } }], newBurst());
    untilAnswered(() => api.remember(id, language, touched)).catch((e: unknown) => complain(inWords(e)));
    const gone = new Set(list.map((s) => s.id));
    setFound({ ...found, segments: found.segments.filter((s) => !gone.has(s.id)) });
    setSaid(`${plural(list.length, 'segment')} taken; Undo brings back what was.`);
  };
  const rows = segments.filter((s) =>
    shown === 'all'
      ? true
      : shown === 'unknown'
        ? s.kind === 'unknown'
        : shown === 'found'
          ? s.findings.length > 0
          : s.kind === 'new' || s.kind === 'changed',
  );
  const picked = takeable.filter((s) => chosen.has(s.id));
  return (
    <div className="bring-back">
      <ChooseFile
        label="File from the translator"
        accept=".xlf,.xliff,.xlsx,.tmx,.po,.csv,.xml,.docx"
        asks={reading ? 'Reading and setting its texts …' : found ? 'Choose another file' : 'Choose the file that came back'}
        says="Nothing changes before you take it"
        reading={reading}
        onFile={(file) => (onLeft(), void read(file))}
      />
      {problem && (
        <p className="warn" role="alert">
          {problem}
        </p>
      )}
      {found && (
        <>
          <p role="status">
            {found.name}: {plural(takeable.length, 'segment')} new or changed, {good.length} of them with nothing to look at.
            {found.passedOver.length > 0 && ` Passed over: ${found.passedOver.join('; ')}.`} {said}
          </p>
          <div className="newer-end">
            <Button type="primary" disabled={!good.length} onClick={() => take(good)}>
              Take the {good.length} good ones
            </Button>
            <Button disabled={!takeable.length} onClick={() => take(takeable)}>
              Take all {takeable.length}
            </Button>
            {picked.length > 0 && picked.length !== good.length && picked.length !== takeable.length && (
              <Button onClick={() => take(picked)}>Take the {picked.length} chosen</Button>
            )}
            <Select
              aria-label="Shown"
              size="small"
              value={shown}
              onChange={setShown}
              options={SHOWN.map((v) => ({ value: v, label: WORDS[v] }))}
            />
          </div>
          <ul className="returned" aria-label="Segments">
            {rows.slice(0, most).map((s) => (
              <OneSegment
                key={s.id}
                segment={s}
                codes={codes.get(s.unit) ?? []}
                isChosen={chosen.has(s.id)}
                onChoose={(on) => setChosen(new Set(on ? [...chosen, s.id] : [...chosen].filter((c) => c !== s.id)))}
                onTake={() => take([s])}
              />
            ))}
          </ul>
          {rows.length > most && (
            <Button size="small" onClick={() => setMost(most + AT_ONCE)}>
              Show {Math.min(AT_ONCE, rows.length - most)} more
            </Button>
          )}
        </>
      )}
    </div>
  );
}

interface OneProps {
  segment: Returned;
  codes: Parameters<typeof Parts>[0]['codes'] & object;
  isChosen: boolean;
  onChoose: (on: boolean) => void;
  onTake: () => void;
}

function OneSegment({ segment: s, codes, isChosen, onChoose, onTake }: OneProps) {
  const can = isTakeable(s);
  return (
    <li>
      <header>
        <Checkbox checked={isChosen && can} disabled={!can} aria-label={`Choose ${s.id}`} onChange={(e) => onChoose(e.target.checked)} />
        <span className="soft">
          {s.pages.length > 0 ? `page ${s.pages.join(', ')} · ` : ''}
          {s.locked ? 'locked here' : KINDS[s.kind]}
          {s.belongs !== undefined && ' · found by its words'}
        </span>
        {can && (
          <Button size="small" type="text" onClick={onTake}>
            Take
          </Button>
        )}
      </header>
      <p className="source">
        <Parts parts={s.source} codes={codes} />
      </p>
      {s.before && s.kind === 'changed' && (
        <p>
          <del>
            <Parts parts={s.before} codes={codes} />
          </del>
        </p>
      )}
      {s.after && (
        <p className="target">
          <Parts parts={s.after} codes={codes} />
        </p>
      )}
      {s.findings.map((f, i) => (
        <p key={i} className="warn">
          {f.says}
        </p>
      ))}
      {s.comments.map((c, i) => (
        <p key={i} className="soft">
          “{c}”
        </p>
      ))}
    </li>
  );
}
