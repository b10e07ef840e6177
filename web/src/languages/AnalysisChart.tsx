import { Bar, BarChart, Cell, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import type { Counted } from '@elastic-folio/core/api';
import { plural } from '../shell/plural.ts';
import { BAND_WORDS } from './rates.ts';
import { BANDS, costOf, sumOf } from '@elastic-folio/core/language';
import type { Band, Rates } from '@elastic-folio/core/language';

const COLOURS: Partial<Record<Band, string>> = { new: 'var(--clay)', '50-74': 'var(--straw)', '75-84': 'var(--straw)' };

/** What there is to translate, by how much of it is known, with what it costs and how long it takes. */
export default function AnalysisChart({ counted, rates }: { counted: Counted; rates: Rates }) {
  const { stays, others } = counted;
  const analysis = others.length ? sumOf([counted.analysis, ...others.map((o) => o.analysis)]) : counted.analysis;
  const { total, bands } = analysis;
  const { cost, days } = costOf(analysis, rates);
  const rows = BANDS.map((band) => ({ band, name: BAND_WORDS[band], words: bands[band].words })).filter((r) => r.words);
  const staying = Object.values(stays).reduce((n, k) => n + k, 0);
  const number = (n: number): string => n.toLocaleString('en');
  return (
    <section className="analysis" aria-label="What there is to translate">
      <p>
        <b>{number(total.words)} words</b> in {number(total.segments)} segments, {number(total.characters)} characters;{' '}
        <b>
          {cost.toLocaleString('en', { style: 'currency', currency: rates.currency })}, {days === 1 ? '1 day' : `${days} days`}
        </b>
        {staying > 0 && (
          <span className="soft">
            ; {plural(staying, 'text')} {staying === 1 ? 'stays' : 'stay'} here
          </span>
        )}
      </p>
      {others.length > 0 && (
        <ul className="soft">
          <li>this document: {number(counted.analysis.total.words)} words</li>
          {others.map((o) => (
            <li key={o.title}>
              {o.title}: {number(o.analysis.total.words)} words, {number(o.analysis.bands.repeated.words)} of them repeated
            </li>
          ))}
        </ul>
      )}
      <ResponsiveContainer width="100%" height={Math.max(40, rows.length * 26)}>
        <BarChart data={rows} layout="vertical" margin={{ top: 0, right: 44, bottom: 0, left: 0 }}>
          <XAxis type="number" hide />
          <YAxis type="category" dataKey="name" width={82} tickLine={false} axisLine={false} stroke="var(--soft)" />
          <Tooltip formatter={(v) => `${number(Number(v))} words`} cursor={{ fill: 'var(--table)' }} />
          <Bar
            dataKey="words"
            name="Words"
            isAnimationActive={false}
            maxBarSize={16}
            label={{ position: 'right', fill: 'var(--ink)', fontSize: 12 }}
          >
            {rows.map((r) => (
              <Cell key={r.band} fill={COLOURS[r.band] ?? 'var(--fir)'} />
            ))}
          </Bar>
        </BarChart>
      </ResponsiveContainer>
    </section>
  );
}
