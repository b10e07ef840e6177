import type { FileDerived } from '@elastic-folio/core/node';
import type { LoadedFolio } from '@elastic-folio/core/read';
import type { ConversionPool } from '../conversion/pool.ts';
import type { Survey } from '../conversion/tasks.ts';
import type { EventHub } from '../events.ts';

/** Surveys that are remembered; the rest is read from the store of derived things. */
const REMEMBERED = 500;

/** What the shelf shows of documents and takes setting them to know: made once for each content, in a thread. */
export class Surveys {
  private readonly known = new Map<string, Survey>();
  private readonly going = new Map<string, Promise<Survey>>();

  constructor(
    private readonly loaded: (id: string) => Promise<LoadedFolio>,
    private readonly derived: FileDerived,
    private readonly pool: ConversionPool,
    private readonly blobs: string,
    private readonly events: EventHub,
  ) {}

  /** A document's survey if it has been made; else null: it is begun, and the shelf is told when it is there. */
  async peek(id: string, hash: string): Promise<Survey | null> {
    const known = this.known.get(hash) ?? (this.going.has(hash) ? undefined : await this.stored(hash));
    if (known) return known;
    // Told once for each: a window that hears of it asks for the whole shelf.
    if (!this.going.has(hash)) void this.of(id, hash).then(() => this.events.tell({ type: 'shelf' }));
    return null;
  }

  /** A document's survey, made now if need be. */
  async of(id: string, hash: string): Promise<Survey> {
    const known = this.known.get(hash);
    if (known) return known;
    let going = this.going.get(hash);
    if (!going) this.going.set(hash, (going = this.make(id, hash).finally(() => this.going.delete(hash))));
    return going;
  }

  private async make(id: string, hash: string): Promise<Survey> {
    const stored = await this.stored(hash);
    if (stored) return stored;
    try {
      const { folio, files, library = [] } = await this.loaded(id);
      const outcome = await this.pool.survey({ folio, files: [...files], library, blobs: this.blobs });
      if ('ok' in outcome) {
        await this.derived.put(keyOf(hash), new TextEncoder().encode(JSON.stringify(outcome.ok)));
        return this.remember(hash, outcome.ok);
      }
      return this.remember(hash, failed('failure' in outcome ? outcome.failure.message : 'it was stopped.'));
    } catch (error) {
      return failed(error instanceof Error ? error.message : String(error));
    }
  }

  private async stored(hash: string): Promise<Survey | undefined> {
    const bytes = await this.derived.get(keyOf(hash));
    return bytes && this.remember(hash, JSON.parse(new TextDecoder().decode(bytes)) as Survey);
  }

  private remember(hash: string, survey: Survey): Survey {
    if (this.known.size >= REMEMBERED) this.known.delete(this.known.keys().next().value!);
    this.known.set(hash, survey);
    return survey;
  }
}

const keyOf = (hash: string): string => `survey/2/${hash}`;
const failed = (why: string): Survey => ({ openPoints: [`The document could not be looked through: ${why}`], cover: null });
