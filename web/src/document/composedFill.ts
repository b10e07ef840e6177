import type { Folio } from '@elastic-folio/core';
import { Composer } from '@elastic-folio/core/compose';
import type { Composition, FontSet } from '@elastic-folio/core/compose';
import type { Fill } from './compositionMessages.ts';

let kept: { folio: Folio; fonts: FontSet; composer: Composer; composition: Composition } | null = null;

/** How far the frames of texts are filled in the document’s own language and in an edition of it; its own setting is kept. */
export function composedFill(source: Folio, fonts: FontSet, edition: Folio, after: Composition): Record<string, Fill> {
  if (kept?.fonts !== fonts || kept.folio !== source) {
    const composer = kept?.fonts === fonts ? kept.composer : new Composer(fonts);
    kept = { folio: source, fonts, composer, composition: composer.compose(source) };
  }
  const before = kept.composition;
  const fills: Record<string, Fill> = {};
  for (const [id, frame] of after.frames) {
    const item = edition.spreads[frame.spread]?.items[id];
    if (item?.kind !== 'textFrame') continue;
    const share = (composition: Composition): number => {
      const lines = composition.frames.get(id)?.lines ?? [];
      const end = lines.reduce((y, l) => Math.max(y, l.baseline + l.descent), 0);
      const set = composition.stories.get(frame.story);
      const isLast = set?.frames[set.frames.length - 1]?.item === id;
      const seen = lines.reduce((n, l) => n + l.end - l.start, 0);
      // What is not seen at the end of a text counts with its last frame.
      const over = isLast && set?.overflow && seen ? set.overflow.characters / seen : 0;
      return (end / item.size.height) * (1 + over);
    };
    fills[id] = { before: share(before), after: share(after) };
  }
  return fills;
}
