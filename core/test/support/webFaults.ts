import { parse as parseCss } from 'css-tree';
import { parse } from 'parse5';
import type { Made } from './samples.ts';

export const text = async (made: Made, path: string): Promise<string> => new TextDecoder().decode(await made.read(path));
export const htmlOf = (made: Made): string[] => made.paths.filter((p) => /^[^/]+\.html$/.test(p));

/** What parse5 and css-tree find wrong with an edition's files. */
export async function webFaults(made: Made): Promise<string[]> {
  const wrong: string[] = [];
  for (const path of htmlOf(made)) parse(await text(made, path), { onParseError: (e) => void wrong.push(`${path}: ${e.code}`) });
  parseCss(await text(made, 'style.css'), { onParseError: (e: Error) => void wrong.push(`style.css: ${e.message}`) });
  return wrong;
}

/** Files that an edition's HTML names and that are not there. */
export async function missingFiles(made: Made): Promise<string[]> {
  const missing = new Set<string>();
  for (const path of htmlOf(made)) {
    const html = await text(made, path);
    const named = [
      ...[...html.matchAll(/<(?:a|link|script|img|video|audio|source|track|iframe)\b[^>]*?\s(?:src|href|poster)="([^"#]+)/g)].map(
        (m) => m[1]!,
      ),
      ...[...html.matchAll(/srcset="([^"]+)"/g)].flatMap((m) => m[1]!.split(',').map((s) => s.trim().split(' ')[0]!)),
    ];
    for (const name of named) if (!/^[a-z][a-z0-9+.-]*:/i.test(name) && !made.paths.includes(decodeURIComponent(name))) missing.add(name);
  }
  return [...missing];
}
