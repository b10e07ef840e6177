import { Button, InputNumber, Select, Switch } from 'antd';
import { isLocked, without } from '@elastic-folio/core';
import type { Edition } from '@elastic-folio/core';
import { useQuery } from '@tanstack/react-query';
import { api } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';
import { actorId, newBurst } from '../document/identity.ts';
import { newRecipe } from '../outputs/newRecipe.ts';
import { InThisLanguage } from './InThisLanguage.tsx';
import { languageName } from './languageName.ts';

interface Props {
  language: string;
  /** What is selected on the table. */
  item: string | null;
  onGone: () => void;
}

/** What is otherwise in one language, and what may be done to its texts; its outputs; locking it. */
export function EditionSettings({ language, item, onGone }: Props) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const fonts = useDocument((s) => s.fonts);
  const complain = useDocument((s) => s.complain);
  const edition = folio.editions[language]!;
  const locked = isLocked(edition);
  const set = (args: Partial<Pick<Edition, 'conventions' | 'limits'>> & { overrides?: Partial<Edition['overrides']> }): void =>
    change([{ kind: 'edition.settings', args: { language, ...args } }], newBurst());
  const lock = (did: 'locked' | 'unlocked'): void =>
    change([{ kind: 'edition.lock', args: { language, lock: { did, by: actorId(), at: new Date().toISOString() } } }], newBurst());
  const kinds = (useQuery({ queryKey: ['kinds'], queryFn: api.outputKinds, staleTime: Infinity }).data ?? []).filter(
    (k) => k.view !== 'texts',
  );
  const own = Object.values(folio.recipes).filter((r) => r.edition === undefined && kinds.some((k) => k.id === r.output));
  const here = Object.values(folio.recipes).filter((r) => r.edition === language);
  /** Every output of the document, in this language as well. */
  const addOutputs = (): void => {
    const missing = own.filter((r) => !here.some((h) => h.output === r.output && h.name.startsWith(r.name)));
    if (!missing.length) return complain('Every output is there in this language already; see Outputs.');
    change(
      missing.map((r) => {
        const kind = kinds.find((k) => k.id === r.output)!;
        const edit = newRecipe(folio, kind, r.settings, `${r.name}, ${languageName(language)}`);
        return { ...edit, args: { ...edit.args, edition: language } };
      }),
      newBurst(),
    );
  };
  const families = [
    ...new Set(
      [...Object.values(folio.head.paragraphStyles), ...Object.values(folio.head.characterStyles)].flatMap(
        (s) => s.character.fontFamily ?? [],
      ),
    ),
  ].sort();
  const there = [...new Set((fonts ?? []).map((f) => f.family))].sort();
  const percent = (value: number, title: string, put: (v: number) => void, least = 50) => (
    <label>
      <span className="soft">{title}</span>
      <InputNumber
        size="small"
        disabled={locked}
        min={least}
        max={100}
        suffix="%"
        value={Math.round(value * 100)}
        onChange={(v) => v !== null && put(v / 100)}
      />
    </label>
  );
  const { limits, conventions, overrides } = edition;
  const habit = (name: keyof Edition['conventions'], title: string) => (
    <label>
      <span className="soft">{title}</span>
      <Switch
        size="small"
        disabled={locked}
        checked={conventions[name] === true}
        onChange={(on) => set({ conventions: { ...conventions, [name]: on } })}
      />
    </label>
  );
  return (
    <div className="edition-settings">
      <h2>Outputs</h2>
      <p className="soft">
        {here.length
          ? `${here.map((r) => r.name).join(', ')}: made in Outputs, like the others.`
          : own.length
            ? 'No output is in this language yet.'
            : 'The document has no outputs yet; add some in Outputs.'}
      </p>
      {own.length > 0 && (
        <Button size="small" onClick={addOutputs}>
          Add every output in {languageName(language)}
        </Button>
      )}
      <h2>Typefaces</h2>
      {families.map((family) => (
        <label key={family}>
          <span className="soft">{family}</span>
          <Select
            size="small"
            aria-label={`In place of ${family}`}
            disabled={locked}
            allowClear
            showSearch
            placeholder="the same"
            value={overrides.fonts[family]?.family ?? null}
            onChange={(v: string | null) => {
              const rest = without(overrides.fonts, family);
              set({ overrides: { fonts: v ? { ...rest, [family]: { family: v } } : rest } });
            }}
            options={there.filter((f) => f !== family).map((f) => ({ value: f, label: f }))}
          />
        </label>
      ))}
      <label>
        <span className="soft">Slanted letters become</span>
        <Select
          size="small"
          aria-label="Slanted letters become"
          disabled={locked}
          value={overrides.italics}
          onChange={(italics) => set({ overrides: { italics } })}
          options={[
            { value: 'italic', label: 'slanted' },
            { value: 'bold', label: 'bold' },
            { value: 'upright', label: 'upright' },
          ]}
        />
      </label>
      <h2>Pictures and links</h2>
      <InThisLanguage key={item} language={language} item={item} />
      <h2>Habits of the language</h2>
      {habit('quotes', 'Quotation marks as the language has them')}
      {habit('decimals', 'Decimal marks as the language has them')}
      {habit('dates', 'Dates as the language has them')}
      <h2>How tight a text may be set</h2>
      <label>
        <span className="soft">Letters closer by (1/1000 em)</span>
        <InputNumber
          size="small"
          disabled={locked}
          min={0}
          max={100}
          value={-limits.tracking}
          onChange={(v) => v !== null && set({ limits: { ...limits, tracking: -v } })}
        />
      </label>
      {percent(limits.wordSpace, 'Word space down to', (wordSpace) => set({ limits: { ...limits, wordSpace } }))}
      {percent(limits.leading, 'Line pitch down to', (leading) => set({ limits: { ...limits, leading } }))}
      {percent(limits.size, 'Size down to', (size) => set({ limits: { ...limits, size } }))}
      <h2>Confirm</h2>
      <p className="soft">
        {locked
          ? 'The edition is confirmed and locked: nothing of it changes.'
          : 'When all is right, lock it: nothing of it changes by a slip.'}
        {edition.locks.length > 0 && ` ${edition.locks.map((l) => `${l.did} ${new Date(l.at).toLocaleString('en')}`).join('; ')}.`}
      </p>
      <Button size="small" type={locked ? 'default' : 'primary'} onClick={() => lock(locked ? 'unlocked' : 'locked')}>
        {locked ? 'Unlock' : 'Confirm and lock'}
      </Button>
      {!locked && (
        <Button
          size="small"
          danger
          onClick={() => {
            change([{ kind: 'edition.remove', args: { language } }], newBurst());
            onGone();
          }}
        >
          Remove this edition
        </Button>
      )}
    </div>
  );
}
