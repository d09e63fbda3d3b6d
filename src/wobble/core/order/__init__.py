"""Order: which steps the job is made of, what must come before what, and when each is done.

- `step`: a step and what ties two
- `steps`: all of one place that steps are made from, how long they take, and the steps themselves
- `ties`: what becomes unreachable when a thing stands, what the trade ties, one order that keeps all
- `hours`: steps in sessions, how early it could end at all, what fits into one evening
- `findings`, `result`: what is told, and all of it
"""
