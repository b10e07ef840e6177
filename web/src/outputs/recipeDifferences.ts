import type { OutputKind } from '@elastic-folio/core/api';

interface Described {
  title?: string;
  default?: unknown;
  unit?: string;
  labels?: Record<string, string>;
}

/** What is set otherwise in two recipes of one output, in the words of their settings. */
export function differences(
  kind: OutputKind,
  here: Record<string, unknown>,
  there: Record<string, unknown>,
): { title: string; here: string; there: string }[] {
  const properties = (kind.settings as { properties: Record<string, Described> }).properties;
  return Object.entries(properties).flatMap(([name, setting]) => {
    const [a, b] = [here[name] ?? setting.default, there[name] ?? setting.default];
    if (JSON.stringify(a) === JSON.stringify(b)) return [];
    return [{ title: setting.title ?? name, here: inWords(setting, a), there: inWords(setting, b) }];
  });
}

const LONGEST = 60;
function inWords({ unit, labels }: Described, value: unknown): string {
  if (Array.isArray(value)) return value.map((v) => labels?.[String(v)] ?? String(v)).join(', ') || 'none';
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  const text = labels?.[String(value)] ?? String(value ?? '');
  const short = text.length > LONGEST ? `${text.slice(0, LONGEST)}…` : text;
  return short === '' ? 'empty' : unit ? `${short} ${unit}` : short;
}
