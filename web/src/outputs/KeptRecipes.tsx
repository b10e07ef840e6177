import { useState } from 'react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Button, Input, Popconfirm, Tooltip } from 'antd';
import { BookmarkPlus, Download, GitCompare, Trash2 } from 'lucide-react';
import type { Recipe } from '@elastic-folio/core';
import type { OutputKind } from '@elastic-folio/core/api';
import { api } from '../api/client.ts';
import { NameToKeep } from '../shell/NameToKeep.tsx';
import { differences } from './recipeDifferences.ts';

interface Props {
  recipe: Recipe;
  /** The settings as they are in the sheet now. */
  values: Record<string, unknown>;
  kind: OutputKind;
  onApply: (values: Record<string, unknown>) => void;
}

/** Recipes that are kept for all documents: taken over, compared with this one, called otherwise, taken away; and this one as a file. */
export function KeptRecipes({ recipe, values, kind, onApply }: Props) {
  const queries = useQueryClient();
  const [name, setName] = useState<string | null>(null);
  const [compared, setCompared] = useState<string | null>(null);
  const kept = (useQuery({ queryKey: ['keptRecipes'], queryFn: api.keptRecipes }).data ?? []).filter((r) => r.output === kind.id);
  const after = { onSuccess: () => queries.invalidateQueries({ queryKey: ['keptRecipes'] }) };
  const keep = useMutation({ mutationFn: api.keepRecipe, ...after });
  const rename = useMutation({ mutationFn: api.renameRecipe, ...after });
  const remove = useMutation({ mutationFn: api.removeRecipe, ...after });
  const file = { output: kind.id, version: kind.version, name: recipe.name, settings: values };
  const problem = keep.error ?? rename.error ?? remove.error;
  return (
    <details className="kept-recipes">
      <summary>Kept recipes{kept.length ? ` (${kept.length})` : ''}</summary>
      <ul>
        {kept.map((r) => {
          const other = differences(kind, values, r.settings);
          return (
            <li key={r.id} data-recipe={r.name}>
              <Input
                size="small"
                variant="borderless"
                aria-label={`Name of the kept recipe “${r.name}”`}
                defaultValue={r.name}
                maxLength={120}
                onBlur={(e) => {
                  const text = e.target.value.trim();
                  if (text && text !== r.name) rename.mutate({ id: r.id, name: text });
                }}
                onPressEnter={(e) => e.currentTarget.blur()}
              />
              <Button size="small" disabled={!other.length} onClick={() => onApply(r.settings)}>
                {other.length ? 'Apply' : 'The same'}
              </Button>
              <Tooltip title="What is different">
                <Button
                  size="small"
                  type="text"
                  icon={<GitCompare size={14} />}
                  disabled={!other.length}
                  aria-label={`What is different in “${r.name}”`}
                  aria-expanded={compared === r.id}
                  onClick={() => setCompared(compared === r.id ? null : r.id)}
                />
              </Tooltip>
              <Popconfirm title={`Take away “${r.name}”?`} okText="Take away" cancelText="Keep" onConfirm={() => remove.mutate(r.id)}>
                <Button size="small" type="text" icon={<Trash2 size={14} />} aria-label={`Take away “${r.name}”`} />
              </Popconfirm>
              {compared === r.id && other.length > 0 && (
                <table className="differences">
                  <thead>
                    <tr>
                      <th scope="col">Setting</th>
                      <th scope="col">Here</th>
                      <th scope="col">There</th>
                    </tr>
                  </thead>
                  <tbody>
                    {other.map((d) => (
                      <tr key={d.title}>
                        <th scope="row">{d.title}</th>
                        <td>{d.here}</td>
                        <td>{d.there}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              )}
            </li>
          );
        })}
      </ul>
      {name === null ? (
        <div className="in-row">
          <Button size="small" icon={<BookmarkPlus size={14} />} onClick={() => setName(recipe.name)}>
            Keep this for other documents
          </Button>
          <Button
            size="small"
            icon={<Download size={14} />}
            href={`data:application/json;charset=utf-8,${encodeURIComponent(`${JSON.stringify(file, null, 2)}\n`)}`}
            download={`${recipe.name.replace(/[^\p{L}\p{N}]+/gu, '-')}.recipe.json`}
          >
            As a file
          </Button>
        </div>
      ) : (
        <NameToKeep label="Name to keep it under" name={name} onName={setName} onKeep={(text) => keep.mutate({ ...file, name: text })} />
      )}
      {problem && <small className="clay">{problem.message}</small>}
    </details>
  );
}
