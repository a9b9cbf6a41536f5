"""The pure core: it decides, and touches no clock, file, thread, device or window.

Time comes in as integer microseconds of a monotonic clock, chance as a seeded `random.Random`.
"""
