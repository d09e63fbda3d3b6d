"""`./run bench`: print measured figures beside what is expected of them; never a timed test."""

from __future__ import annotations

import argparse
import sys
from collections.abc import Callable

import numpy as np

from bench import calibration
from bench.accuracy import Accuracy, accuracy
from bench.against import ROOT, beside, measured, of_commit
from bench.alcoves import Verdicts, alcoves
from bench.cutting import Packing, boards, packings
from bench.drawing import redraws
from bench.five import EXPECTED_RMS_MM, SURFACES, Five, five
from bench.load import Served, under_load
from bench.next_best import Race, races
from bench.plans import Plans, plans
from bench.setting import Settings, settings
from bench.speed import Timing, decisions, surveys
from bench.uneven import main as print_uneven
from bench.walls import KINDS, Walls, walls


def main() -> None:
    """Measure and print, here or beside an earlier version."""
    parser = argparse.ArgumentParser(prog="./run bench", description=__doc__)
    parser.add_argument("--rooms", type=int, default=200, help="made-up rooms to survey")
    parser.add_argument("--places", type=int, default=100, help="made-up places of five surfaces")
    parser.add_argument("--uneven", type=int, default=30, help="made-up surfaces that step, and lines that lean")
    parser.add_argument("--floors", type=int, default=30, help="made-up floors on which stations are chosen one by one")
    parser.add_argument("--alcoves", type=int, default=500, help="made-up alcoves with a box that may go in")
    parser.add_argument("--kinds", type=int, default=40, help="made-up rooms of each of five kinds, and boxes for them")
    parser.add_argument("--walls", type=int, default=100, help="made-up walls with studs to find")
    parser.add_argument("--runs", type=int, default=100, help="made-up places in which a run is set")
    parser.add_argument("--plans", type=int, default=300, help="made-up jobs whose steps are put into sessions")
    parser.add_argument("--no-browser", action="store_true", help="leave the drawing on the phone out")
    parser.add_argument("--load", type=float, default=10.0, help="seconds for which many ask at once; 0 for none")
    parser.add_argument("--only", choices=ONLY, help="one part of it")
    parser.add_argument("--against", metavar="COMMIT", help="what that version comes to on this bench, beside this one")
    options = parser.parse_args()
    if options.against:
        same = [arg for arg in sys.argv[1:] if not arg.startswith("--against") and arg != options.against]
        lines = beside(measured(ROOT / "src", same), of_commit(options.against, same))
        sys.stdout.writelines(f"{line}\n" for line in lines)
        return
    for name in (options.only,) if options.only else ONLY:
        PARTS[name](options)


def print_packings(found: list[Packing]) -> None:
    """Print how many sheets and boards lists take beside the least that they could, and a common packer's answer."""
    print("Cutting, kerf 3 mm, one core (used : no layout goes under; lists at that, more than one over; packer)")
    for p in found:
        packer = f", packer {p.packer / p.least:.3f} and fewer in {p.worse}" if p.packer else ""
        proved = f", {p.used / p.proved:.3f} of what is proved in time, {p.at_proved} at it" if p.proved else ""
        print(
            f"  {p.what:44} {p.used} : {p.least} = {p.used / p.least:.3f}; {p.at_least} of {p.lists} at it, "
            f"{p.over} over by more than one{proved}{packer}; slowest {p.slowest_s:.1f} s"
        )


def print_load(trivial: Served, real: Served) -> None:
    """Print what many at once are served, beside a view that does nothing on the same server."""
    print("Sixteen at once on the gable job, a tenth of them writing readings; the clients run on the same machine")
    print(
        f"  a view that does nothing                     {trivial.per_second:.0f} a second, p95 {trivial.p95_ms:.0f} ms"
    )
    print(f"  Fit, Hold and readings                       {real.per_second:.0f} a second, p95 {real.p95_ms:.0f} ms")
    print(f"  ratio                                        1 to {trivial.per_second / real.per_second:.1f}")


