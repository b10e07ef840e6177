import { useState } from 'react';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Button, Input } from 'antd';
import { Trash2 } from 'lucide-react';
import { Term } from '@elastic-folio/core/language';
import { api, sendTerms } from '../api/client.ts';
import { inWords } from '../api/untilAnswered.ts';
import { ChooseFile } from '../shell/ChooseFile.tsx';
import { plural } from '../shell/plural.ts';

/** How words are always to be translated between two languages: kept by hand, or taken from a file of terminology. */
export function TermList({ source, language }: { source: string; language: string }) {
  const client = useQueryClient();
  const terms = useQuery({ queryKey: ['terms', source, language], queryFn: () => api.terms(source, language) }).data ?? [];
  const [word, setWord] = useState('');
  const [said, setSaid] = useState('');
  const [note, setNote] = useState('');
  const [reading, setReading] = useState(false);
  const [told, setTold] = useState<{ says: string; wrong: boolean } | null>(null);
  const again = (): void => void client.invalidateQueries({ queryKey: ['terms', source, language] });
  const add = async (): Promise<void> => {
    const term = Term.safeParse({ source: word, target: said, ...(note.trim() && { note: note.trim() }) });
    if (!term.success) return;
    try {
      await api.keepTerm(source, language, term.data);
    } catch (error) {
      return setTold({ says: inWords(error), wrong: true });
    }
    setWord('');
    setSaid('');
    setNote('');
    again();
  };
  const take = async (file: File): Promise<void> => {
    setReading(true);
    try {
      const { added, others } = await sendTerms(source, language, file);
      setTold({ says: `${plural(added, 'new term')}${others ? `; ${others} are in other languages` : ''}.`, wrong: false });
      again();
    } catch (error) {
      setTold({ says: inWords(error), wrong: true });
    }
    setReading(false);
  };
  return (
    <section className="terms" aria-label="Terms">
      <h2>Terms</h2>
      <p className="soft">Underlined at the desk; it is told where a translation does without them.</p>
      <ul>
        {terms.map((t) => (
          <li key={t.id}>
            <span lang={source}>{t.source}</span>
            <span lang={language}>{t.target}</span>
            <small className="soft">{t.note}</small>
            <Button
              size="small"
              type="text"
              icon={<Trash2 size={13} />}
              aria-label={`Forget ${t.source}, ${t.target}`}
              onClick={() =>
                void api.removeTerm(source, language, t.id).then(again, (e: unknown) => setTold({ says: inWords(e), wrong: true }))
              }
            />
          </li>
        ))}
      </ul>
      <form className="new-term" onSubmit={(e) => (e.preventDefault(), void add())}>
        <Input size="small" aria-label="Term" placeholder="Term" maxLength={300} value={word} onChange={(e) => setWord(e.target.value)} />
        <Input
          size="small"
          aria-label="Its translation"
          placeholder="Its translation"
          maxLength={300}
          value={said}
          onChange={(e) => setSaid(e.target.value)}
        />
        <Input size="small" aria-label="Note" placeholder="Note" maxLength={2000} value={note} onChange={(e) => setNote(e.target.value)} />
        <Button size="small" htmlType="submit" disabled={!word.trim() || !said.trim()}>
          Add
        </Button>
      </form>
      <ChooseFile
        label="File of terms"
        accept=".tbx,.xml"
        asks={reading ? 'Reading …' : 'Choose a file of terms (TBX)'}
        says="Terms that are there already stay"
        reading={reading}
        onFile={(file) => void take(file)}
      />
      {told && (
        <p className={told.wrong ? 'warn' : 'soft'} role={told.wrong ? 'alert' : 'status'}>
          {told.says}
        </p>
      )}
    </section>
  );
}
