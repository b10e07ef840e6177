import { useState } from 'react';
import { Button, Input, Select } from 'antd';
import { pageNumbers } from '@elastic-folio/core';
import type { PagePlace, Transition } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { CopiedHere } from './CopiedHere.tsx';
import { HeldCues } from './HeldCues.tsx';
import { NewCue } from './NewCue.tsx';
import { OpeningChoice } from './OpeningChoice.tsx';
import { Seconds } from './Seconds.tsx';
import { TransitionSample } from './TransitionSample.tsx';

const STYLES: { value: Transition['style']; label: string }[] = [
  { value: 'fade', label: 'Fade' },
  { value: 'wipe', label: 'Wipe' },
  { value: 'push', label: 'Push' },
  { value: 'cover', label: 'Cover' },
  { value: 'uncover', label: 'Uncover' },
  { value: 'split', label: 'Split' },
  { value: 'blinds', label: 'Blinds' },
  { value: 'box', label: 'Box' },
  { value: 'dissolve', label: 'Dissolve' },
  { value: 'glitter', label: 'Glitter' },
  { value: 'fly', label: 'Fly' },
];
const DIRECTIONS = [
  { value: 0, label: 'from left to right' },
  { value: 180, label: 'from right to left' },
  { value: 90, label: 'from below' },
  { value: 270, label: 'from above' },
];
/** Styles that have a direction, a line or a way (ISO 32000-1, table 162). */
const DIRECTED = new Set<Transition['style']>(['wipe', 'push', 'cover', 'uncover', 'glitter', 'fly']);
const LINED = new Set<Transition['style']>(['split', 'blinds']);
const WAYS = new Set<Transition['style']>(['split', 'box', 'fly']);

/** How pages come into sight: chosen by sight, given to one page or all, and taken off again. */
export function PageMotion({ places, page: number }: { places: readonly PagePlace[]; page: number }) {
  const change = useDocument((s) => s.change);
  const { page, spread } = places[number - 1] ?? places[0]!;
  const [range, setRange] = useState('');
  const some = pagesIn(range, places.length).map((n) => places[n - 1]!.page.id);
  const [chosen, setChosen] = useState<Transition>(page.transition ?? { style: 'fade', seconds: 0.6, direction: 0 });
  const [seconds, setSeconds] = useState<number | null>(page.advanceAfter ?? null);
  const all = places.map((p) => p.page.id);
  const give = (pages: string[], transition: Transition | null): void =>
    change([{ kind: 'pages.motion', args: { pages, transition, advanceAfter: transition ? seconds : null } }], newBurst());
  const having = places.filter((p) => p.page.transition).length;
  return (
    <div className="page-motion">
      <p className="soft">
        {having === 0 ? 'Pages come without a transition.' : `${having} of ${places.length} pages come by a transition.`} Page {number}:{' '}
        {page.transition ? `${page.transition.style}, ${page.transition.seconds} s` : 'none'}
        {page.advanceAfter !== undefined && `, goes on after ${page.advanceAfter} s`}
      </p>
      <div className="transition-choice" role="radiogroup" aria-label="Transition">
        {STYLES.map(({ value, label }) => (
          <TransitionSample
            key={value}
            label={label}
            transition={{ ...chosen, style: value }}
            chosen={chosen.style === value}
            onChoose={() => setChosen({ ...chosen, style: value })}
          />
        ))}
      </div>
      {DIRECTED.has(chosen.style) && (
        <Select
          aria-label="Direction"
          value={chosen.direction}
          options={DIRECTIONS}
          onChange={(direction) => setChosen({ ...chosen, direction })}
        />
      )}
      {LINED.has(chosen.style) && (
        <Select
          aria-label="Line"
          value={chosen.axis ?? 'horizontal'}
          options={[
            { value: 'horizontal', label: 'along a level line' },
            { value: 'vertical', label: 'along an upright line' },
          ]}
          onChange={(axis) => setChosen({ ...chosen, axis })}
        />
      )}
      {WAYS.has(chosen.style) && (
        <Select
          aria-label="Way"
          value={chosen.motion ?? 'inward'}
          options={[
            { value: 'inward', label: 'inwards' },
            { value: 'outward', label: 'outwards' },
          ]}
          onChange={(motion) => setChosen({ ...chosen, motion })}
        />
      )}
      <Seconds
        words="It takes"
        name="Seconds of the transition"
        value={chosen.seconds}
        onChange={(v) => setChosen({ ...chosen, seconds: v ?? 1 })}
      />
      <Seconds
        words="Goes on by itself after"
        name="Seconds until the next page"
        min={0.5}
        max={3600}
        step={1}
        value={seconds}
        placeholder="never"
        onChange={setSeconds}
      />
      <p className="path-moves">
        <Button size="small" type="primary" onClick={() => give([page.id], chosen)}>
          Give to page {number}
        </Button>
        <Button size="small" onClick={() => give(all, chosen)}>
          Give to all pages
        </Button>
        <span className="in-row">
          <Input aria-label="Which pages" placeholder="2–4, 7" size="small" value={range} onChange={(e) => setRange(e.target.value)} />
          <Button size="small" disabled={!some.length} onClick={() => give(some, chosen)}>
            Give to these
          </Button>
          <Button size="small" disabled={!some.length} onClick={() => give(some, null)}>
            Take off these
          </Button>
        </span>
        <Button size="small" disabled={!page.transition} onClick={() => give([page.id], null)}>
          Take off page {number}
        </Button>
        <Button size="small" disabled={having === 0} onClick={() => give(all, null)}>
          Take off all
        </Button>
      </p>
      <h2>When page {number} is shown or left</h2>
      <HeldCues spread={spread.id} holder={page.id} label="Cues of this page" cues={Object.values(page.cues)} />
      <NewCue key={page.id} spread={spread} holder={page.id} />
      <p className="path-moves">
        <CopiedHere place={{ spread: spread.id, page: page.id }} words={`Put the copy on page ${number}`} />
        <CopiedHere place={{ spread: spread.id, holder: page.id }} words="Hang the copied cues on the page" />
      </p>
      <OpeningChoice />
    </div>
  );
}

/** The pages that a range such as “2–4, 7” names, as far as there are such pages; none where it cannot be read. */
function pagesIn(range: string, count: number): number[] {
  try {
    return range.trim() ? [...pageNumbers(range.replaceAll('–', '-'), count)] : [];
  } catch {
    return [];
  }
}
