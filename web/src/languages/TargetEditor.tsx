import { useEffect, useRef } from 'react';
import { Button, Input } from 'antd';
import type { TextAreaRef } from 'antd/es/input/TextArea';
import { codesIn, faultsOf, fromReadable, pseudoTranslation, readable, termsMissing, wordsOf } from '@elastic-folio/core/language';
import type { DeskRow, Term } from '@elastic-folio/core/language';
import { useDraft } from '../shell/useDraft.ts';
import { MatchList } from './MatchList.tsx';

interface Props {
  row: DeskRow;
  language: string;
  terms: readonly Term[];
  /** Whether what was translated before is offered. */
  seesMemory: boolean;
  onKeep: (text: string, confirm: boolean) => void;
  onNext: () => void;
  onLeave: () => void;
}

/** The target of one segment, with what is wrong with it as it stands; codes and matches are put in by key. */
export function TargetEditor({ row, language, terms, seesMemory, onKeep, onNext, onLeave }: Props) {
  const { unit, segment, codes } = row;
  const kept = segment.target ? readable(segment.target) : '';
  const draft = useDraft(kept, (typed) => typed.trim() && onKeep(typed, false));
  const { value: text, put: setText } = draft;
  const field = useRef<TextAreaRef>(null);
  const offered = useRef<readonly string[]>([]);
  useEffect(() => field.current?.focus(), []);
  const target = fromReadable(text);
  const faults = text.trim() ? faultsOf(segment.source, target, [...codes], { source: unit.language, target: language }) : [];
  const unsaid = text.trim() ? termsMissing(wordsOf(segment.source), wordsOf(target), terms) : [];
  const left = codes.filter((c) => codesIn(segment.source).includes(c.n) && !codesIn(target).includes(c.n));
  const put = (n: number, paired: boolean): void => {
    const area = field.current?.resizableTextArea?.textArea;
    const [from, to] = [area?.selectionStart ?? text.length, area?.selectionEnd ?? text.length];
    const inside = text.slice(from, to);
    setText(text.slice(0, from) + (paired ? `{${n}}${inside}{/${n}}` : `${inside}{${n}/}`) + text.slice(to));
    field.current?.focus();
  };
  const confirm = (): void => {
    if (!text.trim()) return;
    draft.settle();
    onKeep(text, true);
    onNext();
  };
  const onKey = (e: React.KeyboardEvent): void => {
    if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) {
      e.preventDefault();
      // Here the key means this, and nothing of the whole application.
      e.stopPropagation();
      confirm();
    }
    if (e.key === 'Escape') onLeave();
    // With the upper keys the sign is another than the digit: the key itself is asked.
    const n = Number(/^Digit([1-9])$/.exec(e.code)?.[1] ?? 0);
    if (!e.altKey || !n) return;
    const match = e.shiftKey ? offered.current[n - 1] : undefined;
    const code = e.shiftKey ? undefined : codes.find((c) => c.n === n);
    if (match === undefined && !code) return;
    e.preventDefault();
    if (match !== undefined) setText(match);
    else if (code) put(code.n, code.paired);
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
        onChange={draft.onChange}
        onBlur={draft.onBlur}
        onKeyDown={onKey}
      />
      <div className="desk-actions">
        <Button size="small" type="primary" disabled={!text.trim()} title="Ctrl Enter" onMouseDown={stay} onClick={confirm}>
          Confirm, next
        </Button>
        <Button size="small" onMouseDown={stay} onClick={() => setText(readable(segment.source))}>
          Copy the source
        </Button>
        <Button
          size="small"
          title="A text as long as a translation, to try the layout with"
          onMouseDown={stay}
          onClick={() => setText(readable(pseudoTranslation(segment.source, language)))}
        >
          Pseudo-translation
        </Button>
        {left.map((c) => (
          <Button
            key={c.n}
            size="small"
            type="dashed"
            title={`Alt ${c.n}: ${c.shows || c.says}`}
            onMouseDown={stay}
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
      {unsaid.map((t) => (
        <p key={t.source} className="straw">
          “{t.source}” is “{t.target}” among the terms.
        </p>
      ))}
      {seesMemory && (
        <MatchList row={row} language={language} text={text} onOffered={(list) => (offered.current = list)} onTake={setText} />
      )}
    </div>
  );
}

/** The field keeps the keys while something beside it is pressed. */
const stay = (e: React.MouseEvent): void => e.preventDefault();
