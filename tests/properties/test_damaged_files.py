"""Vehicle, unit, preference and autosave files damaged by chance: a short form of bench/other_files.py."""

import random
from pathlib import Path

import pytest
from tests.sweeping import examples

import other_files
from roomy_hull.core.errors import InputError
from roomy_hull.formats.vehiclefile import library
from roomy_hull.kit.body.fitting import begun

SAMPLES = other_files.samples()


@pytest.mark.parametrize("sort", sorted(SAMPLES))
def test_a_damaged_file_is_used_refused_in_words_or_set_aside(sort: str, tmp_path: Path) -> None:
    attack, whole = SAMPLES[sort]
    rng = random.Random(5)
    refusals = 0
    for _ in range(examples(120, 40)):
        data = other_files.damaged(rng.choice(whole), rng)
        wrong, refused = other_files.attacked(attack, tmp_path, data)
        refusals += refused
        assert wrong == "", data[:300]
    assert (refusals > examples(30, 10)) == (sort != "preferences")


def test_a_vehicle_that_leaves_a_body_no_room_is_refused_in_words() -> None:
    vehicles = [e.vehicle for e in library() if e.vehicle is not None]
    narrow = [v.but(shape=v.shape.but(width=120.0)) for v in vehicles if v.kind == "cab-chassis"]
    assert narrow
    for vehicle in narrow:
        with pytest.raises(InputError, match="has no room for a full canopy") as refused:
            begun("x", vehicle, "full canopy")
        assert vehicle.name in str(refused.value)
        assert "Begin with another body" in str(refused.value)
