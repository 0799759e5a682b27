"""Other people's lists of ingredients, read into a formula; and what cups and spoons weigh."""

from dataclasses import replace

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
        ("10 g unsalted butter", "butter-table", 10),
        ("500g/1lb 2oz strong white flour, plus extra for dusting", "flour-strong", 500),
        ("1,000 g flour", "flour-medium", 1000),
        ("1 000 g water", "water", 1000),
        ("1,250 kg rye flour", "flour-rye", 1250),
        ("3-1/2 cups milk", "milk-whole", 852.9),
        ("1 lb 2 oz sugar", "sugar", 510.3),
        ("1 cup + 1 tbsp milk", "milk-whole", 258.9),
        ("20 g fresh yeast / 7 g instant", "yeast-fresh", 20),
        ("100 g almond flour", "almond", 100),
        ("2 egg whites", "egg-white", 64),
        ("2 x 250 g butter", "butter-table", 500),
        ("1 envelope (1/4 oz) active dry yeast", "yeast-dry", 7.09),
        ("260 ml/9 fl oz lukewarm water (about 40°C)", "water", 260),
        ("butter (82% fat), 280 g", "butter-table", 280),
        ("500 g T55 flour", "flour-medium", 500),
        ("half a kilo of bread flour", "flour-strong", 500),
        ("two eggs", "egg-whole", 100),
        ("water 310 g (62%)", "water", 310),
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
        ("salt to taste", "No amount"),
        ("250 g buttermilk", "Nothing on the shelf"),
        ("1 tsp zest of a lime", "Nothing on the shelf"),
        ("4 butter", "How much one of it weighs"),
        ("1/0 cup water", "not a number"),
        ("1 egg + 1 yolk", "line of its own"),
        ("1 egg, beaten, for the wash", "not of the dough"),
        ("Flour for dusting", "not of the dough"),
    ],
)
def test_what_is_not_understood_is_said_and_why(line, why):
    found = read_pasted(FLOUR + line, SHELF)
    assert [m.text for m in found.missed] == [line]
    assert why in found.missed[0].why


@pytest.mark.parametrize(
    ("line", "asks", "would_be"),
    [
        ("200 ml oat milk", "“oat”", "milk-whole"),
        ("250 g peanut butter", "“peanut”", "butter-table"),
        ("100 g corn flour", "“corn”", "flour-medium"),
        ("1.000 g flour", "1000 or 1", "flour-medium"),
        ("2 cups (500 g) flour", "Two amounts", "flour-medium"),
        ("100 g / 8 oz sugar", "Two amounts", "sugar"),
        ("2 tsp kosher salt", "Coarse salt", "salt"),
        ("30 g salted butter", "salt of its own", "butter-table"),
        ("250 g 2% milk", "how much fat", "milk-whole"),
    ],
)
def test_what_is_not_certain_is_asked_and_stays_out_until_it_is_answered(line, asks, would_be):
    found = read_pasted(FLOUR + line, SHELF)
    (asked,) = found.asked
    assert asks in plain(asked.asks)
    assert (asked.number, asked.reading.ingredient) == (1, would_be)
    assert len(found.read) == 1
    answered = read_pasted(FLOUR + line, SHELF, [1])
    assert answered.asked == ()
    assert answered.read[1] == asked.reading


def test_the_bakery_s_own_ingredient_counts_by_its_own_name():
    oats = replace(SHELF["milk-whole"], key="own-oat", name="Oat milk", also=())
    found = read_pasted(FLOUR + "200 ml oat milk", Shelf([oats]))
    assert found.read[1].ingredient == "own-oat"


