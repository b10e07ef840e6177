import { Bar, BarChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import type { ShelfEntry } from '@elastic-folio/core/api';
import { languageName } from '../languages/progress.ts';

/** How far a document is in each of its other languages: what is translated, what was translated from another source, what is open. */
export default function EditionChart({ editions }: Pick<ShelfEntry, 'editions'>) {
  const rows = editions.map(({ language, all, done, stale }) => ({
    name: languageName(language),
    translated: done - stale,
    'source has changed': stale,
    open: all - done,
  }));
  const says = editions.map(
    (e) => `${languageName(e.language)}: ${e.done} of ${e.all} texts${e.stale ? `, ${e.stale} changed since` : ''}`,
  );
  return (
    <div className="edition-chart" role="img" aria-label={says.join('; ')}>
      <ResponsiveContainer width="100%" height={rows.length * 22 + 2}>
        <BarChart
          data={rows}
          layout="vertical"
          stackOffset="expand"
          margin={{ top: 0, right: 0, bottom: 0, left: 0 }}
          accessibilityLayer={false}
        >
          <XAxis type="number" hide domain={[0, 1]} />
          <YAxis
            type="category"
            dataKey="name"
            interval={0}
            width={88}
            tickLine={false}
            axisLine={false}
            stroke="var(--soft)"
            fontSize={12}
          />
          <Tooltip cursor={{ fill: 'var(--table)' }} />
          <Bar dataKey="translated" stackId="a" fill="var(--fir)" barSize={8} isAnimationActive={false} />
          <Bar dataKey="source has changed" stackId="a" fill="var(--straw)" barSize={8} isAnimationActive={false} />
          <Bar dataKey="open" stackId="a" fill="var(--rule)" barSize={8} isAnimationActive={false} />
        </BarChart>
      </ResponsiveContainer>
    </div>
  );
}
