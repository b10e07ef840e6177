import { z } from 'zod';

type Changed<T> = T extends z.ZodDefault<infer Inner> | z.ZodPrefault<infer Inner>
  ? Inner
  : T extends z.ZodOptional<infer Inner>
    ? z.ZodNullable<Inner>
    : T;
type Changes<Shape extends z.ZodRawShape> = z.ZodObject<{ [K in keyof Shape]: z.ZodOptional<Changed<Shape[K]>> }, z.core.$strip>;

/**
 * The schema of a change to some fields of an object. A field that is absent stays as it is; `null` removes an optional one.
 * Zod's own `partial()` keeps the defaults of fields, so that a change of one field would reset all the others.
 */
export function changesOf<Shape extends z.ZodRawShape>(schema: z.ZodObject<Shape, z.core.$strip>): Changes<Shape> {
  const shape = Object.entries(schema.shape as unknown as Record<string, z.ZodType>).map(([key, field]) => {
    if (field instanceof z.ZodDefault || field instanceof z.ZodPrefault) return [key, z.optional(field.unwrap() as z.ZodType)];
    return [key, field instanceof z.ZodOptional ? z.optional(z.nullable(field.unwrap() as z.ZodType)) : z.optional(field)];
  });
  return z.object(Object.fromEntries(shape)) as unknown as Changes<Shape>;
}

/** Makes a change in place; `holder` is a draft or a plain object with the fields of the schema that `changes` was made from. */
export function change(holder: object, changes: Record<string, unknown>): void {
  const fields = holder as Record<string, unknown>;
  for (const [key, value] of Object.entries(changes)) {
    if (value === null) delete fields[key];
    else if (value !== undefined) fields[key] = value;
  }
}
