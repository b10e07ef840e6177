import { useState } from 'react';
import { itemBounds, targetsOfStep } from '@elastic-folio/core';
import type { Folio, Item, Rect, Spread } from '@elastic-folio/core';
import { isAdding } from './SpreadView.tsx';
import type { Select } from './SpreadView.tsx';

interface Props {
  folio: Folio;
  spread: Spread;
  scale: number;
  selected: string | null;
  onSelect: Select;
}

/** Kinds that move or are filled in even without a cue, and the letter by which each is marked. */
const LIVE: Partial<Record<Item['kind'], string>> = { switcher: 'Cards', veil: 'Veil', field: 'Field', media: 'Media', embed: 'Embed' };

/** Marks on whatever reacts, with lines to what it acts on while it is pointed at or chosen. */
export function CueMarks({ folio, spread, scale, selected, onSelect }: Props) {
  const [pointed, setPointed] = useState<string | null>(null);
  const px = 1 / scale;
  const marked = Object.values(spread.items).filter((i) => Object.keys(i.cues).length > 0 || LIVE[i.kind]);
  const middle = (r: Rect): [number, number] => [r.x + r.width / 2, r.y + r.height / 2];
  return (
    <g className="cue-marks" aria-hidden>
      {marked.map((item) => {
        const box = itemBounds(spread.items, item);
        const reacts = Object.keys(item.cues).length > 0;
        const isShown = item.id === selected || item.id === pointed;
        const targets = Object.values(item.cues).flatMap((c) => c.steps.flatMap((s) => targetsOfStep(folio, s).there));
        const small = Math.max(box.width, box.height) * scale < 30;
        return (
          <g
            key={item.id}
            data-cue-of={item.id}
            className={[reacts ? 'reacts' : 'lives', isShown && 'shown'].filter(Boolean).join(' ')}
            onPointerEnter={() => setPointed(item.id)}
            onPointerLeave={() => setPointed(null)}
            onClick={(e) => {
              e.stopPropagation();
              onSelect(item.id, isAdding(e));
            }}
          >
            <rect {...box} strokeWidth={1.5 * px} strokeDasharray={reacts ? undefined : `${4 * px} ${3 * px}`} />
            {isShown &&
              targets.flatMap((t) => {
                const to = spread.items[t];
                if (!to) return [];
                const [[x1, y1], [x2, y2]] = [middle(box), middle(itemBounds(spread.items, to))];
                return [
                  <path key={t} className="cue-line" d={`M${x1} ${y1}L${x2} ${y2}`} strokeWidth={1.5 * px} />,
                  <circle key={`${t}-end`} cx={x2} cy={y2} r={4 * px} />,
                ];
              })}
            {!small && !reacts && (
              <text x={box.x + 4 * px} y={box.y - 4 * px} fontSize={10 * px} strokeWidth={3 * px}>
                {LIVE[item.kind]}
              </text>
            )}
            {reacts && <circle cx={box.x + box.width} cy={box.y} r={5 * px} />}
          </g>
        );
      })}
    </g>
  );
}
