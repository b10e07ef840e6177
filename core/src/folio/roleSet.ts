import { z } from 'zod';
import { Id } from './ids.ts';
import { Role } from './styles.ts';

/** What styles mean, kept under a name for the next document whose styles are called the same. Roles by the names of styles. */
export const RoleSet = z.object({
  id: Id,
  name: z.string().trim().min(1).max(120),
  paragraph: z.record(z.string().max(500), Role),
  character: z.record(z.string().max(500), Role),
});
export type RoleSet = z.infer<typeof RoleSet>;
