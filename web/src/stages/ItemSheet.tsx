import { Button, Select } from 'antd';
import { X } from 'lucide-react';
import { angleOf, itemBounds, pageOfItem, solidHex, storyOfFrame, toMm } from '@elastic-folio/core';
import type { Paint } from '@elastic-folio/core';
import { newBurst, useDocument } from '../document/documentStore.ts';
import { itemName } from '../table/SpreadView.tsx';
import { pageNumberOf } from '../table/PageTable.tsx';
import { AltText } from './AltText.tsx';
import { StoryEditor } from '../text/StoryEditor.tsx';

const mm = (points: number): string => (Math.round(toMm(points) * 10) / 10).toLocaleString('en');

/** What a selected item is, and what can be changed about it: its text, the words for a picture. */
export function ItemSheet({ id, onClose }: { id: string; onClose: () => void }) {
  const folio = useDocument((s) => s.folio)!;
  const overflow = useDocument((s) => s.overflow);
  const spread = Object.values(folio.spreads).find((s) => s.items[id])!;
  const item = spread.items[id]!;
  const story = storyOfFrame(folio).get(id);
  const set = story ? folio.stories[story] : undefined;
  const over = story ? overflow[story] : null;
  const page = pageOfItem(spread, item);
  const box = itemBounds(spread.items, item);
  const angle = Math.round(angleOf(item.transform) * 10) / 10;
  return (
    <>
      <div className="sheet-head">
        <h2>{itemName(folio, item)}</h2>
        <Button type="text" size="small" icon={<X size={15} />} aria-label="Close" onClick={onClose} />
      </div>
      <dl className="facts">
        <div>
          <dt>Page</dt>
          <dd>{pageNumberOf(folio, spread.id, id)}</dd>
        </div>
        <div>
          <dt>Layer</dt>
          <dd>{folio.head.layers[item.layer]?.name}</dd>
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
        {set && set.frames.length > 1 && (
          <div>
            <dt>Thread</dt>
            <dd>
              frame {set.frames.findIndex((f) => f.item === id) + 1} of {set.frames.length}
            </dd>
          </div>
        )}
      </dl>
      {(item.kind === 'picture' || item.kind === 'shape') && <AltText item={item} spread={spread.id} />}
      {set && over && (
        <p className="warn" role="status">
          {over.characters} characters ({over.lines} {over.lines === 1 ? 'line' : 'lines'}) do not fit.
        </p>
      )}
      {set && (
        <>
          <div className="text-head">
            <h3>Text</h3>
            <StyleChoice story={set.id} />
          </div>
          <StoryEditor key={set.id} storyId={set.id} />
        </>
      )}
    </>
  );
}

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

/** The style of a story's paragraphs, one by one. */
function StyleChoice({ story }: { story: string }) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const styles = Object.values(folio.head.paragraphStyles);
  const used = new Set(
    folio.stories[story]!.order.flatMap((id) =>
      folio.stories[story]!.blocks[id]?.kind === 'paragraph' ? [folio.stories[story]!.blocks[id].style] : [],
    ),
  );
  if (folio.stories[story]!.order.length !== 1)
    return (
      <span className="soft">
        {used.size} {used.size === 1 ? 'style' : 'styles'}
      </span>
    );
  const paragraph = folio.stories[story]!.order[0]!;
  return (
    <Select
      size="small"
      aria-label="Paragraph style"
      value={[...used][0]}
      options={styles.map((s) => ({ value: s.id, label: s.name }))}
      popupMatchSelectWidth={false}
      onChange={(style) => change([{ kind: 'paragraph.style', args: { story, paragraph, style } }], newBurst())}
    />
  );
}
