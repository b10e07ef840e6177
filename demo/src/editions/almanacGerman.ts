import { lightAndDarkIn } from './lightAndDark.ts';
import type { ReadableTexts } from './edition.ts';

const NIGHT = 'Klare Nacht';

/** The Almanac’s pages around its main feature in German. */
export const almanacGerman: ReadableTexts = {
  'cover-masthead-1': 'Frühling auf dem Hügel',
  'cover-masthead-2': 'Der Marrowby{wrap}Almanach',
  'cover-note-text-1': 'Druckerei: Kupferfolie auf dem Titel. Den Mond nicht überfüllen.',
  'cover-lines-text-1': 'Wenn sich die Kuppel dreht',
  'cover-lines-text-2': 'Den Himmel lesen im März',
  'cover-lines-text-3': 'Brief einer Besucherin',
  'cover-lines-text-4': 'Kalender: fünf Abende, für die sich der Weg lohnt',
  'cover-label-text-1': 'Neu: Gänge{wrap}im Zwielicht',
  'copper-note-text-1': 'Druckerei: Die Linie darunter ist die fünfte Farbe.',
  'sky-title-text-1': 'Den Himmel lesen{wrap}im März',
  'sky-text-story-1':
    'Der Monat beginnt mit einem schmalen Mond im Westen, und eine Woche lang gehören ihm die Abende. Sehen Sie die Linie entlang, an der der Tag in Nacht übergeht: Dort werfen die Krater ihre längsten Schatten, und ein kleines Fernrohr zeigt Grate, die zwei Stunden später verschwunden sind.',
  'sky-text-story-2': 'Erste Hälfte der Nacht',
  'sky-text-story-3':
    'Sobald es dunkel ist, steht der Reiher aufrecht im Süden, zu seiner Linken das helle Paar der Laternen. Folgen Sie dem Hals des Vogels nach oben, so kommen Sie zum {1}Fährmann{/1}, dessen Ruder aus drei Sternen in einer Reihe besteht. Unter dunklem Himmel ist neben dem untersten ein schwacher Fleck zu sehen. Es ist ein Sternhaufen, und er ist kalte Füße wert.',
  'sky-text-story-4': 'Gegen Morgen',
  'sky-text-story-5':
    'Nach Mitternacht steigt die Spindel über den östlichen Grat. Der gelbe Stern an ihrer Spitze ändert seine Helligkeit von Woche zu Woche; unsere Beobachter folgen ihm seit sechzig Jahren, und ein neues Paar Augen ist immer willkommen.',
  'chart-caption-text-1':
    'Der Himmel über dem Hügel Mitte März, zwei Stunden nach Sonnenuntergang. Der Rand ist der Horizont, Norden ist oben.',
  'phase-words-1-text-1': 'Junger Mond',
  'phase-words-1-text-2': 'Nach Sonnenuntergang tief im Westen und nach zwei Stunden fort.',
  'phase-words-2-text-1': 'Halbmond',
  'phase-words-2-text-2': 'Hoch bei Sonnenuntergang. Jetzt sind die Schatten der Krater am längsten.',
  'phase-words-3-text-1': 'Zunehmender Mond',
  'phase-words-3-text-2': 'Zu drei Vierteln hell, zu hell für schwache Sterne.',
  'phase-words-4-text-1': 'Vollmond',
  'phase-words-4-text-2': 'Die ganze Nacht am Himmel. Wir sehen den Mond an oder gar nichts.',
  'phase-words-5-text-1': 'Abnehmender Mond',
  'phase-words-5-text-2': 'Geht gegen Mitternacht auf. Die Abende sind wieder dunkel.',
  'earlier-moon-text-1': '‹ Früherer Mond',
  'later-moon-text-1': 'Späterer Mond ›',
  'phases-caption-text-1': 'Der Monat in fünf Abenden, einer nach dem anderen.',
  'riddle-text-1':
    'Rund wie eine Münze, jede Woche ausgegeben, und doch fehlt er nie im Beutel. Was ist das? Die Antwort liegt unter den Flocken.',
  'riddle-answer-text-1': 'Der Mond natürlich.',
  'letter-text-1': 'Brief einer Besucherin',
  'letter-text-2':
    'Liebe Freunde auf dem Hügel, die Nacht unter Eurer Kuppel geht mir nicht aus dem Kopf. Als das Dach sich drehte und der Abendstern durch den Spalt wanderte, hielten wir alle den Atem an. Zu Hause habe ich sofort das Fenster geöffnet und hinausgeschaut. Mit herzlichem Gruß, eine Besucherin aus Lindenbrück',
  'worlds-caption-text-1': 'Aus der Ausstellung in der Kuppel: fünf Welten, auf denen noch niemand war.',
  'twilight-title-text-1': 'Ein Gang{wrap}im Zwielicht',
  'twilight-title-text-2': 'Wie man die Farben verliert, eine nach der anderen, und die Sterne findet.',
  'twilight-caption-text-1':
    'Eine halbe Stunde nach Sonnenuntergang, von der zweiten Kehre nach Osten. Das Band über dem Grat ist unser eigener Schatten.',
  'twilight-text-1':
    '{1/}Wir treffen uns an der Mühle, wenn die Sonne den Grat berührt, und gehen ohne Lampen hinauf. Das ist keine Mutprobe. Im Frühling dauert die Dämmerung fast zwei Stunden, und Augen, die man in Ruhe lässt, halten so gut mit ihr Schritt, dass niemand merkt, wie dunkel es geworden ist. {2}Den Rest besorgt der Weg.{/2}',
  'twilight-text-2':
    'In den ersten zehn Minuten ist überall Farbe. Die Lärchen sind noch grün, das Tor ist noch rot, und man unterhält sich. Dann geht das Rot. Es geht vor allen anderen, und wer am Tor stehen bleibt und von ihm zum Gras blickt, kann zusehen: Das Rot, eben noch die hellere der beiden Farben, wird zur dunkleren und zuletzt zu einer Art Schwarz.',
  'twilight-text-3':
    'Dafür gibt es einen Namen{1/}, aber die Kinder, die mitgehen, brauchen keinen. Sie nennen die Stelle das Graue Tor, und jedes besteht darauf, als letztes zu sagen, dass es sie noch sieht.',
  'twilight-text-note-1-text':
    'Man nennt es den Purkinje-Effekt, nach dem Physiologen, dem er auf seinen Morgenspaziergängen auffiel. Die Zellen, mit denen wir nachts sehen, antworten auf Rot fast gar nicht.',
  'twilight-text-4': 'Der Schatten, der aufsteht',
  'twilight-text-5':
    '{1/}An der zweiten Kehre sieht man nach Osten, und dort steigt etwas auf, das die meisten nie gesehen haben, obwohl es an jedem klaren Abend ihres Lebens aufsteigt. Es ist ein mattblaues Band am Horizont, darüber ein rosafarbenes. Das Blau ist der Schatten der Erde. Wir stehen auf einer Kugel, die Sonne im Rücken, und der Rand ihres Schattens klettert den Himmel über dem Tal hinauf.',
  'twilight-text-6':
    '{1/}Am schönsten ist es in der Viertelstunde nach Sonnenuntergang. Dann wird das Band höher und blasser, bis es das Rosa verschluckt hat, und plötzlich ist es kein Band mehr: Es ist die Nacht, die von Osten kommt. Hier bleiben wir immer stehen. Noch nie wollte jemand als Erster weitergehen.',
  'twilight-text-7': 'Die ersten Sterne zählen',
  'twilight-text-8':
    'Der erste Stern des Abends ist fast immer ein Planet. Um den zweiten lohnt sich ein Wettlauf. Wer ihn findet, zeigt mit ausgestrecktem Arm, und die anderen blicken den Ärmel entlang. Haben wir fünf gefunden, hören wir auf zu zählen, und das ist der Augenblick, in dem es nach einer alten Regel des Hügels dunkel genug ist, um still zu sein.{1/}',
  'twilight-text-note-2-text': 'Die Regel ist älter als das Buch. Die Sonne steht dann etwa acht Grad unter dem Horizont.',
  'twilight-text-9':
    'Die ganze Zeit steht die Kuppel über uns und wird größer, ohne deutlicher zu werden. Ihr Spalt ist offen. An windstillen Abenden hört man von der dritten Kehre an die Räder, und wenn jemand sie von Hand dreht, hört man ihn lachen. Ein wenig warme Luft kommt uns entgegen und riecht nach Öl und altem Lärchenholz.',
  'twilight-text-10': 'Mit den Füßen gehen',
  'twilight-text-11':
    'Von hier an ist der Weg dunkler als der Himmel, und es hilft nichts, ihn anzusehen. Sehen Sie nach oben, und lassen Sie die Füße sehen. Sie kennen den Unterschied zwischen Kies und Gras, sie können eine Stufe von einer Wurzel unterscheiden, und sie können es viel besser, wenn sich niemand einmischt. Der Trick ist, zu gehen, als wäre es Tag, und jeden Fuß zu setzen, als wäre es Nacht.',
  'twilight-text-12':
    'Immer holt an dieser Stelle jemand eine Lampe hervor, aus den besten Gründen, um einem anderen zu helfen. Ein Stöhnen geht durch die Reihe. So lange, wie der Weg zum Gipfel dauert, sehen wir anderen einen grünen Fleck, wohin wir auch blicken. Seit dem ersten Mal teilen wir nichts mehr aus; wir bitten nur darum, die Lampe in der linken Tasche zu lassen, unter den Handschuhen.',
  'twilight-text-13': 'Was oben wartet',
  'twilight-text-14':
    'Nichts ist beleuchtet, wenn wir oben ankommen. Der Hüter weiß, wann wir kommen, und hat den Kessel aufgesetzt und die Lampen gelöscht. Man findet die Hütte an ihrer Wärme, die Bank, indem man dagegenläuft, und den Nachbarn an der Stimme. Jemand reicht Becher herum, und eine Weile ist nichts zu sehen als der Dampf, der heller ist als die Nacht.',
  'twilight-text-15':
    'Dann setzt sich die Kuppel in Bewegung. Von außen sieht man nicht, dass sie sich dreht; man sieht an ihrem Rand Sterne erlöschen, einen nach dem anderen, und auf der anderen Seite kommen welche wieder, und nach einem Augenblick scheint es nicht mehr die Kuppel zu sein, die sich bewegt. Die meisten von uns haben das hundertmal gesehen. Wir halten uns trotzdem an der Bank fest.',
  'twilight-text-16':
    'Am Tor drehen wir uns um. Das Tal ist voller Lichter, jedes einzelne auf den Boden gerichtet, und darüber steht von Grat zu Grat der Bogen der Milchstraße. Leute, die seit vierzig Jahren dort unten wohnen, blicken zu ihm hinauf und dann auf ihre eigenen Häuser und sagen, das hätten sie nicht gewusst. Mehr geschieht auf diesem Gang nicht. Wir gehen ihn an jedem klaren Freitag im April, seit dem Jahr des {1}großen Frosts{/1}, und wir werden ihn wieder gehen: Die Termine stehen auf Seite {2/}.',
  'side-sunset-text-1': '{1}Am 3. April{/1}{wrap}geht die Sonne siebzehn vor sieben unter; zwei Stunden später ist es Nacht.',
  'side-shadow-text-1': 'Der Schatten der Erde ist ein Kegel von mehr als einer Million Kilometern Länge.',
  'side-band-text-1': 'Unten blau und oben rosa: Drehen Sie sich um, im Westen ist es umgekehrt.',
  'table-title-text-1': 'Hell und dunkel,{wrap}März bis Mai',
  'table-intro-text-1':
    'Jeder dritte Tag auf Marrowby Hill, durchweg in Winterzeit. Dunkel ist es, wenn die Sonne achtzehn Grad unter dem Horizont steht; gegen Ende Mai kommt sie nicht mehr so tief.',
  ...lightAndDarkIn(['Tag', 'Sonne auf', 'Sonne unter', 'Dunkel um', 'Mondalter', 'Mondlicht'], (day, month) => `${day}. ${month}`, {
    March: 'März',
    April: 'April',
    May: 'Mai',
    'not at all': 'gar nicht',
    new: 'neu',
    'evening, thin': 'abends, schmal',
    'half, evening': 'halb, abends',
    'bright until late': 'lange hell',
    'full, all night': 'voll, ganze Nacht',
    'rises late': 'geht spät auf',
    'half, morning': 'halb, morgens',
    'morning, thin': 'morgens, schmal',
  }),
  'five-stars-text-1': 'Fünf Sterne, deren Namen man kennen sollte',
  'five-stars-text-2': '{1}Das Auge des Reihers{/1} wird in fünf Tagen und neun Stunden heller und dunkler, und man sieht es.',
  'five-stars-text-3': '{1}Die obere Laterne{/1} ist zwei Sterne. Das kleine Fernrohr zeigt beide, einen golden, einen blau.',
  'five-stars-text-4': '{1}Die Spitze der Spindel{/1} ist so rot wie kein anderer Stern.',
  'five-stars-text-5': '{1}Die Hand des Fährmanns{/1} geht nie unter. Die Schiffer steuerten nach ihr.',
  'five-stars-text-6': '{1}Der Nagel{/1} ist nicht hell, doch um ihn dreht sich alles.',
  'eyepiece-caption-1-text-1': 'Die obere Laterne ist zwei Sterne.',
  'eyepiece-caption-2-text-1': 'Die Spitze der Spindel, tiefrot.',
  'dial-words-text-1': 'Die Zeit der Sterne',
  'dial-words-text-2': 'Zwei Scheiben aus Karton, ein Stift und ein Himmel, der sich einmal am Tag dreht.',
  'dial-caption-text-1': 'Die fertige Sternuhr. Der Zeiger liegt an den beiden vorderen Sternen des Pflugpferds.',
  'make-title-text-1': 'Eine Sternuhr bauen',
  'make-steps-text-1': '{1/} Schneiden Sie die beiden Scheiben aus Karton, die äußere eine Daumenbreite größer als die innere.',
  'make-steps-text-2':
    '{1/} Teilen Sie den Rand der äußeren Scheibe in zwölf Monate und den der inneren in vierundzwanzig Stunden, gegen den Uhrzeigersinn gezählt.',
  'make-steps-text-3': '{1/} Stecken Sie beide in der Mitte mit einer Musterklammer zusammen, so locker, dass sie sich drehen.',
  'make-steps-text-4': 'Kleben Sie den Zeiger auf die innere Scheibe, sodass er bei Mitternacht über den Rand reicht.',
  'make-steps-text-5':
    'Halten Sie die Uhr an einem klaren Abend mit gestrecktem Arm und peilen Sie über ihre Mitte den Nagel an. Drehen Sie die äußere Scheibe, bis der Monat oben steht.',
  'make-steps-text-6':
    'Legen Sie den Zeiger an die beiden vorderen Sterne des Pflugpferds und lesen Sie daneben die Stunde ab. Sie stimmt auf eine Viertelstunde, und das kann man hier oben von den wenigsten Uhren sagen.',
  'clear-words-text-1': `${NIGHT} 1`,
  ...Object.fromEntries(
    Array.from({ length: 11 }, (_, i) => [`clear-words-text-1.nights-${Math.floor((i + 1) / 4)}-${(i + 1) % 4}`, `${NIGHT} ${i + 2}`]),
  ),
  'make-caption-text-1':
    'Vom Brett in der Hütte: drei Schnappschüsse von Leuten, die ihre Sternuhr ausprobierten und ohne Armbanduhr zurückfanden.',
  'walk-from-text-1': 'Ein Gang im Zwielicht, Fortsetzung von Seite 9',
  'questions-text-1': 'Fragen vom Tor',
  'questions-text-2': 'Stimmt es, dass man vom Grund eines Brunnens aus bei Tag die Sterne sieht?',
  'questions-text-3':
    'Nein. Der Himmel am Ende eines Brunnens ist so hell wie jedes andere Stück Himmel. Wir haben es im alten Schacht hinter der Mühle versucht; zu sehen ist ein sehr schöner Eimer.',
  'questions-text-4': 'Warum verkaufen Sie keine Postkarten von dem, was das Fernrohr zeigt?',
  'questions-text-5':
    'Weil die Leute vergleichen würden. Was man mit eigenem Auge sieht, ist kleiner und grauer als jedes Bild, und es ist wirklich da.',
  'questions-text-6': 'Wie viele Menschen haben durch das große Rohr geschaut?',
  'questions-text-7':
    'Wir zählen sie am Tor. Den mitgerechnet, der auf dem Weg geboren und hineingetragen wurde: zweihundertachtzehntausendvierhundertsechs.',
  'walk-caption-text-1': 'Die Kuppel, von der Bank aus. Es sind die Sterne, die sich zu drehen scheinen.',
  'diary-text-1': 'Kalender',
  'diary-text-2': '{1}6. März{/1}\tOffene Kuppelnacht. Einlass um sieben, erste Drehung um acht.',
  'diary-text-3': '{1}13. März{/1}\tVortrag: Hundertzwölf Winter Wetter im Buch.',
  'diary-text-4': '{1}20. März{/1}\tTag und Nacht gleich. Mit Laternen auf den Hügel; bitte feste Schuhe.',
  'diary-text-5': '{1}27. März{/1}\tWerkstatttag in der Kuppel: Öl, Seil und Handschuhe.',
  'diary-text-6': '{1}3. April{/1}\tJunge Beobachter. Das Fernrohr gehört ihnen bis zur Schlafenszeit.',
  'diary-text-7': 'So finden Sie uns',
  'diary-text-8':
    'Der Weg beginnt hinter der Mühle und dauert in ruhigem Schritt vierzig Minuten. Schreiben Sie {1}dem Hüter{/1}, wenn Sie hinaufgefahren werden möchten.',
  'diary-map-caption-text-1': 'Vierzig Minuten in ruhigem Schritt. Die letzte Kehre ist steiler, als sie aussieht.',
  'ring-text-1': 'Die Glocke am Tor läuten ›',
  'turning-caption-text-1': 'Eine Nacht in vier Sekunden: Es drehen sich die Sterne.',
  'imprint-text-1':
    '{1}Der Marrowby Almanach{/1} erscheint viermal im Jahr. Texte und Zeichnungen von den Freiwilligen der Sternwarte Marrowby Hill.',
  'imprint-text-2': 'Gesetzt aus zwei Schriften, gedruckt in vier Farben und {1}einem Kupfer{/1}.',
  'back-words-text-1': '„Sie war schwer,{wrap}und dann nicht mehr.“',
  'back-words-text-2': 'Aus dem Buch, von jemandem mit sechs Jahren',
  'back-next-text-1': 'Im Sommer: das Kupfer kommt herunter, eine Fledermaus im Sucher, vierzig helle Nächte',
  'back-note-text-1': 'Druckerei: Den Fuß für den Adressaufkleber frei lassen.',
};
