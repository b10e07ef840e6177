import { lazy, Suspense, useDeferredValue, useMemo, useState } from 'react';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Button, InputNumber, Select } from 'antd';
import { Download } from 'lucide-react';
import { without } from '@elastic-folio/core';
import { BANDS } from '@elastic-folio/core/language';
import { api } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { newRecipe } from '../outputs/newRecipe.ts';
import { useMaking } from '../outputs/refresh.ts';
import { SettingsForm } from '../outputs/SettingsForm.tsx';
import { DocumentSet, makeForAnother } from './DocumentSet.tsx';
import { BAND_WORDS, useRates } from './rates.ts';
import { NeverTranslated } from './NeverTranslated.tsx';
import { languageName } from './languageName.ts';

const AnalysisChart = lazy(() => import('./AnalysisChart.tsx'));

/** Files of texts for translators: which format, what goes out, what it comes to, and the file itself. */
export function SendTexts({ language }: { language: string }) {
  const folio = useDocument((s) => s.folio)!;
  const id = useDocument((s) => s.id)!;
  const kept = useDocument((s) => s.kept);
  // Undo, and what others change, comes without a change of this window’s own.
  const outside = useDocument((s) => s.outside);
  const change = useDocument((s) => s.change);
  const kinds = (useQuery({ queryKey: ['kinds'], queryFn: api.outputKinds, staleTime: Infinity }).data ?? []).filter(
    (k) => k.view === 'texts',
  );
  const recipes = Object.values(folio.recipes).filter((r) => kinds.some((k) => k.id === r.output) && r.settings['target'] === language);
  const [asked, ask] = useState<string | null>(null);
  const kind = kinds.find((k) => k.id === (asked ?? recipes[recipes.length - 1]?.output)) ?? kinds.find((k) => k.id === 'xliff-2.1');
  const recipe = recipes.find((r) => r.output === kind?.id);
  const [draft, setDraft] = useState<Record<string, unknown>>(recipe?.settings ?? {});
  const settings = useMemo(() => ({ ...draft, target: language }), [draft, language]);
  const counting = useDeferredValue(settings);
  const [others, setOthers] = useState<string[]>([]);
  const counted = useQuery({
    queryKey: ['counted', id, folio.head.metadata.language, language, counting, others, kept, outside],
    queryFn: () => api.countTexts(id, language, counting, others),
    placeholderData: keepPreviousData,
    enabled: kept,
    // Every change of the document may be one of what there is to translate.
    staleTime: 0,
  });
  const states =
    useQuery({
      queryKey: ['outputs', id],
      queryFn: () => api.outputs(id),
      refetchInterval: (q) => (q.state.data?.some((o) => o.state === 'running' || o.state === 'waiting') ? 500 : false),
    }).data ?? [];
  const state = recipe && states.find((s) => s.recipe === recipe.id);
  const { make } = useMaking(id);
  const [rates, setRates] = useRates();
  const write = async (): Promise<void> => {
    if (!kind) return;
    const edit = recipe
      ? ({ kind: 'recipe.set', args: { ...recipe, settings } } as const)
      : newRecipe(folio, kind, settings, `${kind.label}, ${languageName(language)}`);
    change([edit], newBurst());
    // The run reads the recipe from the server: it has to have arrived.
    while (!useDocument.getState().kept) await new Promise((r) => setTimeout(r, 30));
    await make(edit.args.id);
    for (const other of others)
      await makeForAnother(other, kind, language, settings).catch((e: Error) => useDocument.getState().complain(e.message));
  };
  if (!kind) return <p className="soft">Reading the formats …</p>;
  const going = state?.state === 'running' || state?.state === 'waiting';
  return (
    <div className="send-texts">
      <label>
        <span className="soft">Format</span>
        <Select
          aria-label="Format"
          value={kind.id}
          onChange={(v) => {
            ask(v);
            setDraft(recipes.find((r) => r.output === v)?.settings ?? draft);
          }}
          options={kinds.map((k) => ({ value: k.id, label: k.label }))}
        />
      </label>
      <p className="soft">{kind.about}</p>
      {counted.data && (
        <Suspense fallback={<p className="soft">Counting …</p>}>
          <AnalysisChart counted={counted.data} rates={rates} />
        </Suspense>
      )}
      {counted.error && (
        <p className="warn" role="alert">
          {counted.error.message}
        </p>
      )}
      <div className="rates">
        <label>
          <span className="soft">A new word ({rates.currency})</span>
          <InputNumber
            size="small"
            min={0}
            max={100}
            step={0.01}
            value={rates.perWord}
            onChange={(v) => v !== null && setRates({ ...rates, perWord: v })}
          />
        </label>
        <label>
          <span className="soft">Words a day</span>
          <InputNumber
            size="small"
            min={1}
            max={100000}
            step={100}
            value={rates.wordsADay}
            onChange={(v) => v !== null && setRates({ ...rates, wordsADay: v })}
          />
        </label>
      </div>
      <details className="shares">
        <summary>What counts of a word, by how much is known</summary>
        {BANDS.map((band) => (
          <label key={band}>
            <span className="soft">{BAND_WORDS[band]}</span>
            <InputNumber
              size="small"
              aria-label={`Share of a word, ${BAND_WORDS[band]}`}
              min={0}
              max={100}
              suffix="%"
              value={Math.round((rates.shares[band] ?? 1) * 100)}
              onChange={(v) => v !== null && setRates({ ...rates, shares: { ...rates.shares, [band]: v / 100 } })}
            />
          </label>
        ))}
      </details>
      <DocumentSet language={language} kind={kind} chosen={others} onChange={setOthers} />
      <div className="send-actions">
        <Button type="primary" loading={going} onClick={() => void write()}>
          {others.length ? 'Make the files' : state?.state === 'stale' ? 'Make the file anew' : 'Make the file'}
        </Button>
        {state?.lastDone && !going && (
          <Button icon={<Download size={14} />} href={`/api/runs/${state.lastDone.id}/result.zip`}>
            Download{state.state === 'stale' ? ' (stale)' : ''}
          </Button>
        )}
      </div>
      {state?.run?.state === 'failed' && (
        <p className="warn" role="alert">
          {state.run.message} {state.run.advice}
        </p>
      )}
      <details>
        <summary>What goes out, and what goes along</summary>
        <NeverTranslated />
        <SettingsForm kind={withoutTarget(kind)} values={settings} onChange={setDraft} />
      </details>
    </div>
  );
}

/** The language is that of the edition: it is not asked for again. */
function withoutTarget<K extends { settings: Record<string, unknown> }>(kind: K): K {
  const properties = without((kind.settings as { properties: Record<string, unknown> }).properties, 'target');
  return { ...kind, settings: { ...kind.settings, properties } };
}
