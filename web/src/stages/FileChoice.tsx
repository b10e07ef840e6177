import { useState } from 'react';
import { Button, Select, Upload } from 'antd';
import { Plus } from 'lucide-react';
import { useDocument } from '../document/documentStore.ts';
import { bringIn } from '../document/bringIn.ts';

/** Kinds of files: how their types begin, and what a person may choose from disk. */
const KINDS = {
  picture: { types: /^image\//, accept: 'image/png,image/jpeg,image/webp' },
  played: { types: /^(video|audio)\//, accept: '.mp3,.m4a,.ogg,.oga,.wav,.mp4,.m4v,.webm,.ogv' },
  captions: { types: /^text\/vtt$/, accept: '.vtt' },
  bundle: { types: /^application\/zip$/, accept: '.zip' },
} as const;

interface Props {
  words: string;
  name: string;
  of: keyof typeof KINDS;
  value: string | undefined;
  /** What is said where no file is chosen. */
  none?: string;
  onChange: (media: string | undefined) => void;
}

/** One of the document's files, or a new one from disk. */
export function FileChoice({ words, name, of, value, none = 'none', onChange }: Props) {
  const id = useDocument((s) => s.id)!;
  const media = useDocument((s) => s.folio!.head.media);
  const complain = useDocument((s) => s.complain);
  const [busy, setBusy] = useState(false);
  const { types, accept } = KINDS[of];
  const add = async (file: File): Promise<void> => {
    setBusy(true);
    try {
      const added = await bringIn(id, file, types);
      if (added === null) return complain(`“${file.name}” is not of the kind that is needed here.`);
      onChange(added);
    } catch (error) {
      complain((error as Error).message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <label>
      {words}
      <span className="in-row">
        <Select
          aria-label={name}
          showSearch={{ optionFilterProp: 'label' }}
          allowClear
          placeholder={none}
          value={value ?? null}
          onChange={(v) => onChange(v ?? undefined)}
          options={Object.values(media)
            .filter((m) => types.test(m.mediaType))
            .map((m) => ({ value: m.id, label: m.name }))}
        />
        <Upload
          accept={accept}
          showUploadList={false}
          beforeUpload={(file) => {
            void add(file);
            return false;
          }}
        >
          <Button size="small" icon={<Plus size={13} />} loading={busy} aria-label={`Add a file: ${name}`} />
        </Upload>
      </span>
    </label>
  );
}
