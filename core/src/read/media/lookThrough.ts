import { decodesOnce } from '../../ports/decodesOnce.ts';
import type { PicturePort } from '../../ports/ports.ts';
import type { LoadedFolio, ReadJob } from '../../intake/reader.ts';

/** Pictures that are decoded at a time. */
const AT_ONCE = 4;

/** A document that was read, with its pictures looked through: those that cannot be decoded whole are marked as damaged. */
export async function lookThrough(loaded: LoadedFolio, { blobs, signal, ...ports }: LookedThrough): Promise<LoadedFolio> {
  const { head } = loaded.folio;
  const waiting = Object.values(head.media).filter((m) => m.mediaType.startsWith('image/') && !m.damaged);
  const damaged = new Set<string>();
  const work = async (): Promise<void> => {
    for (let file = waiting.pop(); file; file = waiting.pop()) {
      signal?.throwIfAborted();
      const stored = loaded.files.get(file.file);
      if (stored && !(await decodesOnce(stored.sha256, () => blobs.read(stored.sha256), ports))) damaged.add(file.id);
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, work));
  if (!damaged.size) return loaded;
  const media = Object.fromEntries(Object.entries(head.media).map(([id, m]) => [id, damaged.has(id) ? { ...m, damaged: true } : m]));
  return { ...loaded, folio: { ...loaded.folio, head: { ...head, media } } };
}

type LookedThrough = Pick<ReadJob, 'blobs' | 'signal' | 'derived'> & { pictures: Pick<PicturePort, 'decodes'> };
