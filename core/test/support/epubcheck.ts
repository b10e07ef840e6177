import { execFileSync } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Where Debian has the checker of EPUB 3.2. */
export const EPUBCHECK = '/usr/share/java/epubcheck.jar';

/** What EPUBCheck says of a book. Throws, with all it says, on errors and on warnings. */
export async function sayOfEpubcheck(book: Uint8Array): Promise<string> {
  const folder = await mkdtemp(join(tmpdir(), 'folio-book-'));
  const file = join(folder, 'book.epub');
  await writeFile(file, book);
  try {
    return execFileSync('java', ['-jar', EPUBCHECK, '--failonwarnings', file], { encoding: 'utf8', stdio: 'pipe' });
  } catch (error) {
    throw new Error((error as { stderr?: string }).stderr ?? String(error), { cause: error });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
