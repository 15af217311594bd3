<?xml version="1.0" encoding="utf-8"?>
<!DOCTYPE TS>
<TS version="2.1" language="de">
<context>
    <name>Actions</name>
    <message>
        <source>New filter</source>
        <translation>Neuer Filter</translation>
    </message>
    <message>
        <source>Open filter or picture…</source>
        <translation>Filter oder Bild öffnen…</translation>
    </message>
    <message>
        <source>Recent</source>
        <translation>Zuletzt benutzt</translation>
    </message>
    <message>
        <source>Save</source>
        <translation>Speichern</translation>
    </message>
    <message>
        <source>Save as…</source>
        <translation>Speichern unter…</translation>
    </message>
    <message>
        <source>Undo</source>
        <translation>Rückgängig</translation>
    </message>
    <message>
        <source>Redo</source>
        <translation>Wiederholen</translation>
    </message>
    <message>
        <source>Hand over</source>
        <translation>Übergeben</translation>
    </message>
    <message>
        <source>Hand over a LUT…</source>
        <translation>Als LUT übergeben…</translation>
    </message>
    <message>
        <source>Apply to a picture file…</source>
        <translation>Auf eine Bilddatei anwenden…</translation>
    </message>
    <message>
        <source>Apply to a folder or a sequence…</source>
        <translation>Auf einen Ordner oder eine Sequenz anwenden…</translation>
    </message>
    <message>
        <source>Write a report…</source>
        <translation>Bericht schreiben…</translation>
    </message>
    <message>
        <source>Rule</source>
        <translation>Regel</translation>
    </message>
    <message>
        <source>Apply the offered fix</source>
        <translation>Angebotene Korrektur anwenden</translation>
    </message>
    <message>
        <source>Next error or warning</source>
        <translation>Nächster Fehler oder Hinweis</translation>
    </message>
    <message>
        <source>Bring the rule into its canonical form</source>
        <translation>Regel in ihre Grundform bringen</translation>
    </message>
    <message>
        <source>Find in the rule…</source>
        <translation>In der Regel suchen…</translation>
    </message>
    <message>
        <source>Find and replace…</source>
        <translation>Suchen und ersetzen…</translation>
    </message>
    <message>
        <source>Fold the lines at the caret, or unfold</source>
        <translation>Zeilen an der Schreibmarke zu- oder aufklappen</translation>
    </message>
    <message>
        <source>Rename the name at the caret</source>
        <translation>Namen an der Schreibmarke umbenennen</translation>
    </message>
    <message>
        <source>Go to where the name is given</source>
        <translation>Zu der Stelle, die den Namen vergibt</translation>
    </message>
    <message>
        <source>Turn lines into comments, or back</source>
        <translation>Zeilen zu Kommentaren machen, oder zurück</translation>
    </message>
    <message>
        <source>Set the colour at the caret…</source>
        <translation>Farbe an der Schreibmarke wählen…</translation>
    </message>
    <message>
        <source>Write a recipe</source>
        <translation>Rezept einfügen</translation>
    </message>
    <message>
        <source>Add a proof</source>
        <translation>Beweis hinzufügen</translation>
    </message>
    <message>
        <source>Mix table</source>
        <translation>Mischtabelle</translation>
    </message>
    <message>
        <source>A matrix from wishes…</source>
        <translation>Matrix aus Wünschen…</translation>
    </message>
    <message>
        <source>Reset all values</source>
        <translation>Alle Werte zurücksetzen</translation>
    </message>
    <message>
        <source>Look</source>
        <translation>Look</translation>
    </message>
    <message>
        <source>Add a step</source>
        <translation>Schritt hinzufügen</translation>
    </message>
    <message>
        <source>Add an empty step</source>
        <translation>Leeren Schritt hinzufügen</translation>
    </message>
    <message>
        <source>Active step</source>
        <translation>Aktiver Schritt</translation>
    </message>
    <message>
        <source>Step before</source>
        <translation>Schritt davor</translation>
    </message>
    <message>
        <source>Next step</source>
        <translation>Nächster Schritt</translation>
    </message>
    <message>
        <source>Show up to the active step, or all</source>
        <translation>Bis zum aktiven Schritt zeigen, oder alles</translation>
    </message>
    <message>
        <source>Title of the look…</source>
        <translation>Titel des Looks…</translation>
    </message>
    <message>
        <source>Proofs of the look…</source>
        <translation>Beweise des Looks…</translation>
    </message>
    <message>
        <source>Compare</source>
        <translation>Vergleichen</translation>
    </message>
    <message>
        <source>Before is</source>
        <translation>Vorher ist</translation>
    </message>
    <message>
        <source>Compare with the rule as it is now</source>
        <translation>Mit der Regel vergleichen, wie sie jetzt ist</translation>
    </message>
    <message>
        <source>Remember a take</source>
        <translation>Fassung merken</translation>
    </message>
    <message>
        <source>Flip to the take before</source>
        <translation>Zur Fassung davor wechseln</translation>
    </message>
    <message>
        <source>Flip to the next take</source>
        <translation>Zur nächsten Fassung wechseln</translation>
    </message>
    <message>
        <source>Takes side by side, or back</source>
        <translation>Fassungen nebeneinander, oder zurück</translation>
    </message>
    <message>
        <source>Sheet</source>
        <translation>Blatt</translation>
    </message>
    <message>
        <source>Show the expression at the caret on the sheet</source>
        <translation>Ausdruck an der Schreibmarke auf dem Blatt zeigen</translation>
    </message>
    <message>
        <source>Pin what is pointed at</source>
        <translation>Nadel setzen, wohin gezeigt wird</translation>
    </message>
    <message>
        <source>Play the numbered frames, or stop</source>
        <translation>Nummerierte Bilder abspielen, oder anhalten</translation>
    </message>
    <message>
        <source>Play from this frame on</source>
        <translation>Ab diesem Bild abspielen</translation>
    </message>
    <message>
        <source>Play up to this frame</source>
        <translation>Bis zu diesem Bild abspielen</translation>
    </message>
    <message>
        <source>Frames</source>
        <translation>Bilder der Sequenz</translation>
    </message>
    <message>
        <source>The pin over time</source>
        <translation>Die Nadel über die Zeit</translation>
    </message>
    <message>
        <source>Trace at the pin</source>
        <translation>Rechenweg an der Nadel</translation>
    </message>
    <message>
        <source>Add a target</source>
        <translation>Testbild hinzufügen</translation>
    </message>
    <message>
        <source>Add a chart cell</source>
        <translation>Zelle mit Farbtafel hinzufügen</translation>
    </message>
    <message>
        <source>Add a reading</source>
        <translation>Anzeige hinzufügen</translation>
    </message>
    <message>
        <source>Sheet in a window of its own, or back</source>
        <translation>Blatt in eigenem Fenster, oder zurück</translation>
    </message>
    <message>
        <source>Open this menu</source>
        <translation>Dieses Menü öffnen</translation>
    </message>
    <message>
        <source>Next panel</source>
        <translation>Nächster Bereich</translation>
    </message>
    <message>
        <source>Library</source>
        <translation>Bibliothek</translation>
    </message>
    <message>
        <source>Room</source>
        <translation>Raum</translation>
    </message>
    <message>
        <source>Colour config…</source>
        <translation>Farbkonfiguration…</translation>
    </message>
    <message>
        <source>Settings…</source>
        <translation>Einstellungen…</translation>
    </message>
    <message>
        <source>Help</source>
        <translation>Hilfe</translation>
    </message>
    <message>
        <source>All keys</source>
        <translation>Alle Tasten</translation>
    </message>
    <message>
        <source>The first minute, step by step</source>
        <translation>Die erste Minute, Schritt für Schritt</translation>
    </message>
    <message>
        <source>Quit</source>
        <translation>Beenden</translation>
    </message>
    <message>
        <source>as a strip</source>
        <translation>als Streifen</translation>
    </message>
    <message>
        <source>Find the rule of a LUT or pictures…</source>
        <translation>Regel einer LUT oder zu Bildern finden…</translation>
    </message>
    <message>
        <source>The way back…</source>
        <translation>Der Weg zurück…</translation>
    </message>
    <message>
        <source>Make it shorter, if it is proved the same</source>
        <translation>Kürzer schreiben, wenn es bewiesen dasselbe ist</translation>
    </message>
    <message>
        <source>Carry to another working space</source>
        <translation>In einen anderen Arbeitsfarbraum übertragen</translation>
    </message>
</context>
<context>
    <name>Core</name>
    <message>
        <source>%1 %2</source>
        <translation>%1 %2</translation>
    </message>
    <message>
        <source>%1 cannot be %2</source>
        <translation>%1 kann nicht %2</translation>
    </message>
    <message>
        <source>%1 cannot be assigned to</source>
        <translation>%1 kann nichts zugewiesen werden</translation>
    </message>
    <message>
        <source>%1 cannot be used: %2</source>
        <translation>%1 kann nicht benutzt werden: %2</translation>
    </message>
    <message>
        <source>%1 does not begin a statement</source>
        <translation>%1 beginnt keine Anweisung</translation>
    </message>
    <message>
        <source>%1 does not belong in a function</source>
        <translation>%1 gehört nicht in eine Funktion</translation>
    </message>
    <message>
        <source>%1 does not take (%2)</source>
        <translation>%1 nimmt (%2) nicht</translation>
    </message>
    <message>
        <source>%1 does not work on %2 and %3</source>
        <translation>%1 geht nicht mit %2 und %3</translation>
    </message>
    <message>
        <source>%1 has a fixed meaning and cannot be used as a name</source>
        <translation>%1 hat eine feste Bedeutung und kann kein Name sein</translation>
    </message>
    <message>
        <source>%1 has no component %2</source>
        <translation>%1 hat keine Komponente %2</translation>
    </message>
    <message>
        <source>%1 has no hue to hold</source>
        <translation>%1 hat keinen Farbton, der zu halten wäre</translation>
    </message>
    <message>
        <source>%1 has no meaning here</source>
        <translation>%1 hat hier keine Bedeutung</translation>
    </message>
    <message>
        <source>%1 has no option %2</source>
        <translation>%1 hat keine Option %2</translation>
    </message>
    <message>
        <source>%1 has no range and no step: it is on or off, or one of its options</source>
        <translation>%1 hat keinen Bereich und keine Schrittweite: er ist ein oder aus, oder eine seiner Optionen</translation>
    </message>
    <message>
        <source>%1 is %2, and so it reads %3</source>
        <translation>%1 ist %2 und liest also %3</translation>
    </message>
    <message>
        <source>%1 is a choice and has no value of its own</source>
        <translation>%1 ist eine Auswahl und hat keinen eigenen Wert</translation>
    </message>
    <message>
        <source>%1 is already the name of something</source>
        <translation>%1 ist schon der Name von etwas</translation>
    </message>
    <message>
        <source>%1 is expected here, %2 came</source>
        <translation>%1 wird hier erwartet, %2 kam</translation>
    </message>
    <message>
        <source>%1 is expected here, a colour without alpha (vec3) came</source>
        <translation>%1 wird hier erwartet, eine Farbe ohne Alpha (vec3) kam</translation>
    </message>
    <message>
        <source>%1 is expected here, a value of %2 came</source>
        <translation>%1 wird hier erwartet, ein Wert von %2 kam</translation>
    </message>
    <message>
        <source>%1 is larger than a float can hold</source>
        <translation>%1 ist größer, als ein float fassen kann</translation>
    </message>
    <message>
        <source>%1 is measured on targets of its own</source>
        <translation>%1 wird auf eigenen Testbildern gemessen</translation>
    </message>
    <message>
        <source>%1 is never used</source>
        <translation>%1 wird nirgends benutzt</translation>
    </message>
    <message>
        <source>%1 is not a number</source>
        <translation>%1 ist keine Zahl</translation>
    </message>
    <message>
        <source>%1 is not a parameter of this filter</source>
        <translation>%1 ist kein Parameter dieses Filters</translation>
    </message>
    <message>
        <source>%1 is not a whole number</source>
        <translation>%1 ist keine ganze Zahl</translation>
    </message>
    <message>
        <source>%1 is not known inside a function</source>
        <translation>%1 ist in einer Funktion nicht bekannt</translation>
    </message>
    <message>
        <source>%1 needs two colours or more</source>
        <translation>%1 braucht zwei Farben oder mehr</translation>
    </message>
    <message>
        <source>%1 of %2 cannot change from pixel to pixel</source>
        <translation>%1 von %2 kann sich nicht von Pixel zu Pixel ändern</translation>
    </message>
    <message>
        <source>%1 takes %2, %3 came</source>
        <translation>%1 nimmt %2, %3 kamen</translation>
    </message>
    <message>
        <source>%1 takes at most %2 knots, %3 came</source>
        <translation>%1 nimmt höchstens %2 Stützpunkte, %3 kamen</translation>
    </message>
    <message>
        <source>%1 was already said</source>
        <translation>%1 wurde schon gesagt</translation>
    </message>
    <message>
        <source>%3</source>
        <translation>%3</translation>
    </message>
    <message>
        <source>%4</source>
        <translation>%4</translation>
    </message>
    <message>
        <source>A float reads a channel, such as source key = picture.g; vec3 and vec4 read all of a picture.</source>
        <translation>Ein float liest einen Kanal, etwa source key = picture.g; vec3 und vec4 lesen ein ganzes Bild.</translation>
    </message>
    <message>
        <source>A function holds let, assignments to its names, and its result.</source>
        <translation>Eine Funktion enthält let, Zuweisungen an ihre Namen und ihr Ergebnis.</translation>
    </message>
    <message>
        <source>A line begins with filter, note, working, use, source, param, preset, fn, let, keep, hold, proof, or a name to assign to.</source>
        <translation>Eine Zeile beginnt mit filter, note, working, use, source, param, preset, fn, let, keep, hold, proof oder einem Namen, dem zugewiesen wird.</translation>
    </message>
    <message>
        <source>Ask for an option, which is a condition: %2.</source>
        <translation>Nach einer Option fragen, das ist eine Bedingung: %2.</translation>
    </message>
    <message>
        <source>Assign to out, to a component of out, or to a let.</source>
        <translation>An out zuweisen, an eine Komponente von out, oder an ein let.</translation>
    </message>
    <message>
        <source>Assign to out.rgb to leave alpha alone.</source>
        <translation>An out.rgb zuweisen, um Alpha in Ruhe zu lassen.</translation>
    </message>
    <message>
        <source>Chain two curves.</source>
        <translation>Zwei Kurven hintereinander benutzen.</translation>
    </message>
    <message>
        <source>Choose another name.</source>
        <translation>Einen anderen Namen wählen.</translation>
    </message>
    <message>
        <source>Compare it with something.</source>
        <translation>Mit etwas vergleichen.</translation>
    </message>
    <message>
        <source>Compare with something that changes.</source>
        <translation>Mit etwas vergleichen, das sich ändert.</translation>
    </message>
    <message>
        <source>End it with " on the same line.</source>
        <translation>Mit " in derselben Zeile beenden.</translation>
    </message>
    <message>
        <source>Functions are written out at every call: call less often, or split the rule into several filters.</source>
        <translation>Funktionen werden bei jedem Aufruf ausgeschrieben: seltener aufrufen, oder die Regel auf mehrere Filter verteilen.</translation>
    </message>
    <message>
        <source>Functions stand side by side.</source>
        <translation>Funktionen stehen nebeneinander.</translation>
    </message>
    <message>
        <source>Hold the hue before %1 comes in.</source>
        <translation>Den Farbton halten, bevor %1 dazukommt.</translation>
    </message>
    <message>
        <source>Inputs are r g b a rgb rgba pos pixel aspect extent; others are made with let, param or source.</source>
        <translation>Eingänge sind r g b a rgb rgba pos pixel aspect extent; andere werden mit let, param oder source angelegt.</translation>
    </message>
    <message>
        <source>It has %3.</source>
        <translation>Es gibt %3.</translation>
    </message>
    <message>
        <source>It may be a number, a parameter, or made of those.</source>
        <translation>Möglich ist eine Zahl, ein Parameter oder etwas daraus.</translation>
    </message>
    <message>
        <source>It undoes part of what was done to %1, whose own lightness component may be what you want to keep.</source>
        <translation>Es macht einen Teil dessen rückgängig, was an %1 getan wurde; vielleicht soll dessen eigene Helligkeit bleiben.</translation>
    </message>
    <message>
        <source>Its last line is an expression: what it gives.</source>
        <translation>Die letzte Zeile ist ein Ausdruck: was sie ergibt.</translation>
    </message>
    <message>
        <source>Keep one of them.</source>
        <translation>Eines davon behalten.</translation>
    </message>
    <message>
        <source>Known are %2.</source>
        <translation>Bekannt sind %2.</translation>
    </message>
    <message>
        <source>Leave out `on`, or write a condition.</source>
        <translation>`on` weglassen, oder eine Bedingung schreiben.</translation>
    </message>
    <message>
        <source>Leave out `whole`, or use whole numbers.</source>
        <translation>`whole` weglassen, oder ganze Zahlen benutzen.</translation>
    </message>
    <message>
        <source>Leave them out.</source>
        <translation>Weglassen.</translation>
    </message>
    <message>
        <source>Make it an argument: a function sees its arguments, aspect and extent alone.</source>
        <translation>Zu einem Argument machen: eine Funktion sieht nur ihre Argumente, aspect und extent.</translation>
    </message>
    <message>
        <source>Mend the first ones.</source>
        <translation>Die ersten berichtigen.</translation>
    </message>
    <message>
        <source>Models with one are %2.</source>
        <translation>Modelle mit Farbton sind %2.</translation>
    </message>
    <message>
        <source>Move it above this place. No function can call itself.</source>
        <translation>Weiter nach oben setzen. Keine Funktion kann sich selbst aufrufen.</translation>
    </message>
    <message>
        <source>Name a colour whose channels differ.</source>
        <translation>Eine Farbe nennen, deren Kanäle verschieden sind.</translation>
    </message>
    <message>
        <source>Name every component once.</source>
        <translation>Jede Komponente einmal nennen.</translation>
    </message>
    <message>
        <source>Name parts of it with let.</source>
        <translation>Teile davon mit let benennen.</translation>
    </message>
    <message>
        <source>Parameters are made with param.</source>
        <translation>Parameter werden mit param angelegt.</translation>
    </message>
    <message>
        <source>Parameters hold numbers, such as 0.5 or -1.</source>
        <translation>Parameter enthalten Zahlen, etwa 0.5 oder -1.</translation>
    </message>
    <message>
        <source>Put the next statement on a line of its own.</source>
        <translation>Die nächste Anweisung in eine eigene Zeile schreiben.</translation>
    </message>
    <message>
        <source>Put them in order; no two have the same x.</source>
        <translation>In Reihenfolge bringen; keine zwei haben dasselbe x.</translation>
    </message>
    <message>
        <source>Remove it.</source>
        <translation>Entfernen.</translation>
    </message>
    <message>
        <source>Say what each channel gets.</source>
        <translation>Sagen, was jeder Kanal bekommt.</translation>
    </message>
    <message>
        <source>See docs/builtins.md for the list.</source>
        <translation>Die Liste steht in docs/builtins.md.</translation>
    </message>
    <message>
        <source>Split it into several filters.</source>
        <translation>Auf mehrere Filter verteilen.</translation>
    </message>
    <message>
        <source>Stay below 3.4e38.</source>
        <translation>Unter 3.4e38 bleiben.</translation>
    </message>
    <message>
        <source>That is exact, but often stronger than wanted: most rules that keep luminance are meant in a display-encoded space (working srgb).</source>
        <translation>Das ist genau, aber oft stärker als gewünscht: die meisten Regeln, die Leuchtdichte halten, sind für den Bildschirm kodiert gemeint (working srgb).</translation>
    </message>
    <message>
        <source>The result is the last line.</source>
        <translation>Das Ergebnis ist die letzte Zeile.</translation>
    </message>
    <message>
        <source>They stand behind `on`: proof "still apart" on (0.7, 0.2, 0.2), (0.2, 0.5, 0.2) : apart &gt; 10.</source>
        <translation>Sie stehen hinter `on`: proof "noch verschieden" on (0.7, 0.2, 0.2), (0.2, 0.5, 0.2) : apart &gt; 10.</translation>
    </message>
    <message>
        <source>Turn it back into r, g, b with rgb( ).</source>
        <translation>Mit rgb( ) in r, g, b zurückverwandeln.</translation>
    </message>
    <message>
        <source>Types are float, bool, vec2, vec3, vec4, mat3 and the colour models; a source is float, vec3 or vec4.</source>
        <translation>Typen sind float, bool, vec2, vec3, vec4, mat3 und die Farbmodelle; eine Quelle ist float, vec3 oder vec4.</translation>
    </message>
    <message>
        <source>Use it or remove it.</source>
        <translation>Benutzen oder entfernen.</translation>
    </message>
    <message>
        <source>Widen the range or change the value.</source>
        <translation>Den Bereich erweitern oder den Wert ändern.</translation>
    </message>
    <message>
        <source>Write %3 before the limit.</source>
        <translation>%3 vor die Grenze schreiben.</translation>
    </message>
    <message>
        <source>Write %3.</source>
        <translation>%3 schreiben.</translation>
    </message>
    <message>
        <source>Write numbers like 2, 0.5 or 1e-3.</source>
        <translation>Zahlen wie 2, 0.5 oder 1e-3 schreiben.</translation>
    </message>
    <message>
        <source>Write the name of a .kasuri file beside this one.</source>
        <translation>Den Namen einer .kasuri-Datei neben dieser schreiben.</translation>
    </message>
    <message>
        <source>Write the smaller end first.</source>
        <translation>Das kleinere Ende zuerst schreiben.</translation>
    </message>
    <message>
        <source>a colour is expected here (%1), a single number (float) came</source>
        <translation>eine Farbe wird hier erwartet (%1), eine einzelne Zahl (float) kam</translation>
    </message>
    <message>
        <source>a condition (bool) is expected here, %1 came</source>
        <translation>eine Bedingung (bool) wird hier erwartet, %1 kam</translation>
    </message>
    <message>
        <source>a neutral colour has no hue to hold</source>
        <translation>eine neutrale Farbe hat keinen Farbton, der zu halten wäre</translation>
    </message>
    <message>
        <source>a plain number is expected here</source>
        <translation>eine bloße Zahl wird hier erwartet</translation>
    </message>
    <message>
        <source>a step must be %1</source>
        <translation>eine Schrittweite muss %1 sein</translation>
    </message>
    <message>
        <source>both results of ? : must have one type; here they are %1 and %2</source>
        <translation>beide Ergebnisse von ? : müssen denselben Typ haben; hier sind es %1 und %2</translation>
    </message>
    <message>
        <source>component %1 is assigned twice</source>
        <translation>der Komponente %1 wird zweimal zugewiesen</translation>
    </message>
    <message>
        <source>equals and undoes are measured against another filter, which stands behind them: proof "as before" : equals "old.kasuri".</source>
        <translation>equals und undoes werden gegen einen anderen Filter gemessen, der dahintersteht: proof "wie vorher" : equals "alt.kasuri".</translation>
    </message>
    <message>
        <source>expected %1, found %2</source>
        <translation>%1 erwartet, %2 gefunden</translation>
    </message>
    <message>
        <source>knots stand from left to right: %1 comes after %2</source>
        <translation>Stützpunkte stehen von links nach rechts: %1 kommt nach %2</translation>
    </message>
    <message>
        <source>luminance is kept after work in %1</source>
        <translation>Leuchtdichte wird nach Arbeit in %1 gehalten</translation>
    </message>
    <message>
        <source>luminance is kept in linear light</source>
        <translation>Leuchtdichte wird in linearem Licht gehalten</translation>
    </message>
    <message>
        <source>more than %1 errors; the rest is not listed</source>
        <translation>mehr als %1 Fehler; der Rest wird nicht aufgezählt</translation>
    </message>
    <message>
        <source>the figure of %1 must be %2 its limit</source>
        <translation>die Zahl von %1 muss %2 ihre Grenze sein</translation>
    </message>
    <message>
        <source>the function %1 has no result</source>
        <translation>die Funktion %1 hat kein Ergebnis</translation>
    </message>
    <message>
        <source>the function %1 stands further down, or would call itself</source>
        <translation>die Funktion %1 steht weiter unten, oder würde sich selbst aufrufen</translation>
    </message>
    <message>
        <source>the function %1 stands inside another</source>
        <translation>die Funktion %1 steht in einer anderen</translation>
    </message>
    <message>
        <source>the range %1 .. %2 is empty</source>
        <translation>der Bereich %1 .. %2 ist leer</translation>
    </message>
    <message>
        <source>the rule depends on %1 here, so a colour has no one result whose hue could be held</source>
        <translation>die Regel hängt hier von %1 ab, also hat eine Farbe kein eines Ergebnis, dessen Farbton gehalten werden könnte</translation>
    </message>
    <message>
        <source>the rule has %1 bytes; the limit is %2</source>
        <translation>die Regel hat %1 Byte; die Grenze ist %2</translation>
    </message>
    <message>
        <source>the rule has %1 operations; the limit is %2</source>
        <translation>die Regel hat %1 Rechenschritte; die Grenze ist %2</translation>
    </message>
    <message>
        <source>the rule looks around itself %1 times (blur, sharpen, dilate, erode, for each component); the limit is %2</source>
        <translation>die Regel sieht %1-mal um sich (blur, sharpen, dilate, erode, für jede Komponente); die Grenze ist %2</translation>
    </message>
    <message>
        <source>the statement is complete before %1</source>
        <translation>die Anweisung ist vor %1 zu Ende</translation>
    </message>
    <message>
        <source>the value %1 lies outside %2 .. %3</source>
        <translation>der Wert %1 liegt außerhalb von %2 .. %3</translation>
    </message>
    <message>
        <source>there is no %1</source>
        <translation>es gibt kein %1</translation>
    </message>
    <message>
        <source>there is no function %1</source>
        <translation>es gibt keine Funktion %1</translation>
    </message>
    <message>
        <source>there is no proof function %1</source>
        <translation>es gibt keine Beweisfunktion %1</translation>
    </message>
    <message>
        <source>there is no space %1</source>
        <translation>es gibt keinen Farbraum %1</translation>
    </message>
    <message>
        <source>there is no target %1</source>
        <translation>es gibt kein Testbild %1</translation>
    </message>
    <message>
        <source>there is no type %1 here</source>
        <translation>es gibt hier keinen Typ %1</translation>
    </message>
    <message>
        <source>this condition is always %1</source>
        <translation>diese Bedingung ist immer %1</translation>
    </message>
    <message>
        <source>this is nested deeper than %1 levels</source>
        <translation>das ist tiefer als %1 Ebenen verschachtelt</translation>
    </message>
    <message>
        <source>this stands after the result of the function</source>
        <translation>das steht nach dem Ergebnis der Funktion</translation>
    </message>
    <message>
        <source>this text has no closing quotation mark</source>
        <translation>dieser Text hat kein schließendes Anführungszeichen</translation>
    </message>
    <message>
        <source>  cannot be undone: a dimension is lost
</source>
        <translation>  lässt sich nicht rückgängig machen: eine Dimension geht verloren
</translation>
    </message>
    <message>
        <source>  rows sum to {}, {}, {}; determinant {}
</source>
        <translation>  Zeilensummen {}, {}, {}; Determinante {}
</translation>
    </message>
    <message>
        <source> at {} settings</source>
        <translation> bei {} Stellungen</translation>
    </message>
    <message>
        <source>( and the function's arguments</source>
        <translation>( und die Argumente der Funktion</translation>
    </message>
    <message>
        <source>) or ,</source>
        <translation>) oder ,</translation>
    </message>
    <message>
        <source>, with {} places of the further pictures</source>
        <translation>, mit {} Stellen der weiteren Bilder</translation>
    </message>
    <message>
        <source>1 argument</source>
        <translation>1 Argument</translation>
    </message>
    <message>
        <source>1 component</source>
        <translation>1 Komponente</translation>
    </message>
    <message>
        <source>: and the other result</source>
        <translation>: und das andere Ergebnis</translation>
    </message>
    <message>
        <source>: and what is promised</source>
        <translation>: und was versprochen wird</translation>
    </message>
    <message>
        <source>: {} colours</source>
        <translation>: {} Farben</translation>
    </message>
    <message>
        <source>= after {}</source>
        <translation>= nach {}</translation>
    </message>
    <message>
        <source>= and an expression, or {</source>
        <translation>= und ein Ausdruck, oder {</translation>
    </message>
    <message>
        <source>= and its default</source>
        <translation>= und der Ausgangswert</translation>
    </message>
    <message>
        <source>A condition is not a number: write condition ? 1.0 : 0.0.</source>
        <translation>Eine Bedingung ist keine Zahl: Bedingung ? 1.0 : 0.0 schreiben.</translation>
    </message>
    <message>
        <source>A matrix is multiplied by a vec3 behind it, another matrix, or a float.</source>
        <translation>Eine Matrix wird mit einem vec3 dahinter, einer anderen Matrix oder einem float multipliziert.</translation>
    </message>
    <message>
        <source>A name without slashes is needed.</source>
        <translation>Nötig ist ein Name ohne Schrägstriche.</translation>
    </message>
    <message>
        <source>A step has made nothing yet before it is its turn: read an earlier one.</source>
        <translation>Ein Schritt hat noch nichts gemacht, bevor er an der Reihe ist: einen früheren lesen.</translation>
    </message>
    <message>
        <source>Add one of these roles to it.</source>
        <translation>Eine dieser Rollen hinzufügen.</translation>
    </message>
    <message>
        <source>Both sides must have one type, or one must be a float.</source>
        <translation>Beide Seiten müssen denselben Typ haben, oder eine muss ein float sein.</translation>
    </message>
    <message>
        <source>Both sides must have one type.</source>
        <translation>Beide Seiten müssen denselben Typ haben.</translation>
    </message>
    <message>
        <source>Check the name.</source>
        <translation>Den Namen prüfen.</translation>
    </message>
    <message>
        <source>Choose .clf, or a table without one.</source>
        <translation>.clf wählen, oder eine Tabelle ohne ihn.</translation>
    </message>
    <message>
        <source>Choose .cube or .clf, which hold any table.</source>
        <translation>.cube oder .clf wählen, die jede Tabelle enthalten können.</translation>
    </message>
    <message>
        <source>Choose one of {}.</source>
        <translation>Eines von {} wählen.</translation>
    </message>
    <message>
        <source>Close other pictures and try again.</source>
        <translation>Andere Bilder schließen und noch einmal versuchen.</translation>
    </message>
    <message>
        <source>Deep and volume pictures are not read.</source>
        <translation>Tiefe Bilder und Volumen werden nicht gelesen.</translation>
    </message>
    <message>
        <source>Does another program accept it?</source>
        <translation>Nimmt ein anderes Programm sie an?</translation>
    </message>
    <message>
        <source>Endings: {}.</source>
        <translation>Endungen: {}.</translation>
    </message>
    <message>
        <source>Filters are plain text files ending in .kasuri.</source>
        <translation>Filter sind reine Textdateien mit der Endung .kasuri.</translation>
    </message>
    <message>
        <source>Free some space and try again.</source>
        <translation>Platz schaffen und noch einmal versuchen.</translation>
    </message>
    <message>
        <source>Give a folder to write into.</source>
        <translation>Einen Ordner angeben, in den geschrieben wird.</translation>
    </message>
    <message>
        <source>Give a folder, or a name with # for the digits of frames: out/river.####.exr.</source>
        <translation>Einen Ordner angeben, oder einen Namen mit # für die Ziffern der Bilder: out/river.####.exr.</translation>
    </message>
    <message>
        <source>Give a folder, or a name with more #.</source>
        <translation>Einen Ordner angeben, oder einen Namen mit mehr #.</translation>
    </message>
    <message>
        <source>Give another folder or name.</source>
        <translation>Einen anderen Ordner oder Namen angeben.</translation>
    </message>
    <message>
        <source>Give the lower end first, such as 0 and 1.</source>
        <translation>Das untere Ende zuerst angeben, etwa 0 und 1.</translation>
    </message>
    <message>
        <source>Is it the file that was meant?</source>
        <translation>Ist es die gemeinte Datei?</translation>
    </message>
    <message>
        <source>Is the file whole?</source>
        <translation>Ist die Datei vollständig?</translation>
    </message>
    <message>
        <source>Is the folder writable, and is there space?</source>
        <translation>Kann in den Ordner geschrieben werden, und ist Platz?</translation>
    </message>
    <message>
        <source>It compares two numbers (float): take a component, or a measure such as luminance( ).</source>
        <translation>Zwei Zahlen (float) werden verglichen: eine Komponente nehmen, oder ein Maß wie luminance( ).</translation>
    </message>
    <message>
        <source>It has {}.</source>
        <translation>Es gibt {}.</translation>
    </message>
    <message>
        <source>It has: {}.</source>
        <translation>Es gibt: {}.</translation>
    </message>
    <message>
        <source>It is left where it is.</source>
        <translation>Sie bleibt, wo sie ist.</translation>
    </message>
    <message>
        <source>It may be damaged, or of another kind than its ending says.</source>
        <translation>Sie ist vielleicht beschädigt, oder von anderer Art, als ihre Endung sagt.</translation>
    </message>
    <message>
        <source>It may belong to somebody else, or there is no trash on that disk.</source>
        <translation>Sie gehört vielleicht jemand anderem, oder es gibt auf dem Laufwerk keinen Papierkorb.</translation>
    </message>
    <message>
        <source>It negates numbers, vectors and matrices.</source>
        <translation>Umgekehrt werden Zahlen, Vektoren und Matrizen.</translation>
    </message>
    <message>
        <source>It takes nine numbers or three vec3, row by row: one row for each output channel.</source>
        <translation>Möglich sind neun Zahlen oder drei vec3, Zeile um Zeile: eine Zeile je Ausgangskanal.</translation>
    </message>
    <message>
        <source>It takes numbers and vectors.</source>
        <translation>Möglich sind Zahlen und Vektoren.</translation>
    </message>
    <message>
        <source>Its channels are: {}.</source>
        <translation>Ihre Kanäle sind: {}.</translation>
    </message>
    <message>
        <source>Labels are: {}.</source>
        <translation>Beschriftungen sind: {}.</translation>
    </message>
    <message>
        <source>Make it first, or choose another.</source>
        <translation>Ihn zuerst anlegen, oder einen anderen wählen.</translation>
    </message>
    <message>
        <source>Make two looks of it.</source>
        <translation>Zwei Looks daraus machen.</translation>
    </message>
    <message>
        <source>Name a file in it.</source>
        <translation>Eine Datei darin angeben.</translation>
    </message>
    <message>
        <source>Name a file that ends with .ocio.</source>
        <translation>Eine Datei mit der Endung .ocio angeben.</translation>
    </message>
    <message>
        <source>None has a frame number in the range.</source>
        <translation>Keines hat eine Bildnummer in diesem Bereich.</translation>
    </message>
    <message>
        <source>Nothing was written.</source>
        <translation>Nichts wurde geschrieben.</translation>
    </message>
    <message>
        <source>OpenColorIO config {}</source>
        <translation>OpenColorIO-Konfiguration {}</translation>
    </message>
    <message>
        <source>Or one number for all of them.</source>
        <translation>Oder eine Zahl für alle.</translation>
    </message>
    <message>
        <source>PNG, TIFF and EXR can be read; is the file whole?</source>
        <translation>PNG, TIFF und EXR können gelesen werden; ist die Datei vollständig?</translation>
    </message>
    <message>
        <source>PNG, TIFF and EXR files are read.</source>
        <translation>PNG, TIFF und EXR werden gelesen.</translation>
    </message>
    <message>
        <source>Render fewer pictures at a time (--jobs).</source>
        <translation>Weniger Bilder zugleich rechnen (--jobs).</translation>
    </message>
    <message>
        <source>Render pictures instead, or take the neighbours out of it.</source>
        <translation>Stattdessen Bilder rechnen, oder die Nachbarn herausnehmen.</translation>
    </message>
    <message>
        <source>Render pictures instead, or take the place out of it.</source>
        <translation>Stattdessen Bilder rechnen, oder den Ort herausnehmen.</translation>
    </message>
    <message>
        <source>Render pictures instead.</source>
        <translation>Stattdessen Bilder rechnen.</translation>
    </message>
    <message>
        <source>Render pictures with both and compare those.</source>
        <translation>Bilder mit beiden rechnen und diese vergleichen.</translation>
    </message>
    <message>
        <source>Render them in parts.</source>
        <translation>In Teilen rechnen.</translation>
    </message>
    <message>
        <source>Save often, or make room there.</source>
        <translation>Oft speichern, oder dort Platz schaffen.</translation>
    </message>
    <message>
        <source>Say which file it is.</source>
        <translation>Sagen, welche Datei es ist.</translation>
    </message>
    <message>
        <source>See docs/colour.md for the list.</source>
        <translation>Die Liste steht in docs/colour.md.</translation>
    </message>
    <message>
        <source>See the proof "no NaN or infinity" for where they are born, or narrow the domain.</source>
        <translation>Der Beweis „no NaN or infinity“ zeigt, wo sie entstehen; oder den Bereich verengen.</translation>
    </message>
    <message>
        <source>Take one of them apart.</source>
        <translation>Einen davon zerlegen.</translation>
    </message>
    <message>
        <source>Takes and pins are not shown; the file is left as it is.</source>
        <translation>Fassungen und Nadeln werden nicht gezeigt; die Datei bleibt, wie sie ist.</translation>
    </message>
    <message>
        <source>Takes and pins are not shown; the file is left as it is. Move it away to keep new ones.</source>
        <translation>Fassungen und Nadeln werden nicht gezeigt; die Datei bleibt, wie sie ist. Sie wegräumen, um neue zu behalten.</translation>
    </message>
    <message>
        <source>The file may be cut short; copy it again.</source>
        <translation>Die Datei ist vielleicht abgeschnitten; sie noch einmal kopieren.</translation>
    </message>
    <message>
        <source>The modes are the language's blend functions, without blend_ before them.</source>
        <translation>Die Modi sind die Mischfunktionen der Sprache, ohne blend_ davor.</translation>
    </message>
    <message>
        <source>The space of a LUT's numbers is one that a rule can work in.</source>
        <translation>Der Farbraum der Zahlen einer LUT ist einer, in dem eine Regel arbeiten kann.</translation>
    </message>
    <message>
        <source>Try again in a moment.</source>
        <translation>Gleich noch einmal versuchen.</translation>
    </message>
    <message>
        <source>Use {}.</source>
        <translation>{} benutzen.</translation>
    </message>
    <message>
        <source>Wait until it is there, or give another one.</source>
        <translation>Warten, bis es da ist, oder ein anderes angeben.</translation>
    </message>
    <message>
        <source>Wait, or call it off.</source>
        <translation>Warten, oder abbrechen.</translation>
    </message>
    <message>
        <source>What the sheet shows is an older text; mend this one, or undo.</source>
        <translation>Das Blatt zeigt einen älteren Text; diesen berichtigen, oder rückgängig machen.</translation>
    </message>
    <message>
        <source>Write NAME=FILE, NAME=FILE:LAYER, NAME=FILE:CHANNEL or NAME=target:TARGET.</source>
        <translation>NAME=DATEI, NAME=DATEI:EBENE, NAME=DATEI:KANAL oder NAME=target:TESTBILD schreiben.</translation>
    </message>
    <message>
        <source>Write proof "title" : neutral, or proof "title" on TARGET : a condition on r, g, b and out.</source>
        <translation>proof "Titel" : neutral schreiben, oder proof "Titel" on TESTBILD : eine Bedingung über r, g, b und out.</translation>
    </message>
    <message>
        <source>Write {}.</source>
        <translation>{} schreiben.</translation>
    </message>
    <message>
        <source>"steps" must be a list of at most {} entries</source>
        <translation>"steps" muss eine Liste von höchstens {} Einträgen sein</translation>
    </message>
    <message>
        <source>"{}" does not say which picture a source reads</source>
        <translation>"{}" sagt nicht, welches Bild eine Quelle liest</translation>
    </message>
    <message>
        <source>"{}" is not a proof line</source>
        <translation>"{}" ist keine Beweiszeile</translation>
    </message>
    <message>
        <source>a .cube file has no place for a shaper</source>
        <translation>eine .cube-Datei hat keinen Platz für eine Vorkurve</translation>
    </message>
    <message>
        <source>a channel: r, g, b or a</source>
        <translation>ein Kanal: r, g, b oder a</translation>
    </message>
    <message>
        <source>a colour</source>
        <translation>eine Farbe</translation>
    </message>
    <message>
        <source>a colour such as (0.72, 0.49, 0.4)</source>
        <translation>eine Farbe wie (0.72, 0.49, 0.4)</translation>
    </message>
    <message>
        <source>a colour, vec3(r, g, b)</source>
        <translation>eine Farbe, vec3(r, g, b)</translation>
    </message>
    <message>
        <source>a component</source>
        <translation>eine Komponente</translation>
    </message>
    <message>
        <source>a table of {} points a side is not offered</source>
        <translation>eine Tabelle von {} Punkten je Seite gibt es nicht</translation>
    </message>
    <message>
        <source>a text in quotation marks</source>
        <translation>ein Text in Anführungszeichen</translation>
    </message>
    <message>
        <source>a type</source>
        <translation>ein Typ</translation>
    </message>
    <message>
        <source>a type: float, vec3 or vec4</source>
        <translation>ein Typ: float, vec3 oder vec4</translation>
    </message>
    <message>
        <source>a value</source>
        <translation>ein Wert</translation>
    </message>
    <message>
        <source>a whole number above 0</source>
        <translation>eine ganze Zahl über 0</translation>
    </message>
    <message>
        <source>a whole picture: leave the channel out</source>
        <translation>ein ganzes Bild: den Kanal weglassen</translation>
    </message>
    <message>
        <source>above 0</source>
        <translation>über 0</translation>
    </message>
    <message>
        <source>add the closing "</source>
        <translation>das schließende " einfügen</translation>
    </message>
    <message>
        <source>all steps together change nothing
</source>
        <translation>alle Schritte zusammen ändern nichts
</translation>
    </message>
    <message>
        <source>all {} steps are one exact matrix
</source>
        <translation>alle {} Schritte sind eine genaue Matrix
</translation>
    </message>
    <message>
        <source>an exact matrix</source>
        <translation>eine genaue Matrix</translation>
    </message>
    <message>
        <source>an exact matrix
</source>
        <translation>eine genaue Matrix
</translation>
    </message>
    <message>
        <source>and</source>
        <translation>und</translation>
    </message>
    <message>
        <source>are more than {} lines</source>
        <translation>sind mehr als {} Zeilen</translation>
    </message>
    <message>
        <source>are more than {} pictures</source>
        <translation>sind mehr als {} Bilder</translation>
    </message>
    <message>
        <source>assign to it again, without let</source>
        <translation>ihm neu zuweisen, ohne let</translation>
    </message>
    <message>
        <source>assign to out</source>
        <translation>an out zuweisen</translation>
    </message>
    <message>
        <source>assign to out.{}</source>
        <translation>an out.{} zuweisen</translation>
    </message>
    <message>
        <source>at least</source>
        <translation>mindestens</translation>
    </message>
    <message>
        <source>at most</source>
        <translation>höchstens</translation>
    </message>
    <message>
        <source>at most {} arguments</source>
        <translation>höchstens {} Argumente</translation>
    </message>
    <message>
        <source>called off</source>
        <translation>abgebrochen</translation>
    </message>
    <message>
        <source>cannot be copied: {}</source>
        <translation>kann nicht kopiert werden: {}</translation>
    </message>
    <message>
        <source>cannot be moved to the trash</source>
        <translation>kann nicht in den Papierkorb gelegt werden</translation>
    </message>
    <message>
        <source>cannot be read as a picture ({})</source>
        <translation>kann nicht als Bild gelesen werden ({})</translation>
    </message>
    <message>
        <source>cannot be read to its end ({})</source>
        <translation>kann nicht bis zum Ende gelesen werden ({})</translation>
    </message>
    <message>
        <source>cannot be read: {}</source>
        <translation>kann nicht gelesen werden: {}</translation>
    </message>
    <message>
        <source>cannot be renamed: {}</source>
        <translation>kann nicht umbenannt werden: {}</translation>
    </message>
    <message>
        <source>cannot be understood: {}</source>
        <translation>ist nicht zu verstehen: {}</translation>
    </message>
    <message>
        <source>cannot be used as a colour config ({})</source>
        <translation>kann nicht als Farbkonfiguration benutzt werden ({})</translation>
    </message>
    <message>
        <source>cannot be written ({})</source>
        <translation>kann nicht geschrieben werden ({})</translation>
    </message>
    <message>
        <source>cannot be written: {}</source>
        <translation>kann nicht geschrieben werden: {}</translation>
    </message>
    <message>
        <source>cannot hold numbers of that depth</source>
        <translation>kann Zahlen dieser Tiefe nicht enthalten</translation>
    </message>
    <message>
        <source>cannot put the new file in place: {}</source>
        <translation>die neue Datei kann nicht an ihren Platz gesetzt werden: {}</translation>
    </message>
    <message>
        <source>changes nothing at the defaults: proved
</source>
        <translation>ändert nichts mit den Ausgangswerten: bewiesen
</translation>
    </message>
    <message>
        <source>changes nothing at these values
</source>
        <translation>ändert nichts bei diesen Werten
</translation>
    </message>
    <message>
        <source>changes nothing
</source>
        <translation>ändert nichts
</translation>
    </message>
    <message>
        <source>comes later</source>
        <translation>kommt erst später</translation>
    </message>
    <message>
        <source>depends on {}, so it cannot be compared colour by colour</source>
        <translation>hängt von {} ab, also kann nicht Farbe für Farbe verglichen werden</translation>
    </message>
    <message>
        <source>determinant {}, in {}
</source>
        <translation>Determinante {}, in {}
</translation>
    </message>
    <message>
        <source>did you mean {}?</source>
        <translation>ist {} gemeint?</translation>
    </message>
    <message>
        <source>does not compare with another filter</source>
        <translation>vergleicht nicht mit einem anderen Filter</translation>
    </message>
    <message>
        <source>does not fit into memory</source>
        <translation>passt nicht in den Speicher</translation>
    </message>
    <message>
        <source>files cannot be used here</source>
        <translation>Dateien können hier nicht benutzt werden</translation>
    </message>
    <message>
        <source>files of this kind hold tables from 0 to 1 only</source>
        <translation>Dateien dieser Art enthalten nur Tabellen von 0 bis 1</translation>
    </message>
    <message>
        <source>fits no file</source>
        <translation>passt auf keine Datei</translation>
    </message>
    <message>
        <source>greys keep their value, for all values of the parameters: proved
</source>
        <translation>Grau behält seinen Wert, für alle Werte der Parameter: bewiesen
</translation>
    </message>
    <message>
        <source>greys stay grey, for all values of the parameters: proved
</source>
        <translation>Grau bleibt grau, für alle Werte der Parameter: bewiesen
</translation>
    </message>
    <message>
        <source>has looks within looks, more than {} deep</source>
        <translation>enthält Looks in Looks, mehr als {} tief</translation>
    </message>
    <message>
        <source>has looks within looks, {} deep; {} is the deepest</source>
        <translation>enthält Looks in Looks, {} tief; höchstens {} geht</translation>
    </message>
    <message>
        <source>has no channel to read</source>
        <translation>hat keinen Kanal, der gelesen werden kann</translation>
    </message>
    <message>
        <source>has no channel to work on</source>
        <translation>hat keinen Kanal, an dem gearbeitet werden kann</translation>
    </message>
    <message>
        <source>has no colour correction in it</source>
        <translation>enthält keine Farbkorrektur</translation>
    </message>
    <message>
        <source>has no number in its name that could take the place of the #</source>
        <translation>hat keine Nummer im Namen, die an die Stelle von # treten könnte</translation>
    </message>
    <message>
        <source>has no number under "{}"</source>
        <translation>hat keine Zahl unter "{}"</translation>
    </message>
    <message>
        <source>has no pictures in it</source>
        <translation>enthält keine Bilder</translation>
    </message>
    <message>
        <source>has no steps</source>
        <translation>hat keine Schritte</translation>
    </message>
    <message>
        <source>has no text in it</source>
        <translation>enthält keinen Text</translation>
    </message>
    <message>
        <source>has {} steps, with those of looks within it; {} are the most</source>
        <translation>hat {} Schritte, mit denen der Looks darin; höchstens {} gehen</translation>
    </message>
    <message>
        <source>held</source>
        <translation>gehalten</translation>
    </message>
    <message>
        <source>hold hue of a colour</source>
        <translation>hold hue of einer Farbe</translation>
    </message>
    <message>
        <source>holds no flat picture</source>
        <translation>enthält kein flaches Bild</translation>
    </message>
    <message>
        <source>is a recovery file of version {}; this Kasuri knows version {}</source>
        <translation>ist eine Wiederherstellungsdatei der Version {}; dieses Kasuri kennt Version {}</translation>
    </message>
    <message>
        <source>is being rendered already</source>
        <translation>wird schon gerechnet</translation>
    </message>
    <message>
        <source>is not a JSON object</source>
        <translation>ist kein JSON-Objekt</translation>
    </message>
    <message>
        <source>is not a kind of LUT that can be written</source>
        <translation>ist keine Art von LUT, die geschrieben werden kann</translation>
    </message>
    <message>
        <source>is not a name for a file</source>
        <translation>ist kein Name für eine Datei</translation>
    </message>
    <message>
        <source>is not a recovery file</source>
        <translation>ist keine Wiederherstellungsdatei</translation>
    </message>
    <message>
        <source>is not a text LUT</source>
        <translation>ist keine LUT als Text</translation>
    </message>
    <message>
        <source>is not a text: byte {} has no meaning in UTF-8</source>
        <translation>ist kein Text: Byte {} hat in UTF-8 keine Bedeutung</translation>
    </message>
    <message>
        <source>is of version {}; this Kasuri knows version {}</source>
        <translation>ist von Version {}; dieses Kasuri kennt Version {}</translation>
    </message>
    <message>
        <source>is one file, and there are {} pictures</source>
        <translation>ist eine Datei, und es sind {} Bilder</translation>
    </message>
    <message>
        <source>is there already</source>
        <translation>ist schon da</translation>
    </message>
    <message>
        <source>is this step itself</source>
        <translation>dieser Schritt selbst ist</translation>
    </message>
    <message>
        <source>is {} bytes long, more than any file of its kind</source>
        <translation>ist {} Byte lang, mehr als jede Datei dieser Art</translation>
    </message>
    <message>
        <source>it does not compile</source>
        <translation>sie ist fehlerhaft</translation>
    </message>
    <message>
        <source>it names {} but has no copy of it ("text"), and a look does what its copies say</source>
        <translation>er nennt {} und hat keine Kopie davon ("text"), und ein Look tut, was seine Kopien sagen</translation>
    </message>
    <message>
        <source>its LUT {}</source>
        <translation>seine LUT {}</translation>
    </message>
    <message>
        <source>its "lut" is {}, which is not the ending of a LUT file</source>
        <translation>sein "lut" ist {}, und das ist keine Endung einer LUT-Datei</translation>
    </message>
    <message>
        <source>its "uses" must be a JSON object</source>
        <translation>sein "uses" muss ein JSON-Objekt sein</translation>
    </message>
    <message>
        <source>its "values" must be a JSON object</source>
        <translation>sein "values" muss ein JSON-Objekt sein</translation>
    </message>
    <message>
        <source>its "{}" is not {}</source>
        <translation>sein "{}" ist nicht {}</translation>
    </message>
    <message>
        <source>its "{}" must be a list of texts</source>
        <translation>sein "{}" muss eine Liste von Texten sein</translation>
    </message>
    <message>
        <source>its attribute names the space {}, which is not known here</source>
        <translation>ihr Attribut nennt den Farbraum {}, der hier nicht bekannt ist</translation>
    </message>
    <message>
        <source>its cICP chunk names primaries {} and transfer {}, which are not known here</source>
        <translation>ihr cICP-Block nennt Primärfarben {} und Kurve {}, die hier nicht bekannt sind</translation>
    </message>
    <message>
        <source>its chromaticities (red {:.4g} {:.4g}, green {:.4g} {:.4g}, blue {:.4g} {:.4g}, white {:.4g} {:.4g}) are those of no known space: the pixels were converted to {} once</source>
        <translation>ihre Farbarten (Rot {:.4g} {:.4g}, Grün {:.4g} {:.4g}, Blau {:.4g} {:.4g}, Weiß {:.4g} {:.4g}) gehören zu keinem bekannten Farbraum: die Pixel wurden einmal nach {} umgerechnet</translation>
    </message>
    <message>
        <source>its chromaticities make no sense; the usual space is assumed</source>
        <translation>ihre Farbarten ergeben keinen Sinn; der übliche Farbraum wird angenommen</translation>
    </message>
    <message>
        <source>its colour profile "{}" has no way from r, g, b to light</source>
        <translation>ihr Farbprofil „{}“ hat keinen Weg von r, g, b zum Licht</translation>
    </message>
    <message>
        <source>its colour profile "{}" is a table, not a matrix and curves: the pixels were taken through it to linear light once, within 0..1, relative colorimetric</source>
        <translation>ihr Farbprofil „{}“ ist eine Tabelle, keine Matrix mit Kurven: die Pixel wurden einmal durch sie in lineares Licht gebracht, innerhalb von 0..1, relativ farbmetrisch</translation>
    </message>
    <message>
        <source>its colour profile "{}" is of no known space: the pixels were converted to {} once</source>
        <translation>ihr Farbprofil „{}“ gehört zu keinem bekannten Farbraum: die Pixel wurden einmal nach {} umgerechnet</translation>
    </message>
    <message>
        <source>its copy of the rule was changed by hand (its hash is another one); remove "hash" if that is meant</source>
        <translation>seine Kopie der Regel wurde von Hand geändert (ihr Hash ist ein anderer); "hash" entfernen, wenn das gewollt ist</translation>
    </message>
    <message>
        <source>its copy of {} is not a text</source>
        <translation>seine Kopie von {} ist kein Text</translation>
    </message>
    <message>
        <source>its function {} is already the name of something</source>
        <translation>ihre Funktion {} ist schon der Name von etwas</translation>
    </message>
    <message>
        <source>its mask must be a single number</source>
        <translation>seine Maske muss eine einzelne Zahl sein</translation>
    </message>
    <message>
        <source>its mask: {}</source>
        <translation>seine Maske: {}</translation>
    </message>
    <message>
        <source>its opacity {} is not between 0 and 1</source>
        <translation>seine Deckkraft {} liegt nicht zwischen 0 und 1</translation>
    </message>
    <message>
        <source>its rule: {}</source>
        <translation>seine Regel: {}</translation>
    </message>
    <message>
        <source>its source {}</source>
        <translation>seine Quelle {}</translation>
    </message>
    <message>
        <source>its value of {} is not a number</source>
        <translation>sein Wert von {} ist keine Zahl</translation>
    </message>
    <message>
        <source>its {} are of no known space: the pixels were converted to {} once</source>
        <translation>ihre {} gehören zu keinem bekannten Farbraum: die Pixel wurden einmal nach {} umgerechnet</translation>
    </message>
    <message>
        <source>its {} {} is not between {} and {} pixels</source>
        <translation>sein {} {} liegt nicht zwischen {} und {} Pixeln</translation>
    </message>
    <message>
        <source>kasuri-cli target lists them.</source>
        <translation>kasuri-cli target zählt sie auf.</translation>
    </message>
    <message>
        <source>kept</source>
        <translation>erhalten werden</translation>
    </message>
    <message>
        <source>leave alpha out</source>
        <translation>Alpha weglassen</translation>
    </message>
    <message>
        <source>line {}</source>
        <translation>Zeile {}</translation>
    </message>
    <message>
        <source>line {}, column {}: {}</source>
        <translation>Zeile {}, Spalte {}: {}</translation>
    </message>
    <message>
        <source>luminance is kept, for all values of the parameters: proved
</source>
        <translation>Leuchtdichte bleibt, für alle Werte der Parameter: bewiesen
</translation>
    </message>
    <message>
        <source>make it with let</source>
        <translation>mit let anlegen</translation>
    </message>
    <message>
        <source>most people</source>
        <translation>die meisten</translation>
    </message>
    <message>
        <source>names a file outside this filter's folder</source>
        <translation>nennt eine Datei außerhalb des Ordners dieses Filters</translation>
    </message>
    <message>
        <source>needs a filter to compare with</source>
        <translation>braucht einen Filter zum Vergleich</translation>
    </message>
    <message>
        <source>no arguments</source>
        <translation>keine Argumente</translation>
    </message>
    <message>
        <source>no components</source>
        <translation>keine Komponenten</translation>
    </message>
    <message>
        <source>no picture can be written with this ending</source>
        <translation>mit dieser Endung kann kein Bild geschrieben werden</translation>
    </message>
    <message>
        <source>no picture is left</source>
        <translation>kein Bild bleibt übrig</translation>
    </message>
    <message>
        <source>no step is on: changes nothing
</source>
        <translation>kein Schritt ist ein: ändert nichts
</translation>
    </message>
    <message>
        <source>not known yet</source>
        <translation>noch nicht bekannt</translation>
    </message>
    <message>
        <source>of and a colour</source>
        <translation>of und eine Farbe</translation>
    </message>
    <message>
        <source>one channel: put .r, .g, .b or .a behind it</source>
        <translation>einen Kanal: .r, .g, .b oder .a dahintersetzen</translation>
    </message>
    <message>
        <source>one number</source>
        <translation>eine Zahl</translation>
    </message>
    <message>
        <source>picture in the file is</source>
        <translation>Bild in der Datei wird</translation>
    </message>
    <message>
        <source>picture or step</source>
        <translation>Bild oder Schritt</translation>
    </message>
    <message>
        <source>picture or step "LABEL"</source>
        <translation>picture oder step "BESCHRIFTUNG"</translation>
    </message>
    <message>
        <source>pictures in the file are</source>
        <translation>Bilder in der Datei werden</translation>
    </message>
    <message>
        <source>proofs of the look</source>
        <translation>Beweise des Looks</translation>
    </message>
    <message>
        <source>proofs of the look, in {}</source>
        <translation>Beweise des Looks, in {}</translation>
    </message>
    <message>
        <source>proofs of the look, line {}</source>
        <translation>Beweise des Looks, Zeile {}</translation>
    </message>
    <message>
        <source>proved; rounding measured</source>
        <translation>bewiesen; Rundung gemessen</translation>
    </message>
    <message>
        <source>put the matrix first</source>
        <translation>die Matrix nach vorn setzen</translation>
    </message>
    <message>
        <source>r g b (or x y z)</source>
        <translation>r g b (oder x y z)</translation>
    </message>
    <message>
        <source>r g b a (or x y z w)</source>
        <translation>r g b a (oder x y z w)</translation>
    </message>
    <message>
        <source>r, g, b and a</source>
        <translation>r, g, b und a</translation>
    </message>
    <message>
        <source>sampled</source>
        <translation>an Stichproben gemessen</translation>
    </message>
    <message>
        <source>says it is {} x {} with {} channels, more than can be held</source>
        <translation>gibt {} x {} mit {} Kanälen an, mehr als gehalten werden kann</translation>
    </message>
    <message>
        <source>shown by algebra where the rule gives numbers, but it gives none here; sampled</source>
        <translation>durch Algebra gezeigt, wo die Regel Zahlen ergibt, aber hier ergibt sie keine; an Stichproben gemessen</translation>
    </message>
    <message>
        <source>step {}: {}</source>
        <translation>Schritt {}: {}</translation>
    </message>
    <message>
        <source>steps {} {} {}</source>
        <translation>Schritte {} {} {}</translation>
    </message>
    <message>
        <source>swap the ends</source>
        <translation>die Enden tauschen</translation>
    </message>
    <message>
        <source>the colour</source>
        <translation>die Farbe</translation>
    </message>
    <message>
        <source>the config does not say how its light relates to other light (role aces_interchange): its scene_linear is taken as linear BT.709</source>
        <translation>die Konfiguration sagt nicht, wie sich ihr Licht zu anderem verhält (Rolle aces_interchange): ihr scene_linear gilt als lineares BT.709</translation>
    </message>
    <message>
        <source>the config has no colour space that can be used</source>
        <translation>die Konfiguration hat keinen brauchbaren Farbraum</translation>
    </message>
    <message>
        <source>the config names no space by which it meets others (the roles aces_interchange, cie_xyz_d65_interchange or scene_linear)</source>
        <translation>die Konfiguration nennt keinen Farbraum, über den sie andere trifft (die Rollen aces_interchange, cie_xyz_d65_interchange oder scene_linear)</translation>
    </message>
    <message>
        <source>the config's space {} cannot be used both ways: {}</source>
        <translation>der Farbraum {} der Konfiguration geht nicht in beide Richtungen: {}</translation>
    </message>
    <message>
        <source>the config's space {} has the name of a built-in one and was left out</source>
        <translation>der Farbraum {} der Konfiguration heißt wie ein eingebauter und wurde ausgelassen</translation>
    </message>
    <message>
        <source>the control character {}</source>
        <translation>das Steuerzeichen {}</translation>
    </message>
    <message>
        <source>the domain is empty</source>
        <translation>der Bereich ist leer</translation>
    </message>
    <message>
        <source>the end of the line</source>
        <translation>das Ende der Zeile</translation>
    </message>
    <message>
        <source>the end of the rule</source>
        <translation>das Ende der Regel</translation>
    </message>
    <message>
        <source>the file cannot say that its numbers are of {}</source>
        <translation>die Datei kann nicht sagen, dass ihre Zahlen {} sind</translation>
    </message>
    <message>
        <source>the file is longer than {} bytes</source>
        <translation>die Datei ist länger als {} Byte</translation>
    </message>
    <message>
        <source>the link leads nowhere: {}</source>
        <translation>die Verknüpfung führt nirgendwohin: {}</translation>
    </message>
    <message>
        <source>the name of a colour model</source>
        <translation>der Name eines Farbmodells</translation>
    </message>
    <message>
        <source>the name of a parameter</source>
        <translation>der Name eines Parameters</translation>
    </message>
    <message>
        <source>the name of a space</source>
        <translation>der Name eines Farbraums</translation>
    </message>
    <message>
        <source>the name of a target, or a colour such as (0.72, 0.49, 0.4)</source>
        <translation>der Name eines Testbilds, oder eine Farbe wie (0.72, 0.49, 0.4)</translation>
    </message>
    <message>
        <source>the name of an argument</source>
        <translation>der Name eines Arguments</translation>
    </message>
    <message>
        <source>the name of an option</source>
        <translation>der Name einer Option</translation>
    </message>
    <message>
        <source>the picture for {} has not been read</source>
        <translation>das Bild für {} ist noch nicht gelesen</translation>
    </message>
    <message>
        <source>the rule does not compile: {}</source>
        <translation>die Regel ist fehlerhaft: {}</translation>
    </message>
    <message>
        <source>the rule is being checked</source>
        <translation>die Regel wird geprüft</translation>
    </message>
    <message>
        <source>the {} depends on the place in the picture (pos, pixel, aspect or extent), which a LUT cannot hold</source>
        <translation>{}: hängt vom Ort im Bild ab (pos, pixel, aspect oder extent), das kann eine LUT nicht enthalten</translation>
    </message>
    <message>
        <source>the {} has no source {}</source>
        <translation>{}: hat keine Quelle {}</translation>
    </message>
    <message>
        <source>the {} looks at neighbouring pixels (blur, sharpen, dilate or erode), which a LUT cannot hold</source>
        <translation>{}: sieht auf benachbarte Pixel (blur, sharpen, dilate oder erode), das kann eine LUT nicht enthalten</translation>
    </message>
    <message>
        <source>the {} reads further pictures, which a LUT cannot hold</source>
        <translation>{}: liest weitere Bilder, das kann eine LUT nicht enthalten</translation>
    </message>
    <message>
        <source>the {} reads the further picture {}, and there is no layer or channel of that name</source>
        <translation>{}: liest das weitere Bild {}, und es gibt keine Ebene und keinen Kanal dieses Namens</translation>
    </message>
    <message>
        <source>there is no blend mode {}</source>
        <translation>es gibt keinen Mischmodus {}</translation>
    </message>
    <message>
        <source>there is no folder to write to</source>
        <translation>es gibt keinen Ordner, in den geschrieben werden könnte</translation>
    </message>
    <message>
        <source>there is no layer or channel {}</source>
        <translation>es gibt keine Ebene und keinen Kanal {}</translation>
    </message>
    <message>
        <source>there is no layer {}</source>
        <translation>es gibt keine Ebene {}</translation>
    </message>
    <message>
        <source>there is no look of several steps</source>
        <translation>es gibt keinen Look aus mehreren Schritten</translation>
    </message>
    <message>
        <source>there is no rule that compiles yet</source>
        <translation>es gibt noch keine gültige Regel</translation>
    </message>
    <message>
        <source>there is no size</source>
        <translation>es gibt keine solche Größe</translation>
    </message>
    <message>
        <source>there is no space {}</source>
        <translation>es gibt keinen Farbraum {}</translation>
    </message>
    <message>
        <source>there is no such colour config</source>
        <translation>es gibt keine solche Farbkonfiguration</translation>
    </message>
    <message>
        <source>there is no such file</source>
        <translation>es gibt keine solche Datei</translation>
    </message>
    <message>
        <source>there is no target {}</source>
        <translation>es gibt kein Testbild {}</translation>
    </message>
    <message>
        <source>there is not enough memory for it</source>
        <translation>der Speicher reicht dafür nicht</translation>
    </message>
    <message>
        <source>this is a folder, not a file</source>
        <translation>das ist ein Ordner, keine Datei</translation>
    </message>
    <message>
        <source>this is a folder, not a picture</source>
        <translation>das ist ein Ordner, kein Bild</translation>
    </message>
    <message>
        <source>three curves</source>
        <translation>drei Kurven</translation>
    </message>
    <message>
        <source>three gains</source>
        <translation>drei Verstärkungen</translation>
    </message>
    <message>
        <source>three independent curves
</source>
        <translation>drei unabhängige Kurven
</translation>
    </message>
    <message>
        <source>to</source>
        <translation>bis</translation>
    </message>
    <message>
        <source>true or false</source>
        <translation>true oder false</translation>
    </message>
    <message>
        <source>turn it into r, g, b</source>
        <translation>in r, g, b verwandeln</translation>
    </message>
    <message>
        <source>unsaved work cannot be kept: {}</source>
        <translation>ungespeicherte Arbeit kann nicht behalten werden: {}</translation>
    </message>
    <message>
        <source>was not written whole</source>
        <translation>wurde nicht vollständig geschrieben</translation>
    </message>
    <message>
        <source>what a source reads</source>
        <translation>was eine Quelle liest</translation>
    </message>
    <message>
        <source>widen the range</source>
        <translation>den Bereich erweitern</translation>
    </message>
    <message>
        <source>would be written over one of the pictures that are read</source>
        <translation>würde über eines der gelesenen Bilder geschrieben</translation>
    </message>
    <message>
        <source>would be written twice, for {} and for {}</source>
        <translation>würde zweimal geschrieben, für {} und für {}</translation>
    </message>
    <message>
        <source>write it to out.rgb as r, g, b</source>
        <translation>als r, g, b an out.rgb schreiben</translation>
    </message>
    <message>
        <source>write it to r, g and b</source>
        <translation>an r, g und b schreiben</translation>
    </message>
    <message>
        <source>write it to {}.rgb</source>
        <translation>an {}.rgb schreiben</translation>
    </message>
    <message>
        <source>x y (or r g)</source>
        <translation>x y (oder r g)</translation>
    </message>
    <message>
        <source>{} = {} r  {} g  {} b  + {}   sum {}
</source>
        <translation>{} = {} r  {} g  {} b  + {}   Summe {}
</translation>
    </message>
    <message>
        <source>{} arguments</source>
        <translation>{} Argumente</translation>
    </message>
    <message>
        <source>{} components</source>
        <translation>{} Komponenten</translation>
    </message>
    <message>
        <source>{} for {} is {} x {} pixels: stretched to {} x {}</source>
        <translation>{} für {} ist {} x {} Pixel groß: auf {} x {} gestreckt</translation>
    </message>
    <message>
        <source>{} is not a name: letters, digits and _, a letter first, and no word of the language</source>
        <translation>{} ist kein Name: Buchstaben, Ziffern und _, ein Buchstabe zuerst, und kein Wort der Sprache</translation>
    </message>
    <message>
        <source>{} means something in the language already</source>
        <translation>{} bedeutet in der Sprache schon etwas</translation>
    </message>
    <message>
        <source>{} numbers are below 0, which {} does not have: is it meant to be linear?</source>
        <translation>{} Zahlen liegen unter 0, was es in {} nicht gibt: ist linear gemeint?</translation>
    </message>
    <message>
        <source>{} of the table's colours are NaN or infinite, which a LUT cannot hold</source>
        <translation>{} Farben der Tabelle sind NaN oder unendlich, das kann eine LUT nicht enthalten</translation>
    </message>
    <message>
        <source>{} reads the step "{}", and there is none of that label</source>
        <translation>{} liest den Schritt „{}“, und keiner ist so beschriftet</translation>
    </message>
    <message>
        <source>{} reads the step "{}", which {}</source>
        <translation>{} liest den Schritt „{}“, der {}</translation>
    </message>
    <message>
        <source>{} stands in the text already</source>
        <translation>{} steht schon im Text</translation>
    </message>
    <message>
        <source>{} together are the identity
</source>
        <translation>{} zusammen ändern nichts
</translation>
    </message>
    <message>
        <source>{}, line {}</source>
        <translation>{}, Zeile {}</translation>
    </message>
    <message>
        <source>{}: {} cannot be read; the look has its own copy</source>
        <translation>{}: {} kann nicht gelesen werden; der Look hat seine eigene Kopie</translation>
    </message>
    <message>
        <source>{}: {} says something else now; the look has its own copy</source>
        <translation>{}: {} sagt jetzt etwas anderes; der Look hat seine eigene Kopie</translation>
    </message>
    <message>
        <source>{}; the usual space is assumed</source>
        <translation>{}; der übliche Farbraum wird angenommen</translation>
    </message>
    <message>
        <source>{}step {}{}</source>
        <translation>{}Schritt {}{}</translation>
    </message>
    <message>
        <source>} at the end of the function</source>
        <translation>} am Ende der Funktion</translation>
    </message>
    <message>
        <source>, {} taken to be {} things: there is no picture for it</source>
        <translation>, {} als {} verschiedene Dinge angenommen: dafür gibt es kein Bild</translation>
    </message>
    <message>
        <source>, {} taken to be {} things: there is no picture for them</source>
        <translation>, {} als {} verschiedene Dinge angenommen: dafür gibt es keine Bilder</translation>
    </message>
    <message>
        <source>Name a file.</source>
        <translation>Eine Datei angeben.</translation>
    </message>
    <message>
        <source>Start what reads it first.</source>
        <translation>Zuerst starten, was davon liest.</translation>
    </message>
    <message>
        <source>nobody reads from it</source>
        <translation>niemand liest davon</translation>
    </message>
    <message>
        <source>the link leads in a circle</source>
        <translation>die Verknüpfung führt im Kreis</translation>
    </message>
    <message>
        <source>this is a device or a pipe, not a file</source>
        <translation>das ist ein Gerät oder eine Leitung, keine Datei</translation>
    </message>
    <message>
        <source>A mask is an expression such as smoothstep(0.2, 0.6, luminance(rgb)).</source>
        <translation>Eine Maske ist ein Ausdruck wie smoothstep(0.2, 0.6, luminance(rgb)).</translation>
    </message>
    <message>
        <source>Check its permissions.</source>
        <translation>Die Rechte prüfen.</translation>
    </message>
    <message>
        <source>Choose another folder, or check its permissions.</source>
        <translation>Einen anderen Ordner wählen, oder seine Rechte prüfen.</translation>
    </message>
    <message>
        <source>Is the folder still there?</source>
        <translation>Gibt es den Ordner noch?</translation>
    </message>
    <message>
        <source>Save under another name, or lift the protection.</source>
        <translation>Unter anderem Namen speichern, oder den Schutz aufheben.</translation>
    </message>
    <message>
        <source>cannot bring the file to disk</source>
        <translation>die Datei kann nicht auf den Datenträger gebracht werden</translation>
    </message>
    <message>
        <source>cannot open</source>
        <translation>kann nicht geöffnet werden</translation>
    </message>
    <message>
        <source>cannot open the folder</source>
        <translation>der Ordner kann nicht geöffnet werden</translation>
    </message>
    <message>
        <source>cannot read</source>
        <translation>kann nicht gelesen werden</translation>
    </message>
    <message>
        <source>cannot reopen what was written</source>
        <translation>was geschrieben wurde, kann nicht wieder geöffnet werden</translation>
    </message>
    <message>
        <source>cannot write all of the file</source>
        <translation>die Datei kann nicht ganz geschrieben werden</translation>
    </message>
    <message>
        <source>cannot write here</source>
        <translation>hier kann nicht geschrieben werden</translation>
    </message>
    <message>
        <source>the file is write-protected</source>
        <translation>die Datei ist schreibgeschützt</translation>
    </message>
    <message>
        <source>Bring the step up to date with its file.</source>
        <translation>Den Schritt mit seiner Datei auf den neuen Stand bringen.</translation>
    </message>
    <message>
        <source>Is its disk full?</source>
        <translation>Ist der Datenträger voll?</translation>
    </message>
    <message>
        <source>Let one of them begin from the reference.</source>
        <translation>Einen davon vom Bezug aus beginnen lassen.</translation>
    </message>
    <message>
        <source>Make it smaller, or open it on a larger machine.</source>
        <translation>Verkleinern, oder auf einem größeren Rechner öffnen.</translation>
    </message>
    <message>
        <source>Put the content of that file into it.</source>
        <translation>Den Inhalt jener Datei hineinschreiben.</translation>
    </message>
    <message>
        <source>Save it as UTF-8.</source>
        <translation>Als UTF-8 speichern.</translation>
    </message>
    <message>
        <source>cannot be read: there is no folder for temporary files</source>
        <translation>kann nicht gelesen werden: es gibt keinen Ordner für vorläufige Dateien</translation>
    </message>
    <message>
        <source>files use each other in a circle: {}</source>
        <translation>Dateien benutzen einander im Kreis: {}</translation>
    </message>
    <message>
        <source>files use files deeper than {} levels</source>
        <translation>Dateien benutzen Dateien tiefer als {} Ebenen</translation>
    </message>
    <message>
        <source>is not a JSON object: a number in it is too large</source>
        <translation>ist kein JSON-Objekt: eine Zahl darin ist zu groß</translation>
    </message>
    <message>
        <source>is not a JSON object: it breaks off in line {}, column {}</source>
        <translation>ist kein JSON-Objekt: es bricht in Zeile {}, Spalte {} ab</translation>
    </message>
    <message>
        <source>is not a text</source>
        <translation>ist kein Text</translation>
    </message>
    <message>
        <source>is not whole: its curves or its table end too early</source>
        <translation>ist nicht vollständig: Kurven oder Tabelle enden zu früh</translation>
    </message>
    <message>
        <source>is {} x {} with {} channels, {:.1f} GB; half of this machine's memory is {:.1f} GB</source>
        <translation>ist {} x {} mit {} Kanälen, {:.1f} GB; die Hälfte des Speichers dieses Rechners ist {:.1f} GB</translation>
    </message>
    <message>
        <source>is {}, not a JSON object</source>
        <translation>ist {}, kein JSON-Objekt</translation>
    </message>
    <message>
        <source>nests too deeply: {} levels are the most</source>
        <translation>ist zu tief verschachtelt: höchstens {} Ebenen gehen</translation>
    </message>
    <message>
        <source>no reader knows what is in it</source>
        <translation>kein Leser weiß, was darin steht</translation>
    </message>
    <message>
        <source>refers to another file, whose content could change what it does</source>
        <translation>verweist auf eine andere Datei, deren Inhalt ändern könnte, was sie tut</translation>
    </message>
    <message>
        <source>the config's spaces are worked out from each other in a circle: {}</source>
        <translation>die Farbräume der Konfiguration ergeben sich im Kreis auseinander: {}</translation>
    </message>
    <message>
        <source>the look has no copy of it</source>
        <translation>der Look hat keine Kopie davon</translation>
    </message>
    <message>
        <source>Nobody sets so many by hand: make lets of most, or split the rule into several filters.</source>
        <translation>So viele stellt niemand von Hand: die meisten zu lets machen, oder die Regel auf mehrere Filter verteilen.</translation>
    </message>
    <message>
        <source>the rule has %1 parameters; the limit is %2</source>
        <translation>die Regel hat %1 Parameter; die Grenze ist %2</translation>
    </message>
    <message>
        <source>the rule has %1 statements; the limit is %2</source>
        <translation>die Regel hat %1 Anweisungen; die Grenze ist %2</translation>
    </message>
    <message>
        <source>is not a look: {}</source>
        <translation>ist kein Look: {}</translation>
    </message>
    <message>
        <source>Close other programs and try again.</source>
        <translation>Andere Programme schließen und noch einmal versuchen.</translation>
    </message>
    <message>
        <source>Install Kasuri again.</source>
        <translation>Kasuri neu installieren.</translation>
    </message>
    <message>
        <source>it ended</source>
        <translation>es endete</translation>
    </message>
    <message>
        <source>it said nothing for {} seconds</source>
        <translation>es sagte {} Sekunden lang nichts</translation>
    </message>
    <message>
        <source>it said what nobody understands</source>
        <translation>es sagte, was niemand versteht</translation>
    </message>
    <message>
        <source>signal {}</source>
        <translation>Signal {}</translation>
    </message>
    <message>
        <source>the library for LUTs and colour configs</source>
        <translation>Die Bibliothek für LUTs und Farbkonfigurationen</translation>
    </message>
    <message>
        <source>the library for pictures</source>
        <translation>Die Bibliothek für Bilder</translation>
    </message>
    <message>
        <source>the program {} is not there, which reads such files for this one</source>
        <translation>das Programm {} fehlt, das solche Dateien für dieses liest</translation>
    </message>
    <message>
        <source>{} cannot be started ({})</source>
        <translation>{} kann nicht gestartet werden ({})</translation>
    </message>
    <message>
        <source>{} could not cope with it ({})</source>
        <translation>{} kam damit nicht zurecht ({})</translation>
    </message>
    <message>
        <source>The file may be damaged or too large; nothing else was touched.</source>
        <translation>Die Datei ist vielleicht beschädigt oder zu groß; sonst wurde nichts angerührt.</translation>
    </message>
    <message>
        <source>In quotes, * stands for any letters and # for digits.</source>
        <translation>In Anführungszeichen steht * für beliebige Zeichen und # für Ziffern.</translation>
    </message>
    <message>
        <source>cannot look into this folder</source>
        <translation>in diesen Ordner kann nicht gesehen werden</translation>
    </message>
    <message>
        <source>its folder cannot be made ({})</source>
        <translation>sein Ordner kann nicht angelegt werden ({})</translation>
    </message>
    <message>
        <source>nothing can be written there (is the disk full?)</source>
        <translation>dort kann nichts geschrieben werden (ist die Platte voll?)</translation>
    </message>
    <message>
        <source>nothing may be written there</source>
        <translation>dort darf nichts geschrieben werden</translation>
    </message>
    <message>
        <source>there is no such folder</source>
        <translation>diesen Ordner gibt es nicht</translation>
    </message>
    <message>
        <source>the config has {} colour spaces; the limit is {}</source>
        <translation>die Konfiguration hat {} Farbräume; die Grenze ist {}</translation>
    </message>
    <message>
        <source>Take those out of it that are not needed.</source>
        <translation>Die nicht gebrauchten herausnehmen.</translation>
    </message>
    <message>
        <source>Give colours before and after.</source>
        <translation>Farben davor und danach angeben.</translation>
    </message>
    <message>
        <source>Give more colours.</source>
        <translation>Mehr Farben angeben.</translation>
    </message>
    <message>
        <source>Give pictures that are exposed between black and white.</source>
        <translation>Bilder angeben, die zwischen Schwarz und Weiß belichtet sind.</translation>
    </message>
    <message>
        <source>Give two pictures, before and after.</source>
        <translation>Zwei Bilder angeben, davor und danach.</translation>
    </message>
    <message>
        <source>Mend that first: `kasuri-cli check` shows where.</source>
        <translation>Das zuerst beheben: `kasuri-cli check` zeigt, wo.</translation>
    </message>
    <message>
        <source>Say with --in-space what both are.</source>
        <translation>Mit --in-space angeben, was beide sind.</translation>
    </message>
    <message>
        <source>Write r, g, b before and r, g, b after in each line, parted by commas.</source>
        <translation>In jede Zeile r, g, b davor und r, g, b danach schreiben, durch Kommas getrennt.</translation>
    </message>
    <message>
        <source>has no colours in it</source>
        <translation>enthält keine Farben</translation>
    </message>
    <message>
        <source>is more than a function of a colour: it reads the place, neighbours or other pictures</source>
        <translation>ist mehr als eine Funktion einer Farbe: es liest den Ort, Nachbarn oder andere Bilder</translation>
    </message>
    <message>
        <source>is no rule</source>
        <translation>ist keine Regel</translation>
    </message>
    <message>
        <source>line {} is not six numbers, or six and a weight above 0</source>
        <translation>Zeile {} hat nicht sechs Zahlen, oder sechs und ein Gewicht über 0</translation>
    </message>
    <message>
        <source>makes something of a colour that is no number</source>
        <translation>macht aus einer Farbe etwas, das keine Zahl ist</translation>
    </message>
    <message>
        <source>no family could be fitted</source>
        <translation>keine Familie ließ sich anpassen</translation>
    </message>
    <message>
        <source>no pixel can be used: all are clipped, or are no numbers</source>
        <translation>kein Bildpunkt ist brauchbar: alle sind beschnitten oder keine Zahlen</translation>
    </message>
    <message>
        <source>one is {} x {} pixels, the other {} x {}</source>
        <translation>eines hat {} x {} Bildpunkte, das andere {} x {}</translation>
    </message>
    <message>
        <source>the numbers of one are {}, of the other {}</source>
        <translation>die Zahlen des einen sind {}, die des anderen {}</translation>
    </message>
    <message>
        <source>there is nothing to fit</source>
        <translation>es gibt nichts anzupassen</translation>
    </message>
    <message>
        <source>; {} are no numbers and left out</source>
        <translation>; {} sind keine Zahlen und bleiben weg</translation>
    </message>
    <message>
        <source>; {} that were met are clipped and left out</source>
        <translation>; {} angetroffene sind beschnitten und bleiben weg</translation>
    </message>
    <message>
        <source>Its layers are: {}.</source>
        <translation>Die Ebenen sind: {}.</translation>
    </message>
    <message>
        <source>Of pictures give two, before and after.</source>
        <translation>Von Bildern zwei angeben, davor und danach.</translation>
    </message>
    <message>
        <source>is no LUT, look, filter or table (.csv, .tsv, .txt)</source>
        <translation>ist keine LUT, kein Look, kein Filter und keine Tabelle (.csv, .tsv, .txt)</translation>
    </message>
    <message>
        <source>there is no layer "{}"</source>
        <translation>es gibt keine Ebene „{}“</translation>
    </message>
    <message>
        <source>{} lines</source>
        <translation>{} Zeilen</translation>
    </message>
    <message>
        <source>{} of {} pixels</source>
        <translation>{} von {} Bildpunkten</translation>
    </message>
    <message>
        <source>{} points an axis from {} to {}</source>
        <translation>{} Punkte je Achse von {} bis {}</translation>
    </message>
    <message>
        <source>it drops bits</source>
        <translation>lässt Bits fallen</translation>
    </message>
    <message>
        <source>it forgets how far a number was from the edge</source>
        <translation>vergisst, wie weit eine Zahl von der Kante war</translation>
    </message>
    <message>
        <source>it forgets how large the number was</source>
        <translation>vergisst, wie groß die Zahl war</translation>
    </message>
    <message>
        <source>it forgets how many times the second number went into the first</source>
        <translation>vergisst, wie oft die zweite Zahl in der ersten enthalten war</translation>
    </message>
    <message>
        <source>it forgets the whole number</source>
        <translation>vergisst die ganze Zahl</translation>
    </message>
    <message>
        <source>it mixes in other pixels</source>
        <translation>mischt andere Pixel hinein</translation>
    </message>
    <message>
        <source>it reads other pixels</source>
        <translation>liest andere Pixel</translation>
    </message>
    <message>
        <source>it sets bits</source>
        <translation>setzt Bits</translation>
    </message>
    <message>
        <source>one number does not say which colour it was</source>
        <translation>eine Zahl sagt nicht, welche Farbe es war</translation>
    </message>
    <message>
        <source>rounding loses what is between whole numbers</source>
        <translation>beim Runden geht verloren, was zwischen ganzen Zahlen liegt</translation>
    </message>
    <message>
        <source>what is below 0 there</source>
        <translation>was dort unter 0 liegt</translation>
    </message>
    <message>
        <source>what is beyond a quarter turn</source>
        <translation>was jenseits einer Vierteldrehung liegt</translation>
    </message>
    <message>
        <source>what is outside of half a turn</source>
        <translation>was außerhalb einer halben Drehung liegt</translation>
    </message>
    <message>
        <source>what is outside of its borders</source>
        <translation>was außerhalb seiner Grenzen liegt</translation>
    </message>
    <message>
        <source>what is outside of the limits there</source>
        <translation>was dort außerhalb der Grenzen liegt</translation>
    </message>
    <message>
        <source>what lies between code values</source>
        <translation>was zwischen Codewerten liegt</translation>
    </message>
    <message>
        <source>Find the rule behind it first.</source>
        <translation>Erst die Regel dahinter finden.</translation>
    </message>
    <message>
        <source>This is a fault of the program: please tell.</source>
        <translation>Das ist ein Fehler des Programms: bitte melden.</translation>
    </message>
    <message>
        <source>Write the way back from the look that it is a step of.</source>
        <translation>Den Weg zurück aus dem Look schreiben, von dem es ein Schritt ist.</translation>
    </message>
    <message>
        <source>a LUT has no rule to solve</source>
        <translation>eine LUT hat keine Regel, die aufzulösen wäre</translation>
    </message>
    <message>
        <source>a colour comes back {:.2g} away from where it was: two colours have become one, or nearly so</source>
        <translation>eine Farbe kommt {:.2g} von ihrem Ort entfernt zurück: zwei Farben sind eine geworden, oder fast</translation>
    </message>
    <message>
        <source>at these values</source>
        <translation>bei diesen Werten</translation>
    </message>
    <message>
        <source>cannot be read</source>
        <translation>kann nicht gelesen werden</translation>
    </message>
    <message>
        <source>closed in on step by step, where the rule does little enough</source>
        <translation>schrittweise angenähert, wo die Regel wenig genug tut</translation>
    </message>
    <message>
        <source>found by halving, from {} to {}</source>
        <translation>durch Halbieren gefunden, von {} bis {}</translation>
    </message>
    <message>
        <source>has {} parts; more than {} would take minutes</source>
        <translation>hat {} Teile; mehr als {} würden Minuten dauern</translation>
    </message>
    <message>
        <source>is a look that is laid over with an opacity, a mask or a blend mode</source>
        <translation>ist ein Look, der mit Deckkraft, Maske oder Mischmodus darübergelegt ist</translation>
    </message>
    <message>
        <source>its mask grows or is softened, which mixes in other pixels</source>
        <translation>seine Maske wächst oder ist weichgezeichnet, was andere Pixel hineinmischt</translation>
    </message>
    <message>
        <source>line {}, {}: {}</source>
        <translation>Zeile {}, {}: {}</translation>
    </message>
    <message>
        <source>nothing of it is in what comes out</source>
        <translation>nichts davon ist in dem, was herauskommt</translation>
    </message>
    <message>
        <source>reads what an earlier step of a look made, as "{}"; by itself it has no way back</source>
        <translation>liest als „{}“, was ein früherer Schritt eines Looks gemacht hat; für sich allein hat es keinen Weg zurück</translation>
    </message>
    <message>
        <source>step {}</source>
        <translation>Schritt {}</translation>
    </message>
    <message>
        <source>the way back</source>
        <translation>der Weg zurück</translation>
    </message>
    <message>
        <source>the way back was written, but {}</source>
        <translation>der Weg zurück wurde geschrieben, aber {}</translation>
    </message>
    <message>
        <source>was called off</source>
        <translation>wurde abgebrochen</translation>
    </message>
    <message>
        <source>what went into it cannot be told from what comes out</source>
        <translation>was hineinging, lässt sich nicht aus dem sagen, was herauskommt</translation>
    </message>
    <message>
        <source>which way was taken depends on the colour that is looked for</source>
        <translation>welcher Weg genommen wurde, hängt von der gesuchten Farbe ab</translation>
    </message>
    <message>
        <source>Mend it first.</source>
        <translation>Erst das beheben.</translation>
    </message>
    <message>
        <source>all of it does nothing</source>
        <translation>das Ganze bewirkt nichts</translation>
    </message>
    <message>
        <source>more than {} statements do work; that would take minutes</source>
        <translation>mehr als {} Anweisungen wirken; das würde Minuten dauern</translation>
    </message>
    <message>
        <source>nothing</source>
        <translation>nichts</translation>
    </message>
    <message>
        <source>the rule has a fault</source>
        <translation>die Regel hat einen Fehler</translation>
    </message>
    <message>
        <source>the statements are put into each other</source>
        <translation>die Anweisungen sind ineinander eingesetzt</translation>
    </message>
    <message>
        <source>without it nothing changes: {}</source>
        <translation>ohne das ändert sich nichts: {}</translation>
    </message>
    <message>
        <source>{} is {}</source>
        <translation>{} ist {}</translation>
    </message>
    <message>
        <source>{} lines from {} are {}</source>
        <translation>{} Zeilen ab {} sind {}</translation>
    </message>
    <message>
        <source>Make the rule shorter, or carry its steps one by one.</source>
        <translation>Die Regel kürzen oder ihre Schritte einzeln übertragen.</translation>
    </message>
    <message>
        <source>it was written for {}, but {}</source>
        <translation>sie wurde für {} geschrieben, aber {}</translation>
    </message>
    <message>
        <source>kasuri-cli docs colour lists the spaces.</source>
        <translation>kasuri-cli docs colour nennt die Farbräume.</translation>
    </message>
    <message>
        <source>{} comes from a colour config, and has no functions of its own</source>
        <translation>{} kommt aus einer Farbkonfiguration und hat keine eigenen Funktionen</translation>
    </message>
    <message>
        <source>Make the rule shorter.</source>
        <translation>Die Regel kürzen.</translation>
    </message>
    <message>
        <source>more than {} words, numbers and signs; that would take minutes</source>
        <translation>mehr als {} Wörter, Zahlen und Zeichen; das würde Minuten dauern</translation>
    </message>
    <message>
        <source>how it is laid over what came in</source>
        <translation>wie er über das gelegt ist, was hereinkam</translation>
    </message>
    <message>
        <source>; left out: {}</source>
        <translation>; ausgelassen: {}</translation>
    </message>
    <message>
        <source>; {} are beside edges and left out</source>
        <translation>; {} liegen neben Kanten und sind ausgelassen</translation>
    </message>
    <message>
        <source>; {} are in one of them alone and left out</source>
        <translation>; {} sind nur in einem von beiden und ausgelassen</translation>
    </message>
    <message>
        <source>Another number of columns and rows needs a table of your own values.</source>
        <translation>Andere Zahlen von Spalten und Zeilen brauchen eine Tabelle eigener Werte.</translation>
    </message>
    <message>
        <source>Between 1 and {} patches.</source>
        <translation>Zwischen 1 und {} Feldern.</translation>
    </message>
    <message>
        <source>Every patch needs three numbers; decimals have a point.</source>
        <translation>Jedes Feld braucht drei Zahlen; Dezimalen mit Punkt.</translation>
    </message>
    <message>
        <source>Give a line for each patch, row by row, and say how many columns and rows the chart has.</source>
        <translation>Eine Zeile für jedes Feld angeben, Reihe um Reihe, und wie viele Spalten und Zeilen die Tafel hat.</translation>
    </message>
    <message>
        <source>Give them in turn, from the first patch on: along its row, to the last patch, and back.</source>
        <translation>Reihum angeben, vom ersten Feld an: seine Reihe entlang, zum letzten Feld und zurück.</translation>
    </message>
    <message>
        <source>Give two pictures of one size, or two of the same thing, which are brought over each other.</source>
        <translation>Zwei Bilder gleicher Größe angeben, oder zwei desselben Motivs, die übereinandergelegt werden.</translation>
    </message>
    <message>
        <source>Look whether the corners lie on the patches, in the right order.</source>
        <translation>Nachsehen, ob die Ecken auf den Feldern liegen, in der richtigen Reihenfolge.</translation>
    </message>
    <message>
        <source>Name them in the first line: L a b, X Y Z, x y Y or r g b; a column called name is kept.</source>
        <translation>Sie in der ersten Zeile benennen: L a b, X Y Z, x y Y oder r g b; eine Spalte namens name wird behalten.</translation>
    </message>
    <message>
        <source>The corners lie too near to each other.</source>
        <translation>Die Ecken liegen zu nah beieinander.</translation>
    </message>
    <message>
        <source>There are: {}. Or give a table of your own values.</source>
        <translation>Es gibt: {}. Oder eine Tabelle eigener Werte angeben.</translation>
    </message>
    <message>
        <source>a chart of {} x {} patches</source>
        <translation>eine Tafel von {} x {} Feldern</translation>
    </message>
    <message>
        <source>brought over each other: the second is moved by {:.1f} and {:.1f} pixels and is {:.4g} times as large</source>
        <translation>übereinandergelegt: das zweite ist um {:.1f} und {:.1f} Pixel verschoben und {:.4g}-mal so groß</translation>
    </message>
    <message>
        <source>clipped: {:.0f} % of it</source>
        <translation>abgeschnitten: {:.0f} % davon</translation>
    </message>
    <message>
        <source>has no columns that are colours</source>
        <translation>hat keine Spalten, die Farben sind</translation>
    </message>
    <message>
        <source>has {} lines of numbers for {} patches</source>
        <translation>hat {} Zeilen mit Zahlen für {} Felder</translation>
    </message>
    <message>
        <source>line {}: {} is no number</source>
        <translation>Zeile {}: {} ist keine Zahl</translation>
    </message>
    <message>
        <source>only {} patches count; left out: {}</source>
        <translation>nur {} Felder zählen; ausgelassen: {}</translation>
    </message>
    <message>
        <source>outside the picture, or no numbers</source>
        <translation>außerhalb des Bildes, oder keine Zahlen</translation>
    </message>
    <message>
        <source>something covers {:.0f} % of it</source>
        <translation>etwas verdeckt {:.0f} % davon</translation>
    </message>
    <message>
        <source>the four corners make no four-sided figure</source>
        <translation>die vier Ecken ergeben kein Viereck</translation>
    </message>
    <message>
        <source>the patches are too small: {:.1f} x {:.1f} pixels without their rims</source>
        <translation>die Felder sind zu klein: {:.1f} x {:.1f} Pixel ohne ihre Ränder</translation>
    </message>
    <message>
        <source>there is no chart {}</source>
        <translation>es gibt keine Tafel {}</translation>
    </message>
    <message>
        <source>uneven: its quarters differ by {:.0f} %</source>
        <translation>ungleichmäßig: seine Viertel unterscheiden sich um {:.0f} %</translation>
    </message>
    <message>
        <source>{} has {} x {} patches</source>
        <translation>{} hat {} x {} Felder</translation>
    </message>
    <message>
        <source>{} of {} patches</source>
        <translation>{} von {} Feldern</translation>
    </message>
    <message>
        <source>{}: its numbers are {}; they were converted to {}</source>
        <translation>{}: seine Zahlen sind {}; sie wurden in {} umgerechnet</translation>
    </message>
    <message>
        <source>Between 2 and 65.</source>
        <translation>Zwischen 2 und 65.</translation>
    </message>
    <message>
        <source>a table of {} points an axis</source>
        <translation>eine Tabelle von {} Punkten je Achse</translation>
    </message>
    <message>
        <source>Choose .cube, .clf, .ctf, .csp or .lut, or the domain 0 to 1.</source>
        <translation>.cube, .clf, .ctf, .csp oder .lut wählen, oder den Bereich 0 bis 1.</translation>
    </message>
    <message>
        <source>files of this kind have no place for a shaper</source>
        <translation>Dateien dieser Art haben keinen Platz für einen Shaper</translation>
    </message>
    <message>
        <source>its "between" is {}; a LUT is read tetrahedral or trilinear</source>
        <translation>sein "between" ist {}; eine LUT wird tetrahedral oder trilinear gelesen</translation>
    </message>
    <message>
        <source>{}: the chart seems to stand on its head: do the corners begin at its first patch?</source>
        <translation>{}: die Tafel scheint auf dem Kopf zu stehen: beginnen die Ecken an ihrem ersten Feld?</translation>
    </message>
    <message>
        <source>a table or a chart has no pixels to show</source>
        <translation>eine Tabelle oder eine Tafel hat keine Pixel, die zu sehen wären</translation>
    </message>
    <message>
        <source>all steps together</source>
        <translation>alle Schritte zusammen</translation>
    </message>
    <message>
        <source>it reads further pictures or earlier steps, which a table knows nothing of</source>
        <translation>er liest weitere Bilder oder frühere Schritte, von denen eine Tabelle nichts weiß</translation>
    </message>
    <message>
        <source>the pictures do not lie on each other as they came</source>
        <translation>die Bilder liegen so, wie sie kamen, nicht aufeinander</translation>
    </message>
    <message>
        <source>The figures in the table say how far it is off.</source>
        <translation>Wie weit sie daneben liegt, sagen die Zahlen in der Tabelle.</translation>
    </message>
    <message>
        <source>Convert it to RGB through its profile first.</source>
        <translation>Vorher über sein Profil in RGB umwandeln.</translation>
    </message>
    <message>
        <source>is made of printing inks (CMYK), which are not read</source>
        <translation>besteht aus Druckfarben (CMYK), die nicht gelesen werden</translation>
    </message>
    <message>
        <source>{} has no numbers below 0: {} became 0</source>
        <translation>{} hat keine Zahlen unter 0: {} wurden 0</translation>
    </message>
    <message>
        <source>{} has no place for alpha: the picture was laid over black</source>
        <translation>{} hat keinen Platz für Alpha: das Bild wurde über Schwarz gelegt</translation>
    </message>
    <message>
        <source>{} has no place for further channels: {} were left out</source>
        <translation>{} hat keinen Platz für weitere Kanäle: {} blieben weg</translation>
    </message>
    <message>
        <source>the config has more than {} views; {} were left out</source>
        <translation>die Konfiguration hat mehr als {} Ansichten; {} wurden weggelassen</translation>
    </message>
    <message>
        <source>the config's view {} cannot be shown: {}</source>
        <translation>die Ansicht {} der Konfiguration ist nicht zu zeigen: {}</translation>
    </message>
    <message>
        <source>Add one to it.</source>
        <translation>Eine hinzufügen.</translation>
    </message>
    <message>
        <source>Add that role, or the space itself, to the config.</source>
        <translation>Diese Rolle, oder den Farbraum selbst, der Konfiguration hinzufügen.</translation>
    </message>
    <message>
        <source>Carry the look to acescct, acescg or srgb first (kasuri-cli carry).</source>
        <translation>Den Look vorher nach acescct, acescg oder srgb übertragen (kasuri-cli carry).</translation>
    </message>
    <message>
        <source>Give ours another title.</source>
        <translation>Unserem einen anderen Titel geben.</translation>
    </message>
    <message>
        <source>OpenColorIO has no space {} and no curve for it</source>
        <translation>OpenColorIO hat keinen Farbraum {} und keine Kurve dafür</translation>
    </message>
    <message>
        <source>has no look {}</source>
        <translation>hat keinen Look {}</translation>
    </message>
    <message>
        <source>the config does not say how its light relates to other light (role aces_interchange)</source>
        <translation>die Konfiguration sagt nicht, wie ihr Licht zu anderem Licht steht (Rolle aces_interchange)</translation>
    </message>
    <message>
        <source>the config has a look named {} already</source>
        <translation>die Konfiguration hat schon einen Look namens {}</translation>
    </message>
    <message>
        <source>the config has no display</source>
        <translation>die Konfiguration hat keine Anzeige</translation>
    </message>
    <message>
        <source>the space {} was added to the config</source>
        <translation>der Farbraum {} kam zur Konfiguration hinzu</translation>
    </message>
    <message>
        <source>the view {} on {} shows {} through the look</source>
        <translation>die Ansicht {} auf {} zeigt {} durch den Look</translation>
    </message>
    <message>
        <source>Choose .clf for another domain.</source>
        <translation>Für einen anderen Bereich .clf wählen.</translation>
    </message>
    <message>
        <source>a device link is over 0 to 1, without a shaper</source>
        <translation>ein Device Link geht über 0 bis 1, ohne Shaper</translation>
    </message>
    <message>
        <source>is no ICC device link of red, green and blue</source>
        <translation>ist kein ICC Device Link aus Rot, Grün und Blau</translation>
    </message>
    <message>
        <source>the config's file rule {} is not by * and ? and was left out</source>
        <translation>die Dateiregel {} der Konfiguration geht nicht nach * und ? und wurde weggelassen</translation>
    </message>
    <message>
        <source>Movies are read as far as FFmpeg's library reads them; is the file whole?</source>
        <translation>Filme werden gelesen, soweit FFmpegs Bibliothek sie liest; ist die Datei ganz?</translation>
    </message>
    <message>
        <source>Movies hold 8 and 16 bits.</source>
        <translation>Filme halten 8 und 16 Bit.</translation>
    </message>
    <message>
        <source>Say which space to write (--out-space).</source>
        <translation>Zu sagen ist, welcher Raum geschrieben wird (--out-space).</translation>
    </message>
    <message>
        <source>There is: {}.</source>
        <translation>Es gibt: {}.</translation>
    </message>
    <message>
        <source>Use prores4444.</source>
        <translation>prores4444 nehmen.</translation>
    </message>
    <message>
        <source>Write them into movies of their own.</source>
        <translation>In eigene Filme schreiben.</translation>
    </message>
    <message>
        <source>a movie's tags cannot say that its numbers are of {}: its words do, which others may not read</source>
        <translation>die Kennzeichen eines Films können nicht sagen, dass seine Zahlen {} sind: seine Worte sagen es, die andere vielleicht nicht lesen</translation>
    </message>
    <message>
        <source>another rate was asked for: sound was left out</source>
        <translation>eine andere Bildrate war verlangt: der Ton blieb weg</translation>
    </message>
    <message>
        <source>cannot be read as a movie ({})</source>
        <translation>kann nicht als Film gelesen werden ({})</translation>
    </message>
    <message>
        <source>has no channel to write</source>
        <translation>hat keinen Kanal, der zu schreiben wäre</translation>
    </message>
    <message>
        <source>it does not say the range of its code values: the narrow one was taken</source>
        <translation>er sagt nicht, welchen Umfang seine Codewerte haben: der schmale wurde genommen</translation>
    </message>
    <message>
        <source>it does not say which matrix its luma and chroma have: that of {} was taken</source>
        <translation>er sagt nicht, welche Matrix Luma und Chroma haben: die von {} wurde genommen</translation>
    </message>
    <message>
        <source>it is interlaced: two fields of different times are woven into each frame</source>
        <translation>er ist im Zeilensprung: in jedem Bild sind zwei Halbbilder verschiedener Zeiten verwoben</translation>
    </message>
    <message>
        <source>its frames are not of one size: {} x {} after {} x {}</source>
        <translation>seine Bilder sind nicht gleich groß: {} x {} nach {} x {}</translation>
    </message>
    <message>
        <source>its frames are not of one space: {} after {}</source>
        <translation>seine Bilder sind nicht in einem Raum: {} nach {}</translation>
    </message>
    <message>
        <source>its tags name primaries {} and transfer {}, which are not known here; the usual space is assumed</source>
        <translation>seine Kennzeichen nennen Primärfarben {} und Kennlinie {}, die hier nicht bekannt sind; der übliche Raum wird angenommen</translation>
    </message>
    <message>
        <source>no movie can be written with this ending</source>
        <translation>mit dieser Endung kann kein Film geschrieben werden</translation>
    </message>
    <message>
        <source>no movie of the kind {} can be written with this ending</source>
        <translation>kein Film der Art {} kann mit dieser Endung geschrieben werden</translation>
    </message>
    <message>
        <source>read again: off by {:.2g} at most (frame {}), by {:.2g} on average</source>
        <translation>wieder gelesen: höchstens {:.2g} daneben (Bild {}), im Mittel {:.2g}</translation>
    </message>
    <message>
        <source>the frames do not follow each other in one movie: sound was left out</source>
        <translation>die Bilder folgen nicht in einem Film aufeinander: der Ton blieb weg</translation>
    </message>
    <message>
        <source>the library for movies</source>
        <translation>die Bibliothek für Filme</translation>
    </message>
    <message>
        <source>the movie names the space {}, which is not known here</source>
        <translation>der Film nennt den Raum {}, der hier nicht bekannt ist</translation>
    </message>
    <message>
        <source>there is no frame to write</source>
        <translation>es gibt kein Bild zu schreiben</translation>
    </message>
    <message>
        <source>what could not go along from {}: {}</source>
        <translation>was aus {} nicht mitkonnte: {}</translation>
    </message>
    <message>
        <source>{} has no place for alpha: it was left out</source>
        <translation>{} hat keinen Platz für Alpha: es blieb weg</translation>
    </message>
    <message>
        <source>{} holds pictures of an even width only, and these are {} wide</source>
        <translation>{} hält nur Bilder gerader Breite, und diese sind {} breit</translation>
    </message>
    <message>
        <source>compressed with loss, as it came</source>
        <translation>mit Verlust gepackt, wie es kam</translation>
    </message>
    <message>
        <source>it holds smaller copies of itself (mip levels), which are left out</source>
        <translation>es enthält kleinere Fassungen seiner selbst (Mip-Stufen), die wegbleiben</translation>
    </message>
    <message>
        <source>{} further {} left out: only flat parts of an EXR are read</source>
        <translation>{} weitere {} weggelassen: nur flache Teile eines EXR werden gelesen</translation>
    </message>
    <message>
        <source>ICC profile {}</source>
        <translation>ICC-Profil {}</translation>
    </message>
    <message>
        <source>Name the profile of a press or a printer (.icc, .icm).</source>
        <translation>Zu nennen ist das Profil einer Druckpresse oder eines Druckers (.icc, .icm).</translation>
    </message>
    <message>
        <source>Name the profile of a press or a printer.</source>
        <translation>Zu nennen ist das Profil einer Druckpresse oder eines Druckers.</translation>
    </message>
    <message>
        <source>is a profile that does not say both what is printed for a colour and what colour is printed</source>
        <translation>ist ein Profil, das nicht beides sagt: was für eine Farbe gedruckt wird und welche Farbe gedruckt wird</translation>
    </message>
    <message>
        <source>is a profile whose tables cannot be used</source>
        <translation>ist ein Profil, dessen Tabellen nicht zu gebrauchen sind</translation>
    </message>
    <message>
        <source>is no ICC profile</source>
        <translation>ist kein ICC-Profil</translation>
    </message>
    <message>
        <source>the config has no variable {}</source>
        <translation>die Konfiguration hat keine Variable {}</translation>
    </message>
    <message>
        <source>PNG, DPX, PPM and JPEG 2000 hold 8 and 16 bits, TIFF 8, 16 and float, EXR half and float, HDR and PFM floats, the others 8 bits.</source>
        <translation>PNG, DPX, PPM und JPEG 2000 halten 8 und 16 Bit, TIFF 8, 16 und Fließkomma, EXR halbe und ganze Fließkommazahlen, HDR und PFM Fließkommazahlen, die anderen 8 Bit.</translation>
    </message>
    <message>
        <source>, inverted</source>
        <translation>, umgekehrt</translation>
    </message>
    <message>
        <source>The named transform {} of the colour config{}. {}</source>
        <translation>Die benannte Umrechnung {} der Farbkonfiguration{}. {}</translation>
    </message>
    <message>
        <source>the config has more than {} named transforms; {} were left out</source>
        <translation>die Konfiguration hat mehr als {} benannte Umrechnungen; {} blieben weg</translation>
    </message>
    <message>
        <source>the config's named transform {} cannot be used: {}</source>
        <translation>die benannte Umrechnung {} der Konfiguration ist nicht zu gebrauchen: {}</translation>
    </message>
    <message>
        <source>the config's named transform {} has a name like another's and was left out</source>
        <translation>die benannte Umrechnung {} der Konfiguration heißt wie eine andere und blieb weg</translation>
    </message>
    <message>
        <source>%1: %2 spaces and %5 functions can be used now, and %3 views to see through%4</source>
        <translation>%1: %2 Räume und %5 Funktionen sind jetzt zu gebrauchen, und %3 Ansichten, durch die gesehen wird%4</translation>
    </message>
    <message>
        <source>has {} corrections</source>
        <translation>hat {} Korrekturen</translation>
    </message>
    <message>
        <source>kasuri-cli cdl makes a filter of each.</source>
        <translation>kasuri-cli cdl macht aus jeder einen Filter.</translation>
    </message>
    <message>
        <source>330, es300 and vulkan450 have them.</source>
        <translation>330, es300 und vulkan450 haben sie.</translation>
    </message>
    <message>
        <source>Bake it to a LUT (kasuri-cli bake) and take that instead.</source>
        <translation>Als LUT backen (kasuri-cli bake) und diese nehmen.</translation>
    </message>
    <message>
        <source>Write it as passes (kasuri-cli glsl --passes FOLDER).</source>
        <translation>Als Durchgänge schreiben (kasuri-cli glsl --passes ORDNER).</translation>
    </message>
    <message>
        <source>Write it as passes with its tables (kasuri-cli glsl --passes FOLDER).</source>
        <translation>Als Durchgänge mit ihren Tabellen schreiben (kasuri-cli glsl --passes ORDNER).</translation>
    </message>
    <message>
        <source>cannot be made ({})</source>
        <translation>kann nicht angelegt werden ({})</translation>
    </message>
    <message>
        <source>looks at its neighbours (blur and the like), which a function of one pixel cannot do</source>
        <translation>sieht auf Nachbarn (Unschärfe und dergleichen), was eine Funktion eines einzelnen Pixels nicht kann</translation>
    </message>
    <message>
        <source>there are no passes in the dialect {}</source>
        <translation>es gibt keine Durchgänge im Dialekt {}</translation>
    </message>
    <message>
        <source>uses a LUT file or a space of a colour config, which one function cannot hold</source>
        <translation>verwendet eine LUT-Datei oder einen Farbraum einer Farbkonfiguration, was in eine einzelne Funktion nicht passt</translation>
    </message>
    <message>
        <source>uses a device link or a printer's profile, which no shader can read</source>
        <translation>verwendet einen Device-Link oder ein Druckerprofil, die kein Shader lesen kann</translation>
    </message>
    <message>
        <source>bounded, at every value; measured</source>
        <translation>eingegrenzt, bei jedem Wert; gemessen</translation>
    </message>
    <message>
        <source>bounded; measured</source>
        <translation>eingegrenzt; gemessen</translation>
    </message>
</context>
<context>
    <name>Files</name>
    <message>
        <source>Save the filter</source>
        <translation>Filter speichern</translation>
    </message>
    <message>
        <source>Filters (%1)</source>
        <translation>Filter (%1)</translation>
    </message>
    <message>
        <source>Save the look</source>
        <translation>Look speichern</translation>
    </message>
    <message>
        <source>Looks (%1)</source>
        <translation>Looks (%1)</translation>
    </message>
</context>
<context>
    <name>FirstMinute</name>
    <message>
        <source>bring a picture</source>
        <translation>Bild holen</translation>
    </message>
    <message>
        <source>Drop a PNG, TIFF or EXR on the sheet, or open one with Ctrl+O.</source>
        <translation>Eine PNG-, TIFF- oder EXR-Datei auf das Blatt ziehen, oder mit Strg+O öffnen.</translation>
    </message>
    <message>
        <source>write a line</source>
        <translation>Zeile schreiben</translation>
    </message>
    <message>
        <source>On the left, such as out.g = 0.5 * g + 0.5 * b: everything follows as you type.</source>
        <translation>Links, zum Beispiel out.g = 0.5 * g + 0.5 * b: alles folgt beim Schreiben.</translation>
    </message>
    <message>
        <source>pin a place</source>
        <translation>Nadel setzen</translation>
    </message>
    <message>
        <source>Point at the picture and press P (Ctrl+P while you write).</source>
        <translation>Auf das Bild zeigen und P drücken (beim Schreiben Strg+P).</translation>
    </message>
    <message>
        <source>make a value</source>
        <translation>Wert anlegen</translation>
    </message>
    <message>
        <source>Write param meet = 0 in 0 .. 1 above the line that uses it: it can be dragged then.</source>
        <translation>param meet = 0 in 0 .. 1 über die Zeile schreiben, die ihn benutzt: dann lässt er sich ziehen.</translation>
    </message>
    <message>
        <source>promise something</source>
        <translation>etwas versprechen</translation>
    </message>
    <message>
        <source>The + in the row at the bottom adds a proof, such as that greys stay grey.</source>
        <translation>Das + in der untersten Zeile fügt einen Beweis hinzu, etwa dass Grau grau bleibt.</translation>
    </message>
    <message>
        <source>use it</source>
        <translation>benutzen</translation>
    </message>
    <message>
        <source>Ctrl+S saves the filter, Ctrl+L writes a LUT with its measured error.</source>
        <translation>Strg+S speichert den Filter, Strg+L schreibt eine LUT mit ihrem gemessenen Fehler.</translation>
    </message>
</context>
<context>
    <name>Keys</name>
    <message>
        <source>Before, everywhere</source>
        <translation>Vorher, überall</translation>
    </message>
    <message>
        <source>In the text: what can be written here</source>
        <translation>Im Text: was hier stehen kann</translation>
    </message>
    <message>
        <source>In the text: the number at the caret, a step up or down</source>
        <translation>Im Text: die Zahl an der Schreibmarke, einen Schritt auf oder ab</translation>
    </message>
    <message>
        <source>In the text: a number; Shift finer</source>
        <translation>Im Text: eine Zahl; mit Umschalt feiner</translation>
    </message>
    <message>
        <source>In a field: a step; Shift finer, Ctrl coarser; Backspace resets</source>
        <translation>Im Feld: ein Schritt; Umschalt feiner, Strg gröber; Rücktaste setzt zurück</translation>
    </message>
    <message>
        <source>In a cell or strip: the pointer; Ctrl farther. In a cell: Shift moves what is seen, Alt moves the cell</source>
        <translation>In Zelle oder Streifen: der Zeiger; Strg weiter. In der Zelle: Umschalt verschiebt den Ausschnitt, Alt die Zelle</translation>
    </message>
    <message>
        <source>In a cell: nearer, farther, all of it, pixel by pixel</source>
        <translation>In der Zelle: näher, weiter weg, alles, Pixel für Pixel</translation>
    </message>
    <message>
        <source>In a cell: fill the sheet, and back</source>
        <translation>In der Zelle: das Blatt füllen, und zurück</translation>
    </message>
    <message>
        <source>In a cell: pin the place, a cut as a strip, the difference and back</source>
        <translation>In der Zelle: Nadel setzen, Schnitt als Streifen, Unterschied und zurück</translation>
    </message>
    <message>
        <source>In a cell: before and after split, twice; the split to the left, to the right</source>
        <translation>In der Zelle: vorher und nachher geteilt, doppelt; Teilung nach links, nach rechts</translation>
    </message>
    <message>
        <source>In a cell: the frame before, the next</source>
        <translation>In der Zelle: das Bild davor, das nächste</translation>
    </message>
    <message>
        <source>In a cell or strip: its menu; away with it</source>
        <translation>In Zelle oder Streifen: ihr Menü; weg damit</translation>
    </message>
    <message>
        <source>In the line of steps: which is active, on or off, opacity; Shift+Left and Shift+Right move it</source>
        <translation>In der Zeile der Schritte: welcher aktiv ist, ein oder aus, Deckkraft; Umschalt+Links und Umschalt+Rechts verschieben ihn</translation>
    </message>
    <message>
        <source>In the library: open, add as a step</source>
        <translation>In der Bibliothek: öffnen, als Schritt hinzufügen</translation>
    </message>
</context>
<context>
    <name>Kinds</name>
    <message>
        <source>PNG, 8 bits</source>
        <translation>PNG, 8 Bit</translation>
    </message>
    <message>
        <source>PNG, 16 bits</source>
        <translation>PNG, 16 Bit</translation>
    </message>
    <message>
        <source>TIFF, 16 bits</source>
        <translation>TIFF, 16 Bit</translation>
    </message>
    <message>
        <source>TIFF, float</source>
        <translation>TIFF, Gleitkomma</translation>
    </message>
    <message>
        <source>EXR, half</source>
        <translation>EXR, halbe Genauigkeit</translation>
    </message>
    <message>
        <source>EXR, float</source>
        <translation>EXR, Gleitkomma</translation>
    </message>
    <message>
        <source>DPX, 16 bits</source>
        <translation>DPX, 16 Bit</translation>
    </message>
    <message>
        <source>JPEG, 8 bits</source>
        <translation>JPEG, 8 Bit</translation>
    </message>
    <message>
        <source>movie, ProRes 422</source>
        <translation>Film, ProRes 422</translation>
    </message>
    <message>
        <source>movie, ProRes 4444</source>
        <translation>Film, ProRes 4444</translation>
    </message>
    <message>
        <source>movie, FFV1, 16 bits, without loss</source>
        <translation>Film, FFV1, 16 Bit, ohne Verlust</translation>
    </message>
</context>
<context>
    <name>Masks</name>
    <message>
        <source>Shadows</source>
        <translation>Schatten</translation>
    </message>
    <message>
        <source>Middle tones</source>
        <translation>Mitteltöne</translation>
    </message>
    <message>
        <source>Highlights</source>
        <translation>Lichter</translation>
    </message>
    <message>
        <source>Reds</source>
        <translation>Rottöne</translation>
    </message>
    <message>
        <source>Yellows</source>
        <translation>Gelbtöne</translation>
    </message>
    <message>
        <source>Greens</source>
        <translation>Grüntöne</translation>
    </message>
    <message>
        <source>Cyans</source>
        <translation>Cyantöne</translation>
    </message>
    <message>
        <source>Blues</source>
        <translation>Blautöne</translation>
    </message>
    <message>
        <source>Magentas</source>
        <translation>Magentatöne</translation>
    </message>
    <message>
        <source>What is saturated</source>
        <translation>Was gesättigt ist</translation>
    </message>
    <message>
        <source>What is near a colour</source>
        <translation>Was einer Farbe nahe ist</translation>
    </message>
    <message>
        <source>A disc</source>
        <translation>Eine Scheibe</translation>
    </message>
    <message>
        <source>From top to bottom</source>
        <translation>Von oben nach unten</translation>
    </message>
    <message>
        <source>The picture's alpha</source>
        <translation>Alpha des Bildes</translation>
    </message>
    <message>
        <source>Another picture (give it below)</source>
        <translation>Ein anderes Bild (unten angeben)</translation>
    </message>
</context>
<context>
    <name>QObject</name>
    <message>
        <source>preset</source>
        <translation>Voreinstellung</translation>
    </message>
    <message>
        <source>Reset all</source>
        <translation>Alle zurücksetzen</translation>
    </message>
    <message>
        <source>proportional to light</source>
        <translation>proportional zum Licht</translation>
    </message>
    <message>
        <source>of the colour config</source>
        <translation>der Farbkonfiguration</translation>
    </message>
    <message>
        <source>%1, generated</source>
        <translation>%1, erzeugt</translation>
    </message>
    <message>
        <source>%1 x %2</source>
        <translation>%1 x %2</translation>
    </message>
    <message>
        <source>views of the colour config</source>
        <translation>Ansichten der Farbkonfiguration</translation>
    </message>
    <message>
        <source>as printed</source>
        <translation>wie gedruckt</translation>
    </message>
</context>
<context>
    <name>Rooms</name>
    <message>
        <source>bright</source>
        <translation>hell</translation>
    </message>
    <message>
        <source>dim</source>
        <translation>gedämpft</translation>
    </message>
    <message>
        <source>dark</source>
        <translation>dunkel</translation>
    </message>
</context>
<context>
    <name>Settings</name>
    <message>
        <source>the system's</source>
        <translation>die des Systems</translation>
    </message>
    <message>
        <source>hard</source>
        <translation>hart</translation>
    </message>
    <message>
        <source>soft</source>
        <translation>weich</translation>
    </message>
    <message>
        <source>none, or that of $OCIO</source>
        <translation>keine, oder die von $OCIO</translation>
    </message>
    <message>
        <source>Choose…</source>
        <translation>Wählen…</translation>
    </message>
    <message>
        <source>Forget</source>
        <translation>Vergessen</translation>
    </message>
    <message>
        <source>From the next start on there is none, or that of $OCIO</source>
        <translation>Ab dem nächsten Start gibt es keine, oder die von $OCIO</translation>
    </message>
    <message>
        <source>go on in the next line</source>
        <translation>in der nächsten Zeile fortsetzen</translation>
    </message>
    <message>
        <source>the sheet as it was left</source>
        <translation>das Blatt, wie es verlassen wurde</translation>
    </message>
    <message>
        <source>a new sheet with a chart</source>
        <translation>ein neues Blatt mit Farbtafel</translation>
    </message>
    <message>
        <source>Forget them (%1)</source>
        <translation>Vergessen (%1)</translation>
    </message>
    <message>
        <source>Folders of the library</source>
        <translation>Ordner der Bibliothek</translation>
    </message>
    <message>
        <source>Leave out</source>
        <translation>Weglassen</translation>
    </message>
    <message>
        <source>Add a folder…</source>
        <translation>Hinzufügen…</translation>
    </message>
    <message>
        <source>Which folder of filters?</source>
        <translation>Welcher Ordner mit Filtern?</translation>
    </message>
    <message>
        <source>Seeing</source>
        <translation>Sehen</translation>
    </message>
    <message>
        <source>Room</source>
        <translation>Raum</translation>
    </message>
    <message>
        <source>How bright the interface is. What pictures stand on does not change with it.</source>
        <translation>Wie hell die Oberfläche ist. Worauf Bilder stehen, ändert sich damit nicht.</translation>
    </message>
    <message>
        <source>Language</source>
        <translation>Sprache</translation>
    </message>
    <message>
        <source>Of the window and of what is wrong with a rule; from the next start on.</source>
        <translation>Des Fensters und dessen, was an einer Regel falsch ist; ab dem nächsten Start.</translation>
    </message>
    <message>
        <source>Surround, L*</source>
        <translation>Umfeld, L*</translation>
    </message>
    <message>
        <source>Lightness of the grey around pictures and behind transparent ones; 100 is white.</source>
        <translation>Helligkeit des Graus um Bilder und hinter durchsichtigen; 100 ist weiß.</translation>
    </message>
    <message>
        <source>Screen</source>
        <translation>Bildschirm</translation>
    </message>
    <message>
        <source>The space of the screen that pictures are shown on.</source>
        <translation>Der Farbraum des Bildschirms, auf dem Bilder gezeigt werden.</translation>
    </message>
    <message>
        <source>Its limits</source>
        <translation>Seine Grenzen</translation>
    </message>
    <message>
        <source>Hard: channels are cut off. Soft: bright light bends towards white, what is still outside moves towards grey.</source>
        <translation>Hart: Kanäle werden abgeschnitten. Weich: helles Licht neigt sich zu Weiß, was noch draußen liegt, rückt zu Grau.</translation>
    </message>
    <message>
        <source>Colour config</source>
        <translation>Farbkonfiguration</translation>
    </message>
    <message>
        <source>An OpenColorIO config whose spaces can be used beside the built-in ones.</source>
        <translation>Eine OpenColorIO-Konfiguration, deren Farbräume neben den eingebauten benutzt werden können.</translation>
    </message>
    <message>
        <source>Writing</source>
        <translation>Schreiben</translation>
    </message>
    <message>
        <source>Size of the text</source>
        <translation>Schriftgröße</translation>
    </message>
    <message>
        <source>Of rules, in points. Ctrl with the wheel does the same.</source>
        <translation>Von Regeln, in Punkt. Strg mit dem Mausrad tut dasselbe.</translation>
    </message>
    <message>
        <source>Long lines</source>
        <translation>Lange Zeilen</translation>
    </message>
    <message>
        <source>Or else they can be scrolled to.</source>
        <translation>Sonst kann man zu ihnen rollen.</translation>
    </message>
    <message>
        <source>Work</source>
        <translation>Arbeit</translation>
    </message>
    <message>
        <source>At the start</source>
        <translation>Beim Start</translation>
    </message>
    <message>
        <source>What is on the sheet when nothing was asked for.</source>
        <translation>Was auf dem Blatt ist, wenn nichts verlangt wurde.</translation>
    </message>
    <message>
        <source>Pictures at a time</source>
        <translation>Bilder zugleich</translation>
    </message>
    <message>
        <source>When a folder or a sequence is rendered. Each takes its own memory; usual is one for each core.</source>
        <translation>Wenn ein Ordner oder eine Sequenz gerechnet wird. Jedes braucht eigenen Speicher; üblich ist eines je Kern.</translation>
    </message>
    <message>
        <source>Frames in memory, MB</source>
        <translation>Sequenzbilder im Speicher, MB</translation>
    </message>
    <message>
        <source>For numbered pictures that are played. Those that do not fit are read again.</source>
        <translation>Für nummerierte Bilder, die abgespielt werden. Was nicht hineinpasst, wird wieder gelesen.</translation>
    </message>
    <message>
        <source>Recent files</source>
        <translation>Zuletzt benutzte Dateien</translation>
    </message>
    <message>
        <source>Out of the menu; the files stay where they are.</source>
        <translation>Aus dem Menü nehmen; die Dateien bleiben, wo sie sind.</translation>
    </message>
    <message>
        <source>Library</source>
        <translation>Bibliothek</translation>
    </message>
    <message>
        <source>Folders beside those of the system, of yourself, and of the file that is open. All that lies below belongs to them.</source>
        <translation>Ordner neben denen des Systems, Ihren eigenen und dem der offenen Datei. Alles darunter gehört dazu.</translation>
    </message>
    <message>
        <source>NAME=VALUE, NAME=VALUE</source>
        <translation>NAME=WERT, NAME=WERT</translation>
    </message>
    <message>
        <source>%1: write NAME=VALUE, one after the other with commas</source>
        <translation>%1: NAME=WERT schreiben, mehrere mit Kommas</translation>
    </message>
    <message>
        <source>Its variables</source>
        <translation>Ihre Variablen</translation>
    </message>
    <message>
        <source>Of the colour config, as SHOT=sh010, SHOW=ford. They belong to the filter or look that is open and are kept with it.</source>
        <translation>Der Farbkonfiguration, als SHOT=sh010, SHOW=ford. Sie gehören zum offenen Filter oder Look und werden mit ihm aufbewahrt.</translation>
    </message>
</context>
<context>
    <name>Surrounds</name>
    <message>
        <source>white</source>
        <translation>Weiß</translation>
    </message>
    <message>
        <source>light grey</source>
        <translation>Hellgrau</translation>
    </message>
    <message>
        <source>mid grey</source>
        <translation>Mittelgrau</translation>
    </message>
    <message>
        <source>dark grey</source>
        <translation>Dunkelgrau</translation>
    </message>
    <message>
        <source>black</source>
        <translation>Schwarz</translation>
    </message>
</context>
<context>
    <name>Tables</name>
    <message>
        <source>colour</source>
        <translation>Farbe</translation>
    </message>
    <message>
        <source>The picture, laid over the surround where it is transparent.</source>
        <translation>Das Bild, wo es durchsichtig ist über das Umfeld gelegt.</translation>
    </message>
    <message>
        <source>red channel</source>
        <translation>roter Kanal</translation>
    </message>
    <message>
        <source>Red alone, as a neutral grey.</source>
        <translation>Rot allein, als neutrales Grau.</translation>
    </message>
    <message>
        <source>green channel</source>
        <translation>grüner Kanal</translation>
    </message>
    <message>
        <source>Green alone, as a neutral grey.</source>
        <translation>Grün allein, als neutrales Grau.</translation>
    </message>
    <message>
        <source>blue channel</source>
        <translation>blauer Kanal</translation>
    </message>
    <message>
        <source>Blue alone, as a neutral grey.</source>
        <translation>Blau allein, als neutrales Grau.</translation>
    </message>
    <message>
        <source>alpha</source>
        <translation>Alpha</translation>
    </message>
    <message>
        <source>Alpha: 0 black, 1 white, in even steps for the eye.</source>
        <translation>Alpha: 0 schwarz, 1 weiß, in gleichen Stufen für das Auge.</translation>
    </message>
    <message>
        <source>alpha over the picture</source>
        <translation>Alpha über dem Bild</translation>
    </message>
    <message>
        <source>The picture as it is stored, under an indigo lattice where alpha is below 1.</source>
        <translation>Das Bild, wie es gespeichert ist, unter einem indigoblauen Gitter, wo Alpha unter 1 liegt.</translation>
    </message>
    <message>
        <source>luminance</source>
        <translation>Leuchtdichte</translation>
    </message>
    <message>
        <source>Luminance Y of linear light, as a neutral grey.</source>
        <translation>Leuchtdichte Y des linearen Lichts, als neutrales Grau.</translation>
    </message>
    <message>
        <source>out of range</source>
        <translation>außerhalb</translation>
    </message>
    <message>
        <source>What the screen cannot show: light rising stripes where a channel is above 1, dark falling ones where it is below 0, a chequer for NaN and infinite.</source>
        <translation>Was der Bildschirm nicht zeigen kann: helle steigende Streifen, wo ein Kanal über 1 liegt, dunkle fallende, wo er unter 0 liegt, Schachbrett für NaN und unendlich.</translation>
    </message>
    <message>
        <source>change, times 4</source>
        <translation>Änderung, mal 4</translation>
    </message>
    <message>
        <source>What the rule adds and takes away: mid grey where nothing changes, four times the change in each channel.</source>
        <translation>Was die Regel hinzufügt und wegnimmt: Mittelgrau, wo sich nichts ändert, sonst das Vierfache der Änderung je Kanal.</translation>
    </message>
    <message>
        <source>difference ΔE2000</source>
        <translation>Abstand ΔE2000</translation>
    </message>
    <message>
        <source>How far the rule moves each colour, by CIEDE2000.</source>
        <translation>Wie weit die Regel jede Farbe verschiebt, nach CIEDE2000.</translation>
    </message>
    <message>
        <source>noise gain</source>
        <translation>Rauschverstärkung</translation>
    </message>
    <message>
        <source>How much louder the rule makes noise, in the channel that gets most of it: 1 is as loud as before.</source>
        <translation>Wie viel lauter die Regel das Rauschen macht, im Kanal, der am meisten abbekommt: 1 ist so laut wie vorher.</translation>
    </message>
    <message>
        <source>folds</source>
        <translation>Faltungen</translation>
    </message>
    <message>
        <source>Where the rule turns the order of colours over (light rising stripes) and where it loses a dimension of colour (dark level lines). A swap of two channels turns all of them over; a fold is an edge between what is turned and what is not.</source>
        <translation>Wo die Regel die Ordnung der Farben umkehrt (helle steigende Streifen) und wo sie eine Dimension der Farbe verliert (dunkle waagrechte Linien). Ein Tausch zweier Kanäle kehrt alle um; eine Faltung ist eine Kante zwischen umgekehrten und nicht umgekehrten.</translation>
    </message>
    <message>
        <source>step's mask</source>
        <translation>Maske des Schritts</translation>
    </message>
    <message>
        <source>Where the active step is laid over what comes into it: 0 black, 1 white. Everywhere, if it has no mask.</source>
        <translation>Wo der aktive Schritt über das gelegt wird, was in ihn hineingeht: 0 schwarz, 1 weiß. Überall, wenn er keine Maske hat.</translation>
    </message>
    <message>
        <source>what the rule does</source>
        <translation>was die Regel tut</translation>
    </message>
    <message>
        <source>other eyes</source>
        <translation>andere Augen</translation>
    </message>
    <message>
        <source>without long-wave cones</source>
        <translation>ohne langwellige Zapfen</translation>
    </message>
    <message>
        <source>As protanopes see the screen (Machado, Oliveira and Fernandes 2009).</source>
        <translation>Wie Protanope den Bildschirm sehen (Machado, Oliveira und Fernandes 2009).</translation>
    </message>
    <message>
        <source>without middle-wave cones</source>
        <translation>ohne mittelwellige Zapfen</translation>
    </message>
    <message>
        <source>As deuteranopes see the screen (Machado, Oliveira and Fernandes 2009).</source>
        <translation>Wie Deuteranope den Bildschirm sehen (Machado, Oliveira und Fernandes 2009).</translation>
    </message>
    <message>
        <source>without short-wave cones</source>
        <translation>ohne kurzwellige Zapfen</translation>
    </message>
    <message>
        <source>As tritanopes see the screen (Machado, Oliveira and Fernandes 2009).</source>
        <translation>Wie Tritanope den Bildschirm sehen (Machado, Oliveira und Fernandes 2009).</translation>
    </message>
    <message>
        <source>without cones that differ</source>
        <translation>ohne verschiedene Zapfen</translation>
    </message>
    <message>
        <source>As those see the screen who see no colour, only luminance.</source>
        <translation>Wie den Bildschirm sieht, wer keine Farbe sieht, nur Leuchtdichte.</translation>
    </message>
    <message>
        <source>0 .. 1</source>
        <translation>0 .. 1</translation>
    </message>
    <message>
        <source>0 .. 360°, saturation 0.85, value 0.8</source>
        <translation>0 .. 360°, Sättigung 0.85, Wert 0.8</translation>
    </message>
    <message>
        <source>0 .. 5</source>
        <translation>0 .. 5</translation>
    </message>
    <message>
        <source>1 in the middle, 0 on the circle</source>
        <translation>1 in der Mitte, 0 auf dem Kreis</translation>
    </message>
    <message>
        <source>100/0/100/0</source>
        <translation>100/0/100/0</translation>
    </message>
    <message>
        <source>100/0/75/0</source>
        <translation>100/0/75/0</translation>
    </message>
    <message>
        <source>1: code values of narrow range, black 64 and white 940 of 1023</source>
        <translation>1: Codewerte des engen Bereichs, Schwarz 64 und Weiß 940 von 1023</translation>
    </message>
    <message>
        <source>21 steps of density 0.15, from 1 down</source>
        <translation>21 Stufen der Dichte 0.15, von 1 abwärts</translation>
    </message>
    <message>
        <source>24 patches</source>
        <translation>24 Felder</translation>
    </message>
    <message>
        <source>24 patches, published values</source>
        <translation>24 Felder, veröffentlichte Werte</translation>
    </message>
    <message>
        <source>33 levels of r, g and b</source>
        <translation>33 Stufen von r, g und b</translation>
    </message>
    <message>
        <source>58 % and 100 %, steps, BT.709 bars</source>
        <translation>58 % und 100 %, Stufen, Balken von BT.709</translation>
    </message>
    <message>
        <source>709</source>
        <translation>709</translation>
    </message>
    <message>
        <source>75 % and 100 %, steps, BT.709 bars</source>
        <translation>75 % und 100 %, Stufen, Balken von BT.709</translation>
    </message>
    <message>
        <source>75 %, ramp, levels around black</source>
        <translation>75 %, Verlauf, Stufen um Schwarz</translation>
    </message>
    <message>
        <source>A changed picture is laid over by a smooth mask of luminance.</source>
        <translation>Ein verändertes Bild wird durch eine weiche Maske der Leuchtdichte darübergelegt.</translation>
    </message>
    <message>
        <source>A chart of 24 patches by its published chromaticities under illuminant C, adapted to D65 by Bradford; cyan lies outside BT.709.</source>
        <translation>Eine Tafel aus 24 Feldern nach ihren veröffentlichten Farbarten unter Lichtart C, mit Bradford auf D65 angepasst; Cyan liegt außerhalb von BT.709.</translation>
    </message>
    <message>
        <source>A ramp from 0 to 1 turned into hue, with saturation and value 1: all full colours, red to red.</source>
        <translation>Ein Verlauf von 0 bis 1 in Farbton verwandelt, mit Sättigung und Wert 1: alle vollen Farben, Rot bis Rot.</translation>
    </message>
    <message>
        <source>Adjust a band of hues</source>
        <translation>Einen Bereich von Farbtönen verändern</translation>
    </message>
    <message>
        <source>All HSV hues at one saturation and value, red to red.</source>
        <translation>Alle HSV-Farbtöne bei einer Sättigung und einem Wert, Rot bis Rot.</translation>
    </message>
    <message>
        <source>Along the grey ramp from -0.25 to 4 no channel ever falls: the largest fall from one step of 4097 to the next.</source>
        <translation>Entlang des Grauverlaufs von -0.25 bis 4 fällt kein Kanal: der größte Abfall von einer der 4097 Stufen zur nächsten.</translation>
    </message>
    <message>
        <source>Along the grey ramp from -0.25 to 4 the channels stay together: largest minus smallest channel.</source>
        <translation>Entlang des Grauverlaufs von -0.25 bis 4 bleiben die Kanäle beieinander: größter minus kleinster Kanal.</translation>
    </message>
    <message>
        <source>Along the grey ramp from -0.25 to 4 what comes out is what went in: the rows of a mixing matrix sum to 1. Largest change of a channel, relative to values above 1.</source>
        <translation>Entlang des Grauverlaufs von -0.25 bis 4 kommt heraus, was hineinging: die Zeilen einer Mischmatrix haben die Summe 1. Größte Änderung eines Kanals, über 1 relativ.</translation>
    </message>
    <message>
        <source>Alpha comes out as it went in.</source>
        <translation>Alpha kommt heraus, wie es hineinging.</translation>
    </message>
    <message>
        <source>As more dye does.</source>
        <translation>Wie mehr Farbstoff es tut.</translation>
    </message>
    <message>
        <source>At its defaults the rule changes nothing: largest change of a channel, relative to the largest channel where that is above 1.</source>
        <translation>Mit ihren Ausgangswerten ändert die Regel nichts: größte Änderung eines Kanals, relativ zum größten Kanal, wo dieser über 1 liegt.</translation>
    </message>
    <message>
        <source>Average of the channels</source>
        <translation>Mittel der Kanäle</translation>
    </message>
    <message>
        <source>BT.2020</source>
        <translation>BT.2020</translation>
    </message>
    <message>
        <source>BT.2020 as the reference display shows it (BT.1886).</source>
        <translation>BT.2020, wie der Bezugsbildschirm es zeigt (BT.1886).</translation>
    </message>
    <message>
        <source>BT.2020 primaries, hybrid log-gamma of the scene; diffuse white is at 75 %.</source>
        <translation>Primärfarben von BT.2020, Hybrid Log-Gamma der Szene; diffuses Weiß liegt bei 75 %.</translation>
    </message>
    <message>
        <source>BT.2020 primaries, perceptual quantiser; diffuse white is 203 cd/m2 of 10 000.</source>
        <translation>Primärfarben von BT.2020, perzeptueller Quantisierer; diffuses Weiß liegt bei 203 cd/m2 von 10 000.</translation>
    </message>
    <message>
        <source>BT.709</source>
        <translation>BT.709</translation>
    </message>
    <message>
        <source>BT.709 as the reference display shows it (BT.1886).</source>
        <translation>BT.709, wie der Bezugsbildschirm es zeigt (BT.1886).</translation>
    </message>
    <message>
        <source>BT.709 primaries, a power of 1.8.</source>
        <translation>Primärfarben von BT.709, Potenz 1.8.</translation>
    </message>
    <message>
        <source>BT.709 primaries, a power of 2.2.</source>
        <translation>Primärfarben von BT.709, Potenz 2.2.</translation>
    </message>
    <message>
        <source>BT.709 primaries, a power of 2.4.</source>
        <translation>Primärfarben von BT.709, Potenz 2.4.</translation>
    </message>
    <message>
        <source>BT.709 primaries, a power of 2.6.</source>
        <translation>Primärfarben von BT.709, Potenz 2.6.</translation>
    </message>
    <message>
        <source>Baked into a table of 33 points an axis over 0 to 1 and read by tetrahedral interpolation: the largest difference of a channel, on colours between its points.</source>
        <translation>In eine Tabelle von 33 Punkten je Achse über 0 bis 1 geschrieben und tetraedrisch gelesen: der größte Unterschied eines Kanals, an Farben zwischen ihren Punkten.</translation>
    </message>
    <message>
        <source>Bars for high dynamic range with hybrid log-gamma: 100 % and 75 % bars, steps from -7 to 109 %, a ramp, the colours of BT.709, levels around black.</source>
        <translation>Balken für hohen Dynamikumfang mit Hybrid Log-Gamma: Balken von 100 % und 75 %, Stufen von -7 bis 109 %, ein Verlauf, die Farben von BT.709, Stufen um Schwarz.</translation>
    </message>
    <message>
        <source>Bars for high dynamic range with the perceptual quantiser: 100 % and 58 % bars, steps from -7 to 109 %, a ramp, the colours of BT.709, levels around black.</source>
        <translation>Balken für hohen Dynamikumfang mit dem perzeptuellen Quantisierer: Balken von 100 % und 58 %, Stufen von -7 bis 109 %, ein Verlauf, die Farben von BT.709, Stufen um Schwarz.</translation>
    </message>
    <message>
        <source>Bits of red against bits of green, at 8 bits.</source>
        <translation>Bits von Rot gegen Bits von Grün, bei 8 Bit.</translation>
    </message>
    <message>
        <source>Blend through a mask</source>
        <translation>Durch eine Maske mischen</translation>
    </message>
    <message>
        <source>Blue alone from 0 to 1.</source>
        <translation>Blau allein von 0 bis 1.</translation>
    </message>
    <message>
        <source>Blur the chroma</source>
        <translation>Buntheit weichzeichnen</translation>
    </message>
    <message>
        <source>By how much a small cube of colours grows; negative where it is turned inside out.</source>
        <translation>Um wie viel ein kleiner Würfel von Farben wächst; negativ, wo er umgestülpt ist.</translation>
    </message>
    <message>
        <source>Camera-encoded BT.2020, 10 bits.</source>
        <translation>BT.2020, für die Kamera kodiert, 10 Bit.</translation>
    </message>
    <message>
        <source>Camera-encoded BT.601, 525 lines.</source>
        <translation>BT.601, für die Kamera kodiert, 525 Zeilen.</translation>
    </message>
    <message>
        <source>Camera-encoded BT.601, 625 lines.</source>
        <translation>BT.601, für die Kamera kodiert, 625 Zeilen.</translation>
    </message>
    <message>
        <source>Camera-encoded BT.709.</source>
        <translation>BT.709, für die Kamera kodiert.</translation>
    </message>
    <message>
        <source>Cb</source>
        <translation>Cb</translation>
    </message>
    <message>
        <source>Chromaticity</source>
        <translation>Farbarten</translation>
    </message>
    <message>
        <source>Colour differences of the signal that a reference display gets: lozenges at the 75 % bars, the outline at the 100 % bars. Every pixel is counted.</source>
        <translation>Farbdifferenzen des Signals, das ein Bezugsbildschirm bekommt: Rauten bei den Balken von 75 %, der Umriss bei denen von 100 %. Jeder Pixel zählt.</translation>
    </message>
    <message>
        <source>Colour noise goes, detail of lightness stays.</source>
        <translation>Farbrauschen geht, Einzelheiten der Helligkeit bleiben.</translation>
    </message>
    <message>
        <source>Colour over mono</source>
        <translation>Farbe über Schwarzweiß</translation>
    </message>
    <message>
        <source>Colour solid</source>
        <translation>Farbkörper</translation>
    </message>
    <message>
        <source>Colour stays as it is.</source>
        <translation>Farbe bleibt, wie sie ist.</translation>
    </message>
    <message>
        <source>Colours in the room</source>
        <translation>Farben im Raum</translation>
    </message>
    <message>
        <source>Cr</source>
        <translation>Cr</translation>
    </message>
    <message>
        <source>Crosstalk with held sums</source>
        <translation>Übersprechen mit gehaltenen Summen</translation>
    </message>
    <message>
        <source>Cut</source>
        <translation>Schnitt</translation>
    </message>
    <message>
        <source>Darken what is saturated</source>
        <translation>Dunkler, was gesättigt ist</translation>
    </message>
    <message>
        <source>Digital cinema: P3 primaries and their own white, a power of 2.6.</source>
        <translation>Digitales Kino: Primärfarben von P3 und deren Weiß, Potenz 2.6.</translation>
    </message>
    <message>
        <source>Display-encoded sRGB: BT.709 primaries, white D65, the curve of IEC 61966-2-1.</source>
        <translation>sRGB für den Bildschirm kodiert: Primärfarben von BT.709, Weiß D65, Kurve von IEC 61966-2-1.</translation>
    </message>
    <message>
        <source>Each channel moves to the mean of all three; greys stay.</source>
        <translation>Jeder Kanal rückt zum Mittel aller drei; Grau bleibt.</translation>
    </message>
    <message>
        <source>Edit in L*a*b*</source>
        <translation>In L*a*b* bearbeiten</translation>
    </message>
    <message>
        <source>Every channel takes a share of the two others; the rows sum to 1, so greys stay.</source>
        <translation>Jeder Kanal nimmt einen Anteil der beiden anderen; die Zeilen haben die Summe 1, also bleibt Grau grau.</translation>
    </message>
    <message>
        <source>Every combination of the levels, once each: red across and green down in each square, one square a level of blue, row by row. Pictures of it say what a chain of steps elsewhere does.</source>
        <translation>Jede Verbindung der Stufen einmal: Rot nach rechts und Grün nach unten in jedem Quadrat, ein Quadrat je Stufe von Blau, Reihe um Reihe. Bilder davon sagen, was eine Kette von Schritten anderswo tut.</translation>
    </message>
    <message>
        <source>Green alone from 0 to 1.</source>
        <translation>Grün allein von 0 bis 1.</translation>
    </message>
    <message>
        <source>Green and blue change places.</source>
        <translation>Grün und Blau tauschen die Plätze.</translation>
    </message>
    <message>
        <source>Green and blue share one dye, red has the other.</source>
        <translation>Grün und Blau teilen einen Farbstoff, Rot hat den anderen.</translation>
    </message>
    <message>
        <source>Green and blue together from 0 to 1.</source>
        <translation>Grün und Blau zusammen von 0 bis 1.</translation>
    </message>
    <message>
        <source>Grey by the distance from the middle; the same beyond the circle that touches the edge as on it.</source>
        <translation>Grau nach dem Abstand von der Mitte; außerhalb des Kreises, der den Rand berührt, wie auf ihm.</translation>
    </message>
    <message>
        <source>Greys from 8 stops below middle grey (0.18) to 6 above: every stop is as wide as the next.</source>
        <translation>Grautöne von 8 Blendenstufen unter Mittelgrau (0.18) bis 6 darüber: jede Stufe ist gleich breit.</translation>
    </message>
    <message>
        <source>Greys in even steps from 0 far beyond 1, where curves and clips show what they do to highlights.</source>
        <translation>Grautöne in gleichen Schritten von 0 weit über 1 hinaus, wo sich zeigt, was Kurven und Abschneiden mit Lichtern tun.</translation>
    </message>
    <message>
        <source>HSL hue across, 0 to 360 degrees, lightness from 0 at the bottom to 1 at the top.</source>
        <translation>HSL-Farbton nach rechts, 0 bis 360 Grad, Helligkeit von 0 unten bis 1 oben.</translation>
    </message>
    <message>
        <source>HSL saturation</source>
        <translation>HSL-Sättigung</translation>
    </message>
    <message>
        <source>HSV hue across, 0 to 360 degrees, saturation from 0 at the bottom to 1 at the top.</source>
        <translation>HSV-Farbton nach rechts, 0 bis 360 Grad, Sättigung von 0 unten bis 1 oben.</translation>
    </message>
    <message>
        <source>HSV hue by the direction (0 degrees right, 90 up), saturation by the distance from the middle, 1 from the circle on.</source>
        <translation>HSV-Farbton nach der Richtung (0 Grad rechts, 90 oben), Sättigung nach dem Abstand von der Mitte, ab dem Kreis 1.</translation>
    </message>
    <message>
        <source>HSV hue in degrees</source>
        <translation>HSV-Farbton in Grad</translation>
    </message>
    <message>
        <source>HSV saturation</source>
        <translation>HSV-Sättigung</translation>
    </message>
    <message>
        <source>HSV saturation from 0 to 1 at one hue and value.</source>
        <translation>HSV-Sättigung von 0 bis 1 bei einem Farbton und Wert.</translation>
    </message>
    <message>
        <source>HSV value</source>
        <translation>HSV-Wert</translation>
    </message>
    <message>
        <source>HSV value of the colours, in the working space</source>
        <translation>HSV-Wert der Farben, im Arbeitsfarbraum</translation>
    </message>
    <message>
        <source>Histogram</source>
        <translation>Histogramm</translation>
    </message>
    <message>
        <source>Hold the hue of a colour</source>
        <translation>Den Farbton einer Farbe halten</translation>
    </message>
    <message>
        <source>How much louder noise gets, in the channel that gets most of it: the longest row of the Jacobian. 1: as before.</source>
        <translation>Wie viel lauter Rauschen wird, im Kanal, der am meisten abbekommt: die längste Zeile der Jacobi-Matrix. 1: wie vorher.</translation>
    </message>
    <message>
        <source>How much room the three channels leave each other, -1 to 1: 0 where a dimension of colour is lost, below 0 where the order of colours is flipped.</source>
        <translation>Wie viel Raum die drei Kanäle einander lassen, -1 bis 1: 0, wo eine Dimension der Farbe verloren ist, unter 0, wo die Ordnung der Farben umgekehrt ist.</translation>
    </message>
    <message>
        <source>How often each level occurs, as a share of all pixels. Every pixel is counted.</source>
        <translation>Wie oft jede Stufe vorkommt, als Anteil aller Pixel. Jeder Pixel zählt.</translation>
    </message>
    <message>
        <source>Hue map</source>
        <translation>Farbtonkarte</translation>
    </message>
    <message>
        <source>ICtCp</source>
        <translation>ICtCp</translation>
    </message>
    <message>
        <source>Keep the luminance</source>
        <translation>Leuchtdichte halten</translation>
    </message>
    <message>
        <source>L*a*b*</source>
        <translation>L*a*b*</translation>
    </message>
    <message>
        <source>L*a*b* plane</source>
        <translation>L*a*b*-Ebene</translation>
    </message>
    <message>
        <source>Lightness and the two opponents, edited apart.</source>
        <translation>Helligkeit und die beiden Gegenfarben, getrennt bearbeitet.</translation>
    </message>
    <message>
        <source>Linear light for rendering, primaries AP1.</source>
        <translation>Lineares Licht zum Rendern, Primärfarben AP1.</translation>
    </message>
    <message>
        <source>Linear light of digital cinema.</source>
        <translation>Lineares Licht des digitalen Kinos.</translation>
    </message>
    <message>
        <source>Linear light of the ACES interchange space, primaries AP0.</source>
        <translation>Lineares Licht des ACES-Austauschraums, Primärfarben AP0.</translation>
    </message>
    <message>
        <source>Linear light, BT.2020 primaries.</source>
        <translation>Lineares Licht, Primärfarben von BT.2020.</translation>
    </message>
    <message>
        <source>Linear light, BT.601 primaries of 525 lines.</source>
        <translation>Lineares Licht, Primärfarben von BT.601 mit 525 Zeilen.</translation>
    </message>
    <message>
        <source>Linear light, BT.601 primaries of 625 lines.</source>
        <translation>Lineares Licht, Primärfarben von BT.601 mit 625 Zeilen.</translation>
    </message>
    <message>
        <source>Linear light, BT.709 primaries, white D65.</source>
        <translation>Lineares Licht, Primärfarben von BT.709, Weiß D65.</translation>
    </message>
    <message>
        <source>Linear light, P3 primaries, white D65.</source>
        <translation>Lineares Licht, Primärfarben von P3, Weiß D65.</translation>
    </message>
    <message>
        <source>Linear light, ROMM primaries, white D50.</source>
        <translation>Lineares Licht, Primärfarben von ROMM, Weiß D50.</translation>
    </message>
    <message>
        <source>Linear light, opRGB primaries.</source>
        <translation>Lineares Licht, Primärfarben von opRGB.</translation>
    </message>
    <message>
        <source>Logarithmic with a straight toe, primaries AP1.</source>
        <translation>Logarithmisch mit geradem Fuß, Primärfarben AP1.</translation>
    </message>
    <message>
        <source>Logarithmic, primaries AP1.</source>
        <translation>Logarithmisch, Primärfarben AP1.</translation>
    </message>
    <message>
        <source>Mix by zones</source>
        <translation>Nach Zonen mischen</translation>
    </message>
    <message>
        <source>Mixing matrix</source>
        <translation>Mischmatrix</translation>
    </message>
    <message>
        <source>Nine numbers that the mix table shows.</source>
        <translation>Neun Zahlen, die die Mischtabelle zeigt.</translation>
    </message>
    <message>
        <source>No channel of any colour falls.</source>
        <translation>Kein Kanal einer Farbe fällt.</translation>
    </message>
    <message>
        <source>OKLab</source>
        <translation>OKLab</translation>
    </message>
    <message>
        <source>Offset that minds alpha</source>
        <translation>Versatz, der Alpha beachtet</translation>
    </message>
    <message>
        <source>On 4096 colours between 0 and 1 no dimension of colour is lost and none is folded: how many are (the determinant of the slopes, over the lengths of its rows, is below 0.001).</source>
        <translation>An 4096 Farben zwischen 0 und 1 geht keine Dimension der Farbe verloren und keine ist gefaltet: wie viele es sind (die Determinante der Steigungen, durch die Längen ihrer Zeilen, liegt unter 0.001).</translation>
    </message>
    <message>
        <source>On 4096 colours between 0 and 1 the rule turns the order of colours as it does at its defaults: how many have the determinant of their slopes with the other sign.</source>
        <translation>An 4096 Farben zwischen 0 und 1 kehrt die Regel die Ordnung der Farben um wie mit ihren Ausgangswerten: wie viele eine Determinante ihrer Steigungen mit anderem Vorzeichen haben.</translation>
    </message>
    <message>
        <source>On 4096 colours between 0 and 1: how many times as loud independent noise of r, g, b comes out, in the channel that gets most of it.</source>
        <translation>An 4096 Farben zwischen 0 und 1: wie viele Male so laut unabhängiges Rauschen von r, g, b herauskommt, im Kanal, der am meisten abbekommt.</translation>
    </message>
    <message>
        <source>On a lattice of 4913 colours from -1 to 16: the largest difference of a channel to what the other filter makes, relative to values above 1. Parameters of one name have one value.</source>
        <translation>Auf einem Gitter von 4913 Farben von -1 bis 16: der größte Unterschied eines Kanals zu dem, was der andere Filter macht, über 1 relativ. Parameter gleichen Namens haben einen Wert.</translation>
    </message>
    <message>
        <source>On a lattice of 4913 colours from 0 to 1, corners and edges too: how far a channel comes to lie below 0 or above 1.</source>
        <translation>Auf einem Gitter von 4913 Farben von 0 bis 1, mit Ecken und Kanten: wie weit ein Kanal unter 0 oder über 1 zu liegen kommt.</translation>
    </message>
    <message>
        <source>On a lattice of colours between 0 and 1: largest change of luminance Y, by the weights of the working space.</source>
        <translation>Auf einem Gitter von Farben zwischen 0 und 1: größte Änderung der Leuchtdichte Y, nach den Gewichten des Arbeitsfarbraums.</translation>
    </message>
    <message>
        <source>On a lattice of colours from -1 to 16: how many of them give a NaN or an infinity.</source>
        <translation>Auf einem Gitter von Farben von -1 bis 16: wie viele davon NaN oder unendlich ergeben.</translation>
    </message>
    <message>
        <source>One colour comes to lie within 1 (CIEDE2000) of another.</source>
        <translation>Eine Farbe kommt innerhalb von 1 (CIEDE2000) einer anderen zu liegen.</translation>
    </message>
    <message>
        <source>One colour moves by less than 1 in CIEDE2000.</source>
        <translation>Eine Farbe bewegt sich um weniger als 1 in CIEDE2000.</translation>
    </message>
    <message>
        <source>One picture without colour, of weights that sum to 1.</source>
        <translation>Ein Bild ohne Farbe, aus Gewichten mit der Summe 1.</translation>
    </message>
    <message>
        <source>One range of hues keeps its colour, the rest goes grey.</source>
        <translation>Ein Bereich von Farbtönen behält seine Farbe, der Rest wird grau.</translation>
    </message>
    <message>
        <source>Our own chart of dyes, skins, plants and neutrals, with one patch of lantern light above 1.</source>
        <translation>Unsere eigene Tafel aus Farbstoffen, Hautfarben, Pflanzen und Neutralen, mit einem Feld Laternenlicht über 1.</translation>
    </message>
    <message>
        <source>Outside of a band of hues nothing moves by more than 0.5 in CIEDE2000.</source>
        <translation>Außerhalb eines Bereichs von Farbtönen bewegt sich nichts um mehr als 0.5 in CIEDE2000.</translation>
    </message>
    <message>
        <source>P3 primaries, white D65, a power of 2.6.</source>
        <translation>Primärfarben von P3, Weiß D65, Potenz 2.6.</translation>
    </message>
    <message>
        <source>P3 primaries, white D65, the curve of sRGB, as on displays of computers.</source>
        <translation>Primärfarben von P3, Weiß D65, Kurve von sRGB, wie auf Rechnerbildschirmen.</translation>
    </message>
    <message>
        <source>Parade</source>
        <translation>Parade</translation>
    </message>
    <message>
        <source>Pattern of code values</source>
        <translation>Muster der Codewerte</translation>
    </message>
    <message>
        <source>ROMM RGB, white D50.</source>
        <translation>ROMM RGB, Weiß D50.</translation>
    </message>
    <message>
        <source>Red alone from 0 to 1.</source>
        <translation>Rot allein von 0 bis 1.</translation>
    </message>
    <message>
        <source>Red and blue together from 0 to 1.</source>
        <translation>Rot und Blau zusammen von 0 bis 1.</translation>
    </message>
    <message>
        <source>Red and green together from 0 to 1.</source>
        <translation>Rot und Grün zusammen von 0 bis 1.</translation>
    </message>
    <message>
        <source>Red takes green, green takes blue, blue takes red.</source>
        <translation>Rot nimmt Grün, Grün nimmt Blau, Blau nimmt Rot.</translation>
    </message>
    <message>
        <source>Response</source>
        <translation>Antwort</translation>
    </message>
    <message>
        <source>Rotate the channels</source>
        <translation>Kanäle im Kreis tauschen</translation>
    </message>
    <message>
        <source>Scales the result to the luminance of what came in.</source>
        <translation>Bringt das Ergebnis auf die Leuchtdichte dessen, was hineinging.</translation>
    </message>
    <message>
        <source>Shadows lean to one tint, lights to another; the middle stays.</source>
        <translation>Schatten neigen zu einer Tönung, Lichter zu einer anderen; die Mitte bleibt.</translation>
    </message>
    <message>
        <source>Sharpen the lightness</source>
        <translation>Helligkeit schärfen</translation>
    </message>
    <message>
        <source>Split tone</source>
        <translation>Geteilte Tönung</translation>
    </message>
    <message>
        <source>Squares of even random r, g, b, the same for the same seed.</source>
        <translation>Quadrate von gleichverteilt zufälligem r, g, b, für denselben Startwert dieselben.</translation>
    </message>
    <message>
        <source>Steps of equal density, 1 at the left: step n has the light 10^(-n density). 0.15 is half a stop.</source>
        <translation>Stufen gleicher Dichte, 1 links: Stufe n hat das Licht 10^(-n Dichte). 0.15 ist eine halbe Blendenstufe.</translation>
    </message>
    <message>
        <source>Swap two channels</source>
        <translation>Zwei Kanäle tauschen</translation>
    </message>
    <message>
        <source>The dye chart as a simulated camera sees it: exposure, the light's and the camera's white, crosstalk between channels and noise are settings. The same for the same seed.</source>
        <translation>Die Farbstofftafel, wie eine nachgebildete Kamera sie sieht: Belichtung, Weiß des Lichts und der Kamera, Übersprechen zwischen Kanälen und Rauschen sind Einstellungen. Für denselben Startwert dasselbe.</translation>
    </message>
    <message>
        <source>The hue of one colour, in CIE LCh, moves by less than a degree.</source>
        <translation>Der Farbton einer Farbe, in CIE LCh, bewegt sich um weniger als ein Grad.</translation>
    </message>
    <message>
        <source>The multi-format bars: 75 % bars between 40 % grey; 100 % cyan, yellow, blue and red at the sides; a ramp; -2, +2 and +4 % around black.</source>
        <translation>Die Balken für viele Formate: Balken von 75 % zwischen 40 % Grau; Cyan, Gelb, Blau und Rot von 100 % an den Seiten; ein Verlauf; -2, +2 und +4 % um Schwarz.</translation>
    </message>
    <message>
        <source>The same, and through the eyes of those who see no colour at all, only luminance.</source>
        <translation>Dasselbe, und mit den Augen derer, die keine Farbe sehen, nur Leuchtdichte.</translation>
    </message>
    <message>
        <source>The smallest CIEDE2000 between any two of the colours after the rule, as most people see them and as those do who lack one kind of cone (Machado, Oliveira and Fernandes 2009 at 1; Viénot, Brettel and Mollon 1999; Brettel, Viénot and Mollon 1997).</source>
        <translation>Das kleinste CIEDE2000 zwischen je zweien der Farben nach der Regel, wie die meisten sie sehen und wie jene, denen eine Art Zapfen fehlt (Machado, Oliveira und Fernandes 2009 bei 1; Viénot, Brettel und Mollon 1999; Brettel, Viénot und Mollon 1997).</translation>
    </message>
    <message>
        <source>The values along the line across the picture, pixel by pixel.</source>
        <translation>Die Werte entlang der Linie durch das Bild, Pixel um Pixel.</translation>
    </message>
    <message>
        <source>Three matrices, for shadows, middle tones and lights; the zones sum to 1.</source>
        <translation>Drei Matrizen, für Schatten, Mitteltöne und Lichter; die Zonen haben die Summe 1.</translation>
    </message>
    <message>
        <source>Turns and saturates one range of hues; the rest stays.</source>
        <translation>Dreht und sättigt einen Bereich von Farbtönen; der Rest bleibt.</translation>
    </message>
    <message>
        <source>Turns the result until this colour has its hue back.</source>
        <translation>Dreht das Ergebnis, bis diese Farbe ihren Farbton wieder hat.</translation>
    </message>
    <message>
        <source>Two dyes</source>
        <translation>Zwei Farbstoffe</translation>
    </message>
    <message>
        <source>Vectorscope</source>
        <translation>Vektorskop</translation>
    </message>
    <message>
        <source>Waveform</source>
        <translation>Wellenform</translation>
    </message>
    <message>
        <source>Weighted mono</source>
        <translation>Gewichtetes Schwarzweiß</translation>
    </message>
    <message>
        <source>What becomes of the cube of colours, in a room of a colour model: turned by dragging and arrow keys. Cells that are turned over are marked, and those that have lost their volume; edges of spaces are wires.</source>
        <translation>Was aus dem Würfel der Farben wird, im Raum eines Farbmodells: gedreht durch Ziehen und Pfeiltasten. Umgekehrte Zellen sind markiert, und jene, die ihr Volumen verloren haben; Kanten von Farbräumen sind Drähte.</translation>
    </message>
    <message>
        <source>What comes out (up) for greys that go in (across), channel by channel; where it falls while the grey rises is marked.</source>
        <translation>Was herauskommt (nach oben) für Grautöne, die hineingehen (nach rechts), Kanal um Kanal; wo es fällt, während das Grau steigt, ist markiert.</translation>
    </message>
    <message>
        <source>What is inside of the space stays there: how far outside, in its linear numbers.</source>
        <translation>Was im Farbraum liegt, bleibt darin: wie weit außerhalb, in seinen linearen Zahlen.</translation>
    </message>
    <message>
        <source>What is not there gets no light.</source>
        <translation>Was nicht da ist, bekommt kein Licht.</translation>
    </message>
    <message>
        <source>Where colours lie on the chromaticity diagram, with the triangles of spaces. Every pixel is counted.</source>
        <translation>Wo Farben in der Farbtafel der Farbarten liegen, mit den Dreiecken von Farbräumen. Jeder Pixel zählt.</translation>
    </message>
    <message>
        <source>Where colours lie on the plane of a* and b*, seen from above. Every pixel is counted.</source>
        <translation>Wo Farben auf der Ebene von a* und b* liegen, von oben gesehen. Jeder Pixel zählt.</translation>
    </message>
    <message>
        <source>Where hues and saturations go: from each ring to where the rule takes it.</source>
        <translation>Wohin Farbtöne und Sättigungen gehen: von jedem Ring dorthin, wohin die Regel ihn bringt.</translation>
    </message>
    <message>
        <source>Where the colours of pictures lie in a room of a colour model, as points; edges of spaces are wires.</source>
        <translation>Wo die Farben von Bildern im Raum eines Farbmodells liegen, als Punkte; Kanten von Farbräumen sind Drähte.</translation>
    </message>
    <message>
        <source>Which levels occur in each column of the picture, r, g and b over each other. Every pixel is counted.</source>
        <translation>Welche Stufen in jeder Spalte des Bildes vorkommen, r, g und b übereinander. Jeder Pixel zählt.</translation>
    </message>
    <message>
        <source>Which levels occur in each column of the picture, r, g and b side by side. Every pixel is counted.</source>
        <translation>Welche Stufen in jeder Spalte des Bildes vorkommen, r, g und b nebeneinander. Jeder Pixel zählt.</translation>
    </message>
    <message>
        <source>White, yellow, cyan, green, magenta, red, blue, black at 100 %.</source>
        <translation>Weiß, Gelb, Cyan, Grün, Magenta, Rot, Blau, Schwarz bei 100 %.</translation>
    </message>
    <message>
        <source>White, yellow, cyan, green, magenta, red, blue, black; white at 100 %, colours at 75 %.</source>
        <translation>Weiß, Gelb, Cyan, Grün, Magenta, Rot, Blau, Schwarz; Weiß bei 100 %, Farben bei 75 %.</translation>
    </message>
    <message>
        <source>a LUT of 33 is near enough</source>
        <translation>eine LUT von 33 ist nah genug</translation>
    </message>
    <message>
        <source>a grey ramp taken for the hue</source>
        <translation>ein Grauverlauf, als Farbton genommen</translation>
    </message>
    <message>
        <source>a simulated camera</source>
        <translation>eine nachgebildete Kamera</translation>
    </message>
    <message>
        <source>a*</source>
        <translation>a*</translation>
    </message>
    <message>
        <source>along which hue it is cut, in degrees</source>
        <translation>entlang welchem Farbton geschnitten wird, in Grad</translation>
    </message>
    <message>
        <source>alpha stays</source>
        <translation>Alpha bleibt</translation>
    </message>
    <message>
        <source>and 2020</source>
        <translation>und 2020</translation>
    </message>
    <message>
        <source>and AP1</source>
        <translation>und AP1</translation>
    </message>
    <message>
        <source>and P3</source>
        <translation>und P3</translation>
    </message>
    <message>
        <source>at a height</source>
        <translation>in einer Höhe</translation>
    </message>
    <message>
        <source>at a hue</source>
        <translation>bei einem Farbton</translation>
    </message>
    <message>
        <source>axes</source>
        <translation>Achsen</translation>
    </message>
    <message>
        <source>b</source>
        <translation>b</translation>
    </message>
    <message>
        <source>b*</source>
        <translation>b*</translation>
    </message>
    <message>
        <source>balance</source>
        <translation>Abgleich</translation>
    </message>
    <message>
        <source>blue ramp</source>
        <translation>Blauverlauf</translation>
    </message>
    <message>
        <source>camera on the chart</source>
        <translation>Kamera auf die Tafel</translation>
    </message>
    <message>
        <source>can be undone</source>
        <translation>lässt sich rückgängig machen</translation>
    </message>
    <message>
        <source>centre</source>
        <translation>Mitte</translation>
    </message>
    <message>
        <source>chart of 1976</source>
        <translation>Tafel von 1976</translation>
    </message>
    <message>
        <source>colour bars, 100 %</source>
        <translation>Farbbalken, 100 %</translation>
    </message>
    <message>
        <source>colour bars, 75 %</source>
        <translation>Farbbalken, 75 %</translation>
    </message>
    <message>
        <source>colour bars, HD</source>
        <translation>Farbbalken, HD</translation>
    </message>
    <message>
        <source>colour bars, HLG</source>
        <translation>Farbbalken, HLG</translation>
    </message>
    <message>
        <source>colour bars, PQ</source>
        <translation>Farbbalken, PQ</translation>
    </message>
    <message>
        <source>colour temperature of the light, kelvin</source>
        <translation>Farbtemperatur des Lichts, Kelvin</translation>
    </message>
    <message>
        <source>colour temperature that the camera is set to, kelvin</source>
        <translation>Farbtemperatur, auf die die Kamera gestellt ist, Kelvin</translation>
    </message>
    <message>
        <source>counts</source>
        <translation>Zählung</translation>
    </message>
    <message>
        <source>crosstalk</source>
        <translation>Übersprechen</translation>
    </message>
    <message>
        <source>cut</source>
        <translation>geschnitten</translation>
    </message>
    <message>
        <source>cyan ramp</source>
        <translation>Cyanverlauf</translation>
    </message>
    <message>
        <source>density</source>
        <translation>Dichte</translation>
    </message>
    <message>
        <source>determinant</source>
        <translation>Determinante</translation>
    </message>
    <message>
        <source>diagram</source>
        <translation>Diagramm</translation>
    </message>
    <message>
        <source>difference of density from one step to the next; 0.3 is a stop</source>
        <translation>Unterschied der Dichte von einer Stufe zur nächsten; 0.3 ist eine Blendenstufe</translation>
    </message>
    <message>
        <source>dye chart</source>
        <translation>Farbstofftafel</translation>
    </message>
    <message>
        <source>edge</source>
        <translation>Kante</translation>
    </message>
    <message>
        <source>edges of spaces</source>
        <translation>Kanten von Farbräumen</translation>
    </message>
    <message>
        <source>exposure</source>
        <translation>Belichtung</translation>
    </message>
    <message>
        <source>first level</source>
        <translation>erste Stufe</translation>
    </message>
    <message>
        <source>flat lattice</source>
        <translation>flaches Gitter</translation>
    </message>
    <message>
        <source>g</source>
        <translation>g</translation>
    </message>
    <message>
        <source>gamuts</source>
        <translation>Farbumfänge</translation>
    </message>
    <message>
        <source>greatest value of a channel</source>
        <translation>größter Wert eines Kanals</translation>
    </message>
    <message>
        <source>green ramp</source>
        <translation>Grünverlauf</translation>
    </message>
    <message>
        <source>grey by stops</source>
        <translation>Grau nach Blendenstufen</translation>
    </message>
    <message>
        <source>grey ramp</source>
        <translation>Grauverlauf</translation>
    </message>
    <message>
        <source>greys keep their value</source>
        <translation>Grau behält seinen Wert</translation>
    </message>
    <message>
        <source>greys stay grey</source>
        <translation>Grau bleibt grau</translation>
    </message>
    <message>
        <source>height</source>
        <translation>Höhe</translation>
    </message>
    <message>
        <source>hidden</source>
        <translation>verborgen</translation>
    </message>
    <message>
        <source>high</source>
        <translation>oben</translation>
    </message>
    <message>
        <source>highest level shown</source>
        <translation>höchste gezeigte Stufe</translation>
    </message>
    <message>
        <source>highest value</source>
        <translation>höchster Wert</translation>
    </message>
    <message>
        <source>highest value shown</source>
        <translation>höchster gezeigter Wert</translation>
    </message>
    <message>
        <source>how both axes run</source>
        <translation>wie beide Achsen laufen</translation>
    </message>
    <message>
        <source>how counts are drawn up</source>
        <translation>wie Zählungen gezeichnet werden</translation>
    </message>
    <message>
        <source>how many</source>
        <translation>wie viele</translation>
    </message>
    <message>
        <source>hue</source>
        <translation>Farbton</translation>
    </message>
    <message>
        <source>hue 132°, value 0.8</source>
        <translation>Farbton 132°, Wert 0.8</translation>
    </message>
    <message>
        <source>hue around, saturation outwards</source>
        <translation>Farbton im Kreis, Sättigung nach außen</translation>
    </message>
    <message>
        <source>hue sweep</source>
        <translation>Farbtonkreis</translation>
    </message>
    <message>
        <source>hues and lightnesses</source>
        <translation>Farbtöne und Helligkeiten</translation>
    </message>
    <message>
        <source>hues and saturations</source>
        <translation>Farbtöne und Sättigungen</translation>
    </message>
    <message>
        <source>identity at defaults</source>
        <translation>ändert nichts bei Ausgangswerten</translation>
    </message>
    <message>
        <source>in which room</source>
        <translation>in welchem Raum</translation>
    </message>
    <message>
        <source>in, value</source>
        <translation>hinein, Wert</translation>
    </message>
    <message>
        <source>largest number of a channel</source>
        <translation>größte Zahl eines Kanals</translation>
    </message>
    <message>
        <source>last level</source>
        <translation>letzte Stufe</translation>
    </message>
    <message>
        <source>least value of a channel</source>
        <translation>kleinster Wert eines Kanals</translation>
    </message>
    <message>
        <source>level of the white bar</source>
        <translation>Stufe des weißen Balkens</translation>
    </message>
    <message>
        <source>levels</source>
        <translation>Stufen</translation>
    </message>
    <message>
        <source>light</source>
        <translation>Licht</translation>
    </message>
    <message>
        <source>line of skin hues</source>
        <translation>Linie der Hautfarbtöne</translation>
    </message>
    <message>
        <source>linear</source>
        <translation>linear</translation>
    </message>
    <message>
        <source>log</source>
        <translation>logarithmisch</translation>
    </message>
    <message>
        <source>low</source>
        <translation>unten</translation>
    </message>
    <message>
        <source>lowest level shown; low = high: what is usual for the unit</source>
        <translation>niedrigste gezeigte Stufe; unten = oben: was für die Einheit üblich ist</translation>
    </message>
    <message>
        <source>lowest value (of linear axes); low = high: -0.1 to 1.3</source>
        <translation>niedrigster Wert (linearer Achsen); unten = oben: -0.1 bis 1.3</translation>
    </message>
    <message>
        <source>lowest value shown; low = high: what is usual for the unit</source>
        <translation>niedrigster gezeigter Wert; unten = oben: was für die Einheit üblich ist</translation>
    </message>
    <message>
        <source>luminance is kept</source>
        <translation>Leuchtdichte bleibt</translation>
    </message>
    <message>
        <source>magenta ramp</source>
        <translation>Magentaverlauf</translation>
    </message>
    <message>
        <source>model</source>
        <translation>Modell</translation>
    </message>
    <message>
        <source>narrow</source>
        <translation>eng</translation>
    </message>
    <message>
        <source>nits</source>
        <translation>Nits</translation>
    </message>
    <message>
        <source>no NaN or infinity</source>
        <translation>kein NaN und nichts Unendliches</translation>
    </message>
    <message>
        <source>no folds</source>
        <translation>keine Faltungen</translation>
    </message>
    <message>
        <source>no reversals</source>
        <translation>keine Umkehrungen</translation>
    </message>
    <message>
        <source>noise</source>
        <translation>Rauschen</translation>
    </message>
    <message>
        <source>noise stays low</source>
        <translation>Rauschen bleibt gering</translation>
    </message>
    <message>
        <source>none</source>
        <translation>keine</translation>
    </message>
    <message>
        <source>nothing gets darker</source>
        <translation>nichts wird dunkler</translation>
    </message>
    <message>
        <source>nothing leaves 0 to 1</source>
        <translation>nichts verlässt 0 bis 1</translation>
    </message>
    <message>
        <source>numbers</source>
        <translation>Zahlen</translation>
    </message>
    <message>
        <source>of each channel</source>
        <translation>jedes Kanals</translation>
    </message>
    <message>
        <source>of the pictures, about</source>
        <translation>der Bilder, ungefähr</translation>
    </message>
    <message>
        <source>of which plane</source>
        <translation>welcher Ebene</translation>
    </message>
    <message>
        <source>only these hues change</source>
        <translation>nur diese Farbtöne ändern sich</translation>
    </message>
    <message>
        <source>opRGB.</source>
        <translation>opRGB.</translation>
    </message>
    <message>
        <source>other numbers, other colours</source>
        <translation>andere Zahlen, andere Farben</translation>
    </message>
    <message>
        <source>other numbers, other noise</source>
        <translation>andere Zahlen, anderes Rauschen</translation>
    </message>
    <message>
        <source>out, value</source>
        <translation>heraus, Wert</translation>
    </message>
    <message>
        <source>pixels of one colour</source>
        <translation>Pixel einer Farbe</translation>
    </message>
    <message>
        <source>points</source>
        <translation>Punkte</translation>
    </message>
    <message>
        <source>points along an edge of the cube</source>
        <translation>Punkte entlang einer Kante des Würfels</translation>
    </message>
    <message>
        <source>polar</source>
        <translation>polar</translation>
    </message>
    <message>
        <source>r</source>
        <translation>r</translation>
    </message>
    <message>
        <source>r = g = b from below 0 to far above 1; evenly spread around 0, by stops above.</source>
        <translation>r = g = b von unter 0 bis weit über 1; um 0 gleichmäßig verteilt, darüber nach Blendenstufen.</translation>
    </message>
    <message>
        <source>r g b</source>
        <translation>r g b</translation>
    </message>
    <message>
        <source>radial</source>
        <translation>kreisförmig</translation>
    </message>
    <message>
        <source>random colours</source>
        <translation>zufällige Farben</translation>
    </message>
    <message>
        <source>red ramp</source>
        <translation>Rotverlauf</translation>
    </message>
    <message>
        <source>saturation</source>
        <translation>Sättigung</translation>
    </message>
    <message>
        <source>saturation 1</source>
        <translation>Sättigung 1</translation>
    </message>
    <message>
        <source>saturation ramp</source>
        <translation>Sättigungsverlauf</translation>
    </message>
    <message>
        <source>seed</source>
        <translation>Startwert</translation>
    </message>
    <message>
        <source>share of each channel that its neighbours catch</source>
        <translation>Anteil jedes Kanals, den seine Nachbarn auffangen</translation>
    </message>
    <message>
        <source>share of pixels, %</source>
        <translation>Anteil der Pixel, %</translation>
    </message>
    <message>
        <source>share of the line</source>
        <translation>Anteil der Linie</translation>
    </message>
    <message>
        <source>share of the width</source>
        <translation>Anteil der Breite</translation>
    </message>
    <message>
        <source>shells</source>
        <translation>Hüllen</translation>
    </message>
    <message>
        <source>shown</source>
        <translation>gezeigt</translation>
    </message>
    <message>
        <source>side</source>
        <translation>Seite</translation>
    </message>
    <message>
        <source>signal</source>
        <translation>Signal</translation>
    </message>
    <message>
        <source>skin</source>
        <translation>Haut</translation>
    </message>
    <message>
        <source>spectrum</source>
        <translation>Spektrum</translation>
    </message>
    <message>
        <source>standard deviation at middle grey, 0.18</source>
        <translation>Standardabweichung bei Mittelgrau, 0.18</translation>
    </message>
    <message>
        <source>stays inside BT.2020</source>
        <translation>bleibt in BT.2020</translation>
    </message>
    <message>
        <source>step wedge</source>
        <translation>Stufenkeil</translation>
    </message>
    <message>
        <source>steps</source>
        <translation>Stufen</translation>
    </message>
    <message>
        <source>stops</source>
        <translation>Blendenstufen</translation>
    </message>
    <message>
        <source>stops above middle grey</source>
        <translation>Blendenstufen über Mittelgrau</translation>
    </message>
    <message>
        <source>stops below middle grey</source>
        <translation>Blendenstufen unter Mittelgrau</translation>
    </message>
    <message>
        <source>superbright ramp</source>
        <translation>Verlauf weit über Weiß</translation>
    </message>
    <message>
        <source>system</source>
        <translation>System</translation>
    </message>
    <message>
        <source>the same as the other</source>
        <translation>dasselbe wie der andere</translation>
    </message>
    <message>
        <source>these colours stay apart for everyone</source>
        <translation>diese Farben bleiben für alle unterscheidbar</translation>
    </message>
    <message>
        <source>these colours stay apart for other eyes</source>
        <translation>diese Farben bleiben für andere Augen unterscheidbar</translation>
    </message>
    <message>
        <source>this colour keeps its hue</source>
        <translation>diese Farbe behält ihren Farbton</translation>
    </message>
    <message>
        <source>this colour lands there</source>
        <translation>diese Farbe landet dort</translation>
    </message>
    <message>
        <source>this colour stays</source>
        <translation>diese Farbe bleibt</translation>
    </message>
    <message>
        <source>times the usual size</source>
        <translation>Vielfaches der üblichen Größe</translation>
    </message>
    <message>
        <source>top</source>
        <translation>oben</translation>
    </message>
    <message>
        <source>triangles of spaces</source>
        <translation>Dreiecke von Farbräumen</translation>
    </message>
    <message>
        <source>u'v'</source>
        <translation>u'v'</translation>
    </message>
    <message>
        <source>unit</source>
        <translation>Einheit</translation>
    </message>
    <message>
        <source>value</source>
        <translation>Wert</translation>
    </message>
    <message>
        <source>value 0.8</source>
        <translation>Wert 0.8</translation>
    </message>
    <message>
        <source>value at the left end</source>
        <translation>Wert am linken Ende</translation>
    </message>
    <message>
        <source>value at the right end</source>
        <translation>Wert am rechten Ende</translation>
    </message>
    <message>
        <source>value in the middle</source>
        <translation>Wert in der Mitte</translation>
    </message>
    <message>
        <source>value on the circle</source>
        <translation>Wert auf dem Kreis</translation>
    </message>
    <message>
        <source>volume of colours</source>
        <translation>Volumen der Farben</translation>
    </message>
    <message>
        <source>what is taken away</source>
        <translation>was weggenommen wird</translation>
    </message>
    <message>
        <source>what the levels are</source>
        <translation>was die Stufen sind</translation>
    </message>
    <message>
        <source>what the values are</source>
        <translation>was die Werte sind</translation>
    </message>
    <message>
        <source>where it is cut, as a share of the upward axis</source>
        <translation>wo geschnitten wird, als Anteil der senkrechten Achse</translation>
    </message>
    <message>
        <source>which coordinates</source>
        <translation>welche Koordinaten</translation>
    </message>
    <message>
        <source>white</source>
        <translation>Weiß</translation>
    </message>
    <message>
        <source>whole</source>
        <translation>ganz</translation>
    </message>
    <message>
        <source>whose primaries, curve and luma</source>
        <translation>wessen Primärfarben, Kurve und Luma</translation>
    </message>
    <message>
        <source>x</source>
        <translation>x</translation>
    </message>
    <message>
        <source>xy</source>
        <translation>xy</translation>
    </message>
    <message>
        <source>xyY</source>
        <translation>xyY</translation>
    </message>
    <message>
        <source>y</source>
        <translation>y</translation>
    </message>
    <message>
        <source>yellow ramp</source>
        <translation>Gelbverlauf</translation>
    </message>
    <message>
        <source>zoom</source>
        <translation>Vergrößerung</translation>
    </message>
    <message>
        <source>−0.25 .. 4</source>
        <translation>−0.25 .. 4</translation>
    </message>
    <message>
        <source>−8 .. +6 stops about 0.18</source>
        <translation>−8 .. +6 Blendenstufen um 0.18</translation>
    </message>
    <message>
        <source>Each number for itself</source>
        <translation>Jede Zahl für sich</translation>
    </message>
    <message>
        <source>NaN</source>
        <translation>NaN</translation>
    </message>
    <message>
        <source>The one other weight takes the change, the own channel stays: the row keeps its sum</source>
        <translation>Das eine andere Gewicht nimmt die Änderung, der eigene Kanal bleibt: die Zeile behält ihre Summe</translation>
    </message>
    <message>
        <source>The other two weights share the change equally: the row keeps its sum</source>
        <translation>Die beiden anderen Gewichte teilen die Änderung gleich: die Zeile behält ihre Summe</translation>
    </message>
    <message>
        <source>The output's own channel takes the change: the row keeps its sum</source>
        <translation>Der eigene Kanal des Ausgangs nimmt die Änderung: die Zeile behält ihre Summe</translation>
    </message>
    <message>
        <source>The row is divided by its sum, which becomes 1</source>
        <translation>Die Zeile wird durch ihre Summe geteilt, die 1 wird</translation>
    </message>
    <message>
        <source>above the range</source>
        <translation>über dem Bereich</translation>
    </message>
    <message>
        <source>below the range</source>
        <translation>unter dem Bereich</translation>
    </message>
    <message>
        <source>cells without volume</source>
        <translation>Zellen ohne Volumen</translation>
    </message>
    <message>
        <source>divided</source>
        <translation>geteilt</translation>
    </message>
    <message>
        <source>folded cells</source>
        <translation>gefaltete Zellen</translation>
    </message>
    <message>
        <source>free</source>
        <translation>frei</translation>
    </message>
    <message>
        <source>other takes it</source>
        <translation>anderes nimmt es</translation>
    </message>
    <message>
        <source>others share</source>
        <translation>andere teilen</translation>
    </message>
    <message>
        <source>outside 2020</source>
        <translation>außerhalb 2020</translation>
    </message>
    <message>
        <source>outside 709</source>
        <translation>außerhalb 709</translation>
    </message>
    <message>
        <source>outside AP1</source>
        <translation>außerhalb AP1</translation>
    </message>
    <message>
        <source>outside P3</source>
        <translation>außerhalb P3</translation>
    </message>
    <message>
        <source>own takes it</source>
        <translation>eigenes nimmt es</translation>
    </message>
    <message>
        <source>reverses from</source>
        <translation>kehrt um ab</translation>
    </message>
    <message>
        <source>slope at 0.18</source>
        <translation>Steigung bei 0.18</translation>
    </message>
    <message>
        <source>edges of the working space, which may be of a colour config</source>
        <translation>Kanten des Arbeitsfarbraums, der aus einer Farbkonfiguration sein kann</translation>
    </message>
    <message>
        <source>edges of these spaces, which may be of a colour config</source>
        <translation>Kanten dieser Farbräume, die aus einer Farbkonfiguration sein können</translation>
    </message>
    <message>
        <source>of the pictures</source>
        <translation>der Bilder</translation>
    </message>
    <message>
        <source>of the rule</source>
        <translation>der Regel</translation>
    </message>
    <message>
        <source>own</source>
        <translation>eigene</translation>
    </message>
    <message>
        <source>3x3 matrix</source>
        <translation>3x3-Matrix</translation>
    </message>
    <message>
        <source>3x3 matrix between two powers</source>
        <translation>3x3-Matrix zwischen zwei Potenzen</translation>
    </message>
    <message>
        <source>3x3 matrix, then density</source>
        <translation>3x3-Matrix, dann Dichte</translation>
    </message>
    <message>
        <source>3x3 matrix, then subtractive saturation</source>
        <translation>3x3-Matrix, dann subtraktive Sättigung</translation>
    </message>
    <message>
        <source>3x4 matrix</source>
        <translation>3x4-Matrix</translation>
    </message>
    <message>
        <source>A curve for each channel, then a matrix with rows that sum to 1.</source>
        <translation>Eine Kurve je Kanal, dann eine Matrix, deren Zeilen die Summe 1 haben.</translation>
    </message>
    <message>
        <source>A curve for each channel.</source>
        <translation>Eine Kurve je Kanal.</translation>
    </message>
    <message>
        <source>A diagonal matrix and an offset.</source>
        <translation>Eine Diagonalmatrix und ein Versatz.</translation>
    </message>
    <message>
        <source>A diagonal matrix.</source>
        <translation>Eine Diagonalmatrix.</translation>
    </message>
    <message>
        <source>A matrix and an offset.</source>
        <translation>Eine Matrix und ein Versatz.</translation>
    </message>
    <message>
        <source>A matrix for dark colours, one for light ones.</source>
        <translation>Eine Matrix für dunkle Farben, eine für helle.</translation>
    </message>
    <message>
        <source>A matrix of the channels and of roots of their products: twice the light gives twice the result.</source>
        <translation>Eine Matrix der Kanäle und der Wurzeln ihrer Produkte: doppeltes Licht gibt das doppelte Ergebnis.</translation>
    </message>
    <message>
        <source>A matrix with rows that sum to 1, then a curve for each channel.</source>
        <translation>Eine Matrix, deren Zeilen die Summe 1 haben, dann eine Kurve je Kanal.</translation>
    </message>
    <message>
        <source>A matrix, then away from the largest channel.</source>
        <translation>Eine Matrix, dann weg vom größten Kanal.</translation>
    </message>
    <message>
        <source>A matrix, then darker by saturation.</source>
        <translation>Eine Matrix, dann dunkler nach Sättigung.</translation>
    </message>
    <message>
        <source>A number for each of six hues.</source>
        <translation>Eine Zahl für jeden von sechs Farbtönen.</translation>
    </message>
    <message>
        <source>A power, a matrix, another power.</source>
        <translation>Eine Potenz, eine Matrix, noch eine Potenz.</translation>
    </message>
    <message>
        <source>A tint of the shadows, another of the highlights.</source>
        <translation>Eine Tönung der Schatten, eine andere der Lichter.</translation>
    </message>
    <message>
        <source>All channels by one number, and one added.</source>
        <translation>Alle Kanäle mal eine Zahl, eine andere dazu.</translation>
    </message>
    <message>
        <source>All channels by one number.</source>
        <translation>Alle Kanäle mal eine Zahl.</translation>
    </message>
    <message>
        <source>All colours more or less colourful.</source>
        <translation>Alle Farben mehr oder weniger bunt.</translation>
    </message>
    <message>
        <source>An angle for each of six hues.</source>
        <translation>Ein Winkel für jeden von sechs Farbtönen.</translation>
    </message>
    <message>
        <source>Each channel a sum of all three.</source>
        <translation>Jeder Kanal eine Summe aller drei.</translation>
    </message>
    <message>
        <source>Every hue by the same angle.</source>
        <translation>Jeder Farbton um denselben Winkel.</translation>
    </message>
    <message>
        <source>Greys stay.</source>
        <translation>Grau bleibt.</translation>
    </message>
    <message>
        <source>One grey of the three channels.</source>
        <translation>Ein Grau aus den drei Kanälen.</translation>
    </message>
    <message>
        <source>One number for each.</source>
        <translation>Eine Zahl für jedes.</translation>
    </message>
    <message>
        <source>One of each for all channels; powers mirror below 0.</source>
        <translation>Je eine Zahl für alle Kanäle; Potenzen sind unter 0 gespiegelt.</translation>
    </message>
    <message>
        <source>Slope, offset and power of a colour decision list, unclamped.</source>
        <translation>Slope, Offset und Power einer Color Decision List, unbegrenzt.</translation>
    </message>
    <message>
        <source>Slope, offset, power and saturation about BT.709 luma, unclamped.</source>
        <translation>Slope, Offset, Power und Sättigung um das Luma von BT.709, unbegrenzt.</translation>
    </message>
    <message>
        <source>The same curve for all channels.</source>
        <translation>Dieselbe Kurve für alle Kanäle.</translation>
    </message>
    <message>
        <source>Three numbers for each of six hues.</source>
        <translation>Drei Zahlen für jeden von sechs Farbtönen.</translation>
    </message>
    <message>
        <source>Towards a grey of found weights, or away from it.</source>
        <translation>Zu einem Grau aus gefundenen Gewichten hin oder davon weg.</translation>
    </message>
    <message>
        <source>Towards grey or away from it.</source>
        <translation>Zu Grau hin oder davon weg.</translation>
    </message>
    <message>
        <source>What goes in comes out.</source>
        <translation>Was hineingeht, kommt heraus.</translation>
    </message>
    <message>
        <source>a gain for each channel</source>
        <translation>ein Faktor je Kanal</translation>
    </message>
    <message>
        <source>colour decision list</source>
        <translation>Color Decision List</translation>
    </message>
    <message>
        <source>colourfulness by hue, in hsv</source>
        <translation>Buntheit nach Farbton, in hsv</translation>
    </message>
    <message>
        <source>colourfulness by hue, in oklch</source>
        <translation>Buntheit nach Farbton, in oklch</translation>
    </message>
    <message>
        <source>colourfulness, in hsv</source>
        <translation>Buntheit, in hsv</translation>
    </message>
    <message>
        <source>colourfulness, in oklch</source>
        <translation>Buntheit, in oklch</translation>
    </message>
    <message>
        <source>gain and offset</source>
        <translation>Faktor und Versatz</translation>
    </message>
    <message>
        <source>gain and offset for each channel</source>
        <translation>Faktor und Versatz je Kanal</translation>
    </message>
    <message>
        <source>gain, offset and power</source>
        <translation>Faktor, Versatz und Potenz</translation>
    </message>
    <message>
        <source>gain, offset and power for each channel</source>
        <translation>Faktor, Versatz und Potenz je Kanal</translation>
    </message>
    <message>
        <source>hue by hue, in hsv</source>
        <translation>Farbton nach Farbton, in hsv</translation>
    </message>
    <message>
        <source>hue by hue, in oklch</source>
        <translation>Farbton nach Farbton, in oklch</translation>
    </message>
    <message>
        <source>hue turned, in hsv</source>
        <translation>Farbton gedreht, in hsv</translation>
    </message>
    <message>
        <source>hue turned, in oklch</source>
        <translation>Farbton gedreht, in oklch</translation>
    </message>
    <message>
        <source>hue, colourfulness and lightness by hue, in hsv</source>
        <translation>Farbton, Buntheit und Helligkeit nach Farbton, in hsv</translation>
    </message>
    <message>
        <source>hue, colourfulness and lightness by hue, in oklch</source>
        <translation>Farbton, Buntheit und Helligkeit nach Farbton, in oklch</translation>
    </message>
    <message>
        <source>hue, colourfulness and lightness, in hsv</source>
        <translation>Farbton, Buntheit und Helligkeit, in hsv</translation>
    </message>
    <message>
        <source>hue, colourfulness and lightness, in oklch</source>
        <translation>Farbton, Buntheit und Helligkeit, in oklch</translation>
    </message>
    <message>
        <source>lightness by hue, in hsv</source>
        <translation>Helligkeit nach Farbton, in hsv</translation>
    </message>
    <message>
        <source>lightness by hue, in oklch</source>
        <translation>Helligkeit nach Farbton, in oklch</translation>
    </message>
    <message>
        <source>matrices of dark and light</source>
        <translation>Matrizen für Dunkel und Hell</translation>
    </message>
    <message>
        <source>matrix, then three curves of 5 knots</source>
        <translation>Matrix, dann drei Kurven mit 5 Stützpunkten</translation>
    </message>
    <message>
        <source>matrix, then three curves of 9 knots</source>
        <translation>Matrix, dann drei Kurven mit 9 Stützpunkten</translation>
    </message>
    <message>
        <source>nothing changes</source>
        <translation>nichts ändert sich</translation>
    </message>
    <message>
        <source>one curve of 17 knots</source>
        <translation>eine Kurve mit 17 Stützpunkten</translation>
    </message>
    <message>
        <source>one curve of 5 knots</source>
        <translation>eine Kurve mit 5 Stützpunkten</translation>
    </message>
    <message>
        <source>one curve of 9 knots</source>
        <translation>eine Kurve mit 9 Stützpunkten</translation>
    </message>
    <message>
        <source>one gain</source>
        <translation>ein Faktor</translation>
    </message>
    <message>
        <source>root polynomial of degree 2</source>
        <translation>Wurzelpolynom vom Grad 2</translation>
    </message>
    <message>
        <source>root polynomial of degree 3</source>
        <translation>Wurzelpolynom vom Grad 3</translation>
    </message>
    <message>
        <source>root polynomial of degree 4</source>
        <translation>Wurzelpolynom vom Grad 4</translation>
    </message>
    <message>
        <source>saturation about a grey of its own</source>
        <translation>Sättigung um ein eigenes Grau</translation>
    </message>
    <message>
        <source>saturation about luminance</source>
        <translation>Sättigung um die Luminanz</translation>
    </message>
    <message>
        <source>split tone</source>
        <translation>zweifache Tönung</translation>
    </message>
    <message>
        <source>three curves of 17 knots</source>
        <translation>drei Kurven mit 17 Stützpunkten</translation>
    </message>
    <message>
        <source>three curves of 5 knots</source>
        <translation>drei Kurven mit 5 Stützpunkten</translation>
    </message>
    <message>
        <source>three curves of 5 knots, then a matrix</source>
        <translation>drei Kurven mit 5 Stützpunkten, dann eine Matrix</translation>
    </message>
    <message>
        <source>three curves of 9 knots</source>
        <translation>drei Kurven mit 9 Stützpunkten</translation>
    </message>
    <message>
        <source>three curves of 9 knots, then a matrix</source>
        <translation>drei Kurven mit 9 Stützpunkten, dann eine Matrix</translation>
    </message>
    <message>
        <source>weights to mono</source>
        <translation>Gewichte zu Mono</translation>
    </message>
    <message>
        <source>3x3 matrix, rows sum to 1</source>
        <translation>3x3-Matrix, Zeilensummen 1</translation>
    </message>
    <message>
        <source>On 4096 colours between 0 and 1: how far a colour comes to lie from itself when the other filter and then this one have worked on it. Parameters of one name have one value.</source>
        <translation>Auf 4096 Farben zwischen 0 und 1: wie weit eine Farbe von sich selbst zu liegen kommt, wenn der andere Filter und dann dieser auf sie gewirkt haben. Parameter eines Namens haben einen Wert.</translation>
    </message>
    <message>
        <source>undoes the other</source>
        <translation>macht den anderen rückgängig</translation>
    </message>
    <message>
        <source>3x3 matrix in the light of a found log encoding</source>
        <translation>3×3-Matrix im Licht einer gefundenen Log-Kodierung</translation>
    </message>
    <message>
        <source>A curve for each channel on both sides of a matrix with rows that sum to 1.</source>
        <translation>Eine Kurve für jeden Kanal auf beiden Seiten einer Matrix, deren Zeilen die Summe 1 haben.</translation>
    </message>
    <message>
        <source>An encoding to light: the same for all channels.</source>
        <translation>Eine Kodierung zu Licht: dieselbe für alle Kanäle.</translation>
    </message>
    <message>
        <source>Light to an encoding: the same for all channels.</source>
        <translation>Licht zu einer Kodierung: dieselbe für alle Kanäle.</translation>
    </message>
    <message>
        <source>To light by a found encoding, a matrix, and back.</source>
        <translation>Zu Licht durch eine gefundene Kodierung, eine Matrix, und zurück.</translation>
    </message>
    <message>
        <source>a logarithm with found numbers</source>
        <translation>ein Logarithmus mit gefundenen Zahlen</translation>
    </message>
    <message>
        <source>an exponential with found numbers</source>
        <translation>eine Exponentialfunktion mit gefundenen Zahlen</translation>
    </message>
    <message>
        <source>three curves of 5 knots, a matrix, three curves</source>
        <translation>drei Kurven von 5 Knoten, eine Matrix, drei Kurven</translation>
    </message>
    <message>
        <source>fine difference ΔE2000</source>
        <translation>feiner Unterschied ΔE2000</translation>
    </message>
    <message>
        <source>How far the rule moves each colour, by CIEDE2000: white is 2, which is just seen where two colours lie side by side.</source>
        <translation>Wie weit die Regel jede Farbe bewegt, nach CIEDE2000: Weiß ist 2, was gerade zu sehen ist, wo zwei Farben nebeneinander liegen.</translation>
    </message>
    <message>
        <source>edges of what presses can hold, whose profiles are in use</source>
        <translation>Kanten dessen, was Druckmaschinen halten können, deren Profile in Gebrauch sind</translation>
    </message>
    <message>
        <source>of all presses</source>
        <translation>aller Druckmaschinen</translation>
    </message>
    <message>
        <source>prints</source>
        <translation>Drucke</translation>
    </message>
</context>
<context>
    <name>kasuri::app::Against</name>
    <message>
        <source>what comes in</source>
        <translation>was hineingeht</translation>
    </message>
    <message>
        <source>what it was found of</source>
        <translation>woraus sie gefunden wurde</translation>
    </message>
</context>
<context>
    <name>kasuri::app::Application</name>
    <message>
        <source>There is not enough memory for that, so it was not done. Your text and values are safe; save them, and close other pictures or programs.</source>
        <translation>Dafür reicht der Speicher nicht, es wurde nicht getan. Text und Werte sind sicher; speichern und andere Bilder oder Programme schließen.</translation>
    </message>
</context>
<context>
    <name>kasuri::app::ApplyModel</name>
    <message>
        <source>has no channel to work on</source>
        <translation>hat keinen Kanal, an dem gearbeitet werden kann</translation>
    </message>
    <message>
        <source>there is no picture for %1</source>
        <translation>es gibt kein Bild für %1</translation>
    </message>
    <message>
        <source> – written</source>
        <translation> – geschrieben</translation>
    </message>
</context>
<context>
    <name>kasuri::app::ApplyWindow</name>
    <message>
        <source>Apply to many pictures</source>
        <translation>Auf viele Bilder anwenden</translation>
    </message>
    <message>
        <source>Pictures…</source>
        <translation>Bilder…</translation>
    </message>
    <message>
        <source>A folder…</source>
        <translation>Ordner…</translation>
    </message>
    <message>
        <source>Apply to which pictures?</source>
        <translation>Auf welche Bilder anwenden?</translation>
    </message>
    <message>
        <source>Pictures (%1)</source>
        <translation>Bilder (%1)</translation>
    </message>
    <message>
        <source>Apply to which folder of pictures?</source>
        <translation>Auf welchen Ordner mit Bildern anwenden?</translation>
    </message>
    <message>
        <source>Contact sheet</source>
        <translation>Kontaktbogen</translation>
    </message>
    <message>
        <source>Write into</source>
        <translation>Schreiben nach</translation>
    </message>
    <message>
        <source>Choose…</source>
        <translation>Wählen…</translation>
    </message>
    <message>
        <source>Kind</source>
        <translation>Art</translation>
    </message>
    <message>
        <source>Write into which folder?</source>
        <translation>In welchen Ordner schreiben?</translation>
    </message>
    <message>
        <source>as they came</source>
        <translation>wie sie kamen</translation>
    </message>
    <message>
        <source>all frames</source>
        <translation>alle Bilder</translation>
    </message>
    <message>
        <source>1-240, 1-240x2 or 1,5,9-12</source>
        <translation>1-240, 1-240x2 oder 1,5,9-12</translation>
    </message>
    <message>
        <source>Frames</source>
        <translation>Bilder der Sequenz</translation>
    </message>
    <message>
        <source>skip files that are there already and newer</source>
        <translation>auslassen, was schon da und neuer ist</translation>
    </message>
    <message>
        <source>frames</source>
        <translation>Bilder</translation>
    </message>
    <message>
        <source>Render</source>
        <translation>Rechnen</translation>
    </message>
    <message>
        <source>%1 of %2, about %3 s left</source>
        <translation>%1 von %2, noch etwa %3 s</translation>
    </message>
    <message>
        <source>%1 written</source>
        <translation>%1 geschrieben</translation>
    </message>
    <message>
        <source>%1 there already</source>
        <translation>%1 schon da</translation>
    </message>
    <message>
        <source>%1 failed: the reasons stand in their tool tips</source>
        <translation>%1 misslungen: die Gründe stehen in ihren Kurzinfos</translation>
    </message>
    <message>
        <source>%1 called off</source>
        <translation>%1 abgebrochen</translation>
    </message>
    <message>
        <source>, in %1 s</source>
        <translation>, in %1 s</translation>
    </message>
    <message>
        <source>1 picture</source>
        <translation>1 Bild</translation>
    </message>
    <message>
        <source>%1 pictures</source>
        <translation>%1 Bilder</translation>
    </message>
    <message>
        <source>Calling it off: what is being written is finished or not there…</source>
        <translation>Abbruch: was gerade geschrieben wird, wird fertig oder ist nicht da…</translation>
    </message>
    <message>
        <source>There are no pictures yet.</source>
        <translation>Es gibt noch keine Bilder.</translation>
    </message>
    <message>
        <source>Say where to write.</source>
        <translation>Angeben, wohin geschrieben wird.</translation>
    </message>
    <message>
        <source>Frames are written as 1-240, 1-240x2 or 1,5,9-12.</source>
        <translation>Bilder werden so angegeben: 1-240, 1-240x2 oder 1,5,9-12.</translation>
    </message>
    <message>
        <source>Call it off</source>
        <translation>Abbrechen</translation>
    </message>
    <message>
        <source>as it came, or 24</source>
        <translation>wie er kam, sonst 24</translation>
    </message>
    <message>
        <source>Frames in a second of a movie: 24, 23.976 or 24000/1001</source>
        <translation>Bilder in der Sekunde eines Films: 24, 23.976 oder 24000/1001</translation>
    </message>
    <message>
        <source>Frames in a second</source>
        <translation>Bilder in der Sekunde</translation>
    </message>
    <message>
        <source>Frames in a second are written as 24, 23.976 or 24000/1001.</source>
        <translation>Bilder in der Sekunde werden als 24, 23.976 oder 24000/1001 geschrieben.</translation>
    </message>
    <message>
        <source>Drop pictures, movies or a folder here, or choose them.</source>
        <translation>Bilder, Filme oder einen Ordner hierher ziehen, oder auswählen.</translation>
    </message>
    <message>
        <source>a folder, a movie, or a name with #### for the frame</source>
        <translation>ein Ordner, ein Film oder ein Name mit #### für das Bild</translation>
    </message>
    <message>
        <source>rate</source>
        <translation>Bildrate</translation>
    </message>
</context>
<context>
    <name>kasuri::app::BakeWindow</name>
    <message>
        <source>Hand over a LUT</source>
        <translation>Als LUT übergeben</translation>
    </message>
    <message>
        <source>Points a side</source>
        <translation>Punkte je Seite</translation>
    </message>
    <message>
        <source>Smallest within</source>
        <translation>Kleinste unter</translation>
    </message>
    <message>
        <source>Values from</source>
        <translation>Werte von</translation>
    </message>
    <message>
        <source>Spaces</source>
        <translation>Farbräume</translation>
    </message>
    <message>
        <source>Write the LUT…</source>
        <translation>LUT schreiben…</translation>
    </message>
    <message>
        <source>%1 points</source>
        <translation>%1 Punkte</translation>
    </message>
    <message>
        <source>Largest ΔE2000 that is wished</source>
        <translation>Größtes gewünschtes ΔE2000</translation>
    </message>
    <message>
        <source>Find the size</source>
        <translation>Größe suchen</translation>
    </message>
    <message>
        <source>ΔE2000 everywhere</source>
        <translation>ΔE2000 überall</translation>
    </message>
    <message>
        <source>Lowest value that comes in</source>
        <translation>Kleinster Wert, der hineingeht</translation>
    </message>
    <message>
        <source>Highest value that comes in</source>
        <translation>Größter Wert, der hineingeht</translation>
    </message>
    <message>
        <source>points closer where values are low (.clf)</source>
        <translation>Punkte enger, wo Werte klein sind (.clf)</translation>
    </message>
    <message>
        <source>to</source>
        <translation>bis</translation>
    </message>
    <message>
        <source>in</source>
        <translation>hinein</translation>
    </message>
    <message>
        <source>working space</source>
        <translation>Arbeitsfarbraum</translation>
    </message>
    <message>
        <source>Space of what comes in</source>
        <translation>Farbraum dessen, was hineingeht</translation>
    </message>
    <message>
        <source>out</source>
        <translation>hinaus</translation>
    </message>
    <message>
        <source>Space of what goes out</source>
        <translation>Farbraum dessen, was herauskommt</translation>
    </message>
    <message>
        <source>Write the LUT</source>
        <translation>LUT schreiben</translation>
    </message>
    <message>
        <source>LUTs (%1)</source>
        <translation>LUTs (%1)</translation>
    </message>
    <message>
        <source>The wished error is a number above 0.</source>
        <translation>Der gewünschte Fehler ist eine Zahl über 0.</translation>
    </message>
    <message>
        <source>The ends of the range are numbers, such as 0 and 1.</source>
        <translation>Die Enden des Bereichs sind Zahlen, etwa 0 und 1.</translation>
    </message>
    <message>
        <source>Measuring size after size…</source>
        <translation>Größe um Größe wird gemessen…</translation>
    </message>
    <message>
        <source>Measuring…</source>
        <translation>Messung läuft…</translation>
    </message>
    <message>
        <source>error</source>
        <translation>Fehler</translation>
    </message>
    <message>
        <source>mean</source>
        <translation>Mittel</translation>
    </message>
    <message>
        <source>99.9 %</source>
        <translation>99.9 %</translation>
    </message>
    <message>
        <source>largest</source>
        <translation>größter</translation>
    </message>
    <message>
        <source>as curves</source>
        <translation>als Kurven</translation>
    </message>
    <message>
        <source>read trilinearly</source>
        <translation>trilinear gelesen</translation>
    </message>
    <message>
        <source>read tetrahedrally</source>
        <translation>tetraedrisch gelesen</translation>
    </message>
    <message>
        <source>&lt;p&gt;On %1 colours between the points of the table; worst at %2.&lt;/p&gt;</source>
        <translation>&lt;p&gt;An %1 Farben zwischen den Punkten der Tabelle; am größten bei %2.&lt;/p&gt;</translation>
    </message>
    <message>
        <source>&lt;p&gt;Alpha is read; the table holds it for alpha 1.&lt;/p&gt;</source>
        <translation>&lt;p&gt;Alpha wird gelesen; die Tabelle gilt für Alpha 1.&lt;/p&gt;</translation>
    </message>
    <message>
        <source>Wrote %1: exactly a matrix</source>
        <translation>%1 geschrieben: genau eine Matrix</translation>
    </message>
    <message>
        <source>&lt;p&gt;It is exactly a matrix, and .clf and .ctf hold it as one. As a table:&lt;/p&gt;</source>
        <translation>&lt;p&gt;Es ist genau eine Matrix, und .clf und .ctf halten sie als solche. Als Tabelle:&lt;/p&gt;</translation>
    </message>
    <message>
        <source>&lt;p&gt;It is three curves, which .clf, .ctf and .cube hold as such.&lt;/p&gt;</source>
        <translation>&lt;p&gt;Es sind drei Kurven, die .clf, .ctf und .cube als solche halten.&lt;/p&gt;</translation>
    </message>
    <message>
        <source>Wrote %1: %2 % of the colours are cut off at 0 or 1; largest error %3, read back</source>
        <translation>%1 geschrieben: %2 % der Farben sind bei 0 oder 1 abgeschnitten; größter Fehler %3, zurückgelesen</translation>
    </message>
    <message>
        <source>Wrote %1: largest error %2, read back</source>
        <translation>%1 geschrieben: größter Fehler %2, zurückgelesen</translation>
    </message>
</context>
<context>
    <name>kasuri::app::Bench</name>
    <message>
        <source>The rule cannot be read yet (F8 shows where); it was left as it is.</source>
        <translation>Die Regel kann noch nicht gelesen werden (F8 zeigt, wo); sie bleibt, wie sie ist.</translation>
    </message>
    <message>
        <source>canonical form</source>
        <translation>Grundform</translation>
    </message>
    <message>
        <source>A LUT has no rule to be shorter.</source>
        <translation>Eine LUT hat keine Regel, die kürzer sein könnte.</translation>
    </message>
    <message>
        <source>Looking for what is proved the same and shorter…</source>
        <translation>Gesucht wird, was bewiesen dasselbe und kürzer ist…</translation>
    </message>
    <message>
        <source>Nothing was found that is proved the same and shorter.</source>
        <translation>Nichts gefunden, was bewiesen dasselbe und kürzer ist.</translation>
    </message>
    <message>
        <source>proved the same, and shorter</source>
        <translation>bewiesen dasselbe, und kürzer</translation>
    </message>
    <message>
        <source>%1 words became %2, proved the same: %3</source>
        <translation>Aus %1 Wörtern wurden %2, bewiesen dasselbe: %3</translation>
    </message>
    <message>
        <source>A LUT has no rule to be carried; what its numbers mean is chosen beside it.</source>
        <translation>Eine LUT hat keine Regel, die zu übertragen wäre; was ihre Zahlen bedeuten, wird daneben gewählt.</translation>
    </message>
    <message>
        <source>carried to %1</source>
        <translation>übertragen nach %1</translation>
    </message>
    <message>
        <source>Carried to %1: a channel is off by %2 at most, on %3 colours.</source>
        <translation>Übertragen nach %1: ein Kanal weicht höchstens %2 ab, auf %3 Farben.</translation>
    </message>
    <message>
        <source>Carrying all steps to %1…</source>
        <translation>Alle Schritte werden nach %1 übertragen…</translation>
    </message>
    <message>
        <source>All steps carried to %1: a channel is off by %2 at most, on %3 colours.</source>
        <translation>Alle Schritte nach %1 übertragen: ein Kanal weicht um höchstens %2 ab, auf %3 Farben.</translation>
    </message>
    <message>
        <source>%1: the display can show it printed now (%2).</source>
        <translation>%1: die Anzeige kann es jetzt gedruckt zeigen (%2).</translation>
    </message>
</context>
<context>
    <name>kasuri::app::CellView</name>
    <message>
        <source>component of a model</source>
        <translation>Komponente eines Farbmodells</translation>
    </message>
    <message>
        <source>value of the rule</source>
        <translation>Wert der Regel</translation>
    </message>
    <message>
        <source>An expression…</source>
        <translation>Ein Ausdruck…</translation>
    </message>
    <message>
        <source>Its range…</source>
        <translation>Sein Bereich…</translation>
    </message>
    <message>
        <source>what comes out of a step</source>
        <translation>was aus einem Schritt kommt</translation>
    </message>
    <message>
        <source>Show an expression</source>
        <translation>Ausdruck zeigen</translation>
    </message>
    <message>
        <source>An expression in the names of the rule, such as luminance(rgb) - luminance(out.rgb):</source>
        <translation>Ein Ausdruck in den Namen der Regel, etwa luminance(rgb) - luminance(out.rgb):</translation>
    </message>
    <message>
        <source>Show a target</source>
        <translation>Testbild zeigen</translation>
    </message>
    <message>
        <source>layer: whole</source>
        <translation>Ebene: das Ganze</translation>
    </message>
    <message>
        <source>layer: %1</source>
        <translation>Ebene: %1</translation>
    </message>
    <message>
        <source>After</source>
        <translation>Nachher</translation>
    </message>
    <message>
        <source>Before and after, split by a line	S</source>
        <translation>Vorher und nachher, durch eine Linie geteilt	S</translation>
    </message>
    <message>
        <source>Before and after, the same part twice	T</source>
        <translation>Vorher und nachher, derselbe Ausschnitt doppelt	T</translation>
    </message>
    <message>
        <source>Fit	0</source>
        <translation>Einpassen	0</translation>
    </message>
    <message>
        <source>One to one	1</source>
        <translation>Eins zu eins	1</translation>
    </message>
    <message>
        <source>Back among the cells	F</source>
        <translation>Zurück zu den anderen Zellen	F</translation>
    </message>
    <message>
        <source>Fill the sheet	F</source>
        <translation>Das Blatt füllen	F</translation>
    </message>
    <message>
        <source>Pin this place (click with Ctrl)	P</source>
        <translation>Nadel an diese Stelle (Klick mit Strg)	P</translation>
    </message>
    <message>
        <source>Remove all pins</source>
        <translation>Alle Nadeln entfernen</translation>
    </message>
    <message>
        <source>Cut along a line (drag with Shift)	C</source>
        <translation>Schnitt entlang einer Linie (Ziehen mit Umschalt)	C</translation>
    </message>
    <message>
        <source>Frames</source>
        <translation>Bilder der Sequenz</translation>
    </message>
    <message>
        <source>Pin %1 over time</source>
        <translation>Nadel %1 über die Zeit</translation>
    </message>
    <message>
        <source>space: %1 (%2)</source>
        <translation>Farbraum: %1 (%2)</translation>
    </message>
    <message>
        <source>as the file says</source>
        <translation>wie die Datei sagt</translation>
    </message>
    <message>
        <source>Settings of the target…</source>
        <translation>Einstellungen des Testbilds…</translation>
    </message>
    <message>
        <source>Show a picture…</source>
        <translation>Bild zeigen…</translation>
    </message>
    <message>
        <source>Show a picture</source>
        <translation>Bild zeigen</translation>
    </message>
    <message>
        <source>Pictures (%1);;All files (*)</source>
        <translation>Bilder (%1);;Alle Dateien (*)</translation>
    </message>
    <message>
        <source>Duplicate this cell</source>
        <translation>Zelle verdoppeln</translation>
    </message>
    <message>
        <source>Remove this cell	Del</source>
        <translation>Zelle entfernen	Entf</translation>
    </message>
    <message>
        <source>ΔE %1</source>
        <translation>ΔE %1</translation>
    </message>
    <message>
        <source>ΔE %1, largest %2</source>
        <translation>ΔE %1, größtes %2</translation>
    </message>
    <message>
        <source>%1 %</source>
        <translation>%1 %</translation>
    </message>
    <message>
        <source>%1 % outside</source>
        <translation>%1 % außerhalb</translation>
    </message>
    <message>
        <source>split</source>
        <translation>teilen</translation>
    </message>
    <message>
        <source>Before left of a line, after right of it (S)</source>
        <translation>Vorher links einer Linie, nachher rechts davon (S)</translation>
    </message>
    <message>
        <source>back</source>
        <translation>zurück</translation>
    </message>
    <message>
        <source>fill</source>
        <translation>füllen</translation>
    </message>
    <message>
        <source>This cell fills the sheet, or goes back (F, double click)</source>
        <translation>Diese Zelle füllt das Blatt, oder geht zurück (F, Doppelklick)</translation>
    </message>
    <message>
        <source>One pixel is one pixel of the screen, or fitted (1, 0, wheel)</source>
        <translation>Ein Pixel ist ein Pixel des Bildschirms, oder eingepasst (1, 0, Mausrad)</translation>
    </message>
    <message>
        <source>reading…</source>
        <translation>wird gelesen…</translation>
    </message>
    <message>
        <source>rim before, square after</source>
        <translation>Rand vorher, Feld nachher</translation>
    </message>
    <message>
        <source>old</source>
        <translation>alt</translation>
    </message>
    <message>
        <source>after</source>
        <translation>nachher</translation>
    </message>
    <message>
        <source>picture and rule %1</source>
        <translation>Bild und Regel %1</translation>
    </message>
    <message>
        <source>picture %1</source>
        <translation>Bild %1</translation>
    </message>
    <message>
        <source>rule %1</source>
        <translation>Regel %1</translation>
    </message>
    <message>
        <source>screen %1</source>
        <translation>Bildschirm %1</translation>
    </message>
    <message>
        <source>CIEDE2000 from what the rule makes now: mean %1, 99.9 % of the pixels below %2, largest %3</source>
        <translation>CIEDE2000 gegen das, was die Regel jetzt macht: im Mittel %1, 99.9 % der Pixel unter %2, größtes %3</translation>
    </message>
    <message>
        <source>whole</source>
        <translation>Ganzes</translation>
    </message>
</context>
<context>
    <name>kasuri::app::ChartModel</name>
    <message>
        <source>Reading %1…</source>
        <translation>%1 wird gelesen…</translation>
    </message>
    <message>
        <source>Choose a picture of a chart, or drop it here.</source>
        <translation>Ein Bild einer Tafel wählen oder hier ablegen.</translation>
    </message>
    <message>
        <source>%1 of %2 patches count.</source>
        <translation>%1 von %2 Feldern zählen.</translation>
    </message>
    <message>
        <source>and %1 more</source>
        <translation>und %1 weitere</translation>
    </message>
    <message>
        <source>Left out: %1. Point at one to see why.</source>
        <translation>Ausgelassen: %1. Auf eines zeigen, um zu sehen, warum.</translation>
    </message>
    <message>
        <source>%1: seen as %2, %3, %4</source>
        <translation>%1: gesehen als %2, %3, %4</translation>
    </message>
    <message>
        <source>The chart seems to stand on its head: corner 1 belongs to its first patch. Turn by a quarter, twice.</source>
        <translation>Die Tafel scheint auf dem Kopf zu stehen: Ecke 1 gehört an ihr erstes Feld. Zweimal um ein Viertel drehen.</translation>
    </message>
</context>
<context>
    <name>kasuri::app::ChartView</name>
    <message>
        <source>The picture of the chart and its corners</source>
        <translation>Das Bild der Tafel und ihre Ecken</translation>
    </message>
    <message>
        <source>Keys 1 to 4 hold a corner, arrows move it by a pixel, with Shift by a tenth, with Ctrl by ten.</source>
        <translation>Die Tasten 1 bis 4 halten eine Ecke, Pfeile bewegen sie um einen Pixel, mit Umschalt um ein Zehntel, mit Strg um zehn.</translation>
    </message>
</context>
<context>
    <name>kasuri::app::ChartWindow</name>
    <message>
        <source>A chart in a picture</source>
        <translation>Eine Tafel in einem Bild</translation>
    </message>
    <message>
        <source>Put the four corners on the outer corners of the patches, 1 at the first patch. The small squares are what the patches should be: they have to lie on their own.</source>
        <translation>Die vier Ecken auf die äußeren Ecken der Felder legen, 1 an das erste Feld. Die kleinen Quadrate sind, was die Felder sein sollen: jedes muss auf seinem liegen.</translation>
    </message>
    <message>
        <source>Find the rule</source>
        <translation>Die Regel finden</translation>
    </message>
    <message>
        <source>Picture…</source>
        <translation>Bild…</translation>
    </message>
    <message>
        <source>The picture of the chart; or drop it here</source>
        <translation>Das Bild der Tafel; oder hier ablegen</translation>
    </message>
    <message>
        <source>should be</source>
        <translation>soll sein</translation>
    </message>
    <message>
        <source>What the patches should be</source>
        <translation>Was die Felder sein sollen</translation>
    </message>
    <message>
        <source>Values of your own…</source>
        <translation>Eigene Werte…</translation>
    </message>
    <message>
        <source>The same chart in another picture…</source>
        <translation>Dieselbe Tafel in einem anderen Bild…</translation>
    </message>
    <message>
        <source>Its x in pixels</source>
        <translation>Ihr x in Pixeln</translation>
    </message>
    <message>
        <source>Its y in pixels</source>
        <translation>Ihr y in Pixeln</translation>
    </message>
    <message>
        <source>Turn by a quarter</source>
        <translation>Um ein Viertel drehen</translation>
    </message>
    <message>
        <source>Corner 1 goes to the next corner: for a chart that lies on its side or on its head</source>
        <translation>Ecke 1 wandert zur nächsten Ecke: für eine Tafel, die auf der Seite oder auf dem Kopf liegt</translation>
    </message>
    <message>
        <source>as in %1</source>
        <translation>wie in %1</translation>
    </message>
    <message>
        <source>Which picture of a chart?</source>
        <translation>Welches Bild einer Tafel?</translation>
    </message>
    <message>
        <source>Which other picture of the same chart?</source>
        <translation>Welches andere Bild derselben Tafel?</translation>
    </message>
    <message>
        <source>Pictures (%1)</source>
        <translation>Bilder (%1)</translation>
    </message>
    <message>
        <source>A table with a line for each patch, row by row</source>
        <translation>Eine Tabelle mit einer Zeile für jedes Feld, Reihe um Reihe</translation>
    </message>
    <message>
        <source>Tables (%1)</source>
        <translation>Tabellen (%1)</translation>
    </message>
    <message>
        <source>Your chart</source>
        <translation>Die eigene Tafel</translation>
    </message>
    <message>
        <source>How many patches are there in a row?</source>
        <translation>Wie viele Felder hat eine Reihe?</translation>
    </message>
    <message>
        <source>How many rows are there?</source>
        <translation>Wie viele Reihen gibt es?</translation>
    </message>
    <message>
        <source>as %1 says</source>
        <translation>wie in %1 angegeben</translation>
    </message>
    <message>
        <source>Corner: take one, or press 1 to 4</source>
        <translation>Ecke: eine anfassen, oder 1 bis 4 drücken</translation>
    </message>
    <message>
        <source>Corner %1, x and y</source>
        <translation>Ecke %1, x und y</translation>
    </message>
</context>
<context>
    <name>kasuri::app::ColourPicker</name>
    <message>
        <source>Colour in the rule</source>
        <translation>Farbe in die Regel</translation>
    </message>
    <message>
        <source>take from the sheet</source>
        <translation>vom Blatt nehmen</translation>
    </message>
    <message>
        <source>The next click on a cell or a strip: what the picture has there before the rule</source>
        <translation>Der nächste Klick auf eine Zelle oder einen Streifen: was das Bild dort vor der Regel hat</translation>
    </message>
    <message>
        <source>Click on a cell or a strip: its colour before the rule is taken. Escape leaves it.</source>
        <translation>Auf eine Zelle oder einen Streifen klicken: die Farbe vor der Regel wird genommen. Esc bricht ab.</translation>
    </message>
    <message>
        <source>pin </source>
        <translation>Nadel </translation>
    </message>
    <message>
        <source>Put the caret into a colour of three numbers, such as vec3(0.72, 0.49, 0.4).</source>
        <translation>Die Schreibmarke in eine Farbe aus drei Zahlen setzen, etwa vec3(0.72, 0.49, 0.4).</translation>
    </message>
    <message>
        <source>colour</source>
        <translation>Farbe</translation>
    </message>
    <message>
        <source>pin %1, before</source>
        <translation>Nadel %1, vorher</translation>
    </message>
    <message>
        <source>pin %1, after</source>
        <translation>Nadel %1, nachher</translation>
    </message>
    <message>
        <source>There is no pin: click on the sheet with Ctrl</source>
        <translation>Es gibt keine Nadel: mit Strg auf das Blatt klicken</translation>
    </message>
</context>
<context>
    <name>kasuri::app::CompareActions</name>
    <message>
        <source>the picture as it comes</source>
        <translation>das Bild, wie es kommt</translation>
    </message>
    <message>
        <source>what comes into the active step</source>
        <translation>was in den aktiven Schritt hineingeht</translation>
    </message>
    <message>
        <source>The rule as it is now, kept	Ctrl+K</source>
        <translation>Die Regel, wie sie jetzt ist, behalten	Strg+K</translation>
    </message>
    <message>
        <source>take %1</source>
        <translation>Fassung %1</translation>
    </message>
    <message>
        <source>The rule does not compile (F8 shows where): there is nothing to compare with yet.</source>
        <translation>Die Regel ist fehlerhaft (F8 zeigt, wo): noch gibt es nichts, womit verglichen werden kann.</translation>
    </message>
    <message>
        <source>the kept look</source>
        <translation>der behaltene Look</translation>
    </message>
    <message>
        <source>the kept rule</source>
        <translation>die behaltene Regel</translation>
    </message>
    <message>
        <source>Before is now the rule as it is; the menu beside Before goes back to the picture.</source>
        <translation>Vorher ist jetzt die Regel, wie sie ist; das Menü neben Vorher führt zum Bild zurück.</translation>
    </message>
    <message>
        <source>Takes are of rules; the active step is a look or a LUT.</source>
        <translation>Fassungen gibt es von Regeln; der aktive Schritt ist ein Look oder eine LUT.</translation>
    </message>
    <message>
        <source>Take %1 is this already</source>
        <translation>Das ist schon Fassung %1</translation>
    </message>
    <message>
        <source>Take %1 remembered</source>
        <translation>Fassung %1 gemerkt</translation>
    </message>
    <message>
        <source>There is no take yet: Ctrl+T remembers one.</source>
        <translation>Es gibt noch keine Fassung: Strg+T merkt eine.</translation>
    </message>
    <message>
        <source>Wrote %1</source>
        <translation>%1 geschrieben</translation>
    </message>
    <message>
        <source>Another filter, look or LUT…</source>
        <translation>Ein anderer Filter, Look oder eine LUT…</translation>
    </message>
    <message>
        <source>Compare with what?</source>
        <translation>Womit vergleichen?</translation>
    </message>
    <message>
        <source>Filters, looks and LUTs (%1)</source>
        <translation>Filter, Looks und LUTs (%1)</translation>
    </message>
</context>
<context>
    <name>kasuri::app::CompletionList</name>
    <message>
        <source>What can be written here</source>
        <translation>Was hier stehen kann</translation>
    </message>
</context>
<context>
    <name>kasuri::app::ConfigUse</name>
    <message>
        <source>%1: %2 spaces and %5 functions can be used now, and %3 views to see through%4</source>
        <translation>%1: %2 Räume und %5 Funktionen sind jetzt zu gebrauchen, und %3 Ansichten, durch die gesehen wird%4</translation>
    </message>
    <message>
        <source>values of the colour config</source>
        <translation>Werte der Farbkonfiguration</translation>
    </message>
</context>
<context>
    <name>kasuri::app::DiskBar</name>
    <message>
        <source>Somebody else has changed the file, in lines that you have changed too.</source>
        <translation>Jemand anderes hat die Datei geändert, in Zeilen, die auch hier geändert wurden.</translation>
    </message>
    <message>
        <source>both, mine where they meet</source>
        <translation>beide, meine wo sie sich treffen</translation>
    </message>
    <message>
        <source>Their other changes come in</source>
        <translation>Die übrigen Änderungen der Datei kommen dazu</translation>
    </message>
    <message>
        <source>mine</source>
        <translation>meine</translation>
    </message>
    <message>
        <source>The text stays as it is</source>
        <translation>Der Text bleibt, wie er ist</translation>
    </message>
    <message>
        <source>theirs</source>
        <translation>die der Datei</translation>
    </message>
    <message>
        <source>The text becomes the file's; undo brings yours back</source>
        <translation>Der Text wird der der Datei; Rückgängig bringt Ihren wieder</translation>
    </message>
</context>
<context>
    <name>kasuri::app::EditorCommands</name>
    <message>
        <source>comment</source>
        <translation>Kommentar</translation>
    </message>
    <message>
        <source>There is nothing to fold here: bodies of functions and runs of three parameters, presets, proofs or comments are.</source>
        <translation>Hier ist nichts zuzuklappen: das geht mit Funktionen und mit drei oder mehr Parametern, Voreinstellungen, Beweisen oder Kommentaren am Stück.</translation>
    </message>
    <message>
        <source>Put the caret on a number.</source>
        <translation>Die Schreibmarke auf eine Zahl setzen.</translation>
    </message>
    <message>
        <source>number</source>
        <translation>Zahl</translation>
    </message>
    <message>
        <source>Put the caret on a name that the rule itself gives: a parameter, a let, a source or a function.</source>
        <translation>Die Schreibmarke auf einen Namen setzen, den die Regel selbst vergibt: Parameter, let, Quelle oder Funktion.</translation>
    </message>
    <message>
        <source>New name</source>
        <translation>Neuer Name</translation>
    </message>
    <message>
        <source>Return renames it, Escape leaves it.</source>
        <translation>Eingabetaste benennt um, Esc lässt es.</translation>
    </message>
    <message>
        <source>Return renames it in %1 places, Escape leaves it.</source>
        <translation>Eingabetaste benennt an %1 Stellen um, Esc lässt es.</translation>
    </message>
    <message>
        <source>rename %1</source>
        <translation>%1 umbenennen</translation>
    </message>
    <message>
        <source>The rule itself does not say what stands there; F1 tells what the language says.</source>
        <translation>Die Regel selbst sagt nicht, was dort steht; F1 sagt, was die Sprache sagt.</translation>
    </message>
    <message>
        <source>proof: %1</source>
        <translation>Beweis: %1</translation>
    </message>
</context>
<context>
    <name>kasuri::app::FileWatch</name>
    <message>
        <source>The file %1 is gone. Saving writes it again.</source>
        <translation>Die Datei %1 ist weg. Speichern schreibt sie neu.</translation>
    </message>
    <message>
        <source>the file as it is now</source>
        <translation>die Datei, wie sie jetzt ist</translation>
    </message>
    <message>
        <source>The file was changed by somebody else and has been read again; Ctrl+Z takes it back.</source>
        <translation>Die Datei wurde von anderer Hand geändert und neu gelesen; Strg+Z nimmt es zurück.</translation>
    </message>
    <message>
        <source>changes of the file</source>
        <translation>Änderungen der Datei</translation>
    </message>
    <message>
        <source>The file was changed by somebody else, in other lines: both changes are here now; Ctrl+Z takes theirs back.</source>
        <translation>Die Datei wurde von anderer Hand geändert, in anderen Zeilen: beide Änderungen stehen jetzt hier; Strg+Z nimmt die fremden zurück.</translation>
    </message>
    <message>
        <source>The text stays as it is; saving puts it in the place of theirs.</source>
        <translation>Der Text bleibt, wie er ist; Speichern setzt ihn an die Stelle des fremden.</translation>
    </message>
    <message>
        <source>Theirs is here; Ctrl+Z brings yours back.</source>
        <translation>Der Text der Datei steht jetzt hier; Strg+Z bringt Ihren wieder.</translation>
    </message>
    <message>
        <source>Both changes are here; where they met, yours stands.</source>
        <translation>Beide Änderungen stehen hier; wo sie sich trafen, gilt Ihre.</translation>
    </message>
    <message>
        <source>The file cannot be read any more. Your text is here; saving asks first. %1</source>
        <translation>Die Datei kann nicht mehr gelesen werden. Ihr Text ist hier; Speichern fragt vorher. %1</translation>
    </message>
</context>
<context>
    <name>kasuri::app::Files</name>
    <message>
        <source>Unsaved work</source>
        <translation>Ungespeicherte Arbeit</translation>
    </message>
    <message>
        <source>“%1” has changes that are not saved.</source>
        <translation>„%1“ hat Änderungen, die nicht gespeichert sind.</translation>
    </message>
    <message>
        <source>Open a filter or a picture</source>
        <translation>Filter oder Bild öffnen</translation>
    </message>
    <message>
        <source>Filters and pictures (%1);;All files (*)</source>
        <translation>Filter und Bilder (%1);;Alle Dateien (*)</translation>
    </message>
    <message>
        <source>preset %1</source>
        <translation>Voreinstellung %1</translation>
    </message>
    <message>
        <source>%1: only files on this machine can be opened</source>
        <translation>%1: nur Dateien auf diesem Rechner können geöffnet werden</translation>
    </message>
    <message>
        <source>Not saved: somebody else has changed the same lines of the file. Choose above the text which stay.</source>
        <translation>Nicht gespeichert: jemand anderes hat dieselben Zeilen der Datei geändert. Über dem Text wählen, welche bleiben.</translation>
    </message>
    <message>
        <source>Saved %1</source>
        <translation>%1 gespeichert</translation>
    </message>
    <message>
        <source>Use which colour config?</source>
        <translation>Welche Farbkonfiguration benutzen?</translation>
    </message>
    <message>
        <source>Colour configs (%1);;All files (*)</source>
        <translation>Farbkonfigurationen (%1);;Alle Dateien (*)</translation>
    </message>
    <message>
        <source>nothing yet</source>
        <translation>noch nichts</translation>
    </message>
    <message>
        <source>Write over the file?</source>
        <translation>Die Datei überschreiben?</translation>
    </message>
    <message>
        <source>The file holds something else now: %1</source>
        <translation>In der Datei steht jetzt etwas anderes: %1</translation>
    </message>
    <message>
        <source>Write over it</source>
        <translation>Überschreiben</translation>
    </message>
    <message>
        <source>Save as…</source>
        <translation>Speichern unter…</translation>
    </message>
    <message>
        <source>Saved %1, with a copy of %2 in it</source>
        <translation>%1 gespeichert, mit einer Kopie von %2 darin</translation>
    </message>
</context>
<context>
    <name>kasuri::app::FindBar</name>
    <message>
        <source>Find</source>
        <translation>Suchen</translation>
    </message>
    <message>
        <source>word</source>
        <translation>Wort</translation>
    </message>
    <message>
        <source>Whole words only</source>
        <translation>Nur ganze Wörter</translation>
    </message>
    <message>
        <source>Aa</source>
        <translation>Aa</translation>
    </message>
    <message>
        <source>Capital and small letters are different</source>
        <translation>Groß- und Kleinbuchstaben sind verschieden</translation>
    </message>
    <message>
        <source>The one before (Shift+Return)</source>
        <translation>Das davor (Umschalt+Eingabe)</translation>
    </message>
    <message>
        <source>The next one (Return)</source>
        <translation>Das nächste (Eingabe)</translation>
    </message>
    <message>
        <source>Close (Escape)</source>
        <translation>Schließen (Esc)</translation>
    </message>
    <message>
        <source>Put instead</source>
        <translation>Stattdessen</translation>
    </message>
    <message>
        <source>this one</source>
        <translation>dieses</translation>
    </message>
    <message>
        <source>Replace this one and go to the next (Return)</source>
        <translation>Dieses ersetzen und weiter (Eingabe)</translation>
    </message>
    <message>
        <source>all</source>
        <translation>alle</translation>
    </message>
    <message>
        <source>Replace all of them, as one step (Ctrl+Return)</source>
        <translation>Alle ersetzen, als ein Schritt (Strg+Eingabe)</translation>
    </message>
    <message>
        <source>none</source>
        <translation>keines</translation>
    </message>
    <message>
        <source>%1 of %2</source>
        <translation>%1 von %2</translation>
    </message>
    <message>
        <source>replace</source>
        <translation>ersetzen</translation>
    </message>
    <message>
        <source>replace %1 times</source>
        <translation>%1-mal ersetzen</translation>
    </message>
</context>
<context>
    <name>kasuri::app::FirstMinute</name>
    <message>
        <source>The first minute</source>
        <translation>Die erste Minute</translation>
    </message>
    <message>
        <source>First minute</source>
        <translation>Erste Minute</translation>
    </message>
    <message>
        <source>close</source>
        <translation>schließen</translation>
    </message>
    <message>
        <source>Not shown again; F1 has it as a page</source>
        <translation>Wird nicht mehr gezeigt; F1 hat sie als Seite</translation>
    </message>
    <message>
        <source>That was the first minute. F1 has the rest.</source>
        <translation>Das war die erste Minute. F1 hat den Rest.</translation>
    </message>
</context>
<context>
    <name>kasuri::app::FitModel</name>
    <message>
        <source>Called off.</source>
        <translation>Abgebrochen.</translation>
    </message>
    <message>
        <source>Reading…</source>
        <translation>Wird gelesen…</translation>
    </message>
    <message>
        <source>%1 of %2 families…</source>
        <translation>%1 von %2 Arten…</translation>
    </message>
    <message>
        <source>%1 (%2), numbers of %3. Fitted on %4 colours, measured on %5.</source>
        <translation>%1 (%2), Zahlen von %3. Angepasst an %4 Farben, gemessen an %5.</translation>
    </message>
    <message>
        <source>%1 % of the colours came out differently in different places: no rule of a colour alone explains them.</source>
        <translation>%1 % der Farben kamen an verschiedenen Orten verschieden heraus: keine Regel der Farbe allein erklärt sie.</translation>
    </message>
    <message>
        <source>numbers</source>
        <translation>Zahlen</translation>
    </message>
    <message>
        <source>rule</source>
        <translation>Regel</translation>
    </message>
    <message>
        <source>working space</source>
        <translation>Arbeitsfarbraum</translation>
    </message>
    <message>
        <source>mean</source>
        <translation>Mittel</translation>
    </message>
    <message>
        <source>95 %</source>
        <translation>95 %</translation>
    </message>
    <message>
        <source>largest</source>
        <translation>größter</translation>
    </message>
    <message>
        <source>a channel</source>
        <translation>ein Kanal</translation>
    </message>
    <message>
        <source>The one that says most with fewest numbers</source>
        <translation>Die mit den wenigsten Zahlen am meisten sagt</translation>
    </message>
    <message>
        <source>How many numbers the rule has</source>
        <translation>Wie viele Zahlen die Regel hat</translation>
    </message>
    <message>
        <source>What kind of rule it is</source>
        <translation>Welche Art von Regel es ist</translation>
    </message>
    <message>
        <source>The space in which it works</source>
        <translation>Der Farbraum, in dem sie arbeitet</translation>
    </message>
    <message>
        <source>CIEDE2000 on average, on colours that were not fitted</source>
        <translation>CIEDE2000 im Mittel, an Farben, die nicht angepasst wurden</translation>
    </message>
    <message>
        <source>CIEDE2000: 95 % of the colours are no further away</source>
        <translation>CIEDE2000: 95 % der Farben sind nicht weiter entfernt</translation>
    </message>
    <message>
        <source>CIEDE2000 of the colour that is met worst</source>
        <translation>CIEDE2000 der am schlechtesten getroffenen Farbe</translation>
    </message>
    <message>
        <source>By how much a channel is off at most</source>
        <translation>Um wie viel ein Kanal höchstens abweicht</translation>
    </message>
</context>
<context>
    <name>kasuri::app::FitWindow</name>
    <message>
        <source>Find the rule</source>
        <translation>Regel finden</translation>
    </message>
    <message>
        <source>Every kind of rule is fitted to what went in and what came out. The marked one explains most with fewest numbers.</source>
        <translation>Jede Art von Regel wird an das angepasst, was hineinging und herauskam. Die markierte erklärt mit den wenigsten Zahlen am meisten.</translation>
    </message>
    <message>
        <source>Candidates, from simple to exact</source>
        <translation>Anwärter, von einfach bis genau</translation>
    </message>
    <message>
        <source>The chosen rule</source>
        <translation>Die gewählte Regel</translation>
    </message>
    <message>
        <source>All families</source>
        <translation>Alle Arten</translation>
    </message>
    <message>
        <source>Not those alone that are closer than all with fewer numbers</source>
        <translation>Nicht nur die, die näher sind als alle mit weniger Zahlen</translation>
    </message>
    <message>
        <source>Call it off</source>
        <translation>Abbrechen</translation>
    </message>
    <message>
        <source>Keep all as takes</source>
        <translation>Alle als Fassungen behalten</translation>
    </message>
    <message>
        <source>Each row becomes a take of the rule on the bench, to flip through and to see side by side</source>
        <translation>Jede Zeile wird eine Fassung der Regel auf der Werkbank, zum Durchblättern und nebeneinander Sehen</translation>
    </message>
    <message>
        <source>Put it on the bench</source>
        <translation>Auf die Werkbank</translation>
    </message>
    <message>
        <source>In the place of the rule there; behind a LUT, which is then switched off</source>
        <translation>An die Stelle der Regel dort; hinter eine LUT, die dann ausgeschaltet ist</translation>
    </message>
    <message>
        <source>The active step by itself: its LUT or its rule</source>
        <translation>Der aktive Schritt für sich: seine LUT oder seine Regel</translation>
    </message>
    <message>
        <source>A LUT, a look, a filter, or a table of r, g, b before and after (.csv); or drop it here</source>
        <translation>Eine LUT, ein Look, ein Filter oder eine Tabelle von r, g, b davor und danach (.csv); oder hier ablegen</translation>
    </message>
    <message>
        <source>Numbers mean</source>
        <translation>Zahlen bedeuten</translation>
    </message>
    <message>
        <source>what the file says</source>
        <translation>was die Datei sagt</translation>
    </message>
    <message>
        <source>What the numbers of the files mean</source>
        <translation>Was die Zahlen der Dateien bedeuten</translation>
    </message>
    <message>
        <source>Of which LUT or table?</source>
        <translation>Welcher LUT oder Tabelle?</translation>
    </message>
    <message>
        <source>LUTs, looks, filters, tables (%1)</source>
        <translation>LUTs, Looks, Filter, Tabellen (%1)</translation>
    </message>
    <message>
        <source>Pictures (%1)</source>
        <translation>Bilder (%1)</translation>
    </message>
    <message>
        <source>The picture before</source>
        <translation>Das Bild davor</translation>
    </message>
    <message>
        <source>The picture after</source>
        <translation>Das Bild danach</translation>
    </message>
    <message>
        <source>Choose what to find the rule of, or drop it here.</source>
        <translation>Wählen, wovon die Regel gefunden werden soll, oder es hier ablegen.</translation>
    </message>
    <message>
        <source>a rule that was found</source>
        <translation>eine gefundene Regel</translation>
    </message>
    <message>
        <source>rules that were found, as takes</source>
        <translation>gefundene Regeln, als Fassungen</translation>
    </message>
    <message numerus="yes">
        <source>%n takes were kept.</source>
        <translation>
            <numerusform>%n Fassung wurde behalten.</numerusform>
            <numerusform>%n Fassungen wurden behalten.</numerusform>
        </translation>
    </message>
    <message>
        <source>From the bench</source>
        <translation>Von der Werkbank</translation>
    </message>
    <message>
        <source>From a LUT or table…</source>
        <translation>Von LUT oder Tabelle…</translation>
    </message>
    <message>
        <source>From two pictures…</source>
        <translation>Von zwei Bildern…</translation>
    </message>
    <message>
        <source>Before and after; shifted, cropped or scaled ones are brought over each other. Or drop both here</source>
        <translation>Vorher und nachher; verschobene, beschnittene oder skalierte werden übereinandergelegt. Oder beide hier ablegen</translation>
    </message>
    <message>
        <source>From a chart…</source>
        <translation>Aus einer Tafel…</translation>
    </message>
    <message>
        <source>A chart in a picture: its four corners are put by hand</source>
        <translation>Eine Tafel in einem Bild: ihre vier Ecken werden von Hand gelegt</translation>
    </message>
    <message>
        <source>Drop one LUT or table, two pictures, or one of a chart.</source>
        <translation>Eine LUT oder Tabelle, zwei Bilder oder eines mit einer Tafel ablegen.</translation>
    </message>
    <message>
        <source>With a table for the rest</source>
        <translation>Mit einer Tabelle für den Rest</translation>
    </message>
    <message>
        <source>Puts the rule on the bench, and behind it a LUT of 17 points for what the rule leaves</source>
        <translation>Legt die Regel auf die Werkbank, und hinter sie eine LUT von 17 Punkten für das, was die Regel übrig lässt</translation>
    </message>
    <message>
        <source>On the plane of a* and b*, or in the room of L*a*b*, which is turned by dragging</source>
        <translation>Auf der Ebene von a* und b*, oder im Raum von L*a*b*, der durch Ziehen gedreht wird</translation>
    </message>
    <message>
        <source>Where the chosen rule is off</source>
        <translation>Wo die gewählte Regel abweicht</translation>
    </message>
    <message>
        <source>holding</source>
        <translation>festhalten</translation>
    </message>
    <message>
        <source>What every rule keeps, and how differences count</source>
        <translation>Was jede Regel behält, und wie Unterschiede zählen</translation>
    </message>
    <message>
        <source>Greys stay as they are, proved</source>
        <translation>Grau bleibt, wie es ist, bewiesen</translation>
    </message>
    <message>
        <source>Every colour keeps its luminance</source>
        <translation>Jede Farbe behält ihre Leuchtdichte</translation>
    </message>
    <message>
        <source>Every colour keeps r + g + b</source>
        <translation>Jede Farbe behält r + g + b</translation>
    </message>
    <message>
        <source>Differences count as the eye sees them</source>
        <translation>Unterschiede zählen, wie das Auge sie sieht</translation>
    </message>
    <message>
        <source>plane</source>
        <translation>Ebene</translation>
    </message>
    <message>
        <source>room</source>
        <translation>Raum</translation>
    </message>
    <message>
        <source>Nothing is off that could be seen</source>
        <translation>Nichts weicht sichtbar ab</translation>
    </message>
    <message>
        <source>Where it is off: from what was wanted to what it makes</source>
        <translation>Wo sie abweicht: vom Gewollten zu dem, was sie macht</translation>
    </message>
    <message>
        <source>Where it is off, %1 times as long</source>
        <translation>Wo sie abweicht, %1-mal so lang</translation>
    </message>
    <message>
        <source>Working out the table for what the rule leaves…</source>
        <translation>Die Tabelle für das, was die Regel übrig lässt, wird ausgerechnet…</translation>
    </message>
    <message>
        <source>a rule that was found, and a table for its rest</source>
        <translation>eine gefundene Regel und eine Tabelle für ihren Rest</translation>
    </message>
    <message>
        <source>With the table a channel is off by %1 at most, and by CIEDE2000 %2 on average.</source>
        <translation>Mit der Tabelle weicht ein Kanal um höchstens %1 ab, und um CIEDE2000 %2 im Mittel.</translation>
    </message>
    <message>
        <source>on the sheet</source>
        <translation>auf dem Blatt</translation>
    </message>
    <message>
        <source>The chosen rule goes on the bench, before becomes what it was found of, and a cell of the sheet shows the difference</source>
        <translation>Die gewählte Regel kommt auf die Werkbank, Vorher wird das, woraus sie gefunden wurde, und eine Zelle des Blatts zeigt den Unterschied</translation>
    </message>
    <message>
        <source>where a rule is off</source>
        <translation>wo eine Regel daneben liegt</translation>
    </message>
    <message>
        <source>Before is now what the rule was found of; a cell shows the difference.</source>
        <translation>Vorher ist jetzt, woraus die Regel gefunden wurde; eine Zelle zeigt den Unterschied.</translation>
    </message>
</context>
<context>
    <name>kasuri::app::FramesBar</name>
    <message>
        <source>frames</source>
        <translation>Bilder</translation>
    </message>
    <message>
        <source>%1 a second</source>
        <translation>%1 je Sekunde</translation>
    </message>
    <message numerus="yes">
        <source>%n frame(s) left out</source>
        <translation>
            <numerusform>%n Bild ausgelassen</numerusform>
            <numerusform>%n Bilder ausgelassen</numerusform>
        </translation>
    </message>
    <message>
        <source>frame %1</source>
        <translation>Bild %1</translation>
    </message>
    <message>
        <source>%1 of %2 MB of frames in memory</source>
        <translation>%1 von %2 MB Sequenzbilder im Speicher</translation>
    </message>
    <message>
        <source>Stop	F5</source>
        <translation>Anhalten	F5</translation>
    </message>
    <message>
        <source>Play	F5</source>
        <translation>Abspielen	F5</translation>
    </message>
    <message>
        <source>Play from this frame on	Ctrl+F5</source>
        <translation>Ab diesem Bild abspielen	Strg+F5</translation>
    </message>
    <message>
        <source>Play up to this frame	Ctrl+Shift+F5</source>
        <translation>Bis zu diesem Bild abspielen	Strg+Umschalt+F5</translation>
    </message>
    <message>
        <source>Play all frames</source>
        <translation>Alle Bilder abspielen</translation>
    </message>
    <message>
        <source>Over and over</source>
        <translation>Immer wieder von vorn</translation>
    </message>
    <message>
        <source>%1 frames a second</source>
        <translation>%1 Bilder je Sekunde</translation>
    </message>
    <message>
        <source>Every frame, as fast as it goes</source>
        <translation>Jedes Bild, so schnell es geht</translation>
    </message>
    <message>
        <source>The movie's own %1 frames a second</source>
        <translation>Die eigenen %1 Bilder in der Sekunde des Films</translation>
    </message>
</context>
<context>
    <name>kasuri::app::HandoverActions</name>
    <message>
        <source>Apply to which picture?</source>
        <translation>Auf welches Bild anwenden?</translation>
    </message>
    <message>
        <source>Pictures (%1);;All files (*)</source>
        <translation>Bilder (%1);;Alle Dateien (*)</translation>
    </message>
    <message>
        <source>Write the result</source>
        <translation>Ergebnis schreiben</translation>
    </message>
    <message>
        <source>Pictures (%1)</source>
        <translation>Bilder (%1)</translation>
    </message>
    <message>
        <source>Rendering %1…</source>
        <translation>%1 wird gerechnet…</translation>
    </message>
    <message>
        <source>Wrote %1; %2 values outside 0 .. 1 were clipped</source>
        <translation>%1 geschrieben; %2 Werte außerhalb von 0 .. 1 wurden abgeschnitten</translation>
    </message>
    <message>
        <source>Wrote %1; %2</source>
        <translation>%1 geschrieben; %2</translation>
    </message>
    <message>
        <source>Wrote %1</source>
        <translation>%1 geschrieben</translation>
    </message>
    <message>
        <source>Write a report</source>
        <translation>Bericht schreiben</translation>
    </message>
    <message>
        <source>Pages (*.html)</source>
        <translation>Seiten (*.html)</translation>
    </message>
    <message>
        <source>Writing %1…</source>
        <translation>%1 wird geschrieben…</translation>
    </message>
</context>
<context>
    <name>kasuri::app::Heading</name>
    <message>
        <source>Unfold %1</source>
        <translation>%1 aufklappen</translation>
    </message>
    <message>
        <source>Fold %1</source>
        <translation>%1 zuklappen</translation>
    </message>
</context>
<context>
    <name>kasuri::app::HelpWindow</name>
    <message>
        <source>All keys</source>
        <translation>Alle Tasten</translation>
    </message>
    <message>
        <source>Help – Kasuri</source>
        <translation>Hilfe – Kasuri</translation>
    </message>
    <message>
        <source>Search all pages</source>
        <translation>Alle Seiten durchsuchen</translation>
    </message>
    <message>
        <source>Pages</source>
        <translation>Seiten</translation>
    </message>
    <message>
        <source>Page</source>
        <translation>Seite</translation>
    </message>
    <message>
        <source>Nothing is found.</source>
        <translation>Nichts gefunden.</translation>
    </message>
</context>
<context>
    <name>kasuri::app::LibraryModel</name>
    <message>
        <source>, has an error</source>
        <translation>, ist fehlerhaft</translation>
    </message>
    <message>
        <source>, a favourite</source>
        <translation>, ein Favorit</translation>
    </message>
</context>
<context>
    <name>kasuri::app::LibraryPanel</name>
    <message>
        <source>Library</source>
        <translation>Bibliothek</translation>
    </message>
    <message>
        <source>title, note, tag, function …</source>
        <translation>Titel, Notiz, Stichwort, Funktion …</translation>
    </message>
    <message>
        <source>Search the library</source>
        <translation>Bibliothek durchsuchen</translation>
    </message>
    <message>
        <source>folders</source>
        <translation>Ordner</translation>
    </message>
    <message>
        <source>close</source>
        <translation>schließen</translation>
    </message>
    <message>
        <source>Put the library away (Ctrl+B)</source>
        <translation>Bibliothek schließen (Strg+B)</translation>
    </message>
    <message>
        <source>Filters and looks</source>
        <translation>Filter und Looks</translation>
    </message>
    <message>
        <source>open</source>
        <translation>öffnen</translation>
    </message>
    <message>
        <source>On the bench (Return)</source>
        <translation>Auf die Werkbank (Eingabe)</translation>
    </message>
    <message>
        <source>add as a step</source>
        <translation>+ Schritt</translation>
    </message>
    <message>
        <source>Behind the active step (Shift+Return); or drag it onto the line of steps</source>
        <translation>Hinter den aktiven Schritt (Umschalt+Eingabe); oder auf die Zeile der Schritte ziehen</translation>
    </message>
    <message>
        <source>compare</source>
        <translation>vergleichen</translation>
    </message>
    <message>
        <source>Before is what it makes; of two chosen ones, the first is opened and the second is before</source>
        <translation>Vorher ist, was er macht; von zwei gewählten wird der erste geöffnet, der zweite ist vorher</translation>
    </message>
    <message>
        <source>at</source>
        <translation>mit</translation>
    </message>
    <message>
        <source>Open it at one of its presets</source>
        <translation>Mit einer seiner Voreinstellungen öffnen</translation>
    </message>
    <message>
        <source>Leave out %1</source>
        <translation>%1 weglassen</translation>
    </message>
    <message>
        <source>Add a folder…</source>
        <translation>Hinzufügen…</translation>
    </message>
    <message>
        <source>Which folder of filters?</source>
        <translation>Welcher Ordner mit Filtern?</translation>
    </message>
    <message>
        <source>reading …</source>
        <translation>wird gelesen …</translation>
    </message>
    <message>
        <source>%1 in all</source>
        <translation>%1 insgesamt</translation>
    </message>
    <message>
        <source>%1 of %2</source>
        <translation>%1 von %2</translation>
    </message>
    <message>
        <source>Nothing here yet</source>
        <translation>Hier ist noch nichts</translation>
    </message>
    <message>
        <source>Nothing is found</source>
        <translation>Nichts gefunden</translation>
    </message>
    <message>
        <source>A look of 1 step.</source>
        <translation>Ein Look aus 1 Schritt.</translation>
    </message>
    <message>
        <source>A look of %1 steps.</source>
        <translation>Ein Look aus %1 Schritten.</translation>
    </message>
    <message>
        <source>Presets: %1</source>
        <translation>Voreinstellungen: %1</translation>
    </message>
    <message>
        <source>Search for fewer words.</source>
        <translation>Mit weniger Wörtern suchen.</translation>
    </message>
    <message>
        <source>Two can be compared, not %1.</source>
        <translation>Zwei können verglichen werden, nicht %1.</translation>
    </message>
    <message>
        <source>Rename the file</source>
        <translation>Datei umbenennen</translation>
    </message>
    <message>
        <source>Name:</source>
        <translation>Name:</translation>
    </message>
    <message>
        <source>Copied to %1</source>
        <translation>Nach %1 kopiert</translation>
    </message>
    <message>
        <source>%1 is in the trash</source>
        <translation>%1 liegt im Papierkorb</translation>
    </message>
    <message>
        <source>Open</source>
        <translation>Öffnen</translation>
    </message>
    <message>
        <source>Add as a step</source>
        <translation>Als Schritt hinzufügen</translation>
    </message>
    <message>
        <source>Compare these two</source>
        <translation>Diese beiden vergleichen</translation>
    </message>
    <message>
        <source>Compare with it</source>
        <translation>Damit vergleichen</translation>
    </message>
    <message>
        <source>No favourite any more</source>
        <translation>Kein Favorit mehr</translation>
    </message>
    <message>
        <source>A favourite</source>
        <translation>Ein Favorit</translation>
    </message>
    <message>
        <source>Rename the file…</source>
        <translation>Datei umbenennen…</translation>
    </message>
    <message>
        <source>Duplicate</source>
        <translation>Verdoppeln</translation>
    </message>
    <message>
        <source>Move to the trash</source>
        <translation>In den Papierkorb</translation>
    </message>
</context>
<context>
    <name>kasuri::app::LibraryTile</name>
    <message>
        <source>error</source>
        <translation>Fehler</translation>
    </message>
    <message>
        <source> · %1 steps</source>
        <translation> · %1 Schritte</translation>
    </message>
</context>
<context>
    <name>kasuri::app::LookActions</name>
    <message>
        <source>An empty step</source>
        <translation>Ein leerer Schritt</translation>
    </message>
    <message>
        <source>From the library…</source>
        <translation>Aus der Bibliothek…</translation>
    </message>
    <message>
        <source>A filter, look or LUT from a file…</source>
        <translation>Filter, Look oder LUT aus einer Datei…</translation>
    </message>
    <message>
        <source>Take the look apart</source>
        <translation>Look zerlegen</translation>
    </message>
    <message>
        <source>Its steps alone do not know %1. That would be given up, and what comes out may be another picture; Ctrl+Z brings it back.</source>
        <translation>Seine Schritte allein kennen %1 nicht. Das ginge verloren, und das Ergebnis kann ein anderes Bild sein; Strg+Z bringt es zurück.</translation>
    </message>
    <message>
        <source>Take it apart</source>
        <translation>Zerlegen</translation>
    </message>
    <message>
        <source>Switch it off</source>
        <translation>Ausschalten</translation>
    </message>
    <message>
        <source>Switch it on</source>
        <translation>Einschalten</translation>
    </message>
    <message>
        <source>Label…</source>
        <translation>Beschriftung…</translation>
    </message>
    <message>
        <source>Blend mode</source>
        <translation>Mischmodus</translation>
    </message>
    <message>
        <source>Twice</source>
        <translation>Doppelt</translation>
    </message>
    <message>
        <source>Earlier</source>
        <translation>Früher</translation>
    </message>
    <message>
        <source>Later</source>
        <translation>Später</translation>
    </message>
    <message>
        <source>Take the look apart into its steps</source>
        <translation>Den Look in seine Schritte zerlegen</translation>
    </message>
    <message>
        <source>Make one step of steps %1 and %2</source>
        <translation>Aus den Schritten %1 und %2 einen machen</translation>
    </message>
    <message>
        <source>Remove</source>
        <translation>Entfernen</translation>
    </message>
    <message>
        <source>Before is what comes into it</source>
        <translation>Vorher ist, was in ihn hineingeht</translation>
    </message>
    <message>
        <source>Bring it up to date with %1</source>
        <translation>Mit %1 auf den neuen Stand bringen</translation>
    </message>
    <message>
        <source>Write it into %1</source>
        <translation>In %1 schreiben</translation>
    </message>
    <message>
        <source>Write it as a filter…</source>
        <translation>Als Filter schreiben…</translation>
    </message>
    <message>
        <source>Write the step as a filter</source>
        <translation>Den Schritt als Filter schreiben</translation>
    </message>
    <message>
        <source>Filters (%1)</source>
        <translation>Filter (%1)</translation>
    </message>
    <message>
        <source>Wrote %1</source>
        <translation>%1 geschrieben</translation>
    </message>
    <message>
        <source>1 correction as a step</source>
        <translation>1 Korrektur als Schritt</translation>
    </message>
    <message>
        <source>%1 corrections as steps</source>
        <translation>%1 Korrekturen als Schritte</translation>
    </message>
    <message>
        <source>, meant in acescct: change “working” if they are not</source>
        <translation>, gemeint in acescct: „working“ ändern, falls sie es nicht sind</translation>
    </message>
    <message>
        <source>%1 at its preset “%2”; the values' reset goes back to its defaults</source>
        <translation>%1 mit der Voreinstellung „%2“; Zurücksetzen der Werte führt zu den Ausgangswerten</translation>
    </message>
    <message>
        <source>Which filters, looks or LUTs?</source>
        <translation>Welche Filter, Looks oder LUTs?</translation>
    </message>
    <message>
        <source>Filters, looks and LUTs (%1);;All files (*)</source>
        <translation>Filter, Looks und LUTs (%1);;Alle Dateien (*)</translation>
    </message>
    <message>
        <source>Label the step</source>
        <translation>Schritt beschriften</translation>
    </message>
    <message>
        <source>Label of step %1 (empty: the filter's own title):</source>
        <translation>Beschriftung von Schritt %1 (leer: der Titel des Filters):</translation>
    </message>
    <message>
        <source>Title of the look</source>
        <translation>Titel des Looks</translation>
    </message>
    <message>
        <source>Title:</source>
        <translation>Titel:</translation>
    </message>
    <message>
        <source>Of the look as a whole</source>
        <translation>Vom Look als Ganzem</translation>
    </message>
    <message>
        <source>Write them…</source>
        <translation>Schreiben…</translation>
    </message>
    <message>
        <source>A filter by itself has its proofs in its text.</source>
        <translation>Ein Filter allein hat seine Beweise im Text.</translation>
    </message>
    <message>
        <source>There is one step only.</source>
        <translation>Es gibt nur einen Schritt.</translation>
    </message>
</context>
<context>
    <name>kasuri::app::LookLine</name>
    <message>
        <source>masked</source>
        <translation>maskiert</translation>
    </message>
    <message>
        <source>not as its file</source>
        <translation>nicht wie seine Datei</translation>
    </message>
    <message>
        <source>%1, %2%3</source>
        <translation>%1, %2%3</translation>
    </message>
    <message>
        <source>off</source>
        <translation>aus</translation>
    </message>
    <message>
        <source>, active</source>
        <translation>, aktiv</translation>
    </message>
    <message>
        <source>Steps of the look: %1</source>
        <translation>Schritte des Looks: %1</translation>
    </message>
    <message>
        <source>Step %1: %2</source>
        <translation>Schritt %1: %2</translation>
    </message>
    <message>
        <source>Left out: %1</source>
        <translation>Ausgelassen: %1</translation>
    </message>
    <message>
        <source>Its rule and its file are not the same any more; the look goes on with its own. The menu brings it up to date, or writes it into the file.</source>
        <translation>Seine Regel und seine Datei sind nicht mehr dieselben; der Look bleibt bei seiner. Das Menü bringt ihn auf den neuen Stand oder schreibt ihn in die Datei.</translation>
    </message>
    <message>
        <source>Its file cannot be read; the look has its own copy.</source>
        <translation>Seine Datei kann nicht gelesen werden; der Look hat seine eigene Kopie.</translation>
    </message>
    <message>
        <source>mask: %1%2</source>
        <translation>Maske: %1%2</translation>
    </message>
    <message>
        <source>, inverted</source>
        <translation>, umgekehrt</translation>
    </message>
    <message>
        <source>Click makes it active, the box switches it, drag its percentage; drag it to another place; right click for the rest</source>
        <translation>Klick macht ihn aktiv, das Kästchen schaltet ihn, an seinen Prozenten ziehen; an eine andere Stelle ziehen; Rechtsklick für das Übrige</translation>
    </message>
</context>
<context>
    <name>kasuri::app::LookModel</name>
    <message>
        <source>untitled</source>
        <translation>ohne Titel</translation>
    </message>
    <message>
        <source>The look %1.</source>
        <translation>Der Look %1.</translation>
    </message>
    <message>
        <source>step %1 active</source>
        <translation>Schritt %1 aktiv</translation>
    </message>
    <message>
        <source>another step</source>
        <translation>ein weiterer Schritt</translation>
    </message>
    <message>
        <source>a step away</source>
        <translation>ein Schritt weniger</translation>
    </message>
    <message>
        <source>another order of steps</source>
        <translation>andere Folge der Schritte</translation>
    </message>
    <message>
        <source>step %1 on</source>
        <translation>Schritt %1 ein</translation>
    </message>
    <message>
        <source>step %1 off</source>
        <translation>Schritt %1 aus</translation>
    </message>
    <message>
        <source>opacity</source>
        <translation>Deckkraft</translation>
    </message>
    <message>
        <source>blend mode</source>
        <translation>Mischmodus</translation>
    </message>
    <message>
        <source>mask</source>
        <translation>Maske</translation>
    </message>
    <message>
        <source>mask inverted</source>
        <translation>Maske umgekehrt</translation>
    </message>
    <message>
        <source>size of the mask</source>
        <translation>Größe der Maske</translation>
    </message>
    <message>
        <source>softness of the mask</source>
        <translation>Weichheit der Maske</translation>
    </message>
    <message>
        <source>space of the LUT</source>
        <translation>Farbraum der LUT</translation>
    </message>
    <message>
        <source>label</source>
        <translation>Beschriftung</translation>
    </message>
    <message>
        <source>title of the look</source>
        <translation>Titel des Looks</translation>
    </message>
    <message>
        <source>proofs of the look</source>
        <translation>Beweise des Looks</translation>
    </message>
    <message>
        <source>shown up to the active step</source>
        <translation>bis zum aktiven Schritt gezeigt</translation>
    </message>
    <message>
        <source>shown as a whole</source>
        <translation>als Ganzes gezeigt</translation>
    </message>
    <message>
        <source>its opacity of %1 %</source>
        <translation>seine Deckkraft von %1 %</translation>
    </message>
    <message>
        <source>its blend mode %1</source>
        <translation>seinen Mischmodus %1</translation>
    </message>
    <message>
        <source>its mask</source>
        <translation>seine Maske</translation>
    </message>
    <message>
        <source>its proofs</source>
        <translation>seine Beweise</translation>
    </message>
    <message>
        <source>a look taken apart</source>
        <translation>ein Look zerlegt</translation>
    </message>
    <message>
        <source>steps as one</source>
        <translation>Schritte als einer</translation>
    </message>
    <message>
        <source>steps %1 to %2</source>
        <translation>Schritte %1 bis %2</translation>
    </message>
    <message>
        <source>what the file says now</source>
        <translation>was die Datei jetzt sagt</translation>
    </message>
    <message>
        <source>a step's file</source>
        <translation>die Datei eines Schritts</translation>
    </message>
    <message>
        <source>untitled look</source>
        <translation>Look ohne Titel</translation>
    </message>
    <message>
        <source>how the LUT is read</source>
        <translation>wie die LUT gelesen wird</translation>
    </message>
</context>
<context>
    <name>kasuri::app::LookRow</name>
    <message>
        <source>Another step behind the active one</source>
        <translation>Ein weiterer Schritt hinter dem aktiven</translation>
    </message>
    <message>
        <source>Add a step</source>
        <translation>Schritt hinzufügen</translation>
    </message>
    <message>
        <source>Whether the sheet shows what all steps make together, or what comes out of the active step (Ctrl+Shift+U)</source>
        <translation>Ob das Blatt zeigt, was alle Schritte zusammen machen, oder was aus dem aktiven Schritt kommt (Strg+Umschalt+U)</translation>
    </message>
    <message>
        <source>shown: up to step %1</source>
        <translation>gezeigt: bis Schritt %1</translation>
    </message>
    <message>
        <source>shown: all steps</source>
        <translation>gezeigt: alle Schritte</translation>
    </message>
</context>
<context>
    <name>kasuri::app::MainWindow</name>
    <message>
        <source>Left out: %1</source>
        <translation>Ausgelassen: %1</translation>
    </message>
    <message>
        <source> – Kasuri</source>
        <translation> – Kasuri</translation>
    </message>
    <message>
        <source>before</source>
        <translation>vorher</translation>
    </message>
    <message>
        <source>worst colour of the look</source>
        <translation>schlechteste Farbe des Looks</translation>
    </message>
    <message>
        <source>worst colour</source>
        <translation>schlechteste Farbe</translation>
    </message>
    <message>
        <source>Put the caret on a name, or select an expression.</source>
        <translation>Die Schreibmarke auf einen Namen setzen, oder einen Ausdruck auswählen.</translation>
    </message>
    <message>
        <source>There is no cell to show it in.</source>
        <translation>Es gibt keine Zelle, um es zu zeigen.</translation>
    </message>
    <message>
        <source>Point at a place in a cell first.</source>
        <translation>Zuerst auf eine Stelle in einer Zelle zeigen.</translation>
    </message>
    <message>
        <source>No cell shows a picture of a numbered sequence. Drop one of its files on the sheet.</source>
        <translation>Keine Zelle zeigt ein Bild einer nummerierten Sequenz. Eine ihrer Dateien auf das Blatt ziehen.</translation>
    </message>
    <message>
        <source>Put a pin into a picture of a numbered sequence first.</source>
        <translation>Zuerst eine Nadel in ein Bild einer nummerierten Sequenz setzen.</translation>
    </message>
</context>
<context>
    <name>kasuri::app::MessageBox</name>
    <message>
        <source>Alt+Enter</source>
        <translation>Alt+Eingabe</translation>
    </message>
</context>
<context>
    <name>kasuri::app::MixPanel</name>
    <message>
        <source>Mix table</source>
        <translation>Mischtabelle</translation>
    </message>
    <message>
        <source>Mix</source>
        <translation>Mischung</translation>
    </message>
    <message>
        <source>What can be done with the mix</source>
        <translation>Was mit der Mischung getan werden kann</translation>
    </message>
    <message>
        <source>Which of the matrices</source>
        <translation>Welche der Matrizen</translation>
    </message>
    <message>
        <source>offset</source>
        <translation>Versatz</translation>
    </message>
    <message>
        <source>sum</source>
        <translation>Summe</translation>
    </message>
    <message>
        <source>%1 of %2</source>
        <translation>%1 von %2</translation>
    </message>
    <message>
        <source>offset of %1</source>
        <translation>Versatz von %1</translation>
    </message>
    <message>
        <source>sums free</source>
        <translation>Summen frei</translation>
    </message>
    <message>
        <source>sums: %1</source>
        <translation>Summen: %1</translation>
    </message>
    <message>
        <source>the rule does not compile</source>
        <translation>die Regel ist fehlerhaft</translation>
    </message>
    <message>
        <source>the rule is not a matrix</source>
        <translation>die Regel ist keine Matrix</translation>
    </message>
    <message>
        <source>luminance kept</source>
        <translation>Leuchtdichte bleibt</translation>
    </message>
    <message>
        <source>luminance moves</source>
        <translation>Leuchtdichte anders</translation>
    </message>
    <message>
        <source>determinant %1</source>
        <translation>Det. %1</translation>
    </message>
    <message>
        <source>one of several steps</source>
        <translation>eine von mehreren Stufen</translation>
    </message>
    <message>
        <source>write it as a matrix</source>
        <translation>als Matrix schreiben</translation>
    </message>
    <message>
        <source>add a matrix</source>
        <translation>Matrix hinzufügen</translation>
    </message>
    <message>
        <source>Replaces the statements by one matrix of numbers that does the same at these values</source>
        <translation>Ersetzt die Anweisungen durch eine Matrix aus Zahlen, die bei diesen Werten dasselbe tut</translation>
    </message>
    <message>
        <source>Adds a matrix after the last statement</source>
        <translation>Fügt hinter der letzten Anweisung eine Matrix hinzu</translation>
    </message>
    <message>
        <source>the mix of %1</source>
        <translation>die Mischung von %1</translation>
    </message>
    <message>
        <source>channels swapped</source>
        <translation>Kanäle getauscht</translation>
    </message>
    <message>
        <source>channels rotated</source>
        <translation>Kanäle im Kreis getauscht</translation>
    </message>
    <message>
        <source>the mix inverted</source>
        <translation>die Mischung umgekehrt</translation>
    </message>
    <message>
        <source>the mix of %1 reset</source>
        <translation>die Mischung von %1 zurückgesetzt</translation>
    </message>
    <message>
        <source>a matrix</source>
        <translation>eine Matrix</translation>
    </message>
    <message>
        <source>Swap r and g</source>
        <translation>r und g tauschen</translation>
    </message>
    <message>
        <source>Swap g and b</source>
        <translation>g und b tauschen</translation>
    </message>
    <message>
        <source>Swap r and b</source>
        <translation>r und b tauschen</translation>
    </message>
    <message>
        <source>Rotate: r from g, g from b, b from r</source>
        <translation>Im Kreis: r aus g, g aus b, b aus r</translation>
    </message>
    <message>
        <source>Inverse</source>
        <translation>Umkehrung</translation>
    </message>
    <message>
        <source>Reset %1</source>
        <translation>%1 zurücksetzen</translation>
    </message>
    <message>
        <source>Reset all</source>
        <translation>Alle zurücksetzen</translation>
    </message>
    <message>
        <source>the mix reset</source>
        <translation>die Mischung zurückgesetzt</translation>
    </message>
</context>
<context>
    <name>kasuri::app::NumbersPanel</name>
    <message>
        <source>Numbers under the pointer</source>
        <translation>Zahlen unter dem Zeiger</translation>
    </message>
    <message>
        <source>Point at a strip or a cell to read its numbers.</source>
        <translation>Auf einen Streifen oder eine Zelle zeigen, um ihre Zahlen zu lesen.</translation>
    </message>
    <message>
        <source>after</source>
        <translation>nachher</translation>
    </message>
    <message>
        <source>change</source>
        <translation>Änderung</translation>
    </message>
    <message>
        <source>before</source>
        <translation>vorher</translation>
    </message>
</context>
<context>
    <name>kasuri::app::PartSplitter</name>
    <message>
        <source>Boundary: arrow keys move it</source>
        <translation>Grenze: Pfeiltasten verschieben sie</translation>
    </message>
</context>
<context>
    <name>kasuri::app::PinsPanel</name>
    <message>
        <source>Pins</source>
        <translation>Nadeln</translation>
    </message>
    <message>
        <source>%1: %2, %3</source>
        <translation>%1: %2, %3</translation>
    </message>
    <message>
        <source>not on the sheet now</source>
        <translation>gerade nicht auf dem Blatt</translation>
    </message>
    <message>
        <source>before</source>
        <translation>vorher</translation>
    </message>
    <message>
        <source>after</source>
        <translation>nachher</translation>
    </message>
</context>
<context>
    <name>kasuri::app::Playback</name>
    <message>
        <source>Left out: %1</source>
        <translation>Ausgelassen: %1</translation>
    </message>
    <message>
        <source>frames played</source>
        <translation>Bilder abgespielt</translation>
    </message>
</context>
<context>
    <name>kasuri::app::PointerPanel</name>
    <message>
        <source>Colour model of the numbers</source>
        <translation>Farbmodell der Zahlen</translation>
    </message>
    <message>
        <source>Pointer</source>
        <translation>Zeiger</translation>
    </message>
</context>
<context>
    <name>kasuri::app::PreferencesWindow</name>
    <message>
        <source>Settings</source>
        <translation>Einstellungen</translation>
    </message>
    <message>
        <source>As they came</source>
        <translation>Wie ausgeliefert</translation>
    </message>
    <message>
        <source>Room, language, screen, surround, text, start, pictures at a time and memory as they are before anybody chooses</source>
        <translation>Raum, Sprache, Bildschirm, Umfeld, Text, Start, Bilder zugleich und Speicher, wie sie sind, bevor jemand wählt</translation>
    </message>
</context>
<context>
    <name>kasuri::app::Preview</name>
    <message>
        <source>There is not enough memory to show this. Your text and values are safe; show fewer or smaller pictures.</source>
        <translation>Der Speicher reicht nicht, um das zu zeigen. Text und Werte sind sicher; weniger oder kleinere Bilder zeigen.</translation>
    </message>
    <message>
        <source>This could not be shown: %1</source>
        <translation>Das konnte nicht gezeigt werden: %1</translation>
    </message>
</context>
<context>
    <name>kasuri::app::PromiseWindow</name>
    <message>
        <source>What the look promises</source>
        <translation>Was der Look verspricht</translation>
    </message>
    <message>
        <source>One proof a line, about the look as a whole: r, g, b is what goes into its first step, out what comes out of the last. Measured at its values.</source>
        <translation>Ein Beweis je Zeile, über den Look als Ganzes: r, g, b ist, was in den ersten Schritt hineingeht, out, was aus dem letzten kommt. Gemessen bei seinen Werten.</translation>
    </message>
    <message>
        <source>Proofs of the look</source>
        <translation>Beweise des Looks</translation>
    </message>
    <message>
        <source>Add</source>
        <translation>Hinzufügen</translation>
    </message>
    <message>
        <source>Measured in the row of proofs below the sheet.</source>
        <translation>Gemessen in der Zeile der Beweise unter dem Blatt.</translation>
    </message>
</context>
<context>
    <name>kasuri::app::ProofItem</name>
    <message>
        <source>
Worst on %1: %2  →  %3</source>
        <translation>
Am schlechtesten auf %1: %2  →  %3</translation>
    </message>
    <message>
        <source>Nobody promised this: the + adds it to the rule.</source>
        <translation>Das hat niemand versprochen: das + schreibt es in die Regel.</translation>
    </message>
    <message>
        <source>Not promised: %1 %2</source>
        <translation>Nicht versprochen: %1 %2</translation>
    </message>
    <message>
        <source> passes </source>
        <translation> gilt </translation>
    </message>
    <message>
        <source> fails </source>
        <translation> gilt nicht </translation>
    </message>
    <message>
        <source>look: %1</source>
        <translation>Look: %1</translation>
    </message>
    <message>
        <source>holds, proved</source>
        <translation>gilt, bewiesen</translation>
    </message>
    <message>
        <source>holds</source>
        <translation>gilt</translation>
    </message>
    <message>
        <source>does not hold on</source>
        <translation>gilt nicht auf</translation>
    </message>
    <message>
        <source>proved</source>
        <translation>bewiesen</translation>
    </message>
    <message>
        <source>fails: %1 %2 %3 on</source>
        <translation>gilt nicht: %1 %2 %3 auf</translation>
    </message>
    <message>
        <source>holds, bounded</source>
        <translation>gilt, eingegrenzt</translation>
    </message>
    <message>
        <source>bounded</source>
        <translation>eingegrenzt</translation>
    </message>
</context>
<context>
    <name>kasuri::app::ProofsBar</name>
    <message>
        <source>Proofs</source>
        <translation>Beweise</translation>
    </message>
    <message>
        <source>Add a ready-made proof to the rule</source>
        <translation>Der Regel einen fertigen Beweis hinzufügen</translation>
    </message>
    <message>
        <source>Add a proof</source>
        <translation>Beweis hinzufügen</translation>
    </message>
    <message>
        <source>the look's own proofs are not measured</source>
        <translation>die Beweise des Looks selbst werden nicht gemessen</translation>
    </message>
    <message>
        <source>the active step is not a rule: nothing is proved of it</source>
        <translation>der aktive Schritt ist keine Regel: von ihm wird nichts bewiesen</translation>
    </message>
    <message>
        <source>old</source>
        <translation>alt</translation>
    </message>
    <message>
        <source>nothing promised</source>
        <translation>nichts versprochen</translation>
    </message>
    <message>
        <source>all %1 pass</source>
        <translation>alle %1 gelten</translation>
    </message>
    <message>
        <source>%1 of %2 fail</source>
        <translation>%1 von %2 gelten nicht</translation>
    </message>
    <message>
        <source>measuring …</source>
        <translation>wird gemessen …</translation>
    </message>
</context>
<context>
    <name>kasuri::app::ReadingPanel</name>
    <message>
        <source>Which reading</source>
        <translation>Welche Anzeige</translation>
    </message>
    <message>
        <source>Of which cell</source>
        <translation>Von welcher Zelle</translation>
    </message>
    <message>
        <source>More about this reading</source>
        <translation>Mehr zu dieser Anzeige</translation>
    </message>
    <message>
        <source>the cell in use</source>
        <translation>die benutzte Zelle</translation>
    </message>
    <message>
        <source>all pictures together</source>
        <translation>alle Bilder zusammen</translation>
    </message>
    <message>
        <source>all pictures</source>
        <translation>alle Bilder</translation>
    </message>
    <message>
        <source>nothing yet</source>
        <translation>noch nichts</translation>
    </message>
    <message>
        <source>frozen below, </source>
        <translation>unten eingefroren, </translation>
    </message>
    <message>
        <source>Ranges and settings…</source>
        <translation>Bereiche und Einstellungen…</translation>
    </message>
    <message>
        <source>Keep this as the faint reference</source>
        <translation>Dies als blassen Bezug behalten</translation>
    </message>
    <message>
        <source>Large, in a window of its own</source>
        <translation>Groß, in eigenem Fenster</translation>
    </message>
    <message>
        <source>Copy as a picture</source>
        <translation>Als Bild kopieren</translation>
    </message>
    <message>
        <source>Write it as a picture…</source>
        <translation>Als Bild schreiben…</translation>
    </message>
    <message>
        <source>Write its numbers as CSV…</source>
        <translation>Zahlen als CSV schreiben…</translation>
    </message>
    <message>
        <source>Move up</source>
        <translation>Nach oben</translation>
    </message>
    <message>
        <source>Move down</source>
        <translation>Nach unten</translation>
    </message>
    <message>
        <source>Add a reading</source>
        <translation>Anzeige hinzufügen</translation>
    </message>
    <message>
        <source>Remove this reading</source>
        <translation>Diese Anzeige entfernen</translation>
    </message>
    <message>
        <source>Wrote %1</source>
        <translation>%1 geschrieben</translation>
    </message>
    <message>
        <source>Write the numbers</source>
        <translation>Zahlen schreiben</translation>
    </message>
    <message>
        <source>Tables (*.csv)</source>
        <translation>Tabellen (*.csv)</translation>
    </message>
    <message>
        <source>%1 could not be written (%2). Choose another place.</source>
        <translation>%1 konnte nicht geschrieben werden (%2). Einen anderen Ort wählen.</translation>
    </message>
    <message>
        <source>Write the reading as a picture</source>
        <translation>Anzeige als Bild schreiben</translation>
    </message>
    <message>
        <source>Pictures (*.png)</source>
        <translation>Bilder (*.png)</translation>
    </message>
    <message>
        <source>The picture is on the clipboard</source>
        <translation>Das Bild ist in der Zwischenablage</translation>
    </message>
</context>
<context>
    <name>kasuri::app::Recovery</name>
    <message>
        <source>untitled</source>
        <translation>ohne Titel</translation>
    </message>
    <message>
        <source>Unsaved work</source>
        <translation>Ungespeicherte Arbeit</translation>
    </message>
    <message>
        <source>Kasuri ended while “%1” had changes that were not saved. They were kept, as of %2.</source>
        <translation>Kasuri endete, während „%1“ Änderungen hatte, die nicht gespeichert waren. Sie wurden behalten, Stand %2.</translation>
    </message>
    <message>
        <source>Bring them back</source>
        <translation>Zurückholen</translation>
    </message>
    <message>
        <source>Throw them away</source>
        <translation>Wegwerfen</translation>
    </message>
    <message>
        <source>Ask again next time</source>
        <translation>Nächstes Mal wieder fragen</translation>
    </message>
    <message>
        <source>There is nothing in %1</source>
        <translation>In %1 ist nichts</translation>
    </message>
    <message>
        <source>The work is back, and not saved yet.</source>
        <translation>Die Arbeit ist wieder da, und noch nicht gespeichert.</translation>
    </message>
</context>
<context>
    <name>kasuri::app::RuleEditor</name>
    <message>
        <source>Rule</source>
        <translation>Regel</translation>
    </message>
    <message>
        <source>Undo</source>
        <translation>Rückgängig</translation>
    </message>
    <message>
        <source>Redo</source>
        <translation>Wiederholen</translation>
    </message>
    <message>
        <source>Cut</source>
        <translation>Ausschneiden</translation>
    </message>
    <message>
        <source>Copy</source>
        <translation>Kopieren</translation>
    </message>
    <message>
        <source>Paste</source>
        <translation>Einfügen</translation>
    </message>
    <message>
        <source>Select all</source>
        <translation>Alles auswählen</translation>
    </message>
</context>
<context>
    <name>kasuri::app::RulePanel</name>
    <message>
        <source>Rule</source>
        <translation>Regel</translation>
    </message>
    <message>
        <source>1 error</source>
        <translation>1 Fehler</translation>
    </message>
    <message>
        <source>%1 errors</source>
        <translation>%1 Fehler</translation>
    </message>
    <message>
        <source> (F8): the sheet shows the last good rule</source>
        <translation> (F8): das Blatt zeigt die letzte gültige Regel</translation>
    </message>
    <message>
        <source> (F8): the sheet shows what was there before</source>
        <translation> (F8): das Blatt zeigt, was vorher da war</translation>
    </message>
    <message>
        <source>Changes nothing: in is out, bit for bit</source>
        <translation>Ändert nichts: was hineingeht, kommt heraus, Bit für Bit</translation>
    </message>
    <message>
        <source>1 operation a pixel</source>
        <translation>1 Rechenschritt je Pixel</translation>
    </message>
    <message>
        <source>%1 operations a pixel</source>
        <translation>%1 Rechenschritte je Pixel</translation>
    </message>
    <message>
        <source>1 warning (F8)</source>
        <translation>1 Warnung (F8)</translation>
    </message>
    <message>
        <source>%1 warnings (F8)</source>
        <translation>%1 Warnungen (F8)</translation>
    </message>
    <message>
        <source>1 hint (F8)</source>
        <translation>1 Hinweis (F8)</translation>
    </message>
    <message>
        <source>%1 hints (F8)</source>
        <translation>%1 Hinweise (F8)</translation>
    </message>
    <message>
        <source>does not compile</source>
        <translation>ist fehlerhaft</translation>
    </message>
</context>
<context>
    <name>kasuri::app::Session</name>
    <message>
        <source>untitled</source>
        <translation>ohne Titel</translation>
    </message>
    <message>
        <source>typing</source>
        <translation>Schreiben</translation>
    </message>
    <message>
        <source>deleting</source>
        <translation>Löschen</translation>
    </message>
    <message>
        <source>replacing</source>
        <translation>Ersetzen</translation>
    </message>
    <message>
        <source>%1</source>
        <translation>%1</translation>
    </message>
    <message>
        <source>reset of all values</source>
        <translation>Zurücksetzen aller Werte</translation>
    </message>
    <message>
        <source>values as defaults</source>
        <translation>Werte als Ausgangswerte</translation>
    </message>
    <message>
        <source>preset %1</source>
        <translation>Voreinstellung %1</translation>
    </message>
    <message>
        <source>work brought back</source>
        <translation>zurückgeholte Arbeit</translation>
    </message>
</context>
<context>
    <name>kasuri::app::SheetModel</name>
    <message>
        <source>take %1</source>
        <translation>Fassung %1</translation>
    </message>
    <message>
        <source>a target added</source>
        <translation>ein Testbild hinzugefügt</translation>
    </message>
    <message>
        <source>a picture added</source>
        <translation>ein Bild hinzugefügt</translation>
    </message>
    <message>
        <source>another picture</source>
        <translation>ein anderes Bild</translation>
    </message>
    <message>
        <source>a cell removed</source>
        <translation>eine Zelle entfernt</translation>
    </message>
    <message>
        <source>another lens</source>
        <translation>eine andere Linse</translation>
    </message>
    <message>
        <source>another layer</source>
        <translation>eine andere Ebene</translation>
    </message>
    <message>
        <source>another target</source>
        <translation>ein anderes Testbild</translation>
    </message>
    <message>
        <source>a cell duplicated</source>
        <translation>eine Zelle verdoppelt</translation>
    </message>
    <message>
        <source>takes put away</source>
        <translation>Fassungen weggelegt</translation>
    </message>
    <message>
        <source>takes side by side</source>
        <translation>Fassungen nebeneinander</translation>
    </message>
    <message>
        <source>a cell moved</source>
        <translation>eine Zelle verschoben</translation>
    </message>
    <message>
        <source>settings of a target</source>
        <translation>Einstellungen eines Testbilds</translation>
    </message>
    <message>
        <source>the line of a cut</source>
        <translation>die Linie eines Schnitts</translation>
    </message>
    <message>
        <source>a strip added</source>
        <translation>ein Streifen hinzugefügt</translation>
    </message>
    <message>
        <source>a cut added</source>
        <translation>ein Schnitt hinzugefügt</translation>
    </message>
    <message>
        <source>a strip removed</source>
        <translation>ein Streifen entfernt</translation>
    </message>
    <message>
        <source>a strip moved</source>
        <translation>ein Streifen verschoben</translation>
    </message>
    <message>
        <source>another strip</source>
        <translation>ein anderer Streifen</translation>
    </message>
    <message>
        <source>settings of a strip</source>
        <translation>Einstellungen eines Streifens</translation>
    </message>
    <message>
        <source>a pin set</source>
        <translation>eine Nadel gesetzt</translation>
    </message>
    <message>
        <source>a pin moved</source>
        <translation>eine Nadel verschoben</translation>
    </message>
    <message>
        <source>a pin removed</source>
        <translation>eine Nadel entfernt</translation>
    </message>
    <message>
        <source>all pins removed</source>
        <translation>alle Nadeln entfernt</translation>
    </message>
    <message>
        <source>a picture for %1</source>
        <translation>ein Bild für %1</translation>
    </message>
    <message>
        <source>no picture for %1</source>
        <translation>kein Bild für %1</translation>
    </message>
    <message>
        <source>another frame</source>
        <translation>ein anderes Bild der Sequenz</translation>
    </message>
    <message>
        <source>a pin over time</source>
        <translation>eine Nadel über die Zeit</translation>
    </message>
</context>
<context>
    <name>kasuri::app::SheetView</name>
    <message>
        <source>x %1   y %2</source>
        <translation>x %1   y %2</translation>
    </message>
    <message>
        <source>at %1</source>
        <translation>bei %1</translation>
    </message>
    <message>
        <source>frame %1</source>
        <translation>Bild %1</translation>
    </message>
    <message>
        <source>before</source>
        <translation>vorher</translation>
    </message>
</context>
<context>
    <name>kasuri::app::SideWindows</name>
    <message>
        <source>Pin a place first: click in a cell with Ctrl, or P.</source>
        <translation>Zuerst eine Nadel setzen: mit Strg in eine Zelle klicken, oder P.</translation>
    </message>
    <message>
        <source>the worst colour of a proof</source>
        <translation>die schlechteste Farbe eines Beweises</translation>
    </message>
    <message>
        <source>pin %1</source>
        <translation>Nadel %1</translation>
    </message>
    <message>
        <source>no pin</source>
        <translation>keine Nadel</translation>
    </message>
    <message>
        <source>Sheet – Kasuri</source>
        <translation>Blatt – Kasuri</translation>
    </message>
</context>
<context>
    <name>kasuri::app::SourcesPanel</name>
    <message>
        <source>Further pictures</source>
        <translation>Weitere Bilder</translation>
    </message>
    <message>
        <source>What %1 reads</source>
        <translation>Was %1 liest</translation>
    </message>
    <message>
        <source>not in every picture: 0 there</source>
        <translation>nicht in jedem Bild: dort 0</translation>
    </message>
    <message>
        <source>each picture’s own layer</source>
        <translation>die eigene Ebene jedes Bildes</translation>
    </message>
    <message>
        <source>, is being read</source>
        <translation>, wird gelesen</translation>
    </message>
    <message>
        <source>, %1 stretched to %2</source>
        <translation>, %1 auf %2 gestreckt</translation>
    </message>
    <message>
        <source>
Drop a picture file or the caption of a cell here</source>
        <translation>
Eine Bilddatei oder die Kopfzeile einer Zelle hierher ziehen</translation>
    </message>
    <message>
        <source>%1 given</source>
        <translation>%1 angegeben</translation>
    </message>
    <message>
        <source>each picture’s own layer or channel “%1”</source>
        <translation>die eigene Ebene oder der eigene Kanal „%1“ jedes Bildes</translation>
    </message>
    <message>
        <source>a generated target</source>
        <translation>ein erzeugtes Testbild</translation>
    </message>
    <message>
        <source>Another picture…</source>
        <translation>Ein anderes Bild…</translation>
    </message>
    <message>
        <source>Which picture is %1?</source>
        <translation>Welches Bild ist %1?</translation>
    </message>
    <message>
        <source>Pictures (%1);;All files (*)</source>
        <translation>Bilder (%1);;Alle Dateien (*)</translation>
    </message>
</context>
<context>
    <name>kasuri::app::StatusLine</name>
    <message>
        <source>dismiss</source>
        <translation>schließen</translation>
    </message>
    <message>
        <source>Check: from the text to a rule that can run. Sheet: from the change to everything evaluated.</source>
        <translation>Prüfen: vom Text zur lauffähigen Regel. Blatt: von der Änderung, bis alles gerechnet ist.</translation>
    </message>
    <message>
        <source>check %1 ms   sheet %2 ms</source>
        <translation>Prüfen %1 ms   Blatt %2 ms</translation>
    </message>
</context>
<context>
    <name>kasuri::app::StepPanel</name>
    <message>
        <source>Step</source>
        <translation>Schritt</translation>
    </message>
    <message>
        <source>see the mask</source>
        <translation>Maske sehen</translation>
    </message>
    <message>
        <source>Show the mask in the current cell, or the picture again</source>
        <translation>Die Maske in der benutzten Zelle zeigen, oder wieder das Bild</translation>
    </message>
    <message>
        <source>Opacity of the step</source>
        <translation>Deckkraft des Schritts</translation>
    </message>
    <message>
        <source>How the step is laid over what comes into it</source>
        <translation>Wie der Schritt über das gelegt wird, was in ihn hineingeht</translation>
    </message>
    <message>
        <source>opacity</source>
        <translation>Deckkraft</translation>
    </message>
    <message>
        <source>blend</source>
        <translation>Modus</translation>
    </message>
    <message>
        <source>What the numbers of the LUT mean</source>
        <translation>Was die Zahlen der LUT bedeuten</translation>
    </message>
    <message>
        <source>mask: everywhere</source>
        <translation>Maske: überall</translation>
    </message>
    <message>
        <source>Mask: an expression of what comes into the step</source>
        <translation>Maske: ein Ausdruck dessen, was in den Schritt hineingeht</translation>
    </message>
    <message>
        <source>mask</source>
        <translation>Maske</translation>
    </message>
    <message>
        <source>Masks to begin with</source>
        <translation>Masken für den Anfang</translation>
    </message>
    <message>
        <source>Pixels by which the mask grows; below 0 it shrinks</source>
        <translation>Um so viele Pixel wächst die Maske; unter 0 schrumpft sie</translation>
    </message>
    <message>
        <source>Pixels by which the mask is softened</source>
        <translation>Um so viele Pixel wird die Maske weichgezeichnet</translation>
    </message>
    <message>
        <source>inverted</source>
        <translation>umgekehrt</translation>
    </message>
    <message>
        <source>grow</source>
        <translation>größer</translation>
    </message>
    <message>
        <source>soften</source>
        <translation>weicher</translation>
    </message>
    <message>
        <source>A band of hue</source>
        <translation>Ein Bereich des Farbtons</translation>
    </message>
    <message>
        <source>Alpha of a layer</source>
        <translation>Alpha einer Ebene</translation>
    </message>
    <message>
        <source>Everywhere</source>
        <translation>Überall</translation>
    </message>
    <message>
        <source>%1 of %2</source>
        <translation>%1 von %2</translation>
    </message>
    <message>
        <source>Read trilinearly between its points</source>
        <translation>Zwischen ihren Punkten trilinear gelesen</translation>
    </message>
    <message>
        <source>Read tetrahedrally between its points</source>
        <translation>Zwischen ihren Punkten tetraedrisch gelesen</translation>
    </message>
    <message>
        <source>the LUT's numbers are %1, read trilinearly</source>
        <translation>die Zahlen der LUT sind %1, trilinear gelesen</translation>
    </message>
    <message>
        <source>the LUT's numbers are %1, read tetrahedrally</source>
        <translation>die Zahlen der LUT sind %1, tetraedrisch gelesen</translation>
    </message>
</context>
<context>
    <name>kasuri::app::StripView</name>
    <message>
        <source>pin %1 over time</source>
        <translation>Nadel %1 über die Zeit</translation>
    </message>
    <message>
        <source>cut</source>
        <translation>Schnitt</translation>
    </message>
    <message>
        <source>old</source>
        <translation>alt</translation>
    </message>
    <message>
        <source>frame %1</source>
        <translation>Bild %1</translation>
    </message>
    <message>
        <source>%1, from %2 to %3</source>
        <translation>%1, von %2 bis %3</translation>
    </message>
    <message>
        <source>its picture is none of a numbered sequence</source>
        <translation>ihr Bild gehört zu keiner nummerierten Sequenz</translation>
    </message>
    <message>
        <source>frames %1 to %2</source>
        <translation>Bilder %1 bis %2</translation>
    </message>
    <message numerus="yes">
        <source>%n not read</source>
        <translation>
            <numerusform>%n nicht gelesen</numerusform>
            <numerusform>%n nicht gelesen</numerusform>
        </translation>
    </message>
    <message>
        <source>the rule looks at places, neighbours or further pictures: what it makes of one pixel is not known</source>
        <translation>die Regel sieht auf Orte, Nachbarn oder weitere Bilder: was sie aus einem Pixel macht, ist nicht bekannt</translation>
    </message>
    <message>
        <source>Show instead</source>
        <translation>Stattdessen zeigen</translation>
    </message>
    <message>
        <source>Add a strip</source>
        <translation>Streifen hinzufügen</translation>
    </message>
    <message>
        <source>Settings…</source>
        <translation>Einstellungen…</translation>
    </message>
    <message>
        <source>Move up	Alt+Up</source>
        <translation>Nach oben	Alt+Auf</translation>
    </message>
    <message>
        <source>Move down	Alt+Down</source>
        <translation>Nach unten	Alt+Ab</translation>
    </message>
    <message>
        <source>Remove this strip	Del</source>
        <translation>Streifen entfernen	Entf</translation>
    </message>
</context>
<context>
    <name>kasuri::app::TakesBar</name>
    <message>
        <source>take</source>
        <translation>Fassung</translation>
    </message>
    <message>
        <source>Remember rule and values as a take, to flip back to (Ctrl+T; Alt+PageUp and Alt+PageDown flip)</source>
        <translation>Regel und Werte als Fassung merken, um zu ihr zurückzukehren (Strg+T; Alt+Bild auf und Alt+Bild ab wechseln)</translation>
    </message>
    <message>
        <source>Remember a take</source>
        <translation>Fassung merken</translation>
    </message>
    <message>
        <source>Take %1: seen on the sheet while the pointer rests here; click flips to it, right click for its name and the rest</source>
        <translation>Fassung %1: auf dem Blatt zu sehen, solange der Zeiger hier ruht; Klick wechselt zu ihr, Rechtsklick für Namen und Übriges</translation>
    </message>
    <message>
        <source>Take %1, in force</source>
        <translation>Fassung %1, gilt gerade</translation>
    </message>
    <message>
        <source>Take %1</source>
        <translation>Fassung %1</translation>
    </message>
    <message>
        <source>remember a take</source>
        <translation>Fassung merken</translation>
    </message>
    <message>
        <source>Flip to %1</source>
        <translation>Zu %1 wechseln</translation>
    </message>
    <message>
        <source>Compare with %1</source>
        <translation>Mit %1 vergleichen</translation>
    </message>
    <message>
        <source>Put the takes on the sheet away</source>
        <translation>Die Fassungen auf dem Blatt weglegen</translation>
    </message>
    <message>
        <source>See all takes side by side</source>
        <translation>Alle Fassungen nebeneinander sehen</translation>
    </message>
    <message>
        <source>Name…</source>
        <translation>Name…</translation>
    </message>
    <message>
        <source>Write it as a filter…</source>
        <translation>Als Filter schreiben…</translation>
    </message>
    <message>
        <source>Remove</source>
        <translation>Entfernen</translation>
    </message>
    <message>
        <source>take %1</source>
        <translation>Fassung %1</translation>
    </message>
    <message>
        <source>Name the take</source>
        <translation>Fassung benennen</translation>
    </message>
    <message>
        <source>Name of the take:</source>
        <translation>Name der Fassung:</translation>
    </message>
    <message>
        <source>Write the take as a filter</source>
        <translation>Fassung als Filter schreiben</translation>
    </message>
    <message>
        <source>Filters (%1)</source>
        <translation>Filter (%1)</translation>
    </message>
</context>
<context>
    <name>kasuri::app::TakesModel</name>
    <message>
        <source>a take</source>
        <translation>eine Fassung</translation>
    </message>
    <message>
        <source>take %1</source>
        <translation>Fassung %1</translation>
    </message>
    <message>
        <source>a take named</source>
        <translation>eine Fassung benannt</translation>
    </message>
    <message>
        <source>a take removed</source>
        <translation>eine Fassung entfernt</translation>
    </message>
</context>
<context>
    <name>kasuri::app::TopBar</name>
    <message>
        <source>Menu</source>
        <translation>Menü</translation>
    </message>
    <message>
        <source>working</source>
        <translation>Arbeitsraum</translation>
    </message>
    <message>
        <source>display</source>
        <translation>Bildschirm</translation>
    </message>
    <message>
        <source>Display</source>
        <translation>Bildschirm</translation>
    </message>
    <message>
        <source>The screen that pictures are shown on, and what happens to colours that it cannot show</source>
        <translation>Der Bildschirm, auf dem Bilder gezeigt werden, und was mit Farben geschieht, die er nicht zeigen kann</translation>
    </message>
    <message>
        <source>+ step</source>
        <translation>+ Schritt</translation>
    </message>
    <message>
        <source>A second step: then it is a look</source>
        <translation>Ein zweiter Schritt: dann ist es ein Look</translation>
    </message>
    <message>
        <source>Add a step</source>
        <translation>Schritt hinzufügen</translation>
    </message>
    <message>
        <source>Before   hold F9</source>
        <translation>Vorher   F9 halten</translation>
    </message>
    <message>
        <source>Show before while held</source>
        <translation>Vorher zeigen, solange gehalten</translation>
    </message>
    <message>
        <source>What before is</source>
        <translation>Was vorher ist</translation>
    </message>
    <message>
        <source>  – not saved</source>
        <translation>  – geändert</translation>
    </message>
    <message>
        <source>, soft</source>
        <translation>, weich</translation>
    </message>
    <message>
        <source>the picture</source>
        <translation>das Bild</translation>
    </message>
    <message>
        <source>against %1</source>
        <translation>gegen %1</translation>
    </message>
    <message>
        <source> – does not compile</source>
        <translation> – ist fehlerhaft</translation>
    </message>
    <message>
        <source>%1 does not compile (%2): before is the picture as it comes</source>
        <translation>%1 ist fehlerhaft (%2): vorher ist das Bild, wie es kommt</translation>
    </message>
    <message>
        <source>Before is the picture as it comes. Choose another rule to compare with, in cells, strips and readings</source>
        <translation>Vorher ist das Bild, wie es kommt. Hier eine andere Regel zum Vergleich wählen, in Zellen, Streifen und Anzeigen</translation>
    </message>
    <message>
        <source>Before is what %1 makes of the picture, in cells, strips and readings</source>
        <translation>Vorher ist, was %1 aus dem Bild macht, in Zellen, Streifen und Anzeigen</translation>
    </message>
    <message>
        <source>hard limits</source>
        <translation>harte Grenzen</translation>
    </message>
    <message>
        <source>Each channel is cut off at 0 and 1</source>
        <translation>Jeder Kanal wird bei 0 und 1 abgeschnitten</translation>
    </message>
    <message>
        <source>soft limits</source>
        <translation>weiche Grenzen</translation>
    </message>
    <message>
        <source>Bright light bends towards white; what is still outside moves towards grey</source>
        <translation>Helles Licht neigt sich zu Weiß; was noch draußen liegt, rückt zu Grau</translation>
    </message>
    <message>
        <source>surround</source>
        <translation>Umfeld</translation>
    </message>
    <message>
        <source>%1 (L* %2)</source>
        <translation>%1 (L* %2)</translation>
    </message>
</context>
<context>
    <name>kasuri::app::TraceWindow</name>
    <message>
        <source>Values of every part of the rule</source>
        <translation>Werte aller Teile der Regel</translation>
    </message>
    <message>
        <source>part of the rule</source>
        <translation>Teil der Regel</translation>
    </message>
    <message>
        <source>value</source>
        <translation>Wert</translation>
    </message>
    <message>
        <source>Trace at %1</source>
        <translation>Rechenweg bei %1</translation>
    </message>
    <message>
        <source>   ← born here</source>
        <translation>   ← entsteht hier</translation>
    </message>
</context>
<context>
    <name>kasuri::app::Tuning</name>
    <message>
        <source>%1 and what is linked</source>
        <translation>%1 und was verbunden ist</translation>
    </message>
    <message>
        <source>%1 linked with %2</source>
        <translation>%1 mit %2 verbunden</translation>
    </message>
    <message>
        <source>%1 by itself</source>
        <translation>%1 für sich</translation>
    </message>
    <message>
        <source>range of %1</source>
        <translation>Bereich von %1</translation>
    </message>
</context>
<context>
    <name>kasuri::app::ValueEditor</name>
    <message>
        <source>Range of %1</source>
        <translation>Bereich von %1</translation>
    </message>
    <message>
        <source>on</source>
        <translation>ein</translation>
    </message>
    <message>
        <source>off</source>
        <translation>aus</translation>
    </message>
</context>
<context>
    <name>kasuri::app::ValuesPanel</name>
    <message>
        <source>Values</source>
        <translation>Werte</translation>
    </message>
    <message>
        <source>presets</source>
        <translation>Voreinstellungen</translation>
    </message>
    <message>
        <source>Presets</source>
        <translation>Voreinstellungen</translation>
    </message>
    <message>
        <source>A look or a LUT has no values
of its own.</source>
        <translation>Ein Look oder eine LUT hat keine
eigenen Werte.</translation>
    </message>
    <message>
        <source>No parameters. A line such as
param strength = 0 in 0 .. 1
puts one here.</source>
        <translation>Keine Parameter. Eine Zeile wie
param strength = 0 in 0 .. 1
setzt einen hierher.</translation>
    </message>
    <message>
        <source>moves together with %1</source>
        <translation>bewegt sich zusammen mit %1</translation>
    </message>
    <message>
        <source>set over a narrower range</source>
        <translation>in einem engeren Bereich zu setzen</translation>
    </message>
    <message>
        <source>Reset %1 (Backspace)</source>
        <translation>%1 zurücksetzen (Rücktaste)</translation>
    </message>
    <message>
        <source>Reset %1</source>
        <translation>%1 zurücksetzen</translation>
    </message>
    <message>
        <source>Move together with</source>
        <translation>Zusammen bewegen mit</translation>
    </message>
    <message>
        <source>Move by itself</source>
        <translation>Für sich bewegen</translation>
    </message>
    <message>
        <source>Narrow the range around the value</source>
        <translation>Den Bereich um den Wert verengen</translation>
    </message>
    <message>
        <source>Range…</source>
        <translation>Bereich…</translation>
    </message>
    <message>
        <source>The whole range</source>
        <translation>Der ganze Bereich</translation>
    </message>
    <message>
        <source>Reset</source>
        <translation>Zurücksetzen</translation>
    </message>
    <message>
        <source>1 differs from default</source>
        <translation>1 anders als der Ausgangswert</translation>
    </message>
    <message>
        <source>%1 differ from default</source>
        <translation>%1 anders als die Ausgangswerte</translation>
    </message>
    <message>
        <source>preset %1</source>
        <translation>Voreinstellung %1</translation>
    </message>
    <message>
        <source>Reset all</source>
        <translation>Alle zurücksetzen</translation>
    </message>
    <message>
        <source>Keep these values as a preset…</source>
        <translation>Diese Werte als Voreinstellung behalten…</translation>
    </message>
    <message>
        <source>Keep as preset</source>
        <translation>Als Voreinstellung behalten</translation>
    </message>
    <message>
        <source>Name of the preset:</source>
        <translation>Name der Voreinstellung:</translation>
    </message>
    <message>
        <source>Make these values the defaults</source>
        <translation>Diese Werte zu Ausgangswerten machen</translation>
    </message>
</context>
<context>
    <name>kasuri::app::WayBack</name>
    <message>
        <source>Lost: %1</source>
        <translation>Verloren: %1</translation>
    </message>
    <message>
        <source>In the way: %1</source>
        <translation>Im Weg: %1</translation>
    </message>
    <message>
        <source>Looked for: %1</source>
        <translation>Gesucht: %1</translation>
    </message>
    <message>
        <source>Two colours become one: %1 and %2 both give %3</source>
        <translation>Zwei Farben werden eine: %1 und %2 ergeben beide %3</translation>
    </message>
    <message>
        <source>Only these values have a way back, so it has no parameters.</source>
        <translation>Nur diese Werte haben einen Weg zurück, darum hat er keine Parameter.</translation>
    </message>
    <message>
        <source>%1: only %2 to %3 has a way back.</source>
        <translation>%1: nur %2 bis %3 hat einen Weg zurück.</translation>
    </message>
    <message>
        <source>%1 has no way back here.</source>
        <translation>%1 hat hier keinen Weg zurück.</translation>
    </message>
    <message>
        <source>Noise comes back up to %1 times as loud.</source>
        <translation>Rauschen kommt bis zu %1-mal so laut zurück.</translation>
    </message>
    <message>
        <source>Called off.</source>
        <translation>Abgebrochen.</translation>
    </message>
    <message>
        <source>Solving…</source>
        <translation>Wird aufgelöst…</translation>
    </message>
    <message>
        <source>There is no way back from here.</source>
        <translation>Von hier gibt es keinen Weg zurück.</translation>
    </message>
    <message>
        <source>Nothing to take off: no step is on.</source>
        <translation>Nichts zurückzunehmen: kein Schritt ist eingeschaltet.</translation>
    </message>
    <message>
        <source>Colours from 0 to 1 come back exactly, on 4096 of them.</source>
        <translation>Farben von 0 bis 1 kommen genau zurück, auf 4096 davon.</translation>
    </message>
    <message>
        <source>Colours from 0 to 1 come back within %1, on 4096 of them.</source>
        <translation>Farben von 0 bis 1 kommen auf %1 genau zurück, auf 4096 davon.</translation>
    </message>
    <message>
        <source>There is no way back from: %1.</source>
        <translation>Keinen Weg zurück gibt es von: %1.</translation>
    </message>
</context>
<context>
    <name>kasuri::app::WayBackWindow</name>
    <message>
        <source>The way back</source>
        <translation>Der Weg zurück</translation>
    </message>
    <message>
        <source>The rule is solved for what went in, statement by statement, and measured: there and back again.</source>
        <translation>Die Regel wird nach dem aufgelöst, was hineinging, Anweisung für Anweisung, und gemessen: hin und wieder zurück.</translation>
    </message>
    <message>
        <source>Of the active step</source>
        <translation>Vom aktiven Schritt</translation>
    </message>
    <message>
        <source>Of all steps, the last first</source>
        <translation>Von allen Schritten, der letzte zuerst</translation>
    </message>
    <message>
        <source>Solve again</source>
        <translation>Neu auflösen</translation>
    </message>
    <message>
        <source>It follows the work by itself, until it has been put behind it</source>
        <translation>Folgt der Arbeit von selbst, bis er dahintergestellt wurde</translation>
    </message>
    <message>
        <source>What came of it</source>
        <translation>Was daraus wurde</translation>
    </message>
    <message>
        <source>The way back as a rule</source>
        <translation>Der Weg zurück als Regel</translation>
    </message>
    <message>
        <source>Save as a look…</source>
        <translation>Als Look sichern…</translation>
    </message>
    <message>
        <source>A look of its own, with copies of the rules that its proofs are about</source>
        <translation>Ein eigener Look, mit Kopien der Regeln, von denen seine Beweise handeln</translation>
    </message>
    <message>
        <source>Put it behind</source>
        <translation>Dahinterstellen</translation>
    </message>
    <message>
        <source>As a step behind what it takes off: the picture is back. One step of undo</source>
        <translation>Als Schritt hinter dem, was er zurücknimmt: das Bild ist wieder da. Ein Schritt zum Zurücknehmen</translation>
    </message>
    <message>
        <source>the way back</source>
        <translation>der Weg zurück</translation>
    </message>
    <message>
        <source>The way back stands behind it. Ctrl+Z takes it away again.</source>
        <translation>Der Weg zurück steht dahinter. Strg+Z nimmt ihn wieder weg.</translation>
    </message>
    <message>
        <source>Save the way back</source>
        <translation>Den Weg zurück sichern</translation>
    </message>
    <message>
        <source>Looks (%1)</source>
        <translation>Looks (%1)</translation>
    </message>
    <message>
        <source>%1 was saved.</source>
        <translation>%1 wurde gesichert.</translation>
    </message>
    <message>
        <source>Tables where no rule does it</source>
        <translation>Tabellen, wo es keine Regel kann</translation>
    </message>
    <message>
        <source>Where a step's rule cannot be solved, a LUT of 33 points takes it off, as near as that comes; LUTs are taken off so always</source>
        <translation>Wo die Regel eines Schritts nicht aufzulösen ist, nimmt ihn eine LUT mit 33 Punkten zurück, so nahe sie kommt; bei LUTs ist das immer so</translation>
    </message>
</context>
<context>
    <name>kasuri::app::WishesWindow</name>
    <message>
        <source>A matrix from wishes</source>
        <translation>Matrix aus Wünschen</translation>
    </message>
    <message>
        <source>This colour shall become that colour. The weights that come nearest to all wishes are found by least squares.</source>
        <translation>Diese Farbe soll jene Farbe werden. Die Gewichte, die allen Wünschen am nächsten kommen, werden mit kleinsten Quadraten gefunden.</translation>
    </message>
    <message>
        <source>No wish yet.</source>
        <translation>Noch kein Wunsch.</translation>
    </message>
    <message>
        <source>Add a wish</source>
        <translation>Wunsch hinzufügen</translation>
    </message>
    <message>
        <source>Add the pins</source>
        <translation>Nadeln hinzufügen</translation>
    </message>
    <message>
        <source>Each pin's colour as it comes, and as it goes now: change what it shall become</source>
        <translation>Die Farbe jeder Nadel, wie sie kommt und wie sie jetzt geht: ändern, was sie werden soll</translation>
    </message>
    <message>
        <source>Rows sum to 1</source>
        <translation>Zeilensumme 1</translation>
    </message>
    <message>
        <source>Greys stay grey, exactly</source>
        <translation>Grau bleibt grau, genau</translation>
    </message>
    <message>
        <source>Luminance is kept</source>
        <translation>Leuchtdichte bleibt</translation>
    </message>
    <message>
        <source>Of every colour, exactly, by the weights of the working space</source>
        <translation>Jeder Farbe, genau, nach den Gewichten des Arbeitsfarbraums</translation>
    </message>
    <message>
        <source>With an offset</source>
        <translation>Mit Versatz</translation>
    </message>
    <message>
        <source>Also a constant for each channel</source>
        <translation>Auch eine Konstante je Kanal</translation>
    </message>
    <message>
        <source>Write it into the rule</source>
        <translation>In die Regel schreiben</translation>
    </message>
    <message>
        <source>wish %1, %2 of the colour</source>
        <translation>Wunsch %1, %2 der Farbe</translation>
    </message>
    <message>
        <source>wish %1, %2 of what it shall become</source>
        <translation>Wunsch %1, %2 dessen, was sie werden soll</translation>
    </message>
    <message>
        <source>Remove wish %1</source>
        <translation>Wunsch %1 entfernen</translation>
    </message>
    <message>
        <source>met</source>
        <translation>erfüllt</translation>
    </message>
    <message>
        <source>missed by %1</source>
        <translation>verfehlt um %1</translation>
    </message>
    <message>
        <source>Nothing is wished: everything stays as it is.</source>
        <translation>Nichts ist gewünscht: alles bleibt, wie es ist.</translation>
    </message>
    <message>
        <source>root mean square %1, largest %2, determinant %3</source>
        <translation>Quadratisches Mittel %1, größter %2, Determinante %3</translation>
    </message>
    <message>
        <source>a matrix from wishes</source>
        <translation>eine Matrix aus Wünschen</translation>
    </message>
    <message>
        <source>%1 wishes are the most; take some away first.</source>
        <translation>Mehr als %1 Wünsche gehen nicht; erst welche wegnehmen.</translation>
    </message>
</context>
</TS>
