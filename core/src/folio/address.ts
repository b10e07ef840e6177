/** Schemes a link may have; anything else could run a program where the result is opened. */
export const isSafeAddress = (href: string): boolean =>
  /^(https?:|mailto:|tel:)/i.test(href.trim()) || /^[^:]*$/.test(href.trim().split(/[/?#]/)[0]!);
