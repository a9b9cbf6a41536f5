"""Lets `python -m nakrel` be the command line."""

from nakrel.cli.main import main

main(prog_name="nakrel")
