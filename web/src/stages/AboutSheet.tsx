import { Input, Select } from 'antd';
import { Language } from '@elastic-folio/core';
import { newBurst, useDocument } from '../document/documentStore.ts';

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
  const set = (args: Partial<typeof metadata>): void => change([{ kind: 'document.metadata', args }], newBurst());
  return (
    <>
      <h2>About the document</h2>
      {LINES.map(([name, label, help]) => (
        <label className="field" key={name}>
          {label}
          <Input
            key={metadata[name] ?? ''}
            aria-label={label}
            defaultValue={metadata[name] ?? ''}
            onBlur={(e) => e.target.value.trim() !== (metadata[name] ?? '') && set({ [name]: e.target.value.trim() })}
          />
          {help && <small className="soft">{help}</small>}
        </label>
      ))}
      <label className="field">
        Language
        <Input
          key={metadata.language}
          aria-label="Language"
          defaultValue={metadata.language}
          onBlur={(e) => {
            const language = Language.safeParse(e.target.value.trim());
            if (language.success && language.data !== metadata.language) set({ language: language.data });
          }}
        />
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
        <Input.TextArea
          key={metadata.description ?? ''}
          aria-label="Description"
          autoSize={{ minRows: 2, maxRows: 6 }}
          defaultValue={metadata.description ?? ''}
          onBlur={(e) => e.target.value.trim() !== (metadata.description ?? '') && set({ description: e.target.value.trim() })}
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
          onChange={(cover?: string) => cover !== undefined && set({ cover })}
        />
      </label>
    </>
  );
}