# Lists as people write them: what each comes to (g of each ingredient), the butter of the block, how many of
# its lines are asked and how many stay out.
LISTS = {
    "a book in two systems": (
        """500g/1lb 2oz strong white flour, plus extra for dusting
        1½ tsp fine salt
        80 g/2¾oz caster sugar
        10g fast-action dried yeast
        300ml/10fl oz cool water
        300g/10½oz unsalted butter, chilled, for laminating
        1 egg, beaten, to glaze""",
        {"flour-strong": 500, "salt": 9, "sugar": 80, "yeast-instant": 10, "water": 300}, 300, 0, 1,
    ),
    "cups and sticks under headings": (
        """For the dough:
        4 cups (500 g) all-purpose flour
        1/3 cup granulated sugar
        2 1/4 tsp instant yeast
        2 tsp kosher salt
        1 1/4 cups (300ml) cold whole milk
        4 tbsp (57 g) unsalted butter, softened

        For the butter block:
        1 1/4 cups (2 1/2 sticks / 283 g) European-style butter, cold

        Egg wash
        1 egg
        1 tbsp milk""",
        {"flour-medium": 500, "sugar": 67, "yeast-instant": 7, "milk-whole": 305, "butter-table": 57},
        283, 1, 2,
    ),
    "a bakery's sheet": (
        "Flour T55 10 kg\nWater 5,2 kg\nSalt 200 g\nSugar 1.1 kg\nFresh yeast 350 g\n"
        "Butter (dough) 0.6 kg\nButter (roll-in) 2,7 kg",
        {"flour-medium": 10000, "water": 5200, "salt": 200, "sugar": 1100, "yeast-fresh": 350,
         "butter-table": 600}, 2700, 0, 0,
    ),
    "per cent": (
        "Bread flour 100%\nWater 36%\nMilk 18%\nSalt 2 percent\nButter for laminating 27%",
        {"flour-strong": 100, "water": 36, "milk-whole": 18, "salt": 2}, 27, 0, 0,
    ),
    "a poolish apart": (
        """Poolish
        100 g bread flour
        100 g water
        0.1 g instant yeast
        Final dough
        400 g bread flour
        160 g milk
        9 g salt
        Lamination
        250 g laminating butter""",
        {"flour-strong": 500, "water": 100, "yeast-instant": 0, "milk-whole": 160, "salt": 9}, 250, 0, 0,
    ),
    "dashes and remarks": (
        """- 250 g plain flour
        - 3-1/2 tbsp cold butter - cubed
        - a pinch of salt
        • 125 ml iced water
        * 200g butter (at least 82% fat), at room temperature""",
        {"flour-medium": 250, "butter-table": 250, "salt": 0, "water": 125}, 0, 0, 0,
    ),
    "one or the other": (
        "500 g flour\n20 g fresh yeast / 7 g instant\n200 ml milk or oat milk\n100 g sugar",
        {"flour-medium": 500, "yeast-fresh": 20, "milk-whole": 206, "sugar": 100}, 0, 0, 0,
    ),
    "nothing of an animal": (
        "500 g bread flour\n300 ml oat milk\n50 g coconut sugar\n250 g vegan butter block",
        {"flour-strong": 500}, 0, 3, 0,
    ),
    "two things in a line": (
        "500 g flour\n2 eggs + 1 yolk\n100 g milk", {"flour-medium": 500, "milk-whole": 100}, 0, 0, 1,
    ),
    "another tongue": (
        "500 gr. flour\n0,25 l milk\n1 Prise salt\n1 packet (7 g) dry yeast\n1 egg (size M)",
        {"flour-medium": 500, "milk-whole": 258, "yeast-dry": 7, "egg-whole": 50}, 0, 0, 1,
    ),
    "ounces": (
        """1 lb 2 oz bread flour
        9 fl oz milk
        2 oz. sugar
        1 stick butter, for the dough
        2 sticks butter, to laminate
        1 envelope (1/4 oz) active dry yeast""",
        {"flour-strong": 510, "milk-whole": 274, "sugar": 57, "butter-table": 113, "yeast-dry": 7},
        227, 0, 0,
    ),
    "filling and glaze": (
        """INGREDIENTS
        450 g strong flour
        50 g rye flour
        FILLING
        100 g chocolate
        GLAZE:
        1 egg yolk
        2 tbsp cream""",
        {"flour-strong": 450, "flour-rye": 50}, 0, 0, 3,
    ),
    "a point for thousands": (
        "1.000 g flour\n500 g bread flour\n520 g water", {"flour-strong": 500, "water": 520}, 0, 1, 0,
    ),
    "amounts that disagree": (
        "2 cups (500 g) flour\n300 g bread flour\n1 cup (237 ml) milk\n100 g / 8 oz sugar",
        {"flour-strong": 300, "milk-whole": 244}, 0, 2, 0,
    ),
    "what is not on the shelf": (
        "400 g flour\n100 g almond flour\n2 egg whites\n1 vanilla pod\n5 g baking powder",
        {"flour-medium": 400, "almond": 100, "egg-white": 64}, 0, 0, 2,
    ),
    "shares and a total": (
        "500 g flour (100%)\n300 g water (60%)\nabout 10 g salt\n15-20 g fresh yeast\ntotal 825 g",
        {"flour-medium": 500, "water": 300, "salt": 10, "yeast-fresh": 18}, 0, 0, 1,
    ),
    "temperatures": (
        "500 g flour, 4 °C\n260 g water at 2-4°C\n10 g salt\nbutter 280 g (14 °C)",
        {"flour-medium": 500, "water": 260, "salt": 10, "butter-table": 280}, 0, 0, 0,
    ),
    "old dough": (
        "1 kg old dough\n500 g flour\n250 g water", {"flour-medium": 500, "water": 250}, 0, 0, 1,
    ),
    "as one says it": (
        "half a kilo of bread flour\na cup of milk\ntwo eggs\nhalf a teaspoon salt\nsalt to taste",
        {"flour-strong": 500, "milk-whole": 244, "egg-whole": 100, "salt": 3}, 0, 0, 1,
    ),
    "dusting does not end the dough": (
        "500 g flour\nFlour for dusting\n260 g water\n280 g butter, for the block",
        {"flour-medium": 500, "water": 260}, 280, 0, 1,
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", LISTS)
def test_no_line_of_a_list_is_read_wrong_in_silence(name):
    text, dough, block_g, asked, missed = LISTS[name]
    found = read_pasted(text, SHELF)
    sums = {}
    for line in found.read:
        if not line.in_block:
            sums[line.ingredient] = sums.get(line.ingredient, 0) + line.grams
    assert sums == pytest.approx(dough, abs=0.5)
    assert found.block_g == pytest.approx(block_g, abs=0.5)
    assert (len(found.asked), len(found.missed)) == (asked, missed)


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
