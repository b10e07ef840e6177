const names = new Intl.DisplayNames(['en'], { type: 'language' });

/** What a language is called in English, by its tag (BCP 47). */
export const languageName = (language: string): string => names.of(language) ?? language;
