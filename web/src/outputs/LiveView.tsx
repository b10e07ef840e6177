import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import { Segmented, Spin } from 'antd';
import { api } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';
import { useAddress } from '../shell/address.ts';

/** Windows in which the effect of settings is looked at, in CSS pixels (common practice). */
const WINDOWS = {
  wide: { label: 'Wide window', width: 1280, height: 760 },
  upright: { label: 'Tablet', width: 768, height: 1024 },
  phone: { label: 'Phone', width: 390, height: 760 },
} as const;
type Frame = keyof typeof WINDOWS;
/** So long settings rest before they are looked at. */
const SETTLE_MS = 400;

/** What readers would see with the settings as they are: the pages around the one that is open, made anew after each change. */
export function LiveView({ settings }: { settings: Record<string, unknown> }) {
  const id = useDocument((s) => s.id)!;
  const kept = useDocument((s) => s.kept);
  const [search] = useAddress();
  const page = Number(/^\d+/.exec(search.get('page') ?? '')?.[0] ?? 1);
  const [at, setAt] = useState<Frame>('wide');
  const [src, setSrc] = useState<string | null>(null);
  const [making, setMaking] = useState(true);
  const [problem, setProblem] = useState<string | null>(null);
  const host = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState({ width: 600, height: 400 });
  useLayoutEffect(() => {
    const observer = new ResizeObserver(([e]) => setRoom({ width: e!.contentRect.width, height: e!.contentRect.height }));
    observer.observe(host.current!);
    return () => observer.disconnect();
  }, []);
  const asked = JSON.stringify(settings);
  useEffect(() => {
    // Only what has reached the server can be shown.
    if (!kept) return undefined;
    let here = true;
    setMaking(true);
    const timer = setTimeout(() => {
      Promise.all([api.settings(), api.rehearse(id, page, JSON.parse(asked) as Record<string, unknown>)])
        .then(
          ([{ resultPort }, { rehearsal, anchor }]) => {
            if (!here) return;
            setProblem(null);
            // A site's pages are in files of their own: the one that is looked at is found by its number.
            setSrc(`http://${rehearsal}.localhost:${resultPort}/at/${anchor.replace('page-', '')}?as=is`);
          },
          (error: Error) => here && setProblem(error.message),
        )
        .finally(() => here && setMaking(false));
    }, SETTLE_MS);
    return () => {
      here = false;
      clearTimeout(timer);
    };
  }, [id, page, asked, kept]);
  const { width, height } = WINDOWS[at];
  const scale = Math.min(room.width / width, room.height / height, 1);
  return (
    <section className="live-view" aria-label="What readers see">
      <div className="live-head">
        <b>What readers see</b>
        <Segmented
          size="small"
          value={at}
          onChange={setAt}
          options={(Object.keys(WINDOWS) as Frame[]).map((value) => ({ value, label: WINDOWS[value].label }))}
        />
        {making && <Spin size="small" />}
        <span className="soft">{Math.round(scale * 100)} %</span>
      </div>
      <div className="live-room" ref={host}>
        {problem ? (
          <p className="warn">{problem}</p>
        ) : (
          src && (
            <div style={{ width: width * scale, height: height * scale }}>
              <iframe
                key={src}
                title="The web edition with these settings"
                sandbox="allow-scripts allow-forms"
                src={src}
                style={{ width, height, transform: `scale(${scale})` }}
              />
            </div>
          )
        )}
      </div>
    </section>
  );
}
