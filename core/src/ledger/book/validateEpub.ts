import type { Folio } from '../../folio/folio.ts';
import type { Evidence } from '../entry.ts';
import { unzip } from '../../packages/unzip.ts';

/** A rule of the standard that a book breaks, with the paragraph in whose markup it does. */
export interface BookProblem {
  code: string;
  says: string;
  file: string;
  paragraph: string | null;
}

/** Checks a book against the rules of EPUB 3.3, by a checker that others made. Errors and warnings count alike. */
export async function validateEpub(bytes: Uint8Array, paragraphs: ReadonlySet<string>): Promise<BookProblem[]> {
  const { EpubCheck } = await import('@likecoin/epubcheck-ts');
  const { messages } = await EpubCheck.validate(bytes);
  const broken = messages.filter((m) => m.severity === 'fatal' || m.severity === 'error' || m.severity === 'warning');
  if (!broken.length) return [];
  const files = await unzip(bytes);
  return broken.map((m) => {
    const text = m.location?.path === undefined ? undefined : files.get(m.location.path);
    return {
      code: m.id,
      says: m.message,
      file: m.location?.path ?? '',
      paragraph: text && m.location?.line !== undefined ? lastNamed(new TextDecoder().decode(text), m.location.line, paragraphs) : null,
    };
  });
}

/** The paragraph whose element was the last to begin by a line of a file. */
function lastNamed(text: string, line: number, paragraphs: ReadonlySet<string>): string | null {
  const before = text.split('\n').slice(0, line).join('\n');
  const ids = [...before.matchAll(/\sid="([^"]+)"/g)].map((m) => m[1]!).reverse();
  for (const id of ids) for (const known of [id, id.replace(/^[a-z]-/, '')]) if (paragraphs.has(known)) return known;
  return null;
}

/** Broken rules as evidence: at their paragraph, or at the whole document. */
export function problemsAsEvidence(folio: Folio, problems: readonly BookProblem[]): Evidence[] {
  return problems.map(({ code, says, file, paragraph }) => ({
    subject: paragraph ? { kind: 'paragraph', id: paragraph, aspect: 'text' } : { kind: 'document', id: folio.head.id, aspect: 'order' },
    agrees: false,
    says: `${file}: ${says} (${code})`,
  }));
}
