"""The layout of the index file."""

from __future__ import annotations

from enum import StrEnum


class Meta(StrEnum):
    """The values that the index keeps beside its entries. Recipes and examples are packed
    (knowledge/recipe_terms.py).
    """

    ROOTS = "roots"  # manual folders, one a line; the place of one that is no more is empty
    BUILT = "built"  # seconds since 1970
    PAGES = "pages"
    CONVENTIONS = "conventions"  # JSON
    RECIPES = "recipes"
    RECIPE_ROWS = "recipes rows"
    EXAMPLES = "examples"
    EXAMPLE_ROWS = "examples rows"
    PHRASES = "phrases"  # JSON: the phrases of each label (knowledge/page_phrases.py)
    SPECIAL_LABELS = "special labels"  # JSON: those whose phrases count less
    COMMAND_TASKS = "command tasks"  # JSON: the tasks of the recipes of each command
    TASK_TERMS = "task terms"  # JSON: the stems of the wordings of the recipes of each command
    ORDINARY_WORDS = "ordinary words"
    NEVER_NAMES = "never names"
    SPELLINGS = "spellings"  # words of wordings with how often they stand there, one a line
    TASK_HARM = "task harm"  # log odds that a task does harm, before its words are looked at
    TASK_CHANGE = "task change"  # and that it changes anything
    DEPTH = "depth"  # a Depth
    BEGUN = "begun"  # what a build that is not ended yet is made of, as a mark


class Depth(StrEnum):
    """How much of the pages an index has: what they are found by, or everything."""

    HEADS = "heads"
    WHOLE = "whole"


#: Begins the name of a row of task_cues that has the domain of a command, and no slot's cues.
DOMAIN = "#"

#: Values of `hidden` of an entry: its page is gone; another of its name and section comes before it
#: in the order in which the index knows the manual folders.
GONE, SHADOWED = 1, 2
#: The `place` of an entry that has no page; that of others is the number of their manual folder.
NOWHERE = -1

#: Changed with every change of the layout or of what is read out of pages. It stands in the name of
#: the file, so that two versions of the program have an index each, and within it (`user_version`).
VERSION = 59

# The fields that a term of an entry may stand in, as bits of one byte, in parts.
#: Parts. The texts of a term that very many entries have in their heads, and those of the members
#: of a very large family, are a part of their own: ranking does without.
HEADS, TEXT, COMMON_TEXT = 0, 1, 2

# Fields of the heads.
WHOLE_NAME, IN_NAME, IN_ALIAS, IN_SUMMARY, IS_MEANING, IN_TASK, IN_LABEL = 1, 2, 4, 8, 16, 32, 64
# Fields of the text.
IN_LEAD, IS_FLAG, IN_OPTION, IN_HEADING = 1, 2, 4, 8
#: The fields of each part by name; what each is worth has the same name (see search/weights.py).
HEAD_FIELDS = {
    "whole_name": WHOLE_NAME, "in_name": IN_NAME, "in_alias": IN_ALIAS, "in_summary": IN_SUMMARY,
    "is_meaning": IS_MEANING, "in_task": IN_TASK, "in_label": IN_LABEL,
}  # fmt: skip
TEXT_FIELDS = {
    "in_lead": IN_LEAD,
    "is_flag": IS_FLAG,
    "in_option": IN_OPTION,
    "in_heading": IN_HEADING,
}

#: Static ranks are kept as whole numbers from 0 to 255; so many are one unit of a score.
UNIT = 16
MIDDLE = 160

