import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox, Form, Input, InputNumber, Select, Slider, Switch } from 'antd';
import type { OutputKind } from '@elastic-folio/core/api';
import { api } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';
import { OwnFiles } from './OwnFiles.tsx';

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
  items?: { enum?: string[] };
  /** It is there only where another setting has one of these values, or any value at all. */
  showIf?: Record<string, unknown[] | 'any'>;
  /** Where its choices come from, where they are things of the document. */
  choicesFrom?: 'pictures';
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
    if (!isAsked(setting, properties, values)) continue;
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

/** Whether a setting means anything beside what the others say. */
const isAsked = ({ showIf }: Setting, properties: Record<string, Setting>, values: Record<string, unknown>): boolean =>
  Object.entries(showIf ?? {}).every(([name, wanted]) => {
    const value = values[name] ?? properties[name]?.default;
    return wanted === 'any' ? (Array.isArray(value) ? value.length > 0 : !!value) : wanted.includes(value);
  });

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

interface ControlProps {
  id: string;
  setting: Setting;
  value: unknown;
  onChange: (value: unknown) => void;
}

/** One of the document's pictures, or none. */
function PictureChoice({ id, value, onChange }: Omit<ControlProps, 'setting'>) {
  const media = useDocument((s) => s.folio!.head.media);
  const pictures = Object.values(media).filter((m) => m.mediaType.startsWith('image/'));
  return (
    <Select
      id={id}
      allowClear
      showSearch={{ optionFilterProp: 'label' }}
      placeholder="none"
      value={(value as string) || null}
      onChange={(v) => onChange(v ?? '')}
      options={pictures.map((m) => ({ value: m.id, label: m.name }))}
    />
  );
}

/** Words with commas between, worked out from the document's text to begin with. */
function Keywords({ id, value, onChange }: Omit<ControlProps, 'setting'>) {
  const folio = useDocument((s) => s.id)!;
  const complain = useDocument((s) => s.complain);
  const workOut = async (): Promise<void> => {
    try {
      onChange((await api.keywords(folio)).join(', '));
    } catch (error) {
      complain((error as Error).message);
    }
  };
  return (
    <>
      <Input.TextArea id={id} autoSize={{ minRows: 1, maxRows: 6 }} value={value as string} onChange={(e) => onChange(e.target.value)} />
      <Button type="link" size="small" className="collector-own" onClick={() => void workOut()}>
        Work them out from the text
      </Button>
    </>
  );
}

/** An address, or that of the collector which comes with this program and shows what would have arrived. */
function CollectorChoice({ id, value, onChange }: Omit<ControlProps, 'setting'>) {
  const port = useQuery({ queryKey: ['settings'], queryFn: api.settings, staleTime: Infinity }).data?.resultPort;
  const own = `http://127.0.0.1:${port}/collect`;
  return (
    <>
      <Input id={id} value={value as string} placeholder="https://" onChange={(e) => onChange(e.target.value)} />
      {port !== undefined && value !== own && (
        <Button type="link" size="small" className="collector-own" onClick={() => onChange(own)}>
          Try it with the collector here
        </Button>
      )}
    </>
  );
}

function Control({ id, setting, value, onChange }: ControlProps) {
  if (setting.choicesFrom === 'pictures') return <PictureChoice id={id} value={value} onChange={onChange} />;
  if (setting.format === 'ownFiles')
    return <OwnFiles value={value as { media: string; as: string }[]} labels={setting.labels ?? {}} onChange={onChange} />;
  if (setting.format === 'keywords') return <Keywords id={id} value={value} onChange={onChange} />;
  if (setting.format === 'collector') return <CollectorChoice id={id} value={value} onChange={onChange} />;
  if (setting.type === 'array')
    return (
      <Checkbox.Group
        className="several"
        value={value as string[]}
        // In the order of the schema, in whatever order they are ticked.
        onChange={(ticked) => onChange((setting.items?.enum ?? []).filter((v) => ticked.includes(v)))}
        options={(setting.items?.enum ?? []).map((v) => ({ value: v, label: setting.labels?.[v] ?? v }))}
      />
    );
  if (setting.format === 'lines' || setting.format === 'code')
    return (
      <Input.TextArea
        id={id}
        className={setting.format === 'code' ? 'code' : undefined}
        spellCheck={setting.format === 'lines'}
        autoSize={{ minRows: 2, maxRows: 10 }}
        value={value as string}
        onChange={(e) => onChange(e.target.value)}
      />
    );
  if (setting.format === 'number')
    return (
      <InputNumber
        id={id}
        min={setting.minimum ?? 0}
        max={setting.maximum ?? 1e6}
        value={value as number}
        onChange={(v) => v !== null && onChange(v)}
      />
    );
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
