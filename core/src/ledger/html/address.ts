/** A text file of a result, with its path inside it. */
export interface TextFile {
  path: string;
  text: string;
}

/** The file and id that a reference inside a result leads to; null where it leads outside. */
export function resolve(from: string, href: string): { file: string; id: string } | null {
  if (/^[a-z][a-z0-9+.-]*:/i.test(href)) return null;
  const [path = '', id = ''] = href.split('#');
  if (!path) return { file: from, id };
  const parts = from.split('/').slice(0, -1);
  for (const part of decodeURIComponent(path).split('/')) {
    if (part === '..') parts.pop();
    else if (part !== '.') parts.push(part);
  }
  return { file: parts.join('/'), id };
}
