import { useState } from 'react';
import { Input } from 'antd';
import { plainText } from '@elastic-folio/core';
import type { Paragraph } from '@elastic-folio/core';
import { wordsIn } from './wordsIn.ts';

/** How many words before a place are shown to tell it. */
const SHOWN = 3;

/** Where in the line of a paragraph something stands: behind some words of it, or at its beginning. */
export function PinPlace({ paragraph, offset, onOffset }: { paragraph: Paragraph; offset: number; onOffset: (offset: number) => void }) {
  const before = plainText(paragraph.content).slice(0, offset).trim().split(/\s+/).slice(-SHOWN).join(' ');
  const [words, setWords] = useState(before);
  const place = words.trim() ? wordsIn(paragraph, words) : { from: 0, to: 0 };
  const take = (): void => {
    if (place && words.trim() !== before) onOffset(place.to);
  };
  return (
    <label className="pin-place">
      Behind the words
      <Input
        size="small"
        placeholder="at its beginning"
        value={words}
        status={place ? '' : 'error'}
        onChange={(e) => setWords(e.target.value)}
        onBlur={take}
        onPressEnter={take}
      />
      {!place && <small className="clay">These words do not stand in it.</small>}
    </label>
  );
}
