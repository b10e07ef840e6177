import { Button, Tooltip } from 'antd';
import { placesToPart } from '@elastic-folio/core/language';
import type { DeskRow } from '@elastic-folio/core/language';

interface Props {
  row: DeskRow;
  onPart: (place: number) => void;
  onLeave: () => void;
}

/** The words of a segment’s source as places: the one that is pressed begins the second part. */
export function PartAtWord({ row, onPart, onLeave }: Props) {
  return (
    <div className="part-words" role="group" aria-label="Part before a word" lang={row.unit.language}>
      {placesToPart(row.segment.source, row.unit.language).map(({ at, word }, i) => (
        <Tooltip key={at} title="The second part begins here" mouseEnterDelay={0.6}>
          <Button
            size="small"
            type="text"
            autoFocus={i === 0}
            onClick={() => onPart(at)}
            onKeyDown={(e) => e.key === 'Escape' && onLeave()}
          >
            {word}
          </Button>
        </Tooltip>
      ))}
    </div>
  );
}
