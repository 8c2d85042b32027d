"""Values that are small languages of their own: each is read by a module here, which says what its
parts do, what the whole does where that is short, and what is wrong with it.

Which argument is written in which is told by the command model (the language of a value, in facts,
or what its page says of it), never by a name here.
"""

from __future__ import annotations

import re
from functools import lru_cache
from importlib import import_module

from dowsing.commandline.languages.reading import NOTHING, Reading

#: Language -> the module that reads it, and the dialect that it is read in. A dialect may also be
#: asked for behind a dash: `regex-perl`.
LANGUAGES = {
    "address": "address",
    "arithmetic": "arithmetic",
    "alternative-names": "extension",
    "amount": "amount",
    "awk": "awk",
    "calendar": "calendar",
    "character-set": "character_set",
    "columns": "columns",
    "curl-data": "request_data",
    "perl": "perl",
    "cut-fields": "cut_list:field",
    "cut-characters": "cut_list:character",
    "cut-bytes": "cut_list:byte",
    "cron": "cron",
    "date": "date_phrase",
    "date-past": "date_phrase:past",
    "dates": "dates",
    "expansion": "expansion",
    "days": "amount:days",
    "minutes": "amount:minutes",
    "size-test": "amount:size",
    "count": "amount:count",
    "duration": "duration",
    "file-types": "file_types",
    "filters": "filters",
    "find-printf": "percent:find",
    "forwarding": "forwarding:local",
    "forwarding-back": "forwarding:remote",
    "forwarding-any": "forwarding:dynamic",
    "git-pretty": "percent:git",
    "glob": "glob",
    "header": "header",
    "history": "history",
    "job": "job",
    "jq": "jq",
    "mode": "mode",
    "mount": "mount",
    "owner": "owner",
    "perm-test": "mode:test",
    "place": "place",
    "printf": "printf",
    "program": "program",
    "publish": "publish",
    "refspec": "refspec",
    "regex": "regex",
    "revision": "revision",
    "schedule": "cron",
    "sed": "sed",
    "shell-data": "shell_word:data",
    "shell-word": "shell_word",
    "signal": "signal",
    "size": "size",
    "sort-key": "sort_key",
    "sql": "sql",
    "stat-format": "percent:stat",
    "subject": "subject",
    "template": "template",
    "time-format": "percent:time",
    "url": "url",
    "volume": "mount:volume",
    "write-out": "percent:curl",
}
MOST_READ = 20_000  # characters of a value; longer ones are not taken apart


@lru_cache(maxsize=256)  # pieces, sentence and judgement ask for the same ones
def read_value(language: str, value: str) -> Reading:
    """What a value written in a language says; nothing if it is not written in it, if the language
    is not known, or if it is too plain to need it. Never raises.
    """
    named = LANGUAGES.get(language)
    dialect = ""
    if named is None:
        base, _, dialect = language.partition("-")
        named = LANGUAGES.get(base)
    if named is None or len(value) > MOST_READ:
        return NOTHING
    module, _, own = named.partition(":")
    try:
        read = import_module(f"{__name__}.{module}").read
        reading: Reading = read(value, dialect or own)
    except (ValueError, IndexError, OverflowError, RecursionError, re.error):
        return NOTHING
    return reading
