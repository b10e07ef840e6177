import { z } from 'zod';

/** Whether every object has something of this name already, as `constructor`: nothing can be called so. */
export const isInherited = (name: string): boolean => name in Object.prototype;

/**
 * A stable name for anything that can be pointed at. Ids become file names inside a package and
 * fragments of addresses, so they hold only letters, digits, `_`, `-` and inner dots.
 */
export const Id = z
  .string()
  .regex(/^[A-Za-z0-9_][A-Za-z0-9_-]*(\.[A-Za-z0-9_-]+)*$/, 'may have letters, digits, _ and - only')
  .max(80)
  .refine((id) => !isInherited(id), 'is no name that can be used');
export type Id = z.infer<typeof Id>;

/** An id as XML has it: a letter or `_` first, then letters, digits, `.`, `-`, `_` (XML Schema, NCName). */
export const nameInXml = (id: string): string => id.replace(/[^\w.-]/g, '_').replace(/^(?![A-Za-z_])/, '_');

/** BCP 47 language tag, loosely checked (RFC 5646 section 2.1). */
export const Language = z
  .string()
  .regex(/^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/, 'must be a language tag such as en or de-AT')
  .refine((tag) => !isInherited(tag), 'is no language');
export type Language = z.infer<typeof Language>;
