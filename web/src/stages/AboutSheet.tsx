import { useState } from 'react';
import { Select } from 'antd';
import { Language } from '@elastic-folio/core';
import type { EditArgs } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { DraftArea, DraftInput } from '../shell/DraftField.tsx';

const LINES = [
  ['title', 'Title', 'What readers see on the shelf and in the title bar.'],
  ['publisher', 'Publisher', ''],
  ['identifier', 'Identifier', 'An ISBN or another name that only this document has. Empty: one is made.'],
  ['rights', 'Rights', 'Who may do what with it.'],
] as const;

const LISTS = [
  ['creators', 'Creators'],
  ['subjects', 'Subjects'],
] as const;

/** What the document is, of whom, and in which language: said once, and written into every output that can hold it. */
export function AboutSheet() {
  const metadata = useDocument((s) => s.folio!.head.metadata);
  const media = useDocument((s) => s.folio!.head.media);
  const change = useDocument((s) => s.change);
  const set = (args: EditArgs<'document.metadata'>, burst = newBurst()): void => change([{ kind: 'document.metadata', args }], burst);
  return (
    <>
      <h2>About the document</h2>
      {LINES.map(([name, label, help]) => (
        <label className="field" key={name}>
          {label}
          <DraftInput
            aria-label={label}
            value={metadata[name] ?? ''}
            onKeep={(text, burst) => set({ [name]: text.trim() || (name === 'title' ? '' : null) }, burst)}
          />
          {help && <small className="soft">{help}</small>}
        </label>
      ))}
      <label className="field">
        Language
        <LanguageTag value={metadata.language} onLanguage={(language, burst) => set({ language }, burst)} />
        <small className="soft">A tag such as en or de-AT.</small>
      </label>
      {LISTS.map(([name, label]) => (
        <label className="field" key={name}>
          {label}
          <Select
            mode="tags"
            aria-label={label}
            open={false}
            suffixIcon={null}
            value={metadata[name]}
            onChange={(list) => set({ [name]: list })}
          />
        </label>
      ))}
      <label className="field">
        Description
        <DraftArea
          aria-label="Description"
          autoSize={{ minRows: 2, maxRows: 6 }}
          value={metadata.description ?? ''}
          onKeep={(text, burst) => set({ description: text.trim() || null }, burst)}
        />
      </label>
      <label className="field">
        Cover picture
        <Select
          aria-label="Cover picture"
          allowClear
          showSearch={{ optionFilterProp: 'label' }}
          placeholder="The first page"
          value={metadata.cover}
          options={Object.values(media)
            .filter((m) => m.mediaType.startsWith('image/'))
            .map((m) => ({ value: m.id, label: m.name }))}
          onChange={(cover?: string) => set({ cover: cover ?? null })}
        />
      </label>
    </>
  );
}

/** The language, as a tag; what is none is said and not kept. */
function LanguageTag({ value, onLanguage }: { value: string; onLanguage: (language: string, burst: string) => void }) {
  const [refused, setRefused] = useState(false);
  const keep = (text: string, burst: string): void => {
    const language = Language.safeParse(text.trim());
    setRefused(!language.success);
    if (language.success) onLanguage(language.data, burst);
  };
  return (
    <>
      <DraftInput aria-label="Language" status={refused ? 'error' : ''} value={value} onKeep={keep} />
      {refused && <small className="clay">This is not a language tag.</small>}
    </>
  );
}
