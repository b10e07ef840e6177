/** Part Four of the handbook, and its glossary. */
export const partFour = `# People and Paper {#part-people}

![A line of people on a rope, small and large, in front of the drum of the dome.](rope "An open night. Children go first on the rope, grown people behind them, and the keeper walks at the slit.")

The sky needs nobody. People need a little help with it, and what they saw needs to be written down. That is what this part is about.

## Guests {#guests}

Somebody has walked uphill for forty minutes to look through a telescope for one. Make it a good one. Greet people at the gate, by lamp if it is dark, and tell them what is going to happen: that it will be darker than they are used to, that they will not see much for a quarter of an hour, that this is normal, and that the ladder has nine steps.

### At the eyepiece

- Say what there is to see **before** they look. People see what they have words for.
- Tell them where to put their eye, and not to hold on to the tube.
- Let them focus.
- Then be quiet. Do not explain while somebody is looking.
- Ask “What do you see?” and never “Do you see it?”. The second question can only be answered with yes.
- Thank them, and help them down.

A guest who sees nothing is usually looking from too far away, or with the wrong eye closed, or past the eyepiece at a reflection. Ask them to move their head slowly until something bright appears. If that does not help, look yourself; the second most common reason is that the thing has drifted out of the field.

### Questions

You will be asked how far the telescope can see, how much it magnifies, what it cost, and whether there is anybody out there. Honest answers are short. “I do not know” is an honest answer, and “let us find out” is a better one. There is a shelf of books in the hut for exactly this.

Do not correct a guest in front of others. If somebody is sure that a planet is a star, ask them to look at it for a minute, then at a real star, and let the sky do it.

### Everyone

The ladder is not for everyone, and a person who cannot climb it has come up the same hill. There is a second, small telescope on the terrace with its eyepiece at the height of a chair, and a bench beside it. Offer it as what it is, the better telescope for wide views, and not as a consolation. For guests who do not see well we have the raised charts and the bronze moon, whose craters can be read with the fingertips. Ask people what they need. They know.

![The terrace: a small telescope at the height of a chair, a bench, and the bronze moon on its stand.](terrace "The terrace, with the low telescope. The path from the gate to the bench is level, and wide enough for two people side by side.")

### Crowds

Ten people are the most that can be in the dome with any pleasure. When more are waiting, the second holds the list, and there is a talk in the hut: ten minutes, no more, about something that can be seen this evening. If clouds come, turn the dome by hand. Nobody has ever gone home sorry from an evening on which they moved nine tonnes.

## Children on the rope {#children}

Once on every open night the motor is switched off and the rope is brought out. It is as thick as a wrist and twenty metres long, and it takes eleven children or seven grown people to start the dome, and nobody at all to keep it going.

### Before

1. Look along the rail, as always.
2. Take the shortest children to the front. They set the pace.
3. Show them how to hold the rope: with both hands, on the outside, never wound round an arm or a waist.
4. Show them how to let go. Practise it once, on the word.
5. Tell the grown people that they are there to help with starting and have no other duties.

### During

The keeper stands at the slit and gives the word, “Walk”. Not “pull”: people who pull lean back and fall over when it begins to move. The dome does nothing for two breaths, then it gives, and there is always a shout. Let them walk a third of the circle and call “Let go”. It turns on by itself, and it is worth saying nothing while it does. They can hear the wheels.

The rope goes slack at once and must be gathered in by the second before anyone steps on it. Then comes the best part: the star they set out for is in the slit, and whoever was first on the rope is first at the eyepiece.

![The dome from above, with the arc of a third of a circle marked from the call to the place of rest.](third "The rule of the third. The keeper calls where the arc begins; the slit comes to rest where it ends.")

### Afterwards

Ask each child for one sentence for the log. Write it down as it is said. These are the best pages we have: “It was heavy and then it was not.” “I moved the sky a bit.” “My grandfather let go too late.” The sentences from before the war of the neighbours are still read aloud at the summer supper.^[It was about a hedge, and lasted nine years. Both sides kept coming up on open nights, on different evenings, and wrote in the same log.]

### When it is too cold

Below minus eight the rope stiffens, and hands cannot feel whether they are holding it. Leave it on its hook. Let the children turn the crank of the shutter instead, counting aloud to forty.

## The log {#the-log}

The log has been kept without a gap since the first April night, when somebody wrote “Turned well. Cloud came.” Forty thousand evenings later, that is still how to do it: what you did, what the sky did, in that order, and nothing else that is not so.

### What goes in

> Ninth of January. Clear, wind none, seeing 2, cover 0. Opened at 17.40. Five guests. Great tube on the giant’s moons, 200 times, innermost gone into the shadow at 19.12. Turned by hand at half past seven, against the sun. One screw found in the log. Closed 22.05. Signed by two.

Every entry has a date, the weather, the times of opening and closing, what was looked at with what, and two signatures. Times are in hours and minutes by the wall clock, with the clock’s error once a week. Do not leave lines empty, and do not write between the lines.

![A page of the log with its columns: date, sky, time, instrument, what was seen, by whom.](page "A page of the log. The narrow column on the right is for the workshop, which initials what it has put right.")

### What stays out

Opinions about the keeper, the names of guests, and anything that you were told and did not see. If somebody else saw it, let them write it. If it was seen by a guest, write “a guest”, and what was said.

### Mistakes

Cross out a mistake with a single line, so that it can still be read, and initial it. Never tear out a page. A wrong time that can be recognised as wrong is worth more than a right one that cannot be trusted; half of what has been found out from the old books was found in their corrections.

### Finding things again

The index of the log is made every winter from slips, one slip for each thing that might be looked for: a star, a storm, a repair, a name of an observer. Slips are made by whoever signs. It takes five minutes, and there are no prizes for neatness. When the book is full, it goes into the dry cabinet in the mill, and a copy to a place whose address is on the inside of the cover.

## The year on the hill {#the-year}

Every season has its sky, its weather and its work. New observers think of the year as beginning in spring, when the evenings are still long and no longer cruel. The old ones begin in autumn, when the book is new and the nights are on our side again.

### Four seasons

**Autumn** brings the steadiest air. The wheels have had their grease, the guests are back from wherever they go in summer, and by eight it is properly dark. Spiders move into the finder; breathe on them, gently, and they move out.

**Winter** is for those who mean it. The stars are at their brightest and the air at its worst, and an hour at the telescope costs an hour at the stove. Nobody goes up alone in snow. The path is roped from the gate to the bend, and the rope is to be held even by people who have never slipped.

**Spring** gives us the Heron and the Lanterns, and the largest number of guests. Clocks are put forward, and suddenly it is dark at an hour when children are in bed. Open nights begin earlier in the season and end later, and everybody is a little tired.

**Summer** has hardly any night at all. For seven weeks around the longest day it does not become fully dark. This is when the copper is looked over, the shutter waxed, the ladder painted, and the supper held.

### Fixed days

Table: Days that are the same in every year. Anything else is on the board beside the door. {#table-year}

| When | What | Who |
|---|---|---|
| First clear night of January | New book opened, wheels numbered | Keepers |
| Second week of March | Workshop day: oil, rope, gloves | Everybody |
| Longest day | Summer supper on the terrace | Everybody, with guests |
| First of September | Great tube balanced, drive greased | Workshop |
| A Friday in November | Slips sorted, index begun | Whoever can read them |
| Shortest day | Dome turned by hand, all the way round | Everybody |

### Showers of meteors

Three times a year it is worth lying on the terrace and doing nothing but look up: early in January, in the second week of August, and in the middle of December. On the best of these nights a single observer under our sky counts about one meteor in every minute. Count in periods of a quarter of an hour, say “time” aloud at the end of each, and do not count those of which you only heard somebody else shout. Bring a second blanket. It is colder to lie than to stand.

### The supper

There are no speeches. Somebody reads from the log of a hundred years ago, the children’s sentences are read after it, the moon is shown to whoever is still awake, and the washing up is done by the keepers.

## When things go wrong {#wrong}

Things go wrong slowly, and they go wrong faster when they are hurried. Almost everything in this chapter begins with the same two words.

### Stop, and look

**Stop** means: motor off, hands off, lamp on if you need it. The dark can be had back in twenty minutes. **Look** means that you find out what is the matter before you do anything about it.

- *The dome does not turn.* Look along the rail for what is in the way. Then feel the wheels. A wheel that is hot has seized. Leave it, close the shutter where it is, and write it down.
- *The dome does not stop.* Let it run. Clear the rail, keep everyone against the wall, and take up the rope when it has slowed to a walk.
- *The shutter does not close.* Turn the dome until the slit is away from the wind. Count the turns, try again from the open end, and look for grit in the tracks. If rain is coming, the green cover goes over the tube before anything else.
- *The drive has stopped.* Wind the weight. If it is wound, look at the governor. If the balls do not swing, put the hand lever out and follow by hand.
- *The picture is bad.* Dew, seeing, focus, a cap left half on, a warm hand in front of the lens. In that order.

### Somebody is hurt

Light on, dome off, one person stays, one person fetches the keeper. The box with the white cross hangs inside the door of the hut. The nearest road is at the mill, and help that is called must be told: “the hill above the mill, by the path, forty minutes on foot, twelve by the track with a vehicle that can climb”. Send somebody to the mill to wait for it with a lamp. These two sentences hang beside the door as well. Read them now.

### Somebody is lost

Count guests in at the gate, and count them out. If the numbers differ, nobody goes home. The bell beside the dome is rung three times, then three times again, and people who have lost the path walk towards the bell. Most have sat down on the western slope to look at the stars and forgotten the time, which is what we are here for.

### The telephone

It is in the hut, on the wall, and it works. The numbers are on the card above it. If you cannot read the card in the dark, that is because somebody covered the lamp with black tape for the best of reasons: there is a tail on the tape.

### Afterwards

Write it down. Not who was to blame; what happened, at what time, and what was done. Then put the kettle on. A night on which something went wrong and nobody was hurt, and which has been written down so that the next keeper can do better, counts as a good night.
`;

