"""Static files, packed at build in both of the ways that browsers unpack."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import brotli  # type: ignore[import-untyped]
from whitenoise.compress import Compressor  # type: ignore[import-untyped]
from whitenoise.storage import CompressedStaticFilesStorage  # type: ignore[import-untyped]

_QUALITY = 9  # the last two steps take ten times as long for a twentieth


class Packer(Compressor):  # type: ignore[misc]
    """Packs a file as well as is worth while."""

    @staticmethod
    def compress_brotli(data: bytes) -> bytes:
        packed: bytes = brotli.compress(data, quality=_QUALITY)
        return packed


class PackedStorage(CompressedStaticFilesStorage):  # type: ignore[misc]
    """Packs what every tablet fetches, and leaves Django's admin as it is: it is hardly ever asked for."""

    def create_compressor(self, **options: Any) -> Packer:
        return Packer(**options)

    def post_process(
        self, paths: dict[str, Any], dry_run: bool = False, **more: Any
    ) -> Iterator[Any]:
        ours = {path: kept for path, kept in paths.items() if not path.startswith("admin/")}
        yield from super().post_process(ours, dry_run, **more)
