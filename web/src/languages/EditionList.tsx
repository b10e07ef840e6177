import { Progress, Segmented } from 'antd';
import { Lock } from 'lucide-react';
import { isLocked } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { LanguageChoice } from '../stages/LanguageChoice.tsx';
import { languageName } from './languageName.ts';
import { useStandings } from './progress.ts';
import { progressOf } from '@elastic-folio/core/language';

interface Props {
  language: string | null;
  original: boolean;
  onLanguage: (language: string | null) => void;
  onOriginal: (on: boolean) => void;
}

/** The languages that a document is in, how far each is, and a new one. */
export function EditionList({ language, original, onLanguage, onOriginal }: Props) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const { metadata } = folio.head;
  const make = (tag: string | null): void => {
    if (tag === null) return;
    if (tag !== metadata.language && !folio.editions[tag]) {
      const base = tag.split('-')[0]!;
      change(
        [{ kind: 'edition.make', args: { language: tag, ...(tag !== base && folio.editions[base] && { basedOn: base }) } }],
        newBurst(),
      );
    }
    if (tag !== metadata.language) onLanguage(tag);
  };
  return (
    <section className="editions" aria-label="Languages">
      <h1>Languages</h1>
      <ul>
        <li>
          <button
            className={language === null ? 'language-row now' : 'language-row'}
            aria-pressed={language === null}
            onClick={() => onLanguage(null)}
          >
            <b>{languageName(metadata.language)}</b>
            <span className="soft">the document’s own</span>
          </button>
        </li>
        {Object.keys(folio.editions).map((l) => (
          <EditionRow key={l} language={l} isNow={l === language} onChoose={() => onLanguage(l)} />
        ))}
      </ul>
      <label className="new-edition">
        <span className="soft">Another language</span>
        {/* A new field after each language: it is empty again. */}
        <LanguageChoice
          key={Object.keys(folio.editions).join()}
          label="Another language"
          value={undefined}
          around="such as fr or de-AT"
          onLanguage={make}
        />
      </label>
      {language !== null && (
        <Segmented
          block
          size="small"
          aria-label="On the table"
          value={original ? 'original' : 'edition'}
          onChange={(v) => onOriginal(v === 'original')}
          options={[
            { value: 'edition', label: languageName(language) },
            { value: 'original', label: languageName(metadata.language) },
          ]}
        />
      )}
    </section>
  );
}

function EditionRow({ language, isNow, onChoose }: { language: string; isNow: boolean; onChoose: () => void }) {
  const folio = useDocument((s) => s.folio)!;
  const { all, done, stale } = progressOf(useStandings(folio, language));
  const edition = folio.editions[language]!;
  const percent = all ? Math.floor((done / all) * 100) : 0;
  return (
    <li>
      <button className={isNow ? 'language-row now' : 'language-row'} aria-pressed={isNow} onClick={onChoose}>
        <b>
          {languageName(language)} {isLocked(edition) && <Lock size={12} aria-label="locked" />}
        </b>
        <span className="soft">
          {done === all && all > 0 ? 'all translated' : `${done} of ${all} texts`}
          {stale > 0 && <span className="straw">, {stale} changed since</span>}
        </span>
        <Progress
          aria-label={`${languageName(language)}: ${percent} %`}
          percent={percent}
          size="small"
          showInfo={false}
          strokeColor="var(--fir)"
        />
      </button>
    </li>
  );
}
