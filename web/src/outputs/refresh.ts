import { useCallback } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { App } from 'antd';
import { api } from '../api/client.ts';
import { inWords } from '../api/untilAnswered.ts';
import { everythingArrived } from '../document/arrival.ts';
import { actorId } from '../document/identity.ts';
import { plural } from '../shell/plural.ts';

/** Makes outputs: one by its recipe, or all that are stale. What cannot be begun says why. */
export function useMaking(id: string): { make(recipe: string): Promise<void>; refresh(): Promise<void> } {
  const client = useQueryClient();
  const { message } = App.useApp();
  /** What was changed here is on the server before anything is made of it. */
  const asking = useCallback(
    async (ask: () => Promise<void>) => {
      try {
        await everythingArrived(id);
        await ask();
      } catch (e) {
        void message.error(inWords(e));
      }
      await client.invalidateQueries({ queryKey: ['outputs', id] });
      await client.invalidateQueries({ queryKey: ['runs'] });
    },
    [client, id, message],
  );
  const make = useCallback((recipe: string) => asking(async () => void (await api.run(id, recipe, actorId()))), [asking, id]);
  const refresh = useCallback(
    () =>
      asking(async () => {
        // One request asks for all of them: they are made whether or not this window stays.
        const runs = await api.refresh(id, actorId());
        void message.info(
          runs.length ? `Refreshing ${plural(runs.length, 'output')} …` : 'Nothing is stale: what was made is as the document is.',
        );
      }),
    [asking, id, message],
  );
  return { make, refresh };
}
