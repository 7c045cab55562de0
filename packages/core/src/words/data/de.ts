// German, for the word checks.
import { phrases, words, type WordData } from './word-data.ts';

export const GERMAN: WordData = {
  language: 'de',
  standIns: phrases(`
    abc, alt-text, alternativtext, alternativtext folgt, asdf, ausfüllen, beschreibung fehlt, beschreibung folgt, bild folgt,
    bitte ausfüllen, bitte ergänzen, bla, bla bla, blabla, blindtext, ergänzen, fehlt, fehlt noch, folgt, folgt noch,
    foto folgt, hier steht der alternativtext, k a, kein alternativtext, kein titel, keine angabe, keine beschreibung,
    leer, nichts, nn, noch ausfüllen, noch offen, ohne titel, ohne beschreibung, qwertz, text folgt, todo, unbekannt, undefiniert, wird ergänzt,
    wird nachgereicht, xxx
  `),
  instructions: phrases(`
    lorem ipsum, alternativtext einfügen, alternativtext eingeben, alternativtext hier, alt-text einfügen, alt-text eingeben,
    alt-text hier, beschreibung einfügen, beschreibung eingeben, beschreibung hier, beschreibe das bild, beschreiben sie,
    bild beschreiben, bild einfügen, bitte beschreiben, bitte text, foto beschreiben, hier alternativtext, hier beschreibung, hier den text,
    hier text, hier kommt, hier könnte, hier steht, text einfügen, text eingeben, titel eingeben, todo:, dein text, ihr text, dolor sit
  `),
  emptyNouns: words(`
    abb abbildung alternativer alternativtext beispieltext beschreibung bildbeschreibung bildtitel dummytext mustertext platzhalterbild platzhaltertext aufnahme ausschnitt beispiel beispielbild bild bilder bildtext datei detail entwurf foto fotografie fotos
    standardbild dekobild dekofoto dekografik musterbild beispielfoto bildunterschrift produktbild produktfoto teaserbild headerbild headergrafik alt galerie grafik hintergrund hintergrundbild ikon kopfbild kopie leer logo muster neu original ohne platzhalter probe symbol symbolbild symbolfoto
    test testbild text titel titelbild unbenannt vorlage vorschau vorschaubild
  `),
  states: words(`
    auszufüllen beschreibend ausfüllen ausgefüllt beschreiben beschrieben braucht deko dekor dekoration dekorativ dekorative dekoratives dekorativer
    demnächst eingeben eintragen einfügen einsetzen ergänzen ergänzt erforderlich fehlend fehlender fehlt fehlen folgen folgt
    gewünscht hinterlegt hinzufügen kommt kommen kürze kürzlich nachgereicht nachgetragen nachtragen nicht nichts noch nötig notwendig
    offen pflegen rein schmückend schmuck schmuckbild schmuckelement schmuckgrafik später steht vorhanden vorläufig wird werden zierbild zierde
    bald benötigt keine keinen kein todo tbd fehlanzeige hinein schreiben texten überarbeiten
  `),
  fillers: words(`
    bitte das dem den der des die ein eine einem einen einer eines für hier in ist mein mit nr nummer nur ohne und unser unsere vom von zu zum zur
  `),
  dummies: words('test platzhalter muster testbild'),
  pictureNouns: words(`
    abbildung aufnahme bild bildchen foto fotografie fotographie grafik photo photographie schnappschuss nahaufnahme
    detailaufnahme detailbild icon produktbild produktfoto titelbild symbolbild symbolfoto
  `),
  idleAdjectives: phrases(`
    schönes, schöne, schöner, schönen, wunderschönes, wunderschöne, tolles, tolle, großes, große, kleines, kleine, gutes, gute, neues, neue,
    buntes, bunte, farbiges, farbige, hochauflösendes, hochauflösende, beeindruckendes, beeindruckende, stimmungsvolles, stimmungsvolle,
    schwarzweißes, schwarz-weißes, schwarz-weiße, aktuelles, aktuelle, folgendes, folgende
  `),
  determiners: words('ein eine einem einer das die der dieses diese diesem dieser unser unsere mein meine'),
  leads: phrases(`
    von, vom, eines, einer, des, der, zeigt, zeigen, das zeigt, die zeigt, welches zeigt, stellt dar, mit blick auf, mit der ansicht, mit einer ansicht,
    mit, auf dem man, auf der man, auf dem zu sehen ist, auf der zu sehen ist, aus dem, aus der, enthält
  `),
  paintings: words('bild bildchen'),
  oldPictures: words('foto fotografie fotographie photo photographie aufnahme bild'),
  turning: words('auf in im hier'),
  fixedOpenings: phrases(`
    hier sieht man, hier sehen wir, hier sehen sie, hier ist zu sehen, hier sind zu sehen, man sieht, man erkennt, wir sehen, sie sehen,
    zu sehen ist, zu sehen sind, auf dem bild, auf dem foto, auf diesem bild, auf diesem foto, auf der aufnahme, auf der abbildung,
    im bild, in diesem bild, in diesem foto, auf dieser aufnahme, in der abbildung, auf der grafik, das bild zeigt, das foto zeigt, die aufnahme zeigt, die abbildung zeigt, abgebildet ist, abgebildet sind, dargestellt ist, dargestellt sind
  `),
  presenters: phrases('hier ist, das ist, dies ist, hier sind'),
  copulas: words('ist sind sieht sehen'),
  bound: words(`
    einem einer eines einen dem den der des diesem dieser dieses unserem unserer unseres meinem meiner ihrem ihrer seinem seiner man wir sie
    zwei drei vier mehreren vielen
  `),
  functionWords: words(`
    ab aber alle als am an auf aus auch außen außer bei beim bevor bis da dabei daneben davor dahinter darauf darin darunter das dass daneben dazu dem den denen
    denn der deren des dessen die dies diese diesem diesen dieser dieses doch dort drei durch ein eine einem einen einer eines entlang er es etwas
    für gegen gegenüber hat haben hier hin hinter hinten ihr ihre ihrem ihren ihrer im in innen ins ist ja jede jedem jeden jeder jedes kein keine man mehr mit
    nach neben nicht noch nur ob oben oberhalb oder ohne quer rechts links seine seinem seinen seiner seit sich sie sind so sowie steht stehen liegt liegen hängt hängen über um und unser unsere unter unten
    viele vom von vor vorn vorne war was wegen welche welcher wenn werden wie wird während zu zum zur zwei zwischen
  `),
  articles: words('der die das dem den des ein eine einem einen einer eines'),
  doubled: words(`
    der die das dem den sie so sehr ganz nach immer mehr wau mäh tick ha baden bora pago na ja nein viel lange weit durch
  `),
  targets: words(`
    abonnieren abspielen adresse akzeptieren alle anfahrt anfordern anfrage anfragen anhören anmelden anmeldung ansehen anrufen anschauen anzeigen archiv artikel aufrufen
    ausdrucken ausgabe auswählen beitrag bestellen bestellung bezahlen blättern blog brief buchen buchung download drucken e-mail einkaufen
    einkaufswagen einstellungen entdecken entfernen erfahren folgen formular galerie gehe gehen hauptseite herunterladen hilfe hinzufügen
    hören impressum in jetzt kalender karriere kasse katalog kaufen konto kontakt kontaktieren kurs kurse laden leiste lesen lieferung löschen mail mehr
    menü merken merkzettel mieten mitglied nachricht nächste nächster nächstes newsletter öffnen öffnungszeiten ortsplan onlineshop pause planen preise
    profil registrieren reservieren schicken schließen schreiben seite seiten senden service shop speichern spenden sprache start startseite
    stoppen suche suchen tagebuch teilen telefon termin termine tickets übersicht überspringen unterstützen veranstaltung veranstaltungen
    vergrößern verkleinern verlassen versand versenden vorherige voriges vorige voriger warenkorb wegbeschreibung website webseite weiter weiterlesen werkstattbesuch
    werkstatttagebuch wiedergabe workshop workshops zahlen zeigen zoomen zum zur zurück
  `),
  signs: words(`
    abzeichen balken banner bild bildmarke briefumschlag brief button dreieck dreiecke einkaufskorb emblem foto fähnchen glyphe grafik haken haus herz icon kasten
    knopf kreis kreuz linien logo lupe männchen pfeil pfeile pin piktogramm punkte quadrat rahmen rechteck schaltfläche schild schriftzug silhouette sprechblase stecknadel stern
    strich striche symbol umriss umschlag vorschaubild winkel wortmarke zahnrad zeichen zeichnung
  `),
  weakSigns: words(
    'bild brief button foto haken haus herz kasten knopf kreis kreuz linien punkte quadrat rahmen schild stern strich banner balken zeichnung pin dreieck rechteck',
  ),
  drawn: words('icon symbol glyphe piktogramm zeichen emoji'),
  lettering: words(`
    aufdruck aufschrift banner beschriftet beschriftung etikett gedruckt geschrieben inschrift lettern losung plakat schild
    schilder schriftzug spruch steht tafel titel transparent überschrift wort worten worte hinweis buchstaben gemalt zettel
  `),
  hands: words(`
    anklicken antippen berühren darüberfahren drücken klick klicke klicken klickt tippe tippen drauftippen draufklicken
  `),
  opened: words(`
    ansicht ansehen bild bilder bildes foto fotos galerie größer größere größeren groß großansicht hier hierhin link mehr mich
    vergrößern vergrößerung vergrößerte details vollbild volle voller größe zoom zoomen
  `),
  invitations: phrases(`
    hier, hier entlang, mehr, mehr lesen, mehr erfahren, mehr anzeigen, mehr dazu, mehr infos, mehr informationen, mehr details,
    weitere informationen, weitere infos, weiterlesen, jetzt mehr erfahren, erfahren sie mehr, lesen sie mehr, lesen sie weiter, details, link, dieser link,
    zum link, klick, hier geht es weiter, hier gehts weiter, hier weiterlesen, hier mehr erfahren, diese seite,
    click here, click to enlarge, click for more, read more, learn more, more, here
  `),
  idleActs: phrases(`
    vergrößern, bild vergrößern, foto vergrößern, bild ansehen, bild öffnen, bild in neuem fenster öffnen, bild in neuem tab öffnen,
    in neuem fenster öffnen, größere ansicht, große ansicht, großansicht, bild anzeigen, galerie öffnen, galerie ansehen, zum vergrößern,
    vergrößerte ansicht, bild herunterladen, bild in voller größe, volle größe, zoom, zoomen, größeres bild, foto öffnen, enlarge, enlarge image
  `),
  sales: words(`
    angebot angebote bestellen bestellung bestpreis billig buchen download einkaufen     geschenk geschenke geschenkidee geschenkideen gutschein gutscheine günstig günstige günstiger günstiges     kauf kaufen kostenlos kostenloser kostenlose lieferung lieferservice mieten miete
    online onlineshop preis preise preiswert rabatt rabatte reservieren sale schnäppchen shop shoppen sofort
    sonderangebot test versand versandkostenfrei vergleich verkauf anbieter ideen tipps software
  `),
  praise: words(
    'bio frisch frische gratis handgemacht handgemachte hochwertig hochwertige handarbeit premium qualität regional regionale top beste bester bestes besten',
  ),
  subjects: words(`
    keramik töpferei bäckerei
    architektur ausflug ausstellung ausstellungen beauty bildung business camping deko dekoration design einrichtung
    ernährung event events ferien ferienwohnung fitness fotografie freizeit fußball gartenbau gastronomie geschichte
    gesundheit handwerk hochzeit hochzeiten immobilien immobilienmakler interieur kultur kunst
    kunsthandwerk kurse lebensmittel lifestyle makler marketing medizin mode nachhaltig nachhaltigkeit 
    politik privatschule reparatur romantik service shopping software sport 
    technik termine therapie tourismus training tradition umzug unternehmen urlaub veranstaltung veranstaltungen verein
    versicherung wandern wellness wirtschaft wochenende wohnen workshop workshops yoga öffnungszeiten 
    accessoires wohnaccessoires heimtextilien inneneinrichtung beratung rechtsberatung familienrecht recht finanzen steuern
    kredite friseursalon kosmetik pflege renovierung sanierung gartenbau landwirtschaft konzert unterhaltung spiele
    internet digital industrie logistik transport vegan vegetarisch rezepte brunch catering nachtleben gemeinde spenden ehrenamt
  `),
  describers: words('ein eine einen zwei drei einige mehrere'),
  appearance: words(`
    rot grün blau gelb orange lila violett rosa pink braun schwarz weiß grau beige creme türkis magenta gold golden silber silbern silbrig bronze kupfern ocker oliv
    dunkel dunkl hoh hell kräftig blass bunt farbig mehrfarbig einfarbig rund kreisrund oval eckig viereckig rechteckig quadratisch dreieckig gebogen geschwungen
    flach lang kurz hoch niedrig breit schmal dick dünn winzig klein groß riesig schlank spitz gerade krumm wellig glänzend matt glatt rau weich hart
    gestreift gepunktet getupft gesprenkelt gemustert durchsichtig form formen farbe farben kreis kreise oval rechteck rechtecke dreieck dreiecke linie linien
    streifen punkt punkte fleck flecken muster ton töne farbton
  `),
  appearanceEndings: words(
    'grün blau rot gelb braun weiß schwarz grau violett rosa farben farbig förmig eckig lich getönt',
  ),
  inflections: words('e er es en em ere eren erer eres'),
  generics: words(`
    drei vier fünf sechs sieben acht neun zehn einige mehrere ding dinge etwas gegenstand gegenstände objekt objekte sache sachen stück stücke teil teile hintergrund vordergrund seite mitte rand
    sehr ziemlich eher leicht teilweise überwiegend ganz etwa eins
  `),
  capitalNouns: true,
};
