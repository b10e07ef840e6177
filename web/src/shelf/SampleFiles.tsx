import { useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { api } from '../api/client.ts';

/** The samples as files of other programs, to try bringing in: what each cannot hold is said beside it. */
export function SampleFiles({ onTake }: { onTake: (name: string) => void }) {
  const [open, setOpen] = useState(false);
  const samples = useQuery({ queryKey: ['samples'], queryFn: api.samples, enabled: open, staleTime: Infinity });
  return (
    <div className="sample-files">
      <Button type="link" size="small" aria-expanded={open} onClick={() => setOpen((o) => !o)}>
        Or try it with a sample
      </Button>
      {open && samples.isLoading && <p className="soft">Drawing the samples …</p>}
      {open && samples.error && <p className="warn">{(samples.error as Error).message}</p>}
      {open && (
        <ul>
          {(samples.data ?? []).map((s) => (
            <li key={s.name}>
              <Button type="link" size="small" onClick={() => onTake(s.name)}>
                {s.name}
              </Button>
              <a href={`/api/samples/${encodeURIComponent(s.name)}`} className="soft" download>
                save
              </a>
              <details className="soft">
                <summary>what it cannot hold ({s.notHeld.length})</summary>
                {s.notHeld.join('; ')}
              </details>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
