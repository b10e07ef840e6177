// Writes how Node paints the items of the Almanac, for holding the browser's worker against.
import { writeFileSync } from 'node:fs';
import { samples } from '@elastic-folio/demo';
import { composedSpread, Composer, loadFonts } from '@elastic-folio/core/compose';
import { shippedFontSource } from '@elastic-folio/core/node';
import { markupOf, paintItems } from '@elastic-folio/core/paint';

const { folio } = (await samples()).find((s) => s.folio.head.id === 'marrowby-almanac')!;
const composition = new Composer(await loadFonts(folio.head, [await shippedFontSource()])).compose(folio);
const all = folio.head.spreadOrder.flatMap((id) =>
  paintItems(folio, composition, composedSpread(folio, composition, folio.spreads[id]!), {
    outlines: null,
    href: () => undefined,
    shown: (i) => folio.head.layers[i.layer]!.visible,
  }),
);
writeFileSync(process.argv[2]!, JSON.stringify(Object.fromEntries(all.map((i) => [i.item, markupOf(i)]))));
