import { compareFlow } from '../../ledger/flow/compareFlow.ts';
import { expectFlow } from '../../ledger/flow/expectFlow.ts';
import { SIGNATURE_CELLS } from '../../ledger/findings.ts';
import { FLOW_SENTENCES, planFlow } from '../reflow/planFlow.ts';
import { scopeOf } from '../scope.ts';
import type { Writer } from '../writer.ts';
import { ArticleSettings } from './settings.ts';
import { asOrdered, writeArticle } from './writeArticle.ts';
import type { FlowCode } from '../reflow/planFlow.ts';

export const articleWriter: Writer<ArticleSettings, FlowCode> = {
  id: 'article',
  label: 'Article',
  about: 'Clean HTML to be styled by yourself, with classes named after the styles and pictures as files.',
  version: 1,
  view: 'flow',
  entry: 'index.html',
  settings: ArticleSettings,
  migrate: (old) => ArticleSettings.parse(old),
  write: writeArticle,
  plan: ({ folio, composition, fonts, settings }) =>
    planFlow(asOrdered(folio, settings.order), composition, fonts, scopeOf(folio, composition, settings), {
      embedsFonts: false,
      marksPages: false,
    }),
  async *readBack(files, job) {
    const { composition, fonts, settings } = job;
    const folio = asOrdered(job.folio, settings.order);
    const expected = expectFlow(folio, composition, fonts, scopeOf(folio, composition, settings), { ...settings, depth: 6 });
    const texts: { path: string; text: string }[] = [];
    for (const f of files.filter((f) => f.mediaType === 'text/html' || f.path.endsWith('.html')))
      texts.push({ path: f.path, text: new TextDecoder().decode(await f.bytes()) });
    texts.sort((a, b) => (a.path < b.path ? -1 : 1));
    const { observeArticle } = await import('../../ledger/flow/observeArticle.ts');
    const observed = await observeArticle(texts, {
      file: async (path) => files.find((f) => f.path === path)?.bytes(),
      pictures: job.pictures,
    });
    yield* await compareFlow(expected, observed, {
      folio,
      fonts,
      embeds: false,
      styled: settings.styleSheet === 'beside' || settings.styleSheet === 'inside',
      navigates: false,
      signature: async (media, region) => job.pictures.signature(await job.media(media), SIGNATURE_CELLS, region),
    });
  },
  sentences: FLOW_SENTENCES,
};
