import { useRef, useState } from 'react';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Button, Select } from 'antd';
import { weightName } from '@elastic-folio/core';
import type { FamilyReport } from '@elastic-folio/core/check';
import { addFont, api } from '../api/client.ts';
import type { ApiProblem } from '../api/client.ts';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';

const FROM: Record<FamilyReport['from'], string> = {
  document: 'comes with the document',
  library: 'from your font library',
  shipped: 'comes with Elastic Folio',
  standIn: 'not there',
};

/** The families that the text asks for: what each is set with, and what to do where one is not there. */
export function FontList({ id }: { id: string }) {
  const fonts = useDocument((s) => s.fonts);
  const input = useRef<HTMLInputElement>(null);
  const client = useQueryClient();
  const [said, setSaid] = useState<{ problem: boolean; text: string } | null>(null);
  const entries = useQuery({ queryKey: ['fonts', id, fonts?.map((f) => f.by).join()], queryFn: () => api.fonts(id) });
  const families = [...new Set((entries.data ?? []).map((f) => f.family))].sort();
  const take = async (files: FileList | null): Promise<void> => {
    const added: string[] = [];
    try {
      for (const file of files ?? []) added.push((await addFont(file)).fullName);
      if (added.length) setSaid({ problem: false, text: `${added.join(', ')}: added for all documents.` });
    } catch (error) {
      const p = error as ApiProblem;
      setSaid({ problem: true, text: `${p.message} ${p.advice}` });
    }
    await client.invalidateQueries({ queryKey: ['fonts'] });
  };
  return (
    <section aria-label="Fonts">
      <ul className="fonts">
        {(fonts ?? []).map((f) => (
          <li key={f.family}>
            <b>{f.family}</b> <span className="soft">{f.faces.map(faceName).join(', ')}</span>
            <div className="soft">
              {FROM[f.from]}
              {!f.mayEmbed && ' · may not be carried along'}
              {f.lent.length > 0 &&
                ` · lacks ${f.lent
                  .slice(0, 8)
                  .map((l) => l.character)
                  .join(' ')}`}
            </div>
            {f.from === 'standIn' && <StandIn family={f.family} by={f.by} families={families} />}
          </li>
        ))}
      </ul>
      <input
        ref={input}
        type="file"
        accept=".ttf,.otf,.woff,.woff2"
        multiple
        hidden
        aria-label="Font file"
        onChange={(e) => {
          void take(e.target.files).then(() => input.current && (input.current.value = ''));
        }}
      />
      <Button size="small" onClick={() => input.current?.click()}>
        Add font files …
      </Button>
      {said && (
        <p className={said.problem ? 'warn' : 'soft'} role="status">
          {said.text}
        </p>
      )}
    </section>
  );
}

/** Another family for one that is not there: remembered with the document. */
function StandIn({ family, by, families }: { family: string; by: string; families: string[] }) {
  const change = useDocument((s) => s.change);
  const chosen = useDocument((s) => s.folio!.head.standIns[family.toLowerCase()]);
  const choose = (name: string | null): void => change([{ kind: 'font.standIn', args: { family, by: name } }], newBurst());
  return (
    <label className="stand-in">
      <span>set with</span>
      <Select
        size="small"
        showSearch
        aria-label={`Set ${family} with`}
        value={by}
        options={families.map((f) => ({ value: f, label: f }))}
        popupMatchSelectWidth={false}
        onChange={choose}
      />
      {chosen !== undefined && (
        <Button size="small" type="link" onClick={() => choose(null)}>
          Leave it to the program
        </Button>
      )}
    </label>
  );
}

const faceName = ({ weight, style }: FamilyReport['faces'][number]): string => {
  const name = weightName(weight) ?? String(weight);
  return style === 'italic' ? (weight === 400 ? 'italic' : `${name} italic`) : name;
};
