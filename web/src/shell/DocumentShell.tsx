import { useEffect, useMemo, useState } from 'react';
import { App, Button, Popover } from 'antd';
import { Link, NavLink, Outlet, useParams } from 'react-router';
import { pagesOf } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { useMaking } from '../outputs/refresh.ts';
import { usePoints } from '../stages/points.ts';
import { useKeys } from './keys.ts';
import { UndoButtons } from './UndoButtons.tsx';
import { Mark } from './Mark.tsx';
import { NoticeBell } from './NoticeBell.tsx';
import { RunsNow } from './RunsNow.tsx';
import { SetAsideList } from './SetAsideList.tsx';

const STOPS = [
  { path: 'intake', name: 'Intake' },
  { path: 'structure', name: 'Structure' },
  { path: 'motion', name: 'Motion' },
  { path: 'outputs', name: 'Outputs' },
  { path: 'compare', name: 'Compare' },
  { path: 'languages', name: 'Languages' },
  { path: 'handover', name: 'Handover' },
] as const;

const KEYS: [string, string][] = [
  ['Page Up / Page Down', 'previous or next spread'],
  ['+ and −, Ctrl + wheel', 'larger, smaller'],
  ['0', 'fit the spread'],
  ['Escape', 'leave the text; then select nothing'],
  ['Ctrl Z, Ctrl Y', 'undo, redo'],
  ['Alt ↑, Alt ↓', 'read the chosen item earlier, later (in Structure)'],
  ['Ctrl Enter, or R outside of text', 'update outputs that are out of date'],
  ['?', 'this list'],
];

const pages = (n: number): string => (n === 1 ? '1 page' : `${n} pages`);

/** A document: its name, the line of stages, and the stage one is at. */
export function DocumentShell() {
  const { id = '' } = useParams();
  const loading = useDocument((s) => s.loading);
  const problem = useDocument((s) => s.problem);
  const notice = useDocument((s) => s.notice);
  const title = useDocument((s) => s.folio?.head.metadata.title ?? '');
  const { open, undoStep, redoStep, dismiss } = useDocument.getState();
  const [help, setHelp] = useState(false);
  const { message } = App.useApp();
  const { refresh } = useMaking(id);
  useEffect(() => void open(id), [id, open]);
  useEffect(() => {
    if (!notice) return;
    void message.warning({ content: notice, duration: 8, onClose: dismiss });
  }, [notice, message, dismiss]);
  useEffect(() => () => useDocument.getState().close(), []);
  useKeys(
    useMemo(
      () => ({
        'mod+z': () => void undoStep(),
        'mod+y': () => void redoStep(),
        'mod+shift+z': () => void redoStep(),
        r: () => void refresh(),
        'mod+Enter': { inText: true as const, run: () => void refresh() },
        '?': () => setHelp((h) => !h),
      }),
      [undoStep, redoStep, refresh],
    ),
  );
  useEffect(() => {
    document.title = title ? `${title} – Elastic Folio` : 'Elastic Folio';
  }, [title]);

  if (loading === 'failed') {
    return (
      <main className="centred">
        <h1>{problem?.message}</h1>
        <p>{problem?.advice}</p>
        <Link to="/">To the shelf</Link>
      </main>
    );
  }
  return (
    <div className="document">
      <header className="top">
        <Link to="/" aria-label="To the shelf" className="home">
          <Mark />
        </Link>
        <DocumentName />
        <div className="top-right">
          <RunsNow />
          <NoticeBell />
          <UndoButtons />
          <Popover
            open={help}
            onOpenChange={setHelp}
            trigger="click"
            placement="bottomRight"
            content={
              <dl className="key-list">
                {KEYS.map(([k, d]) => (
                  <div key={k}>
                    <dt>{k}</dt>
                    <dd>{d}</dd>
                  </div>
                ))}
              </dl>
            }
          >
            <Button type="text" aria-label="Keys">
              ?
            </Button>
          </Popover>
        </div>
      </header>
      <Line />
      <SetAsideList />
      <main className="stage">
        {loading === 'first' || loading === 'all' ? (
          <Outlet />
        ) : (
          <p className="opening" role="status">
            Opening …
          </p>
        )}
      </main>
    </div>
  );
}

/** What the document is called, how long it is, and whether all of it is kept. */
function DocumentName() {
  const title = useDocument((s) => s.folio?.head.metadata.title ?? '');
  const language = useDocument((s) => s.folio?.head.metadata.language);
  const count = useDocument((s) => (s.folio && s.loading === 'all' ? pagesOf(s.folio).length : null));
  const kept = useDocument((s) => s.kept);
  return (
    <div className="doc-name">
      {title}
      <small>
        {language === undefined
          ? 'opening …'
          : `${count === null ? '… pages' : pages(count)} · ${new Intl.DisplayNames('en', { type: 'language' }).of(language)} · ${kept ? 'every change kept' : 'keeping …'}`}
      </small>
    </div>
  );
}

/** The line: stages as stops, with the number of open points at each. */
function Line() {
  const points = usePoints();
  return (
    <nav className="line" aria-label="Stages">
      {STOPS.map((stop) => (
        <NavLink key={stop.path} to={stop.path} className={({ isActive }) => (isActive ? 'stop now' : 'stop')}>
          {stop.name}
          {stop.path === 'intake' && points.length > 0 && <b aria-label={`${points.length} open points`}>{points.length}</b>}
        </NavLink>
      ))}
    </nav>
  );
}
