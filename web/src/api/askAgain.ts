import type { QueryClient, QueryKey } from '@tanstack/react-query';

/**
 * Asks the server anew for what a key stands for, after it has changed there. A question that is still open was asked
 * before the change: left alone, its answer would be taken for the new one.
 */
export async function askAgain(client: QueryClient, queryKey: QueryKey): Promise<void> {
  await client.cancelQueries({ queryKey });
  await client.invalidateQueries({ queryKey });
}
