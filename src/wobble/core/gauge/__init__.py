"""Gauge: from readings to surfaces.

- `prior`: what surfaces are like before measuring
- `checks`: what an instrument's own checks found
- `observe`: readings as linear sums of surface values and set-up places
- `share`: what places that share a corner tell of each other
- `adjust`: the joint least-squares adjustment
- `doubt`: readings that do not agree with the others
- `refine`: how wobbly this place is
- `survey`: all of it for a place, and the way in for later stages
- `causes`: what a reading that disagrees was meant to be
- `shares`: which readings a figure rests on
- `traits`: what the place is like
- `stations`: where to measure, in walking order, and the next best reading
- `next`: the next best reading for the decision at hand
- `surveyed`: what the surfaces look like, for drawing

May import: job, facts, and what is under them.
"""
