import { useQuery } from '@tanstack/react-query';
import type { NotTaken } from '@elastic-folio/core/check';
import { Link } from 'react-router';
import { api } from '../api/client.ts';

interface Props {
  id: string;
  onPage: (page: number) => void;
}

interface Told {
  entry: NotTaken;
  places: { page: number | undefined; times: number }[];
}

/** The same thing on several pages is told once. */
function joined(entries: readonly NotTaken[]): Told[] {
  const out = new Map<string, Told>();
  for (const entry of entries) {
    const key = `${entry.outcome} ${entry.what} ${entry.reason}`;
    const told = out.get(key) ?? { entry, places: [] };
    told.places.push({ page: entry.page, times: entry.times });
    out.set(key, told);
  }
  return [...out.values()];
}

const many = (times: number): string => (times > 1 ? ` (${times})` : '');

/** What a document that came from elsewhere did not bring with it, or brought in another form; nothing for one of our own. */
export function NotTakenList({ id, onPage }: Props) {
  const report = useQuery({ queryKey: ['intake', id], queryFn: () => api.intake(id), staleTime: Infinity });
  const entries = report.data?.notTaken ?? [];
  if (!report.data?.hasSource) return null;
  const lost = entries.filter((e) => e.outcome === 'leftOut').length;
  return (
    <>
      <h2>What came in otherwise</h2>
      <p className="soft">
        {entries.length
          ? `${[lost && `${lost} left out`, entries.length - lost && `${entries.length - lost} changed`].filter(Boolean).join(', ')}.`
          : 'Nothing: all of it was taken over.'}{' '}
        The original is kept with the document.
      </p>
      <p>
        <Link to={`/d/${id}/newer`}>Bring in a newer version of it …</Link>
      </p>
      <ul className="points">
        {joined(entries).map(({ entry: e, places }) => (
          <li key={`${e.what} ${e.reason}`} className="told">
            <p>
              {e.what}: {e.reason}.
            </p>
            <p className="soft places">
              {places.map(({ page, times }) =>
                page === undefined ? (
                  <span key="document">Document{many(times)}</span>
                ) : (
                  <button key={page} aria-label={`Page ${page}: ${e.what}`} onClick={() => onPage(page)}>
                    p. {page}
                    {many(times)}
                  </button>
                ),
              )}
            </p>
          </li>
        ))}
      </ul>
    </>
  );
}
