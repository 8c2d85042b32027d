"""The layout of the index file."""

from __future__ import annotations

from enum import StrEnum


class Meta(StrEnum):
    """The values that the index keeps beside its entries. Recipes and examples are packed
    (knowledge/recipe_terms.py).
    """

    VERSION = "version"
    ROOTS = "roots"  # manual folders, one a line
    BUILT = "built"  # seconds since 1970
    PAGES = "pages"
    CONVENTIONS = "conventions"  # JSON
    RECIPES = "recipes"
    RECIPE_ROWS = "recipes rows"
    EXAMPLES = "examples"
    EXAMPLE_ROWS = "examples rows"
    ORDINARY_WORDS = "ordinary words"
    NEVER_NAMES = "never names"
    TASK_HARM = "task harm"  # log odds that a task does harm, before its words are looked at
    TASK_CHANGE = "task change"  # and that it changes anything
    MENDED = "mended"  # the error for which the index was made anew


#: Begins the name of a row of task_cues that has the domain of a command, and no slot's cues.
DOMAIN = "#"

#: Changed with every change of the layout or of what is read out of pages; another version is
#: rebuilt.
VERSION = 36

# The fields that a term of an entry may stand in, as bits of one byte, in parts.
#: Parts. The texts of a term that very many entries have in their heads, and those of the members
#: of a very large family, are a part of their own: ranking does without.
HEADS, TEXT, COMMON_TEXT = 0, 1, 2

# Fields of the heads.
WHOLE_NAME, IN_NAME, IN_ALIAS, IN_SUMMARY, IS_MEANING, IN_TASK = 1, 2, 4, 8, 16, 32
# Fields of the text.
IN_LEAD, IS_FLAG, IN_OPTION, IN_HEADING = 1, 2, 4, 8
#: The fields of each part by name; what each is worth has the same name (see search/weights.py).
HEAD_FIELDS = {
    "whole_name": WHOLE_NAME, "in_name": IN_NAME, "in_alias": IN_ALIAS, "in_summary": IN_SUMMARY,
    "is_meaning": IS_MEANING, "in_task": IN_TASK,
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

TABLES = """
CREATE TABLE meta(key TEXT PRIMARY KEY, value TEXT) WITHOUT ROWID;
CREATE TABLE command_facts(words TEXT PRIMARY KEY, facts TEXT) WITHOUT ROWID;
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
CREATE TABLE static_ranks(first INTEGER, marks BLOB, families BLOB, weight REAL);
CREATE TABLE options(entry INTEGER PRIMARY KEY, lines TEXT, command BLOB);
CREATE TABLE said(entry INTEGER PRIMARY KEY, terms TEXT, tasks TEXT, task_terms TEXT);
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
CREATE TABLE task_starts(number INTEGER PRIMARY KEY, start REAL, filters INTEGER);
CREATE TABLE task_telling(stem TEXT PRIMARY KEY, telling REAL) WITHOUT ROWID;
CREATE TABLE task_cues(slot TEXT PRIMARY KEY, cues TEXT) WITHOUT ROWID;
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
CREATE INDEX hidden_entries ON entries(id) WHERE hidden;
CREATE INDEX related_by_term ON related(term);
CREATE INDEX shell_names_by_name ON shell_names(name);
CREATE INDEX info_names_by_name ON info_names(name);
"""

#: For writing a new file that nobody reads yet; large portions of the full text make fewer, fuller
#: segments.
FAST = """
PRAGMA journal_mode = OFF;
PRAGMA synchronous = OFF;
PRAGMA cache_size = -32768;
PRAGMA temp_store = MEMORY;
"""
