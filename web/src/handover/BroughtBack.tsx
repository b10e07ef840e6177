import { Fragment, useState } from 'react';
import { Button, Checkbox } from 'antd';
import { useNavigate } from 'react-router';
import { takeCorrections } from '@elastic-folio/core';
import type { Correction, Corrections } from '@elastic-folio/core';
import { sendCorrections } from '../api/client.ts';
import type { ApiProblem } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';
import { ChooseFile } from '../shell/ChooseFile.tsx';
import { plural } from '../shell/plural.ts';

/** What colleagues have changed in a text document or on slides: old and new, to be taken one by one or together. */
export function BroughtBack() {
  const id = useDocument((s) => s.id)!;
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const navigate = useNavigate();
  const [found, setFound] = useState<(Corrections & { name: string }) | null>(null);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [taken, setTaken] = useState(0);
  const [problem, setProblem] = useState<string | null>(null);
  const [reading, setReading] = useState(false);
  const read = async (file: File): Promise<void> => {
    setReading(true);
    setProblem(null);
    setTaken(0);
    try {
      const corrections = await sendCorrections(id, file);
      setFound({ ...corrections, name: file.name });
      // What is another here, too, waits for a person to look at it.
      setChosen(new Set(corrections.corrections.filter((c) => !c.changedHere).map((c) => c.paragraph)));
    } catch (error) {
      setFound(null);
      setProblem(`${(error as ApiProblem).message} ${(error as ApiProblem).advice ?? ''}`);
    }
    setReading(false);
  };
  const take = (list: readonly Correction[]): void => {
    change(takeCorrections(folio, list));
    setTaken(taken + list.length);
    const gone = new Set(list.map((c) => c.paragraph));
    setFound(found && { ...found, corrections: found.corrections.filter((c) => !gone.has(c.paragraph)) });
  };
  const open = found?.corrections ?? [];
  const picked = open.filter((c) => chosen.has(c.paragraph));
  return (
    <div className="newer">
      <h1>What colleagues changed</h1>
      {problem && (
        <p className="warn" role="alert">
          {problem}
        </p>
      )}
      <ChooseFile
        label="Changed office file"
        accept=".docx,.dotx,.odt,.ott,.pptx,.potx,.odp,.otp"
        asks={reading ? 'Reading …' : found ? 'Choose another file' : 'Choose the text document or the slides that came back'}
        says="Its words are compared with those here; nothing changes before you take it, and the layout is not touched"
        reading={reading}
        onFile={(file) => void read(file)}
      />
      {found && (
        <p role="status">
          {found.name}:{' '}
          {[
            open.length > 0 && `${plural(open.length, 'paragraph')} changed`,
            taken > 0 && `${plural(taken, 'correction')} taken (Undo brings back what was)`,
            !open.length && !taken && 'no words are changed',
          ]
            .filter(Boolean)
            .join(', ')}
          .
        </p>
      )}
      {open.length > 0 && (
        <>
          <div className="newer-end">
            <Button type="primary" disabled={!picked.length} onClick={() => take(picked)}>
              {picked.length === open.length
                ? open.length === 1
                  ? 'Take it'
                  : `Take all ${open.length}`
                : `Take the ${picked.length} chosen`}
            </Button>
            <Button onClick={() => void navigate('../handover')}>Leave the document as it is</Button>
          </div>
          <ul className="corrections" aria-label="Corrections">
            {open.map((c) => (
              <OneCorrection
                key={c.paragraph}
                correction={c}
                isChosen={chosen.has(c.paragraph)}
                onChoose={(on) => setChosen(new Set(on ? [...chosen, c.paragraph] : [...chosen].filter((p) => p !== c.paragraph)))}
                onTake={() => take([c])}
              />
            ))}
          </ul>
        </>
      )}
      {found && <Told found={found} />}
    </div>
  );
}

interface OneProps {
  correction: Correction;
  isChosen: boolean;
  onChoose: (on: boolean) => void;
  onTake: () => void;
}

function OneCorrection({ correction: c, isChosen, onChoose, onTake }: OneProps) {
  return (
    <li>
      <Checkbox checked={isChosen} aria-label={`Choose: ${c.after.slice(0, 60)}`} onChange={(e) => onChoose(e.target.checked)} />
      <p className="changed-words">
        {pieces(c).map(({ kept, gone, put }, i) => (
          <Fragment key={i}>
            {kept}
            {gone && <del>{gone}</del>}
            {put && <ins>{put}</ins>}
          </Fragment>
        ))}
      </p>
      <Button size="small" onClick={onTake}>
        Take
      </Button>
      {c.changedHere && (
        <p className="warn">This paragraph was changed here as well since the file was written: look at both before you take it.</p>
      )}
      {c.keepsObjects && (
        <p className="warn">
          A picture, a note or a reference in it is not in the file any more, or says something else there; here it stays as it is.
        </p>
      )}
    </li>
  );
}

/** A paragraph’s words as they were, with what goes and what comes at its places. */
function pieces({ before, changes }: Correction): { kept: string; gone: string; put: string }[] {
  let at = 0;
  const out = changes.map((c) => {
    const piece = { kept: before.slice(at, c.from), gone: before.slice(c.from, c.to), put: c.text };
    at = c.to;
    return piece;
  });
  return [...out, { kept: before.slice(at), gone: '', put: '' }];
}

/** What is told and not taken: paragraphs that are new in the file, and those that are gone from it. */
function Told({ found }: { found: Corrections }) {
  const list = (title: string, texts: readonly string[]) =>
    texts.length > 0 && (
      <details>
        <summary>{title}</summary>
        <ul>
          {texts.map((text, i) => (
            <li key={i}>{text.length > 200 ? `${text.slice(0, 200)}…` : text}</li>
          ))}
        </ul>
      </details>
    );
  return (
    <div className="soft">
      {list(
        `${plural(found.added.length, 'new paragraph')} in the file, to be put in by hand`,
        found.added.map((a) => a.text),
      )}
      {list(
        `${plural(found.gone.length, 'paragraph')} not in the file any more; they stay here`,
        found.gone.map((g) => g.text),
      )}
    </div>
  );
}
