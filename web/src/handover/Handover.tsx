import { lazy, Suspense } from 'react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Button } from 'antd';
import { Download, Globe } from 'lucide-react';
import dayjs from 'dayjs';
import { Link } from 'react-router';
import type { OutputKind, OutputState, PublishedSite } from '@elastic-folio/core/api';
import { api, ApiProblem, fileUrl, zipUrl } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';
import { inBytes } from '../shell/inBytes.ts';
import { useAddress } from '../shell/address.ts';
import { OnPhone } from './OnPhone.tsx';
import { SiteVersions } from './SiteVersions.tsx';

/** Charts are fetched where one is looked at. */
const ReaderCharts = lazy(() => import('./ReaderCharts.tsx'));

/** Results on their way to readers: as files, on the simulated web host, on a phone; and what came back. */
export function Handover() {
  const folio = useDocument((s) => s.folio)!;
  const id = useDocument((s) => s.id)!;
  const kinds = useQuery({ queryKey: ['kinds'], queryFn: api.outputKinds, staleTime: Infinity }).data ?? [];
  const states = useQuery({ queryKey: ['outputs', id], queryFn: () => api.outputs(id) }).data;
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

interface ResultProps {
  output: OutputState;
  kind: OutputKind | undefined;
  site: PublishedSite | undefined;
  settings: Record<string, unknown>;
}

function Result({ output, kind, site, settings }: ResultProps) {
  const id = useDocument((s) => s.id)!;
  const complain = useDocument((s) => s.complain);
  const [search, address] = useAddress();
  const client = useQueryClient();
  const run = output.lastDone!;
  const files = run.files ?? [];
  const publish = useMutation({
    mutationFn: () => api.publish(id, output.recipe),
    onSuccess: () => client.invalidateQueries({ queryKey: ['published', id] }),
    onError: (e) => complain(e instanceof ApiProblem ? `${e.message} ${e.advice}` : e.message),
  });
  const isSite = kind?.entry === 'index.html';
  const isPublished = site?.versions[0]?.run === run.id && site.shown !== null;
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
          {isSite && (
            <Button
              type={isPublished ? 'default' : 'primary'}
              icon={<Globe size={14} />}
              loading={publish.isPending}
              disabled={isPublished}
              onClick={() => publish.mutate()}
            >
              {isPublished ? 'Published' : site ? 'Publish this version' : 'Publish on the trial host'}
            </Button>
          )}
        </span>
      </header>
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
