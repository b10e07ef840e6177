import { observeHtml } from '../../ledger/html/observeHtml.ts';
import type { Format } from '../../ledger/compare.ts';
import { FolioError } from '../../ports/ports.ts';
import { FIXED_PAGE_SENTENCES, judgeFixedPage } from '../shared/judgeFixedPage.ts';
import { readBackPages } from '../shared/readBackPages.ts';
import { scopeOf } from '../shared/scope.ts';
import type { Writer } from '../writer.ts';
import { HtmlSettings } from './settings.ts';
import { writeHtml } from './writeHtml.ts';

/** Roles as the elements a page of placed frames can hold (HTML: figcaption lives in figure only). */
const ROLES: Record<string, string> = { figcaption: 'p', pre: 'p', th: 'p', td: 'p', div: 'p' };
const format: Format = { roleFor: (element) => ROLES[element] ?? element, joinsParts: false, baselineTolerance: 0.75 };

export const htmlWriter: Writer<HtmlSettings> = {
  id: 'html',
  label: 'Web edition',
  about: 'Pages as designed for any browser, with live text; works from a folder, without a connection.',
  version: 1,
  view: 'pages',
  entry: 'index.html',
  settings: HtmlSettings,
  migrate: (old) => HtmlSettings.parse(old),
  write: writeHtml,
  judge: (job) =>
    judgeFixedPage(job.folio, job.composition, job.fonts, scopeOf(job.folio, job.composition, job.settings), {
      keepsColourSpaces: false,
      hasEffects: true,
      groupsMustBeReadTogether: true,
    }),
  async *readBack(files, job) {
    const byPath = new Map(files.map((f) => [f.path, f]));
    const index = byPath.get('index.html');
    if (!index) throw new FolioError('readBack.missing', 'The result has no index.html.', 'Run it again.');
    const observed = await observeHtml(new TextDecoder().decode(await index.bytes()), {
      file: async (path) => byPath.get(path)?.bytes(),
      pictures: job.pictures,
    });
    yield* readBackPages(job, observed, format);
  },
  sentences: FIXED_PAGE_SENTENCES,
};
