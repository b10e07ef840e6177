import { useState } from 'react';
import { Button, Select } from 'antd';
import { pagesOf } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import type { OutputKind } from '@elastic-folio/core/api';
import { inWords } from './inWords.ts';
import type { DescribedSetting } from './inWords.ts';

interface Props {
  kind: OutputKind;
  values: Record<string, unknown>;
  onApply: (values: Record<string, unknown>) => void;
}

/** A recipe from what the output is for: a few answers, what they come to, and why; each setting can be changed afterwards. */
export function StartFrom({ kind, values, onApply }: Props) {
  const { start } = kind;
  const [answers, setAnswers] = useState<Record<string, string>>({});
  const pages = useDocument((s) => (s.folio ? pagesOf(s.folio).length : 0));
  if (!start) return null;
  const properties = (kind.settings as { properties: Record<string, DescribedSetting> }).properties;
  // What the document itself answers is not asked.
  const known = (q: (typeof start.questions)[number]): string | undefined =>
    q.answers.find((a) => a.pages && (a.pages.least ?? 0) <= pages && pages <= (a.pages.most ?? Infinity))?.id;
  const given = start.questions.map((q) => answers[q.id] ?? known(q));
  const settled = given.every((a) => a !== undefined) ? start.settled[given.join(' ')] : undefined;
  return (
    <details className="start-from" open={!Object.keys(values).length || Object.keys(answers).length > 0}>
      <summary>Start from what it is for</summary>
      {start.questions
        .filter((q) => known(q) === undefined)
        .map((q) => (
          <label key={q.id}>
            {q.ask}
            <Select
              aria-label={q.ask}
              placeholder="Choose"
              value={answers[q.id] ?? null}
              onChange={(a) => setAnswers({ ...answers, [q.id]: a })}
              options={q.answers.map((a) => ({ value: a.id, label: a.label }))}
            />
          </label>
        ))}
      {settled && (
        <>
          <dl>
            {settled.map((s) => (
              <div key={s.setting}>
                <dt>
                  {properties[s.setting]?.title ?? s.setting}: <b>{inWords(properties[s.setting] ?? {}, s.value)}</b>
                </dt>
                <dd className="soft">{s.why}</dd>
              </div>
            ))}
          </dl>
          <Button
            type="primary"
            size="small"
            onClick={() => onApply({ ...values, ...Object.fromEntries(settled.map((s) => [s.setting, s.value])) })}
          >
            Set it so
          </Button>
        </>
      )}
    </details>
  );
}
