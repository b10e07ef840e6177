/** Schemes a link may have; anything else could run a program where the result is opened. */
export const isSafeAddress = (href: string): boolean =>
  /^(https?:|mailto:|tel:)/i.test(href.trim()) || /^[^:]*$/.test(href.trim().split(/[/?#]/)[0]!);

/** Where answers of a form may go: to a server that is spoken to in secret, or into a mail. */
export const isFormAddress = (href: string): boolean => /^(https:|mailto:)/i.test(href.trim());

/** What can be shown inside a page: addresses of the web, no script, no data, no file. */
export const isAddressOfWeb = (href: string): boolean => /^https?:\/\//i.test(href.trim());
