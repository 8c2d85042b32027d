"""Fits what the words of a sentence say for each recipe, from the wordings of the recipes alone.

    python bench/fit_tasks.py [--write] [--folds N]

Without --write the figures of a cross-validation are printed: of the wordings of each recipe every
N-th is left out in turn, and the recipe, and its command, are looked for by the others. With it all
wordings are used, and src/dowsing/knowledge/task_choice.pack is written; running it again on the
same recipes gives the same file.

What a stem says for a recipe is the logarithm of how much likelier a wording of that recipe has it
than a wording of any: its own share, some of the share in all wordings of its command, and some of
the shares of stems that stand in wordings of the same recipes (a word for which another stands). A
recipe whose wordings nearly all have a stem loses where that stem is missing. Harm is learned
apart: from all wordings, whether the line destroys or stops something, and whether it changes
anything.
"""

from __future__ import annotations

import argparse
from array import array
from collections import Counter

import numpy as np
from scipy import sparse
from sklearn.linear_model import LogisticRegression

from dowsing.commandline.line import unpick
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.ingest.upkeep import open_index
from dowsing.knowledge.recipes import PART, SLOT, Recipe, own_recipes
from dowsing.knowledge.slot_cues import around, pieces_of, slot_kind, slot_role
from dowsing.knowledge.task_choice import (
    FILE,
    MOST,
    STEP,
    Choice,
    StemWeights,
    pack,
    sentence_marks,
    wording_stems,
)
from dowsing.knowledge.wordings import read_wordings
from dowsing.machine.settings import read_settings
from dowsing.tasks.answers import HARMS
from dowsing.tasks.choice import OF_HINT

OF_COMMAND = 0.25  # how much the share in the wordings of the command counts beside the own
OF_RELATED = 0.2  # and the shares of stems that stand in wordings of the same recipes
MOST_RELATED = 12  # such stems for each
FEW = 3  # wordings that a recipe is taken to have beside its own, with none of its stems
FEW_MISSING = 1  # and for what is missing
OF_MANY = 1.0  # how much it counts that a recipe is asked for in many ways: the usual ones are
MISSING = 0.7  # how much it counts that a stem is missing which most wordings have
SURE = 0.9  # no stem is taken to be in more of the wordings than that
LEAST_RECIPES = 4  # of a command that may have a domain
LIFT = 12  # so much more often than elsewhere a stem of a domain stands in its wordings
MOST_OF_DOMAIN = 10  # stems
COVERED = 0.85  # of the wordings have one of them
LEAST = 0.3  # weights below are left out
RARE = 1e-5  # added to the share of a stem in all wordings


class Fitted:
    """The fitted shares. `weights` is recipes by stems, `offsets` by recipe."""

    def __init__(
        self,
        stems: list[str],
        weights: sparse.csr_matrix,
        offsets: np.ndarray,
        share: np.ndarray,
        domains: dict[str, list[str]],
    ) -> None:
        self.stems, self.weights, self.offsets, self.share = stems, weights, offsets, share
        self.domains = domains  # by command
        self.numbers = {one: n for n, one in enumerate(stems)}

    def scores(self, text: str) -> np.ndarray:
        """What a text says for each recipe."""
        return self.scores_of(wording_stems(text), frozenset())

    def scores_of(self, stems: list[str], hints: frozenset[str]) -> np.ndarray:
        """What the stems of a sentence say for each recipe, as a look-up counts them."""
        known = [self.numbers[one] for one in stems if one in self.numbers and one not in hints]
        found = self.offsets + np.asarray(self.weights[:, known].sum(axis=1)).ravel()
        hinted = [self.numbers[one] for one in sorted(hints) if one in self.numbers]
        if hinted:
            found += OF_HINT * self.weights[:, hinted].max(axis=1).toarray().ravel()
        return found


def texts_of(recipes: list[Recipe], wordings: dict[str, list[str]]) -> list[list[str]]:
    """All that is known of how people ask for each recipe."""
    return [[one.task, *one.also, *wordings.get(one.line, [])] for one in recipes]


