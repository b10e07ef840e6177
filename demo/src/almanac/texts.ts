import type { ParagraphInput } from '../sampleAssembly.ts';
import { em, para, soft, strong, styled, tab } from '../sampleAssembly.ts';

/** The words on the night picture of page 2. */
export const openingOnNight: ParagraphInput[] = [
  para('title', ['When the', soft, 'dome turns']),
  para(
    'light',
    'There is a sound that everyone who has worked a night on Marrowby Hill knows before they know the stars. It begins as a hum under the floor, climbs the iron stair, and then the whole roof of the room sets off, slowly and with great dignity, to look at another part of the sky.',
  ),
];

/** The feature that runs from page 3 to page 5. */
export const domeFeature: ParagraphInput[] = [
  para('first', [
    'The dome of the Marrowby Hill Observatory weighs a little over nine tonnes. It stands on twenty-four wheels, and the wheels stand on a ring of rail that was cast in six pieces and carried up the hill by cart. ',
    strong('Nothing holds it down'),
    ' but its own weight. In a hundred and twelve winters it has never needed more.',
  ]),
  para(
    'running',
    'On a still evening two people can start it with their hands. It is the stopping that wants thought: nine tonnes of copper and larch go on turning for a good third of a circle after one has let go, and the slit, which is scarcely wider than a garden gate, must come to rest exactly in front of the telescope.',
  ),
  para('head', 'A roof with a memory'),
  para('opening', [
    'The keepers of the dome have always written down what it did. The first entry in the log is from an April night and consists of four words: ',
    em('Turned well. Cloud came.'),
    ' Since then nearly forty thousand evenings have been set down in the same narrow columns, and a patient reader can watch the wheels wear, the rail settle towards the south-west, and the grease change from tallow to something out of a tin.',
  ]),
  para(
    'running',
    'From these pages we know that the dome turns more slowly in frost, that swifts nested in the counterweight for eleven summers, and that on one November night, for reasons nobody wrote down, it was turned all the way round nineteen times.',
  ),
  para(
    'running',
    'Copper moves. On a clear day the sunny side of the dome grows by as much as the thickness of a thumbnail, and in the first hour of darkness it shrinks again with small, distinct ticks. Visitors look up at that. Those who know the building use the ticks to tell how fast the air is cooling, and so how steady the stars will be.',
  ),
  para('head', 'Hands on the rope'),
  para(
    'opening',
    'A motor was put in when the road was built, and it still does most of the work. It is the size of a loaf. Yet on every open night, once, the motor is switched off and the rope is brought out. Children take the front of it. The slit slides across the evening star, past the mast on the opposite ridge, and comes to a stop over the valley, where the lamps have just been lit.',
  ),
  para('running', [
    'It would be simpler to leave the rope on its hook. But something happens when a person has moved the roof of a room with their own arms. They go quiet; then they ask much better questions. Details of all open nights are ',
    { type: 'span', text: 'at the end of this issue', link: 'toDiary' },
    ' and on ',
    { type: 'span', text: 'our pages', link: 'toSite', style: 'emphasis' },
    '.',
  ]),
  para(
    'running',
    'The copper will be looked over this summer, plate by plate, for the first time since it was laid. For six weeks the dome will stand still with its slit to the north, and the telescope will look at whatever comes past. We are told that this is how the whole thing began: someone looked up through a gap in a roof, and waited.',
  ),
  para('head', 'What the wheels say'),
  para(
    'opening',
    'Each of the twenty-four wheels has a voice of its own. Number seven clicks; number fifteen, which was replaced after the hard winter, rolls in silence and is distrusted for it. When the keeper walks round with the oil can before an open night, a hand laid on the rail is enough to tell which of them is next.',
  ),
  para(
    'running',
    'In return the dome asks for very little: oil, a dry rope, and somebody who listens. If you would like to be that somebody, come to the workshop day and bring gloves. You will go home with black fingers, and you will never again think of a roof as something that stays where it is.',
  ),
  para('head', 'A night in the log'),
  para(
    'opening',
    'Take the evening of the ninth of January, thirty-one years ago. At six the keeper notes a clear sky and a wind that would not move a feather. At seven the first visitors arrive, a family of five with one pair of mittens between them. At half past seven the entry breaks off in the middle of a word.',
  ),
  para(
    'running',
    'It goes on in another hand. The youngest of the five, it says, had asked what would happen if everyone pulled the other way. Everyone did. The dome, which for eighty years had been turned with the sun, went round against it for the first time, and in the quiet that followed a small screw fell out of the ceiling and landed in the log, where its outline can be seen to this day.',
  ),
  para(
    'running',
    'The screw has never been missed. The keeper glued it to the page, drew an arrow to it and wrote the only sentence in forty thousand entries that ends with an exclamation mark. We leave it to you to come up and read it.',
  ),
  para('head', 'Before you come'),
  para('opening', [
    'The first turn of the dome is at eight. Dress for the temperature outside, since that is the temperature inside; bring a red lamp if you have one, and leave the white ones in your pocket. ',
    em('Eyes need twenty minutes to learn the dark'),
    ' and lose it in a second.',
  ]),
  para('running', 'Dogs are welcome as far as the gate. Questions are welcome everywhere.'),
];

