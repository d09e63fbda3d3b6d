"""Gauge: from readings to surfaces.

- `prior`: what surfaces are like before measuring
- `observe`: readings as linear sums of surface values and set-up places
- `adjust`: the joint least-squares adjustment
- `doubt`: readings that do not agree with the others
- `refine`: how wobbly this place is
- `survey`: all of it for a bay, and the way in for later stages
- `causes`: what a reading that disagrees was meant to be
- `traits`: what the place is like
- `stations`: where to measure, in walking order, and the next best reading
- `place`: what the surfaces look like, for drawing

May import: job, length, errors.
"""