def fit(texts: list[list[str]], commands: list[str]) -> Fitted:
    """The weights for recipes with these texts and commands."""
    rows = [[wording_stems(text) for text in own] for own in texts]
    stems = sorted({stem for own in rows for text in own for stem in text})
    numbers = {stem: n for n, stem in enumerate(stems)}
    counts = [Counter(numbers[stem] for text in own for stem in text) for own in rows]
    sizes = np.array([max(len(own), 1) for own in rows], dtype=float)
    total = sparse.csr_matrix(
        (
            [float(much) for count in counts for much in count.values()],
            (
                [n for n, count in enumerate(counts) for _ in count],
                [number for count in counts for number in count],
            ),
        ),
        shape=(len(rows), len(stems)),
    )
    share = np.asarray(total.sum(axis=0)).ravel() / sizes.sum() + RARE
    own = sparse.diags(1 / (sizes + FEW)) @ total
    names = sorted(set(commands))
    places = [names.index(command) for command in commands]
    member = sparse.csr_matrix(
        (np.ones(len(rows)), (places, np.arange(len(rows)))), shape=(len(names), len(rows))
    )
    of_command = sparse.diags(1 / (member @ sizes)) @ (member @ total)
    mixed = own + OF_COMMAND * of_command.tocsr()[places] + OF_RELATED * (own @ related(own))
    weights = (mixed.tocsr() @ sparse.diags(1 / share)).tocsr()
    weights.data = np.log1p(weights.data)
    absent = (sparse.diags(1 / (sizes + FEW_MISSING)) @ total).tocsr()
    absent.data = -MISSING * np.log1p(-np.minimum(absent.data, SURE))
    weights = (weights + absent).tocsr()
    offsets = OF_MANY * np.log(sizes) - np.asarray(absent.sum(axis=1)).ravel()
    domains: dict[str, list[str]] = {}
    numbered = [[{numbers[stem] for stem in text} for text in own_rows] for own_rows in rows]
    for command in names:
        members = [n for n, one in enumerate(commands) if one == command]
        domain = domain_of(numbered, members, share)
        if domain:
            domains[command] = [stems[number] for number in domain]
    return Fitted(stems, weights.tocsr(), offsets, share, domains)


def domain_of(rows: list[list[set[int]]], members: list[int], share: np.ndarray) -> list[int]:
    """The stems of which nearly all wordings of a command have one, and few others do: `docker`,
    `container`, `image`. [] if there are no such.
    """
    wordings = [text for n in members for text in rows[n]]
    if len(members) < LEAST_RECIPES:
        return []
    counts = Counter(one for text in wordings for one in text)
    names = [one for one, much in counts.items() if much > LIFT * share[one] * len(wordings)]
    found: list[int] = []
    left = wordings
    while left and len(found) < MOST_OF_DOMAIN:
        best = max(names, key=lambda one: (sum(one in text for text in left), -one), default=None)
        if best is None or not any(best in text for text in left):
            break
        found.append(best)
        left = [text for text in left if best not in text]
    return found if len(left) <= (1 - COVERED) * len(wordings) else []


def related(own: sparse.csr_matrix) -> sparse.csr_matrix:
    """How much each stem stands for each other: the cosine of their shares in the recipes, of the
    nearest.
    """
    norms = np.sqrt(np.asarray(own.multiply(own).sum(axis=0)).ravel())
    scale = sparse.diags(1 / np.maximum(norms, 1e-9))
    found = (scale @ (own.T @ own) @ scale).tocsr()
    found.setdiag(0)
    found.eliminate_zeros()
    for n in range(found.shape[0]):
        row = found.data[found.indptr[n] : found.indptr[n + 1]]
        if len(row) > MOST_RELATED:
            row[row < np.partition(row, -MOST_RELATED)[-MOST_RELATED]] = 0
    found.eliminate_zeros()
    return found


def effects_of(recipes: list[Recipe], finder: CommandFinder) -> tuple[list[bool], list[bool]]:
    """Whether the line of each recipe destroys or stops something, and whether it changes
    anything: as it says itself, else by the effects of its line.
    """
    harms, changes = [], []
    for one in recipes:
        line = SLOT.sub("x", PART.sub("", one.line))
        kinds = {effect.kind for effect in unpick(line, finder).changes}
        harms.append(bool(kinds & HARMS))
        changes.append(bool(kinds) if not one.changes else one.changes != "nothing")
    return harms, changes


def fit_asking(texts: list[list[str]], does: list[bool]) -> tuple[dict[str, float], float]:
    """What each mark of a sentence says for lines that do something, and what is so without any, in
    log odds.
    """
    rows = [
        (sentence_marks(text), one) for own, one in zip(texts, does, strict=True) for text in own
    ]
    counts = Counter(mark for row, _ in rows for mark in row)
    marks = sorted(mark for mark, count in counts.items() if count > 2)
    numbers = {mark: n for n, mark in enumerate(marks)}
    cells = [
        (n, numbers[mark]) for n, (row, _) in enumerate(rows) for mark in row if mark in numbers
    ]
    matrix = sparse.csr_matrix(
        (np.ones(len(cells)), tuple(zip(*cells, strict=True))), shape=(len(rows), len(marks))
    )
    model = LogisticRegression(C=1.0, max_iter=400, solver="liblinear", random_state=0)
    model.fit(matrix, [one for _, one in rows])
    return dict(zip(marks, model.coef_[0], strict=True)), float(model.intercept_[0])


