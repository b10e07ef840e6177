import { Select } from 'antd';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';

/** Styles whose words stay as they are in every language: names of programs, lines of code, addresses. */
export function NeverTranslated() {
  const head = useDocument((s) => s.folio!.head);
  const change = useDocument((s) => s.change);
  const styles = [
    ...Object.values(head.paragraphStyles).map((s) => ({ of: 'paragraph' as const, ...s })),
    ...Object.values(head.characterStyles).map((s) => ({ of: 'character' as const, ...s })),
  ];
  const keyOf = (s: (typeof styles)[number]): string => `${s.of}/${s.id}`;
  const kept = styles.filter((s) => s.translate === false).map(keyOf);
  const set = (wanted: string[]): void => {
    const edits = styles.flatMap((s) =>
      wanted.includes(keyOf(s)) === kept.includes(keyOf(s))
        ? []
        : [{ kind: 'style.translate' as const, args: { of: s.of, style: s.id, translate: !wanted.includes(keyOf(s)) } }],
    );
    if (edits.length) change(edits, newBurst());
  };
  return (
    <label className="never-translated">
      <span className="soft">Never translated: text in these styles</span>
      <Select
        mode="multiple"
        size="small"
        aria-label="Styles that are never translated"
        placeholder="none"
        value={kept}
        onChange={set}
        optionFilterProp="label"
        options={styles.map((s) => ({ value: keyOf(s), label: s.of === 'character' ? `${s.name} (words)` : s.name }))}
      />
    </label>
  );
}
