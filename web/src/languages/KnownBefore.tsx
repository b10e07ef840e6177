import { useDeferredValue, useState } from 'react';
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { Button, Input } from 'antd';
import { Download, Trash2 } from 'lucide-react';
import { fromReadable, readable } from '@elastic-folio/core/language';
import type { MemoryEntry } from '@elastic-folio/core/api';
import { api } from '../api/client.ts';
import { inWords, untilAnswered } from '../api/untilAnswered.ts';
import { API_ROOT } from '../api/root.ts';
import { useDocument } from '../document/documentStore.ts';
import { plural } from '../shell/plural.ts';
import { useDraft } from '../shell/useDraft.ts';
import { languageName } from './languageName.ts';
import { TermList } from './TermList.tsx';

/** What was translated before between two languages, to be found and mended; and the terms that hold between them. */
export function KnownBefore({ language }: { language: string }) {
  const source = useDocument((s) => s.folio!.head.metadata.language);
  const client = useQueryClient();
  const [words, setWords] = useState('');
  const asked = useDeferredValue(words);
  const key = ['memory', source, language];
  const found = useQuery({
    queryKey: [...key, asked],
    queryFn: () => api.memory(source, language, asked),
    placeholderData: keepPreviousData,
  }).data;
  const again = (): void => void client.invalidateQueries({ queryKey: key });
  return (
    <div className="known-before">
      <div className="desk-head">
        <Input.Search
          aria-label="Find in the memory"
          size="small"
          allowClear
          placeholder={`Find in the memory, ${languageName(source)} and ${languageName(language)}`}
          value={words}
          onChange={(e) => setWords(e.target.value)}
        />
        <Button
          size="small"
          icon={<Download size={14} />}
          href={`${API_ROOT}/memory/${source}/${language}`}
          title="The whole memory between these languages"
        >
          TMX
        </Button>
      </div>
      {found && (
        <p className="soft" role="status">
          {found.of === 0
            ? asked
              ? 'Nothing in the memory says so.'
              : 'Nothing was kept yet: confirmed texts come here by themselves.'
            : plural(found.of, 'entry', 'entries')}
          {found.of > found.entries.length && `, of which ${found.entries.length} are shown`}
        </p>
      )}
      <ul aria-label="The memory">
        {found?.entries.map((e) => (
          <OneEntry key={e.entry} entry={e} source={source} language={language} onChanged={again} />
        ))}
      </ul>
      <TermList source={source} language={language} />
    </div>
  );
}

function OneEntry({ entry, source, language, onChanged }: { entry: MemoryEntry; source: string; language: string; onChanged: () => void }) {
  const complain = useDocument((s) => s.complain);
  const keep = (text: string): void => {
    if (text.trim())
      untilAnswered(() => api.changeMemory(source, language, entry.entry, fromReadable(text))).then(onChanged, (e: unknown) =>
        complain(inWords(e)),
      );
  };
  const draft = useDraft(readable(entry.target), keep, false);
  return (
    <li>
      <span lang={source}>{readable(entry.source)}</span>
      <Input.TextArea
        aria-label={`Translation of ${readable(entry.source).slice(0, 60)}`}
        lang={language}
        size="small"
        variant="filled"
        autoSize
        value={draft.value}
        onChange={draft.onChange}
        onBlur={draft.onBlur}
      />
      <small className="soft">{[entry.from, entry.by === 'here' ? 'you' : entry.by].filter(Boolean).join(' · ')}</small>
      <Button
        size="small"
        type="text"
        icon={<Trash2 size={13} />}
        aria-label={`Forget ${readable(entry.source).slice(0, 60)}`}
        onClick={() => void api.forgetMemory(source, language, entry.entry).then(onChanged, (e: unknown) => complain(inWords(e)))}
      />
    </li>
  );
}
