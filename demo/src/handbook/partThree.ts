/** Part Three of the handbook. */
export const partThree = `# The Sky {#part-sky}

![The figures of the spring sky with the lines between their stars.](figures "The nine figures that everyone on the hill learns first. Their names are ours and are on no official chart; the stars are the same.")

Nobody learns the sky from a book. This part is for the cloudy evenings between two clear ones, when you want to know what it was that you saw.

## Finding your way {#finding}

Begin with three figures and no more. In spring take the **Heron**, which stands upright in the south, the **Lanterns**, two bright stars of the same colour to the left of it, and the **Plough Horse**, high in the north and never setting. When you can find these without thinking, everything else is a short walk away from one of them.

### Walking from star to star

The method is called **star hopping** and needs a chart, a finder and patience. Choose a bright star near the thing that you want to see. On the chart, go from it to the next star, and from there to the next, by steps no longer than the field of your finder. Then do the same in the sky. Say the steps aloud: “from the right Lantern up to the pair, along the pair twice its own length, then a little to the left”.

![A chart with five numbered steps from a bright star to a faint smudge.](hopping "Five steps from the right Lantern to the cluster in the Ferryman’s oar. Each circle is one field of the finder.")

### Measuring with your hand

Stretch out your arm. The width of your little finger covers about one degree of the sky, the three middle fingers about five, your fist about ten, and a hand with thumb and little finger spread wide about twenty.

Table: Angles at the end of an outstretched arm, and things in the sky to try them on. {#table-hand}

| Hold up | Degrees | Compare with |
|---|---|---|
| Little finger | 1 | Twice the width of the moon |
| Three middle fingers | 5 | The two Lanterns |
| Fist | 10 | The Heron’s neck |
| Thumb to little finger | 20 | The Plough Horse, nose to tail |

### Directions

North in the sky is the direction towards the pole, wherever you are looking, and not the direction of the northern horizon. East is the side from which stars come into the field when the drive is stopped.

### Brightness

We write brightness in **magnitudes**, and the scale runs backwards: the faintest stars that the eye can see are of magnitude six, the brightest of about nought, and a few planets go below. Five magnitudes are a factor of exactly one hundred, so that one magnitude is a factor of about two and a half.^[The fifth root of one hundred, 2.512. The scale was made for the eye and put into numbers long afterwards.] It sounds awkward, and the eye takes to it at once. After one winter you will look at a star, say “three and a half” without thinking, look it up, and be right.

## The moon {#the-moon}

Guests ask for the moon, and they are right. Show it early in the evening, before anybody has learned the dark, since after it nobody will see anything faint for a quarter of an hour.

### Where to look

Look along the **terminator**, the line between day and night. There the sun stands low, and every hill throws a shadow longer than itself. Away from it the light falls from overhead and flattens everything. The terminator moves by half a degree in an hour on the moon’s surface, which is enough to change the shadows while you watch: a peak that is a single spark of light at eight is a small bright island at nine.

![Eight phases of the moon in a row, with the age in days below each.](phases "The moon’s age in days, from one new moon to the next. The whole round takes twenty-nine and a half.")

### Drawing a crater

You have not seen a crater until you have drawn it. Drawing takes half an hour, needs no talent, and makes the eye go round every edge.

1. Choose something small. One crater is enough.
2. Draw the outline lightly, as wide as your thumb is long.
3. Put in the shadows first, as flat black shapes. They change fastest.
4. Add the brightest places by leaving them white.
5. Only then add what lies between.
6. Write down time, power, seeing and the moon’s age, and sign it.

We keep all drawings in the blue cabinet. Some of the people who made them said beforehand that they could not draw.

### Things to show

Table: Six sights on the moon, and the evening on which each is at its best. {#table-moon}

| Age in days | What | Why |
|---|---|---|
| 3 | The grey light on the dark side | It is our own light, come back |
| 5 | The great eastern plain | Waves of frozen rock |
| 7 | The straight row of three craters | Every shadow is different |
| 9 | The bay of the rainbow | A half circle of lit mountains |
| 11 | The bright crater with its rays | Splashes a thousand kilometres long |
| 13 | The far edge | It nods, and shows a little of the back |

### The grey light

On a thin moon the dark part can be seen faintly. That light has left the sun, been turned back by the clouds and seas of the earth, fallen on the moon and been turned back again to your eye. Tell the guests this slowly.

## Five wanderers {#wanderers}

Five of the planets can be seen without a telescope, and they have been watched for as long as there have been people to stay up. They wander: compared with the stars around them they are somewhere else every week. They do not twinkle as much as stars do, because each of them is a small disc and not a point, and the ripples of the air even out over it.

![Four drawings of a planet’s disc: a crescent, a banded globe, a ringed globe and a small disc with a bright cap.](planets "What the eyepiece shows. The drawings were made at 200 times, by four observers, on four good nights; all are to the same scale.")

### What to expect

People come with pictures in their heads that were taken from close by. Prepare them. A planet in the eyepiece is small, bright and alive, and the longer one looks, the more there is. Tell each guest to look for a full minute by the clock. In that minute the air will be still three or four times, for a second or two, and then they will see what you have promised.

- The **brightest** of them shows phases like the moon. Near the sun it is a large thin crescent, far from it a small round disc.
- The **red** one is worth showing for a few weeks every two years and some two months, when we overtake it. A white cap may be seen on one of its poles.
- The **giant** has dark bands, and four moons that change places from night to night. Two of the bands are easy, the rest take practice.
- The **ringed** one needs no words. Be quiet, and wait for the guest to say it.
- The **quick** one is never far from the sun. It is seen low in twilight for a few evenings at a time, and many keen observers have never seen it at all.

### The four moons

Write down the places of the giant’s moons as dots on either side of a circle. Do it again an hour later, and the innermost has visibly moved; do it for a fortnight, and you will have found out for yourself that the inner ones go round fastest.

![Rows of dots on either side of a small circle, one row for each evening.](moons "The four moons on nine evenings. Follow one dot down the page, and its path is a wave.")

### Keeping at it

A planet drawn once is a souvenir. Drawn on every clear night, it becomes a record: of a dust storm, of the slow closing of a ring. The blue cabinet holds nine seasons of the giant by one observer, who used the smallest telescope we have.

## Stars that change {#variables}

Some stars are brighter in one week than in another. They pulse, or a companion passes in front of them. There are far too many for the large observatories to follow, and so our kind of work still counts: an estimate by eye, honestly made, a thousand times.

### Making an estimate

You compare the star that changes with two that do not. The chart gives their magnitudes without the decimal point, which could be mistaken for a star: 63 means 6.3.

1. Find a star on the chart that is a little brighter than yours, and one that is a little fainter.
2. Look from one to the other, quickly, never staring.
3. Divide the step between the two in your mind. If yours lies a third of the way down from 63 to 69, it is 65.
4. Write it down at once, before looking at what it was last time.
5. Note the two stars that you used.

The fourth rule is the one that matters. The log has a column in which the earlier value is covered by a strip of card until the new one is in ink.

![A light curve: dots rising and falling over a year, between magnitudes five and eight.](curve "The yellow star at the tip of the Spindle, through one year. Every dot is an evening; the gaps are the weeks in which it stood behind the sun.")

### Three to begin with

Table: Three stars for the first season. All of them are easy to find, and none is ever too faint for a pair of binoculars. {#table-variables}

| Star | Brightest | Faintest | Period |
|---|---|---|---|
| The tip of the Spindle | 5.1 | 7.9 | some 230 days |
| The Heron’s eye | 3.4 | 4.4 | 5 days 9 hours |
| The lower Lantern’s neighbour | 2.1 | 3.4 | 2 days 21 hours |

The first pulses slowly, swelling and shrinking. The second does the same in less than a week, as evenly as a clock; with a dozen estimates you can find its period for yourself. The third is two stars that go round one another. For most of the time it is steady, then it fades for five hours and comes back for five, and if you are there on the right evening you can watch it happen.

### What becomes of it

Twice a year our estimates are sent to the people who collect such things. The worst you can do to a series is to improve it.

## Clusters and clouds {#clusters}

Between the stars lie things that do not belong to any one of them: clusters of stars, clouds in which stars are made, and clouds that stars have left behind. Most of them look like smudges at first. The difference between a smudge and a sight is time.

### Three kinds of smudge

An **open cluster** is a handful of young stars that were born together and will drift apart. Use the lowest power. A **globular cluster** is a ball of very old stars, a hundred thousand of them or more; use more power than you think, and the edges break up into grains. A **nebula** is gas. It may shine by itself, as in the places where stars are made, or be the last breath of a star that has come to its end. Use the lowest power, averted vision, and twenty minutes of dark.

![Three sketches side by side: scattered bright points, a dense ball of grains, and a soft glow with two wings.](smudges "An open cluster, a globular cluster and a nebula, drawn with a soft pencil on white paper. At the eyepiece white and black change places.")

### How to look

Look for a minute before you decide that there is nothing. Then ask yourself questions, one at a time: Is it round? Is one side brighter? Is the middle a point or a patch? Does it end suddenly or fade away? Are there stars in it? You will find that the questions are answered by an eye that had not seen anything a minute ago.

Colour is rare. The night cells do not see it, and almost everything that glows looks grey. A few small bright nebulae are distinctly green or blue in the great tube, and one of them is worth keeping for the last guest of the evening.

### Twelve for one evening

From the Heron to the Plough Horse, a dozen sights can be walked through in one spring evening without moving the ladder more than four times. The list hangs beside the ladder. It was put together by trial over many years, and its order saves the neck, not the sky. Begin with the oar of the Ferryman, which is easy; end with the faint pair below the Spindle’s thread, which most people see on the second attempt, and which is so far away that its light set out before there were any people.
`;
