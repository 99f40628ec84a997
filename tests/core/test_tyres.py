import pytest

from roomy_hull.core.errors import InputError
from roomy_hull.core.tyres import overall_diameter, parts_of


@pytest.mark.parametrize(
    "text", ["265/75R16", "LT265/75R16", "265/75 R 16", "265/75r16C", "P265/75ZR16"]
)
def test_ways_of_writing_one_size(text: str) -> None:
    assert parts_of(text) == (265, 75, 16)


@pytest.mark.parametrize(
    "text", ["", "265-75-16", "265/75", "33x12.5R15", "265/75R", "R16", "a/bRc"]
)
def test_unreadable_sizes_name_the_size_and_the_remedy(text: str) -> None:
    with pytest.raises(InputError) as caught:
        overall_diameter(text)
    assert text in str(caught.value)
    assert "265/75R16" in caught.value.remedy
