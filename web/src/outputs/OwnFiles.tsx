import { useState } from 'react';
import { Button, Select, Upload } from 'antd';
import { Plus, X } from 'lucide-react';
import { bringIn } from '../document/bringIn.ts';
import { useDocument } from '../document/documentStore.ts';
import { SortableList } from '../stages/SortableList.tsx';

type Own = { media: string; as: string };

/** Files that a web edition gets besides its own: in the order in which pages load them, each with its place. */
export function OwnFiles({ value, labels, onChange }: { value: Own[]; labels: Record<string, string>; onChange: (files: Own[]) => void }) {
  const id = useDocument((s) => s.id)!;
  const media = useDocument((s) => s.folio!.head.media);
  const complain = useDocument((s) => s.complain);
  const [busy, setBusy] = useState(false);
  const nameOf = (m: string): string => media[m]?.name ?? `${m} (not in the document any more)`;
  const add = async (file: File): Promise<void> => {
    setBusy(true);
    try {
      const added = await bringIn(id, file, /./);
      if (added === null || value.some((f) => f.media === added)) return;
      onChange([...value, { media: added, as: /\.css$/i.test(file.name) ? 'head' : /\.js$/i.test(file.name) ? 'end' : 'beside' }]);
    } catch (error) {
      complain((error as Error).message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <SortableList
        ids={value.map((f) => f.media)}
        nameOf={nameOf}
        className="own-files"
        onOrder={(ids) => onChange(ids.map((m) => value.find((f) => f.media === m)!))}
      >
        {(m) => (
          <>
            <span className="own-name">{nameOf(m)}</span>
            <Select
              size="small"
              aria-label={`Where ${nameOf(m)} comes`}
              value={value.find((f) => f.media === m)!.as}
              onChange={(as) => onChange(value.map((f) => (f.media === m ? { ...f, as } : f)))}
              options={Object.entries(labels).map(([v, label]) => ({ value: v, label }))}
            />
            <Button
              type="text"
              size="small"
              icon={<X size={13} />}
              aria-label={`Leave out ${nameOf(m)}`}
              onClick={() => onChange(value.filter((f) => f.media !== m))}
            />
          </>
        )}
      </SortableList>
      <Upload
        accept=".css,.js,.json,.txt,.xml,image/png,image/jpeg,image/webp,.mp3,.mp4,.webm"
        showUploadList={false}
        beforeUpload={(file) => {
          void add(file);
          return false;
        }}
      >
        <Button size="small" icon={<Plus size={13} />} loading={busy}>
          Add a file
        </Button>
      </Upload>
    </>
  );
}