TABLES = f"""
PRAGMA user_version = {VERSION};
CREATE TABLE meta(key TEXT PRIMARY KEY, value TEXT) WITHOUT ROWID;
CREATE TABLE command_facts(words TEXT PRIMARY KEY, facts TEXT) WITHOUT ROWID;
CREATE TABLE orders(roots TEXT PRIMARY KEY, raised BLOB, lowered BLOB) WITHOUT ROWID;
CREATE TABLE folders(path TEXT PRIMARY KEY, modified INTEGER, kind TEXT) WITHOUT ROWID;
CREATE TABLE files(
    path TEXT PRIMARY KEY,
    folder TEXT,
    modified INTEGER,
    size INTEGER,
    entry INTEGER,
    problem TEXT
) WITHOUT ROWID;
CREATE TABLE entries(
    id INTEGER PRIMARY KEY,
    name TEXT,
    section TEXT,
    aliases TEXT,
    kind TEXT,
    summary TEXT,
    package TEXT,
    family TEXT,
    path TEXT,
    place INTEGER,
    hidden INTEGER DEFAULT 0,
    verbs TEXT,
    nouns TEXT
);
CREATE TABLE names(key TEXT, name TEXT, section TEXT, entry INTEGER, alias INTEGER);
CREATE TABLE shell_names(
    shell TEXT,
    path TEXT,
    name TEXT,
    kind TEXT,
    summary TEXT,
    text TEXT,
    manual TEXT
);
CREATE TABLE programs(path TEXT PRIMARY KEY, package TEXT) WITHOUT ROWID;
CREATE TABLE info_names(name TEXT, path TEXT, manual TEXT, node TEXT, rank INTEGER);
CREATE TABLE postings(term TEXT, part INTEGER, spread REAL, entries BLOB, fields BLOB);
CREATE TABLE doings(kind TEXT, word TEXT, entries BLOB, places BLOB);
CREATE TABLE defined(name TEXT, entry INTEGER, tag TEXT, says TEXT);
CREATE TABLE cards(entry INTEGER PRIMARY KEY, facts BLOB);
CREATE TABLE static_ranks(first INTEGER, marks BLOB, families BLOB, weight REAL);
CREATE TABLE options(entry INTEGER PRIMARY KEY, lines TEXT, command BLOB);
CREATE TABLE said(
    entry INTEGER PRIMARY KEY,
    terms TEXT,
    tasks TEXT,
    task_terms TEXT,
    special INTEGER
);
CREATE TABLE words(word TEXT PRIMARY KEY, term TEXT, count INTEGER) WITHOUT ROWID;
CREATE TABLE related(term TEXT, other TEXT, weight REAL);
CREATE TABLE meanings(kind TEXT, word TEXT, term TEXT, head TEXT);
CREATE TABLE task_stems(
    stem TEXT PRIMARY KEY,
    harm REAL,
    change REAL,
    numbers BLOB,
    steps BLOB
) WITHOUT ROWID;
CREATE TABLE task_recipes(
    number INTEGER PRIMARY KEY,
    recipe TEXT,
    wordings TEXT,
    changing INTEGER
);
CREATE TABLE task_starts(
    number INTEGER PRIMARY KEY,
    start REAL,
    filters INTEGER,
    command TEXT
);
CREATE TABLE task_telling(stem TEXT PRIMARY KEY, telling REAL) WITHOUT ROWID;
CREATE TABLE task_cues(slot TEXT PRIMARY KEY, cues TEXT) WITHOUT ROWID;
CREATE TABLE additions(command TEXT PRIMARY KEY, rows TEXT) WITHOUT ROWID;
CREATE TABLE addition_stems(stem TEXT PRIMARY KEY, telling REAL) WITHOUT ROWID;
CREATE TABLE absent(
    name TEXT PRIMARY KEY,
    section TEXT,
    package TEXT,
    does TEXT,
    usual TEXT
) WITHOUT ROWID;
CREATE TABLE absent_phrases(number INTEGER PRIMARY KEY, name TEXT, size INTEGER);
CREATE TABLE absent_terms(term TEXT, phrase INTEGER, PRIMARY KEY(term, phrase)) WITHOUT ROWID;
CREATE TABLE joined(apart TEXT PRIMARY KEY, term TEXT) WITHOUT ROWID;
CREATE VIRTUAL TABLE bodies USING fts5(text, content='', tokenize="porter unicode61");
CREATE VIRTUAL TABLE pieces USING fts5(key, content='', tokenize="trigram");
INSERT INTO bodies(bodies, rank) VALUES('hashsize', 16777216);
INSERT INTO bodies(bodies, rank) VALUES('automerge', 0);
"""

#: Made after the rows are in, which is quicker.
INDEXES = """
CREATE INDEX names_by_key ON names(key);
CREATE INDEX names_by_entry ON names(entry);
CREATE INDEX postings_by_term ON postings(term);
CREATE INDEX doings_by_word ON doings(kind, word);
CREATE INDEX defined_by_name ON defined(name);
CREATE INDEX hidden_entries ON entries(id) WHERE hidden;
CREATE INDEX shadowed_entries ON entries(name, section) WHERE hidden=2;
CREATE INDEX entries_by_place ON entries(place);
CREATE INDEX related_by_term ON related(term);
CREATE INDEX shell_names_by_name ON shell_names(name);
CREATE INDEX info_names_by_name ON info_names(name);
"""

#: What is kept while pages are read, so that a build that was ended goes on where it was.
DONE = "CREATE TABLE done(number INTEGER PRIMARY KEY, reading TEXT)"

#: For writing a new file that nobody reads yet: nothing needs to be on the disk before it is whole,
#: but what was committed must hold when the process is ended.
FAST = """
PRAGMA journal_mode = TRUNCATE;
PRAGMA synchronous = OFF;
PRAGMA cache_size = -32768;
PRAGMA temp_store = MEMORY;
"""
