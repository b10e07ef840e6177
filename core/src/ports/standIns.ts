/** How places in a text are called between which words stand for something that is no text, such as the number of a note. */
export const STANDS_FOR = 'for_';
/** The same for words that are only a sign before a text. */
export const SIGN = 'sign_';
/** How ids of paragraphs begin that only stand there again, such as rows that head every part of a table. */
export const AGAIN = 'again.';
