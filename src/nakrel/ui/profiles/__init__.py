"""The left column: profiles and macros, and whether games are followed."""
