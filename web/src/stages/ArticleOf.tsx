import { useQuery } from '@tanstack/react-query';
import { Button, Tooltip } from 'antd';
import { FileCode2 } from 'lucide-react';
import { useNavigate } from 'react-router';
import { api } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { newRecipe } from '../outputs/newRecipe.ts';

/** Makes a recipe of a plain article in which only some things go, and leads to it. */
export function ArticleOf({ items, what }: { items: readonly string[]; what: string }) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const navigate = useNavigate();
  const kinds = useQuery({ queryKey: ['kinds'], queryFn: api.outputKinds, staleTime: Infinity }).data;
  const article = kinds?.find((k) => k.id === 'article');
  if (!article) return null;
  return (
    <Tooltip title={`A plain article of ${what} alone, as an output of its own`}>
      <Button
        type="text"
        size="small"
        icon={<FileCode2 size={14} />}
        aria-label={`Make an article of ${what}`}
        onClick={() => {
          const edit = newRecipe(folio, article, { only: items.join(' ') });
          change([edit], newBurst());
          void navigate(`../outputs?output=${edit.args.id}`);
        }}
      />
    </Tooltip>
  );
}
