"""Every word that a baker chooses is explained, once."""

from lamination.steps import KINDS
from lamination.terms import GLOSSARY, Fold, Method


def test_every_kind_of_step_fold_and_lock_in_is_explained_once():
    keys = [term.key for term in GLOSSARY]
    assert len(keys) == len(set(keys))
    wanted = {f"step.{do}" for do in KINDS}
    wanted |= {f"fold.{fold.value}" for fold in Fold} | {f"method.{m.value}" for m in Method}
    assert wanted == {key for key in keys if "." in key}


def test_an_explanation_is_a_sentence_or_two_that_anybody_reads():
    for term in GLOSSARY:
        assert term.says.endswith("."), term.key
        assert 20 < len(term.says) < 220, term.key
        assert bool(term.name) != ("." in term.key), term.key
