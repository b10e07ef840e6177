import { InputNumber, Select } from 'antd';
import { layOf, mm, pagesOf, toMm } from '@elastic-folio/core';
import type { PageLay as Lay } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';

const LAYS: { value: Lay; label: string }[] = [
  { value: 'single', label: 'One by one' },
  { value: 'coverThenPairs', label: 'In pairs, after a first page' },
  { value: 'pairs', label: 'In pairs, from the first' },
];

/** How pages lie beside each other, and how far ink runs over their edges: drawings and presentations know neither. */
export function PageLay() {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const whole = useDocument((s) => s.loading === 'all');
  const pages = pagesOf(folio);
  const bleeds = new Set(pages.map((p) => p.page.bleed));
  const bleed = bleeds.size === 1 ? Math.round(toMm([...bleeds][0]!) * 100) / 100 : null;
  return (
    <div className="page-lay">
      <label htmlFor="page-lay">Pages lie</label>
      <Select
        id="page-lay"
        size="small"
        disabled={!whole || pages.length < 2}
        value={layOf(folio)}
        placeholder="in their own way"
        options={LAYS}
        popupMatchSelectWidth={false}
        onChange={(lay) => lay && change([{ kind: 'pages.lay', args: { lay } }], newBurst())}
      />
      <label htmlFor="page-bleed">Bleed</label>
      <InputNumber
        id="page-bleed"
        size="small"
        disabled={!whole}
        min={0}
        max={50}
        step={1}
        value={bleed}
        placeholder="differs"
        suffix="mm"
        onChange={(given) => given !== null && change([{ kind: 'pages.bleed', args: { bleed: mm(given) } }], newBurst())}
      />
    </div>
  );
}
