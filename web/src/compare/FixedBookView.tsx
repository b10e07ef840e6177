import { PX_PER_PT } from '@elastic-folio/core';
import type { PagePlace } from '@elastic-folio/core';
import { DeviceChoice, useDevice } from './device.tsx';

/** When a book says that two pages are seen at once. */
export type Spreads = 'auto' | 'turned' | 'always' | 'never';

/** Pages of a book as a device shows them: one, or two that face each other where there is room for both. */
export function FixedBookView({
  address,
  place,
  shown,
  spreads,
  label,
}: {
  /** Of the page at a place in the book, counted from 1. */
  address(at: number): string;
  place: PagePlace;
  /** The numbers of the pages in the book, in order. */
  shown: readonly number[];
  spreads: Spreads;
  label: string;
}) {
  const { device, host, scale } = useDevice();
  const turned = device.width > device.height;
  const paired = spreads === 'always' || (turned && spreads !== 'never');
  const first = place.number - place.spread.pages.indexOf(place.page);
  const pages = (paired ? place.spread.pages.map((page, i) => ({ page, number: first + i })) : [{ page: place.page, number: place.number }])
    .filter((p) => shown.includes(p.number))
    .sort((a, b) => a.page.box.x - b.page.box.x);
  const total = { width: pages.reduce((sum, p) => sum + p.page.box.width, 0), height: Math.max(...pages.map((p) => p.page.box.height)) };
  const fit = Math.min(device.width / total.width, device.height / total.height) * scale;
  return (
    <div className="reading">
      <div className="reading-settings">
        <DeviceChoice />
        <span className="soft">
          {pages.length > 1 ? 'Both pages are seen at once' : 'One page is seen at a time'}, at{' '}
          {Math.round((fit / scale / PX_PER_PT) * 100)} % of its size
        </span>
      </div>
      <div className="reading-room" ref={host}>
        <div className="device pages" style={{ width: device.width * scale + 20, height: device.height * scale + 20 }}>
          {pages.map(({ page: { id, box }, number }) => (
            <div key={id} className="clip" style={{ width: Math.floor(box.width * fit), height: Math.floor(box.height * fit) }}>
              <iframe
                title={number === place.number ? label : `${label}, the facing page`}
                sandbox=""
                src={address(shown.indexOf(number) + 1)}
                style={{
                  // As the book says of its pages: whole pixels.
                  width: Math.floor(box.width * PX_PER_PT),
                  height: Math.floor(box.height * PX_PER_PT),
                  transform: `scale(${fit / PX_PER_PT})`,
                  ...(device.ink && { filter: 'grayscale(1) contrast(0.9)' }),
                }}
              />
            </div>
          ))}
        </div>
      </div>
    </div>
  );
}