/** Words and what they mean. */
export const glossary: readonly [term: string, meaning: string][] = [
  ['Averted vision', 'looking a little past a faint object, so that its light falls on the part of the eye that sees best in the dark'],
  ['Beaufort scale', 'wind strength in numbers from 0 to 12, told from what the wind moves'],
  ['Clamp', 'the screw that holds one axis of the telescope; two fingers are enough'],
  ['Cover', 'how much of the sky is cloud, in eighths'],
  ['Declination', 'how far north or south of the sky’s equator something lies, in degrees'],
  ['Dew cap', 'the tube in front of the lens that keeps it from facing too much cold sky'],
  ['Dew point', 'the temperature at which the air can no longer hold its water'],
  ['Double star', 'two stars that look like one until the telescope parts them'],
  ['Drive', 'the clockwork that turns the telescope with the sky'],
  ['Exit pupil', 'the width of the beam of light that leaves the eyepiece'],
  ['Eyepiece', 'the small lens into which one looks; its number is its focal length in millimetres'],
  ['Field', 'the round piece of sky that an eyepiece shows'],
  ['Finder', 'the small telescope on top of the large one'],
  ['Focal length', 'how far behind a lens the picture is made'],
  ['Focal ratio', 'focal length divided by the width of the lens'],
  ['Globular cluster', 'a ball of very many very old stars'],
  ['Governor', 'two brass balls that keep the drive at its speed'],
  ['Grey light', 'the faint glow of the moon’s dark side, lit by the earth'],
  ['Hour angle', 'how long ago something stood in the south, or how long it still has to go'],
  ['Keeper', 'whoever decides tonight'],
  ['Light curve', 'brightness drawn against time'],
  ['Log', 'the book in which everything is written down'],
  ['Magnitude', 'brightness in steps; smaller numbers are brighter, and five steps are a factor of one hundred'],
  ['Meridian', 'the line from north to south through the point overhead'],
  ['Nebula', 'a cloud of gas or dust among the stars'],
  ['Open cluster', 'a loose group of young stars that were born together'],
  ['Pier', 'the pillar of stone that carries the telescope and touches nothing else'],
  ['Power', 'how many times larger something looks; focal length of the telescope divided by that of the eyepiece'],
  ['Refractor', 'a telescope that gathers light with a lens'],
  ['Right ascension', 'how far east something lies along the sky’s equator, in hours'],
  ['Rule of the third', 'let go of the dome a third of a circle before it should stop'],
  ['Second', 'whoever works the rope, the ladder and the list tonight'],
  ['Seeing', 'how steady the air is, from 1, still, to 5, hopeless'],
  ['Shutter', 'what closes the slit; forty turns to open, forty-one to close'],
  ['Sidereal time', 'time by the stars, whose day is four minutes shorter than the sun’s'],
  ['Slit', 'the opening of the dome'],
  ['Star hopping', 'finding a faint object by short steps from a bright star'],
  ['Terminator', 'the line between day and night on the moon or a planet'],
  ['Transit', 'a star’s passing through the meridian'],
  ['Variable star', 'a star whose brightness changes'],
];
