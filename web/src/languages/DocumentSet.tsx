import { useQueries, useQuery } from '@tanstack/react-query';
import { Button, Select } from 'antd';
import { Download } from 'lucide-react';
import type { Edit } from '@elastic-folio/core';
import type { OutputKind } from '@elastic-folio/core/api';
import { api } from '../api/client.ts';
import { API_ROOT } from '../api/root.ts';
import { useDocument } from '../document/documentStore.ts';
import { actorId, newBurst } from '../document/identity.ts';
import { newRecipe } from '../outputs/newRecipe.ts';
import { languageName } from './languageName.ts';

interface Props {
  language: string;
  kind: OutputKind;
  chosen: readonly string[];
  onChange: (documents: string[]) => void;
}

/** Documents that go out together, such as the chapters of a book: one count, and a file of each. */
export function DocumentSet({ language, kind, chosen, onChange }: Props) {
  const id = useDocument((s) => s.id)!;
  const shelf = (useQuery({ queryKey: ['shelf'], queryFn: api.shelf }).data ?? []).filter((d) => d.id !== id);
  const outputs = useQueries({
    queries: chosen.map((other) => ({
      queryKey: ['outputs', other],
      queryFn: () => api.outputs(other),
      refetchInterval: 1500,
    })),
  });
  if (!shelf.length) return null;
  return (
    <div className="document-set">
      <label>
        <span className="soft">Together with</span>
        <Select
          mode="multiple"
          size="small"
          aria-label="Together with"
          placeholder="no other document"
          value={[...chosen]}
          onChange={onChange}
          optionFilterProp="label"
          options={shelf.map((d) => ({ value: d.id, label: d.title }))}
        />
      </label>
      {chosen.map((other, i) => {
        const name = recipeName(kind, language);
        const made = outputs[i]?.data?.find((o) => o.output === kind.id && o.name === name);
        const title = shelf.find((d) => d.id === other)?.title ?? '';
        if (!made?.lastDone) return null;
        return (
          <Button key={other} size="small" icon={<Download size={13} />} href={`${API_ROOT}/runs/${made.lastDone.id}/result.zip`}>
            {title}
            {made.state === 'fresh' ? '' : ' (stale)'}
          </Button>
        );
      })}
    </div>
  );
}

const recipeName = (kind: OutputKind, language: string): string => `${kind.label}, ${languageName(language)}`;

/** Has the file of another document of the set made: with an edition where it has none, by the settings of this one. */
export async function makeForAnother(other: string, kind: OutputKind, language: string, settings: Record<string, unknown>): Promise<void> {
  const actor = actorId();
  const { seq, head, editions, recipes } = await api.open(other, actor);
  const name = recipeName(kind, language);
  const known = Object.values(recipes).find((r) => r.output === kind.id && r.name === name);
  // What is chosen by name is chosen in one document.
  const theirs = { ...settings, pages: '', strands: '', styles: '' };
  const recipe = known
    ? { kind: 'recipe.set' as const, args: { ...known, settings: theirs } }
    : newRecipe({ head, editions, recipes, spreads: {}, stories: {} }, kind, theirs, name);
  const edits: Edit[] = [...(editions[language] ? [] : [{ kind: 'edition.make' as const, args: { language } }]), recipe];
  const burst = newBurst();
  await api.edit(other, { base: seq, actor, edits: edits.map((edit) => ({ uid: crypto.randomUUID(), burst, edit })) });
  await api.run(other, recipe.args.id, actorId());
}
