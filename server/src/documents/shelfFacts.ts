import { pagesOf } from '@elastic-folio/core';
import type { Folio } from '@elastic-folio/core';
import { progressOf, standingsOf } from '@elastic-folio/core/language';
import { othersShownBy } from '@elastic-folio/core/node';
import type { DerivedStore } from '@elastic-folio/core/node';
import type { DocumentRow, DocumentStore, OtherShown } from './documentStore.ts';
import type { FontLibrary } from './fontLibrary.ts';
import { hashOf } from './parts.ts';

/** What the shelf shows of a document and takes reading all of it to know. */
export interface ShelfFacts {
  /** What the document calls itself, and its title. */
  name: string;
  title: string;
  pages: number;
  /** Of the first page, in points. */
  width: number;
  height: number;
  language: string;
  editions: { language: string; all: number; done: number; stale: number }[];
  recipes: Folio['recipes'];
  /** Hashes of what outputs are made from, without editions and with them. */
  content: string;
  withEditions: string;
}

/** Documents of which it is remembered; of the rest it is read from the store of derived things. */
const REMEMBERED = 500;

interface Kept {
  /** The state of the document and of the library of fonts, and the other documents that it showed, as they were. */
  state: string;
  others: OtherShown[];
  facts: ShelfFacts;
}

/**
 * What the shelf shows, kept for each document as it was last seen: a shelf of long documents is shown without reading any of those that
 * have not changed since, after a restart as well.
 */
export class ShelfFactsStore {
  private readonly known = new Map<string, Kept>();

  constructor(
    private readonly documents: DocumentStore,
    private readonly fonts: FontLibrary,
    private readonly derived: DerivedStore,
  ) {}

  /** Of a document as the shelf lists it. One that was taken off the shelf meanwhile has none: a FolioError says so. */
  async of({ id, seq, changedAt }: DocumentRow): Promise<ShelfFacts> {
    const state = hashOf([seq, changedAt, await this.fonts.list()]);
    const kept = this.known.get(id) ?? (await this.stored(id));
    if (kept?.state === state && (await this.showsTheSame(id, kept.others))) {
      return this.remember(id, kept).facts;
    }
    const { folio, content, withEditions, seq: read } = await this.documents.state(id);
    const { head } = folio;
    const pages = pagesOf(folio);
    const { width, height } = pages[0]!.page.box;
    const facts: ShelfFacts = {
      name: head.id,
      title: head.metadata.title,
      pages: pages.length,
      width,
      height,
      language: head.metadata.language,
      editions: Object.keys(folio.editions).map((language) => ({ language, ...progressOf(standingsOf(folio, language)) })),
      recipes: folio.recipes,
      content,
      withEditions,
    };
    // It may have changed between the list and the reading: then it is looked at again the next time.
    if (read === seq) {
      const made: Kept = { state, others: await this.documents.shownBy(othersShownBy(folio), id), facts };
      this.remember(id, made);
      await this.derived.put(keyOf(id), new TextEncoder().encode(JSON.stringify(made)));
    }
    return facts;
  }

  private remember(id: string, kept: Kept): Kept {
    this.known.delete(id);
    this.known.set(id, kept);
    if (this.known.size > REMEMBERED) this.known.delete(this.known.keys().next().value!);
    return kept;
  }

  private async stored(id: string): Promise<Kept | undefined> {
    const bytes = await this.derived.get(keyOf(id));
    return bytes && (JSON.parse(new TextDecoder().decode(bytes)) as Kept);
  }

  private async showsTheSame(id: string, others: readonly OtherShown[]): Promise<boolean> {
    if (!others.length) return true;
    const now = await this.documents.shownBy(
      others.map((o) => o.name),
      id,
    );
    return JSON.stringify(now) === JSON.stringify(others);
  }
}

const keyOf = (id: string): string => `shelf/1/${id}`;
