import { z } from 'zod';
import { Id, Language } from './ids.ts';
import { Edition } from './edition.ts';
import { Head } from './head.ts';
import { Spread } from './spread.ts';
import { Story } from './story.ts';

/** The named, reusable settings of one output; `settings` is checked by that output's own schema. */
export const Recipe = z.object({
  id: Id,
  output: z.string(),
  version: z.number().int().min(1),
  name: z.string().min(1),
  settings: z.record(z.string(), z.unknown()),
  /** The language of the edition that it writes; the document’s own where nothing is said. */
  edition: Language.optional(),
});
export type Recipe = z.infer<typeof Recipe>;

/** One document, as immutable parts. */
export const Folio = z.object({
  head: Head,
  spreads: z.record(Id, Spread),
  stories: z.record(Id, Story),
  editions: z.record(z.string(), Edition).default({}),
  recipes: z.record(Id, Recipe).default({}),
});
export type Folio = z.infer<typeof Folio>;

/** Where each part lies in a package. */
export const partPath = {
  head: 'folio.json',
  spread: (id: string): string => `spreads/${id}.json`,
  story: (id: string): string => `stories/${id}.json`,
  edition: (language: string): string => `editions/${language}.json`,
  recipe: (id: string): string => `recipes/${id}.json`,
};
