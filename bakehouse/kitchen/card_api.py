"""Shaping cards of one's own over the API: their pictures, and cards as files."""

from __future__ import annotations

from dataclasses import dataclass

from django.http import Http404, HttpRequest, HttpResponse
from ninja import File, Router
from ninja.files import UploadedFile

from bakehouse.documents import as_download
from bakehouse.kitchen.card_files import (
    LARGEST_FILE,
    card_file,
    keep_picture,
    read_card_file,
)
from bakehouse.kitchen.models import CardPicture
from bakehouse.kitchen.shelf import the_kitchen
from bakehouse.people.roles import head_only, signed_in
from bakehouse.pictures import LARGEST_FILE as LARGEST_PICTURE
from lamination.kitchen import OwnCard
from lamination.terms import Fault, Faults

router = Router(tags=["kitchen"])


@dataclass
class KeptPicture:
    """The name a picture is kept under."""

    picture: str


@router.post("/cards/pictures", auth=head_only, response=KeptPicture)
def add_picture(request: HttpRequest, file: File[UploadedFile]) -> KeptPicture:
    """Keep a picture of a step; a card shows it once it names it."""
    if (file.size or 0) > LARGEST_PICTURE:
        raise Faults(Fault("file", "This picture is larger than 15 MB. Make it smaller first."))
    return KeptPicture(keep_picture(file.read()))


@router.get("/cards/pictures/{key}.jpg", auth=signed_in)
def picture(request: HttpRequest, key: str) -> HttpResponse:
    found = CardPicture.objects.filter(key=key).first()
    if found is None:
        raise Http404("There is no such picture.")
    answer = HttpResponse(bytes(found.jpeg), content_type="image/jpeg")
    # its name is the sum of its bytes: it never changes
    answer["Cache-Control"] = "private, max-age=31536000, immutable"
    return answer


@router.get("/cards/{key}/file", auth=signed_in)
def download_card(request: HttpRequest, key: str) -> HttpResponse:
    """A card as a file, its pictures in it."""
    card = next((c for c in the_kitchen().cards if c.key == key), None)
    if card is None:
        raise Http404("There is no such card.")
    return as_download(card_file(card), "application/json", card.name, "card.json")


@router.post("/cards/file", auth=head_only, response=OwnCard)
def upload_card(request: HttpRequest, file: File[UploadedFile]) -> OwnCard:
    """Read a card from a file, to be put among one's own."""
    if (file.size or 0) > LARGEST_FILE:
        raise Faults(Fault("", "This file is too large to be a shaping card."))
    return read_card_file(file.read())
