import type { WriteJob } from '../writer.ts';
import { pictureOf } from '../assets/encodePictures.ts';
import type { PictureSettings } from '../assets/encodePictures.ts';
import { adapted } from '../treatments.ts';
import type { PaintedLeaf } from '../pages/paintedPage.ts';
import type { Plan } from '../treatments.ts';

const VERSION = 1;

/** Says of pictures whose white ground was taken away that it was; which these are, their pixels tell. */
export async function withWhiteGrounds<Code extends string>(
  job: WriteJob<PictureSettings>,
  plan: Plan<Code>,
): Promise<Plan<Code | 'picture.groundThrough'>> {
  if (job.settings.whiteGround !== 'through') return plan;
  const grounds = await mediaOnWhite(job);
  return (about) => {
    const treatment = plan(about);
    const { item, subject } = about;
    const media = item && item.kind !== 'group' && subject.aspect === 'picture' ? pictureOf(item as PaintedLeaf) : null;
    return treatment.outcome === 'kept' && media && grounds.has(media) ? adapted('picture.groundThrough') : treatment;
  };
}

async function mediaOnWhite({ folio, pictures, derived, media }: WriteJob<unknown>): Promise<Set<string>> {
  const shown = new Set(
    Object.values(folio.spreads).flatMap((s) =>
      Object.values(s.items).flatMap((i) => (i.kind === 'group' ? [] : (pictureOf(i as PaintedLeaf) ?? []))),
    ),
  );
  for (const m of Object.values(folio.head.masterPages))
    for (const i of Object.values(m.items)) if (i.kind !== 'group') shown.add(pictureOf(i as PaintedLeaf) ?? '');
  const out = new Set<string>();
  for (const id of shown) {
    const file = folio.head.media[id];
    if (!file) continue;
    const key = `white-ground/${VERSION}/${file.sha256}`;
    let known = (await derived.get(key))?.[0];
    if (known === undefined) {
      known = (await pictures.hasWhiteGround(await media(id))) ? 1 : 0;
      await derived.put(key, Uint8Array.of(known));
    }
    if (known) out.add(id);
  }
  return out;
}
