import { Button, Switch } from 'antd';
import { pagesOf, storyOfFrame, without } from '@elastic-folio/core';
import type { Tightening } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { progressOf } from '@elastic-folio/core/language';
import type { Expected } from '@elastic-folio/core/language';
import { pageNumberOf } from '../table/PageTable.tsx';
import { plural } from '../shell/plural.ts';
import { LettersAtHand } from './LettersAtHand.tsx';
import { useStandings } from './progress.ts';

/** Steps towards what is allowed, the least that can be seen first: tracking and word space, then leading, then size. */
const STEPS: { says: string; share: (limits: Tightening) => Tightening }[] = [
  { says: 'closer letters and words', share: (l) => ({ tracking: l.tracking, wordSpace: l.wordSpace, size: 1, leading: 1 }) },
  { says: 'closer lines as well', share: (l) => ({ tracking: l.tracking, wordSpace: l.wordSpace, size: 1, leading: l.leading }) },
  { says: 'a little smaller as well', share: (l) => l },
];

interface Props {
  language: string;
  expected: Expected | null;
  onForecast: (on: boolean) => void;
  onSelect: (item: string) => void;
}

/** Texts that do not fit in this language, signs that no font has, and what could be done. */
export function FitList({ language, expected, onForecast, onSelect }: Props) {
  const folio = useDocument((s) => s.folio)!;
  const overflow = useDocument((s) => s.overflow);
  const missing = useDocument((s) => s.missing);
  const shown = useDocument((s) => s.language);
  const change = useDocument((s) => s.change);
  const forecast = useDocument((s) => s.forecast);
  const { all, done } = progressOf(useStandings(folio, language));
  const edition = folio.editions[language]!;
  const { tightened } = edition.overrides;
  const set = (story: string, by: Tightening | null): void => {
    const rest = without(tightened, story);
    change([{ kind: 'edition.settings', args: { language, overrides: { tightened: by ? { ...rest, [story]: by } : rest } } }], newBurst());
  };
  const frames = storyOfFrame(folio);
  const placeOf = (story: string): { item: string; page: number | undefined } | null => {
    const last = folio.stories[story]?.frames.at(-1);
    return last && frames.has(last.item) ? { item: last.item, page: pageNumberOf(folio, last.spread, last.item) } : null;
  };
  if (shown !== language) return <p className="soft">Lay the edition on the table to see what does not fit.</p>;
  const over = Object.entries(overflow).filter(([, o]) => o);
  const tight = Object.keys(tightened).filter((id) => !overflow[id]);
  const lacking = Object.entries(missing);
  const open = all - done;
  return (
    <div className="fit-list">
      {open > 0 && expected && (
        <div className="forecast">
          <Switch size="small" aria-label="Forecast" checked={forecast !== null} onChange={onForecast} />
          <span>
            Forecast: {plural(open, 'open text')} at {Math.round(expected.ratio * 100)} % of their length
            <small className="soft">
              {expected.from === 'memory' ? `as ${plural(expected.texts, 'text')} were translated before` : 'as common practice has it'}
            </small>
          </span>
        </div>
      )}
      <h2>
        {over.length
          ? `${plural(over.length, 'text')} ${forecast === null ? '' : 'would become '}longer than ${over.length === 1 ? 'its' : 'their'} frames`
          : forecast === null
            ? 'Every text fits its frames'
            : 'Every text would fit its frames'}
      </h2>
      <ul>
        {over.map(([story, o]) => {
          const place = placeOf(story);
          const now = tightened[story];
          const step = STEPS.findIndex((s) => same(s.share(edition.limits), now));
          const next = STEPS[step + 1];
          return (
            <li key={story}>
              <button className="link" onClick={() => place && onSelect(place.item)}>
                {place?.page !== undefined ? `Page ${place.page}: ` : ''}
                {plural(o!.words, 'word')} not seen
              </button>
              {next ? (
                <Button size="small" onClick={() => set(story, next.share(edition.limits))}>
                  Try {next.says}
                </Button>
              ) : (
                <span className="soft">as tight as the limits allow; shorten it, or enlarge its frame</span>
              )}
              {now && (
                <Button size="small" type="text" onClick={() => set(story, null)}>
                  As it was
                </Button>
              )}
            </li>
          );
        })}
      </ul>
      {tight.length > 0 && (
        <>
          <h2>Set tighter, and fitting</h2>
          <ul>
            {tight.map((story) => {
              const place = placeOf(story);
              return (
                <li key={story}>
                  <button className="link" onClick={() => place && onSelect(place.item)}>
                    {place?.page !== undefined ? `Page ${place.page}` : story}
                  </button>
                  <span className="soft">{inWords(tightened[story]!)}</span>
                  <Button size="small" type="text" onClick={() => set(story, null)}>
                    As it was
                  </Button>
                </li>
              );
            })}
          </ul>
        </>
      )}
      {lacking.length > 0 && (
        <>
          <h2>Signs that no font at hand has</h2>
          <ul>
            {lacking.map(([story, signs]) => (
              <li key={story}>
                <button className="link" onClick={() => placeOf(story) && onSelect(placeOf(story)!.item)}>
                  {placeOf(story)?.page !== undefined ? `Page ${placeOf(story)!.page}: ` : ''}
                  {signs.slice(0, 24).join(' ')}
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
      <LettersAtHand language={language} />
      <p className="soft">{plural(pagesOf(folio).length, 'page')} looked through. Nothing is tightened unless you say so.</p>
    </div>
  );
}

const same = (a: Tightening, b: Tightening | undefined): boolean =>
  !!b && a.tracking === b.tracking && a.wordSpace === b.wordSpace && a.size === b.size && a.leading === b.leading;

const inWords = (t: Tightening): string =>
  [
    t.tracking < 0 && `letters ${t.tracking}/1000 em`,
    t.wordSpace < 1 && `word space ${Math.round(t.wordSpace * 100)} %`,
    t.leading < 1 && `lines ${Math.round(t.leading * 100)} %`,
    t.size < 1 && `size ${Math.round(t.size * 100)} %`,
  ]
    .filter(Boolean)
    .join(', ');
