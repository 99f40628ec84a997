"""Jobs of many kinds, judged, for what holds of any."""

import msgspec
import pytest

from jobs import any_job
from roomy_hull.formats.demo import DEMOS, demo_job
from roomy_hull.verdict.verdict import Verdict, judge

JOBS = [*sorted(DEMOS), 3, 17, 29]


@pytest.fixture(scope="module", params=JOBS)
def judged(request: pytest.FixtureRequest) -> Verdict:
    key = request.param
    job = any_job(key) if isinstance(key, int) else demo_job(key)
    return judge(msgspec.structs.replace(job, weighings=()))
