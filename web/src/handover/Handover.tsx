import { lazy, Suspense } from 'react';
import { useQuery } from '@tanstack/react-query';
import { Button, Progress } from 'antd';
import { Download } from 'lucide-react';
import dayjs from 'dayjs';
import { Link } from 'react-router';
import type { OutputKind, OutputState, PublishedSite } from '@elastic-folio/core/api';
import { api, fileUrl, zipUrl } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';
import { inBytes } from '../shell/inBytes.ts';
import { useAddress } from '../shell/address.ts';
import { OnPhone } from './OnPhone.tsx';
import { PublishResult } from './PublishResult.tsx';
import { SiteVersions } from './SiteVersions.tsx';

/** Charts are fetched where one is looked at. */
const ReaderCharts = lazy(() => import('./ReaderCharts.tsx'));

/** Results on their way to readers: as files, on the simulated web host, on a phone; and what came back. */
export function Handover() {
  const folio = useDocument((s) => s.folio)!;
  const id = useDocument((s) => s.id)!;
  const kinds = useQuery({ queryKey: ['kinds'], queryFn: api.outputKinds, staleTime: Infinity }).data ?? [];
  const states = useQuery({
    queryKey: ['outputs', id],
    queryFn: () => api.outputs(id),
    refetchInterval: (q) => (q.state.data?.some(isGoing) ? 1000 : false),
  }).data;
  const sites = useQuery({ queryKey: ['published', id], queryFn: () => api.published(id) }).data ?? [];
  const made = states?.filter((o) => o.lastDone) ?? [];
  return (
    <div className="handover">
      <h1>Handover</h1>
      {states && made.length === 0 && (
        <p className="empty">
          Nothing has been made yet. <Link to="../outputs">Run an output</Link>, and hand it on from here.
        </p>
      )}
      {made.map((o) => (
        <Result
          key={o.recipe}
          output={o}
          kind={kinds.find((k) => k.id === o.output)}
          site={sites.find((s) => s.recipe === o.recipe)}
          settings={folio.recipes[o.recipe]?.settings ?? {}}
        />
      ))}
    </div>
  );
}

const isGoing = ({ state }: OutputState): boolean => state === 'waiting' || state === 'running';

/** How far a result is that is being made again, and what became of the last attempt. */
function Remaking({ output }: { output: OutputState }) {
  const { run, state } = output;
  if (!run) return null;
  if (isGoing(output))
    return (
      <p className="remaking" role="status">
        <span>{state === 'waiting' ? 'Waiting to be refreshed' : 'Being refreshed'}</span>
        <Progress
          size="small"
          percent={run.pagesTotal ? Math.round((run.pagesDone / run.pagesTotal) * 100) : 0}
          aria-label={`Progress of ${output.name}`}
        />
      </p>
    );
  if (run.message === null) return null;
  return (
    <p className="remaking straw">
      {run.state === 'failed' && 'The last refresh failed. '}
      {run.message} {run.advice}
    </p>
  );
}

interface ResultProps {
  output: OutputState;
  kind: OutputKind | undefined;
  site: PublishedSite | undefined;
  settings: Record<string, unknown>;
}

function Result({ output, kind, site, settings }: ResultProps) {
  const [search, address] = useAddress();
  const run = output.lastDone!;
  const files = run.files ?? [];
  const isSite = kind?.entry === 'index.html';
  const measuredAs =
    isSite && /^http:\/\/127\.0\.0\.1:\d+\/collect$/.test(String(settings['measureAt'] ?? '')) ? String(settings['measureId'] ?? '') : null;
  const readers = search.get('readers') === output.recipe;
  return (
    <section className="result" aria-label={output.name}>
      <header>
        <h2>{output.name}</h2>
        <span className={output.state === 'stale' ? 'state straw' : 'state'}>
          made {dayjs(run.finishedAt).format('D MMM, H:mm')}
          {output.state === 'stale' && ', before the last changes'} · {files.length === 1 ? '1 file' : `${files.length} files`},{' '}
          {inBytes(files.reduce((sum, f) => sum + f.bytes, 0))}
        </span>
        <span className="result-actions">
          <Button icon={<Download size={14} />} href={files.length === 1 ? fileUrl(run.id, files[0]!.path, true) : zipUrl(run.id)}>
            Download
          </Button>
          {kind?.comesBack && <Link to="../corrections">Bring back what colleagues changed …</Link>}
          {isSite && <PublishResult output={output} site={site} />}
        </span>
      </header>
      <Remaking output={output} />
      {site && <SiteVersions site={site} newest={run.id} />}
      {site && site.shown !== null && <OnPhone site={site} />}
      {measuredAs !== null && (
        <div className="readers">
          <Button type="link" size="small" aria-expanded={readers} onClick={() => address({ readers: readers ? null : output.recipe })}>
            {readers ? 'Put away what readers did' : 'What readers did'}
          </Button>
          {readers && (
            <Suspense fallback={null}>
              <ReaderCharts sentAs={measuredAs} />
            </Suspense>
          )}
        </div>
      )}
    </section>
  );
}
