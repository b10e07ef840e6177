import { useEffect, useState } from 'react';
import { Checkbox, Input, Select } from 'antd';
import { isAddressOfWeb } from '@elastic-folio/core';
import type { Embed } from '@elastic-folio/core';
import type { ShelfEntry } from '@elastic-folio/core/api';
import { api } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';
import { FileChoice } from './FileChoice.tsx';
import { useSetting } from './useSetting.ts';

type From = Embed['source']['from'];
const FROM: { value: From; label: string }[] = [
  { value: 'address', label: 'An address of the web' },
  { value: 'bundle', label: 'A folder of files, zipped' },
  { value: 'folio', label: 'Another document’s web edition' },
];

/** What is shown inside a page, and what stands for it where it cannot be. */
export function EmbedSettings({ spread, item }: { spread: string; item: Embed }) {
  const { set, type } = useSetting(spread, item);
  const { source } = item;
  const own = useDocument((s) => s.id);
  const [shelf, setShelf] = useState<ShelfEntry[]>([]);
  useEffect(() => {
    if (source.from === 'folio') void api.shelf().then(setShelf, () => setShelf([]));
  }, [source.from]);
  const begin = (from: From): Embed['source'] =>
    from === 'address'
      ? { from, href: 'https://' }
      : from === 'bundle'
        ? { from, media: 'none', entry: 'index.html' }
        : { from, folio: 'none' };
  return (
    <div className="new-cue" role="group" aria-label="The embed">
      <label>
        It shows
        <Select aria-label="What it shows" value={source.from} options={FROM} onChange={(from) => set({ source: begin(from) })} />
      </label>
      {source.from === 'address' && (
        <>
          <Input
            aria-label="Address of the embed"
            status={isAddressOfWeb(source.href) ? '' : 'warning'}
            value={source.href}
            onChange={(e) => type({ source: { from: 'address', href: e.target.value } })}
          />
          {!isAddressOfWeb(source.href) && <p className="soft hint">Only addresses with http: or https: can be shown.</p>}
        </>
      )}
      {source.from === 'bundle' && (
        <>
          <FileChoice
            words="Folder"
            name="Folder of files"
            of="bundle"
            value={source.media === 'none' ? undefined : source.media}
            onChange={(media) => set({ source: { ...source, media: media ?? 'none' } })}
          />
          <label>
            Begins with
            <Input
              aria-label="File that it begins with"
              value={source.entry}
              onChange={(e) => type({ source: { ...source, entry: e.target.value } })}
            />
          </label>
        </>
      )}
      {source.from === 'folio' && (
        <label>
          Document
          <Select
            aria-label="Document that is shown"
            value={source.folio === 'none' ? null : source.folio}
            placeholder="choose one"
            options={shelf.filter((d) => d.id !== own).map((d) => ({ value: d.folio, label: d.title }))}
            onChange={(folio) => folio !== null && set({ source: { from: 'folio', folio } })}
          />
        </label>
      )}
      <label>
        Title
        <Input
          aria-label="Title of the embed"
          placeholder="what screen readers say"
          value={item.alt ?? ''}
          onChange={(e) => type({ alt: e.target.value || undefined })}
        />
      </label>
      <FileChoice words="Still picture" name="Still picture" of="picture" value={item.poster} onChange={(poster) => set({ poster })} />
      <Checkbox checked={item.scrolling} onChange={(e) => set({ scrolling: e.target.checked })}>
        It can be scrolled
      </Checkbox>
      <Checkbox checked={item.scale === 'fit'} onChange={(e) => set({ scale: e.target.checked ? 'fit' : 'none' })}>
        It is made to fit
      </Checkbox>
    </div>
  );
}
