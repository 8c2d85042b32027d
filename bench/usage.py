"""Flags read from usage texts, against a list made by hand and against the options of the manual
pages.

    python bench/usage.py [--show]

The gold below was written from what the programs print (grep 3.8, gzip 1.12, GNU coreutils 9.1, git
2.39). For all other programs the measure is the share of flags that the manual's text has too, as a
word of its own; `--show` prints those that it has not.
"""

from __future__ import annotations

import re
import sys

from dowsing.ingest.upkeep import open_index
from dowsing.machine.settings import read_settings
from dowsing.model.document import document_text
from dowsing.model.errors import Unreadable
from dowsing.sources import catalogue

GOLD = {
    "gzip": """-c --stdout -d --decompress -f --force -h --help -k --keep -l --list -L --license -n
        --no-name -N --name -q
        --quiet -r --recursive --rsyncable -S --suffix --synchronous -t --test -v --verbose -V
        --version -1 --fast -9
        --best""",
    "sort": """-b --ignore-leading-blanks -d --dictionary-order -f --ignore-case -g
        --general-numeric-sort -i
        --ignore-nonprinting -M --month-sort -h --human-numeric-sort -n --numeric-sort -R
        --random-sort --random-source
        -r --reverse --sort -V --version-sort --batch-size -c --check -C --compress-program --debug
        --files0-from -k
        --key -m --merge -o --output -s --stable -S --buffer-size -t --field-separator -T
        --temporary-directory
        --parallel -u --unique -z --zero-terminated --help --version""",
    "grep": """-E --extended-regexp -F --fixed-strings -G --basic-regexp -P --perl-regexp -e
        --regexp -f --file -i
        --ignore-case --no-ignore-case -w --word-regexp -x --line-regexp -z --null-data -s
        --no-messages -v
        --invert-match -V --version --help -m --max-count -b --byte-offset -n --line-number
        --line-buffered -H
        --with-filename -h --no-filename --label -o --only-matching -q --quiet --silent
        --binary-files -a --text -I -d
        --directories -D --devices -r --recursive -R --dereference-recursive --include --exclude
        --exclude-from
        --exclude-dir -L --files-without-match -l --files-with-matches -c --count -T --initial-tab
        -Z --null -B
        --before-context -A --after-context -C --context -NUM --group-separator
        --no-group-separator --color --colour
        -U --binary""",
    "git": """-v --version -h --help -C -c --exec-path --html-path --man-path --info-path -p
        --paginate -P --no-pager
        --no-replace-objects --bare --git-dir --work-tree --namespace --super-prefix
        --config-env""",
    "mktemp": "-d --directory -u --dry-run -q --quiet --suffix -p --tmpdir -t --help --version",
}

COREUTILS = """
    arch b2sum base32 base64 basename basenc cat chcon chgrp chmod chown chroot cksum comm cp
    csplit cut date dd df dir dircolors dirname du echo env expand expr factor false fmt fold
    groups head hostid id install join kill link ln logname ls md5sum mkdir mkfifo mknod mktemp
    mv nice nl nohup nproc numfmt od paste pathchk pinky pr printenv printf ptx pwd readlink
    realpath rm rmdir runcon seq sha1sum sha224sum sha256sum sha384sum sha512sum shuf sleep sort
    split stat stdbuf stty sum sync tac tail tee test timeout touch tr true truncate tsort tty
    uname unexpand uniq unlink users vdir wc who whoami yes [
""".split()
OTHERS = """
    git curl tar grep systemctl gzip bzip2 xz zstd sed find xargs diff patch make gcc rsync wget
    ssh-keygen jq file less ps free uptime vmstat pgrep watch lsblk findmnt unshare journalctl
    column cal hexdump openssl node psql
""".split()


def flags_of(document) -> set[str]:  # type: ignore[no-untyped-def]
    """All spellings of all options, without marks of values."""
    return {re.split(r"[=\[<]", flag)[0] for option in document.options for flag in option.flags}


def main() -> int:
    """Print a line for each program, the comparison with the gold, and the share."""
    settings = read_settings()
    store = open_index(settings)[0]
    known = in_manual = programs = asked = 0
    bad = 0
    for name in dict.fromkeys([*COREUTILS, *OTHERS]):
        subject = catalogue.subject_of(name, None, store, settings, ask=True)
        usage = next(iter(catalogue.availability_of(subject, "usage")))
        if not subject.executables:
            continue
        asked += 1
        if not usage.present:
            print(f"{name:<14} no usage text: {usage.note}")
            continue
        try:
            flags = flags_of(catalogue.read(subject, usage))
        except Unreadable as error:
            print(f"{name:<14} {error}")
            continue
        if name in GOLD:
            gold = set(GOLD[name].split())
            bad += gold != flags
            print(
                f"{name:<14} gold {len(gold)}, read {len(flags)}; missing "
                f"{gold - flags or 'none'}, too many {flags - gold or 'none'}"
            )
        pages = [
            h
            for h in catalogue.availability_of(subject, "manual")
            if h.present and h.detail[-2:-1] in "168"
        ]
        if not pages:
            continue
        page = catalogue.read(subject, pages[0])
        words = set(
            re.findall(r"(?<![\w-])[-+]{1,2}[\w?#@%:.][\w-]*", document_text(page.sections))
        ) | flags_of(page)
        there = {flag for flag in flags if flag in words}
        programs += 1
        known += len(flags)
        in_manual += len(there)
        if "--show" in sys.argv and flags - there:
            print(
                f"{name:<14} {len(there)} of {len(flags)} in the manual; not: "
                f"{' '.join(sorted(flags - there))}"
            )
    print(
        f"{asked} programs asked, {programs} with a usage text and a page; {known} flags, "
        f"{in_manual} in the manual: {100 * in_manual / max(known, 1):.2f} %; gold lists that "
        f"differ: {bad}"
    )
    return int(bad > 0)


if __name__ == "__main__":
    sys.exit(main())
