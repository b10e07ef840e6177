import { createHash } from 'node:crypto';
import type { Folio } from '@elastic-folio/core';
import { pagesOf } from '@elastic-folio/core';
import { Composer } from '@elastic-folio/core/compose';
import type { Composition, FontSet } from '@elastic-folio/core/compose';

/** Pages of all documents together that are kept set: about 100 MB of text. */
const MOST_PAGES = 800;
/** And so many documents, however short: each may have typefaces of its own. */
const MOST_DOCUMENTS = 40;

interface Kept {
  fonts: FontSet;
  composition: Composition | null;
  pages: number;
}

/** What a document is set from, as a name. Outputs and translations change nothing of it. */
export function settingKey(folio: Folio, files: unknown): string {
  return createHash('sha256')
    .update(JSON.stringify([{ ...folio, recipes: null, editions: null }, files]))
    .digest('hex');
}

/**
 * Documents as this thread has set them, the newest last: outputs of one document are mostly asked for together, and setting
 * it is a good part of the work on each. A composition belongs to the typefaces that it was made with.
 */
export class KeptCompositions {
  private readonly kept = new Map<string, Kept>();

  constructor(
    private readonly most = MOST_PAGES,
    private readonly documents = MOST_DOCUMENTS,
  ) {}

  /** The typefaces of a document, and what sets it. */
  async of(key: string, load: () => Promise<FontSet>): Promise<{ fonts: FontSet; compose: (folio: Folio) => Composition }> {
    const known = this.kept.get(key) ?? { fonts: await load(), composition: null, pages: 0 };
    this.kept.delete(key);
    this.kept.set(key, known);
    return {
      fonts: known.fonts,
      compose: (folio) => {
        if (!known.composition) {
          known.pages = pagesOf(folio).length;
          this.makeRoom(key);
          known.composition = new Composer(known.fonts).compose(folio);
        }
        return known.composition;
      },
    };
  }

  private makeRoom(key: string): void {
    let all = [...this.kept.values()].reduce((sum, k) => sum + k.pages, 0);
    for (const [other, { pages }] of this.kept) {
      if (all <= this.most && this.kept.size <= this.documents) return;
      if (other === key) continue;
      this.kept.delete(other);
      all -= pages;
    }
  }

  /** Lets go of one that is too long to be kept after its turn. */
  settle(key: string): void {
    if ((this.kept.get(key)?.pages ?? 0) > this.most) this.kept.delete(key);
  }
}
