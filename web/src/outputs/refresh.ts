import { useCallback } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { App } from 'antd';
import { api } from '../api/client.ts';

/** Makes outputs: one by its recipe, or all that are stale. What cannot be begun says why. */
export function useMaking(id: string): { make(recipe: string): Promise<void>; refresh(): Promise<void> } {
  const client = useQueryClient();
  const { message } = App.useApp();
  const make = useCallback(
    async (recipe: string) => {
      try {
        await api.run(id, recipe);
      } catch (e) {
        void message.error((e as Error).message);
      }
      await client.invalidateQueries({ queryKey: ['outputs', id] });
      await client.invalidateQueries({ queryKey: ['runs'] });
    },
    [client, id, message],
  );
  const refresh = useCallback(async () => {
    const stale = (await api.outputs(id).catch(() => [])).filter((o) => o.state === 'stale');
    void message.info(
      stale.length ? `Made anew: ${stale.map((o) => o.name).join(', ')}` : 'Nothing is stale: what was made is as the document is.',
    );
    for (const o of stale) await make(o.recipe);
  }, [id, make, message]);
  return { make, refresh };
}
