import { InputNumber } from 'antd';

interface Props {
  /** What stands before the number, and what the field is called. */
  words: string;
  name: string;
  value: number | null;
  onChange: (seconds: number | null) => void;
  min?: number;
  max?: number;
  step?: number;
  placeholder?: string;
}

/** A time in seconds, with the words that lead to it. */
export function Seconds({ words, name, min = 0, max = 10, step = 0.1, ...rest }: Props) {
  return (
    <label>
      {words}
      <InputNumber aria-label={name} min={min} max={max} step={step} suffix="s" {...rest} />
    </label>
  );
}
