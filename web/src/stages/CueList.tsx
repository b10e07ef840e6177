import { Button, Empty } from 'antd';
import { TriangleAlert } from 'lucide-react';
import { itemBounds, itemsById, pageOfItem, pagesOf, sentenceOf } from '@elastic-folio/core';
import type { Cue, Folio, Item, Spread } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { itemName } from '../table/SpreadView.tsx';
import { usePoints } from './points.ts';

/** Every cue of the document in the order of its pages, each as a sentence, with what is wrong with it. */
export function CueList({ onSelect }: { onSelect: (item: string | null) => void }) {
  const folio = useDocument((s) => s.folio)!;
  const points = usePoints().filter((p) => /^(cue|motion|field)\./.test(p.code));
  const cues = cuesOfDocument(folio);
  return (
    <>
      {points.length > 0 && (
        <ul className="cue-points" aria-label="To look at">
          {points.map((p, i) => (
            <li key={i}>
              <TriangleAlert size={13} aria-hidden />
              <button onClick={() => onSelect(p.item ?? p.subject ?? null)}>{p.says}</button>
            </li>
          ))}
        </ul>
      )}
      {cues.length === 0 ? (
        <Empty
          image={Empty.PRESENTED_IMAGE_SIMPLE}
          description="Nothing reacts yet. Choose something on a page to say what happens when it is pressed."
        />
      ) : (
        <ul className="cue-list" aria-label="Cues">
          {cues.map(({ cue, holder, name, page }) => (
            <li key={`${holder}/${cue.id}`}>
              <Button type="text" block onClick={() => onSelect(holder)}>
                <small>
                  Page {page} · {name}
                </small>
                <CueWords cue={cue} />
              </Button>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

/** A cue as a sentence. */
function CueWords({ cue }: { cue: Cue }) {
  const folio = useDocument((s) => s.folio)!;
  const nameOf = (id: string): string => {
    const item = itemsById(folio).get(id);
    return item ? itemName(folio, item) : id;
  };
  const { when, then } = sentenceOf(folio, cue, nameOf);
  return (
    <span className="cue-words">
      {when} → {then.length ? then.map((t, i) => <b key={i}>{t}</b>) : 'nothing'}
    </span>
  );
}

const fromTheTop = (spread: Spread): Item[] =>
  Object.values(spread.items)
    .map((item) => ({ item, box: itemBounds(spread.items, item) }))
    .sort((a, b) => a.box.y - b.box.y || a.box.x - b.box.x)
    .map((e) => e.item);

function cuesOfDocument(folio: Folio): { cue: Cue; holder: string; name: string; page: number }[] {
  return pagesOf(folio).flatMap(({ page, spread, number }) => [
    ...Object.values(page.cues).map((cue) => ({ cue, holder: page.id, name: 'the page', page: number })),
    ...fromTheTop(spread).flatMap((item) =>
      pageOfItem(spread, item).id === page.id
        ? Object.values(item.cues).map((cue) => ({ cue, holder: item.id, name: itemName(folio, item), page: number }))
        : [],
    ),
  ]);
}
