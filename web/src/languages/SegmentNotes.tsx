import { Input } from 'antd';
import dayjs from 'dayjs';
import type { Comment } from '@elastic-folio/core';
import type { DeskRow } from '@elastic-folio/core/language';
import { useDraft } from '../shell/useDraft.ts';
import { Parts } from './Parts.tsx';

interface Props {
  row: DeskRow;
  by: string;
  onComment: (comment: Comment) => void;
}

/** What was said of a segment, and what it was before. */
export function SegmentNotes({ row, by, onComment }: Props) {
  // A comment is whole once it is sent, or left.
  const draft = useDraft('', (typed) => add(typed), false);
  const { comments = [], history = [] } = row.segment;
  const add = (text: string): void => {
    draft.put('');
    draft.settle();
    if (text.trim()) onComment({ text: text.trim(), by, at: new Date().toISOString() });
  };
  return (
    <div className="segment-notes">
      {comments.map((c, i) => (
        <p key={i}>
          <span className="soft">
            {c.by === 'here' ? 'you' : c.by}, {dayjs(c.at).format('D MMM, H:mm')}:
          </span>{' '}
          {c.text}
        </p>
      ))}
      <Input
        size="small"
        aria-label="Comment"
        placeholder="Say something of this text"
        value={draft.value}
        maxLength={5000}
        onChange={draft.onChange}
        onPressEnter={() => add(draft.value)}
        onBlur={draft.onBlur}
      />
      {history.length > 0 && (
        <details>
          <summary>What it was before ({history.length})</summary>
          {[...history].reverse().map((h, i) => (
            <p key={i}>
              <span className="soft">
                {h.by === 'here' ? 'you' : h.by}
                {h.at && `, ${dayjs(h.at).format('D MMM, H:mm')}`}:
              </span>{' '}
              <Parts parts={h.target ?? []} codes={row.codes} />
            </p>
          ))}
        </details>
      )}
    </div>
  );
}
