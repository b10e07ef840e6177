import { spreadOfItem, storyOfFrame, without } from '@elastic-folio/core';
import type { Edition, Story } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { DraftInput } from '../shell/DraftField.tsx';
import { FileChoice } from '../stages/FileChoice.tsx';
import { languageName } from './languageName.ts';

/** Of what is selected on the table: another picture in this language, and other addresses of links. */
export function InThisLanguage({ language, item: id }: { language: string; item: string | null }) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const item = id === null ? undefined : spreadOfItem(folio, id)?.items[id];
  const story = item && folio.stories[storyOfFrame(folio).get(item.id) ?? ''];
  const { pictures, links } = folio.editions[language]!.overrides;
  const set = (overrides: Partial<Edition['overrides']>): void =>
    change([{ kind: 'edition.settings', args: { language, overrides } }], newBurst());
  if (item?.kind === 'picture' || item?.kind === 'media')
    return (
      <FileChoice
        words={`In ${languageName(language)}`}
        name={`In place of it in ${languageName(language)}`}
        of={item.kind === 'picture' ? 'picture' : 'played'}
        value={pictures[item.id]?.media}
        none="the same"
        onChange={(media) => set({ pictures: media ? { ...pictures, [item.id]: { media } } : without(pictures, item.id) })}
      />
    );
  const addresses = story ? addressesOf(story) : [];
  if (!story || !addresses.length)
    return (
      <p className="soft">Select a picture, a film, or a text with links on the table, to give it another in {languageName(language)}.</p>
    );
  return (
    <>
      {addresses.map(([link, href]) => {
        const key = `${story.id}/${link}`;
        return (
          <label key={key}>
            <span className="soft">{href}</span>
            <DraftInput
              size="small"
              type="url"
              aria-label={`In place of ${href}`}
              placeholder="the same"
              maxLength={2000}
              value={links[key] ?? ''}
              onKeep={(text) => set({ links: text.trim() ? { ...links, [key]: text.trim() } : without(links, key) })}
            />
          </label>
        );
      })}
    </>
  );
}

const addressesOf = (story: Story): [link: string, href: string][] =>
  Object.values(story.links).flatMap((l): [string, string][] => (l.destination.to === 'address' ? [[l.id, l.destination.href]] : []));
