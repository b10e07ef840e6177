import { FolioError } from '../../ports/ports.ts';
import { FIXED_PAGE_SENTENCES, planFixedPage } from '../pages/planFixedPage.ts';
import { htmlPageWriter, HTML_PAGES, isAtHand } from '../pages/pageFormat.ts';
import { readBackPages } from '../pages/readBackPages.ts';
import { scopeOf } from '../scope.ts';
import type { WriteJob, Writer } from '../writer.ts';
import { adapted } from '../treatments.ts';
import { groupsToDraw, withGroupsDrawn } from './drawnGroups.ts';
import { withOversetShown } from './overset.ts';
import { purposes } from './purposes.ts';
import { HtmlSettings } from './settings.ts';

const firstPage = (text: string): number => Number(/<section class="page" id="page-(\d+)"/.exec(text)?.[1] ?? Infinity);

/** What a recipe makes of the document before anything is written: texts to their ends, groups as pictures. */
const prepared = (job: WriteJob<HtmlSettings>): Promise<WriteJob<HtmlSettings>> => withGroupsDrawn(withOversetShown(job));

const HTML_SENTENCES = {
  ...FIXED_PAGE_SENTENCES,
  'group.drawn': 'Its group is drawn as one picture, as the recipe says.',
  'text.overset': '{characters} characters have no room in their frame: readers get them below it or by scrolling, as the recipe says.',
};

export const htmlWriter: Writer<HtmlSettings, keyof typeof HTML_SENTENCES> = {
  id: 'html',
  label: 'Web edition',
  about: 'Pages as designed for any browser, with live text; works from a folder, without a connection.',
  version: 1,
  view: 'pages',
  entry: 'index.html',
  settings: HtmlSettings,
  start: purposes,
  secure: ({ offline, app, bar }) => [
    ...(offline !== 'no' ? ['Reading without a connection'] : []),
    ...(app ? ['Putting it on the home screen'] : []),
    ...(bar.includes('share') ? ['The share button'] : []),
  ],
  migrate: (old) => HtmlSettings.parse(old),
  async *write(job) {
    const { writeHtml } = await import('./writeHtml.ts');
    yield* writeHtml(await prepared(job));
  },
  plan: (job) => {
    const inGroups = new Set(groupsToDraw(job.folio, job.settings).flatMap((d) => [d.group.id, ...d.leaves]));
    const { composition } = withOversetShown(job);
    const plan = planFixedPage(
      job.folio,
      composition,
      job.fonts,
      scopeOf(job.folio, composition, job.settings),
      htmlPageWriter('web', job, job.settings.text),
    );
    return (about) => {
      const treatment = plan(about);
      const { kind, id } = about.subject;
      const overset = kind === 'story' && treatment.outcome === 'kept' ? job.composition.stories.get(id)?.overflow : null;
      if (overset) return adapted('text.overset', { characters: overset.characters });
      return kind === 'item' && inGroups.has(id) && treatment.outcome === 'kept' ? adapted('group.drawn') : treatment;
    };
  },
  async *readBack(files, given) {
    const job = await prepared(given);
    const byPath = new Map(files.map((f) => [f.path, f]));
    if (!byPath.has('index.html')) throw new FolioError('readBack.missing', 'The result has no index.html.', 'Run it again.');
    const written = files.filter((f) => /^[^/]+\.html$/.test(f.path));
    const texts = await Promise.all(written.map(async (f) => ({ path: f.path, text: new TextDecoder().decode(await f.bytes()) })));
    // Files of a site come in the order of their pages.
    texts.sort((a, b) => firstPage(a.text) - firstPage(b.text));
    const { observePages } = await import('../../ledger/html/observePages.ts');
    const observed = await observePages(texts, { file: async (path) => byPath.get(path)?.bytes(), pictures: job.pictures });
    // A web page has no list of contents yet: its headings themselves are what readers jump by.
    yield* readBackPages(
      job,
      observed,
      { ...HTML_PAGES, drawsText: job.settings.text === 'shapes' || job.settings.text === 'picture' },
      (headings) => headings.map((h) => ({ ...h, listed: h.own })),
      false,
      (source) => isAtHand(source, job),
    );
  },
  sentences: HTML_SENTENCES,
};
