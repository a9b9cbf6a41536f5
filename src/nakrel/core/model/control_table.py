"""The table of controls: number, name, part and label of each, one a line.

Numbers and names are those of the Linux input event codes (`include/uapi/linux/input-event-codes.h`,
kernel 6.1). The eight mouse buttons 0x118 to 0x11f have no name there, so they carry their number; the labels of
side buttons 13 to 20 follow the X server's numbering (button = code - 0x113 + 8, xf86-input-libinput).
Labels are what is printed on a keyboard of the US layout. Of the codes from 0x160 on those are here that keyboards
have; remote controls, game pads and the like have others.
"""

TABLE = """\
1 KEY_ESC keys Esc
2 KEY_1 keys 1
3 KEY_2 keys 2
4 KEY_3 keys 3
5 KEY_4 keys 4
6 KEY_5 keys 5
7 KEY_6 keys 6
8 KEY_7 keys 7
9 KEY_8 keys 8
10 KEY_9 keys 9
11 KEY_0 keys 0
12 KEY_MINUS keys Minus
13 KEY_EQUAL keys Equals
14 KEY_BACKSPACE keys Backspace
15 KEY_TAB keys Tab
16 KEY_Q keys Q
17 KEY_W keys W
18 KEY_E keys E
19 KEY_R keys R
20 KEY_T keys T
21 KEY_Y keys Y
22 KEY_U keys U
23 KEY_I keys I
24 KEY_O keys O
25 KEY_P keys P
26 KEY_LEFTBRACE keys Left bracket
27 KEY_RIGHTBRACE keys Right bracket
28 KEY_ENTER keys Enter
29 KEY_LEFTCTRL keys Left Ctrl
30 KEY_A keys A
31 KEY_S keys S
32 KEY_D keys D
33 KEY_F keys F
34 KEY_G keys G
35 KEY_H keys H
36 KEY_J keys J
37 KEY_K keys K
38 KEY_L keys L
39 KEY_SEMICOLON keys Semicolon
40 KEY_APOSTROPHE keys Apostrophe
41 KEY_GRAVE keys Grave
42 KEY_LEFTSHIFT keys Left Shift
43 KEY_BACKSLASH keys Backslash
44 KEY_Z keys Z
45 KEY_X keys X
46 KEY_C keys C
47 KEY_V keys V
48 KEY_B keys B
49 KEY_N keys N
50 KEY_M keys M
51 KEY_COMMA keys Comma
52 KEY_DOT keys Full stop
53 KEY_SLASH keys Slash
54 KEY_RIGHTSHIFT keys Right Shift
55 KEY_KPASTERISK keypad Keypad times
56 KEY_LEFTALT keys Left Alt
57 KEY_SPACE keys Space
58 KEY_CAPSLOCK keys Caps Lock
59 KEY_F1 function F1
60 KEY_F2 function F2
61 KEY_F3 function F3
62 KEY_F4 function F4
63 KEY_F5 function F5
64 KEY_F6 function F6
65 KEY_F7 function F7
66 KEY_F8 function F8
67 KEY_F9 function F9
68 KEY_F10 function F10
69 KEY_NUMLOCK keypad Num Lock
70 KEY_SCROLLLOCK navigation Scroll Lock
71 KEY_KP7 keypad Keypad 7
72 KEY_KP8 keypad Keypad 8
73 KEY_KP9 keypad Keypad 9
74 KEY_KPMINUS keypad Keypad minus
75 KEY_KP4 keypad Keypad 4
76 KEY_KP5 keypad Keypad 5
77 KEY_KP6 keypad Keypad 6
78 KEY_KPPLUS keypad Keypad plus
79 KEY_KP1 keypad Keypad 1
80 KEY_KP2 keypad Keypad 2
81 KEY_KP3 keypad Keypad 3
82 KEY_KP0 keypad Keypad 0
83 KEY_KPDOT keypad Keypad point
85 KEY_ZENKAKUHANKAKU keys Zenkaku / Hankaku
86 KEY_102ND keys 102nd key
87 KEY_F11 function F11
88 KEY_F12 function F12
89 KEY_RO keys Ro
90 KEY_KATAKANA keys Katakana
91 KEY_HIRAGANA keys Hiragana
92 KEY_HENKAN keys Henkan
93 KEY_KATAKANAHIRAGANA keys Katakana / Hiragana
94 KEY_MUHENKAN keys Muhenkan
95 KEY_KPJPCOMMA keypad Keypad JP comma
96 KEY_KPENTER keypad Keypad Enter
97 KEY_RIGHTCTRL keys Right Ctrl
98 KEY_KPSLASH keypad Keypad divide
99 KEY_SYSRQ navigation Print Screen
100 KEY_RIGHTALT keys Right Alt
101 KEY_LINEFEED media Line feed
102 KEY_HOME navigation Home
103 KEY_UP navigation Up arrow
104 KEY_PAGEUP navigation Page Up
105 KEY_LEFT navigation Left arrow
106 KEY_RIGHT navigation Right arrow
107 KEY_END navigation End
108 KEY_DOWN navigation Down arrow
109 KEY_PAGEDOWN navigation Page Down
110 KEY_INSERT navigation Insert
111 KEY_DELETE navigation Delete
112 KEY_MACRO media Macro key
113 KEY_MUTE media Mute
114 KEY_VOLUMEDOWN media Volume down
115 KEY_VOLUMEUP media Volume up
116 KEY_POWER media Power
117 KEY_KPEQUAL keypad Keypad equals
118 KEY_KPPLUSMINUS keypad Keypad plus/minus
119 KEY_PAUSE navigation Pause
120 KEY_SCALE media Scale
121 KEY_KPCOMMA keypad Keypad comma
122 KEY_HANGEUL keys Hangeul
123 KEY_HANJA keys Hanja
124 KEY_YEN keys Yen
125 KEY_LEFTMETA keys Left Super
126 KEY_RIGHTMETA keys Right Super
127 KEY_COMPOSE keys Menu
128 KEY_STOP media Stop key
129 KEY_AGAIN media Again
130 KEY_PROPS media Props
131 KEY_UNDO media Undo
132 KEY_FRONT media Front
133 KEY_COPY media Copy
134 KEY_OPEN media Open
135 KEY_PASTE media Paste
136 KEY_FIND media Find
137 KEY_CUT media Cut
138 KEY_HELP media Help
139 KEY_MENU media Menu (media)
140 KEY_CALC media Calculator
141 KEY_SETUP media Setup
142 KEY_SLEEP media Sleep
143 KEY_WAKEUP media Wake up
144 KEY_FILE media File
145 KEY_SENDFILE media Send file
146 KEY_DELETEFILE media Delete file
147 KEY_XFER media Xfer
148 KEY_PROG1 media Program 1
149 KEY_PROG2 media Program 2
150 KEY_WWW media Web
151 KEY_MSDOS media MS-DOS
152 KEY_COFFEE media Lock screen
153 KEY_ROTATE_DISPLAY media Rotate display
154 KEY_CYCLEWINDOWS media Cycle windows
155 KEY_MAIL media Mail
156 KEY_BOOKMARKS media Bookmarks
157 KEY_COMPUTER media Computer
158 KEY_BACK media Browser back
159 KEY_FORWARD media Browser forward
160 KEY_CLOSECD media Close tray
161 KEY_EJECTCD media Eject
162 KEY_EJECTCLOSECD media Eject / close tray
163 KEY_NEXTSONG media Next track
164 KEY_PLAYPAUSE media Play / pause
165 KEY_PREVIOUSSONG media Previous track
166 KEY_STOPCD media Stop track
167 KEY_RECORD media Record
168 KEY_REWIND media Rewind
169 KEY_PHONE media Phone
170 KEY_ISO media ISO
171 KEY_CONFIG media Config
172 KEY_HOMEPAGE media Home page
173 KEY_REFRESH media Refresh
174 KEY_EXIT media Exit
175 KEY_MOVE media Move
176 KEY_EDIT media Edit
177 KEY_SCROLLUP media Scroll up
178 KEY_SCROLLDOWN media Scroll down
179 KEY_KPLEFTPAREN keypad Keypad left parenthesis
180 KEY_KPRIGHTPAREN keypad Keypad right parenthesis
181 KEY_NEW media New
182 KEY_REDO media Redo
183 KEY_F13 function F13
184 KEY_F14 function F14
185 KEY_F15 function F15
186 KEY_F16 function F16
187 KEY_F17 function F17
188 KEY_F18 function F18
189 KEY_F19 function F19
190 KEY_F20 function F20
191 KEY_F21 function F21
192 KEY_F22 function F22
193 KEY_F23 function F23
194 KEY_F24 function F24
200 KEY_PLAYCD media Play track
201 KEY_PAUSECD media Pause track
202 KEY_PROG3 media Program 3
203 KEY_PROG4 media Program 4
204 KEY_ALL_APPLICATIONS media All applications
205 KEY_SUSPEND media Suspend
206 KEY_CLOSE media Close
207 KEY_PLAY media Play
208 KEY_FASTFORWARD media Fast forward
209 KEY_BASSBOOST media Bass boost
210 KEY_PRINT media Print
211 KEY_HP media HP
212 KEY_CAMERA media Camera
213 KEY_SOUND media Sound
214 KEY_QUESTION media Question
215 KEY_EMAIL media Email
216 KEY_CHAT media Chat
217 KEY_SEARCH media Search
218 KEY_CONNECT media Connect
219 KEY_FINANCE media Finance
220 KEY_SPORT media Sport
221 KEY_SHOP media Shop
222 KEY_ALTERASE media Alt erase
223 KEY_CANCEL media Cancel
224 KEY_BRIGHTNESSDOWN media Brightness down
225 KEY_BRIGHTNESSUP media Brightness up
226 KEY_MEDIA media Media
227 KEY_SWITCHVIDEOMODE media Switch screen
228 KEY_KBDILLUMTOGGLE media Key light on/off
229 KEY_KBDILLUMDOWN media Key light down
230 KEY_KBDILLUMUP media Key light up
231 KEY_SEND media Send
232 KEY_REPLY media Reply
233 KEY_FORWARDMAIL media Forward mail
234 KEY_SAVE media Save
235 KEY_DOCUMENTS media Documents
236 KEY_BATTERY media Battery
237 KEY_BLUETOOTH media Bluetooth
238 KEY_WLAN media Wi-Fi
239 KEY_UWB media UWB
240 KEY_UNKNOWN media Unnamed key
241 KEY_VIDEO_NEXT media Next video source
242 KEY_VIDEO_PREV media Previous video source
243 KEY_BRIGHTNESS_CYCLE media Brightness cycle
244 KEY_BRIGHTNESS_AUTO media Brightness auto
245 KEY_DISPLAY_OFF media Display off
246 KEY_WWAN media Mobile network
247 KEY_RFKILL media Radio off
248 KEY_MICMUTE media Microphone mute
256 BTN_0 side Button 0
257 BTN_1 side Button 1
258 BTN_2 side Button 2
259 BTN_3 side Button 3
260 BTN_4 side Button 4
261 BTN_5 side Button 5
262 BTN_6 side Button 6
263 BTN_7 side Button 7
264 BTN_8 side Button 8
265 BTN_9 side Button 9
272 BTN_LEFT main Left
273 BTN_RIGHT main Right
274 BTN_MIDDLE main Middle
275 BTN_SIDE side Thumb back
276 BTN_EXTRA side Thumb forward
277 BTN_FORWARD side Forward
278 BTN_BACK side Back
279 BTN_TASK side Task
280 BTN_0x118 side Button 13
281 BTN_0x119 side Button 14
282 BTN_0x11a side Button 15
283 BTN_0x11b side Button 16
284 BTN_0x11c side Button 17
285 BTN_0x11d side Button 18
286 BTN_0x11e side Button 19
287 BTN_0x11f side Button 20
352 KEY_OK media OK
353 KEY_SELECT media Select
358 KEY_INFO media Info
364 KEY_FAVORITES media Favourites
372 KEY_FULL_SCREEN media Full screen
374 KEY_KEYBOARD media On-screen keyboard
397 KEY_CALENDAR media Calendar
408 KEY_RESTART media Restart
409 KEY_SLOW media Slow
410 KEY_SHUFFLE media Shuffle
416 KEY_VIDEOPHONE media Video call
417 KEY_GAMES media Games
418 KEY_ZOOMIN media Zoom in
419 KEY_ZOOMOUT media Zoom out
420 KEY_ZOOMRESET media Zoom reset
421 KEY_WORDPROCESSOR media Word processor
422 KEY_EDITOR media Editor
423 KEY_SPREADSHEET media Spreadsheet
425 KEY_PRESENTATION media Presentation
426 KEY_DATABASE media Database
427 KEY_NEWS media News
428 KEY_VOICEMAIL media Voicemail
429 KEY_ADDRESSBOOK media Address book
430 KEY_MESSENGER media Messenger
432 KEY_SPELLCHECK media Spell check
433 KEY_LOGOFF media Log off
442 KEY_IMAGES media Pictures
464 KEY_FN media Fn
576 KEY_BUTTONCONFIG media Button settings
577 KEY_TASKMANAGER media Task manager
578 KEY_JOURNAL media System log
579 KEY_CONTROLPANEL media Control panel
580 KEY_APPSELECT media App list
581 KEY_SCREENSAVER media Screen saver
582 KEY_VOICECOMMAND media Voice command
583 KEY_ASSISTANT media Assistant
584 KEY_KBD_LAYOUT_NEXT media Next layout
585 KEY_EMOJI_PICKER media Emoji
586 KEY_DICTATE media Dictate
592 KEY_BRIGHTNESS_MIN media Brightness least
593 KEY_BRIGHTNESS_MAX media Brightness most
634 KEY_SELECTIVE_SCREENSHOT media Screenshot of a part
656 KEY_MACRO1 macro Macro key 1
657 KEY_MACRO2 macro Macro key 2
658 KEY_MACRO3 macro Macro key 3
659 KEY_MACRO4 macro Macro key 4
660 KEY_MACRO5 macro Macro key 5
661 KEY_MACRO6 macro Macro key 6
662 KEY_MACRO7 macro Macro key 7
663 KEY_MACRO8 macro Macro key 8
664 KEY_MACRO9 macro Macro key 9
665 KEY_MACRO10 macro Macro key 10
666 KEY_MACRO11 macro Macro key 11
667 KEY_MACRO12 macro Macro key 12
668 KEY_MACRO13 macro Macro key 13
669 KEY_MACRO14 macro Macro key 14
670 KEY_MACRO15 macro Macro key 15
671 KEY_MACRO16 macro Macro key 16
672 KEY_MACRO17 macro Macro key 17
673 KEY_MACRO18 macro Macro key 18
674 KEY_MACRO19 macro Macro key 19
675 KEY_MACRO20 macro Macro key 20
676 KEY_MACRO21 macro Macro key 21
677 KEY_MACRO22 macro Macro key 22
678 KEY_MACRO23 macro Macro key 23
679 KEY_MACRO24 macro Macro key 24
680 KEY_MACRO25 macro Macro key 25
681 KEY_MACRO26 macro Macro key 26
682 KEY_MACRO27 macro Macro key 27
683 KEY_MACRO28 macro Macro key 28
684 KEY_MACRO29 macro Macro key 29
685 KEY_MACRO30 macro Macro key 30
688 KEY_MACRO_RECORD_START macro Macro record
689 KEY_MACRO_RECORD_STOP macro Macro record stop
690 KEY_MACRO_PRESET_CYCLE macro Macro preset next
691 KEY_MACRO_PRESET1 macro Macro preset 1
692 KEY_MACRO_PRESET2 macro Macro preset 2
693 KEY_MACRO_PRESET3 macro Macro preset 3
696 KEY_KBD_LCD_MENU1 macro Display key 1
697 KEY_KBD_LCD_MENU2 macro Display key 2
698 KEY_KBD_LCD_MENU3 macro Display key 3
699 KEY_KBD_LCD_MENU4 macro Display key 4
700 KEY_KBD_LCD_MENU5 macro Display key 5
704 BTN_TRIGGER_HAPPY1 thumb Thumb 1
705 BTN_TRIGGER_HAPPY2 thumb Thumb 2
706 BTN_TRIGGER_HAPPY3 thumb Thumb 3
707 BTN_TRIGGER_HAPPY4 thumb Thumb 4
708 BTN_TRIGGER_HAPPY5 thumb Thumb 5
709 BTN_TRIGGER_HAPPY6 thumb Thumb 6
710 BTN_TRIGGER_HAPPY7 thumb Thumb 7
711 BTN_TRIGGER_HAPPY8 thumb Thumb 8
712 BTN_TRIGGER_HAPPY9 thumb Thumb 9
713 BTN_TRIGGER_HAPPY10 thumb Thumb 10
714 BTN_TRIGGER_HAPPY11 thumb Thumb 11
715 BTN_TRIGGER_HAPPY12 thumb Thumb 12
716 BTN_TRIGGER_HAPPY13 thumb Thumb 13
717 BTN_TRIGGER_HAPPY14 thumb Thumb 14
718 BTN_TRIGGER_HAPPY15 thumb Thumb 15
719 BTN_TRIGGER_HAPPY16 thumb Thumb 16
720 BTN_TRIGGER_HAPPY17 thumb Thumb 17
721 BTN_TRIGGER_HAPPY18 thumb Thumb 18
722 BTN_TRIGGER_HAPPY19 thumb Thumb 19
723 BTN_TRIGGER_HAPPY20 thumb Thumb 20
724 BTN_TRIGGER_HAPPY21 thumb Thumb 21
725 BTN_TRIGGER_HAPPY22 thumb Thumb 22
726 BTN_TRIGGER_HAPPY23 thumb Thumb 23
727 BTN_TRIGGER_HAPPY24 thumb Thumb 24
728 BTN_TRIGGER_HAPPY25 thumb Thumb 25
729 BTN_TRIGGER_HAPPY26 thumb Thumb 26
730 BTN_TRIGGER_HAPPY27 thumb Thumb 27
731 BTN_TRIGGER_HAPPY28 thumb Thumb 28
732 BTN_TRIGGER_HAPPY29 thumb Thumb 29
733 BTN_TRIGGER_HAPPY30 thumb Thumb 30
734 BTN_TRIGGER_HAPPY31 thumb Thumb 31
735 BTN_TRIGGER_HAPPY32 thumb Thumb 32
736 BTN_TRIGGER_HAPPY33 thumb Thumb 33
737 BTN_TRIGGER_HAPPY34 thumb Thumb 34
738 BTN_TRIGGER_HAPPY35 thumb Thumb 35
739 BTN_TRIGGER_HAPPY36 thumb Thumb 36
740 BTN_TRIGGER_HAPPY37 thumb Thumb 37
741 BTN_TRIGGER_HAPPY38 thumb Thumb 38
742 BTN_TRIGGER_HAPPY39 thumb Thumb 39
743 BTN_TRIGGER_HAPPY40 thumb Thumb 40
"""
