/** Sentences that ledgers of office files have in common. */
export const OFFICE_SENTENCES = {
  'effect.none': 'The format has no such effect.',
  'text.prompt': 'Its words are left out of the template: a prompt says what belongs there.',
  'pictures.out': 'Pictures are left out, as the recipe says.',
  'initial.flat': 'Its initial is a letter like the others.',
  'leading.one': 'Its lines stand {least} to {most} points apart; here all of them do {points}.',
  'font.byName': 'Its typeface is named, not in the file: it is seen where it is installed.',
  'font.replaced': 'Its typeface is replaced by {family}, as the recipe says.',
  'wrap.boxes': 'Text does not run around it by itself: it stands in boxes that leave room for it.',
  'picture.asDrawn': 'It is a picture as the page shows it: cropped, turned or cut out for good.',
  'blend.drawn': 'It is a picture that holds what shows through it from below.',
  'effects.off': 'Effects are left out, as the recipe says.',
  'effect.whole': 'It is a picture, its soft edge with it.',
  'picture.groundThrough': 'The white around what it shows lets through what lies below, as the recipe says.',
  'blend.normal': 'It is laid over what is below it without blending.',
  'ends.bare': 'Lines of the format have no bars at their ends.',
  'opacity.words': 'Its box shows through as designed; its words do not.',
};
export type OfficeCode = keyof typeof OFFICE_SENTENCES;

/** Those that ledgers of slides have in common. */
export const SLIDE_SENTENCES = {
  ...OFFICE_SENTENCES,
  'page.onSpread': 'It is one slide together with the pages that lie beside it.',
  'transition.ofFirst': 'The slide of a spread comes and goes as its first page says.',
  'lines.box': 'It stands in its box; where its lines end, the program that shows the slide decides.',
  'order.stacked': 'Slides are read from back to front, as their things lie on one another: that is another order than the reading path.',
  'note.atFoot': 'Slides have no notes of text: it stands at its foot, with its number, as in the layout.',
  'transition.off': 'Page transitions are switched off in the recipe.',
  'media.settings': 'Films and sounds are left out, as the recipe says; their still pictures stand there.',
  'notes.off': 'Speaker’s notes are left out, as the recipe says.',
};

/** Those that ledgers of text documents of placed boxes have in common. */
export const BOX_SENTENCES = {
  'lines.theirs': 'It stands in its box; where its lines end, the word processor decides.',
  'note.afterBox': 'Boxes of text hold no notes: it stands after the text that refers to it.',
  'outline.boxes': 'Headings in boxes have their levels; outlines of word processors pass them over.',
  'transition.none': 'Pages of a text document do not come by transitions.',
  'advance.none': 'Pages of a text document do not go on by themselves.',
};
export type BoxCode = keyof typeof BOX_SENTENCES;

/** What OpenDocument has no words for, in slides and in text documents. */
export const OPEN_SENTENCES = {
  'look.partly':
    'The format has no outlined letters, no further forms of a typeface, and no rules above and below paragraphs of their own.',
  'field.words': 'It is words from now on.',
  'effect.none': 'The format has shadows with hard edges, and no other effects.',
  'gradient.two': 'Gradients of the format have two colours that are seen through nowhere: it has its first and its last.',
  'field.signature': 'The format has no places for signatures.',
};
