import { Checkbox, Select } from 'antd';
import type { Opening } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';

const ZOOMS: { value: NonNullable<Opening['zoom']> | 'reader'; label: string }[] = [
  { value: 'reader', label: 'as the reader has it' },
  { value: 'page', label: 'the whole page' },
  { value: 'width', label: 'as wide as the window' },
  { value: 0.5, label: '50 %' },
  { value: 1, label: '100 %' },
  { value: 1.5, label: '150 %' },
  { value: 2, label: '200 %' },
];
const PLAIN: Opening = { fullScreen: false, view: 'page', showBookmarks: false, loop: false };

/** How the document is when it is opened, in outputs that can say so. */
export function OpeningChoice() {
  const opening = useDocument((s) => s.folio!.head.opening) ?? PLAIN;
  const change = useDocument((s) => s.change);
  const set = (more: { [K in keyof Opening]?: Opening[K] | undefined }): void =>
    change([{ kind: 'document.opening', args: { ...opening, ...more } }], newBurst());
  return (
    <>
      <h2>When it is opened</h2>
      <Checkbox checked={opening.fullScreen} onChange={(e) => set({ fullScreen: e.target.checked })}>
        It fills the screen
      </Checkbox>
      <Checkbox checked={opening.showBookmarks} onChange={(e) => set({ showBookmarks: e.target.checked })}>
        Its list of contents is shown
      </Checkbox>
      <Checkbox checked={opening.loop} onChange={(e) => set({ loop: e.target.checked })}>
        Pages that go on by themselves begin again after the last
      </Checkbox>
      <label>
        Shown are
        <Select
          aria-label="What is shown"
          value={opening.view}
          onChange={(view) => set({ view })}
          options={[
            { value: 'page', label: 'single pages' },
            { value: 'spread', label: 'two pages side by side' },
          ]}
        />
      </label>
      <label>
        in this size
        <Select
          aria-label="How large"
          value={opening.zoom ?? ('reader' as const)}
          options={ZOOMS}
          onChange={(zoom: (typeof ZOOMS)[number]['value']) => set({ zoom: zoom === 'reader' ? undefined : zoom })}
        />
      </label>
    </>
  );
}
