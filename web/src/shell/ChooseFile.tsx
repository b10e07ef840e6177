import { useRef } from 'react';

interface Props {
  /** What the field is called to screen readers. */
  label: string;
  /** Endings of files that are of use. */
  accept: string;
  asks: string;
  says: string;
  reading: boolean;
  onFile: (file: File) => void;
}

/** A place for one file: dropped on it, or chosen by pressing it. */
export function ChooseFile({ label, accept, asks, says, reading, onFile }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const take = (file: File | undefined): void => void (file && onFile(file));
  return (
    <div className="bring-in" onDragOver={(e) => e.preventDefault()} onDrop={(e) => (e.preventDefault(), take(e.dataTransfer.files[0]))}>
      <input
        ref={input}
        type="file"
        accept={accept}
        hidden
        aria-label={label}
        onChange={(e) => (take(e.target.files?.[0]), (e.target.value = ''))}
      />
      <button className="bring-button" disabled={reading} onClick={() => input.current?.click()}>
        <b>{asks}</b>
        <span>{says}</span>
      </button>
    </div>
  );
}
