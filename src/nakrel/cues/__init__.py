"""The small process beside the service that plays sounds and shows lines over a game."""
