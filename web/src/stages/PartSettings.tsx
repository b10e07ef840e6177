import { useState } from 'react';
import { Button, Checkbox, Input, InputNumber, Select } from 'antd';
import { Trash2 } from 'lucide-react';
import { leastOverlap, PX_PER_PT } from '@elastic-folio/core';
import type { Field, Item, Media, MovingPart, Veil } from '@elastic-folio/core';
import { newBurst, useDocument } from '../document/documentStore.ts';
import { SwitcherTurn } from './SwitcherTurn.tsx';

interface Props<P> {
  spread: string;
  item: P;
}

/** The settings of a part that moves or is filled in, by its kind. Nothing for all else. */
export function PartSettings({ spread, item }: Props<Item>) {
  switch (item.kind) {
    case 'switcher':
      return <SwitcherTurn spread={spread} item={item} />;
    case 'veil':
      return <VeilSettings spread={spread} item={item} />;
    case 'field':
      return <FieldSettings spread={spread} item={item} />;
    case 'media':
      return <MediaSettings spread={spread} item={item} />;
    default:
      return null;
  }
}

type Setting<P> = (more: Partial<P>) => void;

/** Changes a part: each choice is a step that can be taken back, what is typed into a part is one together. */
function useSetting<P extends MovingPart>(spread: string, item: P): { set: Setting<P>; type: Setting<P> } {
  const change = useDocument((s) => s.change);
  const [typing] = useState(newBurst);
  const by =
    (burst?: string): Setting<P> =>
    (more) =>
      change([{ kind: 'part.set', args: { spread, item: { ...item, ...more } } }], burst ?? newBurst());
  return { set: by(), type: by(typing) };
}

/** Takes a part off the page; what is drawn below it stays. */
export function RemovePart({ spread, item, onRemoved }: Props<Item> & { onRemoved: () => void }) {
  const change = useDocument((s) => s.change);
  return (
    <Button
      size="small"
      icon={<Trash2 size={13} />}
      onClick={() => {
        change([{ kind: 'part.remove', args: { spread, item: item.id } }], newBurst());
        onRemoved();
      }}
    >
      Take it off the page
    </Button>
  );
}

const px = (points: number): number => Math.round(points * PX_PER_PT * 10) / 10;

function VeilSettings({ spread, item }: Props<Veil>) {
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

const KINDS: { value: Field['control']['type']; label: string }[] = [
  { value: 'checkBox', label: 'Check box' },
  { value: 'radio', label: 'One of several' },
  { value: 'text', label: 'Words' },
  { value: 'choice', label: 'List to choose from' },
  { value: 'date', label: 'Date' },
  { value: 'signature', label: 'Place to sign' },
  { value: 'button', label: 'Button' },
];

function emptyControl(type: Field['control']['type'], name: string): Field['control'] {
  switch (type) {
    case 'checkBox':
      return { type, on: false, value: 'yes' };
    case 'radio':
      return { type, group: name, value: 'yes', on: false };
    case 'text':
      return { type, lines: 'one', value: '' };
    case 'choice':
      return { type, options: [], value: '' };
    case 'date':
      return { type, value: '' };
    case 'signature':
      return { type };
    case 'button':
      return { type, caption: name };
  }
}

function FieldSettings({ spread, item }: Props<Field>) {
  const { set, type } = useSetting(spread, item);
  const { control } = item;
  return (
    <div className="new-cue" role="group" aria-label="The field">
      <label>
        Kind
        <Select
          aria-label="Kind of field"
          value={control.type}
          options={KINDS}
          onChange={(kind) => set({ control: emptyControl(kind, item.fieldName) })}
        />
      </label>
      <label>
        Label
        <Input aria-label="Label" value={item.label} onChange={(e) => type({ label: e.target.value })} />
      </label>
      <label>
        Name in the form
        <Input
          aria-label="Name in the form"
          value={control.type === 'radio' ? control.group : item.fieldName}
          onChange={(e) =>
            type(control.type === 'radio' ? { control: { ...control, group: e.target.value } } : { fieldName: e.target.value })
          }
        />
      </label>
      {(control.type === 'checkBox' || control.type === 'radio') && (
        <>
          <label>
            It stands for
            <Input aria-label="Value" value={control.value} onChange={(e) => type({ control: { ...control, value: e.target.value } })} />
          </label>
          <Checkbox checked={control.on} onChange={(e) => set({ control: { ...control, on: e.target.checked } })}>
            On from the start
          </Checkbox>
        </>
      )}
      {control.type === 'text' && (
        <Checkbox
          checked={control.lines === 'many'}
          onChange={(e) => set({ control: { ...control, lines: e.target.checked ? 'many' : 'one' } })}
        >
          Several lines
        </Checkbox>
      )}
      {control.type === 'choice' && (
        <label>
          To choose from
          <Input.TextArea
            aria-label="To choose from"
            autoSize={{ minRows: 3, maxRows: 10 }}
            placeholder="One on each line"
            value={control.options.map((o) => o.label).join('\n')}
            onChange={(e) =>
              type({ control: { ...control, options: e.target.value.split('\n').map((label) => ({ value: label.trim(), label })) } })
            }
          />
        </label>
      )}
      {control.type === 'button' && (
        <label>
          It says
          <Input
            aria-label="Words of the button"
            value={control.caption}
            onChange={(e) => type({ control: { ...control, caption: e.target.value } })}
          />
        </label>
      )}
      <Checkbox checked={item.required} onChange={(e) => set({ required: e.target.checked })}>
        Must be filled in
      </Checkbox>
    </div>
  );
}

function MediaSettings({ spread, item }: Props<Media>) {
  const { set, type } = useSetting(spread, item);
  return (
    <div className="new-cue" role="group" aria-label="Film or sound">
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
