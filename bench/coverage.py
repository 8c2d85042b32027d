"""Checks `audit --shell bash` cell by cell against a ground truth that shares nothing with the
program.

    python bench/coverage.py

What the truth is made of: the shell asked for its names and for the help of each, one process a
question; each executable and builtin run with `--help`; the manual's file names and NAME lines; the
raw source of the shell's own page; the raw text of the Info files. Names on which both are of one
mind are counted; all others are printed.
"""

from __future__ import annotations

import glob
import gzip
import json
import os
import re
import shutil
import subprocess
import sys
import tempfile

PROGRAM = os.path.join(os.path.dirname(sys.executable), "dowsing")
BASH = shutil.which("bash") or "/bin/bash"


def run(command: list[str]) -> tuple[int, str, str]:
    """Exit status and output of a command in an empty folder, without input."""
    with tempfile.TemporaryDirectory() as folder:
        done = subprocess.run(
            command,
            stdin=subprocess.DEVNULL,
            capture_output=True,
            timeout=10,
            cwd=folder,
            check=False,
            env={"PATH": os.environ["PATH"], "HOME": folder, "LC_ALL": "C.UTF-8"},
        )
    return (
        done.returncode,
        done.stdout.decode("utf-8", "replace"),
        done.stderr.decode("utf-8", "replace"),
    )


def names() -> list[tuple[str, str]]:
    """The keywords and builtins, in the order in which the shell looks for them."""
    found: dict[str, str] = {}
    for kind, flag in (("keyword", "-k"), ("builtin", "-b")):
        for name in run([BASH, "--norc", "-c", f"compgen {flag}"])[1].split("\n"):
            if name:
                found.setdefault(name, kind)
    return list(found.items())


def opened(path: str) -> str:
    """The text of a plain or compressed file."""
    with gzip.open(path) if path.endswith(".gz") else open(path, "rb") as file:
        return file.read().decode("utf-8", "replace")


def manual_names() -> set[str]:
    """The names of pages of commands: those of files, and those of NAME lines."""
    found: set[str] = set()
    for root in ("/usr/share/man", "/usr/local/share/man", "/usr/local/man"):
        for section in "168":
            for path in glob.glob(f"{root}/man{section}/*"):
                file = os.path.basename(path).removesuffix(".gz")
                found.add(file.rpartition(".")[0])
                if (
                    "builtins" in file or "test" in file
                ):  # pages whose NAME line has names that are no file's
                    match = re.search(r'\.SH "?NAME"?\n(.*?)\s\\?-', opened(path), re.DOTALL)
                    found |= {name.strip() for name in (match[1] if match else "").split(",")}
    return found


def shell_page() -> tuple[str, str]:
    """The raw source of the shell's own page: what is about builtins, and what is about the
    grammar.
    """
    for path in glob.glob("/usr/share/man/man1/bash.1*"):
        text = opened(path)
        builtins = text[
            text.index('.SH "SHELL BUILTIN COMMANDS"')
            if '.SH "SHELL BUILTIN COMMANDS"' in text
            else text.index(".SH SHELL BUILTIN COMMANDS") :
        ]
        start = re.search(r'\.SH "?SHELL GRAMMAR', text)
        end = re.search(r"\.SH COMMENTS", text)
        return builtins, text[start.start() : end.start()] if start and end else ""
    return "", ""


def in_shell_page(name: str, kind: str, builtins: str, grammar: str) -> bool:
    """Whether a tag of the page begins with the builtin, or a display or tag of the grammar has the
    keyword.
    """
    if kind == "builtin":
        bare = re.sub(r"\\f.|\\[&| -]", "", builtins)
        tags = re.findall(r"^\.TP.*\n(?:\.PD.*\n)?(.*)", bare, re.MULTILINE)
        return any(re.sub(r"^\.[BI]+ ", "", tag).split()[:1] == [name] for tag in tags)
    tags = re.findall(
        r"^\.(?:TP|RS|PP)\n(?:\.PP\n)?(.*)", grammar.replace("\\\n", " "), re.MULTILINE
    )
    bare_tags = [re.sub(r"\\f.|\\&|^\.[BI]+ ", "", tag) for tag in tags]
    return any(
        name in re.findall(r"\[\[|\]\]|[!{}]|\w+", tag)
        for tag in bare_tags
        if not tag.startswith(("The ", "When ", "If "))
    )


def info_text() -> str:
    """All Info files in one text."""
    return "\n".join(
        opened(path)
        for path in glob.glob("/usr/share/info/*")
        if re.search(r"\.info(-\d+)?(\.gz)?$", path)
    )


