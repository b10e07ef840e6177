/**
 * The full matrices (every output, every sample, every setting) take most of an hour. `npm run test:all` runs them, and so does a test
 * file that is run on its own. `npm test` says a day, and takes a share of each that moves on from day to day until all have had their
 * turn; outputs that were changed of late take part in any case.
 */
const DAY = process.env['FOLIO_TEST_DAY'] === undefined ? null : Number(process.env['FOLIO_TEST_DAY']);
const TOUCHED = new Set((process.env['FOLIO_TEST_TOUCHED'] ?? '').split(',').filter(Boolean));

/** So many of a list, others each day; and whatever of it concerns an output that was changed. */
export function ofToday<T>(all: readonly T[], take: number, outputOf: (one: T) => string = () => ''): T[] {
  if (DAY === null || take >= all.length) return [...all];
  const chosen = new Set(Array.from({ length: take }, (_, k) => (DAY * take + k) % all.length));
  return all.filter((one, i) => chosen.has(i) || TOUCHED.has(outputOf(one)));
}
