import { useMemo, useRef, useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Button, Input, Select, Tooltip } from 'antd';
import { Combine, MessageSquare, Replace, Scissors, SplitSquareVertical } from 'lucide-react';
import { isLocked, storyOfFrame } from '@elastic-folio/core';
import type { TranslatedSegment, TranslatedUnit } from '@elastic-folio/core';
import {
  afterwards,
  deskRows,
  faultsOf,
  fromReadable,
  holds,
  joinedWithNext,
  mended,
  partedAt,
  partedIntoSentences,
  placesToPart,
  unitWith,
} from '@elastic-folio/core/language';
import type { DeskRow } from '@elastic-folio/core/language';
import { api } from '../api/client.ts';
import { inWords, untilAnswered } from '../api/untilAnswered.ts';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { plural } from '../shell/plural.ts';
import { PartAtWord } from './PartAtWord.tsx';
import { Parts } from './Parts.tsx';
import { STATE_WORDS } from './progress.ts';
import { ReplaceWords } from './ReplaceWords.tsx';
import { SegmentNotes } from './SegmentNotes.tsx';
import { TargetEditor } from './TargetEditor.tsx';

const SHOWN = ['all', 'open', 'begun', 'changed', 'found', 'said'] as const;
type Shown = (typeof SHOWN)[number];
const WORDS: Record<Shown, string> = {
  all: 'All texts',
  open: 'Open',
  begun: 'To be confirmed',
  changed: 'Source has changed',
  found: 'With something to look at',
  said: 'With comments',
};

/** Someone who was asked to translate, and what they may. */
interface AtTheDesk {
  name: string;
  units: ReadonlySet<string>;
  seesMemory: boolean;
  reviews: boolean;
  /** Whether the job can be worked on. */
  writes: boolean;
}

interface Props {
  language: string;
  guest?: AtTheDesk;
  /** The text that one comes for, by the name of its unit. */
  text?: string | null;
  /** Shows where a text stands. */
  onShow: (frame: string | null, page: number | null, text: string | null) => void;
}

const keyOf = (row: DeskRow): string => `${row.unit.id}/${row.at}`;

