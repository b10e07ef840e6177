import { AutoComplete } from 'antd';
import { Language, paragraphsOf, readText, resolveParagraph, storyOfFrame } from '@elastic-folio/core';
import { newBurst, useDocument } from '../document/documentStore.ts';

/** Languages that are offered by name; any tag can be written (BCP 47). */
const OFFERED = [
  'en',
  'de',
  'fr',
  'es',
  'it',
  'nl',
  'pt',
  'pl',
  'cs',
  'sv',
  'da',
  'fi',
  'la',
  'el',
  'ru',
  'uk',
  'tr',
  'ar',
  'he',
  'ja',
  'zh',
  'ko',
];
const names = new Intl.DisplayNames(['en'], { type: 'language' });
const options = OFFERED.map((value) => ({ value, label: `${names.of(value)} (${value})` }));

/** In which language each paragraph of a text is: screen readers speak it, words are divided by its rules. */
export function PassageLanguages({ frame }: { frame: string }) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const story = folio.stories[storyOfFrame(folio).get(frame) ?? ''];
  const paragraphs = story ? [...paragraphsOf(story)].filter((p) => readText(p).trim()) : [];
  if (!story || !paragraphs.length) return null;
  return (
    <details className="languages">
      <summary>Languages of its paragraphs</summary>
      <ul>
        {paragraphs.map((p) => {
          const text = readText(p).trim();
          const own = p.character?.language;
          const now = resolveParagraph(folio.head, p).character.language;
          const set = (value: string): void => {
            const tag = value.trim();
            if (tag === (own ?? '') || (tag && !Language.safeParse(tag).success)) return;
            change([{ kind: 'paragraph.language', args: { story: story.id, paragraphs: [p.id], language: tag || null } }], newBurst());
          };
          return (
            <li key={p.id} data-paragraph={p.id}>
              <span>{text.length > 60 ? `${text.slice(0, 58)}…` : text}</span>
              <AutoComplete
                size="small"
                aria-label={`Language of “${text.slice(0, 30)}”`}
                key={own ?? ''}
                defaultValue={own}
                placeholder={now}
                allowClear
                options={options}
                onClear={() => set('')}
                onSelect={set}
                onBlur={(e) => set((e.target as HTMLInputElement).value)}
              />
            </li>
          );
        })}
      </ul>
    </details>
  );
}