def print_accuracy(found: Accuracy) -> None:
    """Print what the surveys of made-up rooms came to."""
    print(f"Accuracy on {found.n_rooms} made-up rooms, {found.n_readings} readings each, rule and laser ± 0.6 mm")
    survey = found.rms_mm["survey"]
    print(f"  RMS error at held-out points, survey         {survey:.3f} mm")
    for name in ("plane", "interpolation"):
        rms = found.rms_mm[name]
        print(f"  {'baseline: ' + ('fitted plane' if name == 'plane' else 'linear interpolation'):43}  {rms:.3f} mm"
              f"   survey / baseline = {survey / rms:.2f} (expected below 1)")  # fmt: skip
    print(f"  truth inside the 95 % interval               {found.coverage:.3f} (expected 0.93-0.99)")
    print(f"  single 10 mm misreads found, and no other    {found.found:.3f} (expected 0.95 or more)")
    print(f"  clean surveys falsely accused                {found.accused:.3f} (expected under 0.05)")


def print_five(found: Five) -> None:
    """Print what the surveys of five surfaces came to."""
    print(f"Five surfaces, {found.n_places} made-up places, {found.n_readings} readings each, 1 mm instruments")
    for surface in SURFACES:
        print(f"  RMS error, {surface:9} {found.rms_mm(surface):.2f} mm (expected below {EXPECTED_RMS_MM[surface]})")
    print(f"  truth inside the 95 % interval               {found.coverage:.3f} (expected 0.93-0.99)")
    print(f"  single 10 mm misreads named first, anywhere  {found.share_found('any'):.3f} (expected 0.80 or more)")
    print(f"  the same, on the floor                       {found.share_found('floor'):.3f} (expected 0.95 or more)")
    print(f"  clean surveys falsely accused                {found.accused / found.n_places:.3f} (expected under 0.05)")
    print(f"  RMS error of corner angles, with a diagonal  {found.angle_rms_deg:.3f}° (expected below 0.15)")


def print_races(found: list[Race]) -> None:
    """Print how many chosen readings do what a regular grid does."""
    print("Next best reading: readings for the same uncertainty of the base height")
    for race in found:
        print(
            f"  regular grid {race.grid:3}, chosen {race.chosen:5.1f}: {race.saved:.0%} fewer (expected 25 % or more)"
        )


def print_alcoves(found: Verdicts) -> None:
    """Print how often the word on whether a box goes in was right."""
    errors = np.asarray(found.errors_mm)
    print(f"Goes in or not: {len(found.goes)} made-up alcoves, boxes within a few millimetres of just going in")
    print(f"  boxes that do go in                          {np.mean(found.goes):.3f}")
    print(f"  verdict right                                {found.right:.3f}")
    print(f"  baseline: always the commoner answer         {max(np.mean(found.goes), 1 - np.mean(found.goes)):.3f}")
    print(f"  at least 95 % sure                           {found.sure:.3f}")
    print(f"  verdict right when so sure                   {found.right_when_sure:.3f} (expected 0.95 or more)")
    print(f"  called sure to go in, and stuck              {found.stuck_when_sure:.3f} (expected 0.05 or less)")
    print(f"  opening less the true one                    {errors.mean():.2f} ± {errors.std():.2f} mm")


def print_promises(n: int) -> None:
    """Print how often what is said of rooms of several kinds comes true."""
    print(f"{n} rooms of each kind, all said to be typical: truth inside 95 % of spots, of highest, of lowest")
    said = Verdicts()
    for kind in calibration.KINDS:
        kept, found = calibration.promises(n, kind), calibration.verdicts(4 * n, kind)
        said.chances += found.chances
        said.goes += found.goes
        print(
            f"  {kind:44} {np.mean(kept.spots):.3f}, {np.mean(kept.highest):.3f}, {np.mean(kept.lowest):.3f}; RMS "
            f"{kept.rms_mm:.3f} mm; verdicts right when sure {found.right_when_sure:.3f}"
        )
    deciles = "  ".join(f"{chance:.2f}: {came:.2f} of {many}" for chance, came, many in calibration.deciles(said))
    print(f"  said to go in: what did                      {deciles}")


