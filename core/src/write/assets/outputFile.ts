import type { OutputFile } from '../writer.ts';

async function* once(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield bytes;
}

/** A file of a result that comes piece by piece. */
export const streamedFile = (path: string, mediaType: string, body: AsyncIterable<Uint8Array>): OutputFile => ({ path, mediaType, body });

/** A file of a result that is made whole in memory. */
export const outputFile = (path: string, mediaType: string, content: string | Uint8Array): OutputFile => ({
  path,
  mediaType,
  body: once(typeof content === 'string' ? new TextEncoder().encode(content) : content),
});

/** All bytes of what comes piece by piece. */
export async function collectBytes(body: AsyncIterable<Uint8Array>): Promise<Uint8Array> {
  const chunks: Uint8Array[] = [];
  for await (const chunk of body) chunks.push(chunk);
  return new Uint8Array(Buffer.concat(chunks));
}
