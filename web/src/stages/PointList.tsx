import { Button, Collapse } from 'antd';
import type { Finding } from '@elastic-folio/core/check';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { grouped } from './points.ts';
import { repairOf } from './repairs.ts';

interface Props {
  points: readonly Finding[];
  /** Where a finding is shown; none leads nowhere. */
  itemOf: (finding: Finding) => string | undefined;
  onItem: (item: string) => void;
  /** Leads to what the document's fonts are. */
  onFont: () => void;
}

/** Groups of this many points and more are folded at first. */
const MANY = 8;

/** What to look at, by what it is about; what can be mended at once has a button for it. */
export function PointList({ points, itemOf, onItem, onFont }: Props) {
  const groups = grouped(points);
  return (
    <Collapse
      ghost
      size="small"
      defaultActiveKey={groups.filter((g) => g.points.length < MANY || groups.length === 1).map((g) => g.name)}
      styles={{ header: { paddingInline: 0 }, body: { paddingInline: 0, paddingBlock: 0 } }}
      items={groups.map((g) => ({
        key: g.name,
        label: (
          <>
            {g.name} <span className="soft">{g.points.length}</span>
          </>
        ),
        children: (
          <ul className="points">
            {g.points.map((p, i) => {
              const item = itemOf(p);
              const lead = item ? () => onItem(item) : p.family !== undefined ? onFont : undefined;
              return (
                <li key={`${p.code} ${p.subject ?? ''} ${i}`}>
                  <button disabled={!lead} onClick={lead}>
                    <span className="soft where">{p.page ? `Page ${p.page}` : 'Document'}</span> {p.says}
                  </button>
                  <RepairButton finding={p} />
                </li>
              );
            })}
          </ul>
        ),
      }))}
    />
  );
}

function RepairButton({ finding }: { finding: Finding }) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const repair = repairOf(finding, folio);
  if (!repair) return null;
  return (
    <Button size="small" className="repair" onClick={() => change(repair.edits, newBurst())}>
      {repair.label}
    </Button>
  );
}
