"""Fits what the parts of the score of a recipe are worth (tasks/evidence.py), from wordings and the
lists of tasks that are there to develop on.

    python bench/fit_evidence.py [--write] [--confidence] [--sentences N] [--folds N]

Of the wordings of each recipe every N-th is left out in turn. The model of the words is fitted to
the others; each wording that was left out gets made-up values in its places, and the thirty recipes
that the model chooses are filled and rated as at look-up. Fitted is a conditional logit: the right
recipe against the others of its sentence. A line counts as right as well if it comes out the same.
The rows of LISTS are rated by the whole model; they count OF_LISTS times as much.
"""

from __future__ import annotations

import argparse
import json
import re
import zlib
from pathlib import Path

import numpy as np
from fit_tasks import Fitted, effects_of, fit, texts_of
from scipy.optimize import minimize
from sklearn.linear_model import LogisticRegression
from tasks import is_right, steps_of

from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.ingest.upkeep import open_index
from dowsing.knowledge.recipe_terms import packed_row, wording_terms
from dowsing.knowledge.recipes import CONDITIONS, Recipe, own_recipes
from dowsing.knowledge.wordings import read_wordings
from dowsing.machine.settings import read_settings
from dowsing.tasks.choice import MOST_FILTERS, UNKNOWN, Candidate, Choice
from dowsing.tasks.confidence import FILE as CONFIDENCE
from dowsing.tasks.confidence import Confidence, confidence_parts
from dowsing.tasks.evidence import FILE, Evidence, read_weights
from dowsing.tasks.recipe_ranking import Ranked, Rater
from dowsing.tasks.retrieval import MOST_CHOSEN, Corpus, chosen_corpus, ordinary_of
from dowsing.tasks.sentence import ParsedSentence, understand

LISTS = (
    "tasks.jsonl",
    "tasks-dev.jsonl",
    "tasks-held-a.jsonl",
    "tasks-held-b.jsonl",
    "tasks-held-c.jsonl",
    "tasks-composed.jsonl",
)
OF_LISTS = 10.0
MISSING = 6  # every so many-th wording is asked as well as if nothing were known of its command
#: The parts that speak for a recipe; the others speak against it.
FOR = frozenset(("chosen", "covered", "union", "said", "fit", "like", "wanted", "named"))
STRENGTH = 0.02  # of the pull of each weight to where it began
QUERIES = Path(__file__).parent / "queries"
SLOT = re.compile(r"<([a-z][a-z0-9-]*)>")
#: Made-up values by the name, else by the kind, of a slot.
VALUES = {
    "archive": ["plants.tgz", "old-letters.tar.gz", "seeds.tar", "backup-2023.tgz"],
    "folder": ["greenhouse", "letters/2022", "/srv/garden", "~/seeds", "drafts", "./beds"],
    "file": ["beds.txt", "harvest.csv", "letters/rose.md", "/var/log/pump.log", "plan.odt"],
    "path": ["beds/north", "/srv/pumps", "plans.txt", "attic"],
    "target": ["copy-of-beds", "/mnt/spare", "moved.txt", "archive/2021"],
    "copy": ["beds-copy.txt", "spare"],
    "number": ["7", "12", "30"],
    "size": ["10M", "500k", "2G"],
    "duration": ["30 seconds", "5 minutes"],
    "date": ["2024-02-17", "2023-11-05"],
    "time": ["14:30", "08:15"],
    "user": ["fern", "briar", "olm"],
    "group": ["growers", "staff"],
    "host": ["moss", "glass1.example.org", "10.4.0.7"],
    "address": ["10.4.0.7", "192.168.3.9"],
    "port": ["8443", "2200", "9100"],
    "url": ["https://fernhollow.example/list", "http://moss.example/a.iso"],
    "pattern": ["mildew", "pump failed", "aphids"],
    "glob": ["*.csv", "*.jpg", "rose*"],
    "extension": ["csv", "jpg", "md"],
    "word": ["mossback", "tansy", "quillwort"],
    "text": ["mossback", "tansy", "quillwort"],
    "signal": ["HUP", "USR1"],
    "mode": ["750", "u+x"],
    "command": ["./water.sh", "make beds"],
    "message": ["'water the ferns'", "'tidy the beds'"],
    "service": ["pumpd", "mistd", "lampd"],
    "package": ["fernlib", "mosstools"],
    "branch": ["new-beds", "fix-pumps"],
    "program": ["mister", "pumpd"],
    "process": ["mister", "pumpd"],
    "device": ["/dev/sdb1", "/dev/sdc"],
    "days": ["30", "7"],
    "pid": ["4242", "1811"],
    "commit": ["4f2a9c1", "HEAD~3"],
    "remote": ["moss:beds"],
}


