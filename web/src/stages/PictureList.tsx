import { Button } from 'antd';
import { Shapes } from 'lucide-react';
import { isMasterInstance, pagesOf } from '@elastic-folio/core';
import type { Item } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { itemName } from '../table/SpreadView.tsx';
import { pageNumberOf } from '../table/PageTable.tsx';
import { AltText } from './AltText.tsx';
import { pinEdit, PinOffer } from './PinOffer.tsx';

interface Row {
  item: Item;
  spread: string;
  page: number;
  media: string | null;
}

/** All pictures of the document with their words, those without any first. */
export function PictureList({ onSelect }: { onSelect: (item: string) => void }) {
  const folio = useDocument((s) => s.folio)!;
  const id = useDocument((s) => s.id)!;
  const { decorations } = folio.head.structure;
  const isSilent = (r: Row): boolean => !r.item.alt && !decorations.includes(r.item.id);
  const rows = picturesOf(folio).sort((a, b) => Number(isSilent(b)) - Number(isSilent(a)) || a.page - b.page);
  const silent = rows.filter(isSilent).length;
  const change = useDocument((s) => s.change);
  const offers = new Map(useDocument((s) => s.suggestedPins).map((p) => [p.item, p]));
  const referred = [...offers.values()].filter((p) => rows.some((r) => r.item.id === p.item));
  return (
    <>
      <h2>Pictures in words</h2>
      <p className="soft">
        {!rows.length
          ? 'The document has no pictures.'
          : silent
            ? `${silent} of ${rows.length} pictures say nothing to somebody who does not see them.`
            : 'Every picture is described, or marked as decoration.'}
      </p>
      {referred.length > 1 && (
        <p className="soft">
          For {referred.length} of them a paragraph suggests itself at which they are read.{' '}
          <Button size="small" onClick={() => change(referred.map(pinEdit), newBurst())}>
            Pin all {referred.length}
          </Button>
        </p>
      )}
      <ul className="picture-list">
        {rows.map(({ item, spread, page, media }) => (
          <li key={item.id} data-picture={item.id}>
            <button className="thumbnail" onClick={() => onSelect(item.id)} aria-label={`To ${itemName(folio, item)}`}>
              {media === null ? (
                <Shapes size={22} strokeWidth={1.5} aria-hidden />
              ) : (
                <img src={`/api/folios/${encodeURIComponent(id)}/media/${media}?width=160`} alt="" loading="lazy" width={64} height={48} />
              )}
            </button>
            <div>
              <small className="soft">
                Page {page} · {itemName(folio, item)}
              </small>
              <AltText item={item} spread={spread} name={itemName(folio, item)} />
              {offers.has(item.id) && <PinOffer suggestion={offers.get(item.id)!} />}
            </div>
          </li>
        ))}
      </ul>
    </>
  );
}

function picturesOf(folio: NonNullable<ReturnType<typeof useDocument.getState>['folio']>): Row[] {
  return [...new Set(pagesOf(folio).map((p) => p.spread.id))].flatMap((spread) =>
    Object.values(folio.spreads[spread]?.items ?? {}).flatMap((item): Row[] => {
      const media = item.kind === 'picture' ? item.media : item.kind === 'media' ? (item.poster ?? null) : null;
      const isPicture =
        (item.kind === 'picture' && item.media !== null) ||
        item.kind === 'media' ||
        (item.kind === 'group' && folio.head.structure.figures.includes(item.id)) ||
        (item.kind === 'shape' && !!item.alt);
      if (!isPicture || isMasterInstance(item.id)) return [];
      return [{ item, spread, page: pageNumberOf(folio, spread, item.id) ?? 0, media }];
    }),
  );
}
