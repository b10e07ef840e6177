import { AutoComplete } from 'antd';
import { Language } from '@elastic-folio/core';

/** Languages that are offered by name; any tag can be written (BCP 47). */
const OFFERED = 'en de fr es it nl pt pl cs sv da fi la el ru uk tr ar he ja zh ko'.split(' ');
const names = new Intl.DisplayNames(['en'], { type: 'language' });
const options = OFFERED.map((value) => ({ value, label: `${names.of(value)} (${value})` }));

interface Props {
  label: string;
  /** What is chosen; undefined where that of what is around it holds. */
  value: string | undefined;
  around: string;
  onLanguage: (language: string | null) => void;
}

/** A language by its name or tag, or none of its own. */
export function LanguageChoice({ label, value, around, onLanguage }: Props) {
  const set = (text: string): void => {
    const tag = text.trim();
    if (tag !== (value ?? '') && (!tag || Language.safeParse(tag).success)) onLanguage(tag || null);
  };
  return (
    <AutoComplete
      size="small"
      aria-label={label}
      // Made anew when it changes from elsewhere, by undo for one.
      key={value ?? ''}
      defaultValue={value}
      placeholder={around}
      allowClear
      options={options}
      onClear={() => set('')}
      onSelect={set}
      onBlur={(e) => set((e.target as HTMLInputElement).value)}
    />
  );
}
