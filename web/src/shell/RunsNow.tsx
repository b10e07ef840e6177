import { useCallback } from 'react';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { ServerEvent } from '@elastic-folio/core/api';
import { askAgain } from '../api/askAgain.ts';
import { api } from '../api/client.ts';
import { useServerEvents } from '../api/events.ts';

/** The newest runs, kept up to date by the server; looked at again each second while one is going. */
export function useRuns() {
  const client = useQueryClient();
  useServerEvents(
    useCallback(
      (event: ServerEvent) => {
        if (event.type === 'edits') return void client.invalidateQueries({ queryKey: ['outputs', event.folio] });
        if (event.type === 'run') {
          void client.invalidateQueries({ queryKey: ['runs'] });
          void client.invalidateQueries({ queryKey: ['outputs', event.folio] });
          if (event.run.publish && event.run.state === 'done') void client.invalidateQueries({ queryKey: ['published', event.folio] });
        }
        if (event.type !== 'run' || event.run.state !== 'running') void askAgain(client, ['shelf']);
      },
      [client],
    ),
  );
  return useQuery({
    queryKey: ['runs'],
    queryFn: api.runs,
    refetchInterval: (q) => (q.state.data?.some((r) => r.state === 'running' || r.state === 'waiting') ? 1000 : false),
  });
}

/** One line on what is being made. */
export function RunsNow() {
  const runs = useRuns().data ?? [];
  const going = runs.filter((r) => r.state === 'running');
  const waiting = runs.filter((r) => r.state === 'waiting').length;
  if (!going.length && !waiting) return null;
  const first = going[0];
  return (
    <span role="status">
      {going.length > 0 && `${going.length} ${going.length === 1 ? 'run' : 'runs'} going`}
      {first && first.pagesTotal > 0 && `, page ${first.pagesDone} of ${first.pagesTotal}`}
      {waiting > 0 && `${going.length ? ', ' : ''}${waiting} waiting`}
    </span>
  );
}
