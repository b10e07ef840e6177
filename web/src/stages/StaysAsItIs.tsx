import { useState } from 'react';
import { Button, Checkbox, Input } from 'antd';
import { Lock } from 'lucide-react';
import { lengthOf } from '@elastic-folio/core';
import type { Paragraph } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { wordsIn } from './wordsIn.ts';

/** Words of a paragraph that are not translated, where they stand. */
function keptWords(paragraph: Paragraph): { from: number; to: number; text: string }[] {
  let at = 0;
  return paragraph.content.flatMap((node) => {
    const from = at;
    at += lengthOf(node);
    return node.type === 'span' && node.translate === false ? [{ from, to: at, text: node.text }] : [];
  });
}

/** What of a paragraph stays as it is in every language: all of it, or some words. */
export function StaysAsItIs({ story, paragraph }: { story: string; paragraph: Paragraph }) {
  const change = useDocument((s) => s.change);
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState('');
  const place = wordsIn(paragraph, words);
  const whole = paragraph.translate === false;
  const set = (at: { from: number; to: number }, translate: boolean): void => {
    change([{ kind: 'words.translate', args: { story, paragraph: paragraph.id, from: at.from, to: at.to, translate } }], newBurst());
    setOpen(false);
    setWords('');
  };
  return (
    <div className="stays-as-it-is">
      <Checkbox
        checked={whole}
        onChange={(e) =>
          change([{ kind: 'paragraph.translate', args: { story, paragraph: paragraph.id, translate: !e.target.checked } }], newBurst())
        }
      >
        not translated
      </Checkbox>
      {!whole &&
        keptWords(paragraph).map((w) => (
          <Button key={w.from} size="small" title="Translate these words again" onClick={() => set(w, true)}>
            <Lock size={11} /> {w.text}
          </Button>
        ))}
      {!whole &&
        (open ? (
          <form onSubmit={(e) => (e.preventDefault(), place && set(place, false))}>
            <Input
              size="small"
              autoFocus
              aria-label="Words that stay as they are"
              placeholder="Words as they stand there"
              value={words}
              status={words.trim() && !place ? 'error' : ''}
              onChange={(e) => setWords(e.target.value)}
            />
          </form>
        ) : (
          <Button type="text" size="small" onClick={() => setOpen(true)}>
            Some words are not
          </Button>
        ))}
    </div>
  );
}
