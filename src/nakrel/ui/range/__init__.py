"""The page on which presses are counted, timed and looked at as a game would."""
