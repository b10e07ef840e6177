import type { BlockInput, ParagraphInput } from '../sampleAssembly.ts';
import { anchored, em, note, pageOf, para, soft, strong } from '../sampleAssembly.ts';

/** The walk that begins on page 8 and ends on page 14. */
export const twilightWalk: BlockInput[] = [
  para('first', [
    anchored('side-sunset', 'side'),
    'We meet at the mill when the sun touches the ridge, and we walk up without lamps. It is not a stunt. Dusk lasts for the better part of two hours in spring, and eyes that are left alone keep pace with it so well that nobody notices how dark it has become. ',
    em('The path does the rest.'),
  ]),
  para(
    'running',
    'For the first ten minutes there is colour everywhere. The larches are still green, the gate still red, and people talk. Then the red goes. It goes before all the others, and if you stop beside the gate and look from it to the grass you can watch it happen: the red, which was the brighter of the two, becomes the darker, and at last a kind of black.',
  ),
  para('running', [
    'There is a name for this',
    note(
      'It is called the Purkinje shift, after the physiologist who noticed it on his own morning walks. The cells with which we see at night hardly respond to red.',
    ),
    ', but the children who come along need none. They call the place the Gate of Grey, and they insist on being the last to say that they can still see it.',
  ]),
  para('head', 'The shadow that gets up'),
  para('opening', [
    anchored('side-shadow', 'side'),
    'At the second bend one can look east, and there something is rising that most people have never seen, although it rises on every clear evening of their lives. It is a dull blue band along the horizon, with a pink one above it. The blue is the shadow of the earth. We are standing on a ball with the sun behind it, and the edge of its shadow is climbing up the sky over the valley.',
  ]),
  para('running', [
    anchored('side-band', 'side'),
    'It is best in the quarter of an hour after sunset. Then the band grows higher and paler until it has swallowed the pink, and suddenly it is not a band any more; it is night, coming up from the east. We always stop here. Nobody has ever wanted to be the first to go on.',
  ]),
  para('head', 'Counting the first stars'),
  para('opening', [
    'The first star of the evening is nearly always a planet. The second is worth racing for. Whoever finds it points with a whole arm, and the others look along the sleeve. By the time we have found five we have stopped counting, and that is the moment at which, by an old rule of the hill, it is officially dark enough to be quiet.',
    note('The rule is older than the log. The sun is then about eight degrees below the horizon.'),
  ]),
  para(
    'running',
    'The dome stands above us all this time and grows larger without growing clearer. Its slit is open. On calm evenings you can hear the wheels from the third bend, and if somebody is turning it by hand you can hear them laugh. A little warm air comes down to meet us and smells of oil and old larch.',
  ),
  para('head', 'Walking with your feet'),
  para('opening', [
    'From here on the path is darker than the sky, and it is no use looking at it. Look up and let your feet look. They know the difference between gravel and grass, they can tell a step from a root, and they are far better at it when nobody interferes. The trick is to walk as if it were day and to put each foot down as if it were night.',
  ]),
  para(
    'running',
    'There is always somebody who brings out a lamp at this point, for the best of reasons, to help somebody else. A groan goes along the line. For as long as it takes to walk to the top the rest of us see a green patch wherever we look. After the first time we hand out nothing; we only ask people to leave their lamps in the left pocket, under the gloves.',
  ),
  para('head', 'What is waiting at the top'),
  para(
    'opening',
    'Nothing is lit up there when we arrive. The keeper knows when we are coming, and has put the kettle on and the lamps out. You find the hut by its warmth, the bench by walking into it, and the person beside you by the voice. Somebody passes round cups, and for a while the only thing that can be seen is the steam, which is lighter than the night.',
  ),
  para(
    'running',
    'Then the dome begins to move. From outside one does not see it turn; one sees stars go out along its edge, one after another, and others come back on the far side, and after a moment it is not the dome that seems to be moving. Most of us have watched this a hundred times. We still hold on to the bench.',
  ),
  para('running', [
    'At the gate we turn round. The valley is full of lights, every one of them pointed at the ground, and over it stands the arch of the galaxy from ridge to ridge. People who have lived down there for forty years look at it, and then at their own houses, and say that they had no idea. That is all that happens on this walk. We have done it on every clear Friday in April since the year of the ',
    strong('great frost'),
    ', and we shall do it again: the dates are on page ',
    pageOf('twilight-dates', 'diary-text-1'),
    '.',
  ]),
];

export const sideNotes: readonly { id: string; height: number; text: ParagraphInput }[] = [
  {
    id: 'side-sunset',
    height: 72,
    text: para('side', [strong('Sunset on 3 April'), soft, 'is at seventeen minutes to seven; it is dark two hours later.']),
  },
  { id: 'side-shadow', height: 60, text: para('side', 'The shadow of the earth is a cone more than a million kilometres long.') },
  { id: 'side-band', height: 60, text: para('side', 'Blue below and pink above: turn round, and in the west it is the other way about.') },
];

export const fiveStars: ParagraphInput[] = [
  para('spanningHead', 'Five stars to know by name'),
  para('point', [strong('The Heron’s eye'), ' changes its brightness in five days and nine hours, and you can watch it do so.']),
  para('point', [strong('The upper Lantern'), ' is two stars. The small telescope on the terrace shows both, one gold, one blue.']),
  para('point', [strong('The tip of the Spindle'), ' is the reddest star that can be seen without glass.']),
  para('point', [strong('The Ferryman’s hand'), ' never sets. Sailors on the lake steered by it.']),
  para('point', [strong('The nail'), ' is the one on which everything turns. It is not bright, and it is always in its place.']),
];

export const starDial: ParagraphInput[] = [
  para('step', [
    anchored('icon-cut', 'inline'),
    '\u2002Cut the two discs from card, the outer one a thumb’s breadth wider than the inner.',
  ]),
  para('step', [
    anchored('icon-mark', 'inline'),
    '\u2002Divide the rim of the outer disc into twelve months and the rim of the inner one into twenty-four hours, counting against the clock.',
  ]),
  para('step', [
    anchored('icon-join', 'inline'),
    '\u2002Pin them together through the middle with a paper fastener, loosely enough to turn.',
  ]),
  para('step', 'Glue the pointer to the inner disc, so that it reaches over the rim at midnight.'),
  para(
    'step',
    'On a clear evening hold the dial at arm’s length and look past its centre at the nail. Turn the outer disc until the month is at the top.',
  ),
  para(
    'step',
    'Lay the pointer along the two front stars of the Plough Horse, and read the hour beside it. It will be right to a quarter of an hour, which is more than can be said for most watches up here.',
  ),
];

export const questions: ParagraphInput[] = [
  para('head', 'Questions from the gate'),
  para('question', 'Is it true that you can see stars by day from the bottom of a well?'),
  para(
    'answer',
    'No. The sky at the end of a well is as bright as any other piece of sky. We have tried it in the old shaft behind the mill, and what one sees is a very fine view of a bucket.',
  ),
  para('question', 'Why do you never sell postcards of what the telescope shows?'),
  para(
    'answer',
    'Because people would compare. What you see with your own eye is smaller and greyer than any picture, and it is really there.',
  ),
  para('question', 'How many people have looked through the great tube?'),
  para(
    'answer',
    'We count them at the gate. Counting the one who was born on the way up and was carried in, two hundred and eighteen thousand, four hundred and six.',
  ),
];
