"""Other people's lists of ingredients, read into a formula; and what cups and spoons weigh."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.files.pasted import MOST_CHARACTERS, read_pasted
from lamination.materials.house import bulk_g_ml, grams_of, measured
from lamination.materials.ingredients import LIBRARY, Shelf
from lamination.terms.limits import Faults
from lamination.terms.said import plain

SHELF = Shelf()
FLOUR = "1000 g bread flour\n"


def one(line):
    """The single ingredient of a line, and its mass, g."""
    found = read_pasted(FLOUR + line, SHELF)
    assert len(found.read) == 2, found.missed
    return found.read[1].ingredient, found.read[1].grams


@pytest.mark.parametrize(
    ("line", "key", "grams"),
    [
        ("520 g water", "water", 520),
        ("½ l whole milk", "milk-whole", 515),
        ("2 cups of milk", "milk-whole", 487.4),
        ("1 1/2 tsp salt", "salt", 8.87),
        ("1½ tsp fine sea salt", "salt", 8.87),
        ("2 tbsp honey", "honey", 42),
        ("1 stick butter, soft", "butter-table", 113.4),
        ("3 large eggs", "egg-whole", 150),
        ("2 egg yolks", "egg-yolk", 36),
        ("1/4 cup (50 g) caster sugar", "sugar", 50),
        ("7 g instant yeast", "yeast-instant", 7),
        ("Sugar: 110 g", "sugar", 110),
        ("- 2-3 tbsp water", "water", 36.97),
        ("8 oz cold European-style butter", "butter-cultured", 226.8),
        ("0,5 kg rye flour", "flour-rye", 500),
        ("a pinch of salt", "salt", 0.37),
        ("30 g dried milk", "milk-powder", 30),
        ("10 g white vinegar", "vinegar", 10),
    ],
)
def test_a_line_is_read_as_a_person_wrote_it(line, key, grams):
    found = one(line)
    assert found[0] == key
    assert found[1] == pytest.approx(grams, rel=0.005)


@pytest.mark.parametrize(
    ("line", "why"),
    [
        ("10 g yeast", "Which yeast"),
        ("3 bananas", "Nothing on the shelf"),
        ("for the dough", "No amount"),
        ("250 g buttermilk", "Nothing on the shelf"),
        ("4 butter", "How much one of it weighs"),
        ("1/0 cup water", "not a number"),
    ],
)
def test_what_is_not_understood_is_said_and_why(line, why):
    found = read_pasted(FLOUR + line, SHELF)
    assert [m.text for m in found.missed] == [line]
    assert why in found.missed[0].why


def test_a_whole_list_becomes_percent_of_its_flour():
    text = """500 g bread flour
    260 g water
    55 g sugar
    10 g salt
    15 g fresh yeast
    30 g butter
    270 g butter, for laminating"""
    found = read_pasted(text, SHELF)
    assert {line.ingredient: line.pct for line in found.lines} == {
        "flour-strong": 100, "water": 52, "sugar": 11, "salt": 2, "yeast-fresh": 3, "butter-table": 6,
    }  # fmt: skip
    assert (found.dough_g, found.block_g) == (870, 270)
    assert plain(found.read[-1].says) == "270 g of table butter, for the block"


def test_percentages_stay_what_they_are_and_flours_together_are_the_flour():
    found = read_pasted("70 % strong flour\n30 % plain flour\n48 % water\n2 % salt", SHELF)
    assert [line.pct for line in found.lines] == [70, 30, 48, 2]


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "Paste a list"),
        ("200 g water", "No flour"),
        ("500 g flour\n52 % water", "Use one of the two"),
        ("x" * (MOST_CHARACTERS + 1), "too long"),
    ],
)
def test_a_list_that_is_none_is_refused_in_a_sentence(text, says):
    with pytest.raises(Faults) as wrong:
        read_pasted(text, SHELF)
    assert wrong.value.faults[0].field == "text"
    assert says in wrong.value.faults[0].message


@given(st.text(max_size=200))
def test_any_text_is_read_or_refused(text):
    try:
        found = read_pasted(text, SHELF)
    except Faults as wrong:
        assert all(f.field == "text" for f in wrong.faults)
    else:
        assert all(line.pct >= 0 for line in found.lines)


@given(st.sampled_from(LIBRARY), st.floats(0.5, 3_000))
def test_cups_and_spoons_come_back_to_the_weight(what, grams):
    """To the quarter that is said: of a cup, of a spoon."""
    said = measured(grams, what)
    if said is None:
        assert bulk_g_ml(what) is None
        return
    unit = {"cup": "cup", "cups": "cup", "tbsp": "spoon", "tsp": "teaspoon"}[said.split()[-1]]
    fraction = {"¼": 0.25, "½": 0.5, "¾": 0.75}
    amount = sum(fraction.get(p) or float(p) for p in said.split()[:-1])
    step = grams_of(0.25, unit, what)
    assert abs(grams_of(amount, unit, what) - grams) <= max(
        step / 2 * 1.001, step if amount == 0.25 else 0
    )
