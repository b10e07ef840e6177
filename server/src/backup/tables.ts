/** What a backup holds, each table after those that it refers to. */
export const BACKED_UP = [
  'owners',
  'folios',
  'parts',
  'files',
  'edits',
  'fonts',
  'role_sets',
  'kept_recipes',
  'memory_units',
  'terms',
  'translation_jobs',
  'outbox',
  'notices',
  'signing_keys',
  'published_sites',
  'published_versions',
  'collected',
  'first_start',
] as const;

/** Results are made again from the recipes, which are parts of documents; which migrations there were is said in the backup's head. */
export const LEFT_OUT = ['runs', 'migrations'] as const;
