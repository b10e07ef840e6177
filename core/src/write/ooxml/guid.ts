import { createHash } from 'node:crypto';

/** An id as the office formats have it (ISO/IEC 29500-1, 22.9.2.4, ST_Guid), always the same for the same name. */
export function guidOf(name: string): string {
  const hex = createHash('sha256').update(name).digest('hex').toUpperCase();
  return `{${[hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20, 32)].join('-')}}`;
}