def values_in_place(text: str, recipe: Recipe) -> str:
    """A wording with made-up values in its places, each place of a name the same."""
    kinds = {slot.name: slot.kind for slot in recipe.slots}

    def value(match: re.Match[str]) -> str:
        name = match[1]
        choices = VALUES.get(name.rstrip("0123456789")) or VALUES.get(kinds.get(name, ""))
        choices = choices or VALUES["word"]
        return choices[zlib.crc32(f"{text}{name}".encode()) % len(choices)]

    return SLOT.sub(value, text)


class Row:
    """The candidates for a sentence, which of them are right, and how much the row counts."""

    def __init__(self, rated: list[Ranked], right: np.ndarray, counts: float = 1.0) -> None:
        self.rated, self.right, self.counts = rated, right, counts
        self.parts = np.array([parts_of(one) for one in rated])


class Sentences:
    """Makes rows of sentences."""

    def __init__(self, finder: CommandFinder, recipes: list[Recipe]) -> None:
        self.finder, self.recipes = finder, recipes
        self.changes = effects_of(recipes, finder)[1]
        self.filters = [
            n for n, one in enumerate(recipes) if any(s.name == CONDITIONS for s in one.slots)
        ]
        self.tools = frozenset(one.command for one in recipes)

    def corpus(self, fitted: Fitted, texts: list[list[str]], said: ParsedSentence) -> Corpus:
        """The recipes that a model chooses, with the wordings that it knows."""
        scores = fitted.scores_of(said.stems, said.hints)
        beside = fitted.scores_of([one for one in said.stems if one not in said.inside], said.hints)
        chosen = np.argsort(-scores, kind="stable")[:MOST_CHOSEN].tolist()
        if said.inside:
            others = [n for n in self.filters if n not in chosen]
            chosen += sorted(others, key=lambda n: -beside[n])[:MOST_FILTERS]
        candidates = []
        for number in chosen:
            wordings = [" ".join(wording_terms(text)) for text in texts[number]]
            candidates.append(
                Candidate(
                    packed_row(self.recipes[number]),
                    [text for text in dict.fromkeys(wordings) if text],
                    float(scores[number]),
                    self.changes[number],
                    float(beside[number]),
                )
            )
        corpus = Corpus([], "")
        corpus.unknown, corpus.tools = UNKNOWN, self.tools
        telling = -np.log(fitted.share)
        corpus.add_chosen(candidates, dict(zip(fitted.stems, telling.tolist(), strict=True)))
        return corpus

    def row(self, text: str, number: int, fitted: Fitted, texts: list[list[str]]) -> Row | None:
        """The candidates for a wording of a recipe; None if the right one is not among them."""
        sentence = values_in_place(text, self.recipes[number])
        said = understand(sentence, [], ordinary_of(self.finder.store, sentence, []))
        asking = Choice(self.finder.store, [], said.marks)
        rater = Rater(said, self.corpus(fitted, texts, said), self.finder, asking)
        weights = read_weights()
        found = [one for match in rater.matches() if (one := rater.rate(match, weights))]
        line = self.recipes[number].line
        lines = {one.filled.line for one in found if one.filled.recipe.line == line}
        right = np.array([one.filled.line in lines for one in found])
        if not right.any():
            return None
        return Row(found, right)


def parts_of(one: Ranked) -> list[float]:
    """The parts of a score in their order."""
    return [getattr(one.evidence, name) for name in Evidence._fields]


