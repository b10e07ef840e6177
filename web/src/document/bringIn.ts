import { addFile } from '../api/client.ts';
import { useDocument } from './documentStore.ts';
import { newBurst } from './identity.ts';

/** Stores a file from disk with a document and gives what it is called there: the one that has the same bytes, if there is one; null where it is of another kind. */
export async function bringIn(id: string, file: File, types: RegExp): Promise<string | null> {
  const added = await addFile(id, file);
  if (!types.test(added.mediaType)) return null;
  const { folio, change } = useDocument.getState();
  const known = Object.values(folio!.head.media).find((m) => m.sha256 === added.sha256);
  if (!known) change([{ kind: 'media.add', args: added }], newBurst());
  return known?.id ?? added.id;
}
