"""Reads every manual page of the machine and checks that nothing of it is lost and no markup is
left.

    python bench/reader.py [--every N] [--show N] [FOLDER...]

Words are counted in the source by code of this file that shares nothing with the reader: it strips
requests and escapes with a few substitutions and takes runs of two and more ASCII letters. A word
counts as kept if it occurs in the text that was read at least as often as in the source (words that
fonts glue together are looked for inside words). Lines that a condition or a definition governs are
left out of the count.
"""

from __future__ import annotations

import argparse
import collections
import multiprocessing
import os
import re
import sys
import time

from dowsing.machine.settings import read_settings
from dowsing.model.document import document_text
from dowsing.model.errors import Unreadable
from dowsing.readers.decoding import is_formatted, read_text
from dowsing.sources import manual_folders, page_files

COMMENT = re.compile(r"""\\["#].*""")
ESCAPES = re.compile(
    r"\\(?:f(?:\[[^\]]*\]|\(..|.)|[FgkmMV](?:\[[^\]]*\]|\(..|.)|s(?:[-+]?\d\d?|\[[^\]]*\]|[-+]?\(.."
    r"|'[^']*')|n[-+]?(?:\[[^\]]*\]|\(..|.)|[hvwlLDXZRSHBNCobxA](?:'[^']*'|\"[^\"]*\"|(.).*?\1)"
    r"|[&%/,:)cpdu^|z0{}]|\$.)"
)
GLYPH = re.compile(r"\\(?:\*?\(..|\*?\[[^\]]*\]|\*?.)")
WORD = re.compile(r"[A-Za-z]{2,}")
SILENT = frozenset(
    """
        UN IMG TH Dd Dt Os so mso nr rr ds as de de1 am am1 ig ta in ti ll ps vs ne sp ft fam hy
        nh ad na tr it wh ch rm rn als do cc c2 ec eo lf PD RS RE AT UC DT UR MT URL MTO FT ZN IX
        Bl Bd Sm Bf St Lb An nx hw ev di da po lt pl char while shift return break nop cp hla hpf
        TS TE EQ EN PS PE if ie el tm ab pm pso sy pi br bp ss ce ul cu Tg Bk Ek Fo Es Ex Rv
        INDENT UNINDENT BS BE LINKSTYLE color bd rj tl warn af rnn length chop pc mk rt
    """.split()
)
MARKUP = re.compile(r"\\(?:f[BIRPC1-5(\[]|\([a-z]{2}\b|\*[(\[]|s[-+]?\d|n[(\[]|&)")
REQUEST = re.compile(
    r"^\s*[.'](?:SH|SS|TP|PP|IP|LP|BR|IR|BI|RS|RE|nf|fi|br|sp|in|ft|de|ds|nr|ie|el|Sh|Ss|It|Bl|El"
    r"|Bd|Ed|Xr|Pp)\b",
    re.MULTILINE,
)
LITERAL_BACKSLASH = re.compile(r"\\e|\\\\|\\\(rs|\[rs\]|\\E|u005C|\\\(bs|char92|N'92'|Bs\b")


def source_words(source: str) -> collections.Counter[str]:
    """The words of a page's source, counted without the reader."""
    counts: collections.Counter[str] = collections.Counter()
    skip_to = ""
    depth = 0
    source = source.replace("\\\n", "")
    source = re.sub(
        r"^\.TS.*\n(?:.*;[ \t]*\n)?(?:.*[^.\s][ \t]*\n)*?.*\.[ \t]*$",
        "",
        source,
        flags=re.MULTILINE,
    )
    source = re.sub(r"^\.T&.*\n(?:.*[^.\s][ \t]*\n)*?.*\.[ \t]*$", "", source, flags=re.MULTILINE)
    redefined = {
        m.split()[0] for m in re.findall(r"^[.']\s*(?:de1?|am)[ \t]+(\S+.*)$", source, re.MULTILINE)
    }
    for line in source.split("\n"):
        if skip_to:
            if line.replace(" ", "") == skip_to:
                skip_to = ""
            continue
        depth_before = depth
        bare = COMMENT.sub("", line)
        if depth or "\\{" in bare:
            depth = max(depth + bare.count("\\{") - bare.count("\\}"), 0)
            continue
        if depth_before:
            continue
        text = bare
        if bare[:1] in (".", "'"):
            name, _, text = bare[1:].strip().partition(" ")
            if name in ("de", "de1", "am", "am1", "ig", "dei"):
                end = text.split()[1:2] if name != "ig" else text.split()[:1]
                skip_to = "." + (end[0] if end else ".")
                continue
            if name in SILENT or name in redefined or (not name[:1].isalpha() and name[:1] != "%"):
                continue
            if name == "IP" or name == "TP":
                text = (
                    text.split('"')[1]
                    if text.startswith('"') and text.count('"') > 1
                    else text.split(" ")[0]
                )
                if name == "TP":
                    continue
            if name in ("D1", "Dl") or (
                len(name) == 2 and name[0].isupper() and name[1].islower()
            ):  # mdoc: words that are macros
                text = re.sub(
                    r"(?:^|(?<=\s))[A-Z][a-z]c?(?=\s|$)|-(?:std|nosplit|split)\b", " ", text
                )
        text = GLYPH.sub(" ", ESCAPES.sub("", text.replace("\\-", "-")))
        counts.update(WORD.findall(text))
    return counts


