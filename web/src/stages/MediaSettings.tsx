import { Checkbox, Input } from 'antd';
import type { Media } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { FileChoice } from './FileChoice.tsx';
import { useSetting } from './useSetting.ts';

/** How a film or a sound is played, and what stands for it where it cannot be. */
export function MediaSettings({ spread, item }: { spread: string; item: Media }) {
  const { set, type } = useSetting(spread, item);
  const seconds = useDocument((s) => (item.media === null ? undefined : s.folio!.head.media[item.media]?.seconds));
  return (
    <div className="new-cue" role="group" aria-label="Film or sound">
      <FileChoice
        words="File"
        name="Film or sound"
        of="played"
        value={item.media ?? undefined}
        onChange={(media) => set({ media: media ?? null })}
      />
      {seconds !== undefined && <span className="soft">It lasts {Math.round(seconds * 10) / 10} s.</span>}
      <FileChoice words="Still picture" name="Still picture" of="picture" value={item.poster} onChange={(poster) => set({ poster })} />
      <FileChoice words="Captions" name="Captions" of="captions" value={item.captions} onChange={(captions) => set({ captions })} />
      <Checkbox checked={item.controls} onChange={(e) => set({ controls: e.target.checked })}>
        Its controls are shown
      </Checkbox>
      <Checkbox checked={item.autoplay} onChange={(e) => set({ autoplay: e.target.checked })}>
        Begins by itself, without its sound
      </Checkbox>
      <Checkbox checked={item.loop} onChange={(e) => set({ loop: e.target.checked })}>
        Again and again
      </Checkbox>
      <label>
        What is said in it
        <Input.TextArea
          aria-label="Transcript"
          autoSize={{ minRows: 2, maxRows: 8 }}
          value={item.transcript ?? ''}
          onChange={(e) => type({ transcript: e.target.value })}
        />
      </label>
    </div>
  );
}
