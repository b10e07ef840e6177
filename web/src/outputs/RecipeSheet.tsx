import { useEffect, useRef, useState } from 'react';
import { Button, Input } from 'antd';
import { X } from 'lucide-react';
import type { Recipe } from '@elastic-folio/core';
import type { OutputKind, Run } from '@elastic-folio/core/api';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { KeptRecipes } from './KeptRecipes.tsx';
import { StartFrom } from './StartFrom.tsx';
import { SettingsForm } from './SettingsForm.tsx';
import { inBytes } from '../shell/inBytes.ts';

/** Settings that wait this long after the last change before they are kept. */
const SETTLE_MS = 350;

/** One recipe beside the score: its name and its settings, kept as they are changed. */
export function RecipeSheet({
  recipe,
  kind,
  made,
  onClose,
}: {
  recipe: Recipe;
  kind: OutputKind | undefined;
  /** The files of the last result. */
  made: Run['files'];
  onClose: () => void;
}) {
  const change = useDocument((s) => s.change);
  const [values, setValues] = useState(recipe.settings);
  const [name, setName] = useState(recipe.name);
  const burst = useRef(newBurst());
  const latest = useRef({ values, name });
  latest.current = { values, name };
  const settled = useRef({ values: recipe.settings, name: recipe.name });

  const keep = useRef(() => {});
  keep.current = () => {
    const { values: v, name: n } = latest.current;
    if (v === settled.current.values && n === settled.current.name) return;
    settled.current = latest.current;
    // Removed meanwhile (here or in another window): keeping its settings would bring it back.
    if (!useDocument.getState().folio?.recipes[recipe.id]) return;
    change([{ kind: 'recipe.set', args: { ...recipe, name: n.trim() || recipe.name, settings: v } }], burst.current);
  };
  useEffect(() => {
    const timer = setTimeout(() => keep.current(), SETTLE_MS);
    return () => clearTimeout(timer);
  }, [values, name]);
  // Closed before the last change has settled: it is kept all the same.
  useEffect(() => () => keep.current(), []);

  // Undo, or another window, changed the recipe: show what is kept. What is merely what was kept last, whatever has been chosen
  // since, is no such change.
  useEffect(() => {
    const kept = JSON.stringify(recipe.settings);
    if (kept === JSON.stringify(settled.current.values) || kept === JSON.stringify(latest.current.values)) return;
    settled.current = { values: recipe.settings, name: recipe.name };
    setValues(recipe.settings);
    setName(recipe.name);
  }, [recipe.settings, recipe.name]);

  return (
    <aside className="sheet recipe-sheet" aria-label="Settings">
      <div className="sheet-head">
        <Input
          variant="borderless"
          className="recipe-name"
          aria-label="Name of this output"
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        <Button type="text" size="small" icon={<X size={15} />} aria-label="Close settings" onClick={onClose} />
      </div>
      <p className="soft">{kind?.about}</p>
      {kind && <StartFrom kind={kind} values={values} onApply={setValues} />}
      {kind && <KeptRecipes recipe={recipe} values={values} kind={kind} onApply={setValues} />}
      {kind && <SettingsForm kind={kind} values={values} onChange={setValues} />}
      {made && made.length > 1 && (
        <details className="made-files">
          <summary>The {made.length} files of the last result</summary>
          <ul>
            {made.map((f) => (
              <li key={f.path}>
                <code>{f.path}</code> <span className="soft">{inBytes(f.bytes)}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </aside>
  );
}
