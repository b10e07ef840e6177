import { useCallback, useEffect, useMemo } from 'react';
import { Segmented } from 'antd';
import { pagesOf } from '@elastic-folio/core';
import type { Spread } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { useAddress } from '../shell/address.ts';
import { PageTable } from '../table/PageTable.tsx';
import { BringBack } from './BringBack.tsx';
import { Desk } from './Desk.tsx';
import { EditionList } from './EditionList.tsx';
import { EditionSettings } from './EditionSettings.tsx';
import { FitList } from './FitList.tsx';
import { GrowthTint } from './GrowthTint.tsx';
import { KnownBefore } from './KnownBefore.tsx';
import { People } from './People.tsx';
import { SendTexts } from './SendTexts.tsx';
import { TextOutline } from './TextOutline.tsx';
import { useForecast } from './useForecast.ts';
import { useScriptFont } from './useScriptFont.ts';

const PARTS = [
  { value: 'out', label: 'Send' },
  { value: 'back', label: 'Return' },
  { value: 'desk', label: 'Desk' },
  { value: 'fit', label: 'Fit' },
  { value: 'people', label: 'People' },
  { value: 'memory', label: 'Memory' },
  { value: 'settings', label: 'Settings' },
];

/** Languages: an edition on the table with the growth of its texts, and beside it what goes out to translators and comes back. */
export function Languages() {
  const [search, change] = useAddress();
  const folio = useDocument((s) => s.folio)!;
  const showLanguage = useDocument((s) => s.showLanguage);
  const overflow = useDocument((s) => s.overflow);
  const asked = search.get('language');
  const language = asked !== null && folio.editions[asked] ? asked : null;
  const original = search.get('show') === 'original';
  const part = PARTS.some((p) => p.value === search.get('part')) ? search.get('part')! : 'out';
  useScriptFont(language);
  const forecast = useForecast(language, part === 'fit' && search.get('forecast') !== null);
  useEffect(() => {
    showLanguage(original ? null : language, forecast.shown);
    return () => showLanguage(null);
  }, [language, original, forecast.shown, showLanguage]);
  const onSelect = useCallback((id: string | null) => change({ item: id }), [change]);
  const onZoom = useCallback((z: number | 'fit') => change({ zoom: z === 'fit' ? null : String(z) }), [change]);
  const onPage = useCallback((n: number) => change({ page: n === 1 ? null : String(n) }), [change]);
  const text = part === 'desk' ? search.get('text') : null;
  const tint = useCallback(
    (spread: Spread, scale: number) => (
      <>
        <GrowthTint spread={spread} scale={scale} />
        <TextOutline spread={spread} text={text} scale={scale} />
      </>
    ),
    [text],
  );
  const points = useMemo(() => {
    const over = new Set<number>();
    if (language === null || original) return over;
    for (const { number, spread } of pagesOf(folio))
      for (const story of Object.values(folio.stories)) {
        const last = story.frames[story.frames.length - 1];
        if (overflow[story.id] && last?.spread === spread.id) over.add(number);
      }
    return over;
  }, [folio, language, original, overflow]);
  const item = search.get('item');
  return (
    <div className={part === 'desk' && language !== null ? 'with-sheet editions-stage desk-open' : 'with-sheet editions-stage'}>
      <PageTable
        selected={item}
        onSelect={onSelect}
        points={points}
        zoom={Number(search.get('zoom')) || 'fit'}
        onZoom={onZoom}
        page={Number(search.get('page')) || 1}
        onPage={onPage}
        over={language !== null && !original ? tint : undefined}
      />
      <aside className="sheet" aria-label="Details">
        <EditionList
          language={language}
          original={original}
          onLanguage={(l) => change({ language: l, show: null, item: null })}
          onOriginal={(on) => change({ show: on ? 'original' : null })}
        />
        {language !== null && (
          <>
            <Segmented
              className="edition-parts"
              size="small"
              aria-label="Parts of the edition"
              value={part}
              onChange={(v) => change({ part: v === 'out' ? null : v })}
              options={PARTS}
            />
            {part === 'out' ? (
              <SendTexts key={language} language={language} />
            ) : part === 'back' ? (
              <BringBack
                key={`${language} ${search.get('job') ?? ''}`}
                language={language}
                job={search.get('job')}
                onLeft={() => change({ job: null })}
              />
            ) : part === 'desk' ? (
              <Desk
                key={language}
                language={language}
                text={search.get('text')}
                onShow={(frame, page, text) => change({ item: frame, text, ...(page !== null && { page: String(page) }) })}
              />
            ) : part === 'fit' ? (
              <FitList
                key={language}
                language={language}
                expected={forecast.expected}
                onForecast={(on) => change({ forecast: on ? '' : null, show: null })}
                onSelect={onSelect}
              />
            ) : part === 'people' ? (
              <People key={language} language={language} onDelivery={(job) => change({ part: 'back', job })} />
            ) : part === 'memory' ? (
              <KnownBefore key={language} language={language} />
            ) : (
              <EditionSettings key={language} language={language} item={item} onGone={() => change({ language: null, part: null })} />
            )}
          </>
        )}
      </aside>
    </div>
  );
}
