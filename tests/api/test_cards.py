"""A baker's own shaping cards over the API: pictures of their steps, and cards as files."""

import io
import json

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image

from bakehouse.kitchen.models import CardPicture

GATE = {"key": "gate", "name": "Lock gate", "steps": ["Fold it.", "Press the ends."]}


def photographed(size=(1200, 800), colour=(200, 150, 90)):
    out = io.BytesIO()
    Image.new("RGB", size, colour).save(out, "JPEG")
    return out.getvalue()


def with_picture(content):
    """A card's file whose first step shows something."""
    card = GATE | {"pictures": [{"step": 0, "picture": "x"}]}
    return json.dumps(
        {"format": "eight-turn/card", "card": card, "pictures": {"x": content}}
    ).encode()


def send(tablet, path, content, name="gate.jpg"):
    return tablet.post(f"/api/cards/{path}", {"file": SimpleUploadedFile(name, content)})


def keep(head, *cards):
    now = head.call("GET", "/kitchen")
    return {"revision": now["revision"], "yours": {}, "ingredients": [], "cards": list(cards)}


@pytest.fixture
def gate(head):
    """A card whose second step has a picture."""
    key = send(head, "pictures", photographed()).json()["picture"]
    card = GATE | {"pictures": [{"step": 1, "picture": key}]}
    head.call("PUT", "/kitchen", keep(head, card))
    return card


def test_a_picture_of_a_step_is_made_small_and_seen_by_everybody(head, hand, gate):
    (shown,) = head.call("GET", "/kitchen")["cards"][0]["pictures"]
    assert shown == gate["pictures"][0]
    seen = hand.get(f"/api/cards/pictures/{shown['picture']}.jpg")
    assert seen["Content-Type"] == "image/jpeg"
    assert max(Image.open(io.BytesIO(seen.content)).size) == 640
    # the same picture is kept once
    again = send(head, "pictures", photographed()).json()
    assert again["picture"] == shown["picture"]
    assert CardPicture.objects.count() == 1


def test_a_card_cannot_show_what_nobody_sent_nor_a_step_it_has_not(head, gate):
    nowhere = GATE | {"pictures": [{"step": 0, "picture": "none"}]}
    faults = head.faults("PUT", "/kitchen", keep(head, nowhere))
    assert set(faults) == {"cards[0].pictures[0].picture"}
    late = gate | {"pictures": [{"step": 2, "picture": gate["pictures"][0]["picture"]}]}
    assert set(head.faults("PUT", "/kitchen", keep(head, late))) == {"cards[0].pictures[0].step"}
    assert head.call("GET", "/kitchen")["cards"][0]["pictures"] == gate["pictures"]


def test_a_card_goes_to_another_house_as_a_file_with_its_pictures(head, gate):
    out = head.get("/api/cards/gate/file")
    assert out["Content-Disposition"].endswith('lock-gate.card.json"')
    CardPicture.objects.all().delete()
    card = send(head, "file", out.content, "gate.json").json()
    assert card["name"] == "Lock gate"
    assert card["steps"] == GATE["steps"]
    (shown,) = card["pictures"]
    assert shown["step"] == 1
    assert head.get(f"/api/cards/pictures/{shown['picture']}.jpg").status_code == 200
    assert head.get("/api/cards/nobody/file").status_code == 404


def test_a_whole_kitchen_takes_the_pictures_of_its_cards_along(head, gate):
    out = head.get("/api/kitchen/file").content
    CardPicture.objects.all().delete()
    head.call("PUT", "/kitchen", keep(head))
    back = head.post("/api/kitchen/file", {"file": SimpleUploadedFile("k.json", out)}).json()
    (shown,) = back["cards"][0]["pictures"]
    assert head.get(f"/api/cards/pictures/{shown['picture']}.jpg").status_code == 200


@pytest.mark.parametrize(
    ("content", "field"),
    [
        (b"{", ""),
        (b"[]", ""),
        (b'{"format": "eight-turn/plan"}', "format"),
        (b'{"format": "eight-turn/card", "card": {"key": "a", "name": "A", "steps": []}}', "steps"),
        (with_picture("not base64"), "pictures.x"),
        (with_picture("R0lGODlh"), "pictures.x"),  # another kind of file
        (with_picture("Kältewelle"), "pictures.x"),
    ],
)
def test_what_is_no_card_is_refused_in_words(head, content, field):
    answer = send(head, "file", content, "card.json")
    assert answer.status_code == 422
    assert answer.json()["faults"][0]["field"] == field


def test_what_is_no_picture_is_refused_and_only_the_head_makes_cards(head, hand):
    assert send(head, "pictures", b"GIF89a").status_code == 422
    assert send(hand, "pictures", photographed()).status_code == 403
    assert head.get("/api/cards/pictures/none.jpg").status_code == 404
