import type { Folio } from '../folio/folio.ts';
import type { RoleSet } from '../folio/roleSet.ts';
import { same } from '../folio/same.ts';
import type { Role } from '../folio/styles.ts';

const folded = (name: string): string => name.trim().toLowerCase();

/** The roles of a document’s styles, by the styles’ names. */
export function rolesByName({ head }: Pick<Folio, 'head'>): Pick<RoleSet, 'paragraph' | 'character'> {
  const of = (styles: Record<string, { name: string; role?: Role | undefined }>): Record<string, Role> =>
    Object.fromEntries(Object.values(styles).flatMap((s) => (s.role ? [[s.name, s.role] as const] : [])));
  return { paragraph: of(head.paragraphStyles), character: of(head.characterStyles) };
}

/** What a set would change in a document: roles by the ids of styles that are called as in the set and mean something else, or nothing yet. */
export function rolesFromSet({ head }: Pick<Folio, 'head'>, set: Pick<RoleSet, 'paragraph' | 'character'>) {
  const of = (styles: Record<string, { id: string; name: string; role?: Role | undefined }>, roles: Record<string, Role>) => {
    const known = new Map(Object.entries(roles).map(([name, role]) => [folded(name), role]));
    return Object.fromEntries(
      Object.values(styles).flatMap((s): [string, Role][] => {
        const role = known.get(folded(s.name));
        return role && !same(role, s.role) ? [[s.id, role]] : [];
      }),
    );
  };
  return { paragraph: of(head.paragraphStyles, set.paragraph), character: of(head.characterStyles, set.character) };
}
