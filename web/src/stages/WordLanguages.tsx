import { useState } from 'react';
import { Button, Input } from 'antd';
import { Languages } from 'lucide-react';
import { lengthOf, resolveParagraph } from '@elastic-folio/core';
import type { Paragraph } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { LanguageChoice } from './LanguageChoice.tsx';
import { wordsIn } from './wordsIn.ts';

interface Words {
  from: number;
  to: number;
  text: string;
  language: string;
}

/** Words of a paragraph that are in a language of their own, where they stand. */
function foreignWords(paragraph: Paragraph): Words[] {
  const out: Words[] = [];
  let at = 0;
  for (const node of paragraph.content) {
    const to = at + lengthOf(node);
    const language = node.type === 'span' ? node.overrides?.language : undefined;
    const last = out[out.length - 1];
    if (node.type === 'span' && language !== undefined) {
      if (last?.to === at && last.language === language) out[out.length - 1] = { ...last, to, text: last.text + node.text };
      else out.push({ from: at, to, text: node.text, language });
    }
    at = to;
  }
  return out;
}

/** Some words of a paragraph in another language: those that are, and a way to say it of others. */
export function WordLanguages({ story, paragraph }: { story: string; paragraph: Paragraph }) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState('');
  const around = resolveParagraph(folio.head, paragraph).character.language;
  const place = wordsIn(paragraph, words);
  const missing = words.trim() !== '' && !place;
  const say = (at: { from: number; to: number }, language: string | null): void => {
    change([{ kind: 'words.language', args: { story, paragraph: paragraph.id, from: at.from, to: at.to, language } }], newBurst());
    setOpen(false);
    setWords('');
  };
  return (
    <div className="word-languages">
      {foreignWords(paragraph).map((w) => (
        <div key={w.from}>
          <em>{w.text}</em>
          <LanguageChoice label={`Language of the words “${w.text}”`} value={w.language} around={around} onLanguage={(l) => say(w, l)} />
        </div>
      ))}
      {open ? (
        <div>
          <Input
            size="small"
            autoFocus
            aria-label="Words as they stand in the paragraph"
            placeholder="Words as they stand there"
            value={words}
            status={missing ? 'error' : ''}
            onChange={(e) => setWords(e.target.value)}
          />
          <LanguageChoice
            label="Language of these words"
            value={undefined}
            around={around}
            onLanguage={(l) => place && l !== null && say(place, l)}
          />
          {missing && <small className="clay">These words do not stand in it.</small>}
        </div>
      ) : (
        <Button type="text" size="small" icon={<Languages size={13} />} onClick={() => setOpen(true)}>
          Some words in another
        </Button>
      )}
    </div>
  );
}
