import { memo } from 'react';

interface Props {
  count: number;
  from: number;
  to: number;
  points: ReadonlySet<number>;
  onGo: (page: number) => void;
}

/** As many places as can be told apart and hit on a ruler. */
const MOST_STOPS = 60;

/** A ruler of all pages: where one is, and where there is something to look at. Of long documents a stop stands for several pages. */
export const PageRuler = memo(function PageRuler({ count, from, to, points, onGo }: Props) {
  const each = count <= MOST_STOPS ? 1 : Math.ceil(count / MOST_STOPS / 5) * 5;
  const every = count <= 24 ? 1 : Math.ceil(count / 24 / 5) * 5;
  const share = (pages: number): string => `${(pages / count) * 100}%`;
  const stops = Array.from({ length: Math.ceil(count / each) }, (_, i) => ({ first: i * each + 1, last: Math.min(count, (i + 1) * each) }));
  const numbered = Math.ceil(stops.length / 20);
  return (
    <nav className="ruler" aria-label="Page ruler">
      <div className="ruler-scale">
        <div className="ruler-here" style={{ top: share(from - 1), height: share(to - from + 1) }} />
        {stops.map(({ first, last }, i) => {
          const inside = Array.from({ length: last - first + 1 }, (_, i) => first + i);
          const point = inside.find((page) => points.has(page));
          const name = first === last ? `Page ${first}` : `Pages ${first}–${last}`;
          return (
            <button
              key={first}
              className="ruler-stop"
              style={{ top: share((first + last - 1) / 2) }}
              aria-label={`${name}${point === undefined ? '' : ', something to look at'}`}
              aria-current={last >= from && first <= to ? 'page' : undefined}
              onClick={() => onGo(point ?? first)}
            >
              {point !== undefined && <i className="ruler-point" />}
              {(each === 1 ? first === 1 || first % every === 0 : i % numbered === 0) && <span>{first}</span>}
              <i className="ruler-tick" />
            </button>
          );
        })}
      </div>
    </nav>
  );
});
