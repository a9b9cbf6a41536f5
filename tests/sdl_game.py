"""A game made with SDL, as many are: it keeps the pointer and the keyboard to itself, reads the mouse's motion as such,
and writes down what SDL tells it, a JSON object a line."""

from __future__ import annotations

import ctypes
import json
import os
import sys

# prctl(2): the name by which programs that run are listed.
_PR_SET_NAME = 15


def main(name: str, log_path: str) -> None:
    """Play until somebody ends it."""
    ctypes.CDLL(None).prctl(_PR_SET_NAME, name.encode(), 0, 0, 0)
    os.environ.update(SDL_VIDEODRIVER="x11", SDL_GRAB_KEYBOARD="1", PYGAME_HIDE_SUPPORT_PROMPT="1")
    import pygame

    pygame.display.init()
    pygame.display.set_mode((640, 400))
    pygame.display.set_caption(name)
    # Both together are what SDL calls relative mouse mode.
    pygame.event.set_grab(True)
    pygame.mouse.set_visible(False)
    clock = pygame.time.Clock()
    with open(log_path, "a", encoding="utf-8", buffering=1) as log:

        def say(**what: object) -> None:
            log.write(json.dumps(what) + "\n")

        while True:
            for event in pygame.event.get():
                if event.type in (pygame.KEYDOWN, pygame.KEYUP):
                    say(key=event.scancode, down=event.type == pygame.KEYDOWN)
                elif event.type in (pygame.MOUSEBUTTONDOWN, pygame.MOUSEBUTTONUP):
                    say(button=event.button, down=event.type == pygame.MOUSEBUTTONDOWN)
                elif event.type == pygame.MOUSEMOTION:
                    say(moved=event.rel)
                elif event.type == pygame.MOUSEWHEEL:
                    say(wheel=event.y)
                elif event.type == pygame.TEXTINPUT:
                    say(text=event.text)
                elif event.type == pygame.WINDOWFOCUSGAINED:
                    say(focus=True)
            pygame.display.flip()
            clock.tick(120)


if __name__ == "__main__":
    main(*sys.argv[1:])
