import type { PagePlace } from '@elastic-folio/core';
import { markupOf } from '@elastic-folio/core/paint';

import { useDocument } from '../document/documentStore.ts';

/** The source page as the typesetter paints it. */
export function PagePicture({ place, scale }: { place: PagePlace; scale: number }) {
  const painted = useDocument((s) => s.painted[place.spread.id]);
  const { box } = place.page;
  return (
    <svg
      className="paper"
      width={box.width * scale}
      height={box.height * scale}
      viewBox={`${box.x} ${box.y} ${box.width} ${box.height}`}
      role="img"
      aria-label={`Page ${place.number} of the layout`}
    >
      {painted && (
        <>
          <g dangerouslySetInnerHTML={{ __html: painted.paper }} />
          {painted.items.map((i) => (
            <g key={i.item} dangerouslySetInnerHTML={{ __html: markupOf(i) }} />
          ))}
        </>
      )}
    </svg>
  );
}
