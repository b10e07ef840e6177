import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Button } from 'antd';
import dayjs from 'dayjs';
import type { PublishedSite } from '@elastic-folio/core/api';
import { api } from '../api/client.ts';
import { inWords } from '../api/untilAnswered.ts';
import { useDocument } from '../document/documentStore.ts';
import { inBytes } from '../shell/inBytes.ts';

/** A site on the trial host: its address, its versions, which of them is shown. */
export function SiteVersions({ site, newest }: { site: PublishedSite; newest: string }) {
  const id = useDocument((s) => s.id)!;
  const complain = useDocument((s) => s.complain);
  const client = useQueryClient();
  const port = useQuery({ queryKey: ['settings'], queryFn: api.settings, staleTime: Infinity }).data?.resultPort;
  const settle = {
    onSuccess: () => client.invalidateQueries({ queryKey: ['published', id] }),
    onError: (e: Error) => complain(inWords(e)),
  };
  const show = useMutation({ mutationFn: (version: number | null) => api.showVersion(site.id, version), ...settle });
  const remove = useMutation({ mutationFn: () => api.removeSite(site.id), ...settle });
  // Its port is asked for; until it is known there is no address to go to.
  const address = port && `http://${site.name}.pages.localhost:${port}/`;
  return (
    <div className="site">
      <p className="site-address">
        {!address ? null : site.shown === null ? (
          <>
            <s>{address}</s> <span className="soft">taken down; whoever goes there is told so</span>
          </>
        ) : (
          <a href={address} target="_blank" rel="noopener noreferrer">
            {address}
          </a>
        )}
        {site.shown === null ? (
          <Button type="link" size="small" onClick={() => remove.mutate()}>
            Remove it and its versions
          </Button>
        ) : (
          <Button type="link" size="small" onClick={() => show.mutate(null)}>
            Take down
          </Button>
        )}
      </p>
      <ol className="versions">
        {site.versions.map((v) => (
          <li key={v.number} aria-current={v.number === site.shown ? 'true' : undefined}>
            <b>Version {v.number}</b>
            <span className="soft">
              {dayjs(v.at).format('D MMM, H:mm')} · {inBytes(v.bytes)}
              {v.run === newest && ' · the newest result'}
            </span>
            {v.number === site.shown ? (
              <span className="shown-now">shown now</span>
            ) : (
              <Button size="small" onClick={() => show.mutate(v.number)}>
                Show this one
              </Button>
            )}
          </li>
        ))}
      </ol>
    </div>
  );
}
