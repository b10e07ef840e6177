import { Checkbox, Input, InputNumber, Select } from 'antd';
import { leastOverlap, PX_PER_PT } from '@elastic-folio/core';
import type { Veil } from '@elastic-folio/core';
import { FileChoice } from './FileChoice.tsx';
import { useSetting } from './useSetting.ts';

const px = (points: number): number => Math.round(points * PX_PER_PT * 10) / 10;

/** The flakes of a veil: how large, of what, and how they go. */
export function VeilSettings({ spread, item }: { spread: string; item: Veil }) {
  const { set, type } = useSetting(spread, item);
  return (
    <div className="new-cue" role="group" aria-label="The veil">
      <label>
        Flakes of
        <InputNumber
          aria-label="Size of flakes"
          min={6}
          max={400}
          value={px(item.flakeSize)}
          suffix="px"
          onChange={(v) => v && set({ flakeSize: v / PX_PER_PT })}
        />
      </label>
      <p className="soft hint">
        They overlap by {px(item.flakeOverlap ?? leastOverlap())} px, the least that leaves no hairline between them.
      </p>
      <FileChoice
        words="On them"
        name="Picture on the flakes"
        of="picture"
        none="a plain colour"
        value={item.cover}
        onChange={(cover) => set({ cover })}
      />
      {item.cover !== undefined && (
        <Checkbox checked={item.coverEach} onChange={(e) => set({ coverEach: e.target.checked })}>
          Whole on each flake
        </Checkbox>
      )}
      <label>
        They go
        <Select
          aria-label="How flakes go"
          value={item.lift}
          onChange={(lift) => set({ lift })}
          options={[
            { value: 'cut', label: 'at once' },
            { value: 'fade', label: 'by fading' },
          ]}
        />
      </label>
      <label>
        All go after
        <InputNumber
          aria-label="Part after which all go"
          min={1}
          max={100}
          value={Math.round(item.rest * 100)}
          suffix="%"
          onChange={(v) => v && set({ rest: v / 100 })}
        />
      </label>
      <label>
        The button says
        <Input aria-label="Words of the button" value={item.action} onChange={(e) => type({ action: e.target.value })} />
      </label>
    </div>
  );
}
