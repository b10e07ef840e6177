import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Button } from 'antd';
import dayjs from 'dayjs';
import { Bar, BarChart, CartesianGrid, Legend, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import type { Measures } from '@elastic-folio/core/api';
import { api } from '../api/client.ts';

const KINDS: Record<Measures['kinds'][number]['kind'], string> = {
  page: 'Pages shown',
  link: 'Links followed',
  media: 'Films and sounds played',
  form: 'Answers given',
  search: 'Words searched for',
};

const ONE: typeof KINDS = {
  page: 'Page shown',
  link: 'Link followed',
  media: 'Played',
  form: 'Answered',
  search: 'Searched for',
};

/** What the collector that comes with this program was sent under a name. */
export default function ReaderCharts({ sentAs }: { sentAs: string }) {
  const client = useQueryClient();
  const measures = useQuery({ queryKey: ['collected', sentAs], queryFn: () => api.collected(sentAs), refetchInterval: 5000 }).data;
  if (!measures) return null;
  const { visits, pages, days, kinds, most, latest } = measures;
  const name = sentAs ? `under “${sentAs}”` : 'without a name';
  if (!latest.length)
    return (
      <p className="soft">
        Nothing has come {name} yet. Open the edition, say yes when it asks, and turn some pages: what it sends comes within some seconds.
      </p>
    );
  return (
    <section className="reader-charts" aria-label="What readers did">
      <p>
        <b>{visits === 1 ? '1 visit' : `${visits} visits`}</b> {name}. {kinds.map((k) => `${KINDS[k.kind]}: ${k.count}`).join(' · ')}
        <Button
          type="link"
          size="small"
          onClick={() => void api.clearCollected(sentAs).then(() => client.invalidateQueries({ queryKey: ['collected', sentAs] }))}
        >
          Forget all of it
        </Button>
      </p>
      <div className="chart-pair">
        <figure>
          <figcaption>Which pages were read</figcaption>
          <ResponsiveContainer width="100%" height={180}>
            <BarChart data={pages}>
              <CartesianGrid vertical={false} stroke="var(--rule)" />
              <XAxis dataKey="page" tickLine={false} stroke="var(--soft)" />
              <YAxis allowDecimals={false} width={32} tickLine={false} axisLine={false} stroke="var(--soft)" />
              <Tooltip labelFormatter={(p) => `Page ${String(p)}`} cursor={{ fill: 'var(--table)' }} />
              <Legend />
              <Bar dataKey="shown" name="Shown" fill="var(--fir)" isAnimationActive={false} maxBarSize={24} />
              <Bar dataKey="visits" name="In so many visits" fill="var(--straw)" isAnimationActive={false} maxBarSize={24} />
            </BarChart>
          </ResponsiveContainer>
        </figure>
        <figure>
          <figcaption>Visits day by day</figcaption>
          <ResponsiveContainer width="100%" height={180}>
            <LineChart data={days}>
              <CartesianGrid vertical={false} stroke="var(--rule)" />
              <XAxis dataKey="day" tickFormatter={(d) => dayjs(String(d)).format('D MMM')} tickLine={false} stroke="var(--soft)" />
              <YAxis allowDecimals={false} width={32} tickLine={false} axisLine={false} stroke="var(--soft)" />
              <Tooltip />
              <Line dataKey="visits" name="Visits" stroke="var(--fir)" strokeWidth={2} isAnimationActive={false} />
            </LineChart>
          </ResponsiveContainer>
        </figure>
      </div>
      <div className="chart-pair">
        {most.length > 0 && (
          <table>
            <caption>Followed, played, answered, searched for most</caption>
            <tbody>
              {most.map((m) => (
                <tr key={`${m.kind} ${m.what}`}>
                  <td className="soft">{ONE[m.kind]}</td>
                  <th scope="row">{m.what}</th>
                  <td>{m.count}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        <table>
          <caption>What came last</caption>
          <tbody>
            {latest.map((l, i) => (
              <tr key={i}>
                <td className="soft">{dayjs(l.at).format('H:mm:ss')}</td>
                <th scope="row">{ONE[l.kind]}</th>
                <td>
                  page {l.page}
                  {l.what !== null && ` · ${l.what}`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
