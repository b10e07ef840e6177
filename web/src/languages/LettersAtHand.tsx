import { useQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import type { FamilyLetters } from '@elastic-folio/core/language';
import { without } from '@elastic-folio/core';
import { api } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { languageName } from './languageName.ts';

/** Which fonts of the document have the letters of a language, before any text of it is there; others that look alike where they lack some. */
export function LettersAtHand({ language }: { language: string }) {
  const id = useDocument((s) => s.id)!;
  const kept = useDocument((s) => s.kept);
  const edition = useDocument((s) => s.folio!.editions[language]!);
  const change = useDocument((s) => s.change);
  const { fonts } = edition.overrides;
  const found = useQuery({
    queryKey: ['letters', id, language, fonts],
    queryFn: () => api.letters(id, language),
    enabled: kept,
    staleTime: 60_000,
  });
  const set = (family: string, by: string | null): void => {
    const rest = without(fonts, family);
    change(
      [{ kind: 'edition.settings', args: { language, overrides: { fonts: by === null ? rest : { ...rest, [family]: { family: by } } } } }],
      newBurst(),
    );
  };
  if (found.error) return <p className="warn">{found.error.message}</p>;
  if (!found.data) return <p className="soft">Looking through the fonts …</p>;
  if (!found.data.known) return <p className="soft">What {languageName(language)} is written with is not known here.</p>;
  const lacking = found.data.families.filter((f) => f.has < f.of);
  const whole = found.data.families.filter((f) => f.has === f.of);
  return (
    <section className="letters" aria-label="Letters of the language">
      <h2>Letters of {languageName(language)}</h2>
      <ul>
        {lacking.map((f) => (
          <OneFamily key={f.family} letters={f} language={language} onSet={(by) => set(f.family, by)} />
        ))}
      </ul>
      {whole.length > 0 && (
        <p className="soft">
          {whole.map((f) => f.family).join(', ')} {whole.length === 1 ? 'has' : 'have'} all {whole[0]!.of} of them.
        </p>
      )}
      {Object.entries(fonts).map(([family, { family: by }]) => (
        <p key={family} className="soft">
          {family} is set with {by} in {languageName(language)}.{' '}
          <Button size="small" type="text" onClick={() => set(family, null)}>
            As it was
          </Button>
        </p>
      ))}
    </section>
  );
}

function OneFamily({ letters: f, language, onSet }: { letters: FamilyLetters; language: string; onSet: (family: string) => void }) {
  const missing = f.of - f.has;
  return (
    <li>
      <p>
        <b>{f.family}</b> lacks {missing.toLocaleString('en')} of {f.of.toLocaleString('en')}:{' '}
        <span lang={language}>{f.lacks.slice(0, 24).join(' ')}</span>
        {missing > 24 && ' …'}
      </p>
      <p className="soft">
        {f.lent.length
          ? `Lent by ${f.lent.map((l) => `${l.family} (${l.letters.toLocaleString('en')})`).join(', ')}, as it is now.`
          : 'No font at hand lends them: they would not be seen.'}
      </p>
      {f.proposals.map((p) => (
        <div key={p.family} className="proposal">
          <Button size="small" onClick={() => onSet(p.family)}>
            Set with {p.family}
          </Button>
          <small className="soft">
            {p.has === f.of ? 'has all' : `has ${p.has.toLocaleString('en')}`}; {p.says.join(', ')}
          </small>
        </div>
      ))}
    </li>
  );
}