def rows_for(
    sentences: Sentences, texts: list[list[str]], folds: int, most: int
) -> tuple[list[Row], int]:
    """Rows of left out wordings, and the number of those without the right recipe."""
    commands = [one.command for one in sentences.recipes]
    rows: list[Row] = []
    lost = 0
    for fold in range(folds):
        kept = [[t for n, t in enumerate(own) if n % folds != fold or not n] for own in texts]
        fitted = fit(kept, commands)
        asked = [
            (text, number)
            for number, own in enumerate(texts)
            for n, text in enumerate(own)
            if n % folds == fold and n
        ]
        asked.sort(key=lambda pair: zlib.crc32(pair[0].encode()))
        for text, number in asked[: most // folds]:
            row = sentences.row(text, number, fitted, kept)
            if row is None:
                lost += 1
            else:
                rows.append(row)
    return rows, lost


def rows_of_lists(finder: CommandFinder) -> list[Row]:
    """The rows of the lists, rated as a look-up does."""
    found = []
    for name in LISTS:
        for line in (QUERIES / name).read_text("utf-8").splitlines():
            task = json.loads(line)
            say, *again = steps_of(task)
            said = understand(say, again, ordinary_of(finder.store, " ".join([say, *again]), []))
            corpus, choice = chosen_corpus(finder.store, said, [])
            rater = Rater(said, corpus, finder, choice)
            rated = [one for match in rater.matches() if (one := rater.rate(match, read_weights()))]
            lines = [one.filled.line for one in rated]
            right = np.array([is_right(task, text) for text in lines])
            if rated:
                found.append(Row(rated, right, OF_LISTS))
    return found


def loss(weights: np.ndarray, rows: list[Row], begin: np.ndarray) -> tuple[float, np.ndarray]:
    """The loss of the conditional logit, and its slope."""
    total = STRENGTH * len(rows) * float(((weights - begin) ** 2).sum()) / 2
    slope = STRENGTH * len(rows) * (weights - begin)
    for row in rows:
        if not row.right.any():
            continue
        scores = row.parts @ weights
        shares = np.exp(scores - scores.max())
        shares /= shares.sum()
        right = shares * row.right
        total -= row.counts * float(np.log(max(right.sum(), 1e-12)))
        slope -= row.counts * (row.parts.T @ (right / max(right.sum(), 1e-12) - shares))
    return total / len(rows), slope / len(rows)


def rows_of_none(finder: CommandFinder) -> list[Row]:
    """Rows of sentences for which there is no line."""
    found = []
    for sentence in (QUERIES / "tasks-none-dev.txt").read_text("utf-8").splitlines():
        said = understand(sentence, [], ordinary_of(finder.store, sentence, []))
        corpus, choice = chosen_corpus(finder.store, said, [])
        rater = Rater(said, corpus, finder, choice)
        rated = [one for match in rater.matches() if (one := rater.rate(match, read_weights()))]
        if rated:
            found.append(Row(rated, np.zeros(len(rated), dtype=bool), OF_LISTS))
    return found


def without_the_right(row: Row) -> Row | None:
    """A row as it would be if there were no recipe for the command that is right."""
    pairs = zip(row.rated, row.right, strict=True)
    commands = {one.filled.recipe.command for one, is_right in pairs if is_right}
    others = [one for one in row.rated if one.filled.recipe.command not in commands]
    return Row(others, np.zeros(len(others), dtype=bool)) if others else None


def fit_confidence(
    rows: list[Row], weights: np.ndarray
) -> tuple[np.ndarray, list[tuple[float, bool]]]:
    """What the parts of confidence are worth, and for each row what comes out and whether the best
    was right.
    """
    cells, right, counts = [], [], []
    for row in rows:
        order = np.argsort(-(row.parts @ weights), kind="stable")
        ranked = [row.rated[n].changed(score=float(row.parts[n] @ weights)) for n in order]
        parts = confidence_parts(ranked)
        cells.append([getattr(parts, name) for name in Confidence._fields])
        right.append(bool(row.right[order[0]]))
        counts.append(row.counts)
    model = LogisticRegression(C=10.0, fit_intercept=False, max_iter=1000)
    model.fit(np.array(cells), right, sample_weight=counts)
    shares = model.predict_proba(np.array(cells))[:, 1]
    return model.coef_[0], list(zip(shares.tolist(), right, strict=True))


def fitted_to(rows: list[Row], begin: np.ndarray) -> np.ndarray:
    """The weights that fit best, each for or against a recipe as its part is."""
    bounds = [(0, None) if name in FOR else (None, 0) for name in Evidence._fields]
    found = minimize(loss, begin, (rows, begin), jac=True, method="L-BFGS-B", bounds=bounds)
    return np.asarray(found.x)


def first(weights: np.ndarray, rows: list[Row]) -> float:
    """The share of rows whose best candidate is right."""
    return float(np.mean([row.right[int(np.argmax(row.parts @ weights))] for row in rows]))


def main() -> int:
    """Fit, print, and write."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("--write", action="store_true")
    parser.add_argument("--sentences", type=int, default=3000)
    parser.add_argument("--folds", type=int, default=4)
    parser.add_argument("--confidence", action="store_true", help="fit that alone")
    asked = parser.parse_args()
    settings = read_settings()
    finder = CommandFinder(open_index(settings)[0], settings)
    recipes = own_recipes()
    sentences = Sentences(finder, recipes)
    texts = texts_of(recipes, read_wordings())
    rows, lost = rows_for(sentences, texts, asked.folds, asked.sentences)
    listed = rows_of_lists(finder)
    rows += listed
    rows.sort(key=lambda row: zlib.crc32(row.parts.tobytes()))
    begin = np.array([getattr(read_weights(), name) for name in Evidence._fields])
    half = len(rows) // 2
    shares = []
    for train, test in ((rows[:half], rows[half:]), (rows[half:], rows[:half])):
        found = fitted_to(train, begin)
        shares.append((first(begin, test), first(found, test)))
    found = begin if asked.confidence else fitted_to(rows, begin)
    print(f"{len(rows)} sentences, {lost} more without the right recipe among the chosen")
    for before, after in shares:
        print(f"  on the other half: right first {before:.3f} before, {after:.3f} fitted")
    for name, old, new in zip(Evidence._fields, begin, found, strict=True):
        without = found.copy()
        without[Evidence._fields.index(name)] = 0
        print(f"  {name:12} {old:7.2f} -> {new:7.2f}   without it {first(without, rows):.3f}")
    print(f"  all {first(found, rows):.3f}, of the lists {first(found, listed):.3f}")
    none = [one for row in rows[::MISSING] if row.counts == 1 and (one := without_the_right(row))]
    none += rows_of_none(finder)
    likely, shares = fit_confidence(rows + none, found)
    print("  ".join(f"{n} {w:.2f}" for n, w in zip(Confidence._fields, likely, strict=True)))
    for bound in (0.1, 0.15, 0.2, 0.25, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8):
        of_lists = [
            share >= bound
            for (share, right), row in zip(shares, rows + none, strict=True)
            if row.counts == OF_LISTS and right
        ]
        of_none = [
            share < bound
            for (share, _), row in zip(shares, rows + none, strict=True)
            if row.counts == OF_LISTS and not row.right.any()
        ]
        above = [right for share, right in shares if share >= bound]
        print(
            f"  {bound:.2f}: of right tasks kept {np.mean(of_lists):.3f}, of none admitted "
            f"{np.mean(of_none):.3f}, right of what is shown {np.mean(above):.3f}"
        )
    if asked.write:
        write(FILE, Evidence._fields, found)
        write(CONFIDENCE, Confidence._fields, likely)
    return 0


def write(path: str, names: tuple[str, ...], weights: np.ndarray) -> None:
    """Write weights below the head of a file."""
    with open(path, encoding="utf-8") as file:
        head = [line for line in file if line.startswith("#")]
    with open(path, "w", encoding="utf-8") as file:
        file.writelines(head)
        file.writelines(f"{name} = {new:.2f}\n" for name, new in zip(names, weights, strict=True))


if __name__ == "__main__":
    raise SystemExit(main())
