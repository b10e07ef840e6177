import { useCallback, useRef, useState } from 'react';
import type { ServerEvent } from '@elastic-folio/core/api';
import { useServerEvents } from '../api/events.ts';

type Sketch = Extract<ServerEvent, { type: 'reading' }>['page'];
interface Reading {
  read: Sketch[];
  total: number;
}
const NOTHING: Reading = { read: [], total: 0 };

/** The pages of the file that is being read for this window, as far as they have been read. */
export function useReading(): { pages: Reading; newReading: () => string } {
  const reading = useRef('');
  const [pages, setPages] = useState<Reading>(NOTHING);
  useServerEvents(
    useCallback((event) => {
      if (event.type === 'reading' && event.reading === reading.current)
        setPages(({ read }) => ({ read: [...read, event.page], total: event.total }));
    }, []),
  );
  const newReading = useCallback((): string => {
    reading.current = crypto.randomUUID();
    setPages(NOTHING);
    return reading.current;
  }, []);
  return { pages, newReading };
}

/** No more than the last of these are shown. */
const SHOWN = 60;
const FILL = { text: 'none', picture: '#b9c4bd', shape: '#d8d4c4' } as const;

/** Pages as they come in: where their texts, pictures and shapes stand. */
export function PageSketches({ pages }: { pages: readonly Sketch[] }) {
  return (
    <div className="sketches" aria-hidden="true">
      {pages.slice(-SHOWN).map((p) => (
        <svg
          key={p.number}
          viewBox={`0 0 ${p.width} ${p.height}`}
          style={{ aspectRatio: `${p.width} / ${p.height}`, background: p.paper ?? '#fff' }}
        >
          {p.boxes.map((b, i) => (
            <g key={i}>
              <rect x={b.x} y={b.y} width={b.width} height={b.height} fill={b.fill ?? FILL[b.kind]} />
              {b.kind === 'text' && <TextLines x={b.x} y={b.y} width={b.width} height={b.height} step={p.height / 24} />}
            </g>
          ))}
        </svg>
      ))}
    </div>
  );
}

function TextLines({ x, y, width, height, step }: { x: number; y: number; width: number; height: number; step: number }) {
  const lines = Math.max(1, Math.min(30, Math.floor(height / step)));
  return (
    <path
      d={Array.from({ length: lines }, (_, i) => `M${x} ${y + step * (i + 0.5)}h${width * (i === lines - 1 ? 0.6 : 0.95)}`).join('')}
      stroke="#8c948f"
      strokeWidth={step / 4}
    />
  );
}
