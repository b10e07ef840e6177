import { Input } from 'antd';
import type { InputProps } from 'antd';
import type { TextAreaProps } from 'antd/es/input';
import { useDraft } from './useDraft.ts';

interface Draft {
  value: string;
  /** Keeps what was typed; `burst` is the same until the field is left. */
  onKeep: (text: string, burst: string) => void;
}

/** A field whose words are kept while they are typed, and when it is left by any way. */
export function DraftInput({ value, onKeep, ...rest }: Omit<InputProps, 'value' | 'onChange' | 'onBlur'> & Draft) {
  const draft = useDraft(value, onKeep);
  return (
    <Input onPressEnter={(e) => e.currentTarget.blur()} {...rest} value={draft.value} onChange={draft.onChange} onBlur={draft.onBlur} />
  );
}

/** The same for words of several lines. */
export function DraftArea({ value, onKeep, ...rest }: Omit<TextAreaProps, 'value' | 'onChange' | 'onBlur'> & Draft) {
  const draft = useDraft(value, onKeep);
  return <Input.TextArea {...rest} value={draft.value} onChange={draft.onChange} onBlur={draft.onBlur} />;
}
