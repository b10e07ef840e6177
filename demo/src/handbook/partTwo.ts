/** Part Two of the handbook. */
export const partTwo = `# The Instruments {#part-instruments}

![The long telescope on its pier, with the parts lettered.](tube "The great tube from the east. A the lens in its cell, B the dew cap, C the finder, D the clamp in height, E the clamp in hour angle, F the focuser, G the weight that balances it all.")

A telescope is a simple thing that is spoiled by haste. This part says how ours works, and how to leave it for the next person.

## The great tube {#great-tube}

The great tube is a refractor: it gathers light with a lens. The lens is as wide as a dinner plate, twenty-four centimetres, and brings the light together three metres and sixty centimetres behind it. Dividing the second number by the first gives fifteen, which is the **focal ratio**. A telescope with a large focal ratio is long, gives high powers easily and forgives cheap eyepieces. It also needs a dome.

The lens is really two lenses, one of each kind of glass, set a hair’s breadth apart. One alone would bring each colour to its own focus, and every star would wear a rainbow. The pair brings red and blue together and leaves only a faint violet halo round the brightest stars, which you may point out to guests before they point it out to you.

### What it can show

The wider a lens, the more light it takes in and the finer the detail it can separate. Both can be worked out, and both are worth knowing before anyone promises a guest something that the sky will not deliver.

- Against an eye whose pupil has opened to seven millimetres, the lens gathers nearly twelve hundred times as much light.
- That is a gain of seven and a half magnitudes or a little more: where the eye stops at 6, the tube shows 13.
- The closest pair of equal stars that it can split is about half a second of arc apart.^[By the old rule of thumb that a lens of one centimetre splits 11.6 seconds: 11.6 divided by 24 is 0.48.]

These are the best values, from good nights. On a night of seeing 4 the largest telescope in the world would show you no more detail than our finder.

### Moving it

The tube turns about two axes. One of them points to the pole of the sky, and turning about it follows the stars as they rise and set; we call this motion **hour angle**. The other moves the tube north and south, which is **declination**. Each axis has a clamp and a slow motion.

1. Hold the tube by the grip at its lower end. Take its weight before you do anything else.
2. Loosen the clamp in hour angle by half a turn. Loosen the clamp in declination by half a turn.
3. Swing the tube gently, looking along it and not through it.
4. When the finder is close, tighten first declination, then hour angle, with two fingers.
5. Use the slow motions for the rest.

If it does not move, something is clamped. Do not pull harder. In eighty years nobody has ever moved the tube by pulling harder, and one person has bent the declination clamp.

### Balance

The tube is balanced so that it stays wherever it is left with both clamps open. When a heavy eyepiece goes on, the balance goes too, slowly at first. Move the small ring weight towards the lens until the tube stays again, and move it back when you have finished. A tube that is left out of balance overnight hangs in the morning with its eyepiece on the floor.

### Following the sky

The sky turns through fifteen degrees in an hour. In the middle power a star that is left to itself crosses the whole field in about two minutes, and guests are always surprised by how fast the earth is going. Stop the drive on purpose, and let them see it.

## Eyepieces and powers {#eyepieces}

The lens makes a picture; the eyepiece is the magnifying glass with which you look at it. To find the **power**, divide the focal length of the telescope by that of the eyepiece. With 3600 millimetres in front, an eyepiece of 36 gives a hundred times, and one of 18 gives two hundred.

Table: The box of eyepieces. Fields are on the sky; the moon is half a degree wide. {#table-eyepieces}

| Marked | Power | Field | Use it for |
|---|---|---|---|
| 60 | 60 | 50 minutes | Finding, clusters, the whole moon |
| 36 | 100 | 30 minutes | Most things for most guests |
| 24 | 150 | 20 minutes | Globular clusters, craters |
| 18 | 200 | 15 minutes | Planets, seeing tests |
| 12 | 300 | 10 minutes | Close pairs, on the best nights |

### Begin low

Always begin with the longest eyepiece. It has the widest field, the brightest picture and the most room for the eye, and whatever you are looking for is more likely to be in it. Go up only when the object is in the middle and the picture is steady, and come down again as soon as it stops being better. High power makes things larger. It makes them dimmer and more restless at the same time, and beyond a certain point it shows nothing that was not there before.

![Three round fields of view of the same cluster at sixty, one hundred and two hundred times.](powers "The same cluster at 60, 100 and 200 times. At the highest power it is no longer a cluster; at the lowest, the guest can see why it has its name.")

### Focus

The focuser has a coarse and a fine knob. Turn the fine one slowly through the sharpest point, past it, and back. Everyone’s eyes differ, so every guest must be allowed to focus, and must be told beforehand that they will not break anything. Those who wear glasses against short or long sight may take them off; those whose glasses correct astigmatism should leave them on.

A star in focus is as small as it can be made. If you cannot tell, look at a fainter one: it will vanish when it is out of focus, which is hard to miss.

### Upside down

The picture in the eyepiece stands on its head. For astronomers there is no up in the sky, and one more piece of glass to put it right would cost light, so we leave it. For finding your way it matters: move the tube towards the side from which you want things to come. When you draw, draw what you see, mark north with a small arrow, and mark the side on which stars enter the field. With these two any drawing can be turned the right way later.

### The exit pupil

Divide the width of the lens by the power, and you have the width of the beam that enters the eye. At sixty times it is four millimetres; at three hundred less than one. In a young eye the pupil opens to seven millimetres in the dark, later in life to five or so. A beam wider than the pupil is wasted, and one narrower than about a millimetre shows you every speck that floats inside your own eye. This is a better guide to the right power than any table.

## Smaller glasses {#small-glasses}

The great tube is the best telescope on the hill for about a tenth of everything there is to see. For the rest use something smaller. A wide view, a quick look, a queue of thirty guests or a person who cannot climb all ask for less glass and more sky.

### Binoculars

Two numbers are printed on every pair. The first is the power, the second the width of the lenses in millimetres; divide the second by the first and you have the exit pupil. Ours are 7 × 50 and 10 × 50. The first pair gives the brighter, wider view, the second shows more, and both want to be leaned against something. A broom held upright, with its head under the chin of the person and the binoculars resting on the handle, is as good as a tripod and sweeps the terrace afterwards.

To focus, close the right eye and turn the middle wheel until the left eye is content. Then close the left and turn the right eyepiece. Remember the number on its scale; it is yours for life, or at least for some years.

### The comet seeker

The short telescope on the terrace was made for looking for comets: wide, bright, and easy to swing. Its field is more than two degrees, four times as wide as the moon. It shows whole clusters that the great tube can only show in pieces, and on a dark night it is the best instrument we have for the band of the galaxy, which breaks up into clouds of stars as you sweep along it.

### What to use

Table: Which glass for what. If two are named, begin with the first. {#table-glasses}

| What | First choice | Why |
|---|---|---|
| The whole moon | Comet seeker | All of it in the field |
| A crater | Great tube | Power |
| Large clusters | Binoculars | Room around them |
| Small clusters | Great tube | Grains instead of mist |
| Comets | Comet seeker | Faint, wide, in twilight |
| Planets | Great tube | Power, steady drive |
| A guest’s first look | Binoculars | Two eyes are calmer than one |

### Lending

Binoculars may be borrowed overnight by anybody who signs for them. They come back with fingerprints, and more often than you would think with somebody who wants to know what the smudge was, halfway between the Lanterns and the ridge.

## The clock and the drive {#clock}

There are two clocks on the south wall. One of them shows the time that trains run by. The other gains on it by nearly four minutes in every day, and it is the one that we use.

The earth turns once on its axis in twenty-three hours, fifty-six minutes and four seconds. It takes the missing four minutes to catch up with the sun, because it has meanwhile moved on in its orbit by about one degree. A clock that goes by the stars, a **sidereal** clock, therefore shows the same time whenever the same stars are in the south.

![Two positions of the earth in its orbit: after one turn the same star is in the south again, but the sun is not yet.](sidereal "Why a day by the stars is shorter. From the first place to the second the earth has turned exactly once, and the far star is in the south again. To face the sun it must turn on by about one degree, which takes four minutes.")

### Reading the sky by it

Every star has an address made of two numbers. **Right ascension** says how far east it lies and is counted in hours; **declination** says how far north or south it lies and is counted in degrees. When the sidereal clock shows a star’s right ascension, that star is due south and as high as it ever gets. If the clock shows two hours more, the star went through the south two hours ago.

That is all you need for pointing the telescope by its circles: the difference between the clock and the right ascension is the hour angle, and the hour angle is what the upper circle shows.

1. Look up right ascension and declination in the list.
2. Read the sidereal clock and subtract the right ascension from it.
3. Set the hour circle to the result; if it is less than zero, the star is still in the east.
4. Set the other circle to the declination.
5. Look into the finder. If you have made no mistake, there it is. If it is not there, you have subtracted the wrong way round.

### The drive

The drive turns the tube once in a sidereal day, so that what is in the field stays in it. It is worked by a falling weight, which must be wound up every ninety minutes. The handle is behind the pier. Wind it **before** it is needed: the drive stops while it is being wound, and the guest at the eyepiece has waited in the cold for this.

A small governor with two brass balls keeps the speed. If the balls fly high, the drive is fast, and stars drift west in the field; if they hang low, it is slow. The set screw below them should be turned by a quarter of a turn and no more, and whoever turns it writes it down.

### Setting the clocks

The sidereal clock is set on the first clear night of each week with the transit of a bright star. Point the small brass telescope in the south window, which can move only along the meridian, wait for the star, call out as it crosses the wire, and let the second read the clock. Three stars and an average are better than one. The difference goes into the clock book, and only when it has grown to ten seconds are the hands touched. A clock whose error is known is as good as one that has none.

## Care and cleaning {#care}

Most damage to telescopes is done by people who wanted to do them good. The rule of this chapter is to do less. What the great tube needs is a cover when it is not in use, air when it is, and a pair of eyes that notice change.

### The lens

The lens has been taken out of its cell three times since it was made. A little dust on the front of it costs nothing: a thousand specks as large as a grain of flour cover less than one part in ten thousand of the glass. A fingerprint costs more, because its grease grows and etches. So blow dust off with the rubber bulb if you must, never with your mouth; leave everything else; and if somebody has touched the glass, write down when, and tell the workshop within the week.

### The eyepieces

Eyepieces are touched by eyelashes all night, and they do need cleaning. Once a month is enough.

- Blow off the dust with the bulb. Grit that stays on scratches.
- Breathe on the glass once, gently, and wipe outwards in a spiral with a fresh piece of lens paper, without pressing.
- If that does not do it, moisten the paper with one drop from the brown bottle. One drop on the paper, never on the glass.
- Throw the paper away. A piece that is used twice has already begun to carry grit.
- Put the caps back on both ends.

Never unscrew an eyepiece. There are three or four lenses inside, they look the same from both sides, and they are not.

### Screws and clamps

A screw is tight when it stops. Everything on the telescope that a person needs to turn can be turned with two fingers; whatever needs a tool is not for turning at night. Before you go, run your hand along the tube and feel for anything that has worked loose. It takes half a minute and has twice found the finder hanging by one screw.

### Grease and oil

Table: What gets what, and how often. Nothing on this list gets more because it seems dry. {#table-grease}

| Part | What it gets | How often |
|---|---|---|
| Wheels of the dome | One turn of the grease cup | First night of the month |
| Shutter tracks | Dry brush, then wax | Spring and autumn |
| Crank | One drop of oil | When it squeaks |
| Focuser | Nothing | Never |
| Drive worm | Light grease, sparingly | Once a year, by the workshop |
| Rope | Nothing; dry it flat | After every wet night |

### Leaving it

At the end of the night park the tube level, pointing north, with both clamps just closed. Put the cap on the lens, then the cover over the cap, and wait a moment between the two, so that damp can leave. Take the eyepiece out and put in the plug. Run the weight of the drive down to the floor. Then stand in the door, lamp out, and listen: water, wind, ticking, anything that was not there when you came.
`;
