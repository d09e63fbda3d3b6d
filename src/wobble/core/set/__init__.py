"""Set: what is checked as it is set, what to do where it is out, and the plan that follows what stands.

- `tolerances`: how far out is out, and why
- `freedoms`: a unit that stands as six small freedoms, found from what was read on it
- `stands`: a job as it stands: what was set and found otherwise in place of what was planned
- `planned`: where a unit is to stand, and on what
- `check`, `checks`, `advice`: what is checked, against what, and what to do now
- `changes`: what is other than before, and what of it was cut already
- `record`: the job as it went
- `findings`, `result`: what is told, and all of it
"""
