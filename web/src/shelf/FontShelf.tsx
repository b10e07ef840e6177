import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Button } from 'antd';
import { Trash2 } from 'lucide-react';
import { api } from '../api/client.ts';

/** The fonts that were added for all documents. */
export function FontShelf() {
  const client = useQueryClient();
  const fonts = useQuery({ queryKey: ['library'], queryFn: api.library }).data ?? [];
  const remove = async (id: string): Promise<void> => {
    await api.removeFont(id);
    await client.invalidateQueries();
  };
  if (!fonts.length) return null;
  return (
    <section aria-label="Font library">
      <h2>Fonts of your own</h2>
      <ul className="font-shelf">
        {fonts.map((f) => (
          <li key={f.id}>
            <span>
              {f.fullName}
              {!f.mayEmbed && <span className="soft"> · may not be carried along</span>}
            </span>
            <Button
              type="text"
              size="small"
              icon={<Trash2 size={14} />}
              aria-label={`Remove ${f.fullName}`}
              onClick={() => void remove(f.id)}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}
