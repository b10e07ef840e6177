import { useEffect, useMemo, useRef, useState } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Button, Input, Select } from 'antd';
import type { TextAreaRef } from 'antd/es/input/TextArea';
import { isLocked, storyOfFrame } from '@elastic-folio/core';
import type { TranslatedUnit } from '@elastic-folio/core';
import {
  afterwards,
  codesIn,
  faultsOf,
  fromReadable,
  mended,
  pseudoTranslation,
  readable,
  signaturesOf,
  wordsOf,
} from '@elastic-folio/core/language';
import { api } from '../api/client.ts';
import { newBurst, useDocument } from '../document/documentStore.ts';
import { Parts } from './Parts.tsx';
import { STATE_WORDS, useStandings } from './progress.ts';
import type { Standings } from './progress.ts';

const SHOWN = ['all', 'open', 'changed', 'found'] as const;
type Shown = (typeof SHOWN)[number];
const WORDS: Record<Shown, string> = { all: 'All texts', open: 'Open', changed: 'Source has changed', found: 'With something to look at' };

interface Props {
  language: string;
  /** Shows where a text stands. */
  onShow: (frame: string | null, page: number | null) => void;
}

/** A translator’s desk: source and target side by side, the page beside them, the target set in its frame as it is kept. */
export function Desk({ language, onShow }: Props) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const id = useDocument((s) => s.id)!;
  const standings = useStandings(folio, language);
  const [shown, setShown] = useState<Shown>('all');
  const [words, setWords] = useState('');
  const [now, setNow] = useState<string | null>(null);
  const locked = isLocked(folio.editions[language]!);
  const languages = { source: folio.head.metadata.language, target: language };
  const rows = useMemo(() => {
    const wanted = words.trim().toLowerCase();
    return standings.filter(({ unit, standing }) => {
      if (wanted && !`${wordsOf(unit.parts)} ${wordsOf(standing?.target ?? [])}`.toLowerCase().includes(wanted)) return false;
      if (shown === 'open') return !standing?.target || standing.open;
      if (shown === 'changed') return standing?.changed === true;
      if (shown === 'found') return !!standing?.target && faultsOf(unit.parts, standing.target, unit.codes, languages).length > 0;
      return true;
    });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- both languages come with the list
  }, [standings, shown, words]);
  const host = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => host.current,
    estimateSize: () => 74,
    overscan: 6,
    getItemKey: (i) => rows[i]!.unit.id,
  });
  const go = (row: Standings | undefined): void => {
    setNow(row?.unit.id ?? null);
    if (!row) return;
    virtual.scrollToIndex(rows.indexOf(row), { align: 'auto' });
    const frame = row.unit.story === undefined ? null : ([...storyOfFrame(folio)].find(([, s]) => s === row.unit.story)?.[0] ?? null);
    onShow(frame, row.unit.pages[0] ?? null);
  };
  const keep = ({ unit, standing }: Standings, text: string, confirm: boolean): void => {
    const target = fromReadable(text);
    if (!target.length) return;
    const former = folio.editions[language]?.units[unit.id];
    const said = { by: 'here', at: new Date().toISOString() };
    const old =
      former?.segments.length === 1
        ? former.segments[0]
        : standing?.target
          ? { source: unit.parts, target: [...standing.target], state: standing.state }
          : undefined;
    const segment = afterwards(
      { source: unit.parts, target: mended(unit.parts, target, unit.codes), state: confirm ? 'translated' : 'initial' },
      old,
      said,
    );
    const made: TranslatedUnit = { segments: [segment], codes: signaturesOf(unit.codes) };
    change([{ kind: 'edition.units', args: { language, units: { [unit.id]: made } } }], newBurst());
    if (confirm) void api.remember(id, language, { [unit.id]: made }).catch(() => undefined);
  };
  const next = (row: Standings): void => {
    const at = rows.indexOf(row);
    go(rows.slice(at + 1).find((r) => !r.standing?.target) ?? rows[at + 1]);
  };
  return (
    <div className="desk">
      <div className="desk-head">
        <Select
          aria-label="Shown"
          size="small"
          value={shown}
          onChange={setShown}
          options={SHOWN.map((v) => ({ value: v, label: WORDS[v] }))}
        />
        <Input.Search
          aria-label="Find"
          size="small"
          allowClear
          placeholder="Find in both languages"
          value={words}
          onChange={(e) => setWords(e.target.value)}
        />
        <span className="soft">{rows.length} texts</span>
      </div>
      {locked && <p className="warn">The edition is locked: unlock it in its settings to change it.</p>}
      <div className="desk-list" ref={host}>
        <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map((v) => {
            const row = rows[v.index]!;
            const isNow = row.unit.id === now && !locked;
            return (
              <div
                key={row.unit.id}
                ref={virtual.measureElement}
                data-index={v.index}
                className={isNow ? 'desk-row now' : 'desk-row'}
                style={{ transform: `translateY(${v.start}px)` }}
              >
                <div className="desk-source" lang={row.unit.language}>
                  <Parts parts={row.unit.parts} codes={row.unit.codes} />
                  <small className="soft">
                    {row.unit.pages.length ? `page ${row.unit.pages.join(', ')} · ` : ''}
                    {row.unit.style ?? row.unit.says}
                  </small>
                </div>
                {isNow ? (
                  <TargetEditor
                    row={row}
                    language={language}
                    onKeep={(text, confirm) => keep(row, text, confirm)}
                    onNext={() => next(row)}
                    onLeave={() => go(undefined)}
                  />
                ) : (
                  <button className="desk-target" lang={language} onClick={() => go(row)} disabled={locked}>
                    {row.standing?.target ? (
                      <Parts parts={row.standing.target} codes={row.unit.codes} />
                    ) : (
                      <span className="soft">not translated yet</span>
                    )}
                    <small className={row.standing?.changed ? 'straw' : 'soft'}>
                      {row.standing?.changed
                        ? STATE_WORDS.stale
                        : row.standing?.target
                          ? STATE_WORDS[row.standing.state]
                          : STATE_WORDS.open}
                    </small>
                  </button>
                )}
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}

interface EditorProps {
  row: Standings;
  language: string;
  onKeep: (text: string, confirm: boolean) => void;
  onNext: () => void;
  onLeave: () => void;
}

/** The target of one text, with what is wrong with it as it stands; codes are put in by key. */
function TargetEditor({ row, language, onKeep, onNext, onLeave }: EditorProps) {
  const { unit, standing } = row;
  const kept = standing?.target ? readable(standing.target) : '';
  const [text, setText] = useState(kept);
  const field = useRef<TextAreaRef>(null);
  useEffect(() => field.current?.focus(), []);
  const target = fromReadable(text);
  const faults = text.trim() ? faultsOf(unit.parts, target, unit.codes, { source: unit.language, target: language }) : [];
  const left = unit.codes.filter((c) => codesIn(unit.parts).includes(c.n) && !codesIn(target).includes(c.n));
  const put = (n: number, paired: boolean): void => {
    const area = field.current?.resizableTextArea?.textArea;
    const [from, to] = [area?.selectionStart ?? text.length, area?.selectionEnd ?? text.length];
    const inside = text.slice(from, to);
    setText(text.slice(0, from) + (paired ? `{${n}}${inside}{/${n}}` : `${inside}{${n}/}`) + text.slice(to));
    field.current?.focus();
  };
  const confirm = (): void => {
    if (!text.trim()) return;
    onKeep(text, true);
    onNext();
  };
  return (
    <div className="desk-editor">
      <Input.TextArea
        ref={field}
        aria-label="Translation"
        lang={language}
        spellCheck
        autoSize={{ minRows: 2, maxRows: 12 }}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => text !== kept && text.trim() && onKeep(text, false)}
        onKeyDown={(e) => {
          if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) {
            e.preventDefault();
            confirm();
          }
          if (e.key === 'Escape') onLeave();
          const n = Number(e.key);
          if (e.altKey && n > 0) {
            const code = unit.codes.find((c) => c.n === n);
            if (code) {
              e.preventDefault();
              put(code.n, code.paired);
            }
          }
        }}
      />
      <div className="desk-actions">
        <Button
          size="small"
          type="primary"
          disabled={!text.trim()}
          title="Ctrl Enter"
          onMouseDown={(e) => e.preventDefault()}
          onClick={confirm}
        >
          Confirm, next
        </Button>
        <Button size="small" onMouseDown={(e) => e.preventDefault()} onClick={() => setText(readable(unit.parts))}>
          Copy the source
        </Button>
        <Button
          size="small"
          title="A text as long as a translation, to try the layout with"
          onMouseDown={(e) => e.preventDefault()}
          onClick={() => setText(readable(pseudoTranslation(unit.parts, language)))}
        >
          Pseudo-translation
        </Button>
        {left.map((c) => (
          <Button
            key={c.n}
            size="small"
            type="dashed"
            title={`Alt ${c.n}: ${c.shows || c.says}`}
            onMouseDown={(e) => e.preventDefault()}
            onClick={() => put(c.n, c.paired)}
          >
            {c.n} {c.shows || c.says}
          </Button>
        ))}
      </div>
      {faults.map((f, i) => (
        <p key={i} className="warn">
          {f.says}
        </p>
      ))}
    </div>
  );
}
