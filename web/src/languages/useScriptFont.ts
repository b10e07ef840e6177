import { API_ROOT } from '../api/root.ts';
import { useEffect } from 'react';
import { useQuery } from '@tanstack/react-query';
import { familyForLanguage } from '@elastic-folio/core/compose';
import { api } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';

/** Under which name style sheets find the font for the script of the language that is shown. */
const NAME = 'Script of the language';

/** Letters of a language that the interface's own fonts lack, from the fonts that ship with the program. */
export function useScriptFont(language: string | null): void {
  const id = useDocument((s) => s.id)!;
  const family = language === null ? undefined : familyForLanguage(language);
  const fonts = useQuery({ queryKey: ['fonts', id], queryFn: () => api.fonts(id), enabled: family !== undefined }).data;
  const key = fonts?.find((f) => f.family === family && f.weight === 400 && f.style === 'normal')?.key;
  useEffect(() => {
    if (key === undefined) return;
    const face = new FontFace(NAME, `url(${API_ROOT}/folios/${encodeURIComponent(id)}/fonts/${encodeURIComponent(key)})`);
    document.fonts.add(face);
    void face.load().catch(() => undefined);
    return () => void document.fonts.delete(face);
  }, [id, key]);
}
