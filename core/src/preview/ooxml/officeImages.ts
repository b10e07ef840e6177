import type { OpenPackage } from '../../packages/officeParts.ts';

/** Pictures as addresses that hold them, by the relationships of a part. */
export async function picturesOf(
  pack: OpenPackage,
  beside: (path: string) => Promise<Uint8Array | undefined>,
  part = pack.main,
): Promise<Map<string, string>> {
  const out = new Map<string, string>();
  for (const [id, r] of pack.relations(part)) {
    if (r.type !== 'image') continue;
    const bytes = r.outside ? await beside(r.target) : pack.files.get(r.target);
    const kind = /\.(\w+)$/.exec(r.target)?.[1] ?? '';
    const mediaType = { jpg: 'image/jpeg', png: 'image/png', svg: 'image/svg+xml', tiff: 'image/tiff' }[kind];
    if (bytes && mediaType) out.set(id, `data:${mediaType};base64,${Buffer.from(bytes).toString('base64')}`);
  }
  return out;
}
