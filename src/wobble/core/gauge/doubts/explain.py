"""What a whole part of a survey that stands off from the rest is: an edge, a line that was knocked, or one that leans.

Rival explanations are weighed together by their marginal likelihood (Rasmussen & Williams 2006, equation 2.30), each
with the amplitudes that are likeliest under it, and with what it costs to say it beforehand: an edge somewhere among
all places where one could be, a line knocked at some moment, a single misread. What is read column by column has time
and place in one: then no reading tells a step from a knock, both are carried as unknowns, and one more reading decides.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from wobble.core.budget import spend
from wobble.core.gauge.adjust import Adjustment, adjust
from wobble.core.gauge.doubts.doubt import FEWEST_EACH_SIDE, Knock, knocks
from wobble.core.gauge.doubts.refine import refined, scale_prior
from wobble.core.gauge.edges import Edge
from wobble.core.gauge.observe import Observation, line_name
from wobble.core.gauge.prior import Floats, SurfacePrior
from wobble.core.job import TOWARDS_INSTALLER, Spot, SurfaceName

Unknowns = Mapping[str, tuple[float, float]]

SHIFT_SD_MM = 30.0
"""How high an edge or a knock may be beforehand."""
MISREAD_SD_MM = 30.0
SCREEN_Z2 = 14.0
LEAST_SHIFT_MM = 5.0
"""What a shift must take off the weighted squares, and come to, before it is looked at: a bow does less."""
FEWEST_ROWS = 5
"""Along an axis that was read at fewer places a step is not told from a bow."""
LEANING_SD = 1.5
"""How far a line that somebody dropped may lean, mm per m."""
LEAN_SCREEN_Z2 = 6.0
ODDS = {"edge": 0.2, "knock": 0.05, "lean": 0.05, "misread": 0.3}
"""How often a survey has one, beforehand."""
SURE = math.log(20.0)
"""By how much an explanation must be likelier than its rival, in logs, to stand alone."""
CLAIMED = {"edge": 3.0, "knock": 3.0, "lean": 3.0, "misread": 1.0}
"""And by how much than that there is nothing."""
CLAIMED_APART = 10.0
"""The same for a knock since which everything was read elsewhere: a floor in three rows may bow just so."""
MOST_CUTS = 40
MOST_WEIGHED = 300
"""Of more readings an even choice is weighed: an edge or a knock shows in them as well, and costs many adjustments."""
ROUNDS = 4


@dataclass(frozen=True)
class FoundEdge:
    """A step that the readings show: on which surface, along which axis, where it begins and ends, and its height.

    Places are (middle, standard deviation), mm: somewhere between two readings. `by_mm` counts towards the installer.
    """

    surface: SurfaceName
    axis: int
    low: tuple[float, float]
    high: tuple[float, float]
    by_mm: float
    sd_mm: float

    def between(self, which: Literal["low", "high"]) -> tuple[float, float]:
        """Return between which two readings an end lies, mm."""
        at, sd = self.low if which == "low" else self.high
        return at - math.sqrt(3.0) * sd, at + math.sqrt(3.0) * sd


@dataclass(frozen=True)
class Rivals:
    """An edge and a knock that explain the same readings: `again` is the reading to take once more, which decides."""

    edge: FoundEdge
    knock: Knock
    again: str


@dataclass(frozen=True)
class Explained:
    """What was found: edges, knocks, and what is either; priors and observations with all of it in.

    `whole` is the adjustment of just that, where it was made on the way.
    """

    priors: Mapping[SurfaceName, SurfacePrior]
    observed: tuple[Observation, ...]
    unknowns: Unknowns
    edges: tuple[FoundEdge, ...] = ()
    knock: Knock | None = None
    rivals: Rivals | None = None
    leaning: tuple[str, ...] = ()
    whole: Adjustment | None = None


@dataclass(frozen=True)
class _Told:
    """One explanation: what the survey is with it in, and how likely it is, in logs."""

    kind: str
    state: Explained
    score: float
    edge: FoundEdge | None = None
    knock: Knock | None = None
    lean: str = ""


def explained(
    observed: Sequence[Observation],
    priors: Mapping[SurfaceName, SurfacePrior],
    unknowns: Unknowns,
    taken: Mapping[str, datetime],
) -> Explained:
    """Return the edges and knocks that explain readings better than a smooth surface and single misreads do.

    Args:
        observed: All readings as linear sums.
        priors: Of the surfaces, with the edges that were declared.
        unknowns: Beside the surfaces.
        taken: When each of the place's own readings was taken.
    """
    whole = Explained(dict(priors), tuple(observed), dict(unknowns))
    if len(observed) <= MOST_WEIGHED:
        return _weighed(whole, taken)
    some = np.unique(np.linspace(0, len(observed) - 1, MOST_WEIGHED).astype(int))
    found = _weighed(replace(whole, observed=tuple(observed[i] for i in some)), taken)
    for edge in found.edges:
        whole = _with_edge(whole, edge)
    for set_up in found.leaning:
        whole = _with_lean(whole, set_up)
    if found.rivals is not None:
        return _both(whole, found.rivals.edge, found.rivals.knock, taken)
    return _with_knock(whole, found.knock, taken)


def _weighed(state: Explained, taken: Mapping[str, datetime]) -> Explained:
    """Return the explanations of some readings, one after the other, each the likeliest with those before it in."""
    weighed = state
    for _ in range(ROUNDS):
        spend()
        whole = adjust(weighed.observed, weighed.priors, weighed.unknowns)
        if weighed is state:
            weighed = state = replace(state, whole=whole)
        told = list(_explanations(whole, weighed, taken))
        if not told:
            break
        nothing = _evidence(weighed)
        likely = [t for t in told if t.score > nothing + _claimed(t, weighed, taken)]
        if not likely:
            break
        best = max(likely, key=lambda t: t.score)
        weighed = best.state
        if best.kind == "misread":
            continue
        rival = max((t for t in told if {t.kind, best.kind} == {"edge", "knock"}), key=lambda t: t.score, default=None)
        apart = _cut_between(weighed, best.knock, taken) if best.knock else None
        if rival is not None and rival.score > best.score - SURE:
            edge, knock = best.edge or rival.edge, best.knock or rival.knock
            return _both(state, edge, knock, taken) if edge and knock else state
        if best.knock and apart:
            return _both(state, apart, best.knock, taken)
        if best.lean:
            state = _with_lean(state, best.lean)
        else:
            state = _with_edge(state, best.edge) if best.edge else _with_knock(state, best.knock, taken)
    return state


def _claimed(told: _Told, state: Explained, taken: Mapping[str, datetime]) -> float:
    """Return by how much, in logs, an explanation must be likelier than nothing."""
    apart = told.knock is not None and _cut_between(state, told.knock, taken) is not None
    return CLAIMED_APART if apart else CLAIMED[told.kind]


def _cut_between(state: Explained, knock: Knock, taken: Mapping[str, datetime]) -> FoundEdge | None:
    """Return the edge that a knock could as well be, where all that was read since lies beyond one cut of its surface.

    Then time and place are one, and nothing that was read tells them apart.
    """
    line, since = line_name(knock.set_up), taken[knock.since]
    read: dict[SurfaceName, list[tuple[Spot, bool]]] = {}
    for o in state.observed:
        if o.reading_id in taken and line in dict(o.unknown_terms):
            surface, spot, _ = o.surface_terms[0]
            read.setdefault(surface, []).append((spot, taken[o.reading_id] >= since))
    # what was read of before and since; two surfaces do not step by as much between the same two readings
    both = [s for s, seen in read.items() if len({late for _, late in seen}) > 1]
    if len(both) != 1:
        return None
    (surface,) = both
    spots, later = np.asarray([spot for spot, _ in read[surface]]), np.asarray([late for _, late in read[surface]])
    for axis in (0, 1):
        before, beyond = spots[~later, axis], spots[later, axis]
        # what reads more lies further from who reads: the far side stands back if it was read since, else out
        for near, far, by in ((before.max(), beyond.min(), -knock.by_mm), (beyond.max(), before.min(), knock.by_mm)):
            if near < far:
                cut = float(near + far) / 2, float(far - near) / math.sqrt(12)
                end = state.priors[surface].extent[axis][1] + 1.0, 0.0
                return FoundEdge(surface, axis, cut, end, by, knock.sd_mm)
    return None


def _explanations(whole: Adjustment, state: Explained, taken: Mapping[str, datetime]) -> Iterator[_Told]:
    """Yield the best edge of each surface, the best knock and the worst misread, where there is something to see."""
    shift = None
    there = {_place(edge) for edge in state.edges}
    for edge, n in _edges(whole):
        if _place(edge) in there:  # readings of another room want the same step once more: it is told once
            continue
        shift = _with_edge(state, edge)
        yield _Told("edge", shift, _evidence(shift) + math.log(ODDS["edge"] / n), edge=edge)
    if state.knock is None:
        found = knocks(whole, taken)
        if found is not None and found[0] > SCREEN_Z2 and abs(found[1].by_mm) > LEAST_SHIFT_MM:
            shift = _with_knock(state, found[1], taken)
            yield _Told("knock", shift, _evidence(shift) + math.log(ODDS["knock"] / found[2]), knock=found[1])
    for set_up, n_lines in _leans(whole):
        if set_up not in state.leaning:
            shift = _with_lean(state, set_up)
            yield _Told("lean", shift, _evidence(shift) + math.log(ODDS["lean"] / n_lines), lean=set_up)
    if shift is None:
        return
    weighted = whole.precision @ whole.residual
    worst = int(np.argmax(weighted**2 / np.diag(whole.precision)))
    wrong = whole.observations[worst]
    loose = replace(wrong, sigma_mm=math.hypot(wrong.sigma_mm, MISREAD_SD_MM))
    misread = replace(state, observed=tuple(loose if o is wrong else o for o in state.observed), whole=None)
    yield _Told("misread", misread, _evidence(misread) + math.log(ODDS["misread"] / len(whole.observations)))


def _evidence(state: Explained) -> float:
    """Return the log marginal likelihood of readings, with the amplitudes that are likeliest."""
    first = adjust(state.observed, state.priors, state.unknowns)
    amplitudes = refined(first)
    found = first.under({s: replace(p, amplitudes=amplitudes.get(s, p.amplitudes)) for s, p in state.priors.items()})
    determinant = float(np.log(np.diag(found.factor)).sum())
    said = sum(scale_prior(state.priors[s].amplitudes, a) for s, a in amplitudes.items())
    return -0.5 * float(found.residual @ found.solution) - determinant + said


def _leans(whole: Adjustment) -> Iterator[tuple[str, int]]:
    """Yield the set-up whose lean takes most off the weighted squares, where it takes enough to be looked at."""
    names = list(whole.unknowns)
    of: dict[str, list[int]] = {}
    for i, name in enumerate(names):
        if name.startswith("lean:") and np.any(whole.unknown_weights[:, i]):
            of.setdefault(name.removeprefix("lean:").rsplit(":", 1)[0], []).append(i)
    pulled = whole.precision @ whole.residual
    best = ("", LEAN_SCREEN_Z2)
    for set_up, which in of.items():
        columns = whole.unknown_weights[:, which]
        pull = columns.T @ pulled
        z2 = float(pull @ np.linalg.lstsq(columns.T @ whole.precision @ columns, pull, rcond=None)[0])
        best = max(best, (set_up, z2), key=lambda pair: pair[1])
    if best[0]:
        yield best[0], len(of)


def _place(edge: FoundEdge) -> tuple[SurfaceName, int, float, float | None]:
    """Return where an edge lies: its surface, the axis that it crosses, and its cuts."""
    return edge.surface, edge.axis, edge.low[0], None if edge.high is None else edge.high[0]


def _edges(whole: Adjustment) -> Iterator[tuple[FoundEdge, int]]:
    """Yield for each surface and axis the edge that takes most off the weighted squares, and among how many."""
    pulled = whole.precision @ whole.residual
    for surface, seen in whole.designs.items():
        for axis in (0, 1):
            at = np.unique(np.round(seen.spots[:, axis], 1))
            if len(at) < FEWEST_ROWS or len(seen.spots) < 3 * FEWEST_EACH_SIDE:
                continue
            kept = np.unique(np.linspace(0, len(at) - 2, min(len(at) - 1, MOST_CUTS)).astype(int))
            cuts = [(float(at[i] + at[i + 1]) / 2, float(at[i + 1] - at[i]) / math.sqrt(12)) for i in kept]
            # one cut more, past all that was read: what begins at a cut and ends there runs on to the end
            cuts.append((whole.priors[surface].extent[axis][1] + 1.0, 0.0))
            beyond = seen.spots[:, axis][:, None] > np.asarray([place for place, _ in cuts])
            z2, first, last = _best_cuts(beyond, seen.weights @ beyond, whole.precision, pulled)
            column = seen.weights @ (beyond[:, first] & ~beyond[:, last])
            size = float(column @ whole.precision @ column)
            if z2 < SCREEN_Z2:
                continue
            by = TOWARDS_INSTALLER[surface] * float(column @ pulled) / size
            if abs(by) >= LEAST_SHIFT_MM:
                n_ways = len(kept) if last == len(kept) else len(kept) ** 2 // 2
                yield FoundEdge(surface, axis, cuts[first], cuts[last], by, size**-0.5), n_ways


def _best_cuts(beyond: NDArray[np.bool_], columns: Floats, precision: Floats, pulled: Floats) -> tuple[float, int, int]:
    """Return what the best step between two cuts takes off the weighted squares, and the two.

    With S the sums of weights of all readings on spots beyond each cut, a step from cut i to cut j shifts them by
    Sᵢ − Sⱼ, so that it takes ((Sᵢ − Sⱼ)ᵀQr)²/((Sᵢ − Sⱼ)ᵀQ(Sᵢ − Sⱼ)) off (as in `doubt.knocks`).
    """
    known, pull, spots = columns.T @ precision @ columns, columns.T @ pulled, beyond.sum(axis=0)
    own = np.diag(known)
    between = own[:, None] + own[None, :] - 2 * known
    on = spots[:, None] - spots[None, :]
    told = (np.minimum(on, len(beyond) - on) >= FEWEST_EACH_SIDE) & (between > 0)
    z2 = np.where(told, (pull[:, None] - pull[None, :]) ** 2 / np.maximum(between, 1e-12), 0.0)
    first, last = np.unravel_index(int(np.argmax(z2)), z2.shape)
    return float(z2[first, last]), int(first), int(last)


def _with_edge(state: Explained, edge: FoundEdge) -> Explained:
    """Return readings explained by an edge too, its height an unknown."""
    prior = state.priors[edge.surface]
    step = Edge(prior.extent, edge.axis, edge.low, edge.high, 0.0, SHIFT_SD_MM, placed_mm=abs(edge.by_mm))
    priors = {**state.priors, edge.surface: replace(prior, edges=(*prior.edges, step))}
    return replace(state, priors=priors, edges=(*state.edges, edge), whole=None)


def _with_knock(state: Explained, knock: Knock | None, taken: Mapping[str, datetime]) -> Explained:
    """Return readings explained by a knock too: all that was read from a line since is let move together."""
    if knock is None:
        return state
    line, name = line_name(knock.set_up), f"knock:{knock.set_up}"
    observed = []
    for o in state.observed:
        weight = dict(o.unknown_terms).get(line)
        if weight is not None and o.reading_id in taken and taken[o.reading_id] >= taken[knock.since]:
            o = replace(o, unknown_terms=(*o.unknown_terms, (name, weight)))
        observed.append(o)
    unknowns = {**state.unknowns, name: (0.0, SHIFT_SD_MM)}
    return replace(state, observed=tuple(observed), unknowns=unknowns, knock=knock, whole=None)


def _with_lean(state: Explained, set_up: str) -> Explained:
    """Return readings explained by a line that leans more than its kind may."""
    freed = {n: (0.0, LEANING_SD) for n in state.unknowns if n.startswith(f"lean:{set_up}:")}
    return replace(state, unknowns={**state.unknowns, **freed}, leaning=(*state.leaning, set_up), whole=None)


def _both(state: Explained, edge: FoundEdge, knock: Knock, taken: Mapping[str, datetime]) -> Explained:
    """Return readings with both an edge and a knock as unknowns, and which reading tells one from the other."""
    made = _with_knock(_with_edge(state, edge), knock, taken)
    line = line_name(knock.set_up)
    read = [o for o in state.observed if line in dict(o.unknown_terms) and o.reading_id in taken]
    early = [o for o in read if o.surface_terms[0][0] == edge.surface]
    first = min(early, key=lambda o: taken[o.reading_id])
    return replace(made, edges=state.edges, knock=None, rivals=Rivals(edge, knock, first.reading_id))
