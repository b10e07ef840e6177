import type { Measuring, Reading } from '../../../../player/src/program.ts';
import type { WriteJob } from '../writer.ts';
import { addressIn } from './headMarkup.ts';
import { OFFLINE_FILE } from './offline.ts';
import type { HtmlSettings } from './settings.ts';
import type { Site, SiteFile } from './siteFiles.ts';
import { siteWords } from './siteWords.ts';
import type { SiteWords } from './siteWords.ts';

/** What was made beside an edition's pages: how many there are, the picture for previews, and the text to search in. */
interface MadeBeside {
  count: number;
  card: string | undefined;
  index: string | undefined;
}

function measuringOf({ measureAt, measureId, measured, measureAsk }: HtmlSettings, { measuring }: SiteWords): Measuring {
  const { ask } = measuring;
  return { at: measureAt, id: measureId, kinds: measured, words: { ...measuring, ask: measureAsk.trim() || ask } };
}

/** What the player is told of how a file is read: its form, what turns its pages, and the files around it. */
export function readingProgram(
  { settings }: WriteJob<HtmlSettings>,
  site: Site,
  file: SiteFile,
  made: MadeBeside,
  language: string,
): Reading {
  const at = site.files.indexOf(file);
  const before = site.files.slice(0, at).reduce((sum, f) => sum + f.slots.flat().length, 0);
  const words = siteWords(language);
  const { page, found, nothing, copied } = words;
  const [previous, next] = [site.files[at - 1]?.name, site.files[at + 1]?.name];
  const address = addressIn(settings, file.name);
  return {
    form: settings.form,
    turnsBy: settings.form === 'banner' ? [] : settings.turnsBy,
    // Pages of earlier files count as well.
    before,
    count: made.count,
    ...(site.files.length > 1 && { pages: site.files.flatMap((f) => f.slots.flat().map((p) => site.addressOf(p.page.id))) }),
    ...(previous !== undefined && { previous }),
    ...(next !== undefined && { next }),
    ...(address !== undefined && { address }),
    ...((settings.shareAt || (settings.sharePicture && made.card)) && {
      share: { ...(settings.shareAt && { address: settings.shareAt }), ...(settings.sharePicture && made.card && { picture: made.card }) },
    }),
    ...(made.index !== undefined && { index: made.index }),
    ...(settings.offline !== 'no' && { offline: OFFLINE_FILE }),
    ...(settings.measureAt && settings.form !== 'banner' && { measuring: measuringOf(settings, words) }),
    words: { page, found, nothing, copied },
  };
}
