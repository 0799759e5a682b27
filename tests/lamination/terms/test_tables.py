"""Tables go out so that nobody's spreadsheet takes a name for a formula, and no name ends its row."""

import csv
import io

import pytest

from lamination.terms import written_table
from lamination.terms.tables import read_table


@pytest.mark.parametrize(
    "name",
    [
        "=1+1",
        "+cmd",
        "-cmd",
        "@sum",
        "\t=1",
        "\r=1+1",
        "\n=1",
        " =1+1",
        "＝1+1",
        "＋1",
        "－1",
        "＠a",
    ],
)
def test_no_name_begins_as_a_formula(name):
    (cell, _), *more = csv.reader(io.StringIO(written_table([(name, "ready")])))
    assert cell.startswith("'")
    assert more == []


def test_numbers_stay_numbers_and_names_stay_names():
    written = written_table([("-2.5", "Café boat puff", 3), ("two\rlines", "", -1)])
    assert read_table(written, ",") == [["-2.5", "Café boat puff", "3"], ["two\nlines", "", "-1"]]
