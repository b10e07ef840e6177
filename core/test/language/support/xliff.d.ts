declare module 'xliff' {
  /** Only what the tests ask for. */
  export function xliff2js(xml: string): Promise<{ sourceLanguage: string; targetLanguage: string; resources: Record<string, unknown> }>;
}
