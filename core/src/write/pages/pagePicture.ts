import { composedSpread } from '../../compose/anchored.ts';
import { pageOfItem } from '../../folio/traverse.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { spreadPicture } from '../../paint/svg/paintSpread.ts';
import type { EncodedPicture, PictureOptions } from '../../ports/ports.ts';
import type { PictureEncoder } from '../assets/encodePictures.ts';
import { drawnSources } from '../assets/drawnSources.ts';
import type { Scope } from '../scope.ts';
import type { WriteJob } from '../writer.ts';

/** A page drawn as a picture of so many pixels across. */
export async function pagePicture(
  job: WriteJob<{ resolution: number; quality: number }>,
  encoder: PictureEncoder,
  place: PagePlace,
  scope: Scope,
  width: number,
  format: NonNullable<PictureOptions['format']> = 'auto',
): Promise<EncodedPicture> {
  const { folio, composition } = job;
  const spread = composedSpread(folio, composition, folio.spreads[place.spread.id]!);
  const here = Object.values(spread.items).filter(
    (i) => i.kind !== 'group' && scope.shown(i) && pageOfItem(spread, i).id === place.page.id,
  );
  const sources = await drawnSources(job, encoder, here);
  const svg = spreadPicture(folio, composition, spread, place.page.box, width, {
    href: (m) => sources.get(m),
    shown: scope.shown,
    forReaders: true,
  });
  return job.pictures.encode(await job.pictures.drawSvg(svg, 'picture'), { maxWidth: width, quality: job.settings.quality, format });
}
