/**
 * Each worker of the browser tests has an application of its own: a server with a database, results and guests at ports that follow
 * one another. Playwright numbers its workers from 0.
 */
const FIRST_PORT = 4780;
const PORTS_EACH = 20;

export const portOf = (worker: number): number => FIRST_PORT + worker * PORTS_EACH;
/** The port of this worker's application. */
export const PORT = portOf(Number(process.env['TEST_PARALLEL_INDEX'] ?? 0));
export const ORIGIN = `http://127.0.0.1:${PORT}`;
