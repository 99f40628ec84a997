"""Other rims, a moved axle, seats taken out: by hand."""

import msgspec
import pytest
from tests.builders import begun, codes, hung

from roomy_hull.core.errors import EditError
from roomy_hull.job.edits import running
from roomy_hull.job.edits.resizing import resized
from roomy_hull.job.model import Job
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.verdict.verdict import judge


def with_vehicle(job: Job, **changes: object) -> Job:
    return msgspec.structs.replace(job, vehicle=job.vehicle.but(**changes))


def test_a_smaller_offset_widens_the_track_by_twice_the_difference() -> None:
    """From an offset of 44 to 20: each wheel 24 mm further out, the track 48 mm wider (geometry)."""
    job = begun("Marl 2.8 dual", "bare tray")
    job = with_vehicle(job, wheels=job.vehicle.wheels.but(offset=44.0, offset_standard=44.0))
    new = resized(job, "vehicle.wheels.offset", 20.0)
    assert new.vehicle.track_rear - job.vehicle.track_rear == pytest.approx(48)
    assert new.vehicle.track_front - job.vehicle.track_front == pytest.approx(48)
    assert codes(judge(new), "survey.track") == ["survey.track"]
    a, b = judge(job).carrying.stability[0], judge(new).carrying.stability[0]
    assert b.factor > a.factor
    back = resized(new, "vehicle.wheels.offset", 44.0)
    assert back == job


def test_tyres_out_of_the_tray_and_into_the_rails_are_told() -> None:
    job = begun("Marl 2.8 dual", "bare tray")
    wide = resized(job, "vehicle.wheels.offset", -220.0)
    assert "outline.tyre" in codes(judge(wide), "outline.tyre")
    narrow = resized(job, "vehicle.wheels.offset", 200.0)
    assert "outline.inside" in codes(judge(narrow), "outline.inside")


def test_the_front_axle_forward_shares_the_kerb_mass_anew() -> None:
    """1,200 kg front, 900 rear on 3,000 mm: the centre lies 1,285.7 mm back. 50 mm forward: (1,335.7 / 3,050) of 2,100."""
    job = begun("Marl 2.8 dual", "bare tray")
    kerb = job.vehicle.kerb.but(front=1200.0, rear=900.0, driver=0.0, fuel=0.0, tools=0.0)
    job = with_vehicle(job, wheelbase=3000.0, kerb=kerb)
    job = hung(job, "hitch")
    new = running.axle_moved(job, "front", 50.0)
    assert new.vehicle.wheelbase == 3050
    assert new.vehicle.kerb.rear == pytest.approx(2100 * (900 * 3000 / 2100 + 50) / 3050)
    assert new.vehicle.kerb.front + new.vehicle.kerb.rear == pytest.approx(2100)
    # Nothing moved in the vehicle: distances behind the cab, and to the tail, are as they were.
    assert (
        new.vehicle.chassis_end - new.vehicle.cab_back
        == job.vehicle.chassis_end - job.vehicle.cab_back
    )
    assert new.carried[0].x - job.carried[0].x == 50
    assert new.vehicle.shape.front == job.vehicle.shape.front - 50
    length = [judge(j).outline.length for j in (job, new)]
    assert length[0] == pytest.approx(length[1])


def test_the_rear_axle_aft_takes_load_off_itself() -> None:
    job = begun("Fen", "bare tray")
    new = running.axle_moved(job, "rear", 100.0)
    assert new.vehicle.kerb.rear < job.vehicle.kerb.rear
    assert new.vehicle.cab_back == job.vehicle.cab_back
    undone = running.axle_moved(new, "rear", -100.0)
    assert undone.vehicle.kerb.rear == pytest.approx(job.vehicle.kerb.rear)


@pytest.mark.parametrize("by", [5000.0, float("nan"), True, -5000.0])
def test_an_axle_is_not_moved_to_nowhere(by: float) -> None:
    with pytest.raises(EditError, match="at most"):
        running.axle_moved(begun("Fen", "bare tray"), "rear", by)


def test_seats_taken_out_come_off_the_kerb_mass_where_they_were() -> None:
    """Two rear seats of 18 kg at 2,100 mm on a wheelbase L: 36·2100/L off the rear axle, the rest off the front."""
    job = begun("Marl 2.8 dual", "bare tray")
    seats = tuple(
        s if n < 2 else s.but(fitted=False, mass=18.0, x=2100.0)
        for n, s in enumerate(job.vehicle.seats)
    )
    gone = len(seats) - 2
    assert gone > 0
    kept = with_vehicle(job, seats=tuple(s.but(fitted=True) for s in seats))
    out = with_vehicle(job, seats=seats)
    a, b = judge(kept).loads.scenarios[0], judge(out).loads.scenarios[0]
    base = job.vehicle.wheelbase
    assert a.rear.value - b.rear.value == pytest.approx(gone * 18 * 2100 / base)
    assert a.gross.value - b.gross.value == pytest.approx(gone * 18)
    assert codes(judge(out), "survey.seats") == ["survey.seats"]
    unsaid = with_vehicle(job, seats=(*seats[:-1], seats[-1].but(mass=0.0)))
    assert codes(judge(unsaid), "survey.seat_mass") == ["survey.seat_mass"]


def test_nobody_sits_on_a_seat_that_is_out() -> None:
    job = begun("Marl 2.8 dual", "bare tray")
    seats = (job.vehicle.seats[0], job.vehicle.seats[1].but(fitted=False), *job.vehicle.seats[2:])
    with pytest.raises(ValueError, match="seat that is taken out"):
        with_vehicle(job, seats=seats)
    with pytest.raises(ValueError, match="driver's seat"):
        Vehicle(**{
            **{n: getattr(job.vehicle, n) for n in job.vehicle.__struct_fields__},
            "seats": (job.vehicle.seats[0].but(fitted=False), *job.vehicle.seats[1:]),
        })
