import { paragraphsOf, readText, resolveParagraph, storyOfFrame } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { AlphabeticalList } from './AlphabeticalList.tsx';
import { LanguageChoice } from './LanguageChoice.tsx';
import { StaysAsItIs } from './StaysAsItIs.tsx';
import { WordLanguages } from './WordLanguages.tsx';

/** In which language each paragraph of a text is, and words in it: screen readers speak it, words are divided by its rules. */
export function PassageLanguages({ frame }: { frame: string }) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const story = folio.stories[storyOfFrame(folio).get(frame) ?? ''];
  const paragraphs = story ? [...paragraphsOf(story)].filter((p) => readText(p).trim()) : [];
  if (!story || !paragraphs.length) return null;
  return (
    <details className="languages">
      <summary>Languages of its paragraphs</summary>
      <AlphabeticalList story={story} />
      <ul>
        {paragraphs.map((p) => {
          const text = readText(p).trim();
          return (
            <li key={p.id} data-paragraph={p.id}>
              <span>{text.length > 60 ? `${text.slice(0, 58)}…` : text}</span>
              <LanguageChoice
                label={`Language of “${text.slice(0, 30)}”`}
                value={p.character?.language}
                around={resolveParagraph(folio.head, p).character.language}
                onLanguage={(language) =>
                  change([{ kind: 'paragraph.language', args: { story: story.id, paragraphs: [p.id], language } }], newBurst())
                }
              />
              <WordLanguages story={story.id} paragraph={p} />
              <StaysAsItIs story={story.id} paragraph={p} />
            </li>
          );
        })}
      </ul>
    </details>
  );
}
