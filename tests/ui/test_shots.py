from pathlib import Path

import pytest
from PyQt6.QtGui import QImage
from PyQt6.QtWidgets import QApplication

from roomy_hull.core.errors import PictureError
from roomy_hull.desktop import shots
from roomy_hull.formats import jobfile
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job


def test_every_view_of_the_demo_becomes_a_picture_of_its_own(
    qapp: QApplication, tmp_path: Path
) -> None:
    files = shots.write(None, tmp_path)
    assert [f.stem for f in files] == [name for name, _ in shots.VIEWS]
    images = [QImage(str(f)) for f in files]
    assert {(i.width(), i.height()) for i in images} == {shots.SIZE}
    for n, one in enumerate(images):
        for other in images[n + 1 :]:
            assert one != other
    assert {p.name for p in tmp_path.iterdir()} == {f.name for f in files}


def test_pictures_of_an_empty_job(qapp: QApplication, tmp_path: Path, demo: Job) -> None:
    job = demo
    for unit in demo.units:
        job = edits.removed(job, unit.id)
    path = tmp_path / "empty.hull.json"
    jobfile.save(job, path)
    assert len(shots.write(path, tmp_path / "out")) == len(shots.VIEWS)


def test_a_folder_that_cannot_be_made(qapp: QApplication, tmp_path: Path) -> None:
    (tmp_path / "file").write_text("x")
    with pytest.raises(PictureError, match="cannot be made"):
        shots.write(None, tmp_path / "file" / "out")
