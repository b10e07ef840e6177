import { useQuery } from '@tanstack/react-query';
import { api } from '../api/client.ts';

interface Props {
  id: string;
  onPage: (page: number) => void;
}

/** What a document that came from elsewhere did not bring with it, or brought in another form; nothing for one of our own. */
export function NotTakenList({ id, onPage }: Props) {
  const report = useQuery({ queryKey: ['intake', id], queryFn: () => api.intake(id), staleTime: Infinity });
  const entries = report.data?.notTaken ?? [];
  if (!entries.length) return null;
  const lost = entries.filter((e) => e.outcome === 'leftOut').length;
  return (
    <>
      <h2>What came in otherwise</h2>
      <p className="soft">
        {[lost && `${lost} left out`, entries.length - lost && `${entries.length - lost} changed`].filter(Boolean).join(', ')}. The original
        is kept with the document.
      </p>
      <ul className="points">
        {entries.map((e, i) => (
          <li key={i}>
            <button disabled={e.page === undefined} onClick={() => e.page !== undefined && onPage(e.page)}>
              <span className="soft">{e.page === undefined ? 'Document' : `Page ${e.page}`}</span> {e.what}
              {e.times > 1 && ` (${e.times} times)`}: {e.reason}.
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
