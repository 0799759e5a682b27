"""The repository keeps its own rules: what a person or a machine will look for is there."""

import ast
import json
import re
import subprocess
import sys
from pathlib import Path

import pytest

from bakehouse import VERSION
from lamination.pieces.cards import CARDS

ROOT = Path(__file__).resolve().parents[2]
README = (ROOT / "README.md").read_text()


def tracked(*patterns):
    names = subprocess.run(
        ["git", "ls-files", "-co", "--exclude-standard", *patterns],
        cwd=ROOT, capture_output=True, text=True, check=True,
    ).stdout.splitlines()  # fmt: skip
    return [ROOT / n for n in names if (ROOT / n).is_file()]


def test_every_link_of_the_readme_leads_somewhere():
    for target in re.findall(r"\]\(([^)#]+)\)", README):
        assert (ROOT / target).exists(), target


def test_every_path_the_readme_names_is_there():
    # The first column of the layout table is a promise to whoever opens the repository.
    for row in re.findall(r"^\| (`.+?) \|", README, re.M):
        folder = ""
        for name in re.findall(r"`([^`]+)`", row):
            if "/" in name:
                folder = name.rsplit("/", 1)[0] + "/"
            path = name if "/" in name else folder + name
            assert (ROOT / path).exists(), path


def test_every_command_the_readme_shows_is_a_target_or_a_management_command():
    makefile = (ROOT / "Makefile").read_text()
    for target in set(re.findall(r"(?:^|`)make ([a-z-]+)", README, re.M)):
        assert re.search(rf"^(?:[a-z-]+ )*{target}(?: [a-z-]+)*:", makefile, re.M), target
    for command in set(re.findall(r"manage\.py ([a-z]+)", README)) - {"createsuperuser"}:
        assert list(ROOT.glob(f"bakehouse/**/management/commands/{command}.py")), command


def test_pictures_are_few_and_all_shown():
    pictures = tracked("docs/screenshots/*.png")
    assert 0 < len(pictures) < 20
    for picture in pictures:
        assert picture.name in README


@pytest.mark.parametrize("lock", sorted((ROOT / "requirements").glob("*.txt")))
def test_python_locks_hold_hashes_and_no_address(lock):
    text = lock.read_text()
    packages = re.findall(r"^[a-z0-9._-]+==", text, re.M)
    assert len(packages) > 10
    assert text.count("--hash=sha256:") >= len(packages)
    assert "://" not in text


def test_the_front_end_s_lock_holds_no_download_address():
    assert '"resolved"' not in (ROOT / "web/package-lock.json").read_text()


def test_no_screen_reaches_outside_the_house():
    outside = re.compile(r"https?://(?!127\.0\.0\.1|localhost|www\.w3\.org)")
    for file in tracked("web/src", "web/index.html", "web/public", "bakehouse"):
        if file.suffix in {".ts", ".tsx", ".css", ".html", ".svg", ".py"}:
            assert not outside.search(file.read_text()), file


def test_the_core_imports_numpy_its_compiler_a_parser_and_the_standard_library_alone():
    may = {*sys.stdlib_module_names, "numpy", "lamination"}
    for module in tracked("lamination"):
        if module.suffix != ".py":
            continue
        for node in ast.walk(ast.parse(module.read_text())):
            names = [a.name for a in node.names] if isinstance(node, ast.Import) else []
            if isinstance(node, ast.ImportFrom):
                names = [node.module or ""] if node.level == 0 else []
            # whoever has loops to compile, or amounts to read, imports what does it when it is first needed
            also = {"compiled.py": {"numba"}, "amounts.py": {"lark"}}.get(module.name, set())
            assert {name.split(".")[0] for name in names} <= may | also, module


def test_what_is_compiled_is_kept_under_a_name_made_from_all_of_it():
    said = (ROOT / "lamination/terms/compiled.py").read_text()
    for module in (ROOT / "lamination").rglob("*.py"):
        if "import compiled" in module.read_text():
            assert f'"{module.relative_to(ROOT / "lamination")}"' in said, module


def test_few_files_lie_flat_in_the_core_and_every_package_has_a_face():
    assert len(list((ROOT / "lamination").glob("*.py"))) <= 3
    for package in (ROOT / "lamination").iterdir():
        if (package / "__init__.py").is_file():
            face = (package / "__init__.py").read_text()
            assert face.startswith('"""')
            assert "__all__" in face, package


def test_there_is_one_version_number():
    said = {
        re.search(r'^version = "(.+)"', (ROOT / "pyproject.toml").read_text(), re.M)[1],
        json.loads((ROOT / "web/package.json").read_text())["version"],
        re.search(r"^## (\S+)", (ROOT / "CHANGELOG.md").read_text(), re.M)[1],
        VERSION,
    }
    assert len(said) == 1, said


def test_every_public_function_of_the_core_says_what_it_does():
    seen = 0
    for module in tracked("lamination/*.py", "lamination/**/*.py"):
        text = module.read_text()
        for found in re.finditer(r"^def ([a-z]\w*)\(.*?:\n(?=\s+(\S.*))", text, re.M | re.S):
            assert found[2].startswith('"""'), f"{module.name}: {found[1]}"
            seen += 1
    assert seen >= 20


def test_every_step_of_a_shaping_card_has_its_drawing_and_no_drawing_is_left_over():
    text = (ROOT / "web/src/finish/shapingDrawings.ts").read_text()
    drawn = set(re.findall(r"^  (\w+): \{", text, re.M))
    assert drawn == {step.drawing for card in CARDS.values() for step in card.steps}
