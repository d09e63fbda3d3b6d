"""Practice: made-up rooms with a hidden truth, and simulated instruments to measure them with.

They stand in for real rooms and instruments in the demo, the tests and the bench. The truths are falls, bows, humps and
filler in corners, not draws from the estimator's own prior. May import: job, gauge.
"""
