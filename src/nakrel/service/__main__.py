"""Start the service: `python -m nakrel.service [--home DIR]`."""

from __future__ import annotations

import sys

from nakrel.service.start import main

sys.exit(main())
