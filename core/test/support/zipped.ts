import { zipSync } from 'fflate';

/** Files as a zip again, in their order; the media type of an e-book is not packed. */
export const zipped = (files: ReadonlyMap<string, Uint8Array>): Uint8Array =>
  zipSync(Object.fromEntries([...files].map(([path, bytes]) => [path, [bytes, { level: path === 'mimetype' ? 0 : 6 }]])));
