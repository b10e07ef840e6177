import { useMemo, useState } from 'react';
import { Button, Input, Select, Switch, Tooltip } from 'antd';
import { paragraphsOf, readText, Role, RoleElement, styleChain, SURE, suggestRoles } from '@elastic-folio/core';
import type { Folio, RoleSuggestion } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { RoleSetControl } from './RoleSetControl.tsx';

const OF_PARAGRAPHS: [Role['element'], string][] = [
  ['h1', 'Heading 1'],
  ['h2', 'Heading 2'],
  ['h3', 'Heading 3'],
  ['h4', 'Heading 4'],
  ['h5', 'Heading 5'],
  ['h6', 'Heading 6'],
  ['p', 'Paragraph'],
  ['li', 'List entry'],
  ['blockquote', 'Quotation'],
  ['figcaption', 'Caption'],
  ['aside', 'Aside'],
  ['pre', 'Code'],
  ['th', 'Table heading'],
  ['td', 'Table text'],
];
const OF_CHARACTERS: [Role['element'], string][] = [
  ['em', 'Emphasis'],
  ['strong', 'Strong'],
  ['cite', 'Citation'],
  ['code', 'Code'],
  ['q', 'Quotation'],
  ['small', 'Small print'],
  ['sub', 'Lowered'],
  ['sup', 'Raised'],
  ['abbr', 'Abbreviation'],
  ['dfn', 'Term defined'],
  ['span', 'Nothing of its own'],
];
const LEAVE_OUT = 'leaveOut';

/** What each style means to a reader who does not see the layout: chosen, or suggested with the reasons. */
export function RoleList() {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const whole = useDocument((s) => s.loading === 'all');
  const { head, stories } = folio;
  const suggestions = useMemo(
    () => (whole ? suggestRoles(folio) : []),
    // What is suggested goes by styles and texts, not by where things stand.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [whole, head.paragraphStyles, head.characterStyles, stories],
  );
  const set = (kind: RoleSuggestion['kind'], style: string, role: Role | null): void =>
    change([{ kind: 'styles.roles', args: { paragraph: {}, character: {}, [kind]: { [style]: role } } }], newBurst());
  const open = suggestions.filter((s) => !roleOf(s));
  const sure = open.filter((s) => s.confidence >= SURE);
  function roleOf(s: RoleSuggestion): Role | undefined {
    // A style means what the one it is based on means, where nothing else was said.
    const chain = s.kind === 'paragraph' ? styleChain(head.paragraphStyles, s.style) : styleChain(head.characterStyles, s.style);
    return chain.findLast((style) => style.role)?.role;
  }
  const takeAll = (): void => {
    const roles = (kind: RoleSuggestion['kind']): Record<string, Role> =>
      Object.fromEntries(sure.filter((s) => s.kind === kind).map((s) => [s.style, s.role]));
    change([{ kind: 'styles.roles', args: { paragraph: roles('paragraph'), character: roles('character') } }], newBurst());
  };
  const samples = useMemo(() => (whole ? samplesOf(stories) : new Map<string, string>()), [whole, stories]);
  const unsure = open.length - sure.length;
  return (
    <>
      <h2>What each style means</h2>
      <p className="soft">
        {open.length
          ? `${open.length} ${open.length === 1 ? 'style has' : 'styles have'} no meaning yet. Suggested from size, place and frequency.`
          : 'Every style has a meaning.'}
        {unsure > 0 && <strong className="clay"> {unsure === 1 ? 'One needs' : `${unsure} need`} a decision.</strong>}
      </p>
      {sure.length > 0 && (
        <Button type="primary" onClick={takeAll}>
          {sure.length === 1 ? 'Take the one suggestion that is sure' : `Take the ${sure.length} suggestions that are sure`}
        </Button>
      )}
      <RoleSetControl />
      {(['paragraph', 'character'] as const).map((kind) => {
        const rows = suggestions.filter((s) => s.kind === kind);
        return rows.length ? (
          <table className="roles" key={kind}>
            <thead>
              <tr>
                <th scope="col">{kind === 'paragraph' ? 'Paragraph style' : 'Character style'}</th>
                <th scope="col">Becomes</th>
                {kind === 'paragraph' && <th scope="col">New section</th>}
              </tr>
            </thead>
            <tbody>
              {rows.map((s) => (
                <RoleRow
                  key={s.style}
                  suggestion={s}
                  name={nameOf(s)}
                  sample={samples.get(`${kind}/${s.style}`)}
                  role={roleOf(s)}
                  onRole={(role) => set(kind, s.style, role)}
                />
              ))}
            </tbody>
          </table>
        ) : null;
      })}
    </>
  );
  function nameOf(s: RoleSuggestion): string {
    return (s.kind === 'paragraph' ? head.paragraphStyles[s.style] : head.characterStyles[s.style])?.name ?? s.style;
  }
}

