import type { Folio } from '../../folio/folio.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { PX_PER_PT } from '../../folio/units.ts';
import { printedNumber } from '../../folio/traverse.ts';
import type { Evidence } from '../entry.ts';
import { Findings } from '../findings.ts';
import type { ObservedFixedBook } from './observeFixedEpub.ts';

/** Compares what a book of fixed pages says of them with how they lie in the layout: sizes, sides, direction, printed numbers. */
export function compareBookPages(folio: Folio, pages: readonly PagePlace[], book: ObservedFixedBook, listed: boolean): Evidence[] {
  const found = new Findings();
  const id = folio.head.id;
  for (const { file, says } of book.problems) found.say('document', id, 'order', false, `${file}: ${says}`);
  if (!book.fixed) found.say('document', id, 'order', false, 'the book does not say that its pages are fixed');
  for (const [i, { page, spread }] of pages.entries()) {
    const seen = book.bookPages[i];
    if (!seen) continue;
    const near = (px: number | undefined, pt: number): boolean => px !== undefined && Math.abs(px - pt * PX_PER_PT) <= 1;
    const sized = near(seen.viewport?.width, page.box.width) && near(seen.viewport?.height, page.box.height);
    const says = seen.viewport ? `shown ${seen.viewport.width} × ${seen.viewport.height} px large` : 'names no size';
    found.say('page', page.id, 'size', sized, says);
    // Where two pages lie beside each other in the layout, they do so in the book.
    const across = [...spread.pages].sort((a, b) => a.box.x - b.box.x);
    const side = across.length < 2 ? null : across[0] === page ? 'left' : across[across.length - 1] === page ? 'right' : 'center';
    if (side) found.say('page', page.id, 'size', seen.side === side, `lies ${seen.side ?? 'on no side'}`);
  }
  const want = listed ? pages.map((p, i) => `${printedNumber(p)}@${i + 1}`) : [];
  const have = book.pageList.map((p) => `${p.number}@${p.page}`);
  if (want.join() !== have.join())
    found.say('document', id, 'outline', false, `${have.length} printed pages listed where ${want.length} should be`);
  return found.list;
}
