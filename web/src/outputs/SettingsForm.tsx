import { Form, Input, InputNumber, Select, Slider, Switch } from 'antd';
import type { OutputKind } from '@elastic-folio/core/api';

/** A setting as its Zod schema describes it (JSON Schema with our own `meta`). */
interface Setting {
  type?: string;
  enum?: string[];
  minimum?: number;
  maximum?: number;
  pattern?: string;
  default?: unknown;
  title?: string;
  help?: string;
  unit?: string;
  group?: string;
  format?: string;
  labels?: Record<string, string>;
  anyOf?: Setting[];
}

interface Props {
  kind: OutputKind;
  values: Record<string, unknown>;
  onChange: (values: Record<string, unknown>) => void;
}

/** A form made from an output's schema: every setting looks and explains itself alike. */
export function SettingsForm({ kind, values, onChange }: Props) {
  const properties = (kind.settings as { properties: Record<string, Setting> }).properties;
  const groups = new Map<string, [string, Setting][]>();
  for (const [name, setting] of Object.entries(properties)) {
    const group = setting.group ?? 'Settings';
    groups.set(group, [...(groups.get(group) ?? []), [name, setting]]);
  }
  return (
    <Form layout="vertical" requiredMark={false} className="settings">
      {[...groups].map(([group, settings]) => (
        <fieldset key={group}>
          <legend>{group}</legend>
          {settings.map(([name, setting]) => {
            const value = values[name] ?? setting.default;
            const wrong = problemOf(setting, value);
            return (
              <Form.Item
                key={name}
                label={setting.title ?? name}
                htmlFor={`set-${name}`}
                extra={setting.help}
                {...(wrong && { validateStatus: 'error' as const, help: wrong })}
              >
                <Control id={`set-${name}`} setting={setting} value={value} onChange={(v) => onChange({ ...values, [name]: v })} />
              </Form.Item>
            );
          })}
        </fieldset>
      ))}
    </Form>
  );
}

/** What is wrong with a text, by the pattern of the schema; numbers are kept in range by their control. */
function problemOf(setting: Setting, value: unknown): string | null {
  if (typeof value !== 'string') return null;
  const options = setting.anyOf ?? [setting];
  const fits = options.some(
    (o) =>
      (!o.pattern || new RegExp(o.pattern, 'u').test(value)) &&
      (!o.enum || o.enum.includes(value)) &&
      ((o as { const?: string }).const === undefined || (o as { const?: string }).const === value),
  );
  return fits ? null : 'This cannot be used; see the example.';
}

function Control({ id, setting, value, onChange }: { id: string; setting: Setting; value: unknown; onChange: (value: unknown) => void }) {
  if (setting.enum)
    return (
      <Select
        id={id}
        value={value as string}
        onChange={onChange}
        options={setting.enum.map((v) => ({ value: v, label: setting.labels?.[v] ?? v }))}
      />
    );
  if (setting.type === 'boolean') return <Switch id={id} checked={value as boolean} onChange={onChange} />;
  if (setting.type === 'integer' || setting.type === 'number')
    return (
      <div className="number-setting">
        <Slider
          min={setting.minimum ?? 0}
          max={setting.maximum ?? 100}
          value={value as number}
          onChange={onChange}
          tooltip={{ open: false }}
          ariaLabelForHandle={setting.title ?? ''}
        />
        <InputNumber
          id={id}
          min={setting.minimum ?? 0}
          max={setting.maximum ?? 100}
          value={value as number}
          onChange={(v) => v !== null && onChange(v)}
          suffix={setting.unit}
        />
      </div>
    );
  if (setting.format === 'colour')
    return (
      <Input
        id={id}
        value={value as string}
        onChange={(e) => onChange(e.target.value)}
        prefix={<i className="swatch" style={{ background: /^#[0-9a-f]{6}$/i.test(value as string) ? (value as string) : 'none' }} />}
      />
    );
  return <Input id={id} value={value as string} onChange={(e) => onChange(e.target.value)} />;
}
