import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import { Button, Spin } from 'antd';
import { X } from 'lucide-react';
import { PX_PER_PT } from '@elastic-folio/core';
import type { PagePlace } from '@elastic-folio/core';
import { api } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';
import { useKeys } from '../shell/keys.ts';

/** Room around the page for its scroll bar, in px. */
const EDGE = 28;

/** The page, played where it is worked on, by the player and the pages that readers get. */
export function Rehearsal({ place, onEnd }: { place: PagePlace; onEnd: () => void }) {
  const id = useDocument((s) => s.id)!;
  const kept = useDocument((s) => s.kept);
  const complain = useDocument((s) => s.complain);
  const host = useRef<HTMLDivElement>(null);
  const [src, setSrc] = useState<string | null>(null);
  const [room, setRoom] = useState({ width: 600, height: 600 });
  useKeys({ Escape: onEnd });
  useLayoutEffect(() => {
    const observer = new ResizeObserver(([e]) => setRoom({ width: e!.contentRect.width, height: e!.contentRect.height }));
    observer.observe(host.current!);
    return () => observer.disconnect();
  }, []);
  const { number } = place;
  // Only what has reached the server can be played.
  useEffect(() => {
    if (!kept) return;
    let here = true;
    Promise.all([api.settings(), api.rehearse(id, number)]).then(
      ([{ resultPort }, { rehearsal, anchor }]) => here && setSrc(`http://${rehearsal}.localhost:${resultPort}/index.html#${anchor}`),
      (error: Error) => {
        complain(error.message);
        onEnd();
      },
    );
    return () => {
      here = false;
    };
  }, [id, number, kept, complain, onEnd]);
  const [w, h] = [place.page.box.width * PX_PER_PT, place.page.box.height * PX_PER_PT];
  const scale = Math.min((room.width - EDGE) / w, (room.height - EDGE) / h);
  return (
    <div className="rehearsal" ref={host} role="region" aria-label={`Page ${number} is played`}>
      {src === null ? (
        <Spin description="The page is being made …" />
      ) : (
        <div style={{ width: w * scale, height: h * scale }}>
          <iframe
            title={`Page ${number}, played`}
            sandbox="allow-scripts allow-forms allow-popups allow-modals"
            src={src}
            style={{ width: w, height: h, transform: `scale(${scale})` }}
          />
        </div>
      )}
      <Button className="rehearsal-end" icon={<X size={14} />} onClick={onEnd}>
        End the rehearsal
      </Button>
    </div>
  );
}
