import type { Spread } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';

/** Where the text that is being translated stands on the pages, in every frame that it runs through. */
export function TextOutline({ spread, text, scale }: { spread: Spread; text: string | null; scale: number }) {
  const places = useDocument((s) => s.painted[spread.id]?.places);
  if (text === null) return null;
  return (
    <g className="text-outline" aria-hidden>
      {(places ?? [])
        .filter((p) => p.paragraph === text)
        .map(({ frame, box }) => (
          <rect key={frame} x={box.x - 2} y={box.y - 1} width={box.width + 4} height={box.height + 2} strokeWidth={2 / scale} />
        ))}
    </g>
  );
}
