"""`./run bench`: print measured figures beside what is expected of them; never a timed test."""

from __future__ import annotations

import argparse

from bench.accuracy import Accuracy, accuracy
from bench.speed import Timing, decisions, surveys


def main() -> None:
    """Measure and print."""
    parser = argparse.ArgumentParser(prog="./run bench", description=__doc__)
    parser.add_argument("--rooms", type=int, default=200, help="made-up rooms to survey")
    options = parser.parse_args()
    print_accuracy(accuracy(options.rooms))
    print_timings("Speed (median, one thread)", [*surveys(), *decisions()])


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


def print_timings(title: str, timings: list[Timing]) -> None:
    """Print medians and ratios."""
    print(title)
    for t in timings:
        print(f"  {t.what:26} {t.ms:8.1f} ms = {t.ratio:6.2f} × {t.baseline} ({t.baseline_ms:.2f} ms)")
    print("  (expected: 200 readings under 50 ms after warm-up, a turned decision under 100 ms)")


if __name__ == "__main__":
    main()
