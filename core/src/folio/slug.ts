/** Letters and digits of a title as addresses have them, at most so many; empty where it has none of the Latin alphabet. */
export const slugOf = (title: string, most: number): string =>
  title
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, most)
    .replace(/-$/, '');
