import { Input } from 'antd';

/** Asks for the name under which something is kept for other documents; Escape, or no name, keeps nothing. */
export function NameToKeep({ label, name, onName, onKeep }: NameToKeepProps) {
  return (
    <Input.Search
      size="small"
      autoFocus
      aria-label={label}
      enterButton="Keep"
      maxLength={120}
      value={name}
      onChange={(e) => onName(e.target.value)}
      onSearch={(text) => {
        if (text.trim()) onKeep(text.trim());
        onName(null);
      }}
      onKeyDown={(e) => e.key === 'Escape' && onName(null)}
    />
  );
}

interface NameToKeepProps {
  label: string;
  name: string;
  onName: (name: string | null) => void;
  onKeep: (name: string) => void;
}
