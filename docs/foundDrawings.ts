// Writes docs/found-drawings.md: for every drawing and presentation found in Debian's packages, how alike a page is to its maker's
// own picture, and what was not taken over. `node scripts/run.mjs docs/foundDrawings.ts`
import { writeFileSync } from 'node:fs';
import { pagesOf } from '@elastic-folio/core';
import { readBytes } from '../core/test/odf/support/flatFile.ts';
import { foundFiles } from '../core/test/odf/support/foundFiles.ts';
import { likenessToThumbnail } from '../core/test/odf/support/likeness.ts';

const lines = [
  '# Drawings and presentations by other people',
  '',
  'Found inside Debian’s packages, read by Elastic Folio. *Likeness*: the page that was open when the file was saved against the picture of it that the maker’s own program left in',
  'the package, in 24 × 24 squares (1 is the same; in brackets, what an empty page would have). Made by `docs/foundDrawings.ts`.',
  '',
];
const seen = new Set<string>();
for (const { name, bytes } of await foundFiles()) {
  const { folio, record, blobs, done } = await readBytes(name, bytes);
  const alike = await likenessToThumbnail(bytes, folio, blobs);
  await done();
  const title = seen.has(name) ? `${name} (another)` : name;
  seen.add(name);
  const pages = pagesOf(folio).length;
  lines.push(`## ${title}`, '');
  lines.push(
    `${pages} ${pages === 1 ? 'page' : 'pages'}. ${alike ? `Likeness ${alike.likeness.toFixed(3)} on page ${alike.page} (${alike.empty.toFixed(3)}).` : 'It has no picture of its own.'}`,
    '',
  );
  const told = new Map<string, { pages: number[]; times: number }>();
  for (const e of record.notTaken) {
    const key = `${e.outcome === 'leftOut' ? 'Left out' : 'Changed'}: ${e.what}: ${e.reason}`;
    const entry = told.get(key) ?? { pages: [], times: 0 };
    if (e.page !== undefined) entry.pages.push(e.page);
    entry.times += e.times;
    told.set(key, entry);
  }
  if (!told.size) lines.push('All of it was taken over.');
  for (const [what, { pages: on, times }] of told)
    lines.push(`- ${what}${times > 1 ? ` (${times} times)` : ''}${on.length ? `, page ${[...new Set(on)].join(', ')}` : ''}.`);
  lines.push('');
}
writeFileSync('docs/found-drawings.md', lines.join('\n'));
