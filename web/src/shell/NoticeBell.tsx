import { useCallback } from 'react';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Badge, Button, Popover } from 'antd';
import { Bell } from 'lucide-react';
import dayjs from 'dayjs';
import { Link } from 'react-router';
import type { Notice, ServerEvent } from '@elastic-folio/core/api';
import { api } from '../api/client.ts';
import { useServerEvents } from '../api/events.ts';

/** What translators said, with a count of what is new; reading the list is having seen it. */
export function NoticeBell() {
  const client = useQueryClient();
  const notices = useQuery({ queryKey: ['notices'], queryFn: api.notices }).data ?? [];
  const again = useCallback(() => void client.invalidateQueries({ queryKey: ['notices'] }), [client]);
  useServerEvents(useCallback((e: ServerEvent) => e.type === 'jobs' && again(), [again]));
  const fresh = notices.filter((n) => !n.seen);
  const seen = (): void => {
    if (fresh.length)
      void api
        .noticesSeen(fresh.map((n) => n.id))
        .catch(() => undefined)
        .then(again);
  };
  return (
    <Popover
      trigger="click"
      placement="bottomRight"
      onOpenChange={(open) => !open && seen()}
      content={
        <div className="notices">
          {notices.length === 0 && <p className="soft">Nothing has come from translators.</p>}
          <ul>
            {notices.slice(0, 12).map((n) => (
              <OneNotice key={n.id} notice={n} />
            ))}
          </ul>
          <Link to="/outbox">Outbox</Link>
        </div>
      }
    >
      <Badge count={fresh.length} size="small" offset={[-4, 6]} color="var(--clay)">
        <Button type="text" icon={<Bell size={16} />} aria-label={fresh.length ? `Notices, ${fresh.length} new` : 'Notices'} />
      </Badge>
    </Popover>
  );
}

/** Where a notice leads: to what was delivered, to the text that was asked about, or to whoever was asked. */
function placeOf({ folio, kind, language, job, unit }: Notice): string {
  const at = `/d/${folio}/languages?language=${language}`;
  if (kind === 'delivered') return `${at}&part=back&job=${job}`;
  return unit === null ? `${at}&part=people` : `${at}&part=desk&text=${encodeURIComponent(unit)}`;
}

function OneNotice({ notice }: { notice: Notice }) {
  return (
    <li className={notice.seen ? undefined : 'new'}>
      <Link to={placeOf(notice)}>{notice.says}</Link>
      <small className="soft">
        {notice.title}, {dayjs(notice.at).format('D MMM, H:mm')}
      </small>
    </li>
  );
}
