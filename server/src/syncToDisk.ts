import { closeSync, fsyncSync, openSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

/** Writes a file, or the entries of a folder, through to the disk. */
export function syncPath(path: string): void {
  const descriptor = openSync(path, 'r');
  try {
    fsyncSync(descriptor);
  } finally {
    closeSync(descriptor);
  }
}

/** Writes everything in a folder through to the disk. */
export function syncFolder(folder: string): void {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) syncFolder(path);
    else if (entry.isFile()) syncPath(path);
  }
  syncPath(folder);
}
