import type { Folio } from '../folio/folio.ts';
import { applyEdit, applyTo } from './apply.ts';
import type { Applied } from './apply.ts';
import type { Edit } from './edits.ts';
import { paragraphTypedIn } from './paragraphAlone.ts';
import type { Alone } from './paragraphAlone.ts';

/**
 * A document that is being typed into. Letters that follow one another in one paragraph are worked out on that paragraph; the
 * document as a whole is put together when somebody asks for it, once for all of them: in a long text that costs more than the
 * letters. Immutable from outside: an edit gives another.
 */
export class OpenFolio {
  private whole: Folio | null;

  private constructor(
    folio: Folio | null,
    /** The paragraph that was typed into last, and the document with that alone as it is now. */
    private readonly typing: { at: Alone; now: Folio } | null,
  ) {
    this.whole = folio;
  }

  static of(folio: Folio): OpenFolio {
    return new OpenFolio(folio, null);
  }

  get folio(): Folio {
    return (this.whole ??= this.typing!.at.putBack(this.typing!.now));
  }

  get title(): string {
    return (this.typing?.now ?? this.folio).head.metadata.title;
  }

  /** Applies an edit; throws what `applyEdit` throws. */
  apply(edit: Edit): Omit<Applied, 'folio'> & { open: OpenFolio } {
    const typing = this.typing && isWithin(this.typing.at, edit) ? this.typing : this.begun(edit);
    if (!typing) {
      const { folio, ...applied } = applyEdit(this.folio, edit);
      return { ...applied, open: OpenFolio.of(folio) };
    }
    const { folio: now, ...applied } = applyTo(typing.now, edit);
    return { ...applied, open: applied.patches.length ? new OpenFolio(null, { at: typing.at, now }) : this };
  }

  private begun(edit: Edit): { at: Alone; now: Folio } | null {
    const at = edit.kind === 'text.replace' ? paragraphTypedIn(this.folio, edit) : null;
    return at && { at, now: at.alone };
  }
}

function isWithin({ story, paragraph }: Alone, edit: Edit): boolean {
  if (edit.kind !== 'text.replace') return false;
  const { args } = edit;
  return args.story === story && args.from.paragraphId === paragraph && args.to.paragraphId === paragraph && !args.newIds.length;
}
