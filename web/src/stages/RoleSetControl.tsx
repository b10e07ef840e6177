import { useState } from 'react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Button, Popconfirm } from 'antd';
import { BookmarkPlus, Trash2 } from 'lucide-react';
import { rolesByName, rolesFromSet } from '@elastic-folio/core';
import type { RoleSet } from '@elastic-folio/core';
import { api } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { NameToKeep } from '../shell/NameToKeep.tsx';

/** Keeps what the styles mean for the next document, and takes over what was kept where styles are called the same. */
export function RoleSetControl() {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const queries = useQueryClient();
  const [name, setName] = useState<string | null>(null);
  /** As it was folded or unfolded last; before that it shows itself where there is something to apply. */
  const [opened, setOpened] = useState<boolean | null>(null);
  const sets = useQuery({ queryKey: ['roleSets'], queryFn: api.roleSets }).data ?? [];
  const after = { onSuccess: () => queries.invalidateQueries({ queryKey: ['roleSets'] }) };
  const keep = useMutation({ mutationFn: api.keepRoleSet, ...after });
  const remove = useMutation({ mutationFn: api.removeRoleSet, ...after });
  const own = rolesByName(folio);
  const hasRoles = Object.keys(own.paragraph).length + Object.keys(own.character).length > 0;
  const changes = (set: RoleSet) => rolesFromSet(folio, set);
  const count = (set: RoleSet): number => Object.values(changes(set)).reduce((sum, roles) => sum + Object.keys(roles).length, 0);
  return (
    <details className="role-sets" open={opened ?? sets.some((s) => count(s) > 0)} onToggle={(e) => setOpened(e.currentTarget.open)}>
      <summary>Kept meanings{sets.length ? ` (${sets.length})` : ''}</summary>
      <ul>
        {sets.map((set) => {
          const differing = count(set);
          return (
            <li key={set.id} data-set={set.name}>
              <span>{set.name}</span>
              <Button size="small" disabled={!differing} onClick={() => change([{ kind: 'styles.roles', args: changes(set) }], newBurst())}>
                {differing ? `Apply to ${differing} ${differing === 1 ? 'style' : 'styles'}` : 'Nothing to apply'}
              </Button>
              <Popconfirm title={`Take away “${set.name}”?`} okText="Take away" cancelText="Keep" onConfirm={() => remove.mutate(set.id)}>
                <Button size="small" type="text" icon={<Trash2 size={14} />} aria-label={`Take away “${set.name}”`} />
              </Popconfirm>
            </li>
          );
        })}
      </ul>
      {name === null ? (
        <Button
          size="small"
          icon={<BookmarkPlus size={14} />}
          disabled={!hasRoles}
          onClick={() => setName(folio.head.metadata.title || 'Meanings')}
        >
          Keep these for other documents
        </Button>
      ) : (
        <NameToKeep label="Name to keep them under" name={name} onName={setName} onKeep={(text) => keep.mutate({ name: text, ...own })} />
      )}
      {keep.error && <small className="clay">{keep.error.message}</small>}
    </details>
  );
}
