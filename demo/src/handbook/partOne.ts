/** Part One of the handbook, in Markdown with notes (`^[…]`), references (`{n:key}`, `{p:key}`) and keys (`{#key}`). */
export const partOne = `# The Hill {#part-hill}

![The dome on its hill with the path, the gate and the hut marked.](hill "The hill at night. Everything you need lies within two hundred paces of the dome; learn the way between them before you need it in the dark.")

You have offered to give us some of your evenings. This first part says what an evening is made of: the path, the dome, the dark and the weather.

## Your first night {#first-night}

Nobody knows anything on the first night. That is what the first night is for. Come up while there is still light in the sky, find the keeper on duty, say your name, and ask where the kettle is. Whoever shows you the kettle will show you everything else.

Come dressed for standing still. A person who walks up the hill is warm at the top, and cold half an hour later; a person who stands beside a telescope for three hours is colder than the thermometer says. Two thin layers are worth more than one thick one, and a hat is worth more than either.^[The dome is never heated. Warm air that rises through the slit makes the stars boil, and a heated room would spoil the view for an hour after the fire was out.]

### What to bring

- A red lamp, or a white one with red paper over it. We have spare paper in the hut.
- Gloves that leave your fingertips free, and a second pair that does not.
- A watch that keeps time. It need not be a good watch, but you must know how wrong it is.
- A pencil. Ink freezes, and a pencil writes upside down.
- Something hot in a flask, and something to share.

Leave the big torch in the hut. If you think you need it, you have not yet waited long enough for your eyes: see chapter {n:keeping-dark} on page {p:keeping-dark}.

### What happens when

A public evening has a shape that has hardly changed in a century. It is written out in {n:table-evening}; a clear night with nobody but ourselves follows the same order with less talking.

Table: The shape of an open evening. Times are counted from sunset. {#table-evening}

| From sunset | In the dome | In the hut |
|---|---|---|
| one hour before | Covers off, slit opened, tube left to cool | Fire lit, flasks filled |
| at sunset | Weather written down | Guests arrive |
| half an hour after | First bright object found | Talk for those who wait |
| one hour after | Guests come up in tens | Tea, red lamps handed out |
| three hours after | Last guests leave | Cups washed |
| when the keeper says | Slit closed, covers on, log signed | Fire out, door locked |

You will not be asked to do all of it. On the first night you will be asked to count the guests, to hold the gate, and to look through the telescope at least once, because people who never look soon stop coming.

### Who is who

The **keeper** of the night decides. If the keeper says that the slit is to be closed, it is closed first and talked about afterwards. The **second** works the rope, the ladder and the list. Everyone else is an **observer**, whether they have come for sixty years or for the first time, and every observer may write in the log.

If you are ever in doubt, stand still, keep your lamp pointed at your feet and ask. Nobody on this hill has ever been laughed at for asking in the dark.

### The path home

Leave together. The path is steepest just below the gate, and it is there that tired people fall. The last person down closes the gate and calls out, and the first person waits at the mill until that call has been heard. It is an old custom and sounds a little foolish on a mild evening in May. It was made on an evening in January.

## The dome {#the-dome}

The dome weighs a little over nine tonnes, stands on twenty-four wheels, and is held in place by nothing at all except its own weight. It was made from larch ribs and copper sheet, and both of them move: the wood with damp, the copper with heat. You will hear them. Short dry ticks after sunset are the copper shrinking. A long groan is a rib settling and means nothing. Silence where there should be a hum means that the motor has stopped, and somebody should go and look.

![A section through the dome: slit, shutter, rail, wheels, pier and floor.](section "A section through the dome. The pier that carries the telescope stands on rock and touches the floor nowhere: you may jump on the boards without shaking a star.")

### Turning it

The motor does most of the turning. Its switch is on the north wall and has three positions, of which the middle one is off. Before you switch it on, look and call:

1. Look along the rail, all the way round, for tools, gloves and sleeping cats.
2. Call “Turning!” and wait for an answer from everyone who is in the room.
3. Switch on, and walk beside the slit with one hand on the rail.
4. Switch off **a third of a circle early**. The dome goes on by itself.
5. Bring it to rest with the rope. Do not use the motor as a brake.

The rule of the third is not a matter of taste. Nine tonnes that have begun to move do not stop because a motor no longer turns. People who have learned this with the dome tend to remember it elsewhere.

### The slit and its shutter

The slit is scarcely wider than a garden gate. Its shutter runs on two tracks and is opened with the crank beside the ladder: forty turns to open, forty-one to close, since the last one presses the felt against the frame. Count them aloud. A shutter that is closed by thirty-nine turns looks closed and lets in rain.

Never open the shutter in a wind that you can hear. The wind gauge hangs beside the crank, and the limits of {n:table-wind} are limits, not advice.

Table: Wind, and what we do about it. The numbers are those of the Beaufort scale. {#table-wind}

| Number | What you see | The slit |
|---|---|---|
| 0–2 | Smoke drifts, leaves rustle | Open |
| 3 | Leaves and twigs in constant motion | Open, away from the wind |
| 4 | Dust is raised, small branches move | Half open, away from the wind |
| 5 | Small trees begin to sway | Closed |
| 6 and more | Large branches move, wires whistle | Closed and pinned |

### Listening to the wheels

The wheels are numbered from the door, with the sun. Each has a grease cup, and each cup gets one turn on the first night of the month. Put a hand flat on the rail beside a wheel while somebody else turns the dome slowly: a good wheel is felt as a soft rumble that comes and goes, a dry one as a flutter, and a worn one as a knock once in every turn. Write down the number, the kind and the date, and tell the workshop. It is always the wheel that nobody wrote down which stops the dome.

### What the dome is for

A dome keeps off wind and stray light, and it gives the people inside a sense of being somewhere. It also does harm. Air trapped under it is warmer than the air outside, and where the two meet, in the slit, starlight is bent. That is why we open early and why the room is left alone for an hour before anyone looks through the tube. A dome that has just been opened in August shows you stars like fried eggs; the same dome an hour later shows you points.

## Keeping the dark {#keeping-dark}

Your eye has two ways of seeing. By day it uses one kind of cell, close together in the middle of the retina, which sees colour and fine detail. By night it uses another kind, most of which lie around the middle, and these see no colour at all but need a thousand times less light. Changing from one to the other takes time. After ten minutes in the dark you see a great deal more than when you came in, after twenty you see most of what there is, and it goes on improving slowly for at least another ten.

![A curve that falls steeply, then more slowly: the faintest light the eye can see, against minutes in the dark.](adaptation "How the eye learns the dark. The curve shows the faintest light that can just be seen; the bend after some eight minutes is where the night cells take over from the day cells.")

It is lost in a second. One look at a bright screen, one torch swung at head height, one door opened on a lit room, and you begin again at the left edge of {n:fig-adaptation}. This is the reason for almost every rule in the dome that seems fussy to newcomers.

### Why red

The night cells hardly respond to deep red light. A dim red lamp lets you read a chart with the day cells while the night cells go on resting. The colour alone is not enough: a red lamp that is bright is still bright. If you can see your lamp’s light on the far wall, it is too strong. Two layers of paper are usually right, three are never wrong.

### Looking past things

Because the middle of the eye is made for daylight, a faint object vanishes when you look straight at it. Look a little to the side, and it comes back. We call this **averted vision**, and it is the most useful trick in the book. Most people do best when they look away towards the nose side of the eye they use, so that the object falls on the other side of the blind spot; try every direction and learn your own.

Moving helps as well. The eye notices change better than it notices light, and a gentle tap on the tube makes a faint glow appear that was not there a moment before. Guests love this. Ask them to tap the tube, not the eyepiece.

### Keeping the hill dark

We owe our sky to the ridge, which hides the lamps of the valley, and to the people down there, who have been persuaded, one porch at a time, to point their lamps at the ground. If you meet somebody who has done so, thank them. A light that shines downwards and only where it is needed costs less and shows more; nobody has ever asked for the old one back.

In the dome itself, cover every little light that you find: the lamp on the charger, the dial of the clock, the lit switch on the kettle. There is a roll of black tape in the left drawer for this. Leave a tail on each piece, so that the next person can take it off.

### How dark it is

Write down the darkness of every night, even if nobody looked through the telescope. The simplest measure is to count. In the square of the Lantern Field, whose corners are four stars anyone can find, count all the stars you can hold steadily by averted vision and look up the number in {n:table-limit}. After a month you will do it without the table.

Table: Stars counted in the square of the Lantern Field, and the faintest magnitude they stand for. {#table-limit}

| Stars counted | Faintest magnitude | A night to … |
|---|---|---|
| up to 3 | 4.5 | show the moon |
| 4 to 7 | 5.0 | show bright double stars |
| 8 to 14 | 5.5 | look at clusters |
| 15 to 24 | 6.0 | look at anything |
| 25 and more | 6.5 | stay up for |

## The hut {#the-hut}

The hut is where an evening begins and where it ends, and on cloudy nights it is all there is. It has one room, a stove, two benches, a table, and a shelf on which everything that you are looking for is kept.

### The stove

Light it an hour before sunset and let it burn low when the slit is opened. Smoke from the chimney must not cross the slit: look at the vane on the roof, and if the wind comes from the hut, let the fire go out. Ash goes into the iron bucket, the bucket goes outside, and nothing is put on top of it. The hut has burned once, and the log says that the night was otherwise excellent.

### The kettle

Water comes from the spring below the gate, sixty steps down and, it is generally agreed, ninety up. Whoever drinks the last cup fills the kettle. In frost the kettle is emptied at night and left with its lid off, and the pump is left with its handle up.

### What is where

Table: The shelf, from left to right. Put things back where they were; in the dark, people find them by counting. {#table-shelf}

| Place | What | Whose it is |
|---|---|---|
| First | Red lamps, paper, string | Everybody’s |
| Second | Charts, newest on top | Everybody’s |
| Third | Binoculars, two pairs | Signed for in the log |
| Fourth | Box with the white cross | Everybody’s |
| Fifth | Tools | The workshop’s |
| Sixth | Biscuits | Whoever brought them |

### Cloudy nights

Come up all the same. A cloudy night is when charts are mended, slips are written, eyepieces are cleaned and newcomers are shown how the clamps work with the lights on. If there are enough of you, turn the dome once, all the way round: wheels that stand for a month in one place grow flat.

It happens about four times in a year that it clears after everybody has gone home. Those who stayed have never told the others quite how good it was.

## Weather and the slit {#weather}

Every entry in the log begins with the weather, because every other line depends on it. You need no instruments for this beyond the wind gauge and the two thermometers on the north wall; you need to look up, slowly, in all directions, and to write down what you see instead of what you had hoped for.

### Clouds

Write the cover in eighths of the sky: nothing is 0, a sky shut from edge to edge is 8. Turn round once for each estimate. People always count too much cloud near the horizon, where they see the clouds from the side, and too little overhead, where they see the gaps.

![Four small skies with different amounts of cloud, marked one, three, five and seven eighths.](eighths "Four skies, and the number we would write. Practise on these; then practise on the real thing with somebody who has done it for years.")

High thin cloud is the most deceptive. The moon and bright planets look well through it, often steadier than on a clear night, and faint things vanish without your noticing. If there is a ring round the moon, there is thin cloud, whatever the rest of the sky looks like.

### Steadiness

A night can be clear and useless. When a cold stream of air flows over the hill, the stars flash and jump, and at high power a planet looks like a pebble at the bottom of a brook. We call this **seeing** and write it as a number from one to five.

Table: Seeing, judged at two hundred times with a star high in the sky. {#table-seeing}

| Number | The star | The moon’s edge |
|---|---|---|
| 1 | A still point with an unbroken ring | Like an engraving |
| 2 | Slight shivers, calm for seconds at a time | Crisp, with slow waves |
| 3 | The ring comes and goes | Ripples all along |
| 4 | A restless blob without rings | Boils |
| 5 | A boiling heap | Cannot be focused |

The best seeing often comes with a little haze and no wind, the worst in the splendid blue cold after a front has gone through. Twinkling tells you in advance: if the stars overhead sparkle, leave the high powers in the box.

### Dew

Glass that faces a clear sky loses heat to it and becomes colder than the air. When it is colder than the dew point, it fogs. The tube has a long dew cap, which is enough on most nights; when it is not, cover the lens, turn the tube towards the wall, and let the little fan run for ten minutes. **Never wipe dew.** It dries by itself and leaves nothing behind, and a cloth leaves scratches that the next hundred years will look through.

### When to close

Close for the wind that {n:table-wind} names, for rain, for smoke, and when the relative humidity passes ninety-five in a hundred. Close when lightning can be seen, not when thunder can be heard.^[Thunder is heard for some fifteen kilometres, and a dome on a bare hill is the highest thing for much further than that.] Close if you have the feeling that you should. The log contains two hundred and eleven entries in which somebody closed too early, and all of them end well.
`;
