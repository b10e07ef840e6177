/** The name of a page as a place that links of a PDF lead to (ISO 32000-1, 12.3.2.3): by it a page is found, whatever stands before it. */
export const pageDestination = (page: string): string => `page.${page}`;
