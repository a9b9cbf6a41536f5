"""X11 without special permission: passive grabs for attached controls, XTEST for output.

Whoever connects loads this first: xcffib goes through its table of extensions while it connects, and that must not grow
meanwhile since another thread loads one more of them.
"""

import xcffib.randr
import xcffib.res
import xcffib.xfixes
import xcffib.xinput
import xcffib.xproto
import xcffib.xtest  # noqa: F401
