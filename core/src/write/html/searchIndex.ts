import { parseFragment } from 'parse5';
import type { DefaultTreeAdapterMap } from 'parse5';
import type { Site } from './siteFiles.ts';

type Node = DefaultTreeAdapterMap['node'];

/** The file in which the text of a site is, for the search of its bar. */
export const INDEX_FILE = 'search.js';

/** The text of all pages as a script: a page that was opened from a folder may fetch scripts, but no other files. */
export function searchIndex(site: Site, bodies: ReadonlyMap<string, string>): string {
  const pages = site.files.flatMap((f) => f.slots.flat());
  const rows = pages.map(({ page }, i) => [i + 1, site.addressOf(page.id), readText(bodies.get(page.id)!)]);
  return `self.editionText=${JSON.stringify(rows)};\n`;
}

const BLOCKS = new Set(['p', 'h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'li', 'td', 'th', 'blockquote', 'div']);

/** What is read of a page's markup; what is only seen, or only said, is passed over, as the player's search does. */
function readText(markup: string): string {
  let out = '';
  const visit = (node: Node): void => {
    if (node.nodeName === '#text' && 'value' in node) out += node.value;
    if (!('childNodes' in node)) return;
    if ('attrs' in node) {
      const value = (name: string): string => node.attrs.find((a) => a.name === name)?.value ?? '';
      if (value('aria-hidden') === 'true' || /\b(said|script)\b/.test(value('class'))) return;
    }
    if (BLOCKS.has(node.nodeName)) out += '\n';
    node.childNodes.forEach(visit);
  };
  visit(parseFragment(markup));
  return out
    .replace(/\u00ad/g, '')
    .split('\n')
    .map((line) => line.replace(/\s+/g, ' ').trim())
    .filter(Boolean)
    .join(' ');
}
