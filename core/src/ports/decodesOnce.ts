import type { DerivedStore, PicturePort } from './ports.ts';

const VERSION = 1;

/**
 * Whether all of a picture can be decoded. The answer is kept under the SHA-256 of its bytes, where there is a store to keep it: a
 * picture is decoded for this once, whether it is brought in or goes into its first output.
 */
export async function decodesOnce(
  sha256: string,
  bytes: () => Promise<Uint8Array>,
  { pictures, derived }: { pictures: Pick<PicturePort, 'decodes'>; derived?: DerivedStore },
): Promise<boolean> {
  const key = `decodes/${VERSION}/${sha256}`;
  const known = await derived?.get(key);
  if (known?.length === 1) return known[0] === 1;
  const does = await pictures.decodes(await bytes());
  await derived?.put(key, Uint8Array.of(does ? 1 : 0));
  return does;
}
