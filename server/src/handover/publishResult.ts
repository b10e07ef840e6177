import { FolioError } from '@elastic-folio/core/node';
import { writerById } from '@elastic-folio/core/write';
import type { PublishedSite, Run } from '@elastic-folio/core/api';
import type { DocumentStore } from '../documents/documentStore.ts';
import type { PublishedSites } from './publishedSites.ts';

/** Throws where an output is none that a web host can show. */
export function checkPublishable(output: string): void {
  if (writerById(output)?.entry !== 'index.html')
    throw new FolioError('publish.kind', 'Only web editions can be opened from a web host.', 'Choose a web edition.');
}

/** Puts a finished result on the simulated web host under the document's title. */
export async function publishResult(s: { documents: DocumentStore; published: PublishedSites }, run: Run): Promise<PublishedSite> {
  checkPublishable(run.output);
  const writer = writerById(run.output)!;
  const { folio } = await s.documents.get(run.folio);
  const recipe = folio.recipes[run.recipe];
  return s.published.publish(run, folio.head.metadata.title, writer.secure?.(writer.settings.parse(recipe?.settings ?? {})) ?? []);
}