/** How the first text in each style begins. */
function samplesOf(stories: Folio['stories']): Map<string, string> {
  const out = new Map<string, string>();
  const note = (key: string, text: string): void => {
    if (text.trim() && !out.has(key)) out.set(key, text.trim().slice(0, 60));
  };
  for (const story of Object.values(stories))
    for (const paragraph of paragraphsOf(story)) {
      note(`paragraph/${paragraph.style}`, readText(paragraph));
      for (const node of paragraph.content) if (node.type === 'span' && node.style) note(`character/${node.style}`, node.text);
    }
  return out;
}

/** A name that CSS takes for a class, as the document's schema has it. */
const isClass = (text: string): boolean => Role.shape.class.safeParse(text).success;

function RoleRow({
  suggestion: s,
  name,
  sample,
  role,
  onRole,
}: {
  suggestion: RoleSuggestion;
  name: string;
  sample: string | undefined;
  role: Role | undefined;
  onRole: (role: Role | null) => void;
}) {
  const shown = role ?? (s.confidence >= SURE ? s.role : undefined);
  const options = (s.kind === 'paragraph' ? OF_PARAGRAPHS : OF_CHARACTERS).map(([value, label]) => ({ value: value as string, label }));
  const value = shown?.leaveOut ? LEAVE_OUT : shown?.element;
  const [opened, setOpened] = useState(false);
  const [refused, setRefused] = useState(false);
  const named = (text: string): void => {
    const own = text.trim();
    setRefused(own !== '' && !isClass(own));
    if (own === (role?.class ?? '') || (own && !isClass(own))) return;
    const next = { ...(shown ?? s.role) };
    delete next.class;
    onRole(own ? { ...next, class: own } : next);
  };
  return (
    <>
      <tr data-style={s.style}>
        <th scope="row">
          <button className="unfold" aria-expanded={opened} onClick={() => setOpened(!opened)}>
            {name}
          </button>
          {!role && <small>{s.reasons.slice(0, 2).join('; ')}</small>}
        </th>
        <td>
          <Tooltip title={role ? undefined : `Suggested: ${s.reasons.join('; ')}`}>
            <Select
              size="small"
              aria-label={`${name} becomes`}
              className={role ? undefined : s.confidence >= SURE ? 'suggested' : 'undecided'}
              value={value}
              placeholder="choose"
              popupMatchSelectWidth={false}
              options={s.kind === 'paragraph' ? [...options, { value: LEAVE_OUT, label: 'Leave out' }] : options}
              onChange={(v) =>
                onRole(
                  v === LEAVE_OUT
                    ? { element: 'p', startsSection: false, leaveOut: true }
                    : { ...(shown ?? s.role), element: RoleElement.parse(v), leaveOut: false },
                )
              }
            />
          </Tooltip>
        </td>
        {s.kind === 'paragraph' && (
          <td>
            <Switch
              size="small"
              aria-label={`${name} starts a section`}
              checked={shown?.startsSection ?? false}
              onChange={(startsSection) => onRole({ ...(shown ?? s.role), startsSection })}
            />
          </td>
        )}
      </tr>
      {opened && (
        <tr>
          <td colSpan={3}>
            <div className="role-more">
              {sample !== undefined && <q>{sample}</q>}
              <Input
                size="small"
                prefix="."
                aria-label={`Class of ${name}`}
                placeholder="class of its own"
                key={role?.class ?? ''}
                defaultValue={role?.class}
                status={refused ? 'error' : ''}
                onBlur={(e) => named(e.target.value)}
                onPressEnter={(e) => named(e.currentTarget.value)}
              />
              {refused && <small className="clay">A letter first; then letters, digits, - and _.</small>}
              {role && (
                <Button size="small" type="link" onClick={() => onRole(null)}>
                  Take its meaning away
                </Button>
              )}
            </div>
          </td>
        </tr>
      )}
    </>
  );
}