/** A translator’s desk: source and target side by side, the page beside them, the target set in its frame as it is kept. */
export function Desk({ language, guest, text = null, onShow }: Props) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const complain = useDocument((s) => s.complain);
  const id = useDocument((s) => s.id)!;
  const source = folio.head.metadata.language;
  const only = guest?.units;
  const all = useMemo(
    () => deskRows(folio, language, only),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- spreads and recipes have no texts of their own here
    [folio.stories, folio.head, folio.editions, language, only],
  );
  const terms = useQuery({ queryKey: ['terms', source, language], queryFn: () => api.terms(source, language) }).data ?? [];
  const [shown, setShown] = useState<Shown>('all');
  const [words, setWords] = useState('');
  const [now, setNow] = useState<string | null>(text === null ? null : `${text}/0`);
  const [replacing, setReplacing] = useState(false);
  /** The segment of which a word is chosen to part it at. */
  const [parting, setParting] = useState<string | null>(null);
  const [said, setSaid] = useState('');
  const by = guest?.name ?? 'here';
  const edition = folio.editions[language];
  const locked = (edition && isLocked(edition)) || guest?.writes === false;
  const rows = useMemo(() => {
    const wanted = words.trim().toLowerCase();
    return all.filter((row) => {
      const { segment, unit, changed, codes } = row;
      if (wanted && !holds(row, wanted)) return false;
      if (shown === 'open') return !segment.target;
      if (shown === 'begun') return !!segment.target && segment.state === 'initial';
      if (shown === 'changed') return changed;
      if (shown === 'said') return !!segment.comments?.length;
      if (shown !== 'found' || !segment.target) return shown !== 'found';
      return faultsOf(segment.source, segment.target, [...codes], { source: unit.language, target: language }).length > 0;
    });
  }, [all, shown, words, language]);
  const host = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => host.current,
    estimateSize: () => 74,
    overscan: 6,
    getItemKey: (i) => keyOf(rows[i]!),
  });
  const go = (row: DeskRow | undefined): void => {
    setNow(row ? keyOf(row) : null);
    if (!row) return onShow(null, null, null);
    virtual.scrollToIndex(rows.indexOf(row), { align: 'auto' });
    const frame = row.unit.story === undefined ? null : ([...storyOfFrame(folio)].find(([, s]) => s === row.unit.story)?.[0] ?? null);
    onShow(frame, row.unit.pages[0] ?? null, row.unit.id);
  };
  const ofUnit = (row: DeskRow): DeskRow[] => all.filter((r) => r.unit.id === row.unit.id);
  const write = (units: Record<string, TranslatedUnit>): void => change([{ kind: 'edition.units', args: { language, units } }], newBurst());
  const put = (row: DeskRow, segment: TranslatedSegment): TranslatedUnit => {
    const made = unitWith(ofUnit(row), row.at, segment);
    write({ [row.unit.id]: made });
    return made;
  };
  const keep = (row: DeskRow, text: string, confirm: boolean): void => {
    const target = mended(row.segment.source, fromReadable(text), [...row.codes]);
    if (!target.length) return;
    const { source: from, glue } = row.segment;
    const state = confirm ? (guest?.reviews && row.segment.state === 'translated' ? 'reviewed' : 'translated') : 'initial';
    const made = put(
      row,
      afterwards({ source: from, ...(glue && { glue }), target, state }, row.segment, { by, at: new Date().toISOString() }),
    );
    if (confirm) untilAnswered(() => api.remember(id, language, { [row.unit.id]: made })).catch((e: unknown) => complain(inWords(e)));
  };
  const next = (row: DeskRow): void => {
    const at = rows.indexOf(row);
    go(rows.slice(at + 1).find((r) => !r.segment.target) ?? rows[at + 1]);
  };
  const reshape = (row: DeskRow, made: TranslatedUnit | null): void => {
    if (!made) return;
    write({ [row.unit.id]: made });
    setNow(null);
  };
  const fromMemory = async (): Promise<void> => {
    const { units } = await api.known(id, language);
    const count = Object.keys(units).length;
    if (count) write(units);
    setSaid(count ? `${plural(count, 'text')} from the memory; Undo takes them back.` : 'The memory has no open text word by word.');
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
        <Tooltip title="Replace words in translations">
          <Button
            size="small"
            type={replacing ? 'primary' : 'default'}
            icon={<Replace size={14} />}
            aria-label="Replace words"
            aria-pressed={replacing}
            disabled={locked}
            onClick={() => setReplacing(!replacing)}
          />
        </Tooltip>
        {!guest && (
          <Button size="small" disabled={locked} title="Texts that were translated before, word by word" onClick={() => void fromMemory()}>
            From memory
          </Button>
        )}
        <span className="soft">{plural(rows.length, 'text')}</span>
      </div>
      {replacing && !locked && (
        <ReplaceWords
          rows={rows}
          onReplace={(changed) => {
            const at = new Date().toISOString();
            const units: Record<string, TranslatedUnit> = {};
            for (const { row, target } of changed) {
              const segments = (units[row.unit.id] ?? unitWith(ofUnit(row), row.at, row.segment)).segments;
              const made = afterwards({ ...row.segment, target }, row.segment, { by, at });
              units[row.unit.id] = {
                ...(units[row.unit.id] ?? unitWith(ofUnit(row), row.at, row.segment)),
                segments: segments.map((s, i) => (i === row.at ? made : s)),
              };
            }
            write(units);
            setSaid(`Replaced in ${plural(changed.length, 'text')}; Undo brings back what was.`);
          }}
        />
      )}
      {said && (
        <p className="soft" role="status">
          {said}
        </p>
      )}
      {locked && !guest && <p className="warn">The edition is locked: unlock it in its settings to change it.</p>}
      <div className="desk-list" ref={host}>
        <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map((v) => {
            const row = rows[v.index]!;
            const { unit, segment, codes } = row;
            const isNow = keyOf(row) === now && !locked;
            const comments = segment.comments?.length ?? 0;
            return (
              <div
                key={keyOf(row)}
                ref={virtual.measureElement}
                data-index={v.index}
                className={isNow ? 'desk-row now' : 'desk-row'}
                style={{ transform: `translateY(${v.start}px)` }}
              >
                <div className="desk-source" lang={unit.language}>
                  <Parts parts={segment.source} codes={codes} terms={terms} />
                  <small className="soft">
                    {unit.pages.length ? `page ${unit.pages.join(', ')} · ` : ''}
                    {unit.style ?? unit.says}
                    {row.of > 1 && ` · ${row.at + 1} of ${row.of}`}
                  </small>
                  {isNow && (
                    <div className="desk-shape">
                      <Button
                        size="small"
                        type="text"
                        icon={<SplitSquareVertical size={14} />}
                        onClick={() => reshape(row, partedIntoSentences(ofUnit(row), row.at, { source: unit.language, target: language }))}
                        disabled={!partedIntoSentences(ofUnit(row), row.at, { source: unit.language, target: language })}
                      >
                        Part into sentences
                      </Button>
                      <Button
                        size="small"
                        type="text"
                        icon={<Scissors size={14} />}
                        aria-pressed={parting === keyOf(row)}
                        onClick={() => setParting(parting === keyOf(row) ? null : keyOf(row))}
                        disabled={!placesToPart(segment.source, unit.language).length}
                      >
                        Part before a word
                      </Button>
                      {row.of > 1 && (
                        <Button
                          size="small"
                          type="text"
                          icon={<Combine size={14} />}
                          onClick={() => reshape(row, joinedWithNext(ofUnit(row), row.at))}
                          disabled={!joinedWithNext(ofUnit(row), row.at)}
                        >
                          Join with the next
                        </Button>
                      )}
                    </div>
                  )}
                  {isNow && parting === keyOf(row) && (
                    <PartAtWord
                      row={row}
                      onPart={(place) => {
                        reshape(row, partedAt(ofUnit(row), row.at, place));
                        setParting(null);
                      }}
                      onLeave={() => setParting(null)}
                    />
                  )}
                </div>
                {isNow ? (
                  <div>
                    <TargetEditor
                      row={row}
                      language={language}
                      terms={terms}
                      seesMemory={guest?.seesMemory !== false}
                      onKeep={(text, confirm) => keep(row, text, confirm)}
                      onNext={() => next(row)}
                      onLeave={() => go(undefined)}
                    />
                    <SegmentNotes
                      row={row}
                      by={by}
                      onComment={(comment) => put(row, { ...segment, comments: [...(segment.comments ?? []), comment] })}
                    />
                  </div>
                ) : (
                  <button className="desk-target" lang={language} onClick={() => go(row)} disabled={locked}>
                    {segment.target ? <Parts parts={segment.target} codes={codes} /> : <span className="soft">not translated yet</span>}
                    <small className={row.changed ? 'straw' : 'soft'}>
                      {row.changed ? STATE_WORDS.stale : segment.target ? STATE_WORDS[segment.state] : STATE_WORDS.open}
                      {comments > 0 && (
                        <span title={plural(comments, 'comment')}>
                          {' '}
                          · <MessageSquare size={11} aria-label={plural(comments, 'comment')} /> {comments}
                        </span>
                      )}
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
