import { Collapse } from 'antd';
import type { Finding } from '@elastic-folio/core/check';
import { grouped } from './points.ts';

interface Props {
  points: readonly Finding[];
  /** Where a finding is shown; none leads nowhere. */
  itemOf: (finding: Finding) => string | undefined;
  onItem: (item: string) => void;
}

/** Groups of this many points and more are folded at first. */
const MANY = 8;

/** What to look at, by what it is about. */
export function PointList({ points, itemOf, onItem }: Props) {
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
              return (
                <li key={`${p.code} ${p.subject ?? ''} ${i}`}>
                  <button disabled={!item} onClick={() => item && onItem(item)}>
                    <span className="soft">{p.page ? `Page ${p.page}` : 'Document'}</span> {p.says}
                  </button>
                </li>
              );
            })}
          </ul>
        ),
      }))}
    />
  );
}
