import { useMemo } from 'react';
import { Button, Select, Switch, Tooltip } from 'antd';
import { RoleElement, styleChain, SURE, suggestRoles } from '@elastic-folio/core';
import type { Role, RoleSuggestion } from '@elastic-folio/core';
import { newBurst, useDocument } from '../document/documentStore.ts';

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
                <RoleRow key={s.style} suggestion={s} name={nameOf(s)} role={roleOf(s)} onRole={(role) => set(kind, s.style, role)} />
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

function RoleRow({
  suggestion: s,
  name,
  role,
  onRole,
}: {
  suggestion: RoleSuggestion;
  name: string;
  role: Role | undefined;
  onRole: (role: Role | null) => void;
}) {
  const shown = role ?? (s.confidence >= SURE ? s.role : undefined);
  const options = (s.kind === 'paragraph' ? OF_PARAGRAPHS : OF_CHARACTERS).map(([value, label]) => ({ value: value as string, label }));
  const value = shown?.leaveOut ? LEAVE_OUT : shown?.element;
  return (
    <tr data-style={s.style}>
      <th scope="row">
        {name}
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
  );
}
