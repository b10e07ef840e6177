import { useMemo } from 'react';
import { useQuery } from '@tanstack/react-query';
import { expectedLength, lengthsIn } from '@elastic-folio/core/language';
import type { Expected } from '@elastic-folio/core/language';
import { api } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';

/** How long the open texts of a language may become: by what was translated before, or by common practice; `shown` where it is asked for. */
export function useForecast(language: string | null, asked: boolean): { expected: Expected | null; shown: number | null } {
  const folio = useDocument((s) => s.folio)!;
  const source = folio.head.metadata.language;
  const known = useQuery({
    queryKey: ['lengths', source, language],
    queryFn: () => api.memoryLengths(source, language!),
    enabled: language !== null,
  }).data;
  const expected = useMemo(() => {
    if (language === null || !known) return null;
    // The document’s own texts tell most; the memory where they are too few.
    const here = expectedLength(source, language, lengthsIn(folio, language));
    return here.from === 'memory' ? here : expectedLength(source, language, known);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- spreads and recipes have no texts of their own here
  }, [folio.stories, folio.head, folio.editions, language, source, known]);
  return { expected, shown: asked && expected ? expected.ratio : null };
}
