import { memo, useMemo } from 'react';
import { Button, Select } from 'antd';
import { X } from 'lucide-react';
import { angleOf, itemBounds, pageOfItem, solidHex, spreadOfItem, storyOfFrame, toMm } from '@elastic-folio/core';
import type { Item, Paint, Spread } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { itemName } from '../table/SpreadView.tsx';
import { pageNumberOf } from '../table/PageTable.tsx';
import { AltText } from './AltText.tsx';
import { StoryEditor } from '../text/StoryEditor.tsx';

const mm = (points: number): string => (Math.round(toMm(points) * 10) / 10).toLocaleString('en');

/** What a selected item is, and what can be changed about it: its text, the words for a picture. */
export function ItemSheet({ id, onClose }: { id: string; onClose: () => void }) {
  // What is typed into its text is none of the facts’ business.
  const spread = useDocument((s) => spreadOfItem(s.folio!, id)!);
  const story = useDocument((s) => storyOfFrame(s.folio!).get(id));
  const over = useDocument((s) => (story === undefined ? null : s.overflow[story]));
  const firstHere = useDocument((s) => s.painted[spread.id]?.places.find((p) => p.frame === id)?.paragraph);
  const item = spread.items[id]!;
  return (
    <>
      <ItemFacts spread={spread} item={item} story={story} onClose={onClose} />
      {(item.kind === 'picture' || item.kind === 'shape') && <AltText item={item} spread={spread.id} />}
      {over && (
        <p className="warn" role="status">
          {over.characters} characters ({over.lines} {over.lines === 1 ? 'line' : 'lines'}) do not fit.
        </p>
      )}
      {story !== undefined && (
        <>
          <div className="text-head">
            <h3>Text</h3>
            <StyleChoice story={story} />
          </div>
          <StoryEditor key={story} storyId={story} at={firstHere ?? null} />
        </>
      )}
    </>
  );
}

interface Facts {
  spread: Spread;
  item: Item;
  story: string | undefined;
  onClose: () => void;
}

const ItemFacts = memo(function ItemFacts({ spread, item, story, onClose }: Facts) {
  const head = useDocument((s) => s.folio!.head);
  const frames = useDocument((s) => (story === undefined ? undefined : s.folio!.stories[story]?.frames));
  // How a text begins names its frame: as it was when the frame was chosen.
  const name = useMemo(() => itemName(useDocument.getState().folio!, item), [item]);
  const page = pageOfItem(spread, item);
  const box = itemBounds(spread.items, item);
  const angle = Math.round(angleOf(item.transform) * 10) / 10;
  return (
    <>
      <div className="sheet-head">
        <h2>{name}</h2>
        <Button type="text" size="small" icon={<X size={15} />} aria-label="Close" onClick={onClose} />
      </div>
      <dl className="facts">
        <div>
          <dt>Page</dt>
          <dd>{pageNumberOf(useDocument.getState().folio!, spread.id, item.id)}</dd>
        </div>
        <div>
          <dt>Layer</dt>
          <dd>{head.layers[item.layer]?.name}</dd>
        </div>
        <div>
          <dt>Place</dt>
          <dd>
            {mm(box.x - page.box.x)} × {mm(box.y - page.box.y)} mm
          </dd>
        </div>
        <div>
          <dt>Size</dt>
          <dd>
            {mm(box.width)} × {mm(box.height)} mm
          </dd>
        </div>
        {angle !== 0 && (
          <div>
            <dt>Turned</dt>
            <dd>{angle}°</dd>
          </div>
        )}
        {item.opacity !== 1 && (
          <div>
            <dt>Opacity</dt>
            <dd>{Math.round(item.opacity * 100)} %</dd>
          </div>
        )}
        {item.blend !== 'normal' && (
          <div>
            <dt>Blend</dt>
            <dd>{item.blend}</dd>
          </div>
        )}
        {item.fill.type !== 'none' && (
          <div>
            <dt>Fill</dt>
            <dd>
              <Swatch paint={item.fill} />
            </dd>
          </div>
        )}
        {item.stroke && (
          <div>
            <dt>Stroke</dt>
            <dd>
              <Swatch paint={item.stroke.paint} /> {item.stroke.weight} pt
            </dd>
          </div>
        )}
        {item.kind === 'textFrame' && item.columns > 1 && (
          <div>
            <dt>Columns</dt>
            <dd>{item.columns}</dd>
          </div>
        )}
        {frames && frames.length > 1 && (
          <div>
            <dt>Thread</dt>
            <dd>
              frame {frames.findIndex((f) => f.item === item.id) + 1} of {frames.length}
            </dd>
          </div>
        )}
      </dl>
    </>
  );
});

function Swatch({ paint }: { paint: Paint }) {
  const swatches = useDocument((s) => s.folio!.head.swatches);
  if (paint.type === 'none') return <>none</>;
  if (paint.type === 'gradient') return <>gradient</>;
  const hex = solidHex(paint, swatches);
  return (
    <>
      <i className="swatch" style={{ background: hex }} />{' '}
      {paint.type === 'swatch' ? `${swatches[paint.swatch]?.name ?? ''}${paint.tint < 1 ? ` ${Math.round(paint.tint * 100)} %` : ''}` : hex}
    </>
  );
}

/** The style of a text of one paragraph; of longer ones, how many styles there are in them. */
function StyleChoice({ story }: { story: string }) {
  const order = useDocument((s) => s.folio!.stories[story]!.order);
  const first = useDocument((s) => s.folio!.stories[story]!.blocks[order[0]!]);
  const styles = useDocument((s) => s.folio!.head.paragraphStyles);
  const change = useDocument((s) => s.change);
  // Looked at again when the whole document is, not at every keystroke of a long text.
  const findings = useDocument((s) => s.findings);
  const used = useMemo(() => {
    const { blocks } = useDocument.getState().folio!.stories[story]!;
    return new Set(order.flatMap((id) => (blocks[id]?.kind === 'paragraph' ? [blocks[id].style] : []))).size;
    // eslint-disable-next-line react-hooks/exhaustive-deps -- findings stand for the document as it was then
  }, [story, order, findings]);
  if (order.length !== 1 || first?.kind !== 'paragraph')
    return (
      <span className="soft">
        {used} {used === 1 ? 'style' : 'styles'}
      </span>
    );
  return (
    <Select
      size="small"
      aria-label="Paragraph style"
      value={first.style}
      options={Object.values(styles).map((s) => ({ value: s.id, label: s.name }))}
      popupMatchSelectWidth={false}
      onChange={(style) => change([{ kind: 'paragraph.style', args: { story, paragraph: first.id, style } }], newBurst())}
    />
  );
}
