import { z } from 'zod';
import { RoleSet } from '@elastic-folio/core';
import type { Services } from '../services.ts';
import type { Api } from './route.ts';

/** Sets of roles that a user keeps for all documents. */
export function roleSetRoutes(api: Api, s: Services): void {
  api.route({ method: 'get', path: '/role-sets', says: 'The sets of roles that are kept', answer: z.array(RoleSet) }, () =>
    s.roleSets.list(),
  );

  api.route(
    {
      method: 'post',
      path: '/role-sets',
      says: 'Keep a set of roles; one of the same name gives way',
      body: RoleSet.omit({ id: true }),
      answer: RoleSet,
    },
    ({ body }) => s.roleSets.keep(body),
  );

  api.route(
    {
      method: 'delete',
      path: '/role-sets/:set',
      says: 'Take a kept set of roles away',
      params: z.object({ set: z.string() }),
      answer: z.object({}),
    },
    async ({ params: p }) => {
      await s.roleSets.remove(p.set);
      return {};
    },
  );
}
