/** What a setting's schema says of it, as far as its values are told in words. */
export interface DescribedSetting {
  title?: string;
  default?: unknown;
  unit?: string;
  labels?: Record<string, string>;
}

/** Longer texts are not told whole. */
const LONGEST = 60;

/** A setting's value in the words of its control. */
export function inWords({ unit, labels }: DescribedSetting, value: unknown): string {
  if (Array.isArray(value)) {
    const one = (v: unknown): string =>
      typeof v === 'object' && v !== null ? Object.values(v).map(one).join(' ') : (labels?.[String(v)] ?? String(v));
    return value.map(one).join(', ') || 'none';
  }
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  const text = labels?.[String(value)] ?? String(value ?? '');
  const short = text.length > LONGEST ? `${text.slice(0, LONGEST)}…` : text;
  return short === '' ? 'empty' : unit ? `${short} ${unit}` : short;
}
