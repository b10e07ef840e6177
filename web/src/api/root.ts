/** A translator’s address holds the key to one job: the server answers under it, and for that job only. */
const guest = /^\/t\/[^/]+/.exec(globalThis.location?.pathname ?? '')?.[0];

/** Where the server answers. */
export const API_ROOT = `${guest ?? ''}/api`;
