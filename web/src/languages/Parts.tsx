import { Fragment } from 'react';
import { Tooltip } from 'antd';
import type { TextPart } from '@elastic-folio/core';
import type { Code } from '@elastic-folio/core/language';

/** A text with its codes as small tags that say what they are, and wrap marks as the ends of lines that they are. */
export function Parts({ parts, codes = [] }: { parts: readonly TextPart[]; codes?: readonly Code[] }) {
  return (
    <>
      {parts.map((part, i) => {
        if (part.type === 'text') return <Fragment key={i}>{part.text}</Fragment>;
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