def check(page: tuple[str, str, str]) -> tuple[str, str, int, int, list[str], list[str]]:
    """Read one page: path, failure, words in all, words lost, which, and markup left."""
    path, name, section = page
    try:
        source = read_text(path)
    except Unreadable as error:
        return path, f"unreadable: {error}", 0, 0, [], []
    if page_files.redirect(source) or is_formatted(source):
        return path, "", 0, 0, [], []
    try:
        document = page_files.document(source, path, name, section)
    except Unreadable as error:
        return path, f"unreadable: {error}", 0, 0, [], []
    except Exception as error:
        return path, f"failed: {type(error).__name__}: {error}", 0, 0, [], []
    text = document_text(document.sections)
    words = source_words(source)
    kept = collections.Counter(WORD.findall(text))
    lost = {word: count - kept[word] for word, count in words.items() if count > kept[word]}
    if lost:
        squeezed = re.sub(r"[\s\u2010-\u2015-]+", "", text)
        lost = {word: min(n, words[word] - squeezed.count(word)) for word, n in lost.items()}
        lost = {word: n for word, n in lost.items() if n > 0}
    left = []
    backslashes = text.count("\\")
    if backslashes and backslashes > len(LITERAL_BACKSLASH.findall(source)):
        left += [match[0] for match in MARKUP.finditer(text)]
    protected = (
        source.count("\\&.") + source.count("\\&'") + source.count("\\.") + source.count("\\&\\.")
    )
    # a request set in by blanks is text: the page shows it on purpose, or by mistake
    protected += len(re.findall(r"^[ \t]+[.'][A-Za-z]{2}", source, re.MULTILINE))
    requests = REQUEST.findall(text)
    if len(requests) > protected:
        left += requests
    left += re.findall(r"[\x00-\x08\x0b-\x1f\x7f]", text)
    return (
        path,
        "",
        sum(words.values()),
        sum(lost.values()),
        sorted(lost, key=lost.get)[-8:],
        left[:5],
    )


def pages(roots: list[str]) -> list[tuple[str, str, str]]:
    """Every page file that is not a link, each real file once."""
    found = {}
    for root in roots:
        for folder in manual_folders.section_folders(root):
            for page in page_files.page_files(folder):
                if not os.path.islink(page.path):
                    found[os.path.realpath(page.path)] = (page.path, page.name, page.section)
    return list(found.values())


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    parser.add_argument("folders", nargs="*")
    parser.add_argument("--every", type=int, default=1, help="only every N-th page")
    parser.add_argument("--show", type=int, default=15, help="list so many of the worst pages")
    options = parser.parse_args()
    todo = pages(options.folders or manual_folders.roots(read_settings()))[:: options.every]
    start = time.perf_counter()
    with multiprocessing.Pool(2) as pool:
        results = pool.map(check, todo, chunksize=64)
    total = sum(r[2] for r in results)
    lost = sum(r[3] for r in results)
    failures = [r for r in results if r[1]]
    marked = [r for r in results if r[5]]
    print(f"pages                        {len(results)}")
    print(f"failures                     {len(failures)}")
    print(f"pages with markup left       {len(marked)}")
    print(f"words in the sources         {total}")
    print(f"words kept                   {100 * (1 - lost / max(total, 1)):.4f} %  ({lost} lost)")
    print(f"seconds, both cores          {time.perf_counter() - start:.1f}")
    for path, failure, *_ in failures[: options.show]:
        print("failure", path, failure)
    for result in marked[: options.show]:
        print("markup ", result[0], result[5])
    for result in sorted(results, key=lambda r: -r[3])[: options.show]:
        if result[3]:
            print(f"lost    {result[3]:5} of {result[2]:6} {result[0]} {' '.join(result[4])}")
    return 1 if failures or marked else 0


if __name__ == "__main__":
    sys.exit(main())
