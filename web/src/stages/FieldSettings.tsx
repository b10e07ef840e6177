import { Checkbox, Input, InputNumber, Select } from 'antd';
import type { Field } from '@elastic-folio/core';
import { useSetting } from './useSetting.ts';

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

/** What a field is, what it is called, and what is in it to begin with. */
export function FieldSettings({ spread, item }: { spread: string; item: Field }) {
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
      <label>
        Stepped to as
        <InputNumber
          aria-label="Place among the fields"
          min={1}
          max={32767}
          precision={0}
          placeholder="where it is read"
          value={item.tabOrder ?? null}
          onChange={(v) => set({ tabOrder: v ?? undefined })}
        />
      </label>
      <Checkbox checked={item.required} onChange={(e) => set({ required: e.target.checked })}>
        Must be filled in
      </Checkbox>
    </div>
  );
}