#: Names that are also words of English: in running text they are no names.
_WORDS = set(
    "if then else case for select while until do done in function time alias break"
    " builtin caller command complete continue declare disown echo enable eval exec exit export"
    " false fc fg hash help history jobs kill let local logout test times trap true type wait set"
    " shift source read return suspend umask unset bg bind cd dirs".split()
)


def package_text(package: str) -> str:
    """The texts of a package that are no licences and no lists of changes."""
    paths = glob.glob(f"/usr/share/doc/{package}/**", recursive=True)
    none = r"change|copyright|licen[sc]e|copying|history"
    return "\n".join(
        opened(path)
        for path in sorted(paths)
        if os.path.isfile(path) and not re.search(none, os.path.basename(path), re.I)
    )


def owner(path: str | None) -> str:
    """The package of a file, as dpkg itself says, "" if it knows none."""
    for one in (path, os.path.realpath(path)) if path else ():
        found = run(["dpkg", "-S", one])[1] or run(["dpkg", "-S", one.removeprefix("/usr")])[1]
        if found:
            return found.split(":")[0]
    return ""


def named_in(text: str, name: str) -> bool:
    """Whether the text names the command: in quotes of any kind, with a section, or called a
    command or a builtin; what is no word of English and longer than two letters also by itself.
    """
    bare = rf"(?<![\w-]){re.escape(name)}(?![\w-])"
    quotes = rf"""[`'"‘“]{re.escape(name)}(?: [^'"`’”\n]*)?['"`’”]"""
    kinds = "builtin|built-in|command|utility|program|keyword|reserved word"
    called = rf"\b[Tt]he {re.escape(name)} (?:{kinds})"
    if re.search(rf"{quotes}|{bare}\([1-8]\)|{called}", text):
        return True
    if name in _WORDS or not name.isalpha() or len(name) < 3:
        return False
    return re.search(bare, text) is not None


def is_usage(name: str, output: tuple[int, str, str], help_text: str) -> bool:
    """Whether what came back for `--help` is a usage text: the shell's own help, or one that says
    so.
    """
    text = output[1].strip() or output[2].strip()
    if help_text.strip() and text.split() == help_text.split():
        return True
    return bool(
        re.search(
            rf"\A(?:.*\n)?\s*usage:?\s+(?:.*\n\s+or: +)*\S*{re.escape(name)}(?:\s|\Z)"
            rf"|(?m:^{re.escape(name)}: usage:)",
            text,
            re.I,
        )
    )


def truth() -> dict[str, dict[str, bool]]:
    """For every name what each source has."""
    pages, info = manual_names(), info_text()
    builtins, grammar = shell_page()
    package = package_text("bash")
    found = {}
    for name, kind in names():
        status, help_text, _ = run([BASH, "--norc", "-c", 'help -- "$1"', "-", name])
        executable = shutil.which(name)
        asked = (
            run([BASH, "--norc", "-c", f"'{name}' --help"]) if kind == "builtin" else (1, "", "")
        )
        found[name] = {
            "builtin": status == 0 and bool(help_text.strip()),
            "shell-manual": in_shell_page(name, kind, builtins, grammar),
            "builtin-usage": kind == "builtin" and is_usage(name, asked, help_text),
            "manual": name in pages,
            "usage": executable is not None and is_usage(name, run([executable, "--help"]), ""),
            "info": f"* {name}: (" in info
            or bool(
                re.search(
                    rf"Node: (?:Invoking {re.escape(name)}|{re.escape(name)} invocation),", info
                )
            ),
            "standard": bool(glob.glob(f"/usr/share/man/man1*/{glob.escape(name)}.1p*")),
            "package": named_in(package, name)
            or (executable is not None and named_in(package_text(owner(executable)), name)),
        }
    return found


def main() -> int:
    """Print where the two differ, and the counts."""
    right = truth()
    said = json.loads(
        subprocess.run(
            [PROGRAM, "audit", "--shell", "bash", "--format", "json"],
            capture_output=True,
            check=True,
        ).stdout
    )
    answers = {line["name"]: line["sources"] for line in said["names"]}
    cells = wrong = 0
    for name in sorted({*right, *answers}):
        for source in said["sources"]:
            cells += 1
            ours, theirs = answers.get(name, {}).get(source), right.get(name, {}).get(source)
            if ours != theirs:
                wrong += 1
                print(f"differs: {name} {source}: audit says {ours}, the truth is {theirs}")
    print(f"{len(right)} names, {cells} cells, {wrong} differ")
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main())
