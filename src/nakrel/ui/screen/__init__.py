"""Places on the screen: picking them, and showing where a pointer step goes."""

from nakrel.ui.screen.picker import Picker
from nakrel.ui.screen.pointing import Pointing

__all__ = ["Picker", "Pointing"]
