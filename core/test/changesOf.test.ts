import { describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { z } from 'zod';
import { applyEdit, EDITS } from '../src/index.ts';
import type { Edit, EditArgs, Folio } from '../src/index.ts';
import * as api from '../src/api/index.ts';
import { newEdition } from '../src/language/index.ts';
import { tinyFolio } from './support/tinyFolio.ts';

const metadata: Folio['head']['metadata'] = {
  title: 'The Marrowby Almanac',
  language: 'de',
  creators: ['Ada Fenn', 'Tobit Hale'],
  publisher: 'Marrowby Hill Observatory',
  identifier: 'urn:marrowby:1',
  rights: 'All rights reserved',
  description: 'Sixteen pages',
  subjects: ['sky', 'season'],
  cover: 'dome',
};
const folio: Folio = produce(tinyFolio(['one']), (d) => {
  d.head.metadata = metadata;
  d.editions['ja'] = newEdition('ja');
  d.editions['ja'].overrides = {
    ...d.editions['ja'].overrides,
    fonts: { serif: { family: 'Noto Serif JP' } },
    italics: 'upright',
    links: { 't/a': 'https://marrowby.example/ja' },
    tightened: { t: { tracking: -5, wordSpace: 0.9, size: 1, leading: 1 } },
  };
});
const after = (edit: Edit): Folio => applyEdit(folio, edit).folio;

describe('a change of one field', () => {
  test.each(Object.entries({ ...metadata, title: 'New', language: 'fr', creators: [], description: 'Other', cover: 'moon' }))(
    'of the metadata leaves the others: %s',
    (key, value) =>
      expect(after({ kind: 'document.metadata', args: { [key]: value } }).head.metadata).toEqual({ ...metadata, [key]: value }),
  );

  test('that is null removes what may be absent, and nothing else', () => {
    const rest: Partial<typeof metadata> = { ...metadata };
    delete rest.cover;
    expect(after({ kind: 'document.metadata', args: { cover: null } }).head.metadata).toEqual(rest);
    expect(() => after({ kind: 'document.metadata', args: { title: null } as unknown as EditArgs<'document.metadata'> })).toThrow(
      z.ZodError,
    );
  });

  test.each([
    ['italics', 'bold'],
    ['fonts', {}],
    ['tightened', {}],
    ['pictures', { f1: { media: 'moon' } }],
  ])('of an edition leaves the others: %s', (key, value) => {
    const before = folio.editions['ja']!;
    const changed = after({ kind: 'edition.settings', args: { language: 'ja', overrides: { [key]: value } } }).editions['ja']!;
    expect(changed).toEqual({ ...before, overrides: { ...before.overrides, [key]: value } });
  });
});

/** Where a schema has a default behind a field that may be absent: an absent field would come out as that default. */
function defaultsOfAbsentFields(schema: z.core.$ZodType, path = '', seen = new Set<z.core.$ZodType>()): string[] {
  if (seen.has(schema)) return [];
  seen.add(schema);
  const def = schema._zod.def as unknown as Record<string, unknown> & { type: string };
  if (def.type === 'optional' && ['default', 'prefault'].includes((def['innerType'] as z.core.$ZodType)._zod.def.type)) return [path];
  const inner: [string, z.core.$ZodType][] = [];
  if (def['shape']) inner.push(...(Object.entries(def['shape'] as object) as [string, z.core.$ZodType][]));
  for (const key of ['innerType', 'element', 'keyType', 'valueType', 'left', 'right', 'in', 'out'])
    if (def[key]) inner.push([key, def[key] as z.core.$ZodType]);
  for (const key of ['options', 'items']) for (const one of (def[key] as z.core.$ZodType[] | undefined) ?? []) inner.push([key, one]);
  return inner.flatMap(([key, one]) => defaultsOfAbsentFields(one, `${path}/${key}`, seen));
}

describe('no schema resets what is not mentioned', () => {
  test('the search finds what it looks for', () => {
    const bad = z.object({ list: z.array(z.object({ a: z.string().default('x'), b: z.number() }).partial()) });
    expect(defaultsOfAbsentFields(bad)).toEqual(['/list/element/a']);
  });
  test.each(EDITS.map((e) => [e.kind, e.args] as const))('%s', (_, args) => expect(defaultsOfAbsentFields(args)).toEqual([]));
  test.each(Object.entries(api as Record<string, unknown>).filter((e): e is [string, z.ZodType] => e[1] instanceof z.ZodType))(
    '%s of the API',
    (_, schema) => expect(defaultsOfAbsentFields(schema)).toEqual([]),
  );
});
