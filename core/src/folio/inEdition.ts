import type { Folio } from './folio.ts';
import type { Block } from './story.ts';

/**
 * A document in one of its languages: the paragraphs that are translated have their translation, marked with its
 * language; all else stays as it is. The document itself where there is no such edition.
 */
export function inEdition(folio: Folio, language: string): Folio {
  const edition = folio.editions[language];
  if (!edition) return folio;
  const stories = Object.fromEntries(
    Object.entries(folio.stories).map(([id, story]) => {
      const translated = Object.values(story.blocks).filter((b) => b.kind === 'paragraph' && edition.targets[b.id]);
      if (!translated.length) return [id, story];
      const blocks = translated.map((b): [string, Block] => [
        b.id,
        b.kind === 'paragraph' ? { ...b, content: edition.targets[b.id]!, character: { ...b.character, language } } : b,
      ]);
      return [id, { ...story, blocks: { ...story.blocks, ...Object.fromEntries(blocks) } }];
    }),
  );
  return { ...folio, head: { ...folio.head, metadata: { ...folio.head.metadata, language } }, stories };
}
