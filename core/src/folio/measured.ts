/** What a web edition can tell its publisher's collector of. */
export const MEASURED = ['page', 'link', 'media', 'form', 'search'] as const;
