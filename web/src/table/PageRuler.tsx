interface Props {
  count: number;
  from: number;
  to: number;
  points: ReadonlySet<number>;
  onGo: (page: number) => void;
}

/** A ruler of all pages: where one is, and where there is something to look at. */
export function PageRuler({ count, from, to, points, onGo }: Props) {
  const every = count <= 24 ? 1 : Math.ceil(count / 24 / 5) * 5;
  const at = (page: number): string => `${((page - 0.5) / count) * 100}%`;
  return (
    <nav className="ruler" aria-label="Page ruler">
      <div className="ruler-scale">
        <div className="ruler-here" style={{ top: `${((from - 1) / count) * 100}%`, height: `${((to - from + 1) / count) * 100}%` }} />
        {Array.from({ length: count }, (_, i) => i + 1).map((page) => (
          <button
            key={page}
            className="ruler-stop"
            style={{ top: at(page) }}
            aria-label={`Page ${page}${points.has(page) ? ', something to look at' : ''}`}
            aria-current={page >= from && page <= to ? 'page' : undefined}
            onClick={() => onGo(page)}
          >
            {points.has(page) && <i className="ruler-point" />}
            {(page === 1 || page % every === 0) && <span>{page}</span>}
            <i className="ruler-tick" />
          </button>
        ))}
      </div>
    </nav>
  );
}
