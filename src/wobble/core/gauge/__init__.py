"""Gauge: from readings to surfaces.

Parts: `prior` (what surfaces are like before measuring), `observe` (readings as linear sums of surface values and
set-up heights), `adjust` (the joint least-squares adjustment), `refine` (how wobbly this place is), `doubt` (readings that do
not agree), `survey` (all of it for a bay), `stations` (where to measure, in walking order), `place` (what the surfaces
look like, for drawing). `survey` is the way in for later stages. May import: job, length, errors.
"""