/** What is new, on page 6 and 7. */
export const skyInMarch: ParagraphInput[] = [
  para(
    'opening',
    'The month begins with a thin moon in the west, and for a week the evenings belong to it. Look along the line where day turns to night: there the craters throw their longest shadows, and a small telescope shows ridges that will be gone two hours later.',
  ),
  para('head', 'First half of the night'),
  para('opening', [
    'The Heron stands upright in the south as soon as it is dark, with the bright pair of the Lanterns to its left. Follow the bird’s neck upwards and you reach the ',
    em('Ferryman'),
    ', whose oar is made of three stars in a row. Under a dark sky a faint patch can be seen beside the lowest of them. It is a cluster, and worth the cold feet.',
  ]),
  para('head', 'Towards morning'),
  para(
    'opening',
    'After midnight the Spindle climbs over the eastern ridge. The yellow star at its tip changes its brightness from week to week; our observers have followed it for sixty years, and a new pair of eyes is always welcome.',
  ),
];

export const letterGerman: ParagraphInput[] = [
  para('head', 'A letter from a guest'),
  para(
    'letter',
    'Liebe Freunde auf dem Hügel, die Nacht unter Eurer Kuppel geht mir nicht aus dem Kopf. Als das Dach sich drehte und der Abendstern durch den Spalt wanderte, hielten wir alle den Atem an. Zu Hause habe ich sofort das Fenster geöffnet und hinausgeschaut. Mit herzlichem Gruß, eine Besucherin aus Lindenbrück',
    { character: { language: 'de' } },
  ),
];

export const diary: ParagraphInput[] = [
  para('darkTitle', 'Diary'),
  para('diary', [strong('6 March'), tab, 'Open dome night. Doors at seven, first turn of the dome at eight.']),
  para('diary', [strong('13 March'), tab, 'Talk: A hundred and twelve winters of writing down the weather.']),
  para('diary', [strong('20 March'), tab, 'Equal day and night. Walk up the hill with lanterns; bring good shoes.']),
  para('diary', [strong('27 March'), tab, 'Workshop day in the dome: oil, rope and gloves.']),
  para('diary', [strong('3 April'), tab, 'Young observers. The telescope is theirs until bedtime.']),
  para('head', 'How to find us'),
  para('opening', [
    'The path starts behind the mill and takes forty minutes at an easy pace. Write to ',
    { type: 'span', text: 'the keeper', link: 'toKeeper' },
    ' if you need a lift to the top.',
  ]),
];

export const imprint: ParagraphInput[] = [
  para('imprint', [
    strong('The Marrowby Almanac'),
    ' appears four times a year. Words and drawings by the volunteers of the Marrowby Hill Observatory.',
  ]),
  para('imprint', [
    'Set in two typefaces, printed in four colours and ',
    styled('one copper', { fontStyle: 'italic', underline: {} }),
    '.',
  ]),
];
