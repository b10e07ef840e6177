import { keepDrafts } from '../shell/useDraft.ts';

type Arrival = (document: string) => Promise<void>;

const waits = new Set<Arrival>();

/** Registers what has to reach the server before anything is made of a document. */
export const onAsked = (arrival: Arrival): void => void waits.add(arrival);

/**
 * Resolves when the server has what was changed in this window: what stands in fields by now, too. Pages that never open a
 * document wait for nothing, and bring none of its program.
 */
export async function everythingArrived(document: string): Promise<void> {
  keepDrafts();
  await Promise.all([...waits].map((arrival) => arrival(document)));
}