def print_walls(n: int) -> None:
    """Print what is said of screws behind walls of each kind, beside what they met."""
    print(f"Studs behind {n} made-up walls of each kind: spacing named, screws called 90 % sure that bite, such lines")
    found: list[tuple[float, bool]] = []
    for kind in KINDS:
        of = walls(n, kind=kind)
        found += of.called
        named = f"{np.mean(of.named):.2f}" if of.named else "none"
        hollow = f"; in the opening {np.mean(of.in_hollow):.2f}" if of.in_hollow else ""
        joints = f"; into a joint {np.mean(of.at_joints):.2f}" if of.at_joints else ""
        print(f"  {kind:44} {named}, {np.mean(of.sure()):.3f}, {np.mean(of.n_called):.1f}{hollow}{joints}")
    bins = "  ".join(f"{said:.2f}: {came:.2f} of {many}" for said, came, many in Walls(called=found).bins())
    print(f"  said to bite: what did                       {bins} (expected within 0.05)")


def print_settings(found: Settings) -> None:
    """Print how runs came to stand that were checked and followed, beside those of the first plan followed blindly."""
    print(f"Runs of three boxes set in {found.n} made-up places by a simulated installer, held against the truth")
    both = (("checked, put right and followed", found.followed), ("baseline: first plan, blindly", found.blind))
    for name, stood in both:
        level = np.median([s.level_mm for s in stood])
        joint = np.median([s.joint_mm for s in stood])
        fine = sum(s.fine for s in stood)
        print(f"  {name:44} {fine} of {found.n} true; worst level {level:.1f} mm, step {joint:.1f} mm (medians)")
    print("  (expected 95 of 100 or more true)")


def print_plans(found: Plans) -> None:
    """Print how far plans end past what none could end before."""
    print(f"Steps of {found.n} made-up jobs in sessions, walked by a checker of their own: {found.faults} faults")
    print(f"  ends past the bound, median                  {np.median(found.late):.1%} (expected 10 % or less)")
    print(f"  at the bound                                 {np.mean(np.asarray(found.late) < 0.001):.0%}")


def print_timings(title: str, timings: list[Timing]) -> None:
    """Print medians and ratios."""
    print(title)
    for t in timings:
        print(f"  {t.what:26} {t.ms:8.1f} ms = {t.ratio:6.2f} × {t.baseline} ({t.baseline_ms:.2f} ms)")
    if title.startswith("Speed"):
        print("  (expected: 200 readings under 50 ms after warm-up, a turned decision under 100 ms)")


def print_survey(options: argparse.Namespace) -> None:
    """Print all that is said of surfaces."""
    print_accuracy(accuracy(options.rooms))
    print_five(five(options.places))
    print_uneven(options.uneven)
    print_races(races(options.floors))
    print_alcoves(alcoves(options.alcoves))
    print_promises(options.kinds)


def print_speed(options: argparse.Namespace) -> None:
    """Print how long answers take, alone and with many at once."""
    print_timings("Speed (median, one thread)", [*surveys(), *decisions()])
    if not options.no_browser:
        print_timings("Redrawing on a phone, its processor slowed four times (median)", redraws())
    if options.load:
        print_load(*under_load(options.load))


PARTS: dict[str, Callable[[argparse.Namespace], None]] = {
    "survey": print_survey,
    "walls": lambda o: print_walls(o.walls),
    "settings": lambda o: print_settings(settings(o.runs)),
    "plans": lambda o: print_plans(plans(o.plans)),
    "cutting": lambda _: print_packings([*packings(), boards()]),
    "speed": print_speed,
}
ONLY = tuple(PARTS)


if __name__ == "__main__":
    main()
