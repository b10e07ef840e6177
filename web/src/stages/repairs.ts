import type { Edit, Folio } from '@elastic-folio/core';
import { closedLevels, headingsInOrder, storyOfFrame, suggestRoles } from '@elastic-folio/core';
import type { Finding } from '@elastic-folio/core/check';

/** What mends a finding at once, in the words of its button. */
export interface Repair {
  label: string;
  edits: Edit[];
}

/** The repair of a finding; null where a person has to look. */
export function repairOf(finding: Finding, folio: Folio): Repair | null {
  const { subject, styles } = finding;
  switch (finding.code) {
    case 'style.handFormatted':
      return { label: 'Make styles of them', edits: [{ kind: 'styles.nameLooks', args: {} }] };
    case 'style.alike': {
      const [keep, ...others] = styles ?? [];
      const name = keep === undefined ? undefined : folio.head.paragraphStyles[keep]?.name;
      return name === undefined || !others.length
        ? null
        : { label: `Use “${name}” for all`, edits: [{ kind: 'styles.merge', args: { keep: keep!, others } }] };
    }
    case 'text.emptyParagraphs': {
      const story = subject === undefined ? undefined : storyOfFrame(folio).get(subject);
      return story === undefined ? null : { label: 'Make it space', edits: [{ kind: 'text.closeUp', args: { story } }] };
    }
    case 'heading.skip':
    case 'heading.none':
      return headingRepair(folio);
    case 'layer.hidden':
      return subject === undefined
        ? null
        : { label: 'Show it', edits: [{ kind: 'layer.visible', args: { layer: subject, visible: true } }] };
    default:
      return null;
  }
}

/** Headings moved up until they begin at the first level and skip none; where there are none, the style that suggests itself. */
function headingRepair(folio: Folio): Repair | null {
  const closed = closedLevels(folio);
  if (Object.keys(closed).length)
    return { label: 'Close the gap', edits: [{ kind: 'styles.roles', args: { paragraph: closed, character: {} } }] };
  const title = suggestRoles(folio).find((s) => s.kind === 'paragraph' && s.role.element === 'h1');
  const name = title && folio.head.paragraphStyles[title.style]?.name;
  return title && name !== undefined && !headingsInOrder(folio).length
    ? {
        label: `Make “${name}” the first level`,
        edits: [{ kind: 'styles.roles', args: { paragraph: { [title.style]: title.role }, character: {} } }],
      }
    : null;
}
