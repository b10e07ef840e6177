import { useCallback } from 'react';
import { useNavigate, useSearchParams } from 'react-router';

/** The query that was last asked for, until the address bar shows it. */
let underWay: string | null = null;

export type AddressEntries = Record<string, string | null>;

/**
 * What is kept in the address of a stage (page, item, zoom …), and a function that changes some of it (null: taken out). Changes
 * asked for at once add up: the router's own setter starts from what was last drawn, and of a page that scrolls into sight and an
 * item that is chosen meanwhile, one would be lost.
 */
export function useAddress(): [URLSearchParams, (entries: AddressEntries) => void] {
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const change = useCallback(
    (entries: AddressEntries) => {
      const next = new URLSearchParams(underWay ?? window.location.search);
      for (const [name, value] of Object.entries(entries))
        if (value === null) next.delete(name);
        else next.set(name, value);
      const query = `?${next}`;
      underWay = query;
      void Promise.resolve(navigate(query, { replace: true })).finally(() => {
        if (underWay === query) underWay = null;
      });
    },
    [navigate],
  );
  return [search, change];
}
