import { em, soft, strong, styled } from '../sampleAssembly.ts';
import type { EditionTexts } from './edition.ts';

/** Open Dome Night in German. */
export const flyerGerman: EditionTexts = {
  'title-text-1': ['Offene', soft, 'Kuppelnacht'],
  'when-text-1': [
    styled('Freitag, 6. März, ab sieben Uhr abends', { fontWeight: 700, size: 14, fill: { type: 'swatch', swatch: 'night', tint: 1 } }),
  ],
  'when-text-2': [
    'Einmal in der Stunde stellen wir den Motor ab und drehen neun Tonnen Kuppel ',
    styled('von Hand', { fontStyle: 'italic' }),
    '. Fassen Sie mit ans Seil; ',
    styled('Kinder zuerst', { fontWeight: 600 }),
    '.',
  ],
  'bring-text-1': ['Bitte mitbringen'],
  'list-text-1': [styled('Einen warmen Mantel.', { fontWeight: 700 }), ' Unter der Kuppel ist es kalt wie draußen.'],
  'list-text-2': [styled('Eine rote Lampe', { fontWeight: 700 }), ' oder eine andere mit rotem Papier davor.'],
  'list-text-3': [styled('Feste Schuhe', { fontWeight: 700 }), ' für den Weg hinter der Mühle.'],
  'list-text-4': [styled('Etwas Heißes', { fontWeight: 700 }), ' in der Kanne. Auf dem Hügel gibt es nichts zu kaufen.'],
  'list-text-5': [styled('Eine Frage,', { fontWeight: 700 }), ' die Sie dem Himmel schon immer stellen wollten.'],
  'list-text-6': [styled('Handschuhe,', { fontWeight: 700 }), ' falls Sie am Seil ziehen möchten.'],
  'foot-text-1': [
    'Sternwarte Marrowby Hill, am Weg hinter der Mühle. Der Eintritt ist frei. Bei Wolken drehen wir die Kuppel trotzdem. ',
    {
      type: 'span',
      text: 'marrowby.example',
      link: 'site',
      overrides: { fontWeight: 600, fill: { type: 'swatch', swatch: 'lamp', tint: 1 } },
    },
  ],
};

