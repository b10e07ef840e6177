import { ApiProblem } from './client.ts';

const [FIRST_PAUSE_MS, LONGEST_PAUSE_MS] = [1000, 10_000];

/** Whether there was no answer, or a server that cannot answer just now. */
const isAway = (error: unknown): boolean => error instanceof ApiProblem && (error.status === 0 || error.status >= 500);

/** Asks the server again until it answers: for what a person has confirmed and nobody waits for. What it refuses is thrown. */
export async function untilAnswered<T>(ask: () => Promise<T>): Promise<T> {
  for (let pause = FIRST_PAUSE_MS; ; pause = Math.min(pause * 1.5, LONGEST_PAUSE_MS))
    try {
      return await ask();
    } catch (error) {
      if (!isAway(error)) throw error;
      await new Promise((resolve) => setTimeout(resolve, pause));
    }
}

/** A problem in words for a person: what happened, and what to do. */
export const inWords = (error: unknown): string =>
  error instanceof ApiProblem ? `${error.message} ${error.advice}`.trim() : error instanceof Error ? error.message : String(error);
