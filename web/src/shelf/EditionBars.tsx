import { Progress } from 'antd';
import type { ShelfEntry } from '@elastic-folio/core/api';
import { languageName } from '../languages/languageName.ts';

/** How far a document is in each of its other languages: what is translated, what was translated from another source, what is open. */
export function EditionBars({ editions }: Pick<ShelfEntry, 'editions'>) {
  return (
    <ul className="edition-bars">
      {editions.map(({ language, all, done, stale }) => {
        const says = `${done} of ${all} texts${stale ? `, ${stale} changed since` : ''}`;
        return (
          <li key={language} title={says}>
            <span>{languageName(language)}</span>
            <Progress
              percent={all ? (100 * done) / all : 0}
              success={{ percent: all ? (100 * (done - stale)) / all : 0, strokeColor: 'var(--fir)' }}
              strokeColor="var(--straw)"
              railColor="var(--rule)"
              size="small"
              showInfo={false}
              aria-label={`${languageName(language)}: ${says}`}
            />
          </li>
        );
      })}
    </ul>
  );
}
