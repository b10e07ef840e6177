import { useState } from 'react';
import { Button, Input } from 'antd';
import { replacedIn } from '@elastic-folio/core/language';
import type { DeskRow } from '@elastic-folio/core/language';
import type { TextPart } from '@elastic-folio/core';
import { plural } from '../shell/plural.ts';

interface Props {
  rows: readonly DeskRow[];
  onReplace: (changed: readonly { row: DeskRow; target: TextPart[] }[]) => void;
}

/** Other words in all translations that are listed, at one time; one undo brings back all. */
export function ReplaceWords({ rows, onReplace }: Props) {
  const [words, setWords] = useState('');
  const [by, setBy] = useState('');
  const found = words
    ? rows.flatMap((row) => {
        const { count, target } =
          row.segment.target && row.segment.state !== 'locked' ? replacedIn(row.segment.target, words, by) : { count: 0, target: [] };
        return count ? [{ row, target, count }] : [];
      })
    : [];
  const times = found.reduce((n, f) => n + f.count, 0);
  return (
    <div className="replace-words">
      <Input
        size="small"
        aria-label="Words in translations"
        placeholder="Words in translations"
        value={words}
        onChange={(e) => setWords(e.target.value)}
      />
      <Input size="small" aria-label="Other words" placeholder="Other words" value={by} onChange={(e) => setBy(e.target.value)} />
      <Button size="small" disabled={!found.length || words === by} onClick={() => onReplace(found)}>
        {times ? `Replace ${plural(times, 'place')}` : 'Replace'}
      </Button>
    </div>
  );
}
