import { useQuery } from '@tanstack/react-query';
import { Bar, BarChart, CartesianGrid, Legend, Tooltip, XAxis, YAxis, ResponsiveContainer } from 'recharts';
import type { Weights } from '@elastic-folio/core/api';
import { api } from '../api/client.ts';
import { inBytes } from '../shell/inBytes.ts';

const KINDS = [
  { kind: 'text', name: 'Text and drawing', colour: 'var(--fir)' },
  { kind: 'pictures', name: 'Pictures', colour: 'var(--straw)' },
  { kind: 'played', name: 'Films and sounds', colour: 'var(--plum)' },
  { kind: 'embeds', name: 'Embedded', colour: 'var(--clay)' },
  { kind: 'files', name: 'Files', colour: 'var(--soft)' },
] as const;

const SHARED = [
  { part: 'fonts', name: 'Fonts' },
  { part: 'program', name: 'The player' },
  { part: 'style', name: 'Style sheet' },
  { part: 'around', name: 'Bar, contents, head' },
] as const;

const all = (now: Weights['pages'][number]['now']): number => Object.values(now).reduce((sum, n) => sum + n, 0);

/** Where a web edition's bytes are, page by page and kind by kind, beside what came in with the document. */
export default function WeightChart({ run }: { run: string }) {
  const weights = useQuery({ queryKey: ['weights', run], queryFn: () => api.weights(run), staleTime: Infinity }).data;
  if (!weights) return <p className="soft">Weighing …</p>;
  const { pages, shared, spare } = weights;
  const kinds = KINDS.filter(({ kind }) => pages.some((p) => p.now[kind]));
  const rows = pages.map((p) => ({ page: p.label, was: p.was, ...p.now }));
  const total = pages.reduce((sum, p) => sum + all(p.now), 0) + Object.values(shared).reduce((sum, n) => sum + n, 0);
  const was = pages.reduce((sum, p) => sum + p.was, 0);
  const made = pages.reduce((sum, p) => sum + p.now.pictures + p.now.played, 0);
  return (
    <section className="weights" aria-label="Where the kilobytes go">
      <p>
        <b>{inBytes(total)}</b> for somebody who reads every page on a large screen; a page counts what comes with it first.
        {was > 0 && ` Pictures, films and sounds: ${inBytes(made)}, brought in with ${inBytes(was)}.`}
        {spare > 0 && ` ${inBytes(spare)} more are there for smaller screens and other programs.`}
      </p>
      <ResponsiveContainer width="100%" height={240}>
        <BarChart data={rows} margin={{ top: 4, right: 8, bottom: 4, left: 8 }} barGap={1}>
          <CartesianGrid vertical={false} stroke="var(--rule)" />
          <XAxis dataKey="page" tickLine={false} stroke="var(--soft)" />
          <YAxis tickFormatter={inBytes} width={72} tickLine={false} axisLine={false} stroke="var(--soft)" />
          <Tooltip
            formatter={(value) => inBytes(Number(value))}
            labelFormatter={(label) => `Page ${String(label)}`}
            cursor={{ fill: 'var(--table)' }}
          />
          <Legend />
          {kinds.map(({ kind, name, colour }) => (
            <Bar key={kind} dataKey={kind} name={name} stackId="now" fill={colour} isAnimationActive={false} maxBarSize={28} />
          ))}
          {was > 0 && (
            <Bar
              dataKey="was"
              name="As it was brought in"
              fill="var(--paper)"
              stroke="var(--soft)"
              isAnimationActive={false}
              maxBarSize={10}
            />
          )}
        </BarChart>
      </ResponsiveContainer>
      <dl className="weights-shared">
        {SHARED.map(({ part, name }) => (
          <div key={part}>
            <dt>{name}</dt>
            <dd>{inBytes(shared[part])}</dd>
          </div>
        ))}
      </dl>
      <details>
        <summary>As figures</summary>
        <table>
          <thead>
            <tr>
              <th scope="col">Page</th>
              {kinds.map((k) => (
                <th key={k.kind} scope="col">
                  {k.name}
                </th>
              ))}
              <th scope="col">Brought in</th>
            </tr>
          </thead>
          <tbody>
            {pages.map((p) => (
              <tr key={p.page}>
                <th scope="row">{p.label}</th>
                {kinds.map((k) => (
                  <td key={k.kind}>{inBytes(p.now[k.kind])}</td>
                ))}
                <td>{inBytes(p.was)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </section>
  );
}
