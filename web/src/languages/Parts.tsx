import { Fragment } from 'react';
import { Tooltip } from 'antd';
import type { TextPart } from '@elastic-folio/core';
import { termsIn } from '@elastic-folio/core/language';
import type { Code, Term } from '@elastic-folio/core/language';

interface Props {
  parts: readonly TextPart[];
  codes?: readonly Code[];
  /** Terms that are underlined where they stand. */
  terms?: readonly Term[];
}

/** A text with its codes as small tags that say what they are, and wrap marks as the ends of lines that they are. */
export function Parts({ parts, codes = [], terms = [] }: Props) {
  return (
    <>
      {parts.map((part, i) => {
        if (part.type === 'text') return <WithTerms key={i} text={part.text} terms={terms} />;
        if (part.type === 'wrap')
          return (
            <Tooltip key={i} title="A line ends here in the layout; it can be moved or left out">
              <span className="code-tag wrap">↵</span>
            </Tooltip>
          );
        const code = codes.find((c) => c.n === part.code);
        const says = code ? `${part.type === 'close' ? 'end: ' : ''}${code.shows || code.says}` : `code ${part.code}`;
        return (
          <Tooltip key={i} title={says}>
            <span className={`code-tag ${part.type}`}>{part.type === 'close' ? `/${part.code}` : part.code}</span>
          </Tooltip>
        );
      })}
    </>
  );
}

function WithTerms({ text, terms }: { text: string; terms: readonly Term[] }) {
  const found = terms.length ? termsIn(text, terms) : [];
  if (!found.length) return <>{text}</>;
  return (
    <>
      {found.map(({ from, to, term }, i) => (
        <Fragment key={from}>
          {text.slice(found[i - 1]?.to ?? 0, from)}
          <Tooltip title={said(term, terms)}>
            <span className="term">{text.slice(from, to)}</span>
          </Tooltip>
        </Fragment>
      ))}
      {text.slice(found[found.length - 1]!.to)}
    </>
  );
}

/** Everything that a term may be translated with, and what is noted of it. */
function said(term: Term, terms: readonly Term[]): string {
  const all = terms.filter((t) => t.source.toLowerCase() === term.source.toLowerCase());
  return all.map((t) => `${t.target}${t.note ? ` – ${t.note}` : ''}`).join('; ');
}
