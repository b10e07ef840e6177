import type { MediaFile } from '../../folio/head.ts';

/** Files that are in memory are looked into up to this size: of longer ones nobody would wait to hear how long they last. */
export const MOST_IN_MEMORY = 100 * 2 ** 20;

/**
 * How many seconds a sound or film lasts, and how its sound is packed, by its own container; nothing where that says nothing or
 * cannot be read. A file by its path, or its bytes.
 */
export async function lookIntoPlayed(file: string | Uint8Array): Promise<Pick<MediaFile, 'seconds' | 'codec'>> {
  const { ALL_FORMATS, BufferSource, FilePathSource, Input } = await import('mediabunny');
  const input = new Input({ formats: ALL_FORMATS, source: typeof file === 'string' ? new FilePathSource(file) : new BufferSource(file) });
  try {
    const seconds = (await input.getDurationFromMetadata()) ?? (await input.computeDuration());
    const codec = await (await input.getPrimaryAudioTrack())?.getCodec();
    return {
      ...(Number.isFinite(seconds) && seconds >= 0 && { seconds: Math.round(seconds * 1000) / 1000 }),
      ...(codec && { codec }),
    };
  } catch {
    // It may play all the same: browsers forgive more.
    return {};
  } finally {
    input.dispose();
  }
}
