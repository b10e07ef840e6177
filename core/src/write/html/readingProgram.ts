import type { Reading } from '../../../../player/src/program.ts';
import type { WriteJob } from '../writer.ts';
import { addressIn } from './headMarkup.ts';
import type { HtmlSettings } from './settings.ts';
import type { Site, SiteFile } from './siteFiles.ts';
import { siteWords } from './siteWords.ts';

/** What the player is told of how a file is read: its form, what turns its pages, and the files around it. */
export function readingProgram({ settings }: WriteJob<HtmlSettings>, site: Site, file: SiteFile, count: number, language: string): Reading {
  const at = site.files.indexOf(file);
  const before = site.files.slice(0, at).reduce((sum, f) => sum + f.slots.flat().length, 0);
  const { page, found, nothing, copied } = siteWords(language);
  const [previous, next] = [site.files[at - 1]?.name, site.files[at + 1]?.name];
  const address = addressIn(settings, file.name);
  return {
    form: settings.form,
    turnsBy: settings.form === 'banner' ? [] : settings.turnsBy,
    // Pages of earlier files count as well.
    before,
    count,
    ...(site.files.length > 1 && { pages: site.files.flatMap((f) => f.slots.flat().map((p) => site.addressOf(p.page.id))) }),
    ...(previous !== undefined && { previous }),
    ...(next !== undefined && { next }),
    ...(address !== undefined && { address }),
    words: { page, found, nothing, copied },
  };
}
