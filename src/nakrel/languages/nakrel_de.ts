<?xml version="1.0" encoding="utf-8"?>
<!DOCTYPE TS>
<TS version="2.1" language="de" sourcelanguage="en">
    <context>
        <name>Nakrel</name>
        <message>
            <location filename="backends/kernel/arrivals.py" />
            <source>another program has Nakrel's virtual device for itself, so that what is pressed there reaches that program alone; let it leave Nakrel's devices alone, or end it</source>
            <translation>ein anderes Programm hat Nakrels virtuelles Gerät für sich allein, so dass nur dieses Programm bekommt, was dort gedrückt wird; lass es Nakrels Geräte in Ruhe lassen oder beende es</translation>
        </message>
        <message>
            <location filename="backends/kernel/arrivals.py" />
            <source>another program has Nakrel's virtual device for itself, so that what is pressed there reaches that program alone; let it leave Nakrel's devices alone, or end it (it is open in {programs})</source>
            <translation>ein anderes Programm hat Nakrels virtuelles Gerät für sich allein, so dass nur dieses Programm bekommt, was dort gedrückt wird; lass es Nakrels Geräte in Ruhe lassen oder beende es (offen in {programs})</translation>
        </message>
        <message>
            <location filename="backends/kernel/asking.py" />
            <source>another program has it for itself; end that program</source>
            <translation>ein anderes Programm hat es für sich allein; beende dieses Programm</translation>
        </message>
        <message>
            <location filename="backends/kernel/asking.py" />
            <source>another program has it for itself; end that program (it is open in {programs})</source>
            <translation>ein anderes Programm hat es für sich allein; beende dieses Programm (offen in {programs})</translation>
        </message>
        <message>
            <location filename="backends/kernel/asking.py" />
            <source>it can't be captured: {reason}</source>
            <translation>es lässt sich nicht abfangen: {reason}</translation>
        </message>
        <message>
            <location filename="backends/kernel/asking.py" />
            <source>it can't be released: {reason}</source>
            <translation>es lässt sich nicht freigeben: {reason}</translation>
        </message>
        <message>
            <location filename="backends/kernel/backend.py" />
            <source>Esc was down at the start: no device is touched, and attached buttons do nothing special. To end that: nakrel shutdown</source>
            <translation>Beim Start war Esc gedrückt: Kein Gerät wird angefasst, und belegte Tasten tun nichts Besonderes. Das beendet: nakrel shutdown</translation>
        </message>
        <message>
            <location filename="backends/kernel/backend.py" />
            <source>Keys and buttons with something attached do only that.</source>
            <translation>Belegte Tasten tun nur, was auf ihnen liegt.</translation>
        </message>
        <message>
            <location filename="backends/kernel/backend.py" />
            <source>captured, other input passes through</source>
            <translation>abgefangen, andere Eingaben gehen durch</translation>
        </message>
        <message>
            <location filename="backends/kernel/backend.py" />
            <source>no permission to read the {refused} devices under /dev/input</source>
            <translation>keine Berechtigung, die {refused} Geräte unter /dev/input zu lesen</translation>
        </message>
        <message>
            <location filename="backends/kernel/backend.py" />
            <source>waits until its keys are released</source>
            <translation>wartet, bis seine Tasten losgelassen sind</translation>
        </message>
        <message>
            <location filename="backends/kernel/backend.py" />
            <source>watched</source>
            <translation>wird beobachtet</translation>
        </message>
        <message>
            <location filename="backends/kernel/backend.py" />
            <source>{node} can't be read any more ({reason}); plug it in again</source>
            <translation>{node} lässt sich nicht mehr lesen ({reason}); steck es neu ein</translation>
        </message>
        <message numerus="yes">
            <location filename="backends/kernel/backend.py" />
            <source>{n} bounces dropped</source>
            <translation>
                <numerusform>{n} Prellen verworfen</numerusform>
                <numerusform>{n} Prellen verworfen</numerusform>
            </translation>
        </message>
        <message>
            <location filename="backends/kernel/grabs.py" />
            <source>{node} can't be captured: {made}</source>
            <translation>{node} lässt sich nicht abfangen: {made}</translation>
        </message>
        <message>
            <location filename="backends/kernel/nodes.py" />
            <source>the kernel's uinput module isn't loaded</source>
            <translation>das Kernelmodul uinput ist nicht geladen</translation>
        </message>
        <message>
            <location filename="backends/kernel/nodes.py" />
            <source>the virtual device {name!r} is gone: {reason}</source>
            <translation>das virtuelle Gerät {name!r} ist weg: {reason}</translation>
        </message>
        <message>
            <location filename="backends/kernel/nodes.py" />
            <source>uinput refused the virtual device {name!r}: {reason}</source>
            <translation>uinput hat das virtuelle Gerät {name!r} abgelehnt: {reason}</translation>
        </message>
        <message>
            <location filename="backends/kernel/nodes.py" />
            <source>unnamed device</source>
            <translation>Gerät ohne Namen</translation>
        </message>
        <message>
            <location filename="backends/kernel/nodes.py" />
            <source>{uinput} can't be opened: {reason}</source>
            <translation>{uinput} lässt sich nicht öffnen: {reason}</translation>
        </message>
        <message>
            <location filename="backends/kernel/opening.py" />
            <source>no permission to read it; to get it: nakrel doctor --fix</source>
            <translation>keine Berechtigung zum Lesen; die gibt: nakrel doctor --fix</translation>
        </message>
        <message>
            <location filename="backends/kernel/opening.py" />
            <source>{path} can't be read ({reason}); plug the device in again</source>
            <translation>{path} lässt sich nicht lesen ({reason}); steck das Gerät neu ein</translation>
        </message>
        <message>
            <location filename="backends/kernel/output.py" />
            <source>a virtual mouse can't send {label} ({cannot}); let the macro press another button</source>
            <translation>eine virtuelle Maus kann {label} ({cannot}) nicht senden; lass das Makro eine andere Taste drücken</translation>
        </message>
        <message>
            <location filename="backends/layout.py" />
            <source>the X server</source>
            <translation>dem X-Server</translation>
        </message>
        <message>
            <location filename="backends/layout.py" />
            <source>the compositor</source>
            <translation>dem Compositor</translation>
        </message>
        <message>
            <location filename="backends/layout.py" />
            <source>the default</source>
            <translation>der Vorgabe</translation>
        </message>
        <message>
            <location filename="backends/layout.py" />
            <source>the desktop's settings (gsettings)</source>
            <translation>den Einstellungen des Desktops (gsettings)</translation>
        </message>
        <message>
            <location filename="backends/layout.py" />
            <source>the desktop's settings (kxkbrc)</source>
            <translation>den Einstellungen des Desktops (kxkbrc)</translation>
        </message>
        <message>
            <location filename="backends/layout.py" />
            <source>the settings</source>
            <translation>den Einstellungen</translation>
        </message>
        <message>
            <location filename="backends/notices.py" />
            <source>the bus has ended</source>
            <translation>der Bus ist beendet</translation>
        </message>
        <message>
            <location filename="backends/notices.py" />
            <source>the desktop doesn't answer</source>
            <translation>der Desktop antwortet nicht</translation>
        </message>
        <message>
            <location filename="backends/process_events.py" />
            <source>the kernel has no process events: {reason}</source>
            <translation>der Kernel hat keine Prozessereignisse: {reason}</translation>
        </message>
        <message>
            <location filename="backends/process_events.py" />
            <source>the kernel tells no process events: {reason}</source>
            <translation>der Kernel meldet keine Prozessereignisse: {reason}</translation>
        </message>
        <message>
            <location filename="backends/standin/devices.py" />
            <source>the simulated devices are gone: {reason}</source>
            <translation>die simulierten Geräte sind weg: {reason}</translation>
        </message>
        <message>
            <location filename="backends/standin/devices.py" />
            <source>there is no simulated device {device!r}</source>
            <translation>es gibt kein simuliertes Gerät {device!r}</translation>
        </message>
        <message>
            <location filename="backends/standin/devices.py" />
            <source>{name} has no key or button {control!r}</source>
            <translation>{name} hat keine Taste {control!r}</translation>
        </message>
        <message>
            <location filename="backends/standin/sink.py" />
            <source>Nothing reaches other windows: macros play to the simulated devices only.</source>
            <translation>Nichts erreicht andere Fenster: Makros spielen nur auf die simulierten Geräte.</translation>
        </message>
        <message>
            <location filename="backends/typist.py" />
            <source>libxkbcommon is missing, which knows the layouts; install libxkbcommon0</source>
            <translation>libxkbcommon fehlt, das die Belegungen kennt; installiere libxkbcommon0</translation>
        </message>
        <message>
            <location filename="backends/typist.py" />
            <source>there is no keyboard layout {shown!r} (from {source}); set another in the settings</source>
            <translation>es gibt keine Tastaturbelegung {shown!r} (aus {source}); stell in den Einstellungen eine andere ein</translation>
        </message>
        <message>
            <location filename="backends/wayland/kwin.py" />
            <source>the window manager is gone</source>
            <translation>der Fenstermanager ist weg</translation>
        </message>
        <message>
            <location filename="backends/wayland/kwin.py" />
            <source>this desktop doesn't tell programs which window is in front</source>
            <translation>dieser Desktop sagt Programmen nicht, welches Fenster im Vordergrund ist</translation>
        </message>
        <message>
            <location filename="backends/wayland/wire.py" />
            <source>it doesn't answer</source>
            <translation>er antwortet nicht</translation>
        </message>
        <message>
            <location filename="backends/wayland/wire.py" />
            <source>no Wayland compositor answers at {path}: {reason}</source>
            <translation>unter {path} antwortet kein Wayland-Compositor: {reason}</translation>
        </message>
        <message>
            <location filename="backends/wayland/wire.py" />
            <source>the Wayland compositor is gone</source>
            <translation>der Wayland-Compositor ist weg</translation>
        </message>
        <message>
            <location filename="backends/wayland/wire.py" />
            <source>the Wayland compositor is gone: {reason}</source>
            <translation>der Wayland-Compositor ist weg: {reason}</translation>
        </message>
        <message>
            <location filename="backends/wayland/wire.py" />
            <source>the Wayland compositor refused us: {read_text}</source>
            <translation>der Wayland-Compositor hat uns abgewiesen: {read_text}</translation>
        </message>
        <message>
            <location filename="backends/wayland/wire.py" />
            <source>the Wayland compositor sent what can't be read</source>
            <translation>der Wayland-Compositor hat etwas gesendet, das sich nicht lesen lässt</translation>
        </message>
        <message>
            <location filename="backends/x11/backend.py" />
            <source>Keys and buttons with something attached do only that; a wheel still scrolls, too.</source>
            <translation>Belegte Tasten tun nur, was auf ihnen liegt; ein Mausrad scrollt trotzdem.</translation>
        </message>
        <message>
            <location filename="backends/x11/backend.py" />
            <source>X11 can't send {label} ({cannot}): it has no number for that key. Let the macro press another one.</source>
            <translation>X11 kann {label} ({cannot}) nicht senden: Es hat keine Nummer für diese Taste. Lass das Makro eine andere drücken.</translation>
        </message>
        <message>
            <location filename="backends/x11/backend.py" />
            <source>X11 can't send {label} ({cannot}): its injection knows 10 buttons. Let the macro press another button.</source>
            <translation>X11 kann {label} ({cannot}) nicht senden: Es kennt dafür nur 10 Maustasten. Lass das Makro eine andere Taste drücken.</translation>
        </message>
        <message>
            <location filename="backends/x11/backend.py" />
            <source>the X server is gone</source>
            <translation>der X-Server ist weg</translation>
        </message>
        <message>
            <location filename="backends/x11/screens.py" />
            <source>the X server doesn't tell of its monitors: {reason}</source>
            <translation>der X-Server nennt seine Bildschirme nicht: {reason}</translation>
        </message>
        <message>
            <location filename="backends/x11/screens.py" />
            <source>the X server is gone: {reason}</source>
            <translation>der X-Server ist weg: {reason}</translation>
        </message>
        <message>
            <location filename="backends/x11/spare.py" />
            <source>no X server answers: {reason}</source>
            <translation>kein X-Server antwortet: {reason}</translation>
        </message>
        <message>
            <location filename="backends/x11/windows.py" />
            <source>no X server answers on {display}: {reason}</source>
            <translation>auf {display} antwortet kein X-Server: {reason}</translation>
        </message>
        <message>
            <location filename="backends/x11/wire.py" />
            <source>the X server is too old: it has no X Input 2.2</source>
            <translation>der X-Server ist zu alt: Er hat kein X Input 2.2</translation>
        </message>
        <message>
            <location filename="cli/bundles.py" />
            <source>Imported: {amounts}.</source>
            <translation>Importiert: {amounts}.</translation>
        </message>
        <message>
            <location filename="cli/bundles.py" />
            <source>Nothing imported; add --take.</source>
            <translation>Nichts importiert; füge --take hinzu.</translation>
        </message>
        <message>
            <location filename="cli/bundles.py" />
            <source>controls the desktop</source>
            <translation>steuert den Desktop</translation>
        </message>
        <message>
            <location filename="cli/bundles.py" />
            <source>exists already</source>
            <translation>schon vorhanden</translation>
        </message>
        <message>
            <location filename="cli/bundles.py" />
            <source>linked to</source>
            <translation>verknüpft mit</translation>
        </message>
        <message>
            <location filename="cli/bundles.py" />
            <source>macros</source>
            <translation>Makros</translation>
        </message>
        <message>
            <location filename="cli/bundles.py" />
            <source>opens (off until allowed)</source>
            <translation>öffnet (aus, bis es erlaubt ist)</translation>
        </message>
        <message>
            <location filename="cli/bundles.py" />
            <source>profiles</source>
            <translation>Profile</translation>
        </message>
        <message>
            <location filename="cli/bundles.py" />
            <source>runs until stopped</source>
            <translation>läuft, bis es gestoppt wird</translation>
        </message>
        <message>
            <location filename="cli/bundles.py" />
            <source>types</source>
            <comment>a text</comment>
            <translation>tippt</translation>
        </message>
        <message numerus="yes">
            <location filename="cli/bundles.py" />
            <source>{n} macros</source>
            <translation>
                <numerusform>{n} Makro</numerusform>
                <numerusform>{n} Makros</numerusform>
            </translation>
        </message>
        <message numerus="yes">
            <location filename="cli/bundles.py" />
            <source>{n} profiles</source>
            <translation>
                <numerusform>{n} Profil</numerusform>
                <numerusform>{n} Profile</numerusform>
            </translation>
        </message>
        <message>
            <location filename="cli/desktop.py" />
            <source>Delete them?</source>
            <translation>Löschen?</translation>
        </message>
        <message>
            <location filename="cli/desktop.py" />
            <source>It takes back the permissions for kernel input, too, which needs root.</source>
            <translation>Es nimmt auch die Berechtigungen für Kernel-Eingaben zurück; dafür braucht es root.</translation>
        </message>
        <message>
            <location filename="cli/desktop.py" />
            <source>Nakrel doesn't start when you log in.</source>
            <translation>Nakrel startet nicht bei der Anmeldung.</translation>
        </message>
        <message>
            <location filename="cli/desktop.py" />
            <source>Nakrel is in the menu now ({count} files).</source>
            <translation>Nakrel ist jetzt im Menü ({count} Dateien).</translation>
        </message>
        <message>
            <location filename="cli/desktop.py" />
            <source>Nakrel is out of the menu and doesn't start at login ({count} files).</source>
            <translation>Nakrel ist aus dem Menü genommen und startet nicht bei der Anmeldung ({count} Dateien).</translation>
        </message>
        <message>
            <location filename="cli/desktop.py" />
            <source>Nakrel starts when you log in, by a unit of your systemd.</source>
            <translation>Nakrel startet bei der Anmeldung, durch eine Unit deines systemd.</translation>
        </message>
        <message>
            <location filename="cli/desktop.py" />
            <source>Nakrel starts when you log in, by an entry of the desktop's autostart.</source>
            <translation>Nakrel startet bei der Anmeldung, durch einen Eintrag im Autostart des Desktops.</translation>
        </message>
        <message>
            <location filename="cli/desktop.py" />
            <source>Nakrel starts when you log in.</source>
            <translation>Nakrel startet bei der Anmeldung.</translation>
        </message>
        <message>
            <location filename="cli/desktop.py" />
            <source>Note: secrets may be left in the keyring: {reason}.</source>
            <translation>Hinweis: Im Schlüsselbund können Geheimnisse zurückgeblieben sein: {reason}.</translation>
        </message>
        <message>
            <location filename="cli/desktop.py" />
            <source>Note: {note}.</source>
            <translation>Hinweis: {note}.</translation>
        </message>
        <message>
            <location filename="cli/desktop.py" />
            <source>The permissions for kernel input stay. To take them back:  nakrel doctor --take-back</source>
            <translation>Die Berechtigungen für Kernel-Eingaben bleiben. Zurücknehmen:  nakrel doctor --take-back</translation>
        </message>
        <message>
            <location filename="cli/desktop.py" />
            <source>This deletes your profiles, macros, settings, journal and secrets for good:</source>
            <translation>Das löscht deine Profile, Makros, Einstellungen, das Protokoll und die Geheimnisse endgültig:</translation>
        </message>
        <message>
            <location filename="cli/desktop.py" />
            <source>To delete these as well:  nakrel uninstall --purge</source>
            <translation>Auch diese löschen:  nakrel uninstall --purge</translation>
        </message>
        <message>
            <location filename="cli/desktop.py" />
            <source>To take it back:  nakrel uninstall</source>
            <translation>Rückgängig machen:  nakrel uninstall</translation>
        </message>
        <message numerus="yes">
            <location filename="cli/desktop.py" />
            <source>Your profiles, macros and settings and {n} secrets are deleted.</source>
            <translation>
                <numerusform>Deine Profile, Makros und Einstellungen und {n} Geheimnis sind gelöscht.</numerusform>
                <numerusform>Deine Profile, Makros und Einstellungen und {n} Geheimnisse sind gelöscht.</numerusform>
            </translation>
        </message>
        <message>
            <location filename="cli/desktop.py" />
            <source>Your profiles, macros and settings are deleted.</source>
            <translation>Deine Profile, Makros und Einstellungen sind gelöscht.</translation>
        </message>
        <message>
            <location filename="cli/desktop.py" />
            <source>Your profiles, macros and settings stay, in {config} and {state}.</source>
            <translation>Deine Profile, Makros und Einstellungen bleiben, in {config} und {state}.</translation>
        </message>
        <message>
            <location filename="cli/doctor.py" />
            <source>Install it?</source>
            <translation>Installieren?</translation>
        </message>
        <message>
            <location filename="cli/doctor.py" />
            <source>Installed. To take it back:  nakrel doctor --take-back</source>
            <translation>Installiert. Zurücknehmen:  nakrel doctor --take-back</translation>
        </message>
        <message>
            <location filename="cli/doctor.py" />
            <source>It is run as root:</source>
            <translation>Als root wird ausgeführt:</translation>
        </message>
        <message>
            <location filename="cli/doctor.py" />
            <source>Nothing was changed.</source>
            <translation>Nichts wurde geändert.</translation>
        </message>
        <message>
            <location filename="cli/doctor.py" />
            <source>Remove it?</source>
            <translation>Entfernen?</translation>
        </message>
        <message>
            <location filename="cli/doctor.py" />
            <source>Removed. What has the devices open keeps them until you log out.</source>
            <translation>Entfernt. Was die Geräte offen hat, behält sie, bis du dich abmeldest.</translation>
        </message>
        <message>
            <location filename="cli/doctor.py" />
            <source>This gives the user at this machine access to its keyboards and mice, and to virtual ones, for good.
Every program of that user gets it, too: docs/permissions.md says what that means.</source>
            <translation>Das gibt dem Benutzer an diesem Rechner dauerhaft Zugriff auf dessen Tastaturen und Mäuse und auf virtuelle.
Jedes Programm dieses Benutzers bekommt ihn auch: docs/permissions.md sagt, was das heißt.</translation>
        </message>
        <message>
            <location filename="cli/doctor.py" />
            <source>This removes what `nakrel doctor --fix` installed: macros then reach what X11 lets them reach.</source>
            <translation>Das entfernt, was `nakrel doctor --fix` installiert hat: Makros erreichen dann, was X11 sie erreichen lässt.</translation>
        </message>
        <message>
            <location filename="cli/doctor.py" />
            <source>neither pkexec nor sudo is here; run the lines above as root</source>
            <translation>weder pkexec noch sudo ist hier; führe die Zeilen oben als root aus</translation>
        </message>
        <message>
            <location filename="cli/doctor.py" />
            <source>that failed (exit code {code}); what was said above tells why</source>
            <translation>das ist misslungen (Exit-Code {code}); warum, steht weiter oben</translation>
        </message>
        <message>
            <location filename="cli/doctor.py" />
            <source>what to do: {remedy}</source>
            <translation>was zu tun ist: {remedy}</translation>
        </message>
        <message>
            <location filename="cli/doctor.py" />
            <source>why it matters: {why}</source>
            <translation>warum es wichtig ist: {why}</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Allow steps that open this; the others stay off.</source>
            <translation>Schritte erlauben, die das öffnen; die anderen bleiben aus.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Begin a recording.</source>
            <translation>Eine Aufzeichnung beginnen.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>COMMAND</source>
            <comment>value</comment>
            <translation>BEFEHL</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Characters a second.</source>
            <translation>Zeichen in der Sekunde.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>DIR</source>
            <comment>value</comment>
            <translation>ORDNER</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>End MACRO, or without a name stop everything.</source>
            <translation>MAKRO beenden, oder ohne Namen alles stoppen.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>End the service that runs.</source>
            <translation>Den Dienst beenden, der läuft.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>End with this login session; one of an earlier session makes room.</source>
            <translation>Mit dieser Sitzung enden; einer aus einer früheren Sitzung macht Platz.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Everything is stopped.</source>
            <translation>Alles ist gestoppt.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Examine what stands between your fingers and the programs, and say what to do about it.</source>
            <translation>Prüfen, was zwischen deinen Fingern und den Programmen steht, und sagen, was zu tun ist.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>FILE</source>
            <comment>value</comment>
            <translation>DATEI</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>FILES</source>
            <comment>value</comment>
            <translation>DATEIEN</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Fill an empty home with the demo's data first.</source>
            <translation>Einen leeren Ordner zuerst mit den Daten der Demo füllen.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Frames a second.</source>
            <translation>Frames in der Sekunde.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Give the pointer the live profile's speed STAGE; without a name tell which there are.</source>
            <translation>Dem Zeiger das TEMPO des aktiven Profils geben; ohne Namen sagen, welche es gibt.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>How much the frame times vary, as their 1 % low rate instead.</source>
            <translation>Wie sehr die Framezeiten schwanken, stattdessen als Framerate der langsamsten 1 %.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>How much the frame times vary: their standard deviation.</source>
            <translation>Wie sehr die Framezeiten schwanken: ihre Standardabweichung.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>How much the macro's own timing varies.</source>
            <translation>Wie sehr das Timing des Makros selbst schwankt.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>How programs are reached.</source>
            <translation>Auf welchem Weg Programme erreicht werden.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>If it exists already.</source>
            <translation>Wenn es schon vorhanden ist.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Import it; without this only what is inside is shown.</source>
            <translation>Importieren; ohne das wird nur gezeigt, was darin ist.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Keep PROFILE live until `unpin`; without a name the one that is.</source>
            <translation>PROFIL bis `unpin` aktiv halten; ohne Namen das, das es ist.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Keep everything in this folder instead of the XDG folders.</source>
            <translation>Alles in diesem Ordner halten statt in den XDG-Ordnern.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Let its profiles go live with their programs; without it they wait.</source>
            <translation>Seine Profile mit ihren Programmen aktiv werden lassen; ohne das warten sie.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Let the service start when you log in, or not; without a word say which.</source>
            <translation>Den Dienst bei der Anmeldung starten lassen oder nicht; ohne Angabe sagen, was gilt.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>List the macros.</source>
            <translation>Die Makros auflisten.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>List the names of keys and buttons, with their codes; with PART those that have it in them.</source>
            <translation>Die Namen der Tasten mit ihren Codes auflisten; mit TEIL die, in denen er vorkommt.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>List the profiles.</source>
            <translation>Die Profile auflisten.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Load with games again: profiles go live when their game starts.</source>
            <translation>Wieder mit Spielen laden: Profile werden aktiv, wenn ihr Spiel startet.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>MACRO</source>
            <comment>value</comment>
            <translation>MAKRO</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>MS</source>
            <comment>value</comment>
            <translation>MS</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Make a macro of a RECORDING by evemu-record or libinput record, or of a table of events.</source>
            <translation>Aus einer AUFZEICHNUNG von evemu-record oder libinput record, oder aus einer Ereignistabelle, ein Makro machen.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>N</source>
            <comment>value</comment>
            <translation>N</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>NAME</source>
            <comment>value</comment>
            <translation>NAME</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>No effect yet: this needs kernel input (see `nakrel doctor`).</source>
            <translation>Noch ohne Wirkung: Das braucht Kernel-Eingaben (siehe `nakrel doctor`).</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>No service runs, and so no macro does.</source>
            <translation>Es läuft kein Dienst, also auch kein Makro.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>No service runs.</source>
            <translation>Es läuft kein Dienst.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Of this profile; default: the live one.</source>
            <translation>Von diesem Profil; Vorgabe: das aktive.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Open the window, and look through profile FILES; one that is open already comes to the front.</source>
            <translation>Das Fenster öffnen und Profil-DATEIEN durchsehen; eines, das schon offen ist, kommt nach vorn.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>PART</source>
            <comment>value</comment>
            <translation>TEIL</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>PROFILE</source>
            <comment>value</comment>
            <translation>PROFIL</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>PROFILES</source>
            <comment>value</comment>
            <translation>PROFILE</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Play MACRO now; a Toggle goes on until `stop`, one that plays while held plays one run.</source>
            <translation>MAKRO jetzt spielen; eines mit An/Aus läuft bis `stop`, eines mit Halten spielt einen Durchlauf.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Play so many runs.</source>
            <translation>So viele Durchläufe spielen.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Print JSON.</source>
            <translation>JSON ausgeben.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Print what MACRO will emit, as CSV: time_us, control, value (1 down, 0 up, or notches), words.</source>
            <translation>Als CSV ausgeben, was MAKRO senden wird: time_us, control, value (1 gedrückt, 0 losgelassen, oder Rasten), words.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Profile whose game keys count.</source>
            <translation>Das Profil, dessen Spieltasten gelten.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Profiles go live with their games again.</source>
            <translation>Profile werden wieder mit ihren Spielen aktiv.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Put Nakrel into the desktop's menu and its commands into the search path, for you alone.</source>
            <translation>Nakrel ins Menü des Desktops und seine Befehle in den Suchpfad legen, für dich allein.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>RATE</source>
            <comment>value</comment>
            <translation>RATE</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>RECORDING</source>
            <comment>value</comment>
            <translation>AUFZEICHNUNG</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Random seed.</source>
            <translation>Startwert des Zufalls.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Record, time and attach macros, per game. Without a command, open the window.</source>
            <translation>Makros aufzeichnen, timen und belegen, je Spiel. Ohne Befehl öffnet sich das Fenster.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Run the service here, until it is told to end.</source>
            <translation>Den Dienst hier laufen lassen, bis er enden soll.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>STAGE</source>
            <comment>value</comment>
            <translation>TEMPO</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Say how many presses of MACRO a game sees that looks at its input once a frame.</source>
            <translation>Sagen, wie viele Tastendrücke von MAKRO ein Spiel sieht, das einmal je Frame auf seine Eingaben schaut.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Say whether what the macro on trial just did worked in the game; see Tune on the macro's page.</source>
            <translation>Sagen, ob im Spiel geklappt hat, was das erprobte Makro gerade tat; siehe Abstimmen auf der Seite des Makros.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Say which profile is live, why, and what runs.</source>
            <translation>Sagen, welches Profil aktiv ist, warum, und was läuft.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Show the version and exit.</source>
            <translation>Die Version zeigen und enden.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Show, then install what gives you access to the devices.</source>
            <translation>Zeigen, dann installieren, was dir Zugriff auf die Geräte gibt.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Show, then remove what --fix installed.</source>
            <translation>Zeigen, dann entfernen, was --fix installiert hat.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Switch to the variant NAME; without a name list them.</source>
            <translation>Zur Variante NAME wechseln; ohne Namen alle auflisten.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>TEXT</source>
            <comment>value</comment>
            <translation>TEXT</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Take Nakrel out of the menu and the search path, and end its service; your macros stay.</source>
            <translation>Nakrel aus Menü und Suchpfad nehmen und seinen Dienst beenden; deine Makros bleiben.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Take away your profiles, macros, settings and secrets, too.</source>
            <translation>Auch deine Profile, Makros, Einstellungen und Geheimnisse löschen.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Tell what is inside a bundle FILE, and with --take bring it in.</source>
            <translation>Sagen, was in einer Profil-DATEI ist, und sie mit --take importieren.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>The file.</source>
            <translation>Die Datei.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>The file; default: standard output.</source>
            <translation>Die Datei; Vorgabe: Standardausgabe.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>The format.</source>
            <translation>Das Format.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>The game takes its events in order, without frames.</source>
            <translation>Das Spiel nimmt seine Ereignisse der Reihe nach, ohne Frames.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>The macro's name; default: the file's.</source>
            <translation>Der Name des Makros; Vorgabe: der der Datei.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>The next one; wraps around.</source>
            <translation>Die nächste; nach der letzten die erste.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>The one before.</source>
            <translation>Die vorige.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>The pointer's speed is {name}.</source>
            <translation>Das Zeigertempo ist {name}.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>The service has ended; all macros were ended with it.</source>
            <translation>Der Dienst ist beendet, und alle Makros mit ihm.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>The ticks a second of its server.</source>
            <translation>Die Ticks seines Servers in der Sekunde.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Type TEXT into the window in front, right for the keyboard layout in use; - reads it from the input.</source>
            <translation>TEXT ins Fenster im Vordergrund tippen, richtig für die benutzte Tastaturbelegung; - liest ihn von der Eingabe.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>With --fix or --take-back: don't ask.</source>
            <translation>Mit --fix oder --take-back: nicht fragen.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>With --purge: don't ask.</source>
            <translation>Mit --purge: nicht fragen.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Write PROFILES with all their macros to one file that can be shared.</source>
            <translation>PROFILE mit all ihren Makros in eine Datei schreiben, die man weitergeben kann.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Write what MACRO plays for other tools: a waveform viewer, a table, evemu-play or libinput replay.</source>
            <translation>Für andere Werkzeuge schreiben, was MAKRO spielt: für einen Waveform-Viewer, als Tabelle, für evemu-play oder libinput replay.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>Write what the last run of MACRO really sent, and when, beside what was planned.</source>
            <translation>Schreiben, was der letzte Durchlauf von MAKRO wirklich gesendet hat und wann, neben dem, was geplant war.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>[COMMAND] [ARGS]...</source>
            <comment>value</comment>
            <translation>[BEFEHL] [ARGUMENTE]...</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>[OPTIONS]</source>
            <comment>value</comment>
            <translation>[OPTIONEN]</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>no key or button has {part!r} in its name; `nakrel controls` lists all</source>
            <translation>keine Taste hat {part!r} im Namen; `nakrel controls` listet alle auf</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>running: {name}</source>
            <translation>läuft: {name}</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>{name} doesn't run.</source>
            <translation>{name} läuft nicht.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>{name} is ended.</source>
            <translation>{name} ist beendet.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>{name} is live, and stays so.</source>
            <translation>{name} ist aktiv und bleibt es.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>{name} is live: {reason}</source>
            <translation>{name} ist aktiv: {reason}</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>{name} plays.</source>
            <translation>{name} spielt.</translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>{name}: {across} % horizontal, {down} % vertical</source>
            <translation>{name}: {across} % waagrecht, {down} % senkrecht</translation>
        </message>
        <message numerus="yes">
            <location filename="cli/main.py" />
            <source>{n} steps</source>
            <translation>
                <numerusform>{n} Schritt</numerusform>
                <numerusform>{n} Schritte</numerusform>
            </translation>
        </message>
        <message>
            <location filename="cli/main.py" />
            <source>{profile} plays as {setup}</source>
            <translation>{profile} spielt als {setup}</translation>
        </message>
        <message>
            <location filename="cli/plans.py" />
            <source>Worst of {button}: step {step}, {seen}</source>
            <translation>Am schlechtesten bei {button}: Schritt {step}, {seen}</translation>
        </message>
        <message numerus="yes">
            <location filename="cli/plans.py" />
            <source>{name} ends early, after {n} complete runs: {reason}</source>
            <translation>
                <numerusform>{name} endet vorzeitig, nach {n} vollen Durchlauf: {reason}</numerusform>
                <numerusform>{name} endet vorzeitig, nach {n} vollen Durchläufen: {reason}</numerusform>
            </translation>
        </message>
        <message>
            <location filename="cli/plans.py" />
            <source>{name} hasn't run since the service started; play it first</source>
            <translation>{name} ist seit dem Start des Dienstes nicht gelaufen; spiel es erst ab</translation>
        </message>
        <message>
            <location filename="cli/session.py" />
            <source>there is no macro yet</source>
            <translation>es gibt noch kein Makro</translation>
        </message>
        <message>
            <location filename="cli/session.py" />
            <source>there is no macro {name!r}; nakrel macros lists them. Nearest to it: {names}</source>
            <translation>es gibt kein Makro {name!r}; nakrel macros listet sie. Am nächsten kommen: {names}</translation>
        </message>
        <message>
            <location filename="cli/session.py" />
            <source>there is no macro {name!r}; there are: {names}</source>
            <translation>es gibt kein Makro {name!r}; es gibt: {names}</translation>
        </message>
        <message>
            <location filename="cli/session.py" />
            <source>there is no profile yet</source>
            <translation>es gibt noch kein Profil</translation>
        </message>
        <message>
            <location filename="cli/session.py" />
            <source>there is no profile {name!r}; nakrel profiles lists them. Nearest to it: {names}</source>
            <translation>es gibt kein Profil {name!r}; nakrel profiles listet sie. Am nächsten kommen: {names}</translation>
        </message>
        <message>
            <location filename="cli/session.py" />
            <source>there is no profile {name!r}; there are: {names}</source>
            <translation>es gibt kein Profil {name!r}; es gibt: {names}</translation>
        </message>
        <message>
            <location filename="cli/session.py" />
            <source>{count} macros are called {name!r}; name one by its id: {ids}</source>
            <translation>{count} Makros heißen {name!r}; nenne eines mit seiner Kennung: {ids}</translation>
        </message>
        <message>
            <location filename="cli/session.py" />
            <source>{count} profiles are called {name!r}; name one by its id: {ids}</source>
            <translation>{count} Profile heißen {name!r}; nenne eines mit seiner Kennung: {ids}</translation>
        </message>
        <message>
            <location filename="cli/session.py" />
            <source>{macro} names game keys ({keys}); say whose with --profile</source>
            <translation>{macro} nennt Spieltasten ({keys}); sag mit --profile, von welchem Profil</translation>
        </message>
        <message>
            <location filename="cli/session.py" />
            <source>{path} is a file; --home takes a folder</source>
            <translation>{path} ist eine Datei; --home braucht einen Ordner</translation>
        </message>
        <message>
            <location filename="cli/window.py" />
            <source>Nakrel is open already; its window comes to the front.</source>
            <translation>Nakrel ist schon offen; sein Fenster kommt nach vorn.</translation>
        </message>
        <message>
            <location filename="cli/window.py" />
            <source>no display answers at {session}; start it in a desktop session</source>
            <translation>unter {session} antwortet kein Display; starte es in einer Desktop-Sitzung</translation>
        </message>
        <message>
            <location filename="cli/window.py" />
            <source>there is no display here: neither DISPLAY nor WAYLAND_DISPLAY is set; start it in a desktop session</source>
            <translation>hier ist kein Display: Weder DISPLAY noch WAYLAND_DISPLAY ist gesetzt; starte es in einer Desktop-Sitzung</translation>
        </message>
        <message>
            <location filename="client/connection.py" />
            <source>The service answered what nobody asked: {what}.</source>
            <translation>Der Dienst hat geantwortet, was niemand gefragt hat: {what}.</translation>
        </message>
        <message>
            <location filename="client/connection.py" />
            <source>The service said something that can't be read: {reason}.</source>
            <translation>Der Dienst hat etwas gesagt, das sich nicht lesen lässt: {reason}.</translation>
        </message>
        <message>
            <location filename="client/connection.py" />
            <source>no service answers at {path}: {reason}</source>
            <translation>unter {path} antwortet kein Dienst: {reason}</translation>
        </message>
        <message>
            <location filename="client/connection.py" />
            <source>the service did not answer within {limit_s} s</source>
            <translation>der Dienst hat nicht innerhalb von {limit_s} s geantwortet</translation>
        </message>
        <message>
            <location filename="client/connection.py" />
            <source>the service has ended</source>
            <translation>der Dienst ist beendet</translation>
        </message>
        <message>
            <location filename="client/connection.py" />
            <source>the service is gone: {reason}</source>
            <translation>der Dienst ist weg: {reason}</translation>
        </message>
        <message>
            <location filename="client/connection.py" />
            <source>the service's answer can't be read: {reason}</source>
            <translation>die Antwort des Dienstes lässt sich nicht lesen: {reason}</translation>
        </message>
        <message>
            <location filename="client/connection.py" />
            <source>what answers at {path} is another user's, so nothing is sent to it; remove that file</source>
            <translation>was unter {path} antwortet, gehört einem anderen Benutzer; deshalb wird nichts dorthin gesendet; entferne diese Datei</translation>
        </message>
        <message>
            <location filename="client/launch.py" />
            <source>the service did not answer within {start_limit_s} s of its start; see its log</source>
            <translation>der Dienst hat nicht innerhalb von {start_limit_s} s nach seinem Start geantwortet; sieh in seiner Logdatei nach</translation>
        </message>
        <message>
            <location filename="client/launch.py" />
            <source>the service ended as it started (exit code {code}); see its log</source>
            <translation>der Dienst endete beim Start (Exit-Code {code}); sieh in seiner Logdatei nach</translation>
        </message>
        <message>
            <location filename="command_help.py" />
            <source>{value!r} is no number from {least} to {most}</source>
            <translation>{value!r} ist keine Zahl von {least} bis {most}</translation>
        </message>
        <message>
            <location filename="core/analysis/aligned.py" />
            <source>take {take} has {events} events; takes of up to {most} can be compared</source>
            <translation>Aufnahme {take} hat {events} Ereignisse; vergleichen lassen sich Aufnahmen mit bis zu {most}</translation>
        </message>
        <message>
            <location filename="core/analysis/aligned.py" />
            <source>there are fewer than two takes with presses in them; record the same thing once more</source>
            <translation>es gibt weniger als zwei Aufnahmen mit Tastendrücken; zeichne dasselbe noch einmal auf</translation>
        </message>
        <message>
            <location filename="core/analysis/aligned.py" />
            <source>{found} is there as well</source>
            <translation>{found} ist zusätzlich da</translation>
        </message>
        <message>
            <location filename="core/analysis/aligned.py" />
            <source>{wanted} comes earlier</source>
            <translation>{wanted} kommt früher</translation>
        </message>
        <message>
            <location filename="core/analysis/aligned.py" />
            <source>{wanted} comes later</source>
            <translation>{wanted} kommt später</translation>
        </message>
        <message>
            <location filename="core/analysis/aligned.py" />
            <source>{wanted} is missing</source>
            <translation>{wanted} fehlt</translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>1 in {many}</source>
            <translation>1 von {many}</translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>A game at {fps} frames and {ticks} ticks sees {share} of the presses, {rate}</source>
            <translation>Ein Spiel mit {fps} Frames und {ticks} Ticks sieht {share} der Tastendrücke, {rate}</translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>A game at {fps} frames sees {share} of the presses, {rate}</source>
            <translation>Ein Spiel mit {fps} Frames sieht {share} der Tastendrücke, {rate}</translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>A game that takes events in order sees all of the presses, {rate}.</source>
            <translation>Ein Spiel, das Ereignisse der Reihe nach nimmt, sieht alle Tastendrücke, {rate}.</translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>Fastest safe timing: {least} ms down, {least} ms up for each key.</source>
            <translation>Schnellstes sicheres Timing: {least} ms gedrückt, {least} ms losgelassen, für jede Taste.</translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>Fastest safe timing: {least} ms down, {least} ms up for each key. The macro has too many steps for the waits that this needs.</source>
            <translation>Schnellstes sicheres Timing: {least} ms gedrückt, {least} ms losgelassen, für jede Taste. Das Makro hat zu viele Schritte für die Wartezeiten, die das braucht.</translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>Fastest safe timing: {least} ms down, {least} ms up for each key; this macro then plays {runs}, instead of {before} ms.</source>
            <translation>Schnellstes sicheres Timing: {least} ms gedrückt, {least} ms losgelassen, für jede Taste; dieses Makro spielt dann {runs}, statt alle {before} ms.</translation>
        </message>
        <message numerus="yes">
            <location filename="core/analysis/frame_answer.py" />
            <source>Its last {n} runs weren't examined: it has too many presses.</source>
            <translation>
                <numerusform>Sein letzter Durchlauf wurde nicht geprüft: Es hat zu viele Tastendrücke.</numerusform>
                <numerusform>Seine letzten {n} Durchläufe wurden nicht geprüft: Es hat zu viele Tastendrücke.</numerusform>
            </translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>No press is missed.</source>
            <translation>Kein Tastendruck geht verloren.</translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>There is no press in it that a game could see.</source>
            <translation>Es ist kein Tastendruck darin, den ein Spiel sehen könnte.</translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>What it types isn't counted.</source>
            <translation>Was es tippt, ist nicht mitgezählt.</translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>all</source>
            <comment>presses</comment>
            <translation>alle</translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>all but {share}</source>
            <translation>alle bis auf {share}</translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>{first} and {second} (step {step}) go down in the same frame in {share} of the plays: such a game can't tell which was first.</source>
            <translation>{first} und {second} (Schritt {step}) gehen in {share} der Fälle im selben Frame hinunter: Ein solches Spiel kann nicht sagen, was zuerst war.</translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>{number} a minute</source>
            <translation>{number} in der Minute</translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>{number} a second</source>
            <translation>{number} in der Sekunde</translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>{number} an hour</source>
            <translation>{number} in der Stunde</translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>{share} are lost</source>
            <translation>{share} gehen verloren</translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>{share} are merged with the one before</source>
            <translation>{share} verschmelzen mit dem davor</translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>{share} missed</source>
            <translation>{share} verpasst</translation>
        </message>
        <message>
            <location filename="core/analysis/frame_answer.py" />
            <source>{share} seen</source>
            <translation>{share} gesehen</translation>
        </message>
        <message>
            <location filename="core/analysis/polling.py" />
            <source>all reports have the same time, so nothing can be told of their rate</source>
            <translation>alle Meldungen haben dieselbe Zeit, also lässt sich über ihre Rate nichts sagen</translation>
        </message>
        <message>
            <location filename="core/analysis/polling.py" />
            <source>only {moving} reports came one after the other; move the mouse in circles all the time</source>
            <translation>nur {moving} Meldungen kamen hintereinander; beweg die Maus die ganze Zeit im Kreis</translation>
        </message>
        <message>
            <location filename="core/analysis/takes.py" />
            <source>press {control}</source>
            <translation>{control} drücken</translation>
        </message>
        <message>
            <location filename="core/analysis/takes.py" />
            <source>release {control}</source>
            <translation>{control} loslassen</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>a text is typed at 1 to {most} characters a second</source>
            <translation>ein Text wird mit 1 bis {most} Zeichen in der Sekunde getippt</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>at</source>
            <comment>builder</comment>
            <translation>mit</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>click after</source>
            <comment>builder</comment>
            <translation>Klick nach</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>click sequence</source>
            <comment>builder</comment>
            <translation>Klickfolge</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>combination</source>
            <comment>builder</comment>
            <translation>Kombination</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>every</source>
            <comment>builder</comment>
            <translation>alle</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>held</source>
            <comment>builder</comment>
            <translation>gehalten</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>hold until pressed again</source>
            <comment>builder</comment>
            <translation>halten bis zum nächsten Druck</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>keys in a row</source>
            <comment>builder</comment>
            <translation>Tasten der Reihe nach</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>rapid fire</source>
            <comment>builder</comment>
            <translation>Dauerfeuer</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>rhythm</source>
            <comment>builder</comment>
            <translation>Rhythmus</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>text</source>
            <comment>builder</comment>
            <translation>Text</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>that is faster than 500 a second, which is the fastest there is</source>
            <translation>das ist schneller als 500 in der Sekunde, und schneller geht es nicht</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>then wait</source>
            <comment>builder</comment>
            <translation>dann warten</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>this takes one key or button</source>
            <translation>das nimmt eine Taste</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>this takes {most} keys and buttons at most</source>
            <translation>das nimmt höchstens {most} Tasten</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>which key or button? Write its name, or press it</source>
            <translation>welche Taste? Schreib ihren Namen oder drück sie</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>which places? Pick them on the screen</source>
            <translation>welche Stellen? Wähl sie auf dem Bildschirm</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>which text? Write it in the field</source>
            <translation>welcher Text? Schreib ihn ins Feld</translation>
        </message>
        <message>
            <location filename="core/edit/builders.py" />
            <source>with waits of</source>
            <comment>builder</comment>
            <translation>mit Wartezeiten von</translation>
        </message>
        <message>
            <location filename="core/edit/bundle.py" />
            <source>Alt + F2</source>
            <translation>Alt + F2</translation>
        </message>
        <message>
            <location filename="core/edit/bundle.py" />
            <source>Ctrl + Alt and another key</source>
            <translation>Strg + Alt und eine weitere Taste</translation>
        </message>
        <message>
            <location filename="core/edit/bundle.py" />
            <source>plays up to {runs} times</source>
            <translation>spielt bis zu {runs}-mal</translation>
        </message>
        <message>
            <location filename="core/edit/bundle.py" />
            <source>plays {runs} times</source>
            <translation>spielt {runs}-mal</translation>
        </message>
        <message>
            <location filename="core/edit/bundle.py" />
            <source>presses {keys}</source>
            <translation>drückt {keys}</translation>
        </message>
        <message>
            <location filename="core/edit/bundle.py" />
            <source>runs until it is stopped</source>
            <translation>läuft, bis es gestoppt wird</translation>
        </message>
        <message>
            <location filename="core/edit/bundle.py" />
            <source>the Super key</source>
            <translation>die Super-Taste</translation>
        </message>
        <message>
            <location filename="core/edit/bundle.py" />
            <source>the secret {name}</source>
            <translation>das Geheimnis {name}</translation>
        </message>
        <message>
            <location filename="core/edit/bundle.py" />
            <source>{button} in {profile}</source>
            <translation>{button} in {profile}</translation>
        </message>
        <message>
            <location filename="core/edit/bundle.py" />
            <source>{name}, off</source>
            <translation>{name}, aus</translation>
        </message>
        <message>
            <location filename="core/edit/bundle.py" />
            <source>{rule} (it runs nearly all the time, and the profile would be live as long)</source>
            <translation>{rule} (es läuft fast immer, und so lange wäre das Profil aktiv)</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>Every option has the weight 0, so none can be chosen.</source>
            <translation>Jede Möglichkeit hat das Gewicht 0, also kann keine gewählt werden.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>In {profile}: {message}</source>
            <translation>In {profile}: {message}</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>It can't be computed: {reason}. The macro ends here.</source>
            <translation>Das lässt sich nicht berechnen: {reason}. Das Makro endet hier.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>It has one option only, so nothing is random.</source>
            <translation>Es gibt nur eine Möglichkeit, also ist nichts zufällig.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>It is held for {hold} ms only: many games miss that.</source>
            <translation>Nur {hold} ms gehalten: Viele Spiele sehen das nicht.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>It is not held at all: many games miss that.</source>
            <translation>Gar nicht gehalten: Viele Spiele sehen das nicht.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>It opens a program again and again until it is stopped. Give it a limit.</source>
            <translation>Es öffnet immer wieder ein Programm, bis es gestoppt wird. Gib ihm eine Grenze.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>It opens more than {most} programs a second; the others aren't opened.</source>
            <translation>Es öffnet mehr als {most} Programme in der Sekunde; die übrigen werden nicht geöffnet.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>It presses {named_so}, which plays {other}, and that presses {control} again. Only fingers start macros, so they don't go round; attach one to another button to keep them apart.</source>
            <translation>Es drückt {named_so}, das {other} spielt, und das drückt wieder {control}. Nur Finger starten Makros, also dreht sich nichts im Kreis; leg eines auf eine andere Taste, um sie zu trennen.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>It types a text again and again until it is stopped. Give it a limit.</source>
            <translation>Es tippt immer wieder einen Text, bis es gestoppt wird. Gib ihm eine Grenze.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>Nothing is inside.</source>
            <translation>Es ist nichts darin.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>Nothing sets {name!r}, so it is 0; there are {names}.</source>
            <translation>Nichts setzt {name!r}, also ist es 0; es gibt {names}.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>The loop has no time in it: it runs a thousand times a second. Give it a pause or a wait.</source>
            <translation>Die Schleife enthält keine Zeit: Sie läuft tausendmal in der Sekunde. Gib ihr eine Pause oder eine Wartezeit.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>There is no text to type.</source>
            <translation>Es gibt keinen Text zu tippen.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>There is nothing in the loop to repeat.</source>
            <translation>In der Schleife ist nichts zu wiederholen.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>There is nothing inside to repeat.</source>
            <translation>Es ist nichts zu wiederholen darin.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>This wait takes no time.</source>
            <translation>Diese Wartezeit dauert nicht.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>{code} starts {other} in {profile}, which presses {back}, which starts this one. Only fingers start macros, so they don't go round; attach one elsewhere to keep them apart.</source>
            <translation>{code} startet {other} in {profile}, das drückt {back}, und das startet dieses hier. Nur Finger starten Makros, also dreht sich nichts im Kreis; leg eines woandershin, um sie zu trennen.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>{control} is down already: this press does nothing.</source>
            <translation>{control} ist schon gedrückt: Dieser Druck tut nichts.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>{control} is down already: this tap releases it.</source>
            <translation>{control} ist schon gedrückt: Dieses Antippen lässt es los.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>{control} is held until the macro ends. If that is meant, release it in the end section, where it can be seen.</source>
            <translation>{control} wird gehalten, bis das Makro endet. Wenn das so sein soll, lass es im Abschnitt Ende los, wo man es sieht.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>{control} is never released here; that happens only when the macro ends.</source>
            <translation>{control} wird hier nie losgelassen; das geschieht erst, wenn das Makro endet.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>{control} is released, but nothing before it presses it.</source>
            <translation>{control} wird losgelassen, aber nichts davor drückt es.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>{own} starts this macro itself. Only your finger starts it, not its own press.</source>
            <translation>{own} startet selbst dieses Makro. Nur dein Finger startet es, nicht sein eigener Druck.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>{profile} has no game key {code}, so the macro can't play there.</source>
            <translation>{profile} hat keine Spieltaste {code}, also kann das Makro dort nicht spielen.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>{x}, {y} lies outside the screen of {width} x {height} pixels.</source>
            <translation>{x}, {y} liegt außerhalb des Bildschirms von {width} x {height} Pixeln.</translation>
        </message>
        <message>
            <location filename="core/edit/checks.py" />
            <source>{x}, {y} lies outside the window of {width} x {height} pixels.</source>
            <translation>{x}, {y} liegt außerhalb des Fensters von {width} x {height} Pixeln.</translation>
        </message>
        <message>
            <location filename="core/edit/gaps.py" />
            <source>Each run presses {control} at once after its release in the run before: many games take both for one press. Give it a pause.</source>
            <translation>Jeder Durchlauf drückt {control} sofort nach dem Loslassen im Durchlauf davor: Viele Spiele halten beides für einen Druck. Gib ihm eine Pause.</translation>
        </message>
        <message>
            <location filename="core/edit/gaps.py" />
            <source>Each run presses {control} only {gap} ms after its release in the run before: many games take both for one press. Give it a pause.</source>
            <translation>Jeder Durchlauf drückt {control} nur {gap} ms nach dem Loslassen im Durchlauf davor: Viele Spiele halten beides für einen Druck. Gib ihm eine Pause.</translation>
        </message>
        <message>
            <location filename="core/edit/gaps.py" />
            <source>It repeats so often that only the beginning of that is drawn and checked; all of it is played.</source>
            <translation>Es wiederholt sich so oft, dass nur der Anfang davon gezeichnet und geprüft wird; gespielt wird alles.</translation>
        </message>
        <message>
            <location filename="core/edit/gaps.py" />
            <source>{control} goes down at once after its release: many games take both for one press.</source>
            <translation>{control} geht sofort nach dem Loslassen wieder hinunter: Viele Spiele halten beides für einen Druck.</translation>
        </message>
        <message>
            <location filename="core/edit/gaps.py" />
            <source>{control} goes down only {gap} ms after its release: many games take both for one press.</source>
            <translation>{control} geht nur {gap} ms nach dem Loslassen wieder hinunter: Viele Spiele halten beides für einen Druck.</translation>
        </message>
        <message>
            <location filename="core/edit/gaps.py" />
            <source>{control} is pressed at the time of the press before: under X11, desktops that look at each click first lose some of those. {enough} ms from press to press are enough.</source>
            <translation>{control} wird gleichzeitig mit dem Druck davor gedrückt: Unter X11 verlieren Desktops, die jeden Klick erst selbst ansehen, manche davon. {enough} ms von Druck zu Druck genügen.</translation>
        </message>
        <message>
            <location filename="core/edit/gaps.py" />
            <source>{control} is pressed {apart} ms after the press before: under X11, desktops that look at each click first lose some of those. {enough} ms from press to press are enough.</source>
            <translation>{control} wird {apart} ms nach dem Druck davor gedrückt: Unter X11 verlieren Desktops, die jeden Klick erst selbst ansehen, manche davon. {enough} ms von Druck zu Druck genügen.</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>Combinations</source>
            <comment>heading</comment>
            <translation>Kombinationen</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>Keys and buttons</source>
            <comment>heading</comment>
            <translation>Tasten</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>Layers</source>
            <comment>heading</comment>
            <translation>Ebenen</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>Macros</source>
            <comment>heading</comment>
            <translation>Makros</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>New</source>
            <comment>heading</comment>
            <translation>Neu</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>Or</source>
            <comment>heading</comment>
            <translation>Oder</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>Pointer speeds</source>
            <comment>heading</comment>
            <translation>Zeigertempo</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>Programs</source>
            <comment>heading</comment>
            <translation>Programme</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>System and media</source>
            <comment>heading</comment>
            <translation>System und Medien</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>Text</source>
            <comment>heading</comment>
            <translation>Text</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>Variants and profiles</source>
            <comment>heading</comment>
            <translation>Varianten und Profile</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>a + joins two keys; write one on each side of it</source>
            <translation>ein + verbindet zwei Tasten; schreib auf jede Seite eine</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>alt</source>
            <comment>typed</comment>
            <translation>alt</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>altgr</source>
            <comment>typed</comment>
            <translation>altgr</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>as in base</source>
            <translation>wie in der Grundebene</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>click</source>
            <comment>typed</comment>
            <translation>klick</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>cmd</source>
            <comment>typed</comment>
            <translation>cmd</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>control</source>
            <comment>typed</comment>
            <translation>steuerung</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>ctrl</source>
            <comment>typed</comment>
            <translation>strg</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>del</source>
            <comment>typed</comment>
            <translation>entf</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>down</source>
            <comment>typed</comment>
            <translation>ab</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>escape</source>
            <comment>typed</comment>
            <translation>escape</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>game key: {name}</source>
            <translation>Spieltaste: {name}</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>ins</source>
            <comment>typed</comment>
            <translation>einfg</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>layer</source>
            <translation>Ebene</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>left</source>
            <comment>typed</comment>
            <translation>links</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>left click</source>
            <comment>typed</comment>
            <translation>linksklick</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>meta</source>
            <comment>typed</comment>
            <translation>meta</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>middle click</source>
            <comment>typed</comment>
            <translation>mittelklick</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>mouse button</source>
            <translation>Maustaste</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>new click sequence “{name}”…</source>
            <translation>neue Klickfolge „{name}“ …</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>new click sequence…</source>
            <translation>neue Klickfolge …</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>new layer “{name}”, held by this button</source>
            <translation>neue Ebene „{name}“, gehalten mit dieser Taste</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>new layer, held by this button</source>
            <translation>neue Ebene, gehalten mit dieser Taste</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>new macro “{name}”…</source>
            <translation>neues Makro „{name}“ …</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>new macro…</source>
            <translation>neues Makro …</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>new pointer speed “{name}”…</source>
            <translation>neues Zeigertempo „{name}“ …</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>new pointer speed…</source>
            <translation>neues Zeigertempo …</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>new profile “{name}”, and go to it</source>
            <translation>neues Profil „{name}“, und dorthin wechseln</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>new profile, and go to it</source>
            <translation>neues Profil, und dorthin wechseln</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>new rapid fire “{name}”…</source>
            <translation>neues Dauerfeuer „{name}“ …</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>new rapid fire…</source>
            <translation>neues Dauerfeuer …</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>new variant “{name}”, and go to it</source>
            <translation>neue Variante „{name}“, und dorthin wechseln</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>new variant, and go to it</source>
            <translation>neue Variante, und dorthin wechseln</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>next profile</source>
            <translation>nächstes Profil</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>next speed</source>
            <translation>nächstes Tempo</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>next variant</source>
            <translation>nächste Variante</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>not used by the game</source>
            <translation>vom Spiel nicht benutzt</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>nothing</source>
            <translation>nichts</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>off</source>
            <translation>aus</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>open </source>
            <comment>typed</comment>
            <translation>öffne </translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>opens {program}</source>
            <translation>öffnet {program}</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>pgdn</source>
            <comment>typed</comment>
            <translation>bild ab</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>pgdown</source>
            <comment>typed</comment>
            <translation>bild runter</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>pgup</source>
            <comment>typed</comment>
            <translation>bild auf</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>pointer speed</source>
            <translation>Zeigertempo</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>previous profile</source>
            <translation>voriges Profil</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>previous speed</source>
            <translation>voriges Tempo</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>previous variant</source>
            <translation>vorige Variante</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>profile</source>
            <translation>Profil</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>profile {name}</source>
            <translation>Profil {name}</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>record now into “{name}”…</source>
            <translation>jetzt aufzeichnen in „{name}“ …</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>record now…</source>
            <translation>jetzt aufzeichnen …</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>return</source>
            <comment>typed</comment>
            <translation>return</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>right</source>
            <comment>typed</comment>
            <translation>rechts</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>right click</source>
            <comment>typed</comment>
            <translation>rechtsklick</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>running</source>
            <translation>läuft</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>shift</source>
            <comment>typed</comment>
            <translation>umschalt</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>space bar</source>
            <comment>typed</comment>
            <translation>leer</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>speed {name}</source>
            <translation>Tempo {name}</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>strg</source>
            <comment>typed</comment>
            <translation>strg</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>super</source>
            <comment>typed</comment>
            <translation>super</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>types “{text}”</source>
            <translation>tippt „{text}“</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>unchanged</source>
            <translation>unverändert</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>up</source>
            <comment>typed</comment>
            <translation>auf</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>variant</source>
            <translation>Variante</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>variant {name}</source>
            <translation>Variante {name}</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>while held</source>
            <translation>solange gehalten</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>win</source>
            <comment>typed</comment>
            <translation>win</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>windows</source>
            <comment>typed</comment>
            <translation>windows</translation>
        </message>
        <message>
            <location filename="core/edit/offers.py" />
            <source>{name} while held</source>
            <translation>{name} solange gehalten</translation>
        </message>
        <message>
            <location filename="core/edit/row_words.py" />
            <source>at once</source>
            <translation>sofort</translation>
        </message>
        <message>
            <location filename="core/edit/row_words.py" />
            <source>comment</source>
            <translation>Kommentar</translation>
        </message>
        <message>
            <location filename="core/edit/row_words.py" />
            <source>end</source>
            <translation>Ende</translation>
        </message>
        <message>
            <location filename="core/edit/row_words.py" />
            <source>loop</source>
            <translation>Schleife</translation>
        </message>
        <message>
            <location filename="core/edit/row_words.py" />
            <source>option {value}</source>
            <translation>Möglichkeit {value}</translation>
        </message>
        <message>
            <location filename="core/edit/row_words.py" />
            <source>otherwise</source>
            <translation>sonst</translation>
        </message>
        <message>
            <location filename="core/edit/row_words.py" />
            <source>random wait</source>
            <translation>zufällig warten</translation>
        </message>
        <message>
            <location filename="core/edit/row_words.py" />
            <source>repeat</source>
            <translation>wiederholen</translation>
        </message>
        <message>
            <location filename="core/edit/row_words.py" />
            <source>start</source>
            <translation>Anfang</translation>
        </message>
        <message>
            <location filename="core/edit/row_words.py" />
            <source>type "{text}"</source>
            <translation>„{text}“ tippen</translation>
        </message>
        <message>
            <location filename="core/edit/row_words.py" />
            <source>wait</source>
            <translation>warten</translation>
        </message>
        <message>
            <location filename="core/edit/row_words.py" />
            <source>weight {value}</source>
            <translation>Gewicht {value}</translation>
        </message>
        <message>
            <location filename="core/edit/row_words.py" />
            <source>{step}, picked on {width} x {height}</source>
            <translation>{step}, gewählt auf {width} x {height}</translation>
        </message>
        <message>
            <location filename="core/edit/row_words.py" />
            <source>{value}  (off)</source>
            <translation>{value}  (aus)</translation>
        </message>
        <message>
            <location filename="core/edit/row_words.py" />
            <source>{value} times</source>
            <translation>{value}-mal</translation>
        </message>
        <message>
            <location filename="core/edit/shaping.py" />
            <source>a block has no edges of its own; move those inside it</source>
            <translation>ein Block hat selbst keine Flanken; verschieb die darin</translation>
        </message>
        <message>
            <location filename="core/edit/shaping.py" />
            <source>a block is in the way; move the edge within it, or drag the steps in the list</source>
            <translation>ein Block ist im Weg; verschieb die Flanke darin oder zieh die Schritte in der Liste</translation>
        </message>
        <message>
            <location filename="core/edit/shaping.py" />
            <source>a hold needs some time, and this one of {hold} would get none</source>
            <translation>ein Halten braucht etwas Zeit, und dieses von {hold} bekäme keine</translation>
        </message>
        <message>
            <location filename="core/edit/shaping.py" />
            <source>a random wait or a formula is in the way</source>
            <translation>eine zufällige Wartezeit oder eine Formel ist im Weg</translation>
        </message>
        <message>
            <location filename="core/edit/shaping.py" />
            <source>a wait is {most} ms long at most</source>
            <translation>eine Wartezeit ist höchstens {most} ms lang</translation>
        </message>
        <message>
            <location filename="core/edit/shaping.py" />
            <source>between these edges is a random wait, a formula or a block; move less at once</source>
            <translation>zwischen diesen Flanken ist eine zufällige Wartezeit, eine Formel oder ein Block; verschieb weniger auf einmal</translation>
        </message>
        <message>
            <location filename="core/edit/shaping.py" />
            <source>it can come {room} earlier at most; then a random wait is in the way</source>
            <translation>es kann höchstens {room} früher kommen; dann ist eine zufällige Wartezeit im Weg</translation>
        </message>
        <message>
            <location filename="core/edit/shaping.py" />
            <source>it can come {room} earlier at most; then the edge before it is in the way</source>
            <translation>es kann höchstens {room} früher kommen; dann ist die Flanke davor im Weg</translation>
        </message>
        <message>
            <location filename="core/edit/shaping.py" />
            <source>that is past the end of the block</source>
            <translation>das liegt hinter dem Ende des Blocks</translation>
        </message>
        <message>
            <location filename="core/edit/shaping.py" />
            <source>the pointer's move or a text takes all the time there; nothing else can happen meanwhile</source>
            <translation>die Zeigerbewegung oder ein Text braucht dort die ganze Zeit; währenddessen kann nichts anderes geschehen</translation>
        </message>
        <message>
            <location filename="core/edit/shaping.py" />
            <source>there is no time before the beginning</source>
            <translation>vor dem Anfang ist keine Zeit</translation>
        </message>
        <message>
            <location filename="core/edit/shaping.py" />
            <source>this hold of {control} would have no time left</source>
            <translation>diesem Halten von {control} bliebe keine Zeit</translation>
        </message>
        <message>
            <location filename="core/edit/shaping.py" />
            <source>two holds of {control} would overlap; a key or button is down once at a time</source>
            <translation>zwei Halten von {control} würden sich überschneiden; eine Taste ist immer nur einmal gedrückt</translation>
        </message>
        <message>
            <location filename="core/edit/shaping.py" />
            <source>unknown length</source>
            <translation>unbekannte Länge</translation>
        </message>
        <message>
            <location filename="core/edit/tuned.py" />
            <source>all {count} waits</source>
            <translation>alle {count} Wartezeiten</translation>
        </message>
        <message>
            <location filename="core/edit/tuned.py" />
            <source>the hold of {step}</source>
            <translation>die Haltezeit von {step}</translation>
        </message>
        <message>
            <location filename="core/edit/tuned.py" />
            <source>the wait</source>
            <translation>die Wartezeit</translation>
        </message>
        <message>
            <location filename="core/edit/tuned.py" />
            <source>{macro}: it has no plain wait; choose another</source>
            <translation>{macro}: Es hat keine einfache Wartezeit; wähl etwas anderes</translation>
        </message>
        <message>
            <location filename="core/edit/tuned.py" />
            <source>{macro}: the step that is tuned has no time of its own; choose another</source>
            <translation>{macro}: Der Schritt, der abgestimmt wird, hat keine eigene Zeit; wähl einen anderen</translation>
        </message>
        <message>
            <location filename="core/model/board.py" />
            <source>full size</source>
            <translation>volle Größe</translation>
        </message>
        <message>
            <location filename="core/model/board.py" />
            <source>keypad</source>
            <translation>Ziffernblock</translation>
        </message>
        <message>
            <location filename="core/model/board.py" />
            <source>mouse</source>
            <translation>Maus</translation>
        </message>
        <message>
            <location filename="core/model/board.py" />
            <source>small</source>
            <translation>klein</translation>
        </message>
        <message>
            <location filename="core/model/board.py" />
            <source>without keypad</source>
            <translation>ohne Ziffernblock</translation>
        </message>
        <message>
            <location filename="core/model/cells.py" />
            <source>a button can act as another key or button, and {control} is a wheel direction</source>
            <translation>eine Taste kann als andere Taste wirken, und {control} ist eine Radrichtung</translation>
        </message>
        <message>
            <location filename="core/model/cells.py" />
            <source>a combination holds each key once; take out the one that is there twice</source>
            <translation>eine Kombination hält jede Taste einmal; nimm die heraus, die zweimal da ist</translation>
        </message>
        <message>
            <location filename="core/model/cells.py" />
            <source>a combination is made of keys and buttons, and {code} is a wheel direction</source>
            <translation>eine Kombination besteht aus Tasten, und {code} ist eine Radrichtung</translation>
        </message>
        <message>
            <location filename="core/model/cells.py" />
            <source>a secret text stands in the keyring and not in the profile; leave the text out</source>
            <translation>ein geheimer Text steht im Schlüsselbund und nicht im Profil; lass den Text weg</translation>
        </message>
        <message>
            <location filename="core/model/cells.py" />
            <source>a speed that is there while a button is held needs the name of its stage</source>
            <translation>ein Tempo, das gilt, solange eine Taste gehalten wird, braucht den Namen seiner Stufe</translation>
        </message>
        <message>
            <location filename="core/model/cells.py" />
            <source>brighter screen</source>
            <translation>Bildschirm heller</translation>
        </message>
        <message>
            <location filename="core/model/cells.py" />
            <source>darker screen</source>
            <translation>Bildschirm dunkler</translation>
        </message>
        <message>
            <location filename="core/model/cells.py" />
            <source>load with games</source>
            <translation>mit Spielen laden</translation>
        </message>
        <message>
            <location filename="core/model/cells.py" />
            <source>lock the screen</source>
            <translation>Bildschirm sperren</translation>
        </message>
        <message>
            <location filename="core/model/cells.py" />
            <source>mute the microphone</source>
            <translation>Mikrofon stumm</translation>
        </message>
        <message>
            <location filename="core/model/cells.py" />
            <source>next track</source>
            <translation>nächster Titel</translation>
        </message>
        <message>
            <location filename="core/model/cells.py" />
            <source>play or pause</source>
            <translation>Wiedergabe oder Pause</translation>
        </message>
        <message>
            <location filename="core/model/cells.py" />
            <source>previous track</source>
            <translation>voriger Titel</translation>
        </message>
        <message>
            <location filename="core/model/cells.py" />
            <source>stop everything</source>
            <translation>alles stoppen</translation>
        </message>
        <message>
            <location filename="core/model/cells.py" />
            <source>stop playing</source>
            <translation>Wiedergabe beenden</translation>
        </message>
        <message>
            <location filename="core/model/cells.py" />
            <source>the text is empty; write something</source>
            <translation>der Text ist leer; schreib etwas</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>102nd key</source>
            <comment>key</comment>
            <translation>102. Taste</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Address book</source>
            <comment>key</comment>
            <translation>Adressbuch</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Again</source>
            <comment>key</comment>
            <translation>Wiederholen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>All applications</source>
            <comment>key</comment>
            <translation>Alle Programme</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Alt erase</source>
            <comment>key</comment>
            <translation>Alt Löschen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Apostrophe</source>
            <comment>key</comment>
            <translation>Apostroph</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>App list</source>
            <comment>key</comment>
            <translation>App-Liste</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Assistant</source>
            <comment>key</comment>
            <translation>Assistent</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Back</source>
            <comment>key</comment>
            <translation>Zurück</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Backslash</source>
            <comment>key</comment>
            <translation>Rückschrägstrich</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Backspace</source>
            <comment>key</comment>
            <translation>Rücktaste</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Bass boost</source>
            <comment>key</comment>
            <translation>Bass verstärken</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Battery</source>
            <comment>key</comment>
            <translation>Akku</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Bluetooth</source>
            <comment>key</comment>
            <translation>Bluetooth</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Bookmarks</source>
            <comment>key</comment>
            <translation>Lesezeichen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Brightness auto</source>
            <comment>key</comment>
            <translation>Helligkeit automatisch</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Brightness cycle</source>
            <comment>key</comment>
            <translation>Helligkeit reihum</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Brightness down</source>
            <comment>key</comment>
            <translation>Helligkeit runter</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Brightness least</source>
            <comment>key</comment>
            <translation>Helligkeit kleinste</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Brightness most</source>
            <comment>key</comment>
            <translation>Helligkeit größte</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Brightness up</source>
            <comment>key</comment>
            <translation>Helligkeit hoch</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Browser back</source>
            <comment>key</comment>
            <translation>Browser zurück</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Browser forward</source>
            <comment>key</comment>
            <translation>Browser vor</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Button 0</source>
            <comment>key</comment>
            <translation>Taste 0</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Button 1</source>
            <comment>key</comment>
            <translation>Taste 1</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Button 13</source>
            <comment>key</comment>
            <translation>Taste 13</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Button 14</source>
            <comment>key</comment>
            <translation>Taste 14</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Button 15</source>
            <comment>key</comment>
            <translation>Taste 15</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Button 16</source>
            <comment>key</comment>
            <translation>Taste 16</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Button 17</source>
            <comment>key</comment>
            <translation>Taste 17</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Button 18</source>
            <comment>key</comment>
            <translation>Taste 18</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Button 19</source>
            <comment>key</comment>
            <translation>Taste 19</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Button 2</source>
            <comment>key</comment>
            <translation>Taste 2</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Button 20</source>
            <comment>key</comment>
            <translation>Taste 20</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Button 3</source>
            <comment>key</comment>
            <translation>Taste 3</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Button 4</source>
            <comment>key</comment>
            <translation>Taste 4</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Button 5</source>
            <comment>key</comment>
            <translation>Taste 5</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Button 6</source>
            <comment>key</comment>
            <translation>Taste 6</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Button 7</source>
            <comment>key</comment>
            <translation>Taste 7</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Button 8</source>
            <comment>key</comment>
            <translation>Taste 8</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Button 9</source>
            <comment>key</comment>
            <translation>Taste 9</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Button settings</source>
            <comment>key</comment>
            <translation>Tasteneinstellungen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Calculator</source>
            <comment>key</comment>
            <translation>Rechner</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Calendar</source>
            <comment>key</comment>
            <translation>Kalender</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Camera</source>
            <comment>key</comment>
            <translation>Kamera</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Cancel</source>
            <comment>key</comment>
            <translation>Abbrechen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Caps Lock</source>
            <comment>key</comment>
            <translation>Feststelltaste</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Chat</source>
            <comment>key</comment>
            <translation>Chat</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Close</source>
            <comment>key</comment>
            <translation>Schließen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Close tray</source>
            <comment>key</comment>
            <translation>Lade schließen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Comma</source>
            <comment>key</comment>
            <translation>Komma</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Computer</source>
            <comment>key</comment>
            <translation>Computer</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Config</source>
            <comment>key</comment>
            <translation>Konfiguration</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Connect</source>
            <comment>key</comment>
            <translation>Verbinden</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Control panel</source>
            <comment>key</comment>
            <translation>Systemsteuerung</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Copy</source>
            <comment>key</comment>
            <translation>Kopieren</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Cut</source>
            <comment>key</comment>
            <translation>Ausschneiden</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Cycle windows</source>
            <comment>key</comment>
            <translation>Fenster reihum</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Database</source>
            <comment>key</comment>
            <translation>Datenbank</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Delete</source>
            <comment>key</comment>
            <translation>Entf</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Delete file</source>
            <comment>key</comment>
            <translation>Datei löschen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Dictate</source>
            <comment>key</comment>
            <translation>Diktieren</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Display key 1</source>
            <comment>key</comment>
            <translation>Displaytaste 1</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Display key 2</source>
            <comment>key</comment>
            <translation>Displaytaste 2</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Display key 3</source>
            <comment>key</comment>
            <translation>Displaytaste 3</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Display key 4</source>
            <comment>key</comment>
            <translation>Displaytaste 4</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Display key 5</source>
            <comment>key</comment>
            <translation>Displaytaste 5</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Display off</source>
            <comment>key</comment>
            <translation>Bildschirm aus</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Documents</source>
            <comment>key</comment>
            <translation>Dokumente</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Down arrow</source>
            <comment>key</comment>
            <translation>Pfeil runter</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Edit</source>
            <comment>key</comment>
            <translation>Bearbeiten</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Editor</source>
            <comment>key</comment>
            <translation>Editor</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Eject</source>
            <comment>key</comment>
            <translation>Auswerfen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Eject / close tray</source>
            <comment>key</comment>
            <translation>Lade auf / zu</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Email</source>
            <comment>key</comment>
            <translation>E-Mail</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Emoji</source>
            <comment>key</comment>
            <translation>Emoji</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>End</source>
            <comment>key</comment>
            <translation>Ende</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Enter</source>
            <comment>key</comment>
            <translation>Eingabe</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Equals</source>
            <comment>key</comment>
            <translation>Gleichheitszeichen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Esc</source>
            <comment>key</comment>
            <translation>Esc</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Exit</source>
            <comment>key</comment>
            <translation>Beenden</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Fast forward</source>
            <comment>key</comment>
            <translation>Vorspulen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Favourites</source>
            <comment>key</comment>
            <translation>Favoriten</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>File</source>
            <comment>key</comment>
            <translation>Datei</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Finance</source>
            <comment>key</comment>
            <translation>Finanzen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Find</source>
            <comment>key</comment>
            <translation>Suchen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Fn</source>
            <comment>key</comment>
            <translation>Fn</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Forward</source>
            <comment>key</comment>
            <translation>Vorwärts</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Forward mail</source>
            <comment>key</comment>
            <translation>Mail weiterleiten</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Front</source>
            <comment>key</comment>
            <translation>Nach vorn</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Full screen</source>
            <comment>key</comment>
            <translation>Vollbild</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Full stop</source>
            <comment>key</comment>
            <translation>Punkt</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Games</source>
            <comment>key</comment>
            <translation>Spiele</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Grave</source>
            <comment>key</comment>
            <translation>Gravis</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>HP</source>
            <comment>key</comment>
            <translation>HP</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Hangeul</source>
            <comment>key</comment>
            <translation>Hangeul</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Hanja</source>
            <comment>key</comment>
            <translation>Hanja</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Help</source>
            <comment>key</comment>
            <translation>Hilfe</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Henkan</source>
            <comment>key</comment>
            <translation>Henkan</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Hiragana</source>
            <comment>key</comment>
            <translation>Hiragana</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Home</source>
            <comment>key</comment>
            <translation>Pos1</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Home page</source>
            <comment>key</comment>
            <translation>Startseite</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>ISO</source>
            <comment>key</comment>
            <translation>ISO</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Info</source>
            <comment>key</comment>
            <translation>Info</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Insert</source>
            <comment>key</comment>
            <translation>Einfg</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Katakana</source>
            <comment>key</comment>
            <translation>Katakana</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Katakana / Hiragana</source>
            <comment>key</comment>
            <translation>Katakana / Hiragana</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Key light down</source>
            <comment>key</comment>
            <translation>Tastenlicht runter</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Key light on/off</source>
            <comment>key</comment>
            <translation>Tastenlicht an/aus</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Key light up</source>
            <comment>key</comment>
            <translation>Tastenlicht hoch</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad 0</source>
            <comment>key</comment>
            <translation>Ziffernblock 0</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad 1</source>
            <comment>key</comment>
            <translation>Ziffernblock 1</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad 2</source>
            <comment>key</comment>
            <translation>Ziffernblock 2</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad 3</source>
            <comment>key</comment>
            <translation>Ziffernblock 3</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad 4</source>
            <comment>key</comment>
            <translation>Ziffernblock 4</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad 5</source>
            <comment>key</comment>
            <translation>Ziffernblock 5</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad 6</source>
            <comment>key</comment>
            <translation>Ziffernblock 6</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad 7</source>
            <comment>key</comment>
            <translation>Ziffernblock 7</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad 8</source>
            <comment>key</comment>
            <translation>Ziffernblock 8</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad 9</source>
            <comment>key</comment>
            <translation>Ziffernblock 9</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad Enter</source>
            <comment>key</comment>
            <translation>Ziffernblock Eingabe</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad JP comma</source>
            <comment>key</comment>
            <translation>Ziffernblock JP-Komma</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad comma</source>
            <comment>key</comment>
            <translation>Ziffernblock Komma</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad divide</source>
            <comment>key</comment>
            <translation>Ziffernblock Geteilt</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad equals</source>
            <comment>key</comment>
            <translation>Ziffernblock Gleich</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad left parenthesis</source>
            <comment>key</comment>
            <translation>Ziffernblock Klammer auf</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad minus</source>
            <comment>key</comment>
            <translation>Ziffernblock Minus</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad plus</source>
            <comment>key</comment>
            <translation>Ziffernblock Plus</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad plus/minus</source>
            <comment>key</comment>
            <translation>Ziffernblock Plus/Minus</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad point</source>
            <comment>key</comment>
            <translation>Ziffernblock Punkt</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad right parenthesis</source>
            <comment>key</comment>
            <translation>Ziffernblock Klammer zu</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Keypad times</source>
            <comment>key</comment>
            <translation>Ziffernblock Mal</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Left</source>
            <comment>key</comment>
            <translation>Maus links</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Left Alt</source>
            <comment>key</comment>
            <translation>Alt links</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Left Ctrl</source>
            <comment>key</comment>
            <translation>Strg links</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Left Shift</source>
            <comment>key</comment>
            <translation>Umschalt links</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Left Super</source>
            <comment>key</comment>
            <translation>Super links</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Left arrow</source>
            <comment>key</comment>
            <translation>Pfeil links</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Left bracket</source>
            <comment>key</comment>
            <translation>Eckige Klammer auf</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Line feed</source>
            <comment>key</comment>
            <translation>Zeilenvorschub</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Lock screen</source>
            <comment>key</comment>
            <translation>Sperrbildschirm</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Log off</source>
            <comment>key</comment>
            <translation>Abmelden</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>MS-DOS</source>
            <comment>key</comment>
            <translation>MS-DOS</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key</source>
            <comment>key</comment>
            <translation>Makrotaste</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 1</source>
            <comment>key</comment>
            <translation>Makrotaste 1</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 10</source>
            <comment>key</comment>
            <translation>Makrotaste 10</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 11</source>
            <comment>key</comment>
            <translation>Makrotaste 11</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 12</source>
            <comment>key</comment>
            <translation>Makrotaste 12</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 13</source>
            <comment>key</comment>
            <translation>Makrotaste 13</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 14</source>
            <comment>key</comment>
            <translation>Makrotaste 14</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 15</source>
            <comment>key</comment>
            <translation>Makrotaste 15</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 16</source>
            <comment>key</comment>
            <translation>Makrotaste 16</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 17</source>
            <comment>key</comment>
            <translation>Makrotaste 17</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 18</source>
            <comment>key</comment>
            <translation>Makrotaste 18</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 19</source>
            <comment>key</comment>
            <translation>Makrotaste 19</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 2</source>
            <comment>key</comment>
            <translation>Makrotaste 2</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 20</source>
            <comment>key</comment>
            <translation>Makrotaste 20</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 21</source>
            <comment>key</comment>
            <translation>Makrotaste 21</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 22</source>
            <comment>key</comment>
            <translation>Makrotaste 22</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 23</source>
            <comment>key</comment>
            <translation>Makrotaste 23</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 24</source>
            <comment>key</comment>
            <translation>Makrotaste 24</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 25</source>
            <comment>key</comment>
            <translation>Makrotaste 25</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 26</source>
            <comment>key</comment>
            <translation>Makrotaste 26</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 27</source>
            <comment>key</comment>
            <translation>Makrotaste 27</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 28</source>
            <comment>key</comment>
            <translation>Makrotaste 28</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 29</source>
            <comment>key</comment>
            <translation>Makrotaste 29</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 3</source>
            <comment>key</comment>
            <translation>Makrotaste 3</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 30</source>
            <comment>key</comment>
            <translation>Makrotaste 30</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 4</source>
            <comment>key</comment>
            <translation>Makrotaste 4</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 5</source>
            <comment>key</comment>
            <translation>Makrotaste 5</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 6</source>
            <comment>key</comment>
            <translation>Makrotaste 6</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 7</source>
            <comment>key</comment>
            <translation>Makrotaste 7</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 8</source>
            <comment>key</comment>
            <translation>Makrotaste 8</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro key 9</source>
            <comment>key</comment>
            <translation>Makrotaste 9</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro preset 1</source>
            <comment>key</comment>
            <translation>Makrosatz 1</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro preset 2</source>
            <comment>key</comment>
            <translation>Makrosatz 2</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro preset 3</source>
            <comment>key</comment>
            <translation>Makrosatz 3</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro preset next</source>
            <comment>key</comment>
            <translation>Nächster Makrosatz</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro record</source>
            <comment>key</comment>
            <translation>Makroaufnahme</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Macro record stop</source>
            <comment>key</comment>
            <translation>Makroaufnahme beenden</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Mail</source>
            <comment>key</comment>
            <translation>Mail</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Media</source>
            <comment>key</comment>
            <translation>Medien</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Menu</source>
            <comment>key</comment>
            <translation>Menü</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Menu (media)</source>
            <comment>key</comment>
            <translation>Menü (Medien)</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Messenger</source>
            <comment>key</comment>
            <translation>Messenger</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Microphone mute</source>
            <comment>key</comment>
            <translation>Mikrofon stumm</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Middle</source>
            <comment>key</comment>
            <translation>Maus Mitte</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Minus</source>
            <comment>key</comment>
            <translation>Minus</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Mobile network</source>
            <comment>key</comment>
            <translation>Mobilfunk</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Move</source>
            <comment>key</comment>
            <translation>Verschieben</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Muhenkan</source>
            <comment>key</comment>
            <translation>Muhenkan</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Mute</source>
            <comment>key</comment>
            <translation>Stumm</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>New</source>
            <comment>key</comment>
            <translation>Neu</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>News</source>
            <comment>key</comment>
            <translation>Neuigkeiten</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Next layout</source>
            <comment>key</comment>
            <translation>Nächste Belegung</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Next track</source>
            <comment>key</comment>
            <translation>Nächster Titel</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Next video source</source>
            <comment>key</comment>
            <translation>Nächste Videoquelle</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Num Lock</source>
            <comment>key</comment>
            <translation>Num-Taste</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>OK</source>
            <comment>key</comment>
            <translation>OK</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>On-screen keyboard</source>
            <comment>key</comment>
            <translation>Bildschirmtastatur</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Open</source>
            <comment>key</comment>
            <translation>Öffnen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Page Down</source>
            <comment>key</comment>
            <translation>Bild runter</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Page Up</source>
            <comment>key</comment>
            <translation>Bild hoch</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Paste</source>
            <comment>key</comment>
            <translation>Einfügen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Pause</source>
            <comment>key</comment>
            <translation>Pause</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Pause track</source>
            <comment>key</comment>
            <translation>Titel anhalten</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Phone</source>
            <comment>key</comment>
            <translation>Telefon</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Pictures</source>
            <comment>key</comment>
            <translation>Bilder</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Play</source>
            <comment>key</comment>
            <translation>Abspielen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Play / pause</source>
            <comment>key</comment>
            <translation>Wiedergabe / Pause</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Play track</source>
            <comment>key</comment>
            <translation>Titel abspielen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Power</source>
            <comment>key</comment>
            <translation>Ein/Aus</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Presentation</source>
            <comment>key</comment>
            <translation>Präsentation</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Previous track</source>
            <comment>key</comment>
            <translation>Voriger Titel</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Previous video source</source>
            <comment>key</comment>
            <translation>Vorige Videoquelle</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Print</source>
            <comment>key</comment>
            <translation>Drucken</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Print Screen</source>
            <comment>key</comment>
            <translation>Druck</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Program 1</source>
            <comment>key</comment>
            <translation>Programm 1</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Program 2</source>
            <comment>key</comment>
            <translation>Programm 2</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Program 3</source>
            <comment>key</comment>
            <translation>Programm 3</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Program 4</source>
            <comment>key</comment>
            <translation>Programm 4</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Props</source>
            <comment>key</comment>
            <translation>Eigenschaften</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Question</source>
            <comment>key</comment>
            <translation>Fragezeichen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Radio off</source>
            <comment>key</comment>
            <translation>Funk aus</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Record</source>
            <comment>key</comment>
            <translation>Aufnehmen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Redo</source>
            <comment>key</comment>
            <translation>Wiederherstellen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Refresh</source>
            <comment>key</comment>
            <translation>Neu laden</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Reply</source>
            <comment>key</comment>
            <translation>Antworten</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Restart</source>
            <comment>key</comment>
            <translation>Von vorn</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Rewind</source>
            <comment>key</comment>
            <translation>Zurückspulen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Right</source>
            <comment>key</comment>
            <translation>Maus rechts</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Right Alt</source>
            <comment>key</comment>
            <translation>Alt Gr</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Right Ctrl</source>
            <comment>key</comment>
            <translation>Strg rechts</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Right Shift</source>
            <comment>key</comment>
            <translation>Umschalt rechts</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Right Super</source>
            <comment>key</comment>
            <translation>Super rechts</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Right arrow</source>
            <comment>key</comment>
            <translation>Pfeil rechts</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Right bracket</source>
            <comment>key</comment>
            <translation>Eckige Klammer zu</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Ro</source>
            <comment>key</comment>
            <translation>Ro</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Rotate display</source>
            <comment>key</comment>
            <translation>Bildschirm drehen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Save</source>
            <comment>key</comment>
            <translation>Speichern</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Scale</source>
            <comment>key</comment>
            <translation>Skalieren</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Screen saver</source>
            <comment>key</comment>
            <translation>Bildschirmschoner</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Screenshot of a part</source>
            <comment>key</comment>
            <translation>Bildschirmausschnitt</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Scroll Lock</source>
            <comment>key</comment>
            <translation>Rollen-Taste</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Scroll down</source>
            <comment>key</comment>
            <translation>Nach unten rollen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Scroll up</source>
            <comment>key</comment>
            <translation>Nach oben rollen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Search</source>
            <comment>key</comment>
            <translation>Suche</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Select</source>
            <comment>key</comment>
            <translation>Auswahl</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Semicolon</source>
            <comment>key</comment>
            <translation>Semikolon</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Send</source>
            <comment>key</comment>
            <translation>Senden</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Send file</source>
            <comment>key</comment>
            <translation>Datei senden</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Setup</source>
            <comment>key</comment>
            <translation>Einrichten</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Shop</source>
            <comment>key</comment>
            <translation>Einkaufen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Shuffle</source>
            <comment>key</comment>
            <translation>Zufallsfolge</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Slash</source>
            <comment>key</comment>
            <translation>Schrägstrich</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Sleep</source>
            <comment>key</comment>
            <translation>Schlafen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Slow</source>
            <comment>key</comment>
            <translation>Zeitlupe</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Sound</source>
            <comment>key</comment>
            <translation>Ton</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Space</source>
            <comment>key</comment>
            <translation>Leertaste</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Spell check</source>
            <comment>key</comment>
            <translation>Rechtschreibprüfung</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Sport</source>
            <comment>key</comment>
            <translation>Sport</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Spreadsheet</source>
            <comment>key</comment>
            <translation>Tabellenkalkulation</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Stop key</source>
            <comment>key</comment>
            <translation>Stopptaste</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Stop track</source>
            <comment>key</comment>
            <translation>Titel stoppen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Suspend</source>
            <comment>key</comment>
            <translation>Bereitschaft</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Switch screen</source>
            <comment>key</comment>
            <translation>Bildschirm wechseln</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>System log</source>
            <comment>key</comment>
            <translation>Systemprotokoll</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Tab</source>
            <comment>key</comment>
            <translation>Tab</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Task</source>
            <comment>key</comment>
            <translation>Aufgabe</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Task manager</source>
            <comment>key</comment>
            <translation>Task-Manager</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 1</source>
            <comment>key</comment>
            <translation>Daumen 1</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 10</source>
            <comment>key</comment>
            <translation>Daumen 10</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 11</source>
            <comment>key</comment>
            <translation>Daumen 11</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 12</source>
            <comment>key</comment>
            <translation>Daumen 12</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 13</source>
            <comment>key</comment>
            <translation>Daumen 13</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 14</source>
            <comment>key</comment>
            <translation>Daumen 14</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 15</source>
            <comment>key</comment>
            <translation>Daumen 15</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 16</source>
            <comment>key</comment>
            <translation>Daumen 16</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 17</source>
            <comment>key</comment>
            <translation>Daumen 17</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 18</source>
            <comment>key</comment>
            <translation>Daumen 18</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 19</source>
            <comment>key</comment>
            <translation>Daumen 19</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 2</source>
            <comment>key</comment>
            <translation>Daumen 2</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 20</source>
            <comment>key</comment>
            <translation>Daumen 20</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 21</source>
            <comment>key</comment>
            <translation>Daumen 21</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 22</source>
            <comment>key</comment>
            <translation>Daumen 22</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 23</source>
            <comment>key</comment>
            <translation>Daumen 23</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 24</source>
            <comment>key</comment>
            <translation>Daumen 24</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 25</source>
            <comment>key</comment>
            <translation>Daumen 25</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 26</source>
            <comment>key</comment>
            <translation>Daumen 26</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 27</source>
            <comment>key</comment>
            <translation>Daumen 27</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 28</source>
            <comment>key</comment>
            <translation>Daumen 28</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 29</source>
            <comment>key</comment>
            <translation>Daumen 29</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 3</source>
            <comment>key</comment>
            <translation>Daumen 3</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 30</source>
            <comment>key</comment>
            <translation>Daumen 30</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 31</source>
            <comment>key</comment>
            <translation>Daumen 31</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 32</source>
            <comment>key</comment>
            <translation>Daumen 32</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 33</source>
            <comment>key</comment>
            <translation>Daumen 33</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 34</source>
            <comment>key</comment>
            <translation>Daumen 34</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 35</source>
            <comment>key</comment>
            <translation>Daumen 35</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 36</source>
            <comment>key</comment>
            <translation>Daumen 36</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 37</source>
            <comment>key</comment>
            <translation>Daumen 37</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 38</source>
            <comment>key</comment>
            <translation>Daumen 38</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 39</source>
            <comment>key</comment>
            <translation>Daumen 39</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 4</source>
            <comment>key</comment>
            <translation>Daumen 4</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 40</source>
            <comment>key</comment>
            <translation>Daumen 40</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 5</source>
            <comment>key</comment>
            <translation>Daumen 5</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 6</source>
            <comment>key</comment>
            <translation>Daumen 6</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 7</source>
            <comment>key</comment>
            <translation>Daumen 7</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 8</source>
            <comment>key</comment>
            <translation>Daumen 8</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb 9</source>
            <comment>key</comment>
            <translation>Daumen 9</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb back</source>
            <comment>key</comment>
            <translation>Daumen zurück</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Thumb forward</source>
            <comment>key</comment>
            <translation>Daumen vor</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>UWB</source>
            <comment>key</comment>
            <translation>UWB</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Undo</source>
            <comment>key</comment>
            <translation>Rückgängig</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Unnamed key</source>
            <comment>key</comment>
            <translation>Namenlose Taste</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Up arrow</source>
            <comment>key</comment>
            <translation>Pfeil hoch</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Video call</source>
            <comment>key</comment>
            <translation>Videoanruf</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Voice command</source>
            <comment>key</comment>
            <translation>Sprachbefehl</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Voicemail</source>
            <comment>key</comment>
            <translation>Sprachnachrichten</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Volume down</source>
            <comment>key</comment>
            <translation>Leiser</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Volume up</source>
            <comment>key</comment>
            <translation>Lauter</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Wake up</source>
            <comment>key</comment>
            <translation>Aufwachen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Web</source>
            <comment>key</comment>
            <translation>Web</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Wheel down</source>
            <comment>key</comment>
            <translation>Rad runter</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Wheel left</source>
            <comment>key</comment>
            <translation>Rad links</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Wheel right</source>
            <comment>key</comment>
            <translation>Rad rechts</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Wheel up</source>
            <comment>key</comment>
            <translation>Rad hoch</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Wi-Fi</source>
            <comment>key</comment>
            <translation>WLAN</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Word processor</source>
            <comment>key</comment>
            <translation>Textverarbeitung</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Xfer</source>
            <comment>key</comment>
            <translation>Xfer</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Yen</source>
            <comment>key</comment>
            <translation>Yen</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Zenkaku / Hankaku</source>
            <comment>key</comment>
            <translation>Zenkaku / Hankaku</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Zoom in</source>
            <comment>key</comment>
            <translation>Vergrößern</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Zoom out</source>
            <comment>key</comment>
            <translation>Verkleinern</translation>
        </message>
        <message>
            <location filename="core/model/control_table.py" />
            <source>Zoom reset</source>
            <comment>key</comment>
            <translation>Normalgröße</translation>
        </message>
        <message>
            <location filename="core/model/controls.py" />
            <source> or </source>
            <translation> oder </translation>
        </message>
        <message>
            <location filename="core/model/controls.py" />
            <source>Pointer</source>
            <comment>key</comment>
            <translation>Zeiger</translation>
        </message>
        <message>
            <location filename="core/model/controls.py" />
            <source>Program</source>
            <comment>key</comment>
            <translation>Programm</translation>
        </message>
        <message>
            <location filename="core/model/controls.py" />
            <source>Text</source>
            <comment>key</comment>
            <translation>Text</translation>
        </message>
        <message>
            <location filename="core/model/controls.py" />
            <source>unknown key or button {code!r}; `nakrel controls` lists all codes</source>
            <translation>unbekannte Taste {code!r}; `nakrel controls` listet alle Codes</translation>
        </message>
        <message>
            <location filename="core/model/controls.py" />
            <source>unknown key or button {code!r}; did you mean {near}?</source>
            <translation>unbekannte Taste {code!r}; war {near} gemeint?</translation>
        </message>
        <message>
            <location filename="core/model/controls.py" />
            <source>{button} with {layer}</source>
            <translation>{button} mit {layer}</translation>
        </message>
        <message>
            <location filename="core/model/controls.py" />
            <source>{key} (2nd)</source>
            <translation>{key} (zweite)</translation>
        </message>
        <message>
            <location filename="core/model/controls.py" />
            <source>{name!r} can't be a game key's name: write up to 40 characters without ", \, + and #</source>
            <translation>{name!r} kann kein Name einer Spieltaste sein: schreib bis zu 40 Zeichen ohne ", \, + und #</translation>
        </message>
        <message>
            <location filename="core/model/cues.py" />
            <source>Stop everything</source>
            <translation>Alles stoppen</translation>
        </message>
        <message>
            <location filename="core/model/cues.py" />
            <source>a Toggle goes off</source>
            <translation>ein Umschalter geht aus</translation>
        </message>
        <message>
            <location filename="core/model/cues.py" />
            <source>a Toggle goes on</source>
            <translation>ein Umschalter geht an</translation>
        </message>
        <message>
            <location filename="core/model/cues.py" />
            <source>a profile goes live</source>
            <translation>ein Profil wird aktiv</translation>
        </message>
        <message>
            <location filename="core/model/cues.py" />
            <source>a recording begins</source>
            <translation>eine Aufzeichnung beginnt</translation>
        </message>
        <message>
            <location filename="core/model/cues.py" />
            <source>a recording ends</source>
            <translation>eine Aufzeichnung endet</translation>
        </message>
        <message>
            <location filename="core/model/cues.py" />
            <source>something goes wrong</source>
            <translation>etwas geht schief</translation>
        </message>
        <message>
            <location filename="core/model/devices.py" />
            <source>battery {full}</source>
            <translation>Akku {full}</translation>
        </message>
        <message>
            <location filename="core/model/devices.py" />
            <source>battery {full}, charging</source>
            <translation>Akku {full}, lädt</translation>
        </message>
        <message>
            <location filename="core/model/devices.py" />
            <source>critical</source>
            <comment>battery</comment>
            <translation>kritisch</translation>
        </message>
        <message>
            <location filename="core/model/devices.py" />
            <source>full</source>
            <comment>battery</comment>
            <translation>voll</translation>
        </message>
        <message>
            <location filename="core/model/devices.py" />
            <source>high</source>
            <comment>battery</comment>
            <translation>hoch</translation>
        </message>
        <message>
            <location filename="core/model/devices.py" />
            <source>low</source>
            <comment>battery</comment>
            <translation>niedrig</translation>
        </message>
        <message>
            <location filename="core/model/devices.py" />
            <source>normal</source>
            <comment>battery</comment>
            <translation>normal</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>how narrow the interval must be</source>
            <translation>wie schmal das Intervall sein muss</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>how sure it must be</source>
            <translation>wie sicher es sein muss</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the angle within which lines are straightened</source>
            <translation>der Winkel, in dem Linien begradigt werden,</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the buttons</source>
            <translation>die Tasten</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the colour</source>
            <translation>die Farbe</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the comment</source>
            <translation>der Kommentar</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the condition</source>
            <translation>die Bedingung</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the countdown</source>
            <translation>der Countdown</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the debounce times</source>
            <translation>die Entprellzeiten</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the delay</source>
            <translation>die Verzögerung</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the devices whose number keys are thumb buttons</source>
            <translation>die Geräte, deren Zifferntasten Daumentasten sind</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the direction</source>
            <translation>die Richtung</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the end section</source>
            <translation>der Abschnitt Ende</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the game keys</source>
            <translation>die Spieltasten</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the hold</source>
            <translation>die Haltezeit</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the horizontal speed</source>
            <translation>das waagrechte Tempo</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the id</source>
            <translation>die Kennung</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the keyboard layout</source>
            <translation>die Tastaturbelegung</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the keys and buttons of a combination</source>
            <translation>die Tasten einer Kombination</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the layer</source>
            <translation>die Ebene</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the layers</source>
            <translation>die Ebenen</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the length of a notch</source>
            <translation>die Länge einer Raste</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the linked programs</source>
            <translation>die verknüpften Programme</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the longer time</source>
            <translation>die längere Zeit</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the loop</source>
            <translation>die Schleife</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the name</source>
            <translation>der Name</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the name of the secret</source>
            <translation>der Name des Geheimnisses</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the name of the variable</source>
            <translation>der Name der Variablen</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the note</source>
            <translation>die Notiz</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the number</source>
            <translation>die Nummer</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the number of notches</source>
            <translation>die Zahl der Rasten</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the number of runs</source>
            <translation>die Zahl der Durchläufe</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the number of runs after which it ends</source>
            <translation>die Zahl der Durchläufe, nach der es endet,</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the number of times</source>
            <translation>die Zahl der Male</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the number of trials</source>
            <translation>die Zahl der Versuche</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the options of a random choice</source>
            <translation>die Möglichkeiten einer zufälligen Wahl</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the pause</source>
            <translation>die Pause</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the place from the left</source>
            <translation>die Stelle von links</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the place from the top</source>
            <translation>die Stelle von oben</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the pointer speeds</source>
            <translation>die Zeigertempi</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the program with its arguments</source>
            <translation>das Programm mit seinen Argumenten</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the rate</source>
            <translation>die Rate</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the second keyboards</source>
            <translation>die zweiten Tastaturen</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the shorter time</source>
            <translation>die kürzere Zeit</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the size of the screen</source>
            <translation>die Größe des Bildschirms</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the start section</source>
            <translation>der Abschnitt Anfang</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the step</source>
            <translation>der Schritt</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the steps</source>
            <translation>die Schritte</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the takes</source>
            <translation>die Aufnahmen</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the target</source>
            <translation>das Ziel</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the text</source>
            <translation>der Text</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the time</source>
            <translation>die Zeit</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the time after which it ends</source>
            <translation>die Zeit, nach der es endet,</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the time limit</source>
            <translation>die Zeitgrenze</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the time of the move</source>
            <translation>die Zeit der Bewegung</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the tolerance of the path</source>
            <translation>die Toleranz des Pfads</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the trials</source>
            <translation>die Versuche</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the value</source>
            <translation>der Wert</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the variants</source>
            <translation>die Varianten</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the vertical speed</source>
            <translation>das senkrechte Tempo</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the volume</source>
            <translation>die Lautstärke</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the weight</source>
            <translation>das Gewicht</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>the wheel's speed</source>
            <translation>das Tempo des Mausrads</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>what another press does</source>
            <translation>was ein weiterer Druck tut</translation>
        </message>
        <message>
            <location filename="core/model/errors.py" />
            <source>what the buttons do</source>
            <translation>was die Tasten tun</translation>
        </message>
        <message>
            <location filename="core/model/fair_play.py" />
            <source>A press makes {actions} game actions; {allowed}.</source>
            <translation>Ein Druck macht {actions} Aktionen im Spiel; {allowed}.</translation>
        </message>
        <message>
            <location filename="core/model/fair_play.py" />
            <source>A press types {many} characters; this profile's fair-play rule is: {rule}.</source>
            <translation>Ein Druck tippt {many} Zeichen; die Fair-Play-Regel dieses Profils ist: {rule}.</translation>
        </message>
        <message>
            <location filename="core/model/fair_play.py" />
            <source>It repeats by itself, held or not; {allowed}.</source>
            <translation>Es wiederholt sich von selbst, gehalten oder nicht; {allowed}.</translation>
        </message>
        <message>
            <location filename="core/model/fair_play.py" />
            <source>It repeats; {allowed}.</source>
            <translation>Es wiederholt sich; {allowed}.</translation>
        </message>
        <message>
            <location filename="core/model/fair_play.py" />
            <source>It won't play: {allowed}.</source>
            <translation>Es wird nicht gespielt: {allowed}.</translation>
        </message>
        <message>
            <location filename="core/model/fair_play.py" />
            <source>Not applied: this profile's fair-play rule is: {rule}.</source>
            <translation>Nicht übernommen: Die Fair-Play-Regel dieses Profils ist: {rule}.</translation>
        </message>
        <message>
            <location filename="core/model/fair_play.py" />
            <source>anything</source>
            <translation>alles</translation>
        </message>
        <message>
            <location filename="core/model/fair_play.py" />
            <source>no macros</source>
            <translation>keine Makros</translation>
        </message>
        <message>
            <location filename="core/model/fair_play.py" />
            <source>one action a press</source>
            <translation>eine Aktion je Druck</translation>
        </message>
        <message>
            <location filename="core/model/fair_play.py" />
            <source>repeats while held</source>
            <translation>Wiederholung beim Halten</translation>
        </message>
        <message>
            <location filename="core/model/fair_play.py" />
            <source>this profile's fair-play rule is: {rule}</source>
            <translation>die Fair-Play-Regel dieses Profils ist: {rule}</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>a number between two, both included; whole where both are</source>
            <translation>eine Zahl zwischen zweien, beide eingeschlossen; ganz, wo beide ganz sind</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>a number without its sign</source>
            <translation>eine Zahl ohne ihr Vorzeichen</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>asks held for something else than one key or button; write it as held("Left Shift")</source>
            <translation>fragt mit held nach etwas anderem als einer Taste; schreib es als held("Left Shift")</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>calls {name!r}, which is a number; write it without parentheses</source>
            <translation>ruft {name!r} auf, und das ist eine Zahl; schreib sie ohne Klammern</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>can't be read at character {column}; write it as 20 + 5 * run</source>
            <translation>lässt sich ab Zeichen {column} nicht lesen; schreib sie wie 20 + 5 * run</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>can't be read: {reason}</source>
            <translation>lässt sich nicht lesen: {reason}</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>can't be read; write it as 20 + 5 * run</source>
            <translation>lässt sich nicht lesen; schreib sie wie 20 + 5 * run</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>can't have the word {name!r} in it: {how}</source>
            <translation>kann das Wort {name!r} nicht enthalten: {how}</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>can't have {name!r} in it: write a number as 20 or 0.5</source>
            <translation>kann {name!r} nicht enthalten: schreib eine Zahl als 20 oder 0.5</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>can't have {word!r} in it: {how}</source>
            <translation>kann {word!r} nicht enthalten: {how}</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>divides by zero</source>
            <translation>teilt durch null</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>gets a number that is too large</source>
            <translation>bekommt eine zu große Zahl</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>gives {ms:.12g} ms; a time is from 0 to {most} ms</source>
            <translation>ergibt {ms:.12g} ms; eine Zeit geht von 0 bis {most} ms</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>gives {name} {arguments} numbers; it takes {wanted}</source>
            <translation>gibt {name} {arguments} Zahlen; es nimmt {wanted}</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>has a sign in it that can't stand there; write the code of a key instead of #</source>
            <translation>enthält ein Zeichen, das dort nicht stehen kann; schreib statt # den Code einer Taste</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>has no function {name!r}; there are {functions}</source>
            <translation>hat keine Funktion {name!r}; es gibt {functions}</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>has no result</source>
            <translation>hat kein Ergebnis</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>has the function {name!r} without numbers; write it as {example}</source>
            <translation>hat die Funktion {name!r} ohne Zahlen; schreib sie als {example}</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>is empty, or has a space at its beginning or end</source>
            <translation>ist leer oder hat ein Leerzeichen am Anfang oder Ende</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>is longer than {most} characters</source>
            <translation>ist länger als {most} Zeichen</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>milliseconds since the macro started</source>
            <translation>Millisekunden seit dem Start des Makros</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>only arithmetic, comparisons and functions can stand</source>
            <translation>nur Rechnen, Vergleiche und Funktionen können stehen</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>the formula {text!r} {message}</source>
            <translation>die Formel {text!r} {message}</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>the formulas of this macro are too much: all different ones together may have {signs} characters and {parts} numbers, names and operations; write some of them as numbers</source>
            <translation>die Formeln dieses Makros sind zu viel: Alle verschiedenen zusammen dürfen {signs} Zeichen und {parts} Zahlen, Namen und Rechenzeichen haben; schreib manche davon als Zahlen</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>the greatest of some numbers</source>
            <translation>die größte von einigen Zahlen</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>the least of some numbers</source>
            <translation>die kleinste von einigen Zahlen</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>the nearest whole number, or to so many places</source>
            <translation>die nächste ganze Zahl, oder auf so viele Stellen</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>the number of this run, from 1</source>
            <translation>die Nummer dieses Durchlaufs, ab 1</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>the pointer's place from the left, in pixels</source>
            <translation>die Stelle des Zeigers von links, in Pixeln</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>the pointer's place from the top, in pixels</source>
            <translation>die Stelle des Zeigers von oben, in Pixeln</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>use an if step</source>
            <translation>nimm einen if-Schritt</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>whether a key or button is down, as in held("Left Shift")</source>
            <translation>ob eine Taste gedrückt ist, wie in held("Left Shift")</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>write 0</source>
            <translation>schreib 0</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>write 1</source>
            <translation>schreib 1</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>write == to compare</source>
            <translation>schreib == zum Vergleichen</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>write a * a for the square of a</source>
            <translation>schreib a * a für das Quadrat von a</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>write a number as 20 or 0.5</source>
            <translation>schreib eine Zahl als 20 oder 0.5</translation>
        </message>
        <message>
            <location filename="core/model/formulas.py" />
            <source>{least} to {most}</source>
            <translation>{least} bis {most}</translation>
        </message>
        <message>
            <location filename="core/model/game_keys.py" />
            <source> and no </source>
            <translation> und keine </translation>
        </message>
        <message>
            <location filename="core/model/game_keys.py" />
            <source>line {number}: expected a name and a key, found {cells} fields</source>
            <translation>Zeile {number}: erwartet werden ein Name und eine Taste, gefunden wurden {cells} Felder</translation>
        </message>
        <message>
            <location filename="core/model/game_keys.py" />
            <source>line {number}: {key!r} is there twice</source>
            <translation>Zeile {number}: {key!r} ist zweimal da</translation>
        </message>
        <message>
            <location filename="core/model/game_keys.py" />
            <source>line {number}: {reason}</source>
            <translation>Zeile {number}: {reason}</translation>
        </message>
        <message>
            <location filename="core/model/game_keys.py" />
            <source>this is no CSV: {reason}</source>
            <translation>das ist kein CSV: {reason}</translation>
        </message>
        <message>
            <location filename="core/model/game_keys.py" />
            <source>{profile} has no game key {names}; add it to the profile's game keys</source>
            <translation>{profile} hat keine Spieltaste {names}; füge sie den Spieltasten des Profils hinzu</translation>
        </message>
        <message>
            <location filename="core/model/macro.py" />
            <source>N times</source>
            <translation>N-mal</translation>
        </message>
        <message>
            <location filename="core/model/macro.py" />
            <source>Once</source>
            <translation>Einmal</translation>
        </message>
        <message>
            <location filename="core/model/macro.py" />
            <source>Toggle</source>
            <translation>An/Aus</translation>
        </message>
        <message>
            <location filename="core/model/macro.py" />
            <source>While held</source>
            <translation>Halten</translation>
        </message>
        <message>
            <location filename="core/model/macro.py" />
            <source>and what is around it have {steps} steps; {most} at most</source>
            <translation>und was um sie herum ist, haben {steps} Schritte; höchstens {most}</translation>
        </message>
        <message>
            <location filename="core/model/macro.py" />
            <source>{runs} times</source>
            <translation>{runs}-mal</translation>
        </message>
        <message>
            <location filename="core/model/names.py" />
            <source>the quotes are not closed; put them at the end of the name as well</source>
            <translation>die Anführungszeichen sind nicht geschlossen; setz sie auch an das Ende des Namens</translation>
        </message>
        <message>
            <location filename="core/model/names.py" />
            <source>there is no key or button {name!r}; did you mean {near}?</source>
            <translation>es gibt keine Taste {name!r}; war {near} gemeint?</translation>
        </message>
        <message>
            <location filename="core/model/names.py" />
            <source>there is no key or button {name!r}; names are such as Q, Left Shift or Thumb back</source>
            <translation>es gibt keine Taste {name!r}; Namen sind etwa Q, Umschalt links oder Daumen zurück</translation>
        </message>
        <message>
            <location filename="core/model/names.py" />
            <source>which key or button? Write its name, as in: press Left Shift</source>
            <translation>welche Taste? Schreib ihren Namen, wie in: press Left Shift</translation>
        </message>
        <message>
            <location filename="core/model/places.py" />
            <source>this place is counted from a window, and no window is in front whose place is known</source>
            <translation>diese Stelle zählt ab einem Fenster, und es ist keines im Vordergrund, dessen Lage bekannt ist</translation>
        </message>
        <message>
            <location filename="core/model/profile.py" />
            <source>a layer is held by a key or a button, and {code} is a wheel direction</source>
            <translation>eine Ebene wird mit einer Taste gehalten, und {code} ist eine Radrichtung</translation>
        </message>
        <message>
            <location filename="core/model/profile.py" />
            <source>a speed is held by a key or a button, and {code} is a wheel direction</source>
            <translation>ein Tempo wird mit einer Taste gehalten, und {code} ist eine Radrichtung</translation>
        </message>
        <message>
            <location filename="core/model/profile.py" />
            <source>game keys</source>
            <translation>Spieltasten</translation>
        </message>
        <message>
            <location filename="core/model/profile.py" />
            <source>pointer speeds</source>
            <translation>Zeigertempi</translation>
        </message>
        <message>
            <location filename="core/model/profile.py" />
            <source>profile {name!r} has two {what} named {twice!r}; rename one of them</source>
            <translation>Profil {name!r} hat zwei {what} namens {twice!r}; benenne eines davon um</translation>
        </message>
        <message>
            <location filename="core/model/profile.py" />
            <source>the game key {name!r} must be a key or button, not another game key</source>
            <translation>die Spieltaste {name!r} muss eine Taste sein, nicht wieder eine Spieltaste</translation>
        </message>
        <message>
            <location filename="core/model/profile.py" />
            <source>variant {name!r} has no layer {layer!r}, which {code} should hold</source>
            <translation>Variante {name!r} hat keine Ebene {layer!r}, die {code} halten soll</translation>
        </message>
        <message>
            <location filename="core/model/profile.py" />
            <source>variant {name!r} has two layers of the same name; rename one of them</source>
            <translation>Variante {name!r} hat zwei Ebenen gleichen Namens; benenne eine davon um</translation>
        </message>
        <message>
            <location filename="core/model/profile.py" />
            <source>variant {name!r} leaves no way to click: give Left its click back, or let another button act as Left first</source>
            <translation>Variante {name!r} lässt keine Möglichkeit zu klicken: gib der linken Maustaste ihren Klick zurück, oder lass zuerst eine andere Taste als Links wirken</translation>
        </message>
        <message>
            <location filename="core/model/programs.py" />
            <source>command with {rule!r}</source>
            <translation>Befehl mit {rule!r}</translation>
        </message>
        <message>
            <location filename="core/model/programs.py" />
            <source>no linked program runs</source>
            <translation>nichts Verknüpftes läuft</translation>
        </message>
        <message>
            <location filename="core/model/programs.py" />
            <source>pinned</source>
            <translation>angeheftet</translation>
        </message>
        <message>
            <location filename="core/model/programs.py" />
            <source>window {rule}</source>
            <translation>Fenster {rule}</translation>
        </message>
        <message>
            <location filename="core/model/programs.py" />
            <source>{program} is in front</source>
            <translation>{program} ist im Vordergrund</translation>
        </message>
        <message>
            <location filename="core/model/programs.py" />
            <source>{program} runs</source>
            <translation>{program} läuft</translation>
        </message>
        <message>
            <location filename="core/model/step_words.py" />
            <source>combination {keys}</source>
            <translation>Kombination {keys}</translation>
        </message>
        <message>
            <location filename="core/model/step_words.py" />
            <source>comment: {text}</source>
            <translation>Kommentar: {text}</translation>
        </message>
        <message>
            <location filename="core/model/step_words.py" />
            <source>if {condition}</source>
            <translation>wenn {condition}</translation>
        </message>
        <message>
            <location filename="core/model/step_words.py" />
            <source>move by {place}</source>
            <translation>bewegen um {place}</translation>
        </message>
        <message>
            <location filename="core/model/step_words.py" />
            <source>move to {place}</source>
            <translation>bewegen nach {place}</translation>
        </message>
        <message>
            <location filename="core/model/step_words.py" />
            <source>move to {place} in the window</source>
            <translation>bewegen nach {place} im Fenster</translation>
        </message>
        <message>
            <location filename="core/model/step_words.py" />
            <source>open {command}</source>
            <translation>öffnen: {command}</translation>
        </message>
        <message>
            <location filename="core/model/step_words.py" />
            <source>random choice</source>
            <translation>zufällige Wahl</translation>
        </message>
        <message>
            <location filename="core/model/step_words.py" />
            <source>repeat {times} times</source>
            <translation>{times}-mal wiederholen</translation>
        </message>
        <message>
            <location filename="core/model/step_words.py" />
            <source>set {variable} to {value}</source>
            <translation>{variable} auf {value} setzen</translation>
        </message>
        <message>
            <location filename="core/model/step_words.py" />
            <source>tap {control}</source>
            <translation>{control} antippen</translation>
        </message>
        <message>
            <location filename="core/model/step_words.py" />
            <source>type a text</source>
            <translation>einen Text tippen</translation>
        </message>
        <message>
            <location filename="core/model/step_words.py" />
            <source>type the secret {secret}</source>
            <translation>das Geheimnis {secret} tippen</translation>
        </message>
        <message>
            <location filename="core/model/step_words.py" />
            <source>wait {time}</source>
            <translation>warten {time}</translation>
        </message>
        <message>
            <location filename="core/model/step_words.py" />
            <source>wheel down {notches}</source>
            <translation>Rad runter {notches}</translation>
        </message>
        <message>
            <location filename="core/model/step_words.py" />
            <source>wheel left {notches}</source>
            <translation>Rad links {notches}</translation>
        </message>
        <message>
            <location filename="core/model/step_words.py" />
            <source>wheel right {notches}</source>
            <translation>Rad rechts {notches}</translation>
        </message>
        <message>
            <location filename="core/model/step_words.py" />
            <source>wheel up {notches}</source>
            <translation>Rad hoch {notches}</translation>
        </message>
        <message>
            <location filename="core/model/step_words.py" />
            <source>{least} to {most} ms</source>
            <translation>{least} bis {most} ms</translation>
        </message>
        <message>
            <location filename="core/model/steps.py" />
            <source>a random wait goes from the shorter time to the longer one, not from {wait_us} ms to {most_us} ms</source>
            <translation>eine zufällige Wartezeit geht von der kürzeren zur längeren Zeit, nicht von {wait_us} ms bis {most_us} ms</translation>
        </message>
        <message>
            <location filename="core/model/steps.py" />
            <source>a secret text stands in the keyring and not in the macro; leave the text out</source>
            <translation>ein geheimer Text steht im Schlüsselbund und nicht im Makro; lass den Text weg</translation>
        </message>
        <message>
            <location filename="core/model/steps.py" />
            <source>a turn needs Wheel up, Wheel down, Wheel left or Wheel right, not {control}</source>
            <translation>gedreht wird Wheel up, Wheel down, Wheel left oder Wheel right, nicht {control}</translation>
        </message>
        <message>
            <location filename="core/model/steps.py" />
            <source>a {step} needs a key or a button, and {code} is a wheel direction; use a wheel step</source>
            <translation>ein Schritt {step} braucht eine Taste, und {code} ist eine Radrichtung; nimm einen Radschritt</translation>
        </message>
        <message>
            <location filename="core/model/steps.py" />
            <source>an offset is not scaled; leave the size out</source>
            <translation>ein Versatz wird nicht skaliert; lass die Größe weg</translation>
        </message>
        <message>
            <location filename="core/model/steps.py" />
            <source>blocks are nested more than {most} deep; move some into a macro of their own</source>
            <translation>Blöcke sind mehr als {most} tief geschachtelt; gib einigen ein eigenes Makro</translation>
        </message>
        <message>
            <location filename="core/model/steps.py" />
            <source>{variable!r} has a meaning already; choose another name for the variable</source>
            <translation>{variable!r} hat schon eine Bedeutung; nimm einen anderen Namen für die Variable</translation>
        </message>
        <message>
            <location filename="core/model/steps.py" />
            <source>{variable!r} is a word of formulas; choose another name for the variable</source>
            <translation>{variable!r} ist ein Wort der Formeln; nimm einen anderen Namen für die Variable</translation>
        </message>
        <message>
            <location filename="core/model/tuning.py" />
            <source>one button says that it worked and another that it didn't; choose two</source>
            <translation>eine Taste sagt, dass es geklappt hat, und eine andere, dass nicht; wähl zwei</translation>
        </message>
        <message>
            <location filename="core/model/tuning.py" />
            <source>the times to try go from the shorter one to the longer one, 1 ms apart at least</source>
            <translation>die zu versuchenden Zeiten gehen von der kürzeren zur längeren, mindestens 1 ms auseinander</translation>
        </message>
        <message>
            <location filename="core/model/units.py" />
            <source>one run every {cycle} ms</source>
            <translation>ein Durchlauf alle {cycle} ms</translation>
        </message>
        <message>
            <location filename="core/model/units.py" />
            <source>{runs} runs a minute, one every {cycle} ms</source>
            <translation>{runs} Durchläufe in der Minute, alle {cycle} ms einen</translation>
        </message>
        <message>
            <location filename="core/model/units.py" />
            <source>{runs} runs a second, one every {cycle} ms</source>
            <translation>{runs} Durchläufe in der Sekunde, alle {cycle} ms einen</translation>
        </message>
        <message>
            <location filename="core/model/units.py" />
            <source>{runs} runs an hour, one every {cycle} ms</source>
            <translation>{runs} Durchläufe in der Stunde, alle {cycle} ms einen</translation>
        </message>
        <message>
            <location filename="core/model/units.py" />
            <source>{text!r} divides by zero; a rate must be above 0</source>
            <translation>{text!r} teilt durch null; eine Rate muss über 0 liegen</translation>
        </message>
        <message>
            <location filename="core/model/units.py" />
            <source>{text!r} is backwards; write the shorter time first</source>
            <translation>{text!r} ist verkehrt herum; schreib die kürzere Zeit zuerst</translation>
        </message>
        <message>
            <location filename="core/model/units.py" />
            <source>{text!r} is longer than the {most} allowed here</source>
            <translation>{text!r} ist länger als die {most}, die hier erlaubt sind</translation>
        </message>
        <message>
            <location filename="core/model/units.py" />
            <source>{text!r} is not a time; write it as 25, 25ms, 0.4s, 3f@60 or 40/s</source>
            <translation>{text!r} ist keine Zeit; schreib sie als 25, 25ms, 0,4s, 3f@60 oder 40/s</translation>
        </message>
        <message>
            <location filename="core/model/value.py" />
            <source>a layout is written as de or us(intl)</source>
            <translation>ein Layout wird als de oder us(intl) geschrieben</translation>
        </message>
        <message>
            <location filename="core/model/value.py" />
            <source>a program's arguments can't have the character number 0 in them</source>
            <translation>in den Argumenten eines Programms kann das Zeichen Nummer 0 nicht stehen</translation>
        </message>
        <message>
            <location filename="core/model/value.py" />
            <source>are {count}; {least} at least</source>
            <translation>sind {count}; mindestens {least}</translation>
        </message>
        <message>
            <location filename="core/model/value.py" />
            <source>are {count}; {most} at most</source>
            <translation>sind {count}; höchstens {most}</translation>
        </message>
        <message>
            <location filename="core/model/value.py" />
            <source>at least {low}</source>
            <translation>mindestens {low}</translation>
        </message>
        <message>
            <location filename="core/model/value.py" />
            <source>at most {high}</source>
            <translation>höchstens {high}</translation>
        </message>
        <message>
            <location filename="core/model/value.py" />
            <source>has half a character in it ({value!r}); take that out</source>
            <translation>enthält ein halbes Zeichen ({value!r}); nimm es heraus</translation>
        </message>
        <message>
            <location filename="core/model/value.py" />
            <source>has {count} characters; it can have {most} at most</source>
            <translation>hat {count} Zeichen; höchstens {most} sind möglich</translation>
        </message>
        <message>
            <location filename="core/model/value.py" />
            <source>is empty; write something</source>
            <translation>ist leer; schreib etwas</translation>
        </message>
        <message>
            <location filename="core/model/value.py" />
            <source>is {value!r}; it can be {values}</source>
            <translation>ist {value!r}; möglich ist {values}</translation>
        </message>
        <message>
            <location filename="core/model/value.py" />
            <source>is {value}; it can be {allowed}</source>
            <translation>ist {value}; möglich ist {allowed}</translation>
        </message>
        <message>
            <location filename="core/model/value.py" />
            <source>is {value}; {reason}</source>
            <translation>ist {value}; {reason}</translation>
        </message>
        <message>
            <location filename="core/model/value.py" />
            <source>it can have up to 40 letters, digits and _, and begins with a letter or _</source>
            <translation>möglich sind bis zu 40 Buchstaben, Ziffern und _, mit einem Buchstaben oder _ am Anfang</translation>
        </message>
        <message>
            <location filename="core/model/value.py" />
            <source>it can't have / or control characters in it</source>
            <translation>/ und Steuerzeichen sind darin nicht möglich</translation>
        </message>
        <message>
            <location filename="core/model/value.py" />
            <source>write a colour as #4A6FA5</source>
            <translation>schreib eine Farbe als #4A6FA5</translation>
        </message>
        <message>
            <location filename="core/model/value.py" />
            <source>write a colour as #4A6FA5, or nothing</source>
            <translation>schreib eine Farbe als #4A6FA5 oder nichts</translation>
        </message>
        <message>
            <location filename="core/notation/lines.py" />
            <source>a \ in quotes stands before ", \, n or t only; write \\ for one that is meant</source>
            <translation>ein \ in Anführungszeichen steht nur vor ", \, n oder t; schreib \\, wo eines gemeint ist</translation>
        </message>
        <message>
            <location filename="core/notation/lines.py" />
            <source>expected nothing more after the quotes</source>
            <translation>nach den Anführungszeichen sollte nichts mehr kommen</translation>
        </message>
        <message>
            <location filename="core/notation/lines.py" />
            <source>indent with spaces, not with tabs</source>
            <translation>rück mit Leerzeichen ein, nicht mit Tabulatoren</translation>
        </message>
        <message>
            <location filename="core/notation/lines.py" />
            <source>line {line}, column {column}: {message}</source>
            <translation>Zeile {line}, Spalte {column}: {message}</translation>
        </message>
        <message>
            <location filename="core/notation/lines.py" />
            <source>the quotes are not closed; put them at the end of the text as well</source>
            <translation>die Anführungszeichen sind nicht geschlossen; setz sie auch an das Ende des Textes</translation>
        </message>
        <message>
            <location filename="core/notation/lines.py" />
            <source>there is a sign in the quotes that can't stand there; take it out</source>
            <translation>in den Anführungszeichen ist ein Zeichen, das dort nicht stehen kann; nimm es heraus</translation>
        </message>
        <message>
            <location filename="core/notation/read.py" />
            <source>blocks are nested more than {most} deep</source>
            <translation>Blöcke sind mehr als {most} tief geschachtelt</translation>
        </message>
        <message>
            <location filename="core/notation/read.py" />
            <source>expected 'option:' or 'option of weight 3:', one below the other, with the steps indented below each</source>
            <translation>erwartet wird 'option:' oder 'option of weight 3:', eines unter dem anderen, mit den Schritten eingerückt unter jedem</translation>
        </message>
        <message>
            <location filename="core/notation/read.py" />
            <source>expected a condition and a colon, as in: if run &gt; 3:</source>
            <translation>erwartet werden eine Bedingung und ein Doppelpunkt, wie in: if run &gt; 3:</translation>
        </message>
        <message>
            <location filename="core/notation/read.py" />
            <source>expected a number and 'times:', as in: repeat 3 times:</source>
            <translation>erwartet werden eine Zahl und 'times:', wie in: repeat 3 times:</translation>
        </message>
        <message>
            <location filename="core/notation/read.py" />
            <source>expected nothing more after the quotes, or a # and a comment</source>
            <translation>nach den Anführungszeichen sollte nichts mehr kommen, oder ein # und ein Kommentar</translation>
        </message>
        <message>
            <location filename="core/notation/read.py" />
            <source>nothing to pick from; indent 'option:' below it, and steps below that</source>
            <translation>nichts zur Auswahl; rück darunter 'option:' ein, und darunter Schritte</translation>
        </message>
        <message>
            <location filename="core/notation/read.py" />
            <source>the section {word} is there twice; put its steps together</source>
            <translation>den Abschnitt {word} gibt es zweimal; stell seine Schritte zusammen</translation>
        </message>
        <message>
            <location filename="core/notation/read.py" />
            <source>these steps belong to no section; indent them below start, loop or end</source>
            <translation>diese Schritte gehören zu keinem Abschnitt; rück sie unter start, loop oder end ein</translation>
        </message>
        <message>
            <location filename="core/notation/read.py" />
            <source>this line is indented by {found}, the ones before it by {wanted}</source>
            <translation>diese Zeile ist um {found} eingerückt, die davor um {wanted}</translation>
        </message>
        <message>
            <location filename="core/notation/read.py" />
            <source>{statement!r} belongs below 'random choice:', indented deeper</source>
            <translation>{statement!r} gehört unter 'random choice:', tiefer eingerückt</translation>
        </message>
        <message>
            <location filename="core/notation/read.py" />
            <source>{statement!r} belongs below an if, indented like it</source>
            <translation>{statement!r} gehört unter ein if, eingerückt wie dieses</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>a parenthesis is not closed</source>
            <translation>eine Klammer ist nicht geschlossen</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>by how many notches? Write it as: turn Wheel up by 2</source>
            <translation>um wie viele Rasten? Schreib es als: turn Wheel up by 2</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>expected 'for' and a time, as in: tap Q for 50 ms</source>
            <translation>erwartet werden 'for' und eine Zeit, wie in: tap Q for 50 ms</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>expected 'to' and a formula, as in: set count to count + 1</source>
            <translation>erwartet werden 'to' und eine Formel, wie in: set count to count + 1</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>expected 'to' or 'by' and two numbers, as in: move to 640, 400</source>
            <translation>erwartet werden 'to' oder 'by' und zwei Zahlen, wie in: move to 640, 400</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>expected a colon, as in: {line}</source>
            <translation>erwartet wird ein Doppelpunkt, wie in: {line}</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>expected a text in quotes</source>
            <translation>erwartet wird ein Text in Anführungszeichen</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>expected a text in quotes, as in: type "Good evening" at 30/s</source>
            <translation>erwartet wird ein Text in Anführungszeichen, wie in: type "Good evening" at 30/s</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>expected nothing more, or how fast, as in: at 30/s</source>
            <translation>erwartet wird nichts mehr, oder wie schnell, wie in: at 30/s</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>expected nothing more, or: on a screen of 1920 x 1080, in the window, over 200 ms</source>
            <translation>erwartet wird nichts mehr, oder: on a screen of 1920 x 1080, in the window, over 200 ms</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>expected two numbers with a comma between them, as in: move to 640, 400</source>
            <translation>erwartet werden zwei Zahlen mit einem Komma dazwischen, wie in: move to 640, 400</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>expected two whole numbers, as in: move to 640, 400</source>
            <translation>erwartet werden zwei ganze Zahlen, wie in: move to 640, 400</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>how long? Write it as: wait 25 ms, or wait 2 to 5 s</source>
            <translation>wie lange? Schreib es als: wait 25 ms, oder wait 2 to 5 s</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>skip what? Write the step after it, as in: skip tap Q for 50 ms</source>
            <translation>was überspringen? Schreib den Schritt dahinter, wie in: skip tap Q for 50 ms</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>tap, press, release, wait, turn, move, type, open, set, repeat, if, random choice, skip, a # and a comment, or a section</source>
            <translation>tap, press, release, wait, turn, move, type, open, set, repeat, if, random choice, skip, ein # und ein Kommentar, oder ein Abschnitt</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>the secret needs a name</source>
            <translation>das Geheimnis braucht einen Namen</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>which key or button? Write it as: tap Q for 50 ms</source>
            <translation>welche Taste? Schreib es als: tap Q for 50 ms</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>which program? Write it as: open firefox</source>
            <translation>welches Programm? Schreib es als: open firefox</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>which way? Write it as: turn Wheel up by 2</source>
            <translation>in welche Richtung? Schreib es als: turn Wheel up by 2</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>{text!r} is no whole number from 1 to {most}; write one, or a formula in parentheses</source>
            <translation>{text!r} ist keine ganze Zahl von 1 bis {most}; schreib eine oder eine Formel in Klammern</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>{text!r} is not a time; a formula gives milliseconds and is written as (20 + run) ms</source>
            <translation>{text!r} ist keine Zeit; eine Formel ergibt Millisekunden und wird als (20 + run) ms geschrieben</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>{word!r} starts no step; did you mean {near}?</source>
            <translation>{word!r} beginnt keinen Schritt; war {near} gemeint?</translation>
        </message>
        <message>
            <location filename="core/notation/statements.py" />
            <source>{word!r} starts no step; expected {starts}</source>
            <translation>{word!r} beginnt keinen Schritt; erwartet wird {starts}</translation>
        </message>
        <message>
            <location filename="core/play/engine.py" />
            <source>device unplugged</source>
            <translation>Gerät abgezogen</translation>
        </message>
        <message>
            <location filename="core/play/engine.py" />
            <source>edited</source>
            <translation>bearbeitet</translation>
        </message>
        <message>
            <location filename="core/play/engine.py" />
            <source>finished</source>
            <translation>fertig</translation>
        </message>
        <message>
            <location filename="core/play/engine.py" />
            <source>pressed again</source>
            <translation>noch einmal gedrückt</translation>
        </message>
        <message>
            <location filename="core/play/engine.py" />
            <source>released</source>
            <translation>losgelassen</translation>
        </message>
        <message>
            <location filename="core/play/engine.py" />
            <source>restarted</source>
            <translation>neu begonnen</translation>
        </message>
        <message>
            <location filename="core/play/engine.py" />
            <source>stopped</source>
            <translation>gestoppt</translation>
        </message>
        <message>
            <location filename="core/play/player.py" />
            <source>and the others leave no option: every weight is 0</source>
            <translation>und die übrigen lassen keine Möglichkeit: Jedes Gewicht ist 0</translation>
        </message>
        <message>
            <location filename="core/play/recorder.py" />
            <source>completed: was down at the beginning</source>
            <translation>ergänzt: war am Anfang schon gedrückt</translation>
        </message>
        <message>
            <location filename="core/play/recorder.py" />
            <source>completed: was still down at the end</source>
            <translation>ergänzt: war am Ende noch gedrückt</translation>
        </message>
        <message>
            <location filename="core/play/simulate.py" />
            <source>it works out formulas on and on and nothing comes of it; repeat less in it</source>
            <translation>es rechnet immer weiter Formeln aus, ohne dass etwas geschieht; wiederhole weniger darin</translation>
        </message>
        <message>
            <location filename="core/play/simulate.py" />
            <source>its time limit of {limit} ms</source>
            <translation>seine Zeitgrenze von {limit} ms</translation>
        </message>
        <message>
            <location filename="core/play/simulate.py" />
            <source>more than {most} moments at which something is due; repeat less in it</source>
            <translation>mehr als {most} Zeitpunkte, an denen etwas fällig ist; wiederhole weniger darin</translation>
        </message>
        <message>
            <location filename="core/play/simulate.py" />
            <source>this plan has more than {most} events; ask for fewer runs, or repeat less in it</source>
            <translation>dieser Plan hat mehr als {most} Ereignisse; verlang weniger Durchläufe, oder wiederhole weniger darin</translation>
        </message>
        <message>
            <location filename="cues/overlay.py" />
            <source>Nakrel says</source>
            <translation>Nakrel sagt</translation>
        </message>
        <message>
            <location filename="desktop/install.py" />
            <source>Nakrel came with a package of the system; remove it with:  sudo apt-get remove nakrel</source>
            <translation>Nakrel kam mit einem Paket des Systems; entferne es mit:  sudo apt-get remove nakrel</translation>
        </message>
        <message>
            <location filename="desktop/install.py" />
            <source>Nakrel is installed for all users of this computer; everything is in its place</source>
            <translation>Nakrel ist für alle Benutzer dieses Rechners installiert; alles ist an seinem Platz</translation>
        </message>
        <message>
            <location filename="desktop/install.py" />
            <source>Nakrel isn't installed for you, so there is nothing to take back</source>
            <translation>Nakrel ist für dich nicht installiert, also gibt es nichts zurückzunehmen</translation>
        </message>
        <message>
            <location filename="desktop/install.py" />
            <source>{filename}: {reason}; try again when that is mended</source>
            <translation>{filename}: {reason}; versuch es noch einmal, wenn das behoben ist</translation>
        </message>
        <message>
            <location filename="desktop/install.py" />
            <source>{launcher} was there already and is left as it is</source>
            <translation>{launcher} war schon da und bleibt, wie es ist</translation>
        </message>
        <message>
            <location filename="desktop/install.py" />
            <source>{programs} is not in your search path yet: log out and in, or type the whole path</source>
            <translation>{programs} ist noch nicht in deinem Suchpfad: melde dich neu an, oder tipp den ganzen Pfad</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>0 where all went well, 1 where something was refused or can't be done; standard error says what and why. 2 where the command itself isn't understood. plan and doctor say with 1 that a plan ends early, or that something is broken.</source>
            <translation>0, wenn alles gut ging; 1, wenn etwas abgelehnt wurde oder nicht geht: Was und warum, steht in der Fehlerausgabe; 2, wenn schon der Befehl nicht verstanden wurde. plan und doctor sagen mit 1, dass ein Plan vorzeitig endet oder dass etwas kaputt ist.</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>A small window that looks at its input once a frame, as games do, and shows which presses it saw and which it lost. Its rules can be chosen, and it says for each attempt whether that worked.</source>
            <translation>Ein kleines Fenster, das wie ein Spiel einmal je Frame auf seine Eingaben schaut und zeigt, welche Tastendrücke es gesehen hat und welche ihm entgangen sind. Seine Regeln lassen sich wählen, und es sagt zu jedem Versuch, ob er geklappt hat.</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>COMMANDS</source>
            <comment>manual</comment>
            <translation>BEFEHLE</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>DESCRIPTION</source>
            <comment>manual</comment>
            <translation>BESCHREIBUNG</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>ENVIRONMENT</source>
            <comment>manual</comment>
            <translation>UMGEBUNGSVARIABLEN</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>EXIT STATUS</source>
            <comment>manual</comment>
            <translation>EXIT-STATUS</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>FILES</source>
            <comment>manual</comment>
            <translation>DATEIEN</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>NAME</source>
            <comment>manual</comment>
            <translation>BEZEICHNUNG</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>Nakrel records keys, clicks, the wheel and the pointer, plays them again to the millisecond, and attaches them to buttons in a profile for each game, which loads when the game starts.</source>
            <translation>Nakrel zeichnet Tasten, Klicks, Mausrad und Zeiger auf, spielt sie auf die Millisekunde genau wieder ab und legt sie je Spiel in einem Profil auf Tasten; das Profil lädt, wenn das Spiel startet.</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>OPTIONS</source>
            <comment>manual</comment>
            <translation>OPTIONEN</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>SEE ALSO</source>
            <comment>manual</comment>
            <translation>SIEHE AUCH</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>SYNOPSIS</source>
            <comment>manual</comment>
            <translation>ÜBERSICHT</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>User Commands</source>
            <comment>manual</comment>
            <translation>Dienstprogramme für Benutzer</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>Without a command the window opens. A service in the background does the work; it is started where it doesn't run.</source>
            <translation>Ohne Befehl öffnet sich das Fenster. Die Arbeit tut ein Dienst im Hintergrund; läuft er nicht, wird er gestartet.</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>a window that behaves like a game, to practise timing</source>
            <translation>ein Fenster, das sich wie ein Spiel verhält, um Timing zu üben</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>keep everything in this folder instead, as with --home</source>
            <translation>alles in diesem Ordner halten, wie mit --home</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>profiles, macros and settings, as JSON</source>
            <translation>Profile, Makros und Einstellungen, als JSON</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>record, time and attach keystroke and click macros, per game</source>
            <translation>Tasten- und Klickmakros je Spiel aufzeichnen, timen und belegen</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>the journal, earlier versions, takes and logs</source>
            <translation>das Protokoll, frühere Fassungen, Aufnahmen und Logdateien</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>the language of all texts, en or de; without it, that of the session</source>
            <translation>die Sprache aller Texte, en oder de; ohne Angabe die der Sitzung</translation>
        </message>
        <message>
            <location filename="desktop_data.py" />
            <source>the socket of the service</source>
            <translation>der Socket des Dienstes</translation>
        </message>
        <message>
            <location filename="practice/__main__.py" />
            <source>'A B 40 90'</source>
            <comment>value</comment>
            <translation>'A B 40 90'</translation>
        </message>
        <message>
            <location filename="practice/__main__.py" />
            <source>A practice game that shows what a game sees of your presses.</source>
            <translation>Ein Übungsspiel, das zeigt, was ein Spiel von deinen Tastendrücken sieht.</translation>
        </message>
        <message>
            <location filename="practice/__main__.py" />
            <source>A press counts when it is held so long.</source>
            <translation>Ein Druck zählt, wenn er so lange gehalten wird.</translation>
        </message>
        <message>
            <location filename="practice/__main__.py" />
            <source>B counts only from 40 to 90 ms after A.</source>
            <translation>B zählt nur 40 bis 90 ms nach A.</translation>
        </message>
        <message>
            <location filename="practice/__main__.py" />
            <source>How much the frame times vary.</source>
            <translation>Wie sehr die Framezeiten schwanken.</translation>
        </message>
        <message>
            <location filename="practice/__main__.py" />
            <source>It goes by the events' own times, and not by frames.</source>
            <translation>Es geht nach den Zeiten der Ereignisse und nicht nach Frames.</translation>
        </message>
        <message>
            <location filename="practice/__main__.py" />
            <source>Nothing counts so soon after a press.</source>
            <translation>So kurz nach einem Druck zählt nichts.</translation>
        </message>
        <message>
            <location filename="practice/__main__.py" />
            <source>Practice game</source>
            <translation>Übungsspiel</translation>
        </message>
        <message>
            <location filename="practice/__main__.py" />
            <source>Tell Nakrel of each attempt whether it worked.</source>
            <translation>Nakrel zu jedem Versuch sagen, ob er geklappt hat.</translation>
        </message>
        <message>
            <location filename="practice/__main__.py" />
            <source>The process's name, as if it were another game.</source>
            <translation>Der Name des Prozesses, als wäre es ein anderes Spiel.</translation>
        </message>
        <message>
            <location filename="practice/__main__.py" />
            <source>The window's title.</source>
            <translation>Der Titel des Fensters.</translation>
        </message>
        <message>
            <location filename="practice/__main__.py" />
            <source>Ticks a second of its server: it looks then.</source>
            <translation>Ticks seines Servers in der Sekunde: Dann schaut es hin.</translation>
        </message>
        <message>
            <location filename="practice/__main__.py" />
            <source>Where Nakrel keeps everything, if not in the XDG folders.</source>
            <translation>Wo Nakrel alles hält, wenn nicht in den XDG-Ordnern.</translation>
        </message>
        <message>
            <location filename="practice/__main__.py" />
            <source>Write what arrives and what is seen to this file, a JSON object a line.</source>
            <translation>In diese Datei schreiben, was ankommt und was gesehen wird, ein JSON-Objekt je Zeile.</translation>
        </message>
        <message>
            <location filename="practice/rules.py" />
            <source>; </source>
            <translation>; </translation>
        </message>
        <message>
            <location filename="practice/rules.py" />
            <source>a pair is two keys or buttons and two times in milliseconds, such as 'A B 40 90'</source>
            <translation>ein Paar sind zwei Tasten und zwei Zeiten in Millisekunden, etwa 'A B 40 90'</translation>
        </message>
        <message>
            <location filename="practice/rules.py" />
            <source>the times of a pair go from the shorter to the longer one, not from {least} to {most}</source>
            <translation>die Zeiten eines Paars gehen von der kürzeren zur längeren, nicht von {least} bis {most}</translation>
        </message>
        <message>
            <location filename="practice/rules.py" />
            <source>{control} came {time} after a press</source>
            <translation>{control} kam {time} nach einem Druck</translation>
        </message>
        <message>
            <location filename="practice/rules.py" />
            <source>{control} was held for {time}</source>
            <translation>{control} wurde {time} lang gehalten</translation>
        </message>
        <message>
            <location filename="practice/rules.py" />
            <source>{then} came without {first}</source>
            <translation>{then} kam ohne {first}</translation>
        </message>
        <message>
            <location filename="practice/rules.py" />
            <source>{then} came {time} after {first}</source>
            <translation>{then} kam {time} nach {first}</translation>
        </message>
        <message>
            <location filename="practice/rules.py" />
            <source>{then} never came</source>
            <translation>{then} kam nie</translation>
        </message>
        <message>
            <location filename="practice/window.py" />
            <source>key {number}</source>
            <translation>Taste {number}</translation>
        </message>
        <message>
            <location filename="practice/window.py" />
            <source>the last attempt: it didn't work: {reason}</source>
            <translation>der letzte Versuch: hat nicht geklappt: {reason}</translation>
        </message>
        <message>
            <location filename="practice/window.py" />
            <source>the last attempt: it worked</source>
            <translation>der letzte Versuch: hat geklappt</translation>
        </message>
        <message>
            <location filename="practice/window.py" />
            <source>{fps} frames/s · {presses}, {seen} seen by a frame, {lost} lost
down now: {down}</source>
            <translation>{fps} Frames/s · {presses}, {seen} von einem Frame gesehen, {lost} verloren
jetzt gedrückt: {down}</translation>
        </message>
        <message numerus="yes">
            <location filename="practice/window.py" />
            <source>{n} presses arrived</source>
            <translation>
                <numerusform>{n} Druck angekommen</numerusform>
                <numerusform>{n} Drücke angekommen</numerusform>
            </translation>
        </message>
        <message numerus="yes">
            <location filename="practice/window.py" />
            <source>{n} presses in the last second</source>
            <translation>
                <numerusform>{n} Druck in der letzten Sekunde</numerusform>
                <numerusform>{n} Drücke in der letzten Sekunde</numerusform>
            </translation>
        </message>
        <message>
            <location filename="private.py" />
            <source>{path} isn't a folder of yours (it is a link, or another user's), and somebody might listen there; remove it, or log in anew so that the system gives you a folder of your own ($XDG_RUNTIME_DIR)</source>
            <translation>{path} ist kein Ordner von dir (es ist ein Link oder gehört einem anderen Benutzer), und jemand könnte dort mithören; entferne ihn, oder melde dich neu an, damit das System dir einen eigenen Ordner gibt ($XDG_RUNTIME_DIR)</translation>
        </message>
        <message>
            <location filename="protocol/wire.py" />
            <source>a message's number is from 1 to {most}</source>
            <translation>die Nummer einer Nachricht geht von 1 bis {most}</translation>
        </message>
        <message>
            <location filename="reading.py" />
            <source>can't be read: its name has a NUL in it</source>
            <translation>lässt sich nicht lesen: sein Name enthält ein NUL</translation>
        </message>
        <message>
            <location filename="reading.py" />
            <source>it is no ordinary file</source>
            <translation>es ist keine gewöhnliche Datei</translation>
        </message>
        <message>
            <location filename="reading.py" />
            <source>larger than {limit}</source>
            <translation>größer als {limit}</translation>
        </message>
        <message>
            <location filename="reading.py" />
            <source>{most} bytes</source>
            <translation>{most} Bytes</translation>
        </message>
        <message>
            <location filename="rights.py" />
            <source>Nakrel doesn't run as root: its macros could do anything to this machine. Start it as the user who plays; `nakrel doctor` says what that user needs. To run it as root all the same, set {as_root}=1</source>
            <translation>Nakrel läuft nicht als root: Seine Makros könnten mit diesem Rechner alles tun. Starte es als der Benutzer, der spielt; `nakrel doctor` sagt, was dieser braucht. Um es trotzdem als root zu starten, setz {as_root}=1</translation>
        </message>
        <message>
            <location filename="service/cues.py" />
            <source>{name} is off</source>
            <translation>{name} ist aus</translation>
        </message>
        <message>
            <location filename="service/cues.py" />
            <source>{name} is on</source>
            <translation>{name} ist an</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>/dev/uinput can't be written by this user</source>
            <translation>/dev/uinput ist für diesen Benutzer nicht schreibbar</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>Nakrel runs as an ordinary user</source>
            <translation>Nakrel läuft als gewöhnlicher Benutzer</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>X server</source>
            <comment>check</comment>
            <translation>X-Server</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>a real-time priority may be asked for</source>
            <translation>eine Echtzeitpriorität ist zu haben</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>attached buttons can't be seen, or kept from the game, through the kernel</source>
            <translation>belegte Tasten sind durch den Kernel nicht zu sehen und dem Spiel nicht vorzuenthalten</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>captured mice</source>
            <comment>check</comment>
            <translation>abgefangene Mäuse</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>fast clicks</source>
            <comment>check</comment>
            <translation>schnelle Klicks</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>fix the problems above; then press Check again for kernel input on the Devices page</source>
            <translation>behebe die Probleme oben; drück dann auf der Seite Geräte auf „Kernel-Eingaben erneut prüfen“</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>input devices</source>
            <comment>check</comment>
            <translation>Eingabegeräte</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>install your desktop's keyring (gnome-keyring or kwalletmanager)</source>
            <translation>installiere den Schlüsselbund deines Desktops (gnome-keyring oder kwalletmanager)</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>it can lose clicks that come within 10 ms of each other; keys aren't concerned</source>
            <translation>er kann Klicks verlieren, die innerhalb von 10 ms aufeinander folgen; Tasten der Tastatur nicht</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>it can't be used in place of the kernel's input</source>
            <translation>er kann die Kernel-Eingaben nicht ersetzen</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>it looks at each click before the window in front gets it</source>
            <translation>er sieht sich jeden Klick an, bevor das Fenster im Vordergrund ihn bekommt</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>it starts with the window or any command</source>
            <translation>er startet mit dem Fenster oder mit jedem Befehl</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>keyboard layout</source>
            <comment>check</comment>
            <translation>Tastaturbelegung</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>keyring</source>
            <comment>check</comment>
            <translation>Schlüsselbund</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>let 10 ms pass from click to click</source>
            <translation>lass von Klick zu Klick 10 ms vergehen</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>macros and the programs that they open would have every right on this machine</source>
            <translation>Makros und die Programme, die sie öffnen, hätten jedes Recht auf diesem Rechner</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>no key and no button can be seen through the kernel</source>
            <translation>keine Taste ist durch den Kernel zu sehen</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>no keyring answers to org.freedesktop.secrets</source>
            <translation>auf org.freedesktop.secrets antwortet kein Schlüsselbund</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>no real-time priority for this user</source>
            <translation>keine Echtzeitpriorität für diesen Benutzer</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>no service runs</source>
            <translation>es läuft kein Dienst</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>none ($DISPLAY is empty)</source>
            <translation>keiner ($DISPLAY ist leer)</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>none of the {nodes} devices under /dev/input can be read by this user</source>
            <translation>von den {nodes} Geräten unter /dev/input kann dieser Benutzer keines lesen</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>on a busy machine a macro's events may be some milliseconds late</source>
            <translation>auf einem beschäftigten Rechner können die Ereignisse eines Makros einige Millisekunden zu spät kommen</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>only the kernel's input reaches all windows here; the X server of such a session reaches X programs alone</source>
            <translation>nur die Kernel-Eingaben erreichen hier alle Fenster; der X-Server einer solchen Sitzung erreicht nur X-Programme</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>plug in a keyboard or a mouse; in a container, hand /dev/input to it</source>
            <translation>steck eine Tastatur oder eine Maus ein; gib einem Container /dev/input</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>priority</source>
            <comment>check</comment>
            <translation>Priorität</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>run Nakrel as the user who plays</source>
            <translation>starte Nakrel als der Benutzer, der spielt</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>secret texts of macros have nowhere to be kept; all else works</source>
            <translation>geheime Texte von Makros haben keinen Platz; alles andere geht</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>service</source>
            <comment>check</comment>
            <translation>Dienst</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>session</source>
            <comment>check</comment>
            <translation>Sitzung</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>set one on the Devices page</source>
            <translation>stell auf der Seite Geräte eine ein</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>texts are typed for {shown}, from {source}</source>
            <translation>Texte werden für {shown} getippt, nach {source}</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>texts can't be typed</source>
            <translation>Texte lassen sich nicht tippen</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>the desktop has a keyring (org.freedesktop.secrets)</source>
            <translation>der Desktop hat einen Schlüsselbund (org.freedesktop.secrets)</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>the desktop is told that our clicks are no bouncing switch</source>
            <translation>der Desktop weiß, dass unsere Klicks kein prellender Schalter sind</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>the kernel shows no input device: there is nothing under /dev/input</source>
            <translation>der Kernel zeigt kein Eingabegerät: unter /dev/input ist nichts</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>the kernel's input</source>
            <translation>die Kernel-Eingaben</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>the kernel's module uinput is loaded, and /dev/uinput can be written</source>
            <translation>das Kernelmodul uinput ist geladen, und /dev/uinput ist schreibbar</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>the kernel's module uinput isn't loaded: there is no /dev/uinput</source>
            <translation>das Kernelmodul uinput ist nicht geladen: es gibt kein /dev/uinput</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>the pointer may be faster or slower then, with mice whose resolution the system knows</source>
            <translation>der Zeiger kann dann schneller oder langsamer sein, bei Mäusen, deren Auflösung das System kennt</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>the rules are installed ({rules_path}) but give nothing to this session: sit at the machine itself (they don't count over the network), or log out and in; without logind, add this user to the group input and give /dev/uinput to that group</source>
            <translation>die Regeln sind installiert ({rules_path}), geben dieser Sitzung aber nichts: setz dich an den Rechner selbst (übers Netz gelten sie nicht), oder melde dich ab und an; ohne logind nimm diesen Benutzer in die Gruppe input auf und gib /dev/uinput dieser Gruppe</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>the service runs and reaches no window</source>
            <translation>der Dienst läuft und erreicht kein Fenster</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>the service runs, through {route}</source>
            <translation>der Dienst läuft, über {route}</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>there is no graphical session here ({kind})</source>
            <translation>hier ist keine grafische Sitzung ({kind})</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>there is no session bus, and so no keyring</source>
            <translation>es gibt keinen Sitzungsbus, also auch keinen Schlüsselbund</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>this is a Wayland session</source>
            <translation>das ist eine Wayland-Sitzung</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>this is an X11 session</source>
            <translation>das ist eine X11-Sitzung</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>this is root</source>
            <translation>das ist root</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>through the kernel's input, desktops with libinput leave out clicks that come within 25 ms of each other; keys aren't concerned</source>
            <translation>bei Kernel-Eingaben lassen Desktops mit libinput Klicks weg, die innerhalb von 25 ms aufeinander folgen; Tasten der Tastatur nicht</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>to allow it:  echo "$USER - rtprio 10" | sudo tee /etc/security/limits.d/nakrel.conf</source>
            <translation>um sie zu erlauben:  echo "$USER - rtprio 10" | sudo tee /etc/security/limits.d/nakrel.conf</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>type unknown</source>
            <translation>Art unbekannt</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>user</source>
            <comment>check</comment>
            <translation>Benutzer</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>virtual devices</source>
            <comment>check</comment>
            <translation>virtuelle Geräte</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>what the system knows of a mouse counts while it is captured, too</source>
            <translation>was das System über eine Maus weiß, zählt auch, solange sie abgefangen ist</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>what the system knows of a mouse doesn't count while it is captured</source>
            <translation>was das System über eine Maus weiß, zählt nicht, solange sie abgefangen ist</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>which window is in front can't be seen, so the linked program started last has the say</source>
            <translation>es ist nicht zu sehen, welches Fenster im Vordergrund ist, also entscheidet das zuletzt gestartete verknüpfte Programm</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>window manager</source>
            <comment>check</comment>
            <translation>Fensterverwaltung</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>without it the kernel's input is the only way</source>
            <translation>ohne ihn gehen nur Kernel-Eingaben</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>without virtual devices macros can reach programs only through the X server, if there is one</source>
            <translation>ohne virtuelle Geräte erreichen Makros Programme nur durch den X-Server, wenn es einen gibt</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>xhost, or log in again</source>
            <translation>xhost, oder melde dich neu an</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>{environment} answers, with XInput 2.2 and XTEST</source>
            <translation>{environment} antwortet, mit XInput 2.2 und XTEST</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>{fix}, then log out and in</source>
            <translation>{fix}, dann ab- und anmelden</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>{quirks_path} doesn't name our virtual mouse</source>
            <translation>{quirks_path} nennt unsere virtuelle Maus nicht</translation>
        </message>
        <message>
            <location filename="service/doctor.py" />
            <source>{readable} of {nodes} devices can be read</source>
            <translation>{readable} von {nodes} Geräten sind lesbar</translation>
        </message>
        <message>
            <location filename="service/live.py" />
            <source>none</source>
            <translation>keine</translation>
        </message>
        <message>
            <location filename="service/live.py" />
            <source>pressed in a notice</source>
            <translation>in einer Benachrichtigung gedrückt</translation>
        </message>
        <message>
            <location filename="service/live.py" />
            <source>the service started</source>
            <translation>der Dienst ist gestartet</translation>
        </message>
        <message>
            <location filename="service/live.py" />
            <source>variant switched</source>
            <translation>Variante gewechselt</translation>
        </message>
        <message>
            <location filename="service/live.py" />
            <source>{control} changes no speed: {reason}.</source>
            <translation>{control} ändert kein Tempo: {reason}.</translation>
        </message>
        <message>
            <location filename="service/live.py" />
            <source>{control} pressed</source>
            <translation>{control} gedrückt</translation>
        </message>
        <message>
            <location filename="service/live.py" />
            <source>{macro} can't play: {reason}.</source>
            <translation>{macro} kann nicht spielen: {reason}.</translation>
        </message>
        <message>
            <location filename="service/live.py" />
            <source>{name} is live</source>
            <translation>{name} ist aktiv</translation>
        </message>
        <message>
            <location filename="service/live.py" />
            <source>{profile} has no pointer speed {to!r}; it has {names}</source>
            <translation>{profile} hat kein Zeigertempo {to!r}; es hat {names}</translation>
        </message>
        <message>
            <location filename="service/live.py" />
            <source>{profile} has no variant {setup!r}; it has {names}</source>
            <translation>{profile} hat keine Variante {setup!r}; es hat {names}</translation>
        </message>
        <message>
            <location filename="service/measuring.py" />
            <source>another device is being measured; try again in a few seconds</source>
            <translation>gerade wird ein anderes Gerät gemessen; versuch es in ein paar Sekunden wieder</translation>
        </message>
        <message>
            <location filename="service/measuring.py" />
            <source>devices aren't read through the kernel, so their reports can't be timed here</source>
            <translation>die Geräte werden nicht durch den Kernel gelesen, also lassen sich ihre Meldungen hier nicht messen</translation>
        </message>
        <message>
            <location filename="service/measuring.py" />
            <source>the device was unplugged meanwhile</source>
            <translation>das Gerät wurde währenddessen abgezogen</translation>
        </message>
        <message>
            <location filename="service/measuring.py" />
            <source>the devices are read in another way now; try again</source>
            <translation>die Geräte werden jetzt anders gelesen; versuch es noch einmal</translation>
        </message>
        <message>
            <location filename="service/measuring.py" />
            <source>there is no device {device} any more; plug it in again</source>
            <translation>das Gerät {device} gibt es nicht mehr; steck es wieder ein</translation>
        </message>
        <message>
            <location filename="service/opener.py" />
            <source>A program was not opened: {reason}.</source>
            <translation>Ein Programm wurde nicht geöffnet: {reason}.</translation>
        </message>
        <message>
            <location filename="service/opener.py" />
            <source>A program was not opened: {wrong}.</source>
            <translation>Ein Programm wurde nicht geöffnet: {wrong}.</translation>
        </message>
        <message>
            <location filename="service/opener.py" />
            <source>Not every program was opened: macros open {most} a second at most. Give the macro a longer wait, or let it play once.</source>
            <translation>Nicht jedes Programm wurde geöffnet: Makros öffnen höchstens {most} in der Sekunde. Gib dem Makro eine längere Wartezeit, oder lass es einmal spielen.</translation>
        </message>
        <message>
            <location filename="service/opener.py" />
            <source>there is no file {program}; choose the program again</source>
            <translation>es gibt keine Datei {program}; wähl das Programm neu</translation>
        </message>
        <message>
            <location filename="service/opener.py" />
            <source>there is no program {program!r} among the installed ones; write where its file is</source>
            <translation>unter den installierten gibt es kein Programm {program!r}; schreib, wo seine Datei ist</translation>
        </message>
        <message>
            <location filename="service/opener.py" />
            <source>{program} is not marked as a program; make it one with: chmod +x {program}</source>
            <translation>{program} ist nicht als Programm gekennzeichnet; das geht mit: chmod +x {program}</translation>
        </message>
        <message>
            <location filename="service/opener.py" />
            <source>{program} was not opened: {reason}.</source>
            <translation>{program} wurde nicht geöffnet: {reason}.</translation>
        </message>
        <message>
            <location filename="service/playback.py" />
            <source>Nakrel's window came to the front</source>
            <translation>Nakrels Fenster kam in den Vordergrund</translation>
        </message>
        <message>
            <location filename="service/playback.py" />
            <source>the preview ended</source>
            <translation>die Vorschau ist beendet</translation>
        </message>
        <message>
            <location filename="service/presence.py" />
            <source>somebody else is using the computer</source>
            <translation>jemand anders benutzt den Rechner</translation>
        </message>
        <message>
            <location filename="service/presence.py" />
            <source>the computer goes to sleep</source>
            <translation>der Rechner geht in den Ruhezustand</translation>
        </message>
        <message>
            <location filename="service/presence.py" />
            <source>the screen is locked</source>
            <translation>der Bildschirm ist gesperrt</translation>
        </message>
        <message>
            <location filename="service/record_key.py" />
            <source>Nothing is recorded</source>
            <translation>Nichts wird aufgezeichnet</translation>
        </message>
        <message>
            <location filename="service/record_key.py" />
            <source>Open Nakrel's window first: it shows the macro to record into</source>
            <translation>Öffne erst Nakrels Fenster: Es zeigt das Makro, in das aufgezeichnet wird</translation>
        </message>
        <message>
            <location filename="service/record_key.py" />
            <source>Recorded</source>
            <translation>Aufgezeichnet</translation>
        </message>
        <message>
            <location filename="service/record_key.py" />
            <source>Recording</source>
            <translation>Aufzeichnung</translation>
        </message>
        <message>
            <location filename="service/record_key.py" />
            <source>{control} ends it</source>
            <translation>{control} beendet sie</translation>
        </message>
        <message>
            <location filename="service/record_key.py" />
            <source>{events} events; Nakrel's window has them</source>
            <translation>{events} Ereignisse; Nakrels Fenster hat sie</translation>
        </message>
        <message>
            <location filename="service/recording.py" />
            <source>The recording has ended</source>
            <translation>Die Aufzeichnung ist beendet</translation>
        </message>
        <message>
            <location filename="service/recording.py" />
            <source>This desktop doesn't tell where the pointer is, so its places are not recorded.</source>
            <translation>Dieser Desktop sagt nicht, wo der Zeiger ist, also werden seine Stellen nicht aufgezeichnet.</translation>
        </message>
        <message>
            <location filename="service/recording.py" />
            <source>choosing a button</source>
            <translation>Auswahl einer Taste</translation>
        </message>
        <message>
            <location filename="service/recording.py" />
            <source>recorded</source>
            <translation>aufgezeichnet</translation>
        </message>
        <message>
            <location filename="service/recording.py" />
            <source>recording</source>
            <translation>Aufzeichnung</translation>
        </message>
        <message>
            <location filename="service/reporter.py" />
            <source>Nakrel's service is busy without end, which should never happen ({what}). Please report it; nakrel shutdown ends it, and it starts again with the window</source>
            <translation>Nakrels Dienst ist ohne Ende beschäftigt, was nie geschehen sollte ({what}). Bitte melde das; nakrel shutdown beendet ihn, und mit dem Fenster startet er wieder</translation>
        </message>
        <message>
            <location filename="service/reporter.py" />
            <source>Something unexpected happened inside Nakrel ({reason!r}); the service log has the details</source>
            <translation>In Nakrel ist etwas Unerwartetes geschehen ({reason!r}); im Log des Dienstes steht mehr</translation>
        </message>
        <message>
            <location filename="service/requests.py" />
            <source>A typed text</source>
            <translation>Ein getippter Text</translation>
        </message>
        <message>
            <location filename="service/requests.py" />
            <source>Everyday can't be deleted: it is live when no linked program runs</source>
            <translation>Everyday lässt sich nicht löschen: Es ist aktiv, wenn kein verknüpftes Programm läuft</translation>
        </message>
        <message>
            <location filename="service/requests.py" />
            <source>Nakrel's service belongs to another session of yours (display {mine}) and reaches the windows there alone; log out there, or end it with: nakrel shutdown</source>
            <translation>Nakrels Dienst gehört zu einer anderen Sitzung von dir (Display {mine}) und erreicht nur die Fenster dort; melde dich dort ab, oder beende ihn mit: nakrel shutdown</translation>
        </message>
        <message>
            <location filename="service/requests.py" />
            <source>a recording is going on already; end it first</source>
            <translation>es läuft schon eine Aufzeichnung; beende sie erst</translation>
        </message>
        <message>
            <location filename="service/requests.py" />
            <source>a recording is going on; end it first</source>
            <translation>es läuft eine Aufzeichnung; beende sie erst</translation>
        </message>
        <message>
            <location filename="service/requests.py" />
            <source>a request's body is an object that says what it is: {reason}</source>
            <translation>der Inhalt einer Anfrage ist ein Objekt, das sagt, was es ist: {reason}</translation>
        </message>
        <message>
            <location filename="service/requests.py" />
            <source>asked for in the window or on the command line</source>
            <translation>im Fenster oder auf der Befehlszeile verlangt</translation>
        </message>
        <message>
            <location filename="service/requests.py" />
            <source>display {display}</source>
            <translation>Display {display}</translation>
        </message>
        <message>
            <location filename="service/requests.py" />
            <source>makes room for one in another session</source>
            <translation>macht Platz für einen in einer anderen Sitzung</translation>
        </message>
        <message>
            <location filename="service/requests.py" />
            <source>no recording is going on</source>
            <translation>es läuft keine Aufzeichnung</translation>
        </message>
        <message>
            <location filename="service/requests.py" />
            <source>profile {known} deleted</source>
            <translation>Profil {known} gelöscht</translation>
        </message>
        <message>
            <location filename="service/requests.py" />
            <source>there is no device to record from: plug in a keyboard or a mouse, or turn on the simulated devices (Devices page)</source>
            <translation>es gibt kein Gerät zum Aufzeichnen: steck eine Tastatur oder eine Maus ein, oder schalte die simulierten Geräte ein (Seite Geräte)</translation>
        </message>
        <message>
            <location filename="service/requests.py" />
            <source>there is no macro {macro!r}; nakrel macros lists them</source>
            <translation>es gibt kein Makro {macro!r}; nakrel macros listet sie</translation>
        </message>
        <message>
            <location filename="service/requests.py" />
            <source>there is no profile {profile!r}; nakrel profiles lists them</source>
            <translation>es gibt kein Profil {profile!r}; nakrel profiles listet sie</translation>
        </message>
        <message>
            <location filename="service/requests.py" />
            <source>this service speaks protocol {PROTOCOL}, {client} speaks {protocol}; end the service (nakrel shutdown) and start it again</source>
            <translation>dieser Dienst spricht Protokoll {PROTOCOL}, {client} spricht {protocol}; beende den Dienst (nakrel shutdown) und starte ihn neu</translation>
        </message>
        <message>
            <location filename="service/requests.py" />
            <source>{profile} is live, and its fair-play rule allows no macros</source>
            <translation>{profile} ist aktiv, und seine Fair-Play-Regel erlaubt keine Makros</translation>
        </message>
        <message>
            <location filename="service/requests.py" />
            <source>{why}, so nothing is played or recorded; try again afterwards</source>
            <translation>{why}, also wird nichts gespielt oder aufgezeichnet; versuch es danach noch einmal</translation>
        </message>
        <message>
            <location filename="service/routes.py" />
            <source>Nakrel's window</source>
            <translation>Nakrels Fenster</translation>
        </message>
        <message>
            <location filename="service/routes.py" />
            <source>Nothing reaches other windows: {reason}.</source>
            <translation>Nichts erreicht andere Fenster: {reason}.</translation>
        </message>
        <message>
            <location filename="service/routes.py" />
            <source>Nothing reaches other windows: {told}. Macros play to the simulated devices only. {doctor}</source>
            <translation>Nichts erreicht andere Fenster: {told}. Makros spielen nur auf die simulierten Geräte. {doctor}</translation>
        </message>
        <message>
            <location filename="service/routes.py" />
            <source>Presses are seen, and macros arrive, only while a window under Xwayland is in front. {because}{doctor}</source>
            <translation>Nur während ein Fenster unter Xwayland im Vordergrund ist, werden Tastendrücke gesehen und kommen Makros an. {because}{doctor}</translation>
        </message>
        <message>
            <location filename="service/routes.py" />
            <source>The kernel's input would reach every window; what it needs: nakrel doctor</source>
            <translation>Kernel-Eingaben würden jedes Fenster erreichen; was sie brauchen: nakrel doctor</translation>
        </message>
        <message>
            <location filename="service/routes.py" />
            <source>Why no kernel input: {reasons}. </source>
            <translation>Warum keine Kernel-Eingaben: {reasons}. </translation>
        </message>
        <message>
            <location filename="service/routes.py" />
            <source>asked for</source>
            <translation>verlangt</translation>
        </message>
        <message>
            <location filename="service/routes.py" />
            <source>sends back what macros press: another program has Nakrel's devices for itself and sends on what they do; let it leave them alone</source>
            <translation>sendet zurück, was Makros drücken: Ein anderes Programm hat Nakrels Geräte für sich und sendet weiter, was sie tun; lass es sie in Ruhe lassen</translation>
        </message>
        <message>
            <location filename="service/routes.py" />
            <source>the simulated devices are off; turn them on (Devices page)</source>
            <translation>die simulierten Geräte sind aus; schalte sie ein (Seite Geräte)</translation>
        </message>
        <message>
            <location filename="service/routes.py" />
            <source>there is no X server ($DISPLAY is empty)</source>
            <translation>es gibt keinen X-Server ($DISPLAY ist leer)</translation>
        </message>
        <message>
            <location filename="service/routes.py" />
            <source>{output} is back</source>
            <translation>{output} ist wieder da</translation>
        </message>
        <message>
            <location filename="service/server.py" />
            <source>a message may have {most} bytes at most</source>
            <translation>eine Nachricht darf höchstens {most} Bytes haben</translation>
        </message>
        <message>
            <location filename="service/server.py" />
            <source>this line is no request: {reason}</source>
            <translation>diese Zeile ist keine Anfrage: {reason}</translation>
        </message>
        <message>
            <location filename="service/service.py" />
            <source>; its plan moved by {time} ms because the computer was busy</source>
            <translation>; sein Plan verschob sich um {time} ms, weil der Rechner beschäftigt war</translation>
        </message>
        <message>
            <location filename="service/service.py" />
            <source>Everything is stopped</source>
            <translation>Alles ist gestoppt</translation>
        </message>
        <message>
            <location filename="service/service.py" />
            <source>Nothing is played now, and buttons do what they always do: {why}.</source>
            <translation>Gerade wird nichts gespielt, und Tasten tun, was sie sonst auch tun: {why}.</translation>
        </message>
        <message numerus="yes">
            <location filename="service/service.py" />
            <source>Stop everything: {n} macros ran</source>
            <translation>
                <numerusform>Alles stoppen: {n} Makro lief</numerusform>
                <numerusform>Alles stoppen: {n} Makros liefen</numerusform>
            </translation>
        </message>
        <message>
            <location filename="service/service.py" />
            <source>a file was set aside</source>
            <translation>eine Datei wurde beiseitegelegt</translation>
        </message>
        <message>
            <location filename="service/service.py" />
            <source>its window is gone</source>
            <translation>sein Fenster ist weg</translation>
        </message>
        <message>
            <location filename="service/service.py" />
            <source>macros reach no program</source>
            <translation>Makros erreichen kein Programm</translation>
        </message>
        <message>
            <location filename="service/service.py" />
            <source>macros reach programs through the X server</source>
            <translation>Makros erreichen Programme durch den X-Server</translation>
        </message>
        <message>
            <location filename="service/service.py" />
            <source>macros reach programs through the kernel's input</source>
            <translation>Makros erreichen Programme durch Kernel-Eingaben</translation>
        </message>
        <message>
            <location filename="service/service.py" />
            <source>macros reach programs under Xwayland</source>
            <translation>Makros erreichen Programme unter Xwayland</translation>
        </message>
        <message>
            <location filename="service/service.py" />
            <source>profile switched</source>
            <translation>Profil gewechselt</translation>
        </message>
        <message>
            <location filename="service/service.py" />
            <source>the service ended</source>
            <translation>der Dienst ist beendet</translation>
        </message>
        <message>
            <location filename="service/service.py" />
            <source>the trial ended</source>
            <translation>der Versuch ist beendet</translation>
        </message>
        <message>
            <location filename="service/service.py" />
            <source>{device} sends back what macros press</source>
            <translation>{device} sendet zurück, was Makros drücken</translation>
        </message>
        <message>
            <location filename="service/service.py" />
            <source>{device} sends back what macros press ({control}), so a macro started itself again and again; all macros were stopped. A program that remaps keys does that: let it leave Nakrel's devices alone, or attach the macro to another button.</source>
            <translation>{device} sendet zurück, was Makros drücken ({control}), so dass ein Makro sich immer wieder selbst gestartet hat; alle Makros wurden gestoppt. Ein Programm, das Tasten umbelegt, tut das: Lass es Nakrels Geräte in Ruhe lassen, oder leg das Makro auf eine andere Taste.</translation>
        </message>
        <message numerus="yes">
            <location filename="service/service.py" />
            <source>{name} ended after {n} runs</source>
            <translation>
                <numerusform>{name} endete nach {n} Durchlauf</numerusform>
                <numerusform>{name} endete nach {n} Durchläufen</numerusform>
            </translation>
        </message>
        <message>
            <location filename="service/service.py" />
            <source>{name} ended: {failed}</source>
            <translation>{name} endete: {failed}</translation>
        </message>
        <message>
            <location filename="service/service.py" />
            <source>{reason}; all macros were stopped</source>
            <translation>{reason}; alle Makros wurden gestoppt</translation>
        </message>
        <message>
            <location filename="service/side_effects.py" />
            <source>A pointer step goes to {target}, {target2}, off the screen of {size} x {size2}; it went to the edge.</source>
            <translation>Ein Zeigerschritt geht nach {target}, {target2}, außerhalb des Bildschirms von {size} x {size2}; er ging an den Rand.</translation>
        </message>
        <message>
            <location filename="service/side_effects.py" />
            <source>The pointer was not moved: {reason}.</source>
            <translation>Der Zeiger wurde nicht bewegt: {reason}.</translation>
        </message>
        <message>
            <location filename="service/side_effects.py" />
            <source>a text was not typed: {reason}</source>
            <translation>ein Text wurde nicht getippt: {reason}</translation>
        </message>
        <message>
            <location filename="service/side_effects.py" />
            <source>the keyboard layout {layout!r} (from {source}) has no keys for {missing}; switch to a layout that has them, or set one on the Devices page</source>
            <translation>die Tastaturbelegung {layout!r} (aus {source}) hat keine Tasten für {missing}; wechsle zu einer Belegung, die sie hat, oder stell auf der Seite Geräte eine ein</translation>
        </message>
        <message>
            <location filename="service/side_effects.py" />
            <source>this desktop doesn't tell how large the screen is; pick the place again, so that the step knows it</source>
            <translation>dieser Desktop sagt nicht, wie groß der Bildschirm ist; wähl die Stelle neu, damit der Schritt es weiß</translation>
        </message>
        <message>
            <location filename="service/start.py" />
            <source>It did not answer any more; all macros were ended</source>
            <translation>Er hat nicht mehr geantwortet; alle Makros wurden beendet</translation>
        </message>
        <message>
            <location filename="service/start.py" />
            <source>Nakrel was restarted</source>
            <translation>Nakrel wurde neu gestartet</translation>
        </message>
        <message>
            <location filename="service/start.py" />
            <source>The service did not answer any more and was restarted by itself; all macros were ended. Its log says what it was doing</source>
            <translation>Der Dienst hat nicht mehr geantwortet und sich selbst neu gestartet; alle Makros wurden beendet. Sein Log sagt, was er gerade tat</translation>
        </message>
        <message>
            <location filename="service/start.py" />
            <source>a service already runs for {config} (process {process}); use that one, or end it with: nakrel shutdown</source>
            <translation>für {config} läuft schon ein Dienst (Prozess {process}); nimm diesen, oder beende ihn mit: nakrel shutdown</translation>
        </message>
        <message>
            <location filename="service/start.py" />
            <source>it was killed, or memory ran out; its macros ended, and nothing that they held stays down</source>
            <translation>er wurde von außen beendet, oder der Speicher ging aus; seine Makros endeten, und nichts, was sie hielten, bleibt gedrückt</translation>
        </message>
        <message>
            <location filename="service/start.py" />
            <source>the route {backend} can't be had. {note}</source>
            <translation>der Weg {backend} ist nicht zu haben. {note}</translation>
        </message>
        <message>
            <location filename="service/start.py" />
            <source>the service before this one ended suddenly</source>
            <translation>der Dienst davor endete plötzlich</translation>
        </message>
        <message>
            <location filename="service/start.py" />
            <source>the service can't start: {reason}</source>
            <translation>der Dienst kann nicht starten: {reason}</translation>
        </message>
        <message>
            <location filename="service/start.py" />
            <source>unknown</source>
            <translation>unbekannt</translation>
        </message>
        <message>
            <location filename="service/trial.py" />
            <source>Tuning of {macro} ended</source>
            <translation>Abstimmen von {macro} beendet</translation>
        </message>
        <message>
            <location filename="service/trial.py" />
            <source>another window tunes a macro; end that first</source>
            <translation>ein anderes Fenster stimmt gerade ein Makro ab; beende das erst</translation>
        </message>
        <message>
            <location filename="service/trial.py" />
            <source>each press plays it with a time on trial</source>
            <translation>jeder Druck spielt es mit einer Zeit zur Probe</translation>
        </message>
        <message>
            <location filename="service/trial.py" />
            <source>{macro} is tuned</source>
            <translation>{macro} wird abgestimmt</translation>
        </message>
        <message>
            <location filename="service/trial.py" />
            <source>{macro} isn't there any more, so it can't be tried</source>
            <translation>{macro} gibt es nicht mehr, also lässt es sich nicht probieren</translation>
        </message>
        <message>
            <location filename="service/trial_requests.py" />
            <source>a macro is on trial</source>
            <translation>ein Makro wird probiert</translation>
        </message>
        <message>
            <location filename="service/trial_requests.py" />
            <source>no macro is on trial; begin with Tune on its page</source>
            <translation>es wird kein Makro probiert; beginn mit Abstimmen auf seiner Seite</translation>
        </message>
        <message>
            <location filename="storage/bundles.py" />
            <source>{path}, bundle.json: {reason}</source>
            <translation>{path}, bundle.json: {reason}</translation>
        </message>
        <message>
            <location filename="storage/bundles.py" />
            <source>{path}: can't be read: {reason}</source>
            <translation>{path}: lässt sich nicht lesen: {reason}</translation>
        </message>
        <message>
            <location filename="storage/bundles.py" />
            <source>{path}: it is too large to be read</source>
            <translation>{path}: ist zu groß, um gelesen zu werden</translation>
        </message>
        <message>
            <location filename="storage/bundles.py" />
            <source>{path}: larger than {most} MB, so it is not opened</source>
            <translation>{path}: größer als {most} MB, also wird es nicht geöffnet</translation>
        </message>
        <message>
            <location filename="storage/bundles.py" />
            <source>{path}: there is no bundle.json in it, so it is no bundle of Nakrel's</source>
            <translation>{path}: darin ist kein bundle.json, also ist es keine Profildatei von Nakrel</translation>
        </message>
        <message>
            <location filename="storage/bundles.py" />
            <source>{path}: this Nakrel reads version {version} of {format}, the file says {format2!r}, {version2}</source>
            <translation>{path}: dieses Nakrel liest Version {version} von {format}, die Datei sagt {format2!r}, {version2}</translation>
        </message>
        <message>
            <location filename="storage/bundles.py" />
            <source>{path}: this is no zip archive, or it is damaged; have it sent once more</source>
            <translation>{path}: das ist kein zip-Archiv, oder es ist beschädigt; lass es dir noch einmal schicken</translation>
        </message>
        <message>
            <location filename="storage/bundles.py" />
            <source>{path}: two things in it have the id {twice!r}</source>
            <translation>{path}: zwei Dinge darin haben die Kennung {twice!r}</translation>
        </message>
        <message>
            <location filename="storage/bundles.py" />
            <source>{path}: unpacked it would be larger than {most} MB</source>
            <translation>{path}: entpackt wäre es größer als {most} MB</translation>
        </message>
        <message>
            <location filename="storage/bundles.py" />
            <source>{path}: {entries} files are in it, more than the {most} that a bundle can have</source>
            <translation>{path}: {entries} Dateien sind darin, mehr als die {most}, die eine Profildatei haben kann</translation>
        </message>
        <message>
            <location filename="storage/bundles.py" />
            <source>{path}: {profile!r} plays {macro!r}, which isn't in it</source>
            <translation>{path}: {profile!r} spielt {macro!r}, und das ist nicht darin</translation>
        </message>
        <message>
            <location filename="storage/bundles.py" />
            <source>{path}: {shown!r} in it does not belong in a bundle, so nothing of it is imported</source>
            <translation>{path}: {shown!r} darin gehört nicht in eine Profildatei, also wird nichts davon importiert</translation>
        </message>
        <message>
            <location filename="storage/bundles.py" />
            <source>{path}: {shown!r} in it is a link or something else that is no file</source>
            <translation>{path}: {shown!r} darin ist ein Link oder sonst keine Datei</translation>
        </message>
        <message>
            <location filename="storage/bundles.py" />
            <source>{path}: {shown!r} in it is encrypted</source>
            <translation>{path}: {shown!r} darin ist verschlüsselt</translation>
        </message>
        <message>
            <location filename="storage/bundles.py" />
            <source>{path}: {shown!r} is in it twice</source>
            <translation>{path}: {shown!r} ist zweimal darin</translation>
        </message>
        <message>
            <location filename="storage/files.py" />
            <source>this Nakrel reads version {version} of {wanted}, the file says {version2!r}</source>
            <translation>dieses Nakrel liest Version {version} von {wanted}, die Datei sagt {version2!r}</translation>
        </message>
        <message>
            <location filename="storage/files.py" />
            <source>{file}: expected `format` to be {wanted!r}, got {found!r} - at `$.format`</source>
            <translation>{file}: `format` sollte {wanted!r} sein, ist aber {found!r} - bei `$.format`</translation>
        </message>
        <message>
            <location filename="storage/files.py" />
            <source>{file}: expected a JSON object, got {name}</source>
            <translation>{file}: erwartet wird ein JSON-Objekt, gefunden wurde {name}</translation>
        </message>
        <message>
            <location filename="storage/files.py" />
            <source>{file}: this is not JSON: {reason}</source>
            <translation>{file}: das ist kein JSON: {reason}</translation>
        </message>
        <message>
            <location filename="storage/files.py" />
            <source>{file}: {message} - at `$.version`</source>
            <translation>{file}: {message} - bei `$.version`</translation>
        </message>
        <message>
            <location filename="storage/files.py" />
            <source>{file}: {message} - at `$.version`. A later Nakrel wrote it; update Nakrel to use it</source>
            <translation>{file}: {message} - bei `$.version`. Ein späteres Nakrel hat sie geschrieben; aktualisiere Nakrel, um sie zu benutzen</translation>
        </message>
        <message>
            <location filename="storage/files.py" />
            <source>{path}: can't be saved: {reason}</source>
            <translation>{path}: lässt sich nicht speichern: {reason}</translation>
        </message>
        <message>
            <location filename="storage/files.py" />
            <source>{path}: can't be saved: {reason}; the earlier version is untouched</source>
            <translation>{path}: lässt sich nicht speichern: {reason}; die frühere Fassung ist unberührt</translation>
        </message>
        <message>
            <location filename="storage/library.py" />
            <source> The file was left where it is.</source>
            <translation> Die Datei bleibt, wo sie ist.</translation>
        </message>
        <message>
            <location filename="storage/library.py" />
            <source>left where it is ({reason})</source>
            <translation>bleibt, wo sie ist ({reason})</translation>
        </message>
        <message>
            <location filename="storage/library.py" />
            <source>set aside as {name}; mend it and give it its old name, or delete it</source>
            <translation>wurde als {name} beiseitegelegt; behebe den Fehler und gib ihr den alten Namen, oder lösch sie</translation>
        </message>
        <message>
            <location filename="storage/library.py" />
            <source>{path}: can't be deleted: {reason}</source>
            <translation>{path}: lässt sich nicht löschen: {reason}</translation>
        </message>
        <message>
            <location filename="storage/library.py" />
            <source>{path}: has the id {id!r} of {name}</source>
            <translation>{path}: hat die Kennung {id!r} von {name}</translation>
        </message>
        <message>
            <location filename="storage/library.py" />
            <source>{reason}. The file was {where}.</source>
            <translation>{reason}. Die Datei {where}.</translation>
        </message>
        <message>
            <location filename="storage/library.py" />
            <source>{settings}: the settings can't be saved, since a file is there that this Nakrel can't read; update Nakrel, or move the file away</source>
            <translation>{settings}: die Einstellungen lassen sich nicht speichern, weil dort eine Datei ist, die dieses Nakrel nicht lesen kann; aktualisiere Nakrel, oder räum die Datei weg</translation>
        </message>
        <message>
            <location filename="storage/recordings.py" />
            <source>; record a shorter time</source>
            <translation>; zeichne eine kürzere Zeit auf</translation>
        </message>
        <message>
            <location filename="storage/recordings.py" />
            <source>Left out: {left_out} events in the middle; of a long run its first and its last events are kept.</source>
            <translation>Weggelassen: {left_out} Ereignisse in der Mitte; von einem langen Durchlauf werden die ersten und die letzten aufgehoben.</translation>
        </message>
        <message>
            <location filename="storage/recordings.py" />
            <source>Left out: {parts}; a device's recording has keys, buttons and the wheel alone.</source>
            <translation>Weggelassen: {parts}; die Aufnahme eines Geräts hat nur Tasten, Maustasten und das Rad.</translation>
        </message>
        <message>
            <location filename="storage/recordings.py" />
            <source>Where to and what is left out of {parts}; a value change dump has only when.</source>
            <translation>Wohin und was, fehlt bei {parts}; ein Value Change Dump hat nur, wann.</translation>
        </message>
        <message numerus="yes">
            <location filename="storage/recordings.py" />
            <source>{n} moves of the pointer</source>
            <translation>
                <numerusform>{n} Zeigerbewegung</numerusform>
                <numerusform>{n} Zeigerbewegungen</numerusform>
            </translation>
        </message>
        <message numerus="yes">
            <location filename="storage/recordings.py" />
            <source>{n} programs</source>
            <translation>
                <numerusform>{n} Programm</numerusform>
                <numerusform>{n} Programme</numerusform>
            </translation>
        </message>
        <message numerus="yes">
            <location filename="storage/recordings.py" />
            <source>{n} texts</source>
            <translation>
                <numerusform>{n} Text</numerusform>
                <numerusform>{n} Texte</numerusform>
            </translation>
        </message>
        <message>
            <location filename="storage/recordings.py" />
            <source>{path} is no proper YAML: {reason}</source>
            <translation>{path} ist kein richtiges YAML: {reason}</translation>
        </message>
        <message>
            <location filename="storage/recordings.py" />
            <source>{path} is no proper table: {reason}</source>
            <translation>{path} ist keine richtige Tabelle: {reason}</translation>
        </message>
        <message>
            <location filename="storage/recordings.py" />
            <source>{path} is no recording of evemu-record or libinput record: there is no event in it</source>
            <translation>{path} ist keine Aufzeichnung von evemu-record oder libinput record: Es ist kein Ereignis darin</translation>
        </message>
        <message>
            <location filename="storage/recordings.py" />
            <source>{path} is not built like a recording of libinput record; was it edited?</source>
            <translation>{path} ist nicht wie eine Aufzeichnung von libinput record gebaut; wurde sie bearbeitet?</translation>
        </message>
        <message>
            <location filename="storage/recordings.py" />
            <source>{path} is not text; it takes recordings of evemu-record and of libinput record</source>
            <translation>{path} ist kein Text; möglich sind Aufzeichnungen von evemu-record und libinput record</translation>
        </message>
        <message>
            <location filename="storage/recordings.py" />
            <source>{path} makes {steps} steps, more than the {most} that a macro can have; cut it</source>
            <translation>{path} ergibt {steps} Schritte, mehr als die {most}, die ein Makro haben kann; kürze es</translation>
        </message>
        <message>
            <location filename="storage/recordings.py" />
            <source>{path}, line {number}: {found!r} is no event; it should read 1000,KEY_Q,1</source>
            <translation>{path}, Zeile {number}: {found!r} ist kein Ereignis; es sollte wie 1000,KEY_Q,1 aussehen</translation>
        </message>
        <message>
            <location filename="storage/recordings.py" />
            <source>{path}, line {number}: {line!r} is no event; it should read E: 0.000001 0001 001e 0001</source>
            <translation>{path}, Zeile {number}: {line!r} ist kein Ereignis; es sollte wie E: 0.000001 0001 001e 0001 aussehen</translation>
        </message>
        <message>
            <location filename="storage/secrets.py" />
            <source>no keyring answers; start the desktop's (gnome-keyring, KWallet or KeePassXC with Secret Service)</source>
            <translation>kein Schlüsselbund antwortet; starte den des Desktops (gnome-keyring, KWallet oder KeePassXC mit Secret Service)</translation>
        </message>
        <message>
            <location filename="storage/secrets.py" />
            <source>the keyring has no secret {name!r} for Nakrel; type it once at the step, under Secret</source>
            <translation>der Schlüsselbund hat kein Geheimnis {name!r} für Nakrel; tipp es einmal beim Schritt ein, unter Geheim</translation>
        </message>
        <message>
            <location filename="storage/secrets.py" />
            <source>the keyring is locked; unlock it and try again</source>
            <translation>der Schlüsselbund ist gesperrt; entsperre ihn und versuch es noch einmal</translation>
        </message>
        <message>
            <location filename="storage/secrets.py" />
            <source>the keyring refused ({kind}); look at it with the desktop's own tool</source>
            <translation>der Schlüsselbund hat abgelehnt ({kind}); sieh ihn dir mit dem Werkzeug des Desktops an</translation>
        </message>
        <message>
            <location filename="storage/takes.py" />
            <source>{reason}; it can't be set aside: {reason2}</source>
            <translation>{reason}; sie lässt sich nicht beiseitelegen: {reason2}</translation>
        </message>
        <message>
            <location filename="storage/tunings.py" />
            <source>{path}: can't be taken away: {reason}</source>
            <translation>{path}: lässt sich nicht wegnehmen: {reason}</translation>
        </message>
        <message>
            <location filename="system_errors.py" />
            <source>a file is where a folder should be</source>
            <translation>wo ein Ordner sein müsste, ist eine Datei</translation>
        </message>
        <message>
            <location filename="system_errors.py" />
            <source>another program uses it</source>
            <translation>ein anderes Programm benutzt es</translation>
        </message>
        <message>
            <location filename="system_errors.py" />
            <source>it is a folder</source>
            <translation>das ist ein Ordner</translation>
        </message>
        <message>
            <location filename="system_errors.py" />
            <source>it is no program</source>
            <translation>das ist kein Programm</translation>
        </message>
        <message>
            <location filename="system_errors.py" />
            <source>it is there already</source>
            <translation>schon vorhanden</translation>
        </message>
        <message>
            <location filename="system_errors.py" />
            <source>it isn't there</source>
            <translation>nicht vorhanden</translation>
        </message>
        <message>
            <location filename="system_errors.py" />
            <source>links lead in a circle there</source>
            <translation>Verknüpfungen führen dort im Kreis</translation>
        </message>
        <message>
            <location filename="system_errors.py" />
            <source>no answer came in time</source>
            <translation>es kam keine Antwort</translation>
        </message>
        <message>
            <location filename="system_errors.py" />
            <source>no memory is left</source>
            <translation>es ist kein Speicher mehr frei</translation>
        </message>
        <message>
            <location filename="system_errors.py" />
            <source>no permission</source>
            <translation>keine Berechtigung</translation>
        </message>
        <message>
            <location filename="system_errors.py" />
            <source>nothing answers there</source>
            <translation>dort antwortet nichts</translation>
        </message>
        <message>
            <location filename="system_errors.py" />
            <source>reading or writing failed</source>
            <translation>Lesen oder Schreiben ist fehlgeschlagen</translation>
        </message>
        <message>
            <location filename="system_errors.py" />
            <source>the device isn't there</source>
            <translation>das Gerät ist nicht da</translation>
        </message>
        <message>
            <location filename="system_errors.py" />
            <source>the disk is full</source>
            <translation>der Datenträger ist voll</translation>
        </message>
        <message>
            <location filename="system_errors.py" />
            <source>the disk is read-only</source>
            <translation>der Datenträger ist schreibgeschützt</translation>
        </message>
        <message>
            <location filename="system_errors.py" />
            <source>the name is too long</source>
            <translation>der Name ist zu lang</translation>
        </message>
        <message>
            <location filename="system_errors.py" />
            <source>the other side has closed the connection</source>
            <translation>die Gegenseite hat die Verbindung beendet</translation>
        </message>
        <message>
            <location filename="system_errors.py" />
            <source>too many files are open</source>
            <translation>zu viele Dateien sind offen</translation>
        </message>
        <message>
            <location filename="system_errors.py" />
            <source>your share of the disk is used up</source>
            <translation>dein Anteil am Datenträger ist aufgebraucht</translation>
        </message>
        <message>
            <location filename="ui/app.py" />
            <source>Something unexpected happened in the window ({error!r}); {log} has the details.</source>
            <translation>Im Fenster ist etwas Unerwartetes geschehen ({error!r}); in {log} steht mehr.</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>Layer</source>
            <translation>Ebene</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>New macro</source>
            <translation>Neues Makro</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>New profile</source>
            <translation>Neues Profil</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>That would leave no way to click. Let another button act as Left first, then this one is free for something else.</source>
            <translation>So gäbe es keine Möglichkeit mehr zu klicken. Lass erst eine andere Taste als Links wirken, dann ist diese für anderes frei.</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>allow {name} to go live</source>
            <translation>{name} aktiv werden lassen</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>copy the macros of {name}</source>
            <translation>Makros von {name} kopieren</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>delete {name}</source>
            <translation>{name} löschen</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>duplicate {name}</source>
            <translation>{name} verdoppeln</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>import nothing</source>
            <translation>nichts importieren</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>import {name}</source>
            <translation>{name} importieren</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>move number keys to thumb buttons</source>
            <translation>Zifferntasten zu Daumentasten verschieben</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>new layer</source>
            <translation>neue Ebene</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>new macro {name}</source>
            <translation>neues Makro {name}</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>new profile {name}</source>
            <translation>neues Profil {name}</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>programs of {name}</source>
            <translation>Programme von {name}</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>rename {old}</source>
            <translation>{old} umbenennen</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>reset {name}</source>
            <translation>{name} zurücksetzen</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>{name} for {profile} alone</source>
            <translation>{name} nur für {profile}</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>{value} in {name}</source>
            <translation>{value} in {name}</translation>
        </message>
        <message>
            <location filename="ui/commands.py" />
            <source>{value} of {name}</source>
            <translation>{value} von {name}</translation>
        </message>
        <message>
            <location filename="ui/devices/debounce.py" />
            <source>A worn switch goes down or up several times at once. What follows on a press or a release within the time that stands here is dropped; 0 ms leaves the button as it is. No press is late for it, unless it comes within that time after a release: keep it shorter than your fastest double click.</source>
            <translation>Ein abgenutzter Schalter geht mehrmals auf einmal hinunter oder hoch. Was innerhalb der Zeit, die hier steht, auf einen Druck oder ein Loslassen folgt, wird verworfen; 0 ms lässt die Taste, wie sie ist. Kein Druck kommt deshalb später, außer er folgt innerhalb dieser Zeit auf ein Loslassen: Halt sie kürzer als deinen schnellsten Doppelklick.</translation>
        </message>
        <message>
            <location filename="ui/devices/debounce.py" />
            <source>By what the Range saw</source>
            <translation>Nach dem, was der Prüfstand sah</translation>
        </message>
        <message>
            <location filename="ui/devices/debounce.py" />
            <source>Close</source>
            <translation>Schließen</translation>
        </message>
        <message>
            <location filename="ui/devices/debounce.py" />
            <source>Debounce of {button}</source>
            <translation>Entprellen von {button}</translation>
        </message>
        <message>
            <location filename="ui/devices/debounce.py" />
            <source>Debounce: {name}</source>
            <translation>Entprellen: {name}</translation>
        </message>
        <message>
            <location filename="ui/devices/debounce.py" />
            <source>Nothing is debounced now: that needs the devices to be read through the kernel. What stands in the way is on the Devices page.</source>
            <translation>Jetzt wird nichts entprellt: Dafür müssen die Geräte durch den Kernel gelesen werden. Was im Weg steht, sagt die Seite Geräte.</translation>
        </message>
        <message>
            <location filename="ui/devices/debounce.py" />
            <source>Use {time} ms</source>
            <translation>{time} ms nehmen</translation>
        </message>
        <message>
            <location filename="ui/devices/debounce.py" />
            <source>debounce of {button}</source>
            <translation>Entprellen von {button}</translation>
        </message>
        <message>
            <location filename="ui/devices/fix.py" />
            <source>Cancel</source>
            <translation>Abbrechen</translation>
        </message>
        <message>
            <location filename="ui/devices/fix.py" />
            <source>Fix the permissions</source>
            <translation>Berechtigungen einrichten</translation>
        </message>
        <message>
            <location filename="ui/devices/fix.py" />
            <source>Install</source>
            <translation>Installieren</translation>
        </message>
        <message>
            <location filename="ui/devices/fix.py" />
            <source>Remove</source>
            <translation>Entfernen</translation>
        </message>
        <message>
            <location filename="ui/devices/fix.py" />
            <source>Take the permissions back</source>
            <translation>Berechtigungen zurücknehmen</translation>
        </message>
        <message>
            <location filename="ui/devices/fix.py" />
            <source>The permissions were not changed: the command can't be started. {value}</source>
            <translation>Die Berechtigungen wurden nicht geändert: Der Befehl lässt sich nicht starten. {value}</translation>
        </message>
        <message>
            <location filename="ui/devices/fix.py" />
            <source>The permissions were not changed: {value}.</source>
            <translation>Die Berechtigungen wurden nicht geändert: {value}.</translation>
        </message>
        <message>
            <location filename="ui/devices/fix.py" />
            <source>This gives you, when you sit at this computer, access to its keyboards and mice and to virtual ones, for good. Every program that you start gets it, too. It is installed as root: the system asks for a password.</source>
            <translation>Das gibt dir, wenn du an diesem Rechner sitzt, dauerhaft Zugriff auf seine Tastaturen und Mäuse und auf virtuelle. Jedes Programm, das du startest, bekommt ihn auch. Installiert wird es als root: Das System fragt nach einem Passwort.</translation>
        </message>
        <message>
            <location filename="ui/devices/fix.py" />
            <source>This removes what the fix installed. Macros then reach what they reach without it: the windows of an X11 session, and none under Wayland. It is done as root: the system asks for a password.</source>
            <translation>Das entfernt, was die Einrichtung installiert hat. Makros erreichen dann, was sie ohne sie erreichen: die Fenster einer X11-Sitzung, und unter Wayland keine. Es geschieht als root: Das System fragt nach einem Passwort.</translation>
        </message>
        <message>
            <location filename="ui/devices/fix.py" />
            <source>Type in a terminal: {value}</source>
            <translation>Tipp in einem Terminal: {value}</translation>
        </message>
        <message>
            <location filename="ui/devices/fix.py" />
            <source>it failed</source>
            <translation>es ist misslungen</translation>
        </message>
        <message>
            <location filename="ui/devices/keys.py" />
            <source>Begin a recording in a game</source>
            <translation>In einem Spiel aufzeichnen</translation>
        </message>
        <message>
            <location filename="ui/devices/keys.py" />
            <source>End a recording</source>
            <translation>Eine Aufzeichnung beenden</translation>
        </message>
        <message>
            <location filename="ui/devices/keys.py" />
            <source>No key: {value}</source>
            <translation>Keine Taste: {value}</translation>
        </message>
        <message>
            <location filename="ui/devices/keys.py" />
            <source>Press to choose</source>
            <translation>Zum Wählen drücken</translation>
        </message>
        <message>
            <location filename="ui/devices/keys.py" />
            <source>Press to choose the key: {value}</source>
            <translation>Zum Wählen die Taste drücken: {value}</translation>
        </message>
        <message>
            <location filename="ui/devices/keys.py" />
            <source>Take a key, or a button that the window isn't worked with.</source>
            <translation>Nimm eine Taste, mit der das Fenster nicht bedient wird.</translation>
        </message>
        <message>
            <location filename="ui/devices/keys.py" />
            <source>a key of Nakrel</source>
            <translation>eine Taste von Nakrel</translation>
        </message>
        <message>
            <location filename="ui/devices/keys.py" />
            <source>ends all macros, whatever is in front</source>
            <translation>beendet alle Makros, egal was im Vordergrund ist</translation>
        </message>
        <message>
            <location filename="ui/devices/keys.py" />
            <source>into the macro that the window shows; the same key ends it</source>
            <translation>in das Makro, das das Fenster zeigt; dieselbe Taste beendet sie</translation>
        </message>
        <message>
            <location filename="ui/devices/keys.py" />
            <source>no key</source>
            <translation>keine Taste</translation>
        </message>
        <message>
            <location filename="ui/devices/keys.py" />
            <source>works in every window</source>
            <translation>wirkt in jedem Fenster</translation>
        </message>
        <message>
            <location filename="ui/devices/keys.py" />
            <source>{button} is taken: {value}.</source>
            <translation>{button} ist vergeben: {value}.</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>A turn of the wheel presses a key for</source>
            <translation>Ein Dreh am Rad drückt eine Taste für</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>Debounce…</source>
            <translation>Entprellen …</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>For a second keyboard or a keypad that is there for macros: its keys are called {key} and so on then. One with nothing attached still types.</source>
            <translation>Für eine zweite Tastatur oder einen Ziffernblock, die für Makros da sind: Ihre Tasten heißen dann {key} und so weiter. Eine, die nicht belegt ist, tippt weiterhin.</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>For a worn switch</source>
            <translation>Für einen abgenutzten Schalter</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>How often it reports</source>
            <translation>Wie oft es meldet</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>Its number keys are thumb buttons</source>
            <translation>Ihre Zifferntasten sind Daumentasten</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>Keep its keys apart from other keyboards</source>
            <translation>Ihre Tasten von anderen Tastaturen getrennt halten</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>Keyboard layout</source>
            <translation>Tastaturbelegung</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>Macros reach every window through the X server.</source>
            <translation>Makros erreichen jedes Fenster durch den X-Server.</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>Macros reach every window through the kernel's input.</source>
            <translation>Makros erreichen jedes Fenster durch Kernel-Eingaben.</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>Macros reach no other window.</source>
            <translation>Makros erreichen kein anderes Fenster.</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>No device found. Plug one in, or turn on the simulated ones.</source>
            <translation>Kein Gerät gefunden. Steck eines ein, oder schalte die simulierten ein.</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>Polling…</source>
            <translation>Abtastrate …</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>Simulated devices, for trying things without pressing a real button</source>
            <translation>Simulierte Geräte, um zu probieren, ohne eine echte Taste zu drücken</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>Start the practice game</source>
            <translation>Übungsspiel starten</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>Started. Link it like any game: it runs as nakrel-practice.</source>
            <translation>Gestartet. Verknüpf es wie jedes Spiel: Es läuft als nakrel-practice.</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>They count as Thumb 1 to Thumb 12 then, apart from the keyboard's number keys. One with nothing attached still types its number.</source>
            <translation>Sie gelten dann als Daumen 1 bis Daumen 12, getrennt von den Zifferntasten der Tastatur. Eine, die nicht belegt ist, tippt weiterhin ihre Ziffer.</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>This is a Wayland session: macros reach only the windows that run under Xwayland.</source>
            <translation>Das ist eine Wayland-Sitzung: Makros erreichen nur die Fenster, die unter Xwayland laufen.</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>for names of keys and typed texts; an XKB name, such as de or us:intl</source>
            <translation>für Namen von Tasten und getippte Texte; ein XKB-Name wie de oder us:intl</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>keyboard layout</source>
            <translation>Tastaturbelegung</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>length of a notch</source>
            <translation>Länge einer Raste</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>like the desktop</source>
            <translation>wie der Desktop</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>read through the X server</source>
            <translation>gelesen durch den X-Server</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>read through the kernel</source>
            <translation>gelesen durch den Kernel</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>simulated</source>
            <translation>simuliert</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>simulated devices</source>
            <translation>simulierte Geräte</translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>where it acts as a key or button; a game that looks once a frame misses shorter ones</source>
            <translation>wo es als Taste wirkt; ein Spiel, das einmal je Frame hinsieht, verpasst kürzere</translation>
        </message>
        <message numerus="yes">
            <location filename="ui/devices/page.py" />
            <source>{n} buttons</source>
            <translation>
                <numerusform>{n} Maustaste</numerusform>
                <numerusform>{n} Maustasten</numerusform>
            </translation>
        </message>
        <message numerus="yes">
            <location filename="ui/devices/page.py" />
            <source>{n} keys</source>
            <translation>
                <numerusform>{n} Taste</numerusform>
                <numerusform>{n} Tasten</numerusform>
            </translation>
        </message>
        <message numerus="yes">
            <location filename="ui/devices/page.py" />
            <source>{n} wheel directions</source>
            <translation>
                <numerusform>{n} Radrichtung</numerusform>
                <numerusform>{n} Radrichtungen</numerusform>
            </translation>
        </message>
        <message>
            <location filename="ui/devices/page.py" />
            <source>{value} could not be started.</source>
            <translation>{value} ließ sich nicht starten.</translation>
        </message>
        <message>
            <location filename="ui/devices/permissions.py" />
            <source>Check again</source>
            <translation>Erneut prüfen</translation>
        </message>
        <message>
            <location filename="ui/devices/permissions.py" />
            <source>Check again for kernel input</source>
            <translation>Kernel-Eingaben erneut prüfen</translation>
        </message>
        <message>
            <location filename="ui/devices/permissions.py" />
            <source>Copy</source>
            <translation>Kopieren</translation>
        </message>
        <message>
            <location filename="ui/devices/permissions.py" />
            <source>Ends all running macros</source>
            <translation>Beendet alle laufenden Makros</translation>
        </message>
        <message>
            <location filename="ui/devices/permissions.py" />
            <source>Input check</source>
            <translation>Eingabeprüfung</translation>
        </message>
        <message>
            <location filename="ui/devices/permissions.py" />
            <source>Show all</source>
            <translation>Alle zeigen</translation>
        </message>
        <message>
            <location filename="ui/devices/permissions.py" />
            <source>Show only problems</source>
            <translation>Nur Probleme zeigen</translation>
        </message>
        <message>
            <location filename="ui/devices/permissions.py" />
            <source>What to do: {remedy}</source>
            <translation>Was zu tun ist: {remedy}</translation>
        </message>
        <message>
            <location filename="ui/devices/permissions.py" />
            <source>Why it matters: {why}.</source>
            <translation>Warum es wichtig ist: {why}.</translation>
        </message>
        <message>
            <location filename="ui/devices/permissions.py" />
            <source>fine</source>
            <translation>gut</translation>
        </message>
        <message>
            <location filename="ui/devices/permissions.py" />
            <source>no problem found</source>
            <translation>kein Problem gefunden</translation>
        </message>
        <message>
            <location filename="ui/devices/permissions.py" />
            <source>note</source>
            <translation>Hinweis</translation>
        </message>
        <message>
            <location filename="ui/devices/permissions.py" />
            <source>problem</source>
            <translation>Problem</translation>
        </message>
        <message numerus="yes">
            <location filename="ui/devices/permissions.py" />
            <source>{n} notes</source>
            <translation>
                <numerusform>{n} Hinweis</numerusform>
                <numerusform>{n} Hinweise</numerusform>
            </translation>
        </message>
        <message numerus="yes">
            <location filename="ui/devices/permissions.py" />
            <source>{n} problems found</source>
            <translation>
                <numerusform>{n} Problem gefunden</numerusform>
                <numerusform>{n} Probleme gefunden</numerusform>
            </translation>
        </message>
        <message>
            <location filename="ui/devices/polling.py" />
            <source>Measure</source>
            <translation>Messen</translation>
        </message>
        <message>
            <location filename="ui/devices/polling.py" />
            <source>Measure again</source>
            <translation>Noch einmal messen</translation>
        </message>
        <message>
            <location filename="ui/devices/polling.py" />
            <source>Move the mouse here</source>
            <translation>Maus hier bewegen</translation>
        </message>
        <message>
            <location filename="ui/devices/polling.py" />
            <source>Move the mouse in circles here.</source>
            <translation>Beweg die Maus hier im Kreis.</translation>
        </message>
        <message>
            <location filename="ui/devices/polling.py" />
            <source>Move the mouse in circles…</source>
            <translation>Maus im Kreis bewegen …</translation>
        </message>
        <message>
            <location filename="ui/devices/polling.py" />
            <source>Polling: {name}</source>
            <translation>Abtastrate: {name}</translation>
        </message>
        <message>
            <location filename="ui/devices/polling.py" />
            <source>Press Measure, and move the mouse in circles for three seconds.</source>
            <translation>Drück auf Messen und beweg die Maus drei Sekunden lang im Kreis.</translation>
        </message>
        <message>
            <location filename="ui/devices/polling.py" />
            <source>The times are the X server's, whose clock has milliseconds: rates above 1,000 can't be told, and single times not at all. Where Nakrel reads devices through the kernel they are exact.</source>
            <translation>Die Zeiten sind die des X-Servers, dessen Uhr Millisekunden zählt: Raten über 1.000 lassen sich nicht angeben, einzelne Zeiten gar nicht. Wo Nakrel die Geräte durch den Kernel liest, sind sie genau.</translation>
        </message>
        <message>
            <location filename="ui/devices/polling.py" />
            <source>The times are the kernel's own, to the microsecond.</source>
            <translation>Die Zeiten sind die des Kernels, auf die Mikrosekunde genau.</translation>
        </message>
        <message>
            <location filename="ui/devices/polling.py" />
            <source>ms between reports</source>
            <translation>ms zwischen Meldungen</translation>
        </message>
        <message>
            <location filename="ui/devices/polling.py" />
            <source>none is missing</source>
            <translation>keine fehlt</translation>
        </message>
        <message>
            <location filename="ui/devices/polling.py" />
            <source>{missing} of {value} are missing</source>
            <translation>{missing} von {value} fehlen</translation>
        </message>
        <message>
            <location filename="ui/devices/polling.py" />
            <source>{rate_hz} reports a second: a mouse of {nearest_hz} Hz. One every {usual} ms, half of them within {value} ms of each other; </source>
            <translation>{rate_hz} Meldungen in der Sekunde: eine Maus mit {nearest_hz} Hz. Alle {usual} ms eine, die Hälfte davon innerhalb von {value} ms; </translation>
        </message>
        <message>
            <location filename="ui/devices/second_keyboards.py" />
            <source>keys of {keyboard}</source>
            <translation>Tasten von {keyboard}</translation>
        </message>
        <message>
            <location filename="ui/devices/thumb_keys.py" />
            <source>Move it to the thumb buttons</source>
            <translation>Zu den Daumentasten verschieben</translation>
        </message>
        <message>
            <location filename="ui/devices/thumb_keys.py" />
            <source>What is attached to number keys in {names} now starts from the keyboard only.</source>
            <translation>Was in {names} auf Zifferntasten liegt, startet jetzt nur noch die Tastatur.</translation>
        </message>
        <message>
            <location filename="ui/devices/thumb_keys.py" />
            <source>number keys of {mouse}</source>
            <translation>Zifferntasten von {mouse}</translation>
        </message>
        <message>
            <location filename="ui/help/about.py" />
            <source>About Nakrel</source>
            <translation>Über Nakrel</translation>
        </message>
        <message>
            <location filename="ui/help/about.py" />
            <source>Free software under the GNU General Public License, version 3 or later. It comes without any warranty.</source>
            <translation>Freie Software unter der GNU General Public License, Version 3 oder später. Ohne jede Gewährleistung.</translation>
        </message>
        <message>
            <location filename="ui/help/about.py" />
            <source>Made with</source>
            <translation>Gemacht mit</translation>
        </message>
        <message>
            <location filename="ui/help/about.py" />
            <source>Record, time and attach keystroke and click macros, per game</source>
            <translation>Makros aus Tasten und Klicks aufzeichnen, timen und belegen, je Spiel</translation>
        </message>
        <message>
            <location filename="ui/help/about.py" />
            <source>the typeface B612</source>
            <translation>die Schrift B612</translation>
        </message>
        <message>
            <location filename="ui/help/reader.py" />
            <source>Document</source>
            <translation>Dokument</translation>
        </message>
        <message>
            <location filename="ui/help/reader.py" />
            <source>Documents</source>
            <translation>Dokumente</translation>
        </message>
        <message>
            <location filename="ui/help/reader.py" />
            <source>Help</source>
            <translation>Hilfe</translation>
        </message>
        <message>
            <location filename="ui/help/reader.py" />
            <source>Search the documents</source>
            <translation>In den Dokumenten suchen</translation>
        </message>
        <message>
            <location filename="ui/help/reader.py" />
            <source>{count} documents</source>
            <translation>{count} Dokumente</translation>
        </message>
        <message numerus="yes">
            <location filename="ui/help/reader.py" />
            <source>{n} places</source>
            <translation>
                <numerusform>{n} Stelle</numerusform>
                <numerusform>{n} Stellen</numerusform>
            </translation>
        </message>
        <message>
            <location filename="ui/help/report.py" />
            <source>Copied.</source>
            <translation>Kopiert.</translation>
        </message>
        <message>
            <location filename="ui/help/report.py" />
            <source>Copy this text to where you report the problem, and say what you did and what you expected. Nothing is sent.</source>
            <translation>Kopier diesen Text dorthin, wo du das Problem meldest, und schreib dazu, was du getan und was du erwartet hast. Nichts wird gesendet.</translation>
        </message>
        <message>
            <location filename="ui/help/report.py" />
            <source>Input check:</source>
            <translation>Eingabeprüfung:</translation>
        </message>
        <message>
            <location filename="ui/help/report.py" />
            <source>Report a problem</source>
            <translation>Problem melden</translation>
        </message>
        <message>
            <location filename="ui/help/report.py" />
            <source>The end of the journal:</source>
            <translation>Das Ende des Protokolls:</translation>
        </message>
        <message>
            <location filename="ui/help/report.py" />
            <source>The report</source>
            <translation>Der Bericht</translation>
        </message>
        <message>
            <location filename="ui/help/report.py" />
            <source>With the names of programs, profiles, macros and devices</source>
            <translation>Mit den Namen von Programmen, Profilen, Makros und Geräten</translation>
        </message>
        <message>
            <location filename="ui/journal/page.py" />
            <source>Find in the journal</source>
            <translation>Im Protokoll suchen</translation>
        </message>
        <message>
            <location filename="ui/journal/page.py" />
            <source>Journal</source>
            <translation>Protokoll</translation>
        </message>
        <message>
            <location filename="ui/journal/page.py" />
            <source>Profile switches, runs and faults. What you type is never in it.</source>
            <translation>Profilwechsel, Durchläufe und Fehler. Was du tippst, steht nie darin.</translation>
        </message>
        <message>
            <location filename="ui/journal/page.py" />
            <source>edit</source>
            <comment>journal</comment>
            <translation>Bearbeitung</translation>
        </message>
        <message>
            <location filename="ui/journal/page.py" />
            <source>fault</source>
            <comment>journal</comment>
            <translation>Fehler</translation>
        </message>
        <message>
            <location filename="ui/journal/page.py" />
            <source>kind</source>
            <translation>Art</translation>
        </message>
        <message>
            <location filename="ui/journal/page.py" />
            <source>run</source>
            <comment>journal</comment>
            <translation>Durchlauf</translation>
        </message>
        <message>
            <location filename="ui/journal/page.py" />
            <source>service</source>
            <comment>journal</comment>
            <translation>Dienst</translation>
        </message>
        <message>
            <location filename="ui/journal/page.py" />
            <source>switch</source>
            <comment>journal</comment>
            <translation>Wechsel</translation>
        </message>
        <message>
            <location filename="ui/journal/page.py" />
            <source>tuning</source>
            <comment>journal</comment>
            <translation>Abstimmen</translation>
        </message>
        <message>
            <location filename="ui/journal/page.py" />
            <source>what</source>
            <translation>was</translation>
        </message>
        <message>
            <location filename="ui/journal/page.py" />
            <source>when</source>
            <translation>wann</translation>
        </message>
        <message>
            <location filename="ui/journal/page.py" />
            <source>why</source>
            <translation>warum</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>640, 400 or by 10, -5</source>
            <translation>640, 400 oder by 10, -5</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>Add step</source>
            <translation>Schritt hinzufügen</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>Choose one place or several by clicking there (Ctrl+K)</source>
            <translation>Eine oder mehrere Stellen wählen, indem du dort klickst (Strg+K)</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>Good evening, harbour!</source>
            <translation>Guten Abend, Hafen!</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>Hold or wait</source>
            <translation>Halten oder warten</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>Kept in the desktop's keyring under this name, and in no file</source>
            <translation>Unter diesem Namen im Schlüsselbund des Desktops und in keiner Datei</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>Key or button of the step</source>
            <translation>Taste des Schritts</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>Kind of step</source>
            <translation>Art des Schritts</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>Name of the secret</source>
            <translation>Name des Geheimnisses</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>Pick on the screen…</source>
            <translation>Auf dem Bildschirm wählen …</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>Press the key or button to choose it</source>
            <translation>Drück die Taste, um sie zu wählen</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>The key that it is pressed together with</source>
            <translation>Die Taste, mit der sie zusammen gedrückt wird</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>a combination needs two different keys</source>
            <translation>eine Kombination braucht zwei verschiedene Tasten</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>a secret needs a text, and a name by which the step asks for it</source>
            <translation>ein Geheimnis braucht einen Text, und einen Namen, unter dem der Schritt danach fragt</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>add</source>
            <translation>dazu</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>combination</source>
            <comment>kind of step</comment>
            <translation>Kombination</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>comment</source>
            <comment>kind of step</comment>
            <translation>Kommentar</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>if</source>
            <comment>kind of step</comment>
            <translation>wenn</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>open</source>
            <comment>kind of step</comment>
            <translation>öffnen</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>pointer</source>
            <comment>kind of step</comment>
            <translation>Zeiger</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>press</source>
            <comment>kind of step</comment>
            <translation>drücken</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>program and arguments</source>
            <translation>Programm und Argumente</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>random choice</source>
            <comment>kind of step</comment>
            <translation>zufällige Wahl</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>random wait</source>
            <comment>kind of step</comment>
            <translation>zufällig warten</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>release</source>
            <comment>kind of step</comment>
            <translation>loslassen</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>repeat</source>
            <comment>kind of step</comment>
            <translation>wiederholen</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>secret, named</source>
            <translation>geheim, Name</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>set</source>
            <comment>kind of step</comment>
            <translation>setzen</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>tap</source>
            <comment>kind of step</comment>
            <translation>antippen</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>text</source>
            <comment>kind of step</comment>
            <translation>Text</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>wait</source>
            <comment>kind of step</comment>
            <translation>warten</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>wheel</source>
            <comment>kind of step</comment>
            <translation>Mausrad</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>write it such as: {example}</source>
            <translation>schreib es etwa so: {example}</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>write something first, such as: {value}</source>
            <translation>schreib erst etwas, etwa: {value}</translation>
        </message>
        <message>
            <location filename="ui/macro/add_step.py" />
            <source>{name}  (not used by the game)</source>
            <translation>{name}  (vom Spiel nicht benutzt)</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>Click through places</source>
            <translation>Stellen durchklicken</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>Combination</source>
            <translation>Kombination</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>Hold until pressed again</source>
            <translation>Halten bis zum nächsten Druck</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>Keys in a row</source>
            <translation>Tasten der Reihe nach</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>Rapid fire</source>
            <translation>Dauerfeuer</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>Record</source>
            <translation>Aufzeichnen</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>Rhythm</source>
            <translation>Rhythmus</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>Step by step</source>
            <translation>Schritt für Schritt</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>Type a text</source>
            <translation>Text tippen</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>Write it as text</source>
            <translation>Als Text schreiben</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>a click at each place that you pick on the screen</source>
            <translation>ein Klick an jeder Stelle, die du auf dem Bildschirm wählst</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>a short tap at a steady pace</source>
            <translation>ein kurzes Antippen im gleichmäßigen Takt</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>a step a line</source>
            <translation>ein Schritt je Zeile</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>add each step yourself</source>
            <translation>jeden Schritt selbst hinzufügen</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>do it once, and edit it afterwards</source>
            <translation>einmal vormachen und danach bearbeiten</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>keys that stay down until the next press</source>
            <translation>Tasten, die bis zum nächsten Druck unten bleiben</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>one after the other, with a wait between</source>
            <translation>eine nach der anderen, mit einer Wartezeit dazwischen</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>one key or button, again and again while you hold</source>
            <translation>eine Taste, immer wieder, solange du hältst</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>several keys down together</source>
            <translation>mehrere Tasten zusammen</translation>
        </message>
        <message>
            <location filename="ui/macro/beginnings.py" />
            <source>typed as fast as you say</source>
            <translation>getippt, so schnell du sagst</translation>
        </message>
        <message>
            <location filename="ui/macro/builder.py" />
            <source>Choose the places by clicking there</source>
            <translation>Die Stellen wählen, indem du dort klickst</translation>
        </message>
        <message>
            <location filename="ui/macro/builder.py" />
            <source>Keys</source>
            <translation>Tasten</translation>
        </message>
        <message>
            <location filename="ui/macro/builder.py" />
            <source>Make the steps</source>
            <translation>Schritte machen</translation>
        </message>
        <message>
            <location filename="ui/macro/builder.py" />
            <source>Names, separated by commas</source>
            <translation>Namen, durch Kommas getrennt</translation>
        </message>
        <message>
            <location filename="ui/macro/builder.py" />
            <source>Press a key to add it</source>
            <translation>Drück eine Taste, um sie hinzuzufügen</translation>
        </message>
        <message>
            <location filename="ui/macro/builder.py" />
            <source>Press to add</source>
            <translation>Zum Hinzufügen drücken</translation>
        </message>
        <message>
            <location filename="ui/macro/builder.py" />
            <source>Replace the steps</source>
            <translation>Schritte ersetzen</translation>
        </message>
        <message>
            <location filename="ui/macro/builder.py" />
            <source>Replaces the macro's steps; undo restores them</source>
            <translation>Ersetzt die Schritte des Makros; Rückgängig holt sie zurück</translation>
        </message>
        <message>
            <location filename="ui/macro/builder.py" />
            <source>Text</source>
            <translation>Text</translation>
        </message>
        <message>
            <location filename="ui/macro/builder.py" />
            <source>What to build</source>
            <translation>Was gebaut wird</translation>
        </message>
        <message>
            <location filename="ui/macro/builder.py" />
            <source>pause {time} ms</source>
            <translation>Pause {time} ms</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>A note for yourself</source>
            <translation>Eine Notiz für dich</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>Attach in {name}…</source>
            <translation>In {name} belegen …</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>Attached to</source>
            <translation>Liegt auf</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>Attach…</source>
            <translation>Belegen …</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>Checks</source>
            <translation>Prüfungen</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>Checks ({count} so far)</source>
            <translation>Prüfungen (bisher {count})</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>Checks ({count})</source>
            <translation>Prüfungen ({count})</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>Choose the button by pressing it (Ctrl+B)</source>
            <translation>Die Taste wählen, indem du sie drückst (Strg+B)</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>Frame check</source>
            <translation>Frame-Prüfung</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>How it plays</source>
            <translation>Wie es spielt</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>Last run</source>
            <translation>Letzter Durchlauf</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>No button plays it yet.</source>
            <translation>Noch spielt es keine Taste.</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>Note</source>
            <translation>Notiz</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>Press the button that should play it…</source>
            <translation>Drück die Taste, die es spielen soll …</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>Select the step</source>
            <translation>Schritt auswählen</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>Show</source>
            <translation>Zeigen</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>Tune</source>
            <translation>Abstimmen</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>and {value} more</source>
            <translation>und {value} weitere</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>note of {name}</source>
            <translation>Notiz von {name}</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>one run lasts</source>
            <translation>ein Durchlauf dauert</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>{button} in {name}</source>
            <translation>{button} in {name}</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>{button} plays it now in {name}.</source>
            <translation>{button} spielt es jetzt in {name}.</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>{button} plays it now in {name}. It did something else before; undo brings that back.</source>
            <translation>{button} spielt es jetzt in {name}. Sie tat vorher etwas anderes; Rückgängig bringt das zurück.</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>{time} ms</source>
            <translation>{time} ms</translation>
        </message>
        <message>
            <location filename="ui/macro/details.py" />
            <source>{what} of {name}</source>
            <translation>{what} von {name}</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/bar.py" />
            <source>Distance between the calipers</source>
            <translation>Abstand zwischen den Messmarken</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/bar.py" />
            <source>Drag an edge or a hold, or click two edges to measure. F1 lists the keys.</source>
            <translation>Flanke oder Halten ziehen, oder zwei Flanken anklicken und messen. F1: Tasten.</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/bar.py" />
            <source>Fit</source>
            <translation>Einpassen</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/bar.py" />
            <source>Show all of it (0)</source>
            <translation>Alles zeigen (0)</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/bar.py" />
            <source>Show less time (+)</source>
            <translation>Weniger Zeit zeigen (+)</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/bar.py" />
            <source>Show more time (-)</source>
            <translation>Mehr Zeit zeigen (-)</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/bar.py" />
            <source>Snap to</source>
            <translation>Einrasten bei</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/bar.py" />
            <source>Type a distance: 35, 0.2s, 2f@60 or 20/s. What comes after it goes along.</source>
            <translation>Tipp einen Abstand: 35, 0,2s, 2f@60 oder 20/s. Was danach kommt, geht mit.</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/bar.py" />
            <source>Zoom in</source>
            <translation>Vergrößern</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/bar.py" />
            <source>Zoom out</source>
            <translation>Verkleinern</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/bar.py" />
            <source>free</source>
            <translation>frei</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/bar.py" />
            <source>snap 0.1 ms</source>
            <translation>Raster 0,1 ms</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/bar.py" />
            <source>snap 1 ms</source>
            <translation>Raster 1 ms</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/bar.py" />
            <source>snap 5 ms</source>
            <translation>Raster 5 ms</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/bar.py" />
            <source>snap frames</source>
            <translation>Raster Frames</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/paint.py" />
            <source>zoom in to see the frames</source>
            <translation>vergrößern, um die Frames zu sehen</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/paint.py" />
            <source>{fps} frames/s</source>
            <translation>{fps} Frames/s</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/selection.py" />
            <source>{button} from {time} ms, for {hold} ms</source>
            <translation>{button} ab {time} ms, {hold} ms lang</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/selection.py" />
            <source>{button} goes down at {time} ms</source>
            <translation>{button} geht bei {time} ms hinunter</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/selection.py" />
            <source>{button} is released at {time} ms</source>
            <translation>{button} wird bei {time} ms losgelassen</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/selection.py" />
            <source>{count} edges picked</source>
            <translation>{count} Flanken gewählt</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/spoken.py" />
            <source>; and more, which the list of steps has</source>
            <translation>; und mehr, das in der Liste der Schritte steht</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/spoken.py" />
            <source>{button}, down at {time} ms for {hold} ms</source>
            <translation>{button}, unten ab {time} ms, {hold} ms lang</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/widget.py" />
            <source>Not possible: {error}.</source>
            <translation>Nicht möglich: {error}.</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/widget.py" />
            <source>Nothing yet. Press Record and do it once, or begin below.</source>
            <translation>Noch nichts. Drück auf Aufzeichnen und mach es einmal vor, oder fang unten an.</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/widget.py" />
            <source>Press what the macro should play.</source>
            <translation>Drücke, was das Makro spielen soll.</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/widget.py" />
            <source>Stops here: {refusal}.</source>
            <translation>Hier geht es nicht weiter: {refusal}.</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/widget.py" />
            <source>Timing diagram</source>
            <translation>Zeitdiagramm</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/widget.py" />
            <source>distance in time</source>
            <translation>Abstand in der Zeit</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/widget.py" />
            <source>move in time</source>
            <translation>in der Zeit verschieben</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram/widget.py" />
            <source>moved by {time} ms</source>
            <translation>um {time} ms verschoben</translation>
        </message>
        <message>
            <location filename="ui/macro/diagram_use.py" />
            <source>{message} in {name}</source>
            <translation>{message} in {name}</translation>
        </message>
        <message>
            <location filename="ui/macro/exchange.py" />
            <source>Events as a table</source>
            <translation>Ereignisse als Tabelle</translation>
        </message>
        <message>
            <location filename="ui/macro/exchange.py" />
            <source>Make a macro of a recording</source>
            <translation>Aus einer Aufzeichnung ein Makro machen</translation>
        </message>
        <message>
            <location filename="ui/macro/exchange.py" />
            <source>Reading {name}…</source>
            <translation>{name} wird gelesen …</translation>
        </message>
        <message>
            <location filename="ui/macro/exchange.py" />
            <source>Recording for evemu-play</source>
            <translation>Aufzeichnung für evemu-play</translation>
        </message>
        <message>
            <location filename="ui/macro/exchange.py" />
            <source>Recording for libinput replay</source>
            <translation>Aufzeichnung für libinput replay</translation>
        </message>
        <message>
            <location filename="ui/macro/exchange.py" />
            <source>Recordings and notation (*.evemu *.yml *.yaml *.csv *.txt)</source>
            <translation>Aufzeichnungen und Notation (*.evemu *.yml *.yaml *.csv *.txt)</translation>
        </message>
        <message>
            <location filename="ui/macro/exchange.py" />
            <source>Steps as a table</source>
            <translation>Schritte als Tabelle</translation>
        </message>
        <message>
            <location filename="ui/macro/exchange.py" />
            <source>Table (*.csv);;Value change dump (*.vcd)</source>
            <translation>Tabelle (*.csv);;Value Change Dump (*.vcd)</translation>
        </message>
        <message>
            <location filename="ui/macro/exchange.py" />
            <source>Value change dump</source>
            <translation>Value Change Dump</translation>
        </message>
        <message>
            <location filename="ui/macro/exchange.py" />
            <source>Write the last run of {name}</source>
            <translation>Den letzten Durchlauf von {name} schreiben</translation>
        </message>
        <message>
            <location filename="ui/macro/exchange.py" />
            <source>Write what {name} plays</source>
            <translation>Schreiben, was {name} spielt</translation>
        </message>
        <message>
            <location filename="ui/macro/exchange.py" />
            <source>Writing {name}…</source>
            <translation>{name} wird geschrieben …</translation>
        </message>
        <message>
            <location filename="ui/macro/exchange.py" />
            <source>{kinds};;All files (*)</source>
            <translation>{kinds};;Alle Dateien (*)</translation>
        </message>
        <message>
            <location filename="ui/macro/exchange.py" />
            <source>{name} is not text</source>
            <translation>{name} ist kein Text</translation>
        </message>
        <message>
            <location filename="ui/macro/exchange.py" />
            <source>{name} run</source>
            <translation>{name} Durchlauf</translation>
        </message>
        <message>
            <location filename="ui/macro/exchange.py" />
            <source>{name} was not written: {error}</source>
            <translation>{name} wurde nicht geschrieben: {error}</translation>
        </message>
        <message>
            <location filename="ui/macro/exchange.py" />
            <source>{name} was written. {words}</source>
            <translation>{name} ist geschrieben. {words}</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_check.py" />
            <source>1 % low frame rate</source>
            <translation>Framerate der langsamsten 1 %</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_check.py" />
            <source>A frame rate is a number from {least} to {most}.</source>
            <translation>Eine Framerate ist eine Zahl von {least} bis {most}.</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_check.py" />
            <source>Frames a second</source>
            <translation>Frames in der Sekunde</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_check.py" />
            <source>Its frame times vary by {spread}, 1 % low {low}; its server {tick}.</source>
            <translation>Seine Framezeiten schwanken um {spread}, 1 % low {low}; sein Server {tick}.</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_check.py" />
            <source>Presses seen against</source>
            <translation>Gesehene Tastendrücke nach</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_check.py" />
            <source>Presses seen, by frame rate</source>
            <translation>Gesehene Tastendrücke, nach Framerate</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_check.py" />
            <source>Presses seen, by hold</source>
            <translation>Gesehene Tastendrücke, nach Haltezeit</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_check.py" />
            <source>The macro's timing varies by {time} ms, as is typical.</source>
            <translation>Das Timing des Makros schwankt um {time} ms, wie es üblich ist.</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_check.py" />
            <source>The macro's timing varies by {time} ms, as the last run showed.</source>
            <translation>Das Timing des Makros schwankt um {time} ms, wie der letzte Durchlauf zeigte.</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_check.py" />
            <source>Use it</source>
            <translation>Übernehmen</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_check.py" />
            <source>a 1 % low rate is a number of frames a second from {least} to {most}</source>
            <translation>eine 1-%-low-Rate ist eine Zahl von Frames in der Sekunde von {least} bis {most}</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_check.py" />
            <source>events, no frames</source>
            <translation>Ereignisse, keine Frames</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_check.py" />
            <source>frame rate</source>
            <translation>Framerate</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_check.py" />
            <source>has no ticks</source>
            <translation>hat keine Ticks</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_check.py" />
            <source>hold</source>
            <translation>Haltezeit</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_check.py" />
            <source>how much frame times vary</source>
            <translation>wie sehr Framezeiten schwanken</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_check.py" />
            <source>server ticks</source>
            <translation>Server-Ticks</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_check.py" />
            <source>ticks {each} times a second</source>
            <translation>tickt {each}-mal in der Sekunde</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_check.py" />
            <source>timing of {name} for its game</source>
            <translation>Timing von {name} für sein Spiel</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_plot.py" />
            <source>{value} frames: {share} %</source>
            <translation>{value} Frames: {share} %</translation>
        </message>
        <message>
            <location filename="ui/macro/frame_plot.py" />
            <source>{value} ms: {share} %</source>
            <translation>{value} ms: {share} %</translation>
        </message>
        <message>
            <location filename="ui/macro/last_run.py" />
            <source>As a table or a dump</source>
            <translation>Als Tabelle oder Dump</translation>
        </message>
        <message>
            <location filename="ui/macro/last_run.py" />
            <source>How many events were how late</source>
            <translation>Wie viele Ereignisse wie spät waren</translation>
        </message>
        <message>
            <location filename="ui/macro/last_run.py" />
            <source>Save its events…</source>
            <translation>Seine Ereignisse speichern …</translation>
        </message>
        <message>
            <location filename="ui/macro/last_run.py" />
            <source>late by, 99 %</source>
            <translation>verspätet, 99 %</translation>
        </message>
        <message>
            <location filename="ui/macro/last_run.py" />
            <source>late by, at most</source>
            <translation>verspätet, höchstens</translation>
        </message>
        <message>
            <location filename="ui/macro/last_run.py" />
            <source>late by, median</source>
            <translation>verspätet, Median</translation>
        </message>
        <message>
            <location filename="ui/macro/last_run.py" />
            <source>later</source>
            <translation>später</translation>
        </message>
        <message>
            <location filename="ui/macro/last_run.py" />
            <source>no full run</source>
            <translation>kein voller Durchlauf</translation>
        </message>
        <message>
            <location filename="ui/macro/last_run.py" />
            <source>still running</source>
            <translation>läuft noch</translation>
        </message>
        <message>
            <location filename="ui/macro/last_run.py" />
            <source>up to {value} ms late</source>
            <translation>bis {value} ms zu spät</translation>
        </message>
        <message numerus="yes">
            <location filename="ui/macro/last_run.py" />
            <source>{n} runs</source>
            <translation>
                <numerusform>{n} Durchlauf</numerusform>
                <numerusform>{n} Durchläufe</numerusform>
            </translation>
        </message>
        <message>
            <location filename="ui/macro/last_run.py" />
            <source>{runs}, {events} events, {left_out} more not kept; ended: {reason}</source>
            <translation>{runs}, {events} Ereignisse, {left_out} weitere nicht aufgehoben; Ende: {reason}</translation>
        </message>
        <message>
            <location filename="ui/macro/last_run.py" />
            <source>{runs}, {events} events; ended: {reason}</source>
            <translation>{runs}, {events} Ereignisse; Ende: {reason}</translation>
        </message>
        <message>
            <location filename="ui/macro/last_run.py" />
            <source>{value} ms</source>
            <translation>{value} ms</translation>
        </message>
        <message>
            <location filename="ui/macro/notation_view.py" />
            <source>For example:</source>
            <translation>Zum Beispiel:</translation>
        </message>
        <message>
            <location filename="ui/macro/notation_view.py" />
            <source>In text keys have the names of the US layout, here and in files: {keys}.</source>
            <translation>Im Text heißen Tasten wie in der US-Belegung, hier und in Dateien: {keys}.</translation>
        </message>
        <message>
            <location filename="ui/macro/notation_view.py" />
            <source>One step a line; Ctrl+Space completes. What you type is taken as soon as it can be read.</source>
            <translation>Ein Schritt je Zeile; Strg+Leertaste vervollständigt. Was du tippst, gilt, sobald es sich lesen lässt.</translation>
        </message>
        <message>
            <location filename="ui/macro/notation_view.py" />
            <source>This macro has {size} steps, more than the {most} that can be worked on as text. Work on it in the list, or export it (Ctrl+E).</source>
            <translation>Dieses Makro hat {size} Schritte, mehr als die {most}, die sich als Text bearbeiten lassen. Bearbeite es in der Liste, oder exportiere es (Strg+E).</translation>
        </message>
        <message>
            <location filename="ui/macro/notation_view.py" />
            <source>notation of {name}</source>
            <translation>Notation von {name}</translation>
        </message>
        <message>
            <location filename="ui/macro/notation_view.py" />
            <source>{printed} is {name}</source>
            <translation>{printed} ist {name}</translation>
        </message>
        <message>
            <location filename="ui/macro/page.py" />
            <source>Change many times at once</source>
            <translation>Viele Zeiten auf einmal ändern</translation>
        </message>
        <message>
            <location filename="ui/macro/page.py" />
            <source>How should it begin?</source>
            <translation>Wie soll es anfangen?</translation>
        </message>
        <message>
            <location filename="ui/macro/page.py" />
            <source>Press the key that the selected steps should have…</source>
            <translation>Drück die Taste, die die gewählten Schritte haben sollen …</translation>
        </message>
        <message>
            <location filename="ui/macro/page.py" />
            <source>Replace the steps by one of the usual macros</source>
            <translation>Die Schritte durch eines der üblichen Makros ersetzen</translation>
        </message>
        <message>
            <location filename="ui/macro/page.py" />
            <source>Shown as</source>
            <translation>Gezeigt als</translation>
        </message>
        <message>
            <location filename="ui/macro/page.py" />
            <source>Start over</source>
            <translation>Neu anfangen</translation>
        </message>
        <message>
            <location filename="ui/macro/page.py" />
            <source>Steps</source>
            <translation>Schritte</translation>
        </message>
        <message>
            <location filename="ui/macro/page.py" />
            <source>There is no macro yet. Make one, then press Record and do it once.</source>
            <translation>Noch gibt es kein Makro. Leg eines an, drück dann auf Aufzeichnen und mach es einmal vor.</translation>
        </message>
        <message>
            <location filename="ui/macro/page.py" />
            <source>Timing</source>
            <translation>Timing</translation>
        </message>
        <message>
            <location filename="ui/macro/page.py" />
            <source>{kind} in {name}</source>
            <translation>{kind} in {name}</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>Options</source>
            <translation>Optionen</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>Record what you press, in any window (Ctrl+R)</source>
            <translation>Aufzeichnen, was du drückst, in jedem Fenster (Strg+R)</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>What is recorded, and how</source>
            <translation>Was aufgezeichnet wird, und wie</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>after step {number}</source>
            <translation>nach Schritt {number}</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>at the end of the loop</source>
            <translation>am Ende der Schleife</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>at the selected step</source>
            <translation>beim gewählten Schritt</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>buttons</source>
            <translation>Maustasten</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>every wait {time} ms</source>
            <translation>jede Wartezeit {time} ms</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>keys</source>
            <translation>Tasten</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>no waits</source>
            <translation>keine Wartezeiten</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>places at clicks</source>
            <translation>Stellen bei Klicks</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>pointer path</source>
            <translation>Zeigerpfad</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>recording begins in {left_s} s</source>
            <translation>Aufzeichnung beginnt in {left_s} s</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>recording here and under Xwayland</source>
            <translation>Aufnahme hier und unter Xwayland</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>recording in all windows</source>
            <translation>Aufnahme in allen Fenstern</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>recording in this window</source>
            <translation>Aufnahme in diesem Fenster</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>replaces all steps</source>
            <translation>ersetzt alle Schritte</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>waits as recorded</source>
            <translation>Wartezeiten wie aufgezeichnet</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>wheel</source>
            <translation>Mausrad</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>{key} ends it</source>
            <translation>{key} beendet sie</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>■  Stop</source>
            <translation>■  Stopp</translation>
        </message>
        <message>
            <location filename="ui/macro/recording.py" />
            <source>●  Record</source>
            <translation>●  Aufzeichnen</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>Begins after</source>
            <translation>Beginnt nach</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>Ends after</source>
            <translation>Endet nach</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>Every wait</source>
            <translation>Jede Wartezeit</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>The path is thinned as far as it stays so near to what you did</source>
            <translation>Der Pfad wird so weit ausgedünnt, wie er so nah an dem bleibt, was du getan hast</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>Tolerance of the path in pixels</source>
            <translation>Toleranz des Pfads in Pixeln</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>after </source>
            <translation>nach </translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>after the selected step</source>
            <translation>nach dem gewählten Schritt</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>as recorded</source>
            <translation>wie aufgezeichnet</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>at clicks</source>
            <translation>bei Klicks</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>at the end</source>
            <translation>am Ende</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>begins</source>
            <translation>beginnt</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>ends</source>
            <translation>endet</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>no countdown</source>
            <translation>kein Countdown</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>no limit</source>
            <translation>keine Grenze</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>one value</source>
            <translation>ein Wert</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>path</source>
            <translation>Pfad</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>pointer</source>
            <translation>Zeiger</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>recording settings</source>
            <translation>Aufzeichnungseinstellungen</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>replace all steps</source>
            <translation>alle Schritte ersetzen</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>steps</source>
            <translation>Schritte</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>waits</source>
            <translation>Wartezeiten</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>with the first press</source>
            <translation>mit dem ersten Druck</translation>
        </message>
        <message>
            <location filename="ui/macro/recording_options.py" />
            <source>within </source>
            <translation>bis auf </translation>
        </message>
        <message>
            <location filename="ui/macro/screen_places.py" />
            <source>It can't be shown: {error}.</source>
            <translation>Das lässt sich nicht zeigen: {error}.</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Change the key…</source>
            <translation>Taste ändern …</translation>
        </message>
        <message numerus="yes">
            <location filename="ui/macro/step_actions.py" />
            <source>Change the {n} presses, too</source>
            <translation>
                <numerusform>Auch den Druck ändern</numerusform>
                <numerusform>Auch die {n} Drücke ändern</numerusform>
            </translation>
        </message>
        <message numerus="yes">
            <location filename="ui/macro/step_actions.py" />
            <source>Change the {n} releases, too</source>
            <translation>
                <numerusform>Auch das Loslassen ändern</numerusform>
                <numerusform>Auch die {n} Loslassen ändern</numerusform>
            </translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Clear all steps</source>
            <translation>Alle Schritte löschen</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Copy	Ctrl+C</source>
            <translation>Kopieren	Strg+C</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Cut	Ctrl+X</source>
            <translation>Ausschneiden	Strg+X</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Delete	Del</source>
            <translation>Löschen	Entf</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Duplicate	Ctrl+D</source>
            <translation>Verdoppeln	Strg+D</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Edit	Enter</source>
            <translation>Bearbeiten	Eingabe</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Edit as text	F2</source>
            <translation>Als Text bearbeiten	F2</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Join into a combination</source>
            <translation>Zu einer Kombination verbinden</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Join into taps	Ctrl+T</source>
            <translation>Zu Antippen verbinden	Strg+T</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Move to section: {value}</source>
            <translation>In Abschnitt verschieben: {value}</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Only if…</source>
            <translation>Nur wenn …</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Paste	Ctrl+V</source>
            <translation>Einfügen	Strg+V</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Pick again…</source>
            <translation>Neu wählen …</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Pick places on the screen…	Ctrl+K</source>
            <translation>Stellen auf dem Bildschirm wählen …	Strg+K</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Random choice of them</source>
            <translation>Zufällige Wahl daraus</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Repeat…</source>
            <translation>Wiederholen …</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Show on screen	Ctrl+Shift+K</source>
            <translation>Auf dem Bildschirm zeigen	Strg+Umschalt+K</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Split taps</source>
            <translation>Antippen auftrennen</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>The clipboard holds no steps: {error}</source>
            <translation>Die Zwischenablage enthält keine Schritte: {error}</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>The press of the old key is still there.</source>
            <translation>Der Druck der alten Taste ist noch da.</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>The release of the old key is still there.</source>
            <translation>Das Loslassen der alten Taste ist noch da.</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>Turn off or on</source>
            <translation>Aus- oder einschalten</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>add a step to {name}</source>
            <translation>Schritt zu {name} hinzufügen</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>another key</source>
            <translation>andere Taste</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>another key in {name}</source>
            <translation>andere Taste in {name}</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>clear {name}</source>
            <translation>{name} leeren</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>delete steps of {name}</source>
            <translation>Schritte von {name} löschen</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>duplicate steps</source>
            <translation>Schritte verdoppeln</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>join into a combination</source>
            <translation>zu einer Kombination verbinden</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>move steps to section {value}</source>
            <translation>Schritte in Abschnitt {value} verschieben</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>only if</source>
            <translation>nur wenn</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>paste steps into {name}</source>
            <translation>Schritte in {name} einfügen</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>place in {name}</source>
            <translation>Stelle in {name}</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>repeat steps</source>
            <translation>Schritte wiederholen</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>split taps</source>
            <translation>Antippen auftrennen</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>switch steps</source>
            <translation>Schritte schalten</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>taps in {name}</source>
            <translation>Antippen in {name}</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>trim {name}</source>
            <translation>{name} zuschneiden</translation>
        </message>
        <message>
            <location filename="ui/macro/step_actions.py" />
            <source>{what} in {name}</source>
            <translation>{what} in {name}</translation>
        </message>
        <message>
            <location filename="ui/macro/steps_model.py" />
            <source>move steps in {name}</source>
            <translation>Schritte in {name} verschieben</translation>
        </message>
        <message>
            <location filename="ui/macro/steps_model.py" />
            <source>only a wait can be random; write one time for this step, not {value!r}</source>
            <translation>nur eine Wartezeit kann zufällig sein; schreib für diesen Schritt eine Zeit, nicht {value!r}</translation>
        </message>
        <message>
            <location filename="ui/macro/steps_model.py" />
            <source>only an if block has an else; delete that first</source>
            <translation>nur ein wenn-Block hat ein sonst; lösch das erst</translation>
        </message>
        <message>
            <location filename="ui/macro/steps_model.py" />
            <source>starts at, ms</source>
            <translation>beginnt bei, ms</translation>
        </message>
        <message>
            <location filename="ui/macro/steps_model.py" />
            <source>step</source>
            <translation>Schritt</translation>
        </message>
        <message>
            <location filename="ui/macro/steps_model.py" />
            <source>this block has steps inside; take them out before you make another step of it</source>
            <translation>dieser Block enthält Schritte; nimm sie heraus, bevor du einen anderen Schritt daraus machst</translation>
        </message>
        <message>
            <location filename="ui/macro/steps_model.py" />
            <source>time</source>
            <translation>Zeit</translation>
        </message>
        <message>
            <location filename="ui/macro/steps_model.py" />
            <source>write one step here; the notation takes several at once</source>
            <translation>schreib hier einen Schritt; die Notation nimmt mehrere auf einmal</translation>
        </message>
        <message>
            <location filename="ui/macro/steps_model.py" />
            <source>{step}, off</source>
            <translation>{step}, aus</translation>
        </message>
        <message>
            <location filename="ui/macro/steps_model.py" />
            <source>{value!r} is not a number of notches; write 1 to {most}, or a formula in parentheses</source>
            <translation>{value!r} ist keine Zahl von Rasten; schreib 1 bis {most}, oder eine Formel in Klammern</translation>
        </message>
        <message>
            <location filename="ui/macro/steps_model.py" />
            <source>{value!r} is not a number of times; write 1 to {most}, or a formula in parentheses</source>
            <translation>{value!r} ist keine Zahl von Malen; schreib 1 bis {most}, oder eine Formel in Klammern</translation>
        </message>
        <message>
            <location filename="ui/macro/steps_model.py" />
            <source>{value!r} is not a rate a second; write 1 to {most}, or a formula in parentheses</source>
            <translation>{value!r} ist keine Rate in der Sekunde; schreib 1 bis {most}, oder eine Formel in Klammern</translation>
        </message>
        <message>
            <location filename="ui/macro/steps_model.py" />
            <source>{value!r} is not a weight; write 1 to {most}, or a formula in parentheses</source>
            <translation>{value!r} ist kein Gewicht; schreib 1 bis {most}, oder eine Formel in Klammern</translation>
        </message>
        <message>
            <location filename="ui/macro/steps_table.py" />
            <source>Comment; Shift+Enter begins a new line</source>
            <translation>Kommentar; Umschalt+Eingabe beginnt eine neue Zeile</translation>
        </message>
        <message>
            <location filename="ui/macro/take_strip.py" />
            <source>Compare them…</source>
            <translation>Vergleichen …</translation>
        </message>
        <message>
            <location filename="ui/macro/take_strip.py" />
            <source>No take yet: press Record</source>
            <translation>Noch keine Aufnahme: drück auf Aufzeichnen</translation>
        </message>
        <message>
            <location filename="ui/macro/take_strip.py" />
            <source>Take {number}</source>
            <translation>Aufnahme {number}</translation>
        </message>
        <message>
            <location filename="ui/macro/take_strip.py" />
            <source>Take {number} · {when} · {events} · {seconds}</source>
            <translation>Aufnahme {number} · {when} · {events} · {seconds}</translation>
        </message>
        <message>
            <location filename="ui/macro/take_strip.py" />
            <source>delays</source>
            <translation>Verzögerungen</translation>
        </message>
        <message>
            <location filename="ui/macro/take_strip.py" />
            <source>delays {delays} {even} · pointer {pointer} · {taps} · {where}</source>
            <translation>Verzögerungen {delays} {even} · Zeiger {pointer} · {taps} · {where}</translation>
        </message>
        <message>
            <location filename="ui/macro/take_strip.py" />
            <source>delays {delays} · pointer {pointer} · {taps} · {where}</source>
            <translation>Verzögerungen {delays} · Zeiger {pointer} · {taps} · {where}</translation>
        </message>
        <message>
            <location filename="ui/macro/take_strip.py" />
            <source>every delay</source>
            <translation>jede Verzögerung</translation>
        </message>
        <message>
            <location filename="ui/macro/take_strip.py" />
            <source>goes</source>
            <translation>kommt</translation>
        </message>
        <message>
            <location filename="ui/macro/take_strip.py" />
            <source>joined into taps</source>
            <translation>zu Antippen verbunden</translation>
        </message>
        <message>
            <location filename="ui/macro/take_strip.py" />
            <source>other takes…</source>
            <translation>andere Aufnahmen …</translation>
        </message>
        <message>
            <location filename="ui/macro/take_strip.py" />
            <source>presses</source>
            <translation>Drücke</translation>
        </message>
        <message>
            <location filename="ui/macro/take_strip.py" />
            <source>presses and releases</source>
            <translation>Drücken und Loslassen</translation>
        </message>
        <message>
            <location filename="ui/macro/take_strip.py" />
            <source>recording into {name}</source>
            <translation>Aufzeichnung in {name}</translation>
        </message>
        <message>
            <location filename="ui/macro/take_strip.py" />
            <source>replacing all steps</source>
            <translation>ersetzt alle Schritte</translation>
        </message>
        <message numerus="yes">
            <location filename="ui/macro/take_strip.py" />
            <source>{n} events</source>
            <translation>
                <numerusform>{n} Ereignis</numerusform>
                <numerusform>{n} Ereignisse</numerusform>
            </translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source> The pointer's path is left out.</source>
            <translation> Der Pfad des Zeigers ist weggelassen.</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>Comparing…</source>
            <translation>Wird verglichen …</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>Each time is the one that {share} of the takes don't exceed.</source>
            <translation>Jede Zeit ist die, die {share} der Aufnahmen nicht überschreiten.</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>Each time is the one that {share} of the takes don't exceed: the longest.</source>
            <translation>Jede Zeit ist die, die {share} der Aufnahmen nicht überschreiten: die längste.</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>Each time is the one that {share} of the takes don't exceed: the median.</source>
            <translation>Jede Zeit ist die, die {share} der Aufnahmen nicht überschreiten: der Median.</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>Each time is the one that {share} of the takes don't exceed: the shortest.</source>
            <translation>Jede Zeit ist die, die {share} der Aufnahmen nicht überschreiten: die kürzeste.</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>Events and the time before each</source>
            <translation>Ereignisse und die Zeit vor jedem</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>Median of {count} takes</source>
            <translation>Median von {count} Aufnahmen</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>Take {take}: {message}.</source>
            <translation>Aufnahme {take}: {message}.</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>Takes side by side</source>
            <translation>Aufnahmen nebeneinander</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>Takes, one over the other</source>
            <translation>Aufnahmen übereinander</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>The {share} % times of {count} takes</source>
            <translation>Die {share}-%-Zeiten von {count} Aufnahmen</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>Use take {value}, the fastest complete one</source>
            <translation>Aufnahme {value} nehmen, die schnellste vollständige</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>Use these times</source>
            <translation>Diese Zeiten nehmen</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>after, ms</source>
            <translation>danach, ms</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>event</source>
            <translation>Ereignis</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>far off in</source>
            <translation>weit daneben in</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>spread</source>
            <translation>Streuung</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>take {take}</source>
            <translation>Aufnahme {take}</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>which of the times</source>
            <translation>welche der Zeiten</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>which of the times is used is a percentage from 0 (shortest) to 100 (longest)</source>
            <translation>welche der Zeiten gilt, ist ein Prozentsatz von 0 (kürzeste) bis 100 (längste)</translation>
        </message>
        <message>
            <location filename="ui/macro/takes_dialog.py" />
            <source>{count} takes, compared with take {centre}, which is nearest to the others.</source>
            <translation>{count} Aufnahmen, verglichen mit Aufnahme {centre}, die den anderen am nächsten ist.</translation>
        </message>
        <message>
            <location filename="ui/macro/timing.py" />
            <source>Change</source>
            <translation>Ändern</translation>
        </message>
        <message>
            <location filename="ui/macro/timing.py" />
            <source>Change of times</source>
            <translation>Änderung der Zeiten</translation>
        </message>
        <message>
            <location filename="ui/macro/timing.py" />
            <source>Take out the waits at the loop's ends</source>
            <translation>Die Wartezeiten an den Enden der Schleife herausnehmen</translation>
        </message>
        <message>
            <location filename="ui/macro/timing.py" />
            <source>Time or factor</source>
            <translation>Zeit oder Faktor</translation>
        </message>
        <message>
            <location filename="ui/macro/timing.py" />
            <source>Trim both ends</source>
            <translation>Beide Enden zuschneiden</translation>
        </message>
        <message>
            <location filename="ui/macro/timing.py" />
            <source>a grid of 0 ms has no lines; write a time, or frames as 1f@60</source>
            <translation>ein Raster von 0 ms hat keine Linien; schreib eine Zeit, oder Frames als 1f@60</translation>
        </message>
        <message>
            <location filename="ui/macro/timing.py" />
            <source>make at least</source>
            <translation>mindestens</translation>
        </message>
        <message>
            <location filename="ui/macro/timing.py" />
            <source>of all steps</source>
            <translation>aller Schritte</translation>
        </message>
        <message>
            <location filename="ui/macro/timing.py" />
            <source>of {selected} selected</source>
            <translation>von {selected} gewählten</translation>
        </message>
        <message>
            <location filename="ui/macro/timing.py" />
            <source>round to</source>
            <translation>runden auf</translation>
        </message>
        <message>
            <location filename="ui/macro/timing.py" />
            <source>scale by</source>
            <translation>mal</translation>
        </message>
        <message>
            <location filename="ui/macro/timing.py" />
            <source>set all to</source>
            <translation>alle auf</translation>
        </message>
        <message>
            <location filename="ui/macro/timing.py" />
            <source>times</source>
            <translation>Zeiten</translation>
        </message>
        <message>
            <location filename="ui/macro/timing.py" />
            <source>{value!r} is not a factor; write it as 1.5 or 150 %</source>
            <translation>{value!r} ist kein Faktor; schreib ihn als 1,5 oder 150 %</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>90 of 100 times</source>
            <translation>in 90 von 100 Fällen</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>95 of 100 times</source>
            <translation>in 95 von 100 Fällen</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>99 of 100 times</source>
            <translation>in 99 von 100 Fällen</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>Find the shortest time of {target} from {least} to {most} that works {sure}. In the game, {yes} says that it worked, {no} that it didn't; {trials} trials at most.</source>
            <translation>Finde für {target} die kürzeste Zeit von {least} bis {most}, die {sure} klappt. Im Spiel sagt {yes}, dass es geklappt hat, {no}, dass nicht; höchstens {trials} Versuche.</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>Go on</source>
            <translation>Weiter</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>It didn't</source>
            <translation>Nicht geklappt</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>It worked</source>
            <translation>Geklappt</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>Leave</source>
            <translation>Verlassen</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>Play it in the game; then press {yes} if it worked, {no} if it didn't.</source>
            <translation>Spiel es im Spiel; drück dann {yes}, wenn es geklappt hat, {no}, wenn nicht.</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>Press the button that says it…</source>
            <translation>Drück die Taste, die das sagt …</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>Select the step first whose time is to be found: a wait, a tap or a combination.</source>
            <translation>Wähl erst den Schritt, dessen Zeit gesucht wird: eine Wartezeit, ein Antippen oder eine Kombination.</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>Start</source>
            <translation>Start</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>Take the last back</source>
            <translation>Letzten zurücknehmen</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>The shortest time that works lies between {time} and {time2} ms (90 % sure).</source>
            <translation>Die kürzeste Zeit, die genügt, liegt zwischen {time} und {time2} ms (90 % sicher).</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>Trial {value}: {time} ms for {what}.</source>
            <translation>Versuch {value}: {time} ms für {what}.</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>Tuning finds the shortest wait or hold that works in a game. This macro has no fixed one yet.</source>
            <translation>Abstimmen findet die kürzeste Warte- oder Haltezeit, die im Spiel genügt. Dieses Makro hat noch keine feste.</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>Use it in {name} alone</source>
            <translation>Nur in {name} übernehmen</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>all waits</source>
            <translation>alle Wartezeiten</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>how many trials are made at most is a whole number, such as 40</source>
            <translation>wie viele Versuche höchstens gemacht werden, ist eine ganze Zahl, etwa 40</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>longest time</source>
            <translation>längste Zeit</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>says that it didn't</source>
            <translation>sagt, dass es nicht geklappt hat</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>says that it worked</source>
            <translation>sagt, dass es geklappt hat</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>shortest time</source>
            <translation>kürzeste Zeit</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>the button that says it didn't</source>
            <translation>die Taste, die sagt, dass es nicht geklappt hat</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>the button that says it worked</source>
            <translation>die Taste, die sagt, dass es geklappt hat</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>the selected step</source>
            <translation>den gewählten Schritt</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>trials at most</source>
            <translation>Versuche höchstens</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>what is tuned</source>
            <translation>was abgestimmt wird</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>{name} is tuned now.</source>
            <translation>{name} wird gerade abgestimmt.</translation>
        </message>
        <message>
            <location filename="ui/macro/tune.py" />
            <source>{yes} if it worked, {no} if it didn't.</source>
            <translation>{yes}, wenn es geklappt hat, {no}, wenn nicht.</translation>
        </message>
        <message>
            <location filename="ui/macro/tuning_plot.py" />
            <source>{worked} of {count} trials worked; the shortest time lies between {time} and {time2} ms</source>
            <translation>{worked} von {count} Versuchen klappten; die kürzeste Zeit liegt zwischen {time} und {time2} ms</translation>
        </message>
        <message>
            <location filename="ui/macro/tuning_session.py" />
            <source>its macro was deleted</source>
            <translation>sein Makro wurde gelöscht</translation>
        </message>
        <message>
            <location filename="ui/macro/tuning_session.py" />
            <source>no time up to {time} ms is sure to work {share}; {count}</source>
            <translation>keine Zeit bis {time} ms klappt sicher {share}; {count}</translation>
        </message>
        <message>
            <location filename="ui/macro/tuning_session.py" />
            <source>so far {time} ms</source>
            <translation>bisher {time} ms</translation>
        </message>
        <message>
            <location filename="ui/macro/tuning_session.py" />
            <source>tuned time of {name}</source>
            <translation>abgestimmte Zeit von {name}</translation>
        </message>
        <message numerus="yes">
            <location filename="ui/macro/tuning_session.py" />
            <source>{n} trials</source>
            <translation>
                <numerusform>{n} Versuch</numerusform>
                <numerusform>{n} Versuche</numerusform>
            </translation>
        </message>
        <message>
            <location filename="ui/macro/tuning_session.py" />
            <source>{time} ms works {share}</source>
            <translation>{time} ms klappen {share}</translation>
        </message>
        <message>
            <location filename="ui/macro/tuning_session.py" />
            <source>{value} of 100 times</source>
            <translation>in {value} von 100 Fällen</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>A profile from outside goes live only once you allow it, here or later at its head.</source>
            <translation>Ein Profil von außen wird erst aktiv, wenn du es erlaubst, hier oder später an seinem Kopf.</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>Allow {value}  ({where})</source>
            <translation>{value} erlauben  ({where})</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>Controls the desktop</source>
            <translation>Steuert den Desktop</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>Exists already</source>
            <translation>Schon vorhanden</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>If it exists already</source>
            <translation>Wenn es schon da ist</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>If it exists already:</source>
            <translation>Wenn es schon da ist:</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>Import</source>
            <translation>Importieren</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>It types</source>
            <translation>Es tippt</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>It would open programs ({count})</source>
            <translation>Es würde Programme öffnen ({count})</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>Keep both</source>
            <translation>Beide behalten</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>Let {value} go live</source>
            <translation>{value} aktiv werden lassen</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>Linked to</source>
            <translation>Verknüpft mit</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>Live with their programs</source>
            <translation>Aktiv mit ihren Programmen</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>Look inside a profile file</source>
            <translation>In eine Profildatei hineinsehen</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>Look inside {name}</source>
            <translation>In {name} hineinsehen</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>Macros</source>
            <translation>Makros</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>Nothing is imported yet. This is what is inside:</source>
            <translation>Noch ist nichts importiert. Das ist darin:</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>Profile file (*.nakrel.zip)</source>
            <translation>Profildatei (*.nakrel.zip)</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>Profiles</source>
            <translation>Profile</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>Replace</source>
            <translation>Ersetzen</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>Runs until stopped</source>
            <translation>Läuft, bis es gestoppt wird</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>Skip</source>
            <translation>Überspringen</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>These steps come turned off. Allow only what you know.</source>
            <translation>Diese Schritte kommen ausgeschaltet. Erlaub nur, was du kennst.</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>Write {name} and its macros</source>
            <translation>{name} und seine Makros schreiben</translation>
        </message>
        <message>
            <location filename="ui/profiles/bundle.py" />
            <source>Write {profiles} and their macros</source>
            <translation>{profiles} und ihre Makros schreiben</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>+ New</source>
            <translation>+ Neu</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>A new macro (Ctrl+M)</source>
            <translation>Ein neues Makro (Strg+M)</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>A new profile (Ctrl+N)</source>
            <translation>Ein neues Profil (Strg+N)</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>Duplicate</source>
            <translation>Verdoppeln</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>Empty this profile…</source>
            <translation>Dieses Profil leeren …</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>Export…</source>
            <translation>Exportieren …</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>Find a profile or macro</source>
            <translation>Profil oder Makro suchen</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>Give it copies</source>
            <translation>Eigene Kopien geben</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>Load with games</source>
            <translation>Mit Spielen laden</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>Load with games again</source>
            <translation>Wieder mit Spielen laden</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>No macro here yet. Make one with + New, then press Record.</source>
            <translation>Noch kein Makro. Leg mit + Neu eines an und drück dann auf Aufzeichnen.</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>No macro matches “{typed}”.</source>
            <translation>Kein Makro passt zu „{typed}“.</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>No profile matches “{typed}”.</source>
            <translation>Kein Profil passt zu „{typed}“.</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>Pin</source>
            <translation>Anheften</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>Rename	F2</source>
            <translation>Umbenennen	F2</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>This desktop doesn't tell programs which window is in front.</source>
            <translation>Dieser Desktop sagt Programmen nicht, welches Fenster im Vordergrund ist.</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>Versions…</source>
            <translation>Frühere Fassungen …</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>not saved</source>
            <translation>nicht gespeichert</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>saved</source>
            <translation>gespeichert</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>saving…</source>
            <translation>wird gespeichert …</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>the game in front counts</source>
            <translation>das Spiel im Vordergrund zählt</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>the game started last counts</source>
            <translation>das zuletzt gestartete Spiel zählt</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>{copy} plays the same macros as {name}: an edit of one changes both.</source>
            <translation>{copy} spielt dieselben Makros wie {name}: Eine Bearbeitung ändert beide.</translation>
        </message>
        <message>
            <location filename="ui/profiles/column.py" />
            <source>{name} is pinned</source>
            <translation>{name} ist angeheftet</translation>
        </message>
        <message>
            <location filename="ui/profiles/history.py" />
            <source>
… and {value} lines more</source>
            <translation>
… und {value} weitere Zeilen</translation>
        </message>
        <message>
            <location filename="ui/profiles/history.py" />
            <source> as it is now</source>
            <translation> wie es jetzt ist</translation>
        </message>
        <message>
            <location filename="ui/profiles/history.py" />
            <source>Deleted macros</source>
            <translation>Gelöschte Makros</translation>
        </message>
        <message>
            <location filename="ui/profiles/history.py" />
            <source>Deleted profiles</source>
            <translation>Gelöschte Profile</translation>
        </message>
        <message>
            <location filename="ui/profiles/history.py" />
            <source>No earlier version.</source>
            <translation>Keine frühere Fassung.</translation>
        </message>
        <message>
            <location filename="ui/profiles/history.py" />
            <source>Restore</source>
            <translation>Zurückholen</translation>
        </message>
        <message>
            <location filename="ui/profiles/history.py" />
            <source>Versions</source>
            <translation>Frühere Fassungen</translation>
        </message>
        <message>
            <location filename="ui/profiles/history.py" />
            <source>Versions of {name}</source>
            <translation>Fassungen von {name}</translation>
        </message>
        <message>
            <location filename="ui/profiles/history.py" />
            <source>What was in it</source>
            <translation>Was darin war</translation>
        </message>
        <message>
            <location filename="ui/profiles/history.py" />
            <source>fair play: {value}</source>
            <translation>Fair Play: {value}</translation>
        </message>
        <message>
            <location filename="ui/profiles/history.py" />
            <source>linked to {value}</source>
            <translation>verknüpft mit {value}</translation>
        </message>
        <message>
            <location filename="ui/profiles/history.py" />
            <source>name</source>
            <comment>of a thing</comment>
            <translation>Name</translation>
        </message>
        <message>
            <location filename="ui/profiles/history.py" />
            <source>plays: {how}</source>
            <translation>spielt: {how}</translation>
        </message>
        <message>
            <location filename="ui/profiles/history.py" />
            <source>restore {name}</source>
            <translation>{name} zurückholen</translation>
        </message>
        <message>
            <location filename="ui/profiles/history.py" />
            <source>saved</source>
            <comment>when</comment>
            <translation>gespeichert</translation>
        </message>
        <message>
            <location filename="ui/profiles/history.py" />
            <source>− in this version only    + now only</source>
            <translation>− nur in dieser Fassung    + nur jetzt</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source> and </source>
            <translation> und </translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>A file…</source>
            <translation>Eine Datei …</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>Find a program</source>
            <translation>Programm suchen</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>Installed</source>
            <translation>Installiert</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>Link</source>
            <translation>Verknüpfen</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>Link a program to {value}</source>
            <translation>Ein Programm mit {value} verknüpfen</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>Link {name} instead</source>
            <translation>Stattdessen {name} verknüpfen</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>Match by</source>
            <translation>Erkennen an</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>Pick the game. If it has a launcher, start the game first and pick the game, not the launcher.</source>
            <translation>Wähl das Spiel. Wenn es einen Launcher hat, starte erst das Spiel und wähl dann das Spiel, nicht den Launcher.</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>Programs</source>
            <translation>Programme</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>Running now</source>
            <translation>Läuft gerade</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>That is several programs; make the rule narrower, or each of them makes the profile live.</source>
            <translation>Das sind mehrere Programme; mach die Regel enger, sonst macht jedes davon das Profil aktiv.</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>The program's file</source>
            <translation>Die Datei des Programms</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>This matches no program that runs now.</source>
            <translation>Das passt zu keinem Programm, das jetzt läuft.</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>This matches now: {names}.</source>
            <translation>Das passt jetzt zu: {names}.</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>What to match</source>
            <translation>Woran erkannt wird</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>Where to pick from</source>
            <translation>Woraus gewählt wird</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>Windows program</source>
            <translation>Windows-Programm</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>application</source>
            <translation>Anwendung</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>application id</source>
            <translation>Anwendungskennung</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>executable</source>
            <translation>ausführbare Datei</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>match by</source>
            <translation>erkennen an</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>name</source>
            <translation>Name</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>no window</source>
            <translation>kein Fenster</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>part of the command line</source>
            <translation>Teil der Befehlszeile</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>program</source>
            <translation>Programm</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>show system programs</source>
            <translation>Systemprogramme zeigen</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>window</source>
            <translation>Fenster</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>window class</source>
            <translation>Fensterklasse</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>{name} has started {value}: it may be a launcher only.</source>
            <translation>{name} hat {value} gestartet: Es ist vielleicht nur ein Launcher.</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>{path} can't be read: {strerror}</source>
            <translation>{path} lässt sich nicht lesen: {strerror}</translation>
        </message>
        <message>
            <location filename="ui/profiles/link.py" />
            <source>{value} is linked to it, too; only one of two profiles can be live.</source>
            <translation>{value} ist auch damit verknüpft; nur eines von zwei Profilen kann aktiv sein.</translation>
        </message>
        <message>
            <location filename="ui/profiles/models.py" />
            <source>, live</source>
            <translation>, aktiv</translation>
        </message>
        <message>
            <location filename="ui/profiles/models.py" />
            <source>Not renamed: {error}.</source>
            <translation>Nicht umbenannt: {error}.</translation>
        </message>
        <message>
            <location filename="ui/profiles/models.py" />
            <source>in front</source>
            <translation>im Vordergrund</translation>
        </message>
        <message>
            <location filename="ui/profiles/models.py" />
            <source>no program linked</source>
            <translation>kein Programm verknüpft</translation>
        </message>
        <message>
            <location filename="ui/profiles/models.py" />
            <source>not running</source>
            <translation>läuft nicht</translation>
        </message>
        <message>
            <location filename="ui/profiles/models.py" />
            <source>rename {name}</source>
            <translation>{name} umbenennen</translation>
        </message>
        <message>
            <location filename="ui/profiles/models.py" />
            <source>running in the background</source>
            <translation>läuft im Hintergrund</translation>
        </message>
        <message>
            <location filename="ui/profiles/models.py" />
            <source>when no linked program runs</source>
            <translation>wenn nichts Verknüpftes läuft</translation>
        </message>
        <message>
            <location filename="ui/range/histograms.py" />
            <source>How long {name} was held, and its gaps</source>
            <translation>Wie lange {name} gehalten wurde, und die Lücken</translation>
        </message>
        <message>
            <location filename="ui/range/histograms.py" />
            <source>No button is selected</source>
            <translation>Keine Taste ist gewählt</translation>
        </message>
        <message>
            <location filename="ui/range/histograms.py" />
            <source>gaps, ms</source>
            <translation>Lücken, ms</translation>
        </message>
        <message>
            <location filename="ui/range/histograms.py" />
            <source>held, ms</source>
            <translation>gehalten, ms</translation>
        </message>
        <message>
            <location filename="ui/range/histograms.py" />
            <source>longer</source>
            <translation>länger</translation>
        </message>
        <message>
            <location filename="ui/range/histograms.py" />
            <source>none yet</source>
            <translation>noch keine</translation>
        </message>
        <message>
            <location filename="ui/range/histograms.py" />
            <source>up to {bound}</source>
            <translation>bis {bound}</translation>
        </message>
        <message>
            <location filename="ui/range/pad.py" />
            <source>Click here; then press, click, scroll and type. Esc leaves.</source>
            <translation>Hierhin klicken; dann drücken, klicken, scrollen und tippen. Esc verlässt das Feld.</translation>
        </message>
        <message>
            <location filename="ui/range/pad.py" />
            <source>Press, click, scroll and type here; Esc leaves</source>
            <translation>Hier drücken, klicken, scrollen und tippen; Esc verlässt das Feld</translation>
        </message>
        <message>
            <location filename="ui/range/pad.py" />
            <source>Press, click, scroll and type.</source>
            <translation>Drück, klick, scroll und tippe.</translation>
        </message>
        <message>
            <location filename="ui/range/pad.py" />
            <source>a macro</source>
            <translation>ein Makro</translation>
        </message>
        <message>
            <location filename="ui/range/pad.py" />
            <source>now</source>
            <translation>jetzt</translation>
        </message>
        <message>
            <location filename="ui/range/pad.py" />
            <source>paused</source>
            <translation>angehalten</translation>
        </message>
        <message>
            <location filename="ui/range/pad.py" />
            <source>{control}, by {button}</source>
            <translation>{control}, durch {button}</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>CSV (*.csv)</source>
            <translation>CSV (*.csv)</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>From the Range</source>
            <translation>Vom Prüfstand</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>Make a macro of it</source>
            <translation>Ein Makro daraus machen</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>On the Devices page</source>
            <translation>Auf der Seite Geräte</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>Only the first {most} events are in it; {late} more were counted alone.</source>
            <translation>Nur die ersten {most} Ereignisse sind darin; {late} weitere wurden nur gezählt.</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>Pause</source>
            <translation>Anhalten</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>Save as CSV</source>
            <translation>Als CSV speichern</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>Save as CSV…</source>
            <translation>Als CSV speichern …</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>Seen by a game at {rate}.</source>
            <translation>Gesehen von einem Spiel mit {rate}.</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>There is no whole press in it yet.</source>
            <translation>Es ist noch kein ganzer Druck darin.</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>What came</source>
            <translation>Was ankam</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>a frame rate is a number from 10 to 1000</source>
            <translation>eine Framerate ist eine Zahl von 10 bis 1000</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>best second</source>
            <translation>beste Sekunde</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>button</source>
            <translation>Taste</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>frames a second</source>
            <translation>Frames in der Sekunde</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>gap, ms</source>
            <translation>Lücke, ms</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>macros typed: {macros_text}</source>
            <translation>von Makros getippt: {macros_text}</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>seen by the game</source>
            <translation>vom Spiel gesehen</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>shortest</source>
            <translation>kürzeste</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>text as it arrived: {typed_text}</source>
            <translation>Text, wie er ankam: {typed_text}</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>the pointer went {moved_px} px in {moves} moves</source>
            <translation>der Zeiger ging {moved_px} px in {moves} Bewegungen</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>{bounces} of {presses} presses of {button} came within 25 ms after a release (the soonest after {shortest} ms): its switch looks worn.</source>
            <translation>{bounces} von {presses} Drücken von {button} kamen innerhalb von 25 ms nach einem Loslassen (der früheste nach {shortest} ms): Der Schalter sieht abgenutzt aus.</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>{fps} frames a second</source>
            <translation>{fps} Frames in der Sekunde</translation>
        </message>
        <message>
            <location filename="ui/range/page.py" />
            <source>{seen} of {presses}</source>
            <translation>{seen} von {presses}</translation>
        </message>
        <message>
            <location filename="ui/screen/overlay.py" />
            <source>The screen, to pick a place on</source>
            <translation>Der Bildschirm, um darauf eine Stelle zu wählen</translation>
        </message>
        <message>
            <location filename="ui/screen/picker.py" />
            <source>Esc: done, {count} taken</source>
            <translation>Esc: fertig, {count} genommen</translation>
        </message>
        <message>
            <location filename="ui/screen/picker.py" />
            <source>Esc: leave</source>
            <translation>Esc: verlassen</translation>
        </message>
        <message>
            <location filename="ui/screen/picker.py" />
            <source>W: count from the game's window</source>
            <translation>W: ab dem Fenster des Spiels zählen</translation>
        </message>
        <message>
            <location filename="ui/screen/picker.py" />
            <source>W: count from the screen</source>
            <translation>W: ab dem Bildschirm zählen</translation>
        </message>
        <message>
            <location filename="ui/screen/picker.py" />
            <source>click or Enter: take   arrows: by a pixel</source>
            <translation>Klick oder Eingabe: nehmen   Pfeile: um ein Pixel</translation>
        </message>
        <message>
            <location filename="ui/screen/picker.py" />
            <source>in the window {title}</source>
            <translation>im Fenster {title}</translation>
        </message>
        <message>
            <location filename="ui/screen/picker.py" />
            <source>of the linked program</source>
            <translation>des verknüpften Programms</translation>
        </message>
        <message>
            <location filename="ui/screen/picker.py" />
            <source>on the screen of {width} x {height}</source>
            <translation>auf dem Bildschirm von {width} x {height}</translation>
        </message>
        <message>
            <location filename="ui/screen/pointing.py" />
            <source>the place can't be worked out: {error}</source>
            <translation>die Stelle lässt sich nicht berechnen: {error}</translation>
        </message>
        <message>
            <location filename="ui/sheet/assign.py" />
            <source> while {value} is held</source>
            <translation>, solange {value} gehalten wird</translation>
        </message>
        <message>
            <location filename="ui/sheet/assign.py" />
            <source>Click sequence</source>
            <translation>Klickfolge</translation>
        </message>
        <message>
            <location filename="ui/sheet/assign.py" />
            <source>New variant</source>
            <translation>Neue Variante</translation>
        </message>
        <message>
            <location filename="ui/sheet/assign.py" />
            <source>Normal</source>
            <translation>Normal</translation>
        </message>
        <message>
            <location filename="ui/sheet/assign.py" />
            <source>Rapid fire of which key or button?</source>
            <translation>Dauerfeuer mit welcher Taste?</translation>
        </message>
        <message>
            <location filename="ui/sheet/assign.py" />
            <source>Rapid fire takes one key or button; press only that one.</source>
            <translation>Dauerfeuer nimmt eine Taste; drück nur diese.</translation>
        </message>
        <message>
            <location filename="ui/sheet/assign.py" />
            <source>Rapid fire {button}</source>
            <translation>Dauerfeuer {button}</translation>
        </message>
        <message>
            <location filename="ui/sheet/assign.py" />
            <source>Slow</source>
            <translation>Langsam</translation>
        </message>
        <message>
            <location filename="ui/sheet/assign.py" />
            <source>What should {button} do{where}?</source>
            <translation>Was soll {button} tun{where}?</translation>
        </message>
        <message>
            <location filename="ui/sheet/assign.py" />
            <source>new layer {name}</source>
            <translation>neue Ebene {name}</translation>
        </message>
        <message>
            <location filename="ui/sheet/assign.py" />
            <source>new pointer speed {name}</source>
            <translation>neues Zeigertempo {name}</translation>
        </message>
        <message>
            <location filename="ui/sheet/assign.py" />
            <source>new variant {name}</source>
            <translation>neue Variante {name}</translation>
        </message>
        <message>
            <location filename="ui/sheet/assign.py" />
            <source>{button} held</source>
            <translation>{button} gehalten</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Alt</source>
            <translation>Alt</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Alt R</source>
            <translation>AltGr</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Back</source>
            <translation>Zurück</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Board</source>
            <translation>Tafel</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Caps</source>
            <translation>Fest</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Ctrl</source>
            <translation>Strg</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Ctrl R</source>
            <translation>Strg</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Del</source>
            <translation>Entf</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Down</source>
            <translation>Runter</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Ent</source>
            <translation>Ein</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Ins</source>
            <translation>Einf</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Left</source>
            <translation>Links</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Menu</source>
            <translation>Menü</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Num</source>
            <translation>Num</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>PgDn</source>
            <translation>Bild↓</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>PgUp</source>
            <translation>Bild↑</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Print</source>
            <translation>Druck</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Right</source>
            <translation>Rechts</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Scroll</source>
            <translation>Rollen</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Shift</source>
            <translation>Umsch</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Shift R</source>
            <translation>Umsch</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Super</source>
            <translation>Super</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Super R</source>
            <translation>Super</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>Up</source>
            <translation>Hoch</translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>goes to </source>
            <translation>geht zu </translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>holds </source>
            <translation>hält </translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>opens </source>
            <translation>öffnet </translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>pointer: </source>
            <translation>Zeiger: </translation>
        </message>
        <message>
            <location filename="ui/sheet/board.py" />
            <source>types </source>
            <translation>tippt </translation>
        </message>
        <message>
            <location filename="ui/sheet/cell_edits.py" />
            <source>Allow the program</source>
            <translation>Das Programm erlauben</translation>
        </message>
        <message>
            <location filename="ui/sheet/cell_edits.py" />
            <source>Change…	Enter</source>
            <translation>Ändern …	Eingabe</translation>
        </message>
        <message>
            <location filename="ui/sheet/cell_edits.py" />
            <source>Clear {count} buttons	Del</source>
            <translation>{count} Tasten leeren	Entf</translation>
        </message>
        <message>
            <location filename="ui/sheet/cell_edits.py" />
            <source>Detach	Del</source>
            <translation>Lösen	Entf</translation>
        </message>
        <message>
            <location filename="ui/sheet/cell_edits.py" />
            <source>clear {count} buttons</source>
            <translation>{count} Tasten leeren</translation>
        </message>
        <message>
            <location filename="ui/sheet/cell_edits.py" />
            <source>detach</source>
            <translation>lösen</translation>
        </message>
        <message>
            <location filename="ui/sheet/cell_settings.py" />
            <source>A secret needs a text, and a name by which the button asks for it.</source>
            <translation>Ein Geheimnis braucht einen Text, und einen Namen, unter dem die Taste danach fragt.</translation>
        </message>
        <message>
            <location filename="ui/sheet/cell_settings.py" />
            <source>Delete the layer</source>
            <translation>Ebene löschen</translation>
        </message>
        <message>
            <location filename="ui/sheet/cell_settings.py" />
            <source>Name of the layer</source>
            <translation>Name der Ebene</translation>
        </message>
        <message>
            <location filename="ui/sheet/cell_settings.py" />
            <source>Program and arguments</source>
            <translation>Programm und Argumente</translation>
        </message>
        <message>
            <location filename="ui/sheet/cell_settings.py" />
            <source>characters a second</source>
            <translation>Zeichen in der Sekunde</translation>
        </message>
        <message>
            <location filename="ui/sheet/cell_settings.py" />
            <source>name of the secret</source>
            <translation>Name des Geheimnisses</translation>
        </message>
        <message>
            <location filename="ui/sheet/cell_settings.py" />
            <source>only while the button is held</source>
            <translation>nur solange die Taste gehalten wird</translation>
        </message>
        <message>
            <location filename="ui/sheet/cell_settings.py" />
            <source>secret text</source>
            <translation>geheimer Text</translation>
        </message>
        <message>
            <location filename="ui/sheet/cell_settings.py" />
            <source>secret: kept in the keyring, in no file</source>
            <translation>geheim: im Schlüsselbund, in keiner Datei</translation>
        </message>
        <message>
            <location filename="ui/sheet/cell_settings.py" />
            <source>the text; Enter keeps it</source>
            <translation>der Text; Eingabe behält ihn</translation>
        </message>
        <message>
            <location filename="ui/sheet/cell_settings.py" />
            <source>what it types</source>
            <translation>was sie tippt</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source> · from Everyday</source>
            <translation> · von Everyday</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>A button can act as a key or another button, not as a turn of the wheel.</source>
            <translation>Eine Taste kann als andere Taste wirken, nicht als Dreh am Rad.</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>Back to what the macro says</source>
            <translation>Zurück zu dem, was das Makro sagt</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>Change it for this button only</source>
            <translation>Nur für diese Taste ändern</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>Change what it does (Enter)</source>
            <translation>Ändern, was sie tut (Eingabe)</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>Choose a row, or press a button of your mouse.</source>
            <translation>Wähl eine Zeile, oder drück eine Taste deiner Maus.</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>Clear</source>
            <translation>Leeren</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>Leave the button unchanged (Del)</source>
            <translation>Die Taste unverändert lassen (Entf)</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>Make its number keys thumb buttons</source>
            <translation>Ihre Zifferntasten zu Daumentasten machen</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>Move it to {button}</source>
            <translation>Zu {button} verschieben</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>No button chosen</source>
            <translation>Keine Taste gewählt</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>On {device} this key is {button} now.</source>
            <translation>Auf {device} ist diese Taste jetzt {button}.</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>On {mouse} this may be a thumb button: many mice send number keys.</source>
            <translation>Auf {mouse} ist das vielleicht eine Daumentaste: Viele Mäuse senden Zifferntasten.</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>Open</source>
            <translation>Öffnen</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>Open the macro</source>
            <translation>Makro öffnen</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>Outside games no program gets {key}: {name} is live then.</source>
            <translation>Außerhalb von Spielen bekommt kein Programm {key}: Dann ist {name} aktiv.</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>Press a button to find it</source>
            <translation>Taste drücken, um sie zu finden</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>Press the button to find its row…</source>
            <translation>Drück die Taste, um ihre Zeile zu finden …</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>Press the key, button or combination</source>
            <translation>Taste oder Kombination drücken</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>Press the key, button or combination…</source>
            <translation>Drück die Taste oder die Kombination …</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>What it does: {does}</source>
            <translation>Was sie tut: {does}</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>What {button} does: {does}</source>
            <translation>Was {button} tut: {does}</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>move {button} to {button2}</source>
            <translation>{button} zu {button2} verschieben</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>plays as the macro says</source>
            <translation>spielt, wie das Makro sagt</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>plays differently here</source>
            <translation>spielt hier anders</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>{button}, while {holder} is held</source>
            <translation>{button}, solange {holder} gehalten wird</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>{name} has no game key {value}; add it to its game keys.</source>
            <translation>{name} hat keine Spieltaste {value}; füge sie seinen Spieltasten hinzu.</translation>
        </message>
        <message>
            <location filename="ui/sheet/details.py" />
            <source>{name} has no pointer speed {to!r}; add it under Pointer speed….</source>
            <translation>{name} hat kein Zeigertempo {to!r}; füge es unter Zeigertempo … hinzu.</translation>
        </message>
        <message>
            <location filename="ui/sheet/field.py" />
            <source>press it  Ctrl+Space</source>
            <translation>drücken: Strg+Leertaste</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>Add</source>
            <translation>Hinzufügen</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>Delete</source>
            <translation>Löschen</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>Export CSV…</source>
            <translation>CSV exportieren …</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>Export game keys</source>
            <translation>Spieltasten exportieren</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>Free for other things: {keys}</source>
            <translation>Frei für anderes: {keys}</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>Free for other things: {keys} and more</source>
            <translation>Frei für anderes: {keys} und mehr</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>Game keys</source>
            <translation>Spieltasten</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>Game keys of {value}</source>
            <translation>Spieltasten von {value}</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>Import CSV…</source>
            <translation>CSV importieren …</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>Import game keys</source>
            <translation>Spieltasten importieren</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>Key of the new name</source>
            <translation>Taste des neuen Namens</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>Press the key or button that the game has for it…</source>
            <translation>Drück die Taste, die das Spiel dafür hat …</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>Press the key to choose it</source>
            <translation>Drück die Taste, um sie zu wählen</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>Reload</source>
            <translation>Neu laden</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>Remove the selected keys (Del)</source>
            <translation>Die gewählten Tasten entfernen (Entf)</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>Tables (*.csv)</source>
            <translation>Tabellen (*.csv)</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>Tables (*.csv);;All files (*)</source>
            <translation>Tabellen (*.csv);;Alle Dateien (*)</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>The game's name for a new key</source>
            <translation>Der Name des Spiels für eine neue Taste</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>What the game calls its keys. Macros and buttons that name one follow when it changes here.</source>
            <translation>Wie das Spiel seine Tasten nennt. Makros und Tasten, die eine nennen, folgen, wenn sie sich hier ändert.</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>import game keys</source>
            <translation>Spieltasten importieren</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>key or button</source>
            <translation>Taste oder Maustaste</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>nothing yet</source>
            <translation>noch nichts</translation>
        </message>
        <message numerus="yes">
            <location filename="ui/sheet/game_keys.py" />
            <source>on {n} buttons</source>
            <translation>
                <numerusform>auf {n} Taste</numerusform>
                <numerusform>auf {n} Tasten</numerusform>
            </translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>the game's name</source>
            <translation>Name im Spiel</translation>
        </message>
        <message>
            <location filename="ui/sheet/game_keys.py" />
            <source>used by</source>
            <translation>benutzt von</translation>
        </message>
        <message>
            <location filename="ui/sheet/layer_tabs.py" />
            <source>base</source>
            <translation>Grundebene</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source> · against the fair-play rule</source>
            <translation> · gegen die Fair-Play-Regel</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>Elsewhere</source>
            <translation>Anderswo</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>Function</source>
            <translation>Funktion</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>It is off, since it came from outside: allow the program in the row's menu.</source>
            <translation>Es ist aus, weil es von außen kam: Erlaub das Programm im Menü der Zeile.</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>Keypad</source>
            <translation>Ziffernblock</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>Macro keys</source>
            <translation>Makrotasten</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>Main</source>
            <translation>Haupttasten</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>Media</source>
            <translation>Medien</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>Navigation</source>
            <translation>Navigation</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>Side</source>
            <translation>Seite</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>Thumb</source>
            <translation>Daumen</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>Wheel</source>
            <translation>Mausrad</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>a deleted macro</source>
            <translation>ein gelöschtes Makro</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>a deleted profile</source>
            <translation>ein gelöschtes Profil</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>goes to the next variant</source>
            <translation>geht zu der nächsten Variante</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>goes to the previous variant</source>
            <translation>geht zu der vorigen Variante</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>goes to {name}</source>
            <translation>geht zu {name}</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>goes to {where}</source>
            <translation>geht zu {where}</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>holds {name}</source>
            <translation>hält {name}</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>off until allowed: {value}</source>
            <translation>aus, bis es erlaubt ist: {value}</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>opens {value}</source>
            <translation>öffnet {value}</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>pointer: {speed}</source>
            <translation>Zeiger: {speed}</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>the next profile</source>
            <translation>dem nächsten Profil</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>the previous profile</source>
            <translation>dem vorigen Profil</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>types the secret {name}</source>
            <translation>tippt das Geheimnis {name}</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>types “{value}”</source>
            <translation>tippt „{value}“</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>while {holder} is held</source>
            <translation>solange {holder} gehalten wird</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>{layer} · held by no button</source>
            <translation>{layer} · von keiner Taste gehalten</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>{layer} · while {holder} is held</source>
            <translation>{layer} · solange {holder} gehalten wird</translation>
        </message>
        <message>
            <location filename="ui/sheet/model.py" />
            <source>{value} {button} to {button2}</source>
            <translation>{value} {button} bis {button2}</translation>
        </message>
        <message>
            <location filename="ui/sheet/offer_list.py" />
            <source>What it could do</source>
            <translation>Was sie tun könnte</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>+ Layer</source>
            <translation>+ Ebene</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>A layer is held by one key or button; press only that one.</source>
            <translation>Eine Ebene wird mit einer Taste gehalten; drück nur diese.</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>A turn of the wheel can't be held; press a key or a button for the layer.</source>
            <translation>Ein Dreh am Rad lässt sich nicht halten; drück für die Ebene eine Taste.</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>Buttons</source>
            <translation>Tasten</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>Device</source>
            <translation>Gerät</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>Double click the head of a layer to rename it</source>
            <translation>Doppelklick auf den Kopf einer Ebene benennt sie um</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>Fewer keys</source>
            <translation>Weniger Tasten</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>Find a button or what it does</source>
            <translation>Taste suchen, oder was sie tut</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>Found in other variants, too: {places} and more.</source>
            <translation>Auch in anderen Varianten gefunden: {places} und mehr.</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>Found in other variants, too: {places}.</source>
            <translation>Auch in anderen Varianten gefunden: {places}.</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>Keys that hardly any keyboard has</source>
            <translation>Tasten, die kaum eine Tastatur hat</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>Keys that hardly any keyboard has, as a list</source>
            <translation>Tasten, die kaum eine Tastatur hat, als Liste</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>List</source>
            <translation>Liste</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>More keys ({count})</source>
            <translation>Mehr Tasten ({count})</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>More keys ({more})</source>
            <translation>Mehr Tasten ({more})</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>No button is changed yet.</source>
            <translation>Noch ist keine Taste geändert.</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>No device found. Plug in a mouse or keyboard; the Devices page says more.</source>
            <translation>Kein Gerät gefunden. Steck eine Maus oder Tastatur ein; die Seite Geräte sagt mehr.</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>Rapid fire is on one key or button; press only that one.</source>
            <translation>Dauerfeuer liegt auf einer Taste; drück nur diese.</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>Rename {old}</source>
            <translation>{old} umbenennen</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>This game allows no macros: while the profile is live, everything passes through as it is.</source>
            <translation>Dieses Spiel erlaubt keine Makros: Solange das Profil aktiv ist, geht alles durch, wie es ist.</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>What buttons do while another one is held: a column of its own</source>
            <translation>Was Tasten tun, solange eine andere gehalten wird: eine eigene Spalte</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>Which button should fire? Press it</source>
            <translation>Welche Taste soll feuern? Drück sie</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>Which button should hold the layer? Press it</source>
            <translation>Welche Taste soll die Ebene halten? Drück sie</translation>
        </message>
        <message>
            <location filename="ui/sheet/page.py" />
            <source>changed only</source>
            <translation>nur geänderte</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>Aim</source>
            <translation>Zielen</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>How fast the pointer moves while this profile is live, in percent of the device's own speed. Let a button change it: on the Buttons page, choose a pointer speed for it.</source>
            <translation>Wie schnell der Zeiger sich bewegt, solange dieses Profil aktiv ist, in Prozent des Tempos, das das Gerät selbst hat. Lass es eine Taste ändern: Wähl dafür auf der Seite Tasten ein Zeigertempo.</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>Move the selected speed down (Alt+Down)</source>
            <translation>Das gewählte Tempo nach unten (Alt+Pfeil runter)</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>Move the selected speed up (Alt+Up)</source>
            <translation>Das gewählte Tempo nach oben (Alt+Pfeil hoch)</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>Name of a new pointer speed</source>
            <translation>Name eines neuen Zeigertempos</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>No effect yet: this needs kernel input (see Devices).</source>
            <translation>Noch ohne Wirkung: Das braucht Kernel-Eingaben (siehe Geräte).</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>Pointer speed of {value}</source>
            <translation>Zeigertempo von {value}</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>Pointer speeds</source>
            <translation>Zeigertempi</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>Remove the selected speeds (Del)</source>
            <translation>Die gewählten Tempi entfernen (Entf)</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>Speed of the new one, in percent of the device's own</source>
            <translation>Tempo des neuen, in Prozent dessen, das das Gerät selbst hat</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>a pointer speed needs a name</source>
            <translation>ein Zeigertempo braucht einen Namen</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>a speed is 1 to {most} percent of the device's own, not {found}</source>
            <translation>ein Tempo ist 1 bis {most} Prozent dessen, das das Gerät selbst hat, nicht {found}</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>at first</source>
            <translation>am Anfang</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>delete a speed</source>
            <translation>Tempo löschen</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>horizontal</source>
            <translation>waagrecht</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>move {name}</source>
            <translation>{name} verschieben</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>new speed {name}</source>
            <translation>neues Tempo {name}</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>speed</source>
            <translation>Tempo</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>straight lines</source>
            <translation>gerade Linien</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>straighten lines within</source>
            <translation>Linien begradigen innerhalb von</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>vertical</source>
            <translation>senkrecht</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>wheel speed</source>
            <translation>Radtempo</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>write a name for it, say Aim</source>
            <translation>schreib einen Namen dafür, etwa Zielen</translation>
        </message>
        <message>
            <location filename="ui/sheet/pointer.py" />
            <source>{value!r} is no speed; write percent of the device's own, as in 40 or 0.4x</source>
            <translation>{value!r} ist kein Tempo; schreib Prozent dessen, das das Gerät selbst hat, etwa 40 oder 0,4x</translation>
        </message>
        <message>
            <location filename="ui/sheet/profile_details.py" />
            <source>Colour of {name}</source>
            <translation>Farbe von {name}</translation>
        </message>
        <message>
            <location filename="ui/sheet/profile_details.py" />
            <source>Colour…</source>
            <translation>Farbe …</translation>
        </message>
        <message>
            <location filename="ui/sheet/profile_details.py" />
            <source>Fair play: how much a press may do</source>
            <translation>Fair Play: wie viel ein Druck tun darf</translation>
        </message>
        <message>
            <location filename="ui/sheet/profile_details.py" />
            <source>Game keys ({count})…</source>
            <translation>Spieltasten ({count}) …</translation>
        </message>
        <message>
            <location filename="ui/sheet/profile_details.py" />
            <source>Game keys…</source>
            <translation>Spieltasten …</translation>
        </message>
        <message>
            <location filename="ui/sheet/profile_details.py" />
            <source>How fast the pointer moves</source>
            <translation>Wie schnell der Zeiger sich bewegt</translation>
        </message>
        <message>
            <location filename="ui/sheet/profile_details.py" />
            <source>Note on the profile</source>
            <translation>Notiz zum Profil</translation>
        </message>
        <message>
            <location filename="ui/sheet/profile_details.py" />
            <source>Pointer speed ({stages})…</source>
            <translation>Zeigertempo ({stages}) …</translation>
        </message>
        <message>
            <location filename="ui/sheet/profile_details.py" />
            <source>Pointer speed…</source>
            <translation>Zeigertempo …</translation>
        </message>
        <message>
            <location filename="ui/sheet/profile_details.py" />
            <source>What the game calls its keys</source>
            <translation>Wie das Spiel seine Tasten nennt</translation>
        </message>
        <message>
            <location filename="ui/sheet/profile_details.py" />
            <source>colour</source>
            <translation>Farbe</translation>
        </message>
        <message>
            <location filename="ui/sheet/profile_details.py" />
            <source>fair play</source>
            <translation>Fair Play</translation>
        </message>
        <message>
            <location filename="ui/sheet/profile_details.py" />
            <source>falling through</source>
            <translation>Durchfallen</translation>
        </message>
        <message>
            <location filename="ui/sheet/profile_details.py" />
            <source>unchanged buttons do what Everyday says</source>
            <translation>unveränderte Tasten tun, was Everyday sagt</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>, in use</source>
            <translation>, in Gebrauch</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>Clay</source>
            <comment>colour</comment>
            <translation>Ton</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>Colour</source>
            <translation>Farbe</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>Delete {name}</source>
            <translation>{name} löschen</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>Duplicate {name}</source>
            <translation>{name} verdoppeln</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>Moss</source>
            <comment>colour</comment>
            <translation>Moos</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>Move left</source>
            <translation>Nach links</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>Move right</source>
            <translation>Nach rechts</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>Name of the variant</source>
            <translation>Name der Variante</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>None</source>
            <comment>colour</comment>
            <translation>Keine</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>Plum</source>
            <comment>colour</comment>
            <translation>Pflaume</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>Rename {name}…</source>
            <translation>{name} umbenennen …</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>Sand</source>
            <comment>colour</comment>
            <translation>Sand</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>Slate</source>
            <comment>colour</comment>
            <translation>Schiefer</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>Switch to {name}</source>
            <translation>Zu {name} wechseln</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>Teal</source>
            <comment>colour</comment>
            <translation>Petrol</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>Variant menu</source>
            <translation>Menü der Variante</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>Variant {name}{value}</source>
            <translation>Variante {name}{value}</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>colour of {name}</source>
            <translation>Farbe von {name}</translation>
        </message>
        <message>
            <location filename="ui/sheet/setups.py" />
            <source>in use when the profile is live</source>
            <translation>in Gebrauch, wenn das Profil aktiv ist</translation>
        </message>
        <message>
            <location filename="ui/shown.py" />
            <source>Devices</source>
            <translation>Geräte</translation>
        </message>
        <message>
            <location filename="ui/shown.py" />
            <source>Macro</source>
            <translation>Makro</translation>
        </message>
        <message>
            <location filename="ui/shown.py" />
            <source>Range</source>
            <translation>Prüfstand</translation>
        </message>
        <message>
            <location filename="ui/shut_down.py" />
            <source>The service was shut down: no macro plays, and nothing is saved.</source>
            <translation>Der Dienst wurde beendet: Kein Makro spielt, und nichts wird gespeichert.</translation>
        </message>
        <message>
            <location filename="ui/store.py" />
            <source>Not saved: {name}: {why}</source>
            <translation>Nicht gespeichert: {name}: {why}</translation>
        </message>
        <message>
            <location filename="ui/store.py" />
            <source>The service doesn't run; it is being started again.</source>
            <translation>Der Dienst läuft nicht; er wird neu gestartet.</translation>
        </message>
        <message>
            <location filename="ui/store.py" />
            <source>The service has ended; it is being started again.</source>
            <translation>Der Dienst ist beendet; er wird neu gestartet.</translation>
        </message>
        <message>
            <location filename="ui/store.py" />
            <source>macro “{name}”</source>
            <translation>Makro „{name}“</translation>
        </message>
        <message>
            <location filename="ui/store.py" />
            <source>profile “{name}”</source>
            <translation>Profil „{name}“</translation>
        </message>
        <message>
            <location filename="ui/store.py" />
            <source>the service has ended; it is tried again when the service is back.</source>
            <translation>der Dienst ist beendet; es wird erneut versucht, wenn er wieder da ist.</translation>
        </message>
        <message>
            <location filename="ui/store.py" />
            <source>the service was shut down</source>
            <translation>der Dienst wurde beendet</translation>
        </message>
        <message>
            <location filename="ui/store.py" />
            <source>{error}. Change it, or undo.</source>
            <translation>{error}. Ändere es, oder mach es rückgängig.</translation>
        </message>
        <message>
            <location filename="ui/widgets/basics.py" />
            <source>A time: 25, 25ms, 0.4s, 3f@60 (frames) or 40/s</source>
            <translation>Eine Zeit: 25, 25ms, 0,4s, 3f@60 (Frames) oder 40/s</translation>
        </message>
        <message>
            <location filename="ui/widgets/capture.py" />
            <source>Nothing arrived: no real device is read here (see Devices).</source>
            <translation>Es kam nichts an: Hier wird kein echtes Gerät gelesen (siehe Geräte).</translation>
        </message>
        <message>
            <location filename="ui/widgets/capture.py" />
            <source>Nothing arrived: some buttons stay inside the mouse, others need kernel input (see Devices).</source>
            <translation>Es kam nichts an: Manche Tasten bleiben in der Maus, andere brauchen Kernel-Eingabe (siehe Geräte).</translation>
        </message>
        <message>
            <location filename="ui/widgets/capture.py" />
            <source>Nothing arrived: some buttons stay inside the mouse. Its own settings may give them a key.</source>
            <translation>Es kam nichts an: Manche Tasten bleiben in der Maus. Deren eigene Einstellungen geben ihnen vielleicht eine Taste.</translation>
        </message>
        <message>
            <location filename="ui/widgets/capture.py" />
            <source>Press the key or button…</source>
            <translation>Drück die Taste …</translation>
        </message>
        <message>
            <location filename="ui/widgets/fold.py" />
            <source>{title}, folded</source>
            <translation>{title}, zugeklappt</translation>
        </message>
        <message>
            <location filename="ui/widgets/fold.py" />
            <source>{title}, unfolded</source>
            <translation>{title}, aufgeklappt</translation>
        </message>
        <message>
            <location filename="ui/widgets/moments.py" />
            <source>d MMM yyyy</source>
            <comment>a date</comment>
            <translation>d. MMM yyyy</translation>
        </message>
        <message>
            <location filename="ui/widgets/moments.py" />
            <source>{date}, {time}</source>
            <translation>{date}, {time}</translation>
        </message>
        <message>
            <location filename="ui/widgets/nothing.py" />
            <source>Nothing here matches “{value}”.</source>
            <translation>Nichts hier passt zu „{value}“.</translation>
        </message>
        <message>
            <location filename="ui/widgets/pending.py" />
            <source>Being updated; this is from before.</source>
            <translation>Wird neu berechnet; dies ist von vorher.</translation>
        </message>
        <message>
            <location filename="ui/widgets/pending.py" />
            <source>Still being worked out.</source>
            <translation>Wird noch berechnet.</translation>
        </message>
        <message>
            <location filename="ui/widgets/play_now.py" />
            <source>Bring the game to the front meanwhile</source>
            <translation>Hol inzwischen das Spiel nach vorn</translation>
        </message>
        <message>
            <location filename="ui/widgets/play_now.py" />
            <source>Cancel ({left})</source>
            <translation>Abbrechen ({left})</translation>
        </message>
        <message>
            <location filename="ui/widgets/play_now.py" />
            <source>Play in 3 s</source>
            <translation>In 3 s spielen</translation>
        </message>
        <message>
            <location filename="ui/widgets/play_now.py" />
            <source>Play it here: nothing reaches a game</source>
            <translation>Hier spielen: nichts erreicht ein Spiel</translation>
        </message>
        <message>
            <location filename="ui/widgets/play_now.py" />
            <source>Preview</source>
            <translation>Vorschau</translation>
        </message>
        <message>
            <location filename="ui/widgets/play_now.py" />
            <source>Stop</source>
            <translation>Stopp</translation>
        </message>
        <message>
            <location filename="ui/widgets/play_now.py" />
            <source>run {run} of {of}</source>
            <translation>{run} von {of}</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>A press starts it, the next one stops it; runs are {pause} apart. Runs at most: {limit_runs}. Time at most: {limit_us}.</source>
            <translation>Ein Druck startet es, der nächste stoppt es; Durchläufe im Abstand von {pause}. Durchläufe höchstens: {limit_runs}. Zeit höchstens: {limit_us}.</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>Each {start_on} plays it once; a press meanwhile {again}.</source>
            <translation>Jedes {start_on} spielt es einmal; ein Druck währenddessen {again}.</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>Each {start_on} plays it {runs} times, {pause} apart; a press meanwhile {again}.</source>
            <translation>Jedes {start_on} spielt es {runs} Mal, im Abstand von {pause}; ein Druck währenddessen {again}.</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>It plays while you hold, {pause} apart; letting go {let_go}.</source>
            <translation>Es spielt, solange du hältst, im Abstand von {pause}; Loslassen {let_go}.</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>No step that takes time yet.</source>
            <translation>Noch kein Schritt, der Zeit braucht.</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>Plays</source>
            <translation>Spielt</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>Plays: {value}</source>
            <translation>Spielt: {value}</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>a press meanwhile</source>
            <translation>ein Druck währenddessen</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>ends it at once</source>
            <translation>beendet es sofort</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>finishes the run</source>
            <translation>lässt den Durchlauf zu Ende gehen</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>is ignored</source>
            <translation>wird ignoriert</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>letting go</source>
            <translation>Loslassen</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>never</source>
            <translation>nie</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>no</source>
            <translation>nein</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>number of runs</source>
            <translation>Zahl der Durchläufe</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>one run for each press</source>
            <translation>ein Durchlauf je Druck</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>plays it once more afterwards</source>
            <translation>spielt es danach noch einmal</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>press</source>
            <translation>Drücken</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>release</source>
            <translation>Loslassen</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>runs</source>
            <translation>Durchläufe</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>runs as long as the button is held</source>
            <translation>läuft, solange die Taste gehalten wird</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>runs at most</source>
            <translation>Durchläufe höchstens</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>runs from one press to the next</source>
            <translation>läuft von einem Druck bis zum nächsten</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>so many runs for each press</source>
            <translation>so viele Durchläufe je Druck</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>starts it again</source>
            <translation>startet es neu</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>starts on</source>
            <translation>startet bei</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>stops it</source>
            <translation>stoppt es</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>time at most</source>
            <translation>Zeit höchstens</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>time between runs</source>
            <translation>Zeit zwischen Durchläufen</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>your finger</source>
            <translation>dein Finger</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>{time} min</source>
            <translation>{time} min</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>{time} ms in all</source>
            <translation>{time} ms insgesamt</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>{time} s</source>
            <translation>{time} s</translation>
        </message>
        <message>
            <location filename="ui/widgets/plays.py" />
            <source>{value!r} is no number of runs; write 1 to {most}</source>
            <translation>{value!r} ist keine Zahl von Durchläufen; schreib 1 bis {most}</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Add Nakrel to the desktop's menu</source>
            <translation>Nakrel ins Menü des Desktops aufnehmen</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Attach to a button</source>
            <translation>Auf eine Taste legen</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Cues…</source>
            <translation>Signale …</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Delete the profile</source>
            <translation>Profil löschen</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Duplicate steps</source>
            <translation>Schritte verdoppeln</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Duplicate the profile</source>
            <translation>Profil verdoppeln</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Edit</source>
            <comment>menu</comment>
            <translation>Bearbeiten</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Empty the profile</source>
            <translation>Profil leeren</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Export the selected profiles…</source>
            <translation>Gewählte Profile exportieren …</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Export what the macro plays</source>
            <translation>Exportieren, was das Makro spielt</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Find</source>
            <translation>Suchen</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Help</source>
            <comment>menu</comment>
            <translation>Hilfe</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Import a profile file…</source>
            <translation>Profildatei importieren …</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Import a recording or text…</source>
            <translation>Aufzeichnung oder Text importieren …</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Join into taps</source>
            <translation>Zu Antippen verbinden</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Light</source>
            <translation>Hell</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Like the desktop</source>
            <translation>Wie der Desktop</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Link a program</source>
            <translation>Programm verknüpfen</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Load with games, or pin the live profile</source>
            <translation>Mit Spielen laden, oder das aktive Profil anheften</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Macro</source>
            <comment>menu</comment>
            <translation>Makro</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Night</source>
            <translation>Nacht</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Pick places on the screen</source>
            <translation>Stellen auf dem Bildschirm wählen</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Profile</source>
            <comment>menu</comment>
            <translation>Profil</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Program</source>
            <comment>menu</comment>
            <translation>Programm</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Redo</source>
            <translation>Wiederherstellen</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Rename the profile</source>
            <translation>Profil umbenennen</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Report a problem…</source>
            <translation>Problem melden …</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Shortcuts</source>
            <translation>Tastenkürzel</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Show on screen</source>
            <translation>Auf dem Bildschirm zeigen</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Start at login</source>
            <translation>Bei der Anmeldung starten</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Take back the permissions for kernel input…</source>
            <translation>Berechtigungen für Kernel-Eingaben zurücknehmen …</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Tell me when a profile goes live</source>
            <translation>Melden, wenn ein Profil aktiv wird</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Undo</source>
            <translation>Rückgängig</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Use a take…</source>
            <translation>Eine Aufnahme nehmen …</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Versions of the macro</source>
            <translation>Frühere Fassungen des Makros</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>Versions of the profile</source>
            <translation>Frühere Fassungen des Profils</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>View</source>
            <comment>menu</comment>
            <translation>Ansicht</translation>
        </message>
        <message>
            <location filename="ui/window/actions.py" />
            <source>{page} page</source>
            <translation>Seite {page}</translation>
        </message>
        <message>
            <location filename="ui/window/cues_dialog.py" />
            <source>Cues</source>
            <translation>Signale</translation>
        </message>
        <message>
            <location filename="ui/window/cues_dialog.py" />
            <source>Hear: {event}</source>
            <translation>Hören: {event}</translation>
        </message>
        <message>
            <location filename="ui/window/cues_dialog.py" />
            <source>Play the sound, and show the line</source>
            <translation>Den Ton spielen und die Zeile zeigen</translation>
        </message>
        <message>
            <location filename="ui/window/cues_dialog.py" />
            <source>See: {event}</source>
            <translation>Sehen: {event}</translation>
        </message>
        <message>
            <location filename="ui/window/cues_dialog.py" />
            <source>Sounds play at {volume} · the light of Scroll Lock shows {light}.</source>
            <translation>Töne spielen mit {volume} · das Licht der Rollen-Taste zeigt {light}.</translation>
        </message>
        <message>
            <location filename="ui/window/cues_dialog.py" />
            <source>Try</source>
            <translation>Probieren</translation>
        </message>
        <message>
            <location filename="ui/window/cues_dialog.py" />
            <source>Try: {value}</source>
            <translation>Probieren: {value}</translation>
        </message>
        <message>
            <location filename="ui/window/cues_dialog.py" />
            <source>While a game fills the screen, a sound or a line over it can tell what Nakrel does. While this window is in front, nothing of it is heard or seen.</source>
            <translation>Wenn ein Spiel den Bildschirm füllt, kann ein Ton oder eine Zeile darüber sagen, was Nakrel tut. Solange dieses Fenster im Vordergrund ist, ist davon nichts zu hören oder zu sehen.</translation>
        </message>
        <message>
            <location filename="ui/window/cues_dialog.py" />
            <source>cues</source>
            <translation>Signale</translation>
        </message>
        <message>
            <location filename="ui/window/cues_dialog.py" />
            <source>hear</source>
            <translation>hören</translation>
        </message>
        <message>
            <location filename="ui/window/cues_dialog.py" />
            <source>how loud sounds are</source>
            <translation>wie laut Töne sind</translation>
        </message>
        <message>
            <location filename="ui/window/cues_dialog.py" />
            <source>how loud sounds are is a percentage from 0 to 100</source>
            <translation>wie laut Töne sind, ist ein Prozentsatz von 0 bis 100</translation>
        </message>
        <message>
            <location filename="ui/window/cues_dialog.py" />
            <source>see</source>
            <translation>sehen</translation>
        </message>
        <message>
            <location filename="ui/window/cues_dialog.py" />
            <source>that a Toggle is on</source>
            <translation>dass ein Umschalter an ist</translation>
        </message>
        <message>
            <location filename="ui/window/cues_dialog.py" />
            <source>that a recording goes on</source>
            <translation>dass eine Aufzeichnung läuft</translation>
        </message>
        <message>
            <location filename="ui/window/cues_dialog.py" />
            <source>the light of Scroll Lock shows</source>
            <translation>das Licht der Rollen-Taste zeigt</translation>
        </message>
        <message>
            <location filename="ui/window/first_steps.py" />
            <source>add the demo</source>
            <translation>die Demo dazunehmen</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>+ link</source>
            <translation>+ verknüpfen</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>Details</source>
            <translation>Details</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>Details «</source>
            <translation>Details «</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>Details »</source>
            <translation>Details »</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>Link the game that this profile is for (Ctrl+L)</source>
            <translation>Das Spiel verknüpfen, für das dieses Profil ist (Strg+L)</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>Menu (F10)</source>
            <translation>Menü (F10)</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>No macro</source>
            <translation>Kein Makro</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>Settings</source>
            <translation>Einstellungen</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>Settings of the profile</source>
            <translation>Einstellungen des Profils</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>Show or hide the details</source>
            <translation>Details zeigen oder verbergen</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>Welcome to Nakrel</source>
            <translation>Willkommen bei Nakrel</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>What holds for the whole profile</source>
            <translation>Was für das ganze Profil gilt</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>from outside, waits:</source>
            <translation>von außen, wartet:</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>how fast, how long, and what a game would have seen</source>
            <translation>wie schnell, wie lang, und was ein Spiel gesehen hätte</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>let it go live</source>
            <translation>aktiv werden lassen</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>live when no linked program runs</source>
            <translation>aktiv, wenn nichts Verknüpftes läuft</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>on no button yet</source>
            <translation>noch auf keiner Taste</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>on {places}</source>
            <translation>auf {places}</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>on {places} and more</source>
            <translation>auf {places} und mehr</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>what happened, and why</source>
            <translation>was geschah, und warum</translation>
        </message>
        <message>
            <location filename="ui/window/head.py" />
            <source>what is attached, and how it is read</source>
            <translation>was angeschlossen ist, und wie es gelesen wird</translation>
        </message>
        <message>
            <location filename="ui/window/main_window.py" />
            <source>Everyday is for when no linked program runs. Choose or make another profile to link.</source>
            <translation>Everyday ist für die Zeit, in der kein verknüpftes Programm läuft. Wähl ein anderes Profil zum Verknüpfen, oder leg eines an.</translation>
        </message>
        <message>
            <location filename="ui/window/messages.py" />
            <source>Take the message away</source>
            <translation>Die Meldung wegnehmen</translation>
        </message>
        <message>
            <location filename="ui/window/program.py" />
            <source> Note: {note}.</source>
            <translation> Hinweis: {note}.</translation>
        </message>
        <message>
            <location filename="ui/window/program.py" />
            <source>Nakrel is in the desktop's menu. `nakrel uninstall` takes it out again.{notes}</source>
            <translation>Nakrel ist im Menü des Desktops. `nakrel uninstall` nimmt es wieder heraus.{notes}</translation>
        </message>
        <message>
            <location filename="ui/window/program.py" />
            <source>Not added to the menu: {done}.</source>
            <translation>Nicht ins Menü aufgenommen: {done}.</translation>
        </message>
        <message>
            <location filename="ui/window/program.py" />
            <source>Not changed: {error}.</source>
            <translation>Nicht geändert: {error}.</translation>
        </message>
        <message>
            <location filename="ui/window/programs.py" />
            <source>Unlink this program</source>
            <translation>Verknüpfung mit diesem Programm lösen</translation>
        </message>
        <message>
            <location filename="ui/window/programs.py" />
            <source>Unlink {value}</source>
            <translation>Verknüpfung mit {value} lösen</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>+, -, 0 or the wheel</source>
            <translation>+, -, 0 oder das Mausrad</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>Down or Enter in a search</source>
            <translation>Pfeil ab oder Eingabe in einer Suche</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>In lists</source>
            <translation>In Listen</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>In the diagram</source>
            <translation>Im Diagramm</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>a figure in a step's row</source>
            <translation>eine Ziffer in der Zeile eines Schritts</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>a letter on the button list</source>
            <translation>ein Buchstabe in der Tastenliste</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>arrows</source>
            <translation>Pfeile</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>complete, in the text</source>
            <translation>vervollständigen, im Text</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>copy, cut and paste steps (as text), and what buttons do</source>
            <translation>Schritte (als Text) kopieren, ausschneiden und einfügen, auch was Tasten tun</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>delete, or leave the button unchanged</source>
            <translation>löschen, oder die Taste unverändert lassen</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>edit</source>
            <translation>bearbeiten</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>measure from here</source>
            <translation>ab hier messen</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>move steps</source>
            <translation>Schritte verschieben</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>move the trace</source>
            <translation>die Spur verschieben</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>move what is picked by a step of the grid; with Ctrl by ten</source>
            <translation>das Gewählte um einen Rasterschritt verschieben; mit Strg um zehn</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>pick all, nothing</source>
            <translation>alles, nichts wählen</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>pick one more edge</source>
            <translation>eine Flanke dazuwählen</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>rename; in steps, type the step anew</source>
            <translation>umbenennen; bei Schritten neu tippen</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>search</source>
            <translation>suchen</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>the whole hold, or its edge</source>
            <translation>das ganze Halten, oder seine Flanke</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>to the next edge, to another trace</source>
            <translation>zur nächsten Flanke, zu einer anderen Spur</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>to what was found</source>
            <translation>zum Gefundenen</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>type its time</source>
            <translation>seine Zeit tippen</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>type the distance measured</source>
            <translation>den gemessenen Abstand tippen</translation>
        </message>
        <message>
            <location filename="ui/window/shortcuts.py" />
            <source>zoom in, out, show all</source>
            <translation>vergrößern, verkleinern, alles zeigen</translation>
        </message>
        <message>
            <location filename="ui/window/strip.py" />
            <source> · run {run} of {of}</source>
            <translation> · {run} von {of}</translation>
        </message>
        <message>
            <location filename="ui/window/strip.py" />
            <source>Live profile: {name}</source>
            <translation>Aktives Profil: {name}</translation>
        </message>
        <message>
            <location filename="ui/window/strip.py" />
            <source>Stop everything
{key}</source>
            <translation>Alles stoppen
{key}</translation>
        </message>
        <message>
            <location filename="ui/window/strip.py" />
            <source>Stop this one</source>
            <translation>Dieses stoppen</translation>
        </message>
        <message>
            <location filename="ui/window/strip.py" />
            <source>Stop {name}</source>
            <translation>{name} stoppen</translation>
        </message>
        <message>
            <location filename="ui/window/strip.py" />
            <source>The last three seconds, in and out</source>
            <translation>Die letzten drei Sekunden, hinein und hinaus</translation>
        </message>
        <message>
            <location filename="ui/window/strip.py" />
            <source>While Nakrel's window is in front, macros show here and reach no window.</source>
            <translation>Solange Nakrels Fenster im Vordergrund ist, zeigen sich Makros hier und erreichen kein Fenster.</translation>
        </message>
        <message>
            <location filename="ui/window/strip.py" />
            <source>in</source>
            <comment>lane</comment>
            <translation>rein</translation>
        </message>
        <message>
            <location filename="ui/window/strip.py" />
            <source>live</source>
            <translation>aktiv</translation>
        </message>
        <message>
            <location filename="ui/window/strip.py" />
            <source>no macro runs</source>
            <translation>kein Makro läuft</translation>
        </message>
        <message>
            <location filename="ui/window/strip.py" />
            <source>out</source>
            <comment>lane</comment>
            <translation>raus</translation>
        </message>
        <message>
            <location filename="ui/window/strip.py" />
            <source>preview: nothing is sent</source>
            <translation>Vorschau: nichts wird gesendet</translation>
        </message>
        <message>
            <location filename="ui/window/strip.py" />
            <source>since {since}, {reason}</source>
            <translation>seit {since}, {reason}</translation>
        </message>
        <message numerus="yes">
            <location filename="ui/window/strip.py" />
            <source>{n} running</source>
            <translation>
                <numerusform>{n} läuft</numerusform>
                <numerusform>{n} laufen</numerusform>
            </translation>
        </message>
        <message>
            <location filename="ui/window/strip.py" />
            <source>{value} · pointer: {stage}</source>
            <translation>{value} · Zeiger: {stage}</translation>
        </message>
        <message>
            <location filename="ui/window/tray.py" />
            <source>Keep {name} live</source>
            <translation>{name} aktiv lassen</translation>
        </message>
        <message>
            <location filename="ui/window/tray.py" />
            <source>Nakrel goes on here</source>
            <translation>Nakrel läuft hier weiter</translation>
        </message>
        <message>
            <location filename="ui/window/tray.py" />
            <source>Nakrel: {name} is live, {state}</source>
            <translation>Nakrel: {name} ist aktiv, {state}</translation>
        </message>
        <message>
            <location filename="ui/window/tray.py" />
            <source>Open Nakrel</source>
            <translation>Nakrel öffnen</translation>
        </message>
        <message>
            <location filename="ui/window/tray.py" />
            <source>Quit, and end all macros</source>
            <translation>Beenden, mit allen Makros</translation>
        </message>
        <message>
            <location filename="ui/window/tray.py" />
            <source>Start the service</source>
            <translation>Dienst starten</translation>
        </message>
        <message>
            <location filename="ui/window/tray.py" />
            <source>Stop everything	{key}</source>
            <translation>Alles stoppen	{key}</translation>
        </message>
        <message>
            <location filename="ui/window/tray.py" />
            <source>Stop {each}</source>
            <translation>{each} stoppen</translation>
        </message>
        <message>
            <location filename="ui/window/tray.py" />
            <source>Your buttons go on as they are. Quit Nakrel from this icon's menu.</source>
            <translation>Deine Tasten wirken weiter wie bisher. Beenden geht im Menü dieses Symbols.</translation>
        </message>
        <message numerus="yes">
            <location filename="ui/window/tray.py" />
            <source>{n} macros run</source>
            <translation>
                <numerusform>{n} Makro läuft</numerusform>
                <numerusform>{n} Makros laufen</numerusform>
            </translation>
        </message>
        <message>
            <location filename="ui/window/tray.py" />
            <source>{value} runs</source>
            <translation>{value} läuft</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>Add to the desktop's menu</source>
            <translation>Ins Menü des Desktops aufnehmen</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>At home on this computer</source>
            <translation>Zu Hause auf diesem Rechner</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>Begin with</source>
            <translation>Beginn mit</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>Each game gets its own buttons, which load when the game starts.</source>
            <translation>Jedes Spiel bekommt seine eigenen Tasten, die mit dem Spiel geladen werden.</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>Fix…</source>
            <translation>Einrichten …</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>Go to the buttons</source>
            <translation>Zu den Tasten</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>Install what macros need to reach every game</source>
            <translation>Installieren, was Makros brauchen, um jedes Spiel zu erreichen</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>Let a button of your mouse or a key play it: once, N times, while you hold, or until pressed again.</source>
            <translation>Lass eine Taste der Maus oder Tastatur es spielen: einmal, N-mal, solange du hältst, oder bis zum nächsten Druck.</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>Link a game</source>
            <translation>Ein Spiel verknüpfen</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>Look at the demo</source>
            <translation>Die Demo ansehen</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>Macros reach every game.</source>
            <translation>Makros erreichen jedes Spiel.</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>Macros reach every window of this X11 session.</source>
            <translation>Makros erreichen jedes Fenster dieser X11-Sitzung.</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>Macros reach no game yet.</source>
            <translation>Makros erreichen noch kein Spiel.</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>No device found. Plug in a mouse or keyboard.</source>
            <translation>Kein Gerät gefunden. Steck eine Maus oder Tastatur ein.</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>Rapid fire on a button</source>
            <translation>Dauerfeuer auf einer Taste</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>Record a macro</source>
            <translation>Ein Makro aufzeichnen</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>Record what you press, or build it, and set every delay to the millisecond.</source>
            <translation>Zeichne auf, was du drückst, oder bau es, und stell jede Verzögerung auf die Millisekunde ein.</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>Start when I log in: buttons work without this window</source>
            <translation>Starten, wenn ich mich anmelde: Tasten wirken ohne dieses Fenster</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>Your devices</source>
            <translation>Deine Geräte</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>choose the button, then the key that it fires</source>
            <translation>die Taste wählen, dann die, die sie feuert</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>made-up games with macros to try; undo takes them away</source>
            <translation>erfundene Spiele mit Makros zum Probieren; Rückgängig nimmt sie weg</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>make a profile that loads when your game starts</source>
            <translation>ein Profil anlegen, das mit deinem Spiel geladen wird</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>press what should be played, and edit it afterwards</source>
            <translation>drücken, was gespielt werden soll, und es danach bearbeiten</translation>
        </message>
        <message>
            <location filename="ui/window/welcome.py" />
            <source>{name} (simulated)</source>
            <translation>{name} (simuliert)</translation>
        </message>
        <message>
            <location filename="worker_process.py" />
            <source>the process for long work ends as soon as it starts</source>
            <translation>der Prozess für lange Arbeiten endet, sobald er startet</translation>
        </message>
    </context>
</TS>