/** The Almanac’s main feature in German. */
export const featureGerman: EditionTexts = {
  'night-words-text-1': ['Wenn sich die', soft, 'Kuppel dreht'],
  'night-words-text-2': [
    'Es gibt ein Geräusch, das jeder, der auf Marrowby Hill eine Nacht gearbeitet hat, früher kennt als die Sterne. Es beginnt als Summen unter dem Boden, steigt die Eisentreppe herauf, und dann macht sich das ganze Dach des Raumes auf den Weg, langsam und mit großer Würde, um sich einen anderen Teil des Himmels anzusehen.',
  ],
  'telescope-caption-text-1': ['Das große Rohr in Ruhe. Der Spalt dahinter steht eine Handbreit weiter offen, als die Linse breit ist.'],
  'dome-feature-1': [
    'Die Kuppel der Sternwarte auf Marrowby Hill wiegt etwas über neun Tonnen. Sie steht auf vierundzwanzig Rädern, und die Räder stehen auf einem Schienenring, der in sechs Stücken gegossen und auf Karren den Hügel hinaufgebracht wurde. ',
    strong('Nichts hält sie fest'),
    ' als ihr eigenes Gewicht. In hundertzwölf Wintern hat sie nie mehr gebraucht.',
  ],
  'dome-feature-2': [
    'An einem stillen Abend können zwei Leute sie mit bloßen Händen in Gang bringen. Nachdenken muss man beim Anhalten: Neun Tonnen Kupfer und Lärchenholz drehen sich, wenn man loslässt, noch ein gutes Drittel des Kreises weiter, und der Spalt, kaum breiter als eine Gartentür, soll genau vor dem Fernrohr zur Ruhe kommen.',
  ],
  'dome-feature-3': ['Ein Dach mit Gedächtnis'],
  'dome-feature-4': [
    'Die Hüter der Kuppel haben immer aufgeschrieben, was sie getan hat. Der erste Eintrag im Buch stammt aus einer Aprilnacht und besteht aus vier Wörtern: ',
    em('Gut gedreht. Wolken gekommen.'),
    ' Seither sind fast vierzigtausend Abende in dieselben schmalen Spalten geschrieben worden, und wer Geduld hat, kann beim Lesen zusehen, wie sich die Räder abnutzen, die Schiene sich nach Südwesten senkt und das Schmierfett sich von Talg in etwas aus der Dose verwandelt.',
  ],
  'dome-feature-5': [
    'Von diesen Seiten wissen wir, dass sich die Kuppel bei Frost langsamer dreht, dass elf Sommer lang Mauersegler im Gegengewicht nisteten und dass sie in einer Novembernacht aus Gründen, die niemand notiert hat, neunzehnmal ganz herumgedreht wurde.',
  ],
  'dome-feature-6': [
    'Kupfer bewegt sich. An einem klaren Tag wächst die Sonnenseite der Kuppel um die Dicke eines Daumennagels, und in der ersten Stunde der Dunkelheit schrumpft sie wieder, mit leisem, deutlichem Ticken. Gäste schauen dann nach oben. Wer das Gebäude kennt, hört daran, wie schnell die Luft abkühlt und wie ruhig die Sterne stehen werden.',
  ],
  'dome-feature-7': ['Die Hände am Seil'],
  'dome-feature-8': [
    'Als die Straße gebaut wurde, bekam die Kuppel einen Motor, und er tut bis heute die meiste Arbeit. Er ist so groß wie ein Laib Brot. Doch an jedem offenen Abend wird er einmal abgestellt, und das Seil wird geholt. Vorne fassen die Kinder an. Der Spalt gleitet am Abendstern vorbei, am Mast auf dem Grat gegenüber, und bleibt über dem Tal stehen, wo eben die Lampen angezündet worden sind.',
  ],
  'dome-feature-9': [
    'Einfacher wäre es, das Seil am Haken zu lassen. Aber etwas geschieht mit Menschen, die mit den eigenen Armen das Dach eines Raumes bewegt haben. Sie werden still, und dann stellen sie viel bessere Fragen. Alles über die offenen Abende steht ',
    { type: 'span', text: 'am Ende dieses Heftes', link: 'toDiary' },
    ' und auf ',
    { type: 'span', text: 'unseren Seiten', link: 'toSite', style: 'emphasis' },
    '.',
  ],
  'dome-feature-10': [
    'In diesem Sommer wird das Kupfer durchgesehen, Blech für Blech, zum ersten Mal, seit es verlegt wurde. Sechs Wochen lang wird die Kuppel mit dem Spalt nach Norden stillstehen, und das Fernrohr wird ansehen, was gerade vorbeikommt. So, heißt es, hat alles angefangen: Jemand schaute durch ein Loch im Dach nach oben und wartete.',
  ],
  'dome-feature-11': ['Was die Räder sagen'],
  'dome-feature-12': [
    'Jedes der vierundzwanzig Räder hat seine eigene Stimme. Nummer sieben klickt; Nummer fünfzehn, nach dem harten Winter ersetzt, rollt lautlos, und man misstraut ihr deshalb. Wenn der Hüter vor einem offenen Abend mit der Ölkanne herumgeht, genügt eine Hand auf der Schiene, um zu wissen, welches als nächstes an der Reihe ist.',
  ],
  'dome-feature-13': [
    'Dafür verlangt die Kuppel sehr wenig: Öl, ein trockenes Seil und jemanden, der zuhört. Wenn Sie dieser Jemand sein möchten, kommen Sie zum Werkstatttag und bringen Sie Handschuhe mit. Sie werden mit schwarzen Fingern nach Hause gehen und ein Dach nie wieder für etwas halten, das bleibt, wo es ist.',
  ],
  'dome-feature-14': ['Eine Nacht im Buch'],
  'dome-feature-15': [
    'Nehmen wir den Abend des neunten Januar vor einunddreißig Jahren. Um sechs vermerkt der Hüter klaren Himmel und einen Wind, der keine Feder bewegt hätte. Um sieben kommen die ersten Gäste, eine Familie zu fünft mit einem einzigen Paar Fäustlinge. Um halb acht bricht der Eintrag mitten im Wort ab.',
  ],
  'dome-feature-16': [
    'In anderer Handschrift geht er weiter. Die Jüngste der fünf, steht da, habe gefragt, was geschehen würde, wenn alle in die andere Richtung zögen. Alle zogen. Die Kuppel, achtzig Jahre lang mit der Sonne gedreht, ging zum ersten Mal gegen sie herum, und in der Stille danach fiel eine kleine Schraube aus der Decke mitten ins Buch, wo man ihren Umriss bis heute sehen kann.',
  ],
  'dome-feature-17': [
    'Vermisst hat die Schraube nie jemand. Der Hüter klebte sie auf die Seite, zog einen Pfeil zu ihr und schrieb den einzigen von vierzigtausend Sätzen, der mit einem Ausrufezeichen endet. Kommen Sie herauf und lesen Sie ihn selbst.',
  ],
  'dome-feature-18': ['Bevor Sie kommen'],
  'dome-feature-19': [
    'Zum ersten Mal dreht sich die Kuppel um acht. Ziehen Sie sich an wie für draußen, denn drinnen ist es ebenso kalt; bringen Sie eine rote Lampe mit, wenn Sie eine haben, und lassen Sie die weißen in der Tasche. ',
    em('Augen brauchen zwanzig Minuten, um das Dunkel zu lernen'),
    ', und verlieren es in einer Sekunde.',
  ],
  'dome-feature-20': ['Hunde sind bis zum Tor willkommen. Fragen sind überall willkommen.'],
  'quote-text-1': ['„Sie werden still, und dann stellen sie viel bessere Fragen.“'],
  'map-caption-text-1': ['Der Weg verlässt den Fluss an der Mühle und erreicht die Kuppel von Süden.'],
  'moons-caption-text-1': [
    'Drei Abende in einem: beim ersten Viertel, drei Tage vor Vollmond und voll. Jedes Mal muss sich die Kuppel ein Stück weiter drehen.',
  ],
};
