/** What the operating system and the databases say of a disk that takes nothing more (PostgreSQL 15, appendix A: 53100). */
const FULL = new Set(['ENOSPC', 'EDQUOT', '53100']);
const CLOSED = new Set(['EROFS', 'EACCES', 'EPERM', '25006']);

/** Which fault of the disk an error is, if it is one. */
export function diskFault(error: unknown): 'full' | 'closed' | null {
  const { code, message = '' } = error as { code?: string; message?: string };
  if ((code !== undefined && FULL.has(code)) || /no space left on device|disk quota exceeded/i.test(message)) return 'full';
  if ((code !== undefined && CLOSED.has(code)) || /read-only file system/i.test(message)) return 'closed';
  return null;
}

export const DISK_WORDS = {
  full: {
    message: 'The disk is full: nothing can be saved just now.',
    advice: 'Make room on it; what you do here is kept until then.',
  },
  closed: {
    message: 'The data folder cannot be written to: its disk is read-only, or it belongs to another user.',
    advice: 'Make it writable, or set FOLIO_DATA to another folder.',
  },
} as const;

/** An error at the start, in words for whoever started the program. */
export function inPlainWords(error: Error): string {
  const fault = diskFault(error);
  return fault
    ? `${DISK_WORDS[fault].message} ${fault === 'full' ? 'Make room on it, then start again.' : DISK_WORDS[fault].advice}`
    : error.message;
}
