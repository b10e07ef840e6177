import { lazy, Suspense, useMemo, useRef, useState } from 'react';
import { useQueries, useQuery } from '@tanstack/react-query';
import { Button, Dropdown, Progress, Segmented, Tooltip } from 'antd';
import { Download, Play, SlidersHorizontal, Square, Trash2 } from 'lucide-react';
import dayjs from 'dayjs';
import type { Recipe } from '@elastic-folio/core';
import type { OutputKind, OutputState } from '@elastic-folio/core/api';
import { api, fileUrl, zipUrl } from '../api/client.ts';
import { inWords } from '../api/untilAnswered.ts';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { useAddress } from '../shell/address.ts';
import { OUTCOME_WORDS, OutcomeMark } from '../shell/marks.tsx';
import { LiveView } from './LiveView.tsx';
import { LedgerList } from './LedgerList.tsx';
import { newRecipe } from './newRecipe.ts';
import { useMaking } from './refresh.ts';
import { RecipeSheet } from './RecipeSheet.tsx';
import { columnsOf, entriesOn, worstOf } from './score.ts';
import type { LedgerFile } from './score.ts';

/** Charts are fetched where one is looked at. */
const WeightChart = lazy(() => import('./WeightChart.tsx'));

/** Outputs as rows, pages as columns: one look shows where which output adapted or dropped something. */
export function Outputs() {
  const folio = useDocument((s) => s.folio)!;
  const id = useDocument((s) => s.id)!;
  const kept = useDocument((s) => s.kept);
  const change = useDocument((s) => s.change);
  const [search, address] = useAddress();
  const [settings, setSettings] = useState<string | null>(null);
  /** The recipe whose plan is wanted. */
  const [planned, setPlanned] = useState<string | null>(null);
  const kinds = useQuery({ queryKey: ['kinds'], queryFn: api.outputKinds, staleTime: Infinity }).data ?? [];
  const states =
    useQuery({
      queryKey: ['outputs', id],
      queryFn: () => api.outputs(id),
      refetchInterval: (q) => (q.state.data?.some((o) => o.state === 'running' || o.state === 'waiting') ? 700 : false),
    }).data ?? [];
  const done = states.flatMap((o) => (o.lastDone ? [o.lastDone.id] : []));
  const ledgers = useQueries({
    queries: done.map((run) => ({ queryKey: ['ledger', run], queryFn: () => api.ledger(run), staleTime: Infinity })),
  });
  const ledgerOf = (o: OutputState): LedgerFile | undefined => (o.lastDone ? ledgers[done.indexOf(o.lastDone.id)]?.data : undefined);
  const columns = useMemo(() => columnsOf(folio), [folio]);
  const recipes = Object.values(folio.recipes);
  const rows = recipes.map(
    (r) =>
      states.find((s) => s.recipe === r.id) ?? {
        recipe: r.id,
        name: r.name,
        output: r.output,
        state: 'never' as const,
        run: null,
        lastDone: null,
      },
  );
  const stale = rows.filter((o) => o.state === 'stale');
  const chosen = rows.find((o) => o.recipe === search.get('output')) ?? rows[0];
  const page = search.get('page');

  const { make: start, refresh } = useMaking(id);
  const choose = (output: string, column: string | null): void => address({ output, page: column });
  const keptRecipes = useQuery({ queryKey: ['keptRecipes'], queryFn: api.keptRecipes }).data ?? [];
  const add = (kind: OutputKind, from?: Omit<Recipe, 'id'>): void => {
    const edit = newRecipe(folio, kind, from?.settings, from?.name);
    change([edit], newBurst());
    choose(edit.args.id, null);
    setSettings(edit.args.id);
  };
  const file = useRef<HTMLInputElement>(null);
  const complain = useDocument((s) => s.complain);
  /** A recipe that comes as a file becomes an output of its own. */
  const addFrom = async (given: File): Promise<void> => {
    try {
      const recipe = await api.readRecipe({ called: given.name, text: await given.text() });
      const kind = kinds.find((k) => k.id === recipe.output);
      if (kind) add(kind, recipe);
    } catch (error) {
      complain(inWords(error));
    }
  };
  const weighs = chosen?.output === 'html' && search.get('below') === 'weight';
  const column = columns.find((c) => c.label === page);
  const ledger = chosen && ledgerOf(chosen);
  const sheet = settings !== null && folio.recipes[settings] ? folio.recipes[settings] : null;
  // Before the first run the plan stands where the ledger will; a change of the recipe asks for it again, and so does coming back here.
  const isUnmade = chosen?.state === 'never' && !sheet;
  const plan = useQuery({
    queryKey: ['plan', id, chosen?.recipe, chosen && folio.recipes[chosen.recipe]],
    queryFn: () => api.plan(id, chosen!.recipe),
    enabled: isUnmade && kept && planned === chosen.recipe,
  });
  return (
    <div className={sheet ? 'outputs with-settings' : 'outputs'}>
      <div className="score">
        <div className="score-head">
          <h1>Score</h1>
          <span className="legend">
            {(['kept', 'adapted', 'dropped', 'excluded', 'none'] as const).map((o) => (
              <span key={o}>
                <OutcomeMark outcome={o} label={false} /> {OUTCOME_WORDS[o]}
              </span>
            ))}
          </span>
          <span className="score-actions">
            <Dropdown
              trigger={['click']}
              menu={{
                // All kinds can be reached on a low screen, too.
                style: { maxHeight: 'calc(100vh - 120px)', overflowY: 'auto' },
                items: [
                  // Texts for translators are made in Languages.
                  ...kinds
                    .filter((k) => k.view !== 'texts')
                    .map((k) => ({
                      key: k.id,
                      label: (
                        <div className="kind">
                          <b>{k.label}</b>
                          <span>{k.about}</span>
                        </div>
                      ),
                      onClick: () => add(k),
                    })),
                  ...keptRecipes.flatMap((r) => {
                    const kind = kinds.find((k) => k.id === r.output);
                    return kind
                      ? [
                          {
                            key: r.id,
                            label: (
                              <div className="kind">
                                <b>{r.name}</b>
                                <span>A kept recipe: {kind.label}.</span>
                              </div>
                            ),
                            onClick: () => add(kind, r),
                          },
                        ]
                      : [];
                  }),
                  {
                    key: 'file',
                    label: (
                      <div className="kind">
                        <b>From a recipe’s file …</b>
                        <span>Settings that somebody handed on.</span>
                      </div>
                    ),
                    onClick: () => file.current?.click(),
                  },
                ],
              }}
            >
              <Button>Add an output…</Button>
            </Dropdown>
            <input
              ref={file}
              type="file"
              accept=".json,application/json"
              hidden
              aria-label="A recipe’s file"
              onChange={(e) => {
                const given = e.target.files?.[0];
                e.target.value = '';
                if (given) void addFrom(given);
              }}
            />
            {stale.length > 0 && (
              <Button type="primary" onClick={() => void refresh()}>
                Refresh {stale.length} stale <kbd>R</kbd>
              </Button>
            )}
          </span>
        </div>
        {rows.length === 0 ? (
          <p className="empty">No outputs yet. Add the web edition or the PDF: its settings are kept with the document.</p>
        ) : (
          <div className="score-scroll">
            <table>
              <thead>
                <tr>
                  <th scope="col">Output</th>
                  {columns.map((c) => (
                    <th key={c.label} scope="col" className="page-column">
                      <i aria-hidden />
                      <span className="sr">Page </span>
                      {c.label}
                    </th>
                  ))}
                  <th scope="col">
                    <span className="sr">Sum</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {rows.map((o) => {
                  const file = ledgerOf(o);
                  return (
                    <tr key={o.recipe} className={o === chosen ? 'chosen-row' : undefined} data-output={o.output}>
                      <th scope="row">
                        <button className="output-name" onClick={() => choose(o.recipe, null)}>
                          {folio.recipes[o.recipe]?.name ?? o.name}
                        </button>
                        <StateLine output={o} />
                        <RowActions
                          output={o}
                          disabled={!kept}
                          onRun={() => void start(o.recipe)}
                          onSettings={() => setSettings(settings === o.recipe ? null : o.recipe)}
                          onRemove={() => change([{ kind: 'recipe.remove', args: { recipe: o.recipe } }])}
                        />
                      </th>
                      {columns.map((c) => {
                        const outcome = file ? worstOf(entriesOn(file, c.pages)) : 'none';
                        const here = o === chosen && c.label === page;
                        return (
                          <td key={c.label} className={here ? 'here' : undefined}>
                            <button
                              aria-pressed={here}
                              aria-label={`${o.name}, page ${c.label}: ${OUTCOME_WORDS[outcome]}`}
                              onClick={() => choose(o.recipe, here ? null : c.label)}
                            >
                              <OutcomeMark outcome={outcome} label={false} />
                            </button>
                          </td>
                        );
                      })}
                      <td className="sum">{o.lastDone?.counts && <Sum run={o.lastDone} />}</td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          </div>
        )}
        {chosen?.run?.state === 'failed' && (
          <p className="warn ledger-note">
            {chosen.run.message} {chosen.run.advice}
          </p>
        )}
        {sheet?.output === 'html' && <LiveView settings={sheet.settings} />}
        {!sheet && chosen?.output === 'html' && chosen.lastDone && (
          <Segmented
            className="below-choice"
            value={weighs ? 'weight' : 'ledger'}
            onChange={(v) => address({ below: v === 'weight' ? v : null })}
            options={[
              { value: 'ledger', label: 'What became of it' },
              { value: 'weight', label: 'Where the kilobytes go' },
            ]}
          />
        )}
        {!sheet && weighs && chosen?.lastDone && (
          <Suspense fallback={null}>
            <WeightChart run={chosen.lastDone.id} />
          </Suspense>
        )}
        {!sheet && !weighs && chosen && ledger && (
          <LedgerList
            folio={folio}
            ledger={ledger}
            title={`${column ? `Page ${column.label} → ` : ''}${folio.recipes[chosen.recipe]?.name ?? ''}`}
            pages={column?.pages ?? null}
            sentences={kinds.find((k) => k.id === chosen.output)?.sentences ?? {}}
          />
        )}
        {isUnmade && plan.data && (
          <LedgerList
            folio={folio}
            ledger={plan.data}
            title={`${column ? `Page ${column.label} → ` : ''}What ${folio.recipes[chosen.recipe]?.name ?? 'it'} will keep`}
            pages={column?.pages ?? null}
            sentences={kinds.find((k) => k.id === chosen.output)?.sentences ?? {}}
          />
        )}
        {isUnmade && !plan.data && (
          <p className="soft ledger-note">
            {plan.error ? inWords(plan.error) : 'Not run yet.'}{' '}
            <Button size="small" loading={plan.isFetching} disabled={!kept} onClick={() => setPlanned(chosen.recipe)}>
              Show what it will keep
            </Button>
          </p>
        )}
      </div>
      {sheet && (
        <RecipeSheet
          key={sheet.id}
          recipe={sheet}
          kind={kinds.find((k) => k.id === sheet.output)}
          made={rows.find((o) => o.recipe === sheet.id)?.lastDone?.files ?? null}
          onClose={() => setSettings(null)}
        />
      )}
    </div>
  );
}

function Sum({ run }: { run: NonNullable<OutputState['lastDone']> }) {
  const c = run.counts!;
  return (
    <>
      <div>
        {c.kept} kept{c.excluded > 0 && `, ${c.excluded} left out`}
      </div>
      <div>{[c.adapted && `${c.adapted} adapted`, c.dropped && `${c.dropped} dropped`].filter(Boolean).join(', ')}</div>
      {run.valid === false && <div className="clay">reading back contradicts {c.contradicted}</div>}
    </>
  );
}

function StateLine({ output }: { output: OutputState }) {
  const { run, state, lastDone } = output;
  if (state === 'running' || state === 'waiting')
    return (
      <div className="going" role="status">
        <span>{state === 'waiting' ? 'waiting' : run!.pagesTotal ? `page ${run!.pagesDone} of ${run!.pagesTotal}` : 'beginning'}</span>
        <Progress
          percent={run?.pagesTotal ? (100 * run.pagesDone) / run.pagesTotal : 0}
          showInfo={false}
          size="small"
          strokeColor="var(--fir)"
          railColor="var(--rule)"
        />
      </div>
    );
  const cancelled = run?.state === 'cancelled' ? ' · last run cancelled' : run?.state === 'failed' ? ' · last run failed' : '';
  const words: Record<string, string> = {
    never: 'not run',
    fresh: 'fresh',
    stale: `stale · made ${dayjs(lastDone?.finishedAt).format('D MMM, H:mm')}`,
    failed: 'failed',
    cancelled: 'cancelled',
  };
  return (
    <div className={state === 'stale' ? 'state straw' : state === 'failed' ? 'state clay' : 'state'}>
      {words[state]}
      {lastDone ? cancelled : ''}
    </div>
  );
}

function RowActions({
  output,
  disabled,
  onRun,
  onSettings,
  onRemove,
}: {
  output: OutputState;
  disabled: boolean;
  onRun: () => void;
  onSettings: () => void;
  onRemove: () => void;
}) {
  const going = output.state === 'running' || output.state === 'waiting';
  const files = output.lastDone?.files;
  return (
    <div className="row-actions">
      {going ? (
        <Tooltip title="Cancel">
          <Button
            size="small"
            type="text"
            icon={<Square size={13} />}
            aria-label="Cancel"
            onClick={() => void api.cancel(output.run!.id)}
          />
        </Tooltip>
      ) : (
        <Tooltip title="Run">
          <Button size="small" type="text" icon={<Play size={14} />} aria-label="Run" disabled={disabled} onClick={onRun} />
        </Tooltip>
      )}
      <Tooltip title="Settings">
        <Button size="small" type="text" icon={<SlidersHorizontal size={14} />} aria-label="Settings" onClick={onSettings} />
      </Tooltip>
      {files && (
        <Tooltip title="Download">
          <Button
            size="small"
            type="text"
            icon={<Download size={14} />}
            aria-label="Download"
            href={files.length === 1 ? fileUrl(output.lastDone!.id, files[0]!.path, true) : zipUrl(output.lastDone!.id)}
          />
        </Tooltip>
      )}
      {!going && (
        <Tooltip title="Remove this output (can be undone)">
          <Button size="small" type="text" icon={<Trash2 size={13} />} aria-label="Remove" onClick={onRemove} />
        </Tooltip>
      )}
    </div>
  );
}
