import { useState } from 'react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Button, Modal } from 'antd';
import { Globe } from 'lucide-react';
import type { OutputState, PublishedSite } from '@elastic-folio/core/api';
import { api } from '../api/client.ts';
import { inWords } from '../api/untilAnswered.ts';
import { useDocument } from '../document/documentStore.ts';
import { everythingArrived } from '../document/arrival.ts';
import { actorId } from '../document/identity.ts';

/** Publishes a web edition; where its result is older than the document, it asks first what is meant. */
export function PublishResult({ output, site }: { output: OutputState; site: PublishedSite | undefined }) {
  const id = useDocument((s) => s.id)!;
  const complain = useDocument((s) => s.complain);
  const client = useQueryClient();
  const [asking, setAsking] = useState(false);
  const settle = {
    onSettled: () => {
      setAsking(false);
      return Promise.all([
        client.invalidateQueries({ queryKey: ['published', id] }),
        client.invalidateQueries({ queryKey: ['outputs', id] }),
      ]);
    },
    onError: (e: Error) => complain(inWords(e)),
  };
  const publish = useMutation({ mutationFn: (older: boolean) => api.publish(id, output.recipe, older), ...settle });
  const publishRefreshed = useMutation({
    mutationFn: async () => {
      await everythingArrived(id);
      return api.publishRefreshed(id, output.recipe, actorId());
    },
    ...settle,
  });
  const remade = output.state === 'waiting' || output.state === 'running';
  const older = remade || output.state !== 'fresh';
  const isPublished = !older && site?.versions[0]?.run === output.lastDone?.id && site?.shown !== null && site !== undefined;
  if (remade && output.run?.publish) return <span className="state">will be published when it is ready</span>;
  return (
    <>
      <Button
        type={isPublished ? 'default' : 'primary'}
        icon={<Globe size={14} />}
        loading={publish.isPending || publishRefreshed.isPending}
        disabled={isPublished}
        onClick={() => (older ? setAsking(true) : publish.mutate(false))}
      >
        {isPublished ? 'Published' : `${site ? 'Publish this version' : 'Publish on the trial host'}${older ? ' …' : ''}`}
      </Button>
      <Modal
        open={asking}
        title={remade ? `“${output.name}” is being refreshed` : `“${output.name}” is older than the document`}
        onCancel={() => setAsking(false)}
        footer={[
          <Button key="cancel" onClick={() => setAsking(false)}>
            Cancel
          </Button>,
          <Button key="older" loading={publish.isPending} onClick={() => publish.mutate(true)}>
            Publish the older result
          </Button>,
          <Button key="refreshed" type="primary" loading={publishRefreshed.isPending} onClick={() => publishRefreshed.mutate()}>
            {remade ? 'Publish when ready' : 'Refresh, then publish'}
          </Button>,
        ]}
      >
        <p>
          {remade
            ? 'The result that is here now was made before the last changes. The new one can be published as soon as it is ready, whether or not this window stays open.'
            : 'The document has been changed since this result was made.'}
        </p>
      </Modal>
    </>
  );
}
