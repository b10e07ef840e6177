import type { z } from 'zod';
import { Folio } from '../folio/folio.ts';
import { Id } from '../folio/ids.ts';

type Mapping = (id: string) => string;
/** What is looked into of a schema: its kind and what it is made of. */
interface Definition {
  type: string;
  innerType?: z.ZodType;
  element?: z.ZodType;
  keyType?: z.ZodType;
  valueType?: z.ZodType;
  items?: z.ZodType[];
  options?: z.ZodType[];
  discriminator?: string;
  shape?: Record<string, z.ZodType>;
}

/** A document with other ids: wherever its schema says that an id stands, as a value or as a key. */
export function mapIds(folio: Folio, map: Mapping): Folio {
  const mapped = walk(Folio, folio, map) as Folio;
  // Own versions of master items are kept under `page/item`.
  for (const spread of Object.values(mapped.spreads))
    spread.masterOverrides = Object.fromEntries(
      Object.entries(spread.masterOverrides).map(([key, item]) => [key.split('/').map(map).join('/'), item]),
    );
  return mapped;
}

/** All ids that stand somewhere in a document, where they are references too. */
export function idsIn(part: unknown, schema: z.ZodType = Folio): Set<string> {
  const seen = new Set<string>();
  walk(schema, part, (id) => (seen.add(id), id));
  return seen;
}

const definitionOf = (schema: z.ZodType): Definition => (schema as unknown as { _zod: { def: Definition } })._zod.def;

function walk(schema: z.ZodType, value: unknown, map: Mapping): unknown {
  if (schema === Id) return typeof value === 'string' ? map(value) : value;
  const def = definitionOf(schema);
  if (value === undefined || value === null) return value;
  switch (def.type) {
    case 'object': {
      const out: Record<string, unknown> = { ...(value as Record<string, unknown>) };
      for (const [key, inner] of Object.entries(def.shape!)) if (out[key] !== undefined) out[key] = walk(inner, out[key], map);
      return out;
    }
    case 'record': {
      const keys = def.keyType === Id;
      return Object.fromEntries(
        Object.entries(value as Record<string, unknown>).map(([k, v]) => [keys ? map(k) : k, walk(def.valueType!, v, map)]),
      );
    }
    case 'array':
      return (value as unknown[]).map((v) => walk(def.element!, v, map));
    case 'tuple':
      return (value as unknown[]).map((v, i) => (def.items![i] ? walk(def.items![i], v, map) : v));
    case 'union': {
      const option = optionFor(def, value);
      return option ? walk(option, value, map) : value;
    }
    default:
      return def.innerType ? walk(def.innerType, value, map) : value;
  }
}

/** The alternative that a value is of: by its discriminator where there is one. */
function optionFor({ options = [], discriminator }: Definition, value: unknown): z.ZodType | undefined {
  if (discriminator === undefined) return options.find((o) => o.safeParse(value).success);
  const kind = (value as Record<string, unknown>)[discriminator];
  return options.find((o) => {
    const tag = definitionOf(o).shape?.[discriminator] as { _zod?: { values?: Set<unknown> } } | undefined;
    return tag?._zod?.values?.has(kind);
  });
}