def choice_of(
    recipes: list[Recipe], texts: list[list[str]], harms: list[bool], changes: list[bool]
) -> Choice:
    """The model as look-ups read it."""
    fitted = fit(texts, [one.command for one in recipes])
    for_harm, harm = fit_asking(texts, harms)
    for_change, change = fit_asking(texts, changes)
    columns = fitted.weights.tocsc()
    stems = {}
    for n, name in enumerate(fitted.stems):
        column = slice(columns.indptr[n], columns.indptr[n + 1])
        kept = [
            (int(number), min(MOST, round(float(much) / STEP)))
            for number, much in zip(columns.indices[column], columns.data[column], strict=True)
            if much >= LEAST
        ]
        kept.sort()
        stems[name] = StemWeights(
            float(-np.log(fitted.share[n])),
            float(for_harm.get(name, 0.0)),
            float(for_change.get(name, 0.0)),
            array("H", [number for number, _ in kept]),
            bytes(steps for _, steps in kept),
        )
    for name in sorted(set(for_change) - set(stems)):
        stems[name] = StemWeights(0.0, for_harm[name], for_change[name], array("H"), b"")
    offsets = [float(one) for one in fitted.offsets]
    cues = fit_cues([text for own in texts for text in own])
    return Choice(
        [one.line for one in recipes],
        offsets,
        harm,
        change,
        [number for number, does in enumerate(changes) if does],
        stems,
        cues,
        fitted.domains,
    )


def fit_cues(texts: list[str]) -> dict[str, dict[str, float]]:
    """What the words around a place say for each slot: how much likelier they are there than around
    any other word (log odds), of those that were seen more than once.
    """
    beside: dict[str, Counter[str]] = {}
    others: Counter[str] = Counter()
    for text in texts:
        words = [word for word, _, _ in pieces_of(text)]
        for n, word in enumerate(words):
            if word[0] == "<":
                for slot in (slot_kind(word[1:-1]), slot_role(word[1:-1])):
                    beside.setdefault(slot, Counter()).update(around(words, n, n))
            else:
                others.update(around(words, n, n))
    whole = others.total() / 4
    found = {}
    for slot, counts in sorted(beside.items()):
        places = counts.total() / 4
        found[slot] = {
            cue: round(
                float(np.log((much + 0.3) / (places + 3) * (whole + 10) / (others[cue] + 1))), 1
            )
            for cue, much in sorted(counts.items())
            if much > 1
        }
    return found


def validate(recipes: list[Recipe], texts: list[list[str]], folds: int) -> None:
    """Print the shares of left out wordings whose recipe, and command, is found."""
    commands = [one.command for one in recipes]
    first = three = thirty = command = asked = 0
    for fold in range(folds):
        kept = [[t for n, t in enumerate(own) if n % folds != fold or not n] for own in texts]
        fitted = fit(kept, commands)
        for number, own in enumerate(texts):
            for n, text in enumerate(own):
                if n % folds != fold or not n:
                    continue
                order = np.argsort(-fitted.scores(text), kind="stable")[:30]
                asked += 1
                first += order[0] == number
                three += number in order[:3]
                thirty += number in order
                command += commands[order[0]] == commands[number]
        print(
            f"after fold {fold + 1}: {asked} wordings, recipe first {first / asked:.3f}, among "
            f"three {three / asked:.3f}, among thirty {thirty / asked:.3f}, command first "
            f"{command / asked:.3f}",
            flush=True,
        )


def main() -> int:
    """Validate, or fit and write."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("--write", action="store_true")
    parser.add_argument("--folds", type=int, default=5)
    asked = parser.parse_args()
    recipes = own_recipes()
    texts = texts_of(recipes, read_wordings())
    if not asked.write:
        validate(recipes, texts, asked.folds)
        return 0
    settings = read_settings()
    harms, changes = effects_of(recipes, CommandFinder(open_index(settings)[0], settings))
    data = pack(choice_of(recipes, texts, harms, changes))
    with open(FILE, "wb") as file:
        file.write(data)
    print(
        f"{len(recipes)} recipes, {sum(map(len, texts))} wordings, {sum(harms)} recipes that do "
        f"harm, {sum(changes)} that change anything; {len(data)} bytes"
    )
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
