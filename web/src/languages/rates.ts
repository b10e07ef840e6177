import { useState } from 'react';
import { Rates } from '@elastic-folio/core/language';
import type { Band } from '@elastic-folio/core/language';

/** What bands of what is known are called to people. */
export const BAND_WORDS: Record<Band, string> = {
  inContext: 'done before',
  repeated: 'repeated',
  exact: 'the same',
  '95-99': '95–99 %',
  '85-94': '85–94 %',
  '75-84': '75–84 %',
  '50-74': '50–74 %',
  new: 'new',
};

const KEY = 'folio.rates';

/** What a word costs and how many are done in a day, as they were said last; kept by the browser. */
export function ratesKept(): Rates {
  try {
    return Rates.parse(JSON.parse(localStorage.getItem(KEY) ?? '{}'));
  } catch {
    return Rates.parse({});
  }
}

export function useRates(): [Rates, (rates: Rates) => void] {
  const [rates, set] = useState(ratesKept);
  return [
    rates,
    (now) => {
      localStorage.setItem(KEY, JSON.stringify(now));
      set(now);
    },
  ];
}
