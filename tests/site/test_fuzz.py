"""A little of the fuzz run that stands outside the suite (`./run fuzz`): nothing is answered with a 5xx."""

from __future__ import annotations

import random

from tools.fuzz import Fuzzer

from wobble.core.formats.document import write_job
from wobble.core.practice.gable import gable_workroom


def test_odd_bodies_between_accepted_edits_never_fail_the_server(ines):
    ines.client.raise_request_exception = False
    ines.client.handler.enforce_csrf_checks = False
    fuzzer = Fuzzer(ines.client, random.Random(7))  # noqa: S311
    fuzzer.run(80, write_job(gable_workroom()))
    assert not fuzzer.failed
    assert fuzzer.accepted > 15
    assert fuzzer.told[422] > 15
