"""A few commands made up for the tests, and what is known of them."""

from __future__ import annotations

from pathlib import Path

import pytest

from dowsing.core.commandline.known import Tables
from dowsing.core.index.build import build as build_index
from dowsing.core.index.store import Store
from dowsing.core.settings import Settings

PAGES = {
    "crate.1": r""".TH CRATE 1
.SH NAME
crate \- a storage utility
.SH SYNOPSIS
\fBcrate\fR {\fB\-p\fR|\fB\-u\fR} [\fIOPTION\fR]... [\fIFILE\fR]...
.SH OPERATION MODE
.TP
\fB\-p\fR, \fB\-\-pack\fR
Pack files into a crate. Files may be folders.
.TP
\fB\-u\fR, \fB\-\-unpack\fR
Unpack the files of a crate.
.SH OPTIONS
.TP
\fB\-f\fR, \fB\-\-file\fR=\fIFILE\fR
Use this crate.
.TP
\fB\-C\fR, \fB\-\-directory\fR=\fIDIR\fR
Go to DIR first.
.TP
\fB\-v\fR, \fB\-\-verbose\fR
Say what is done. May be given more than once.
.TP
\fB\-\-color\fR[=\fIWHEN\fR]
Color names; WHEN is always, never, or auto.
.TP
\fB\-n\fR, \fB\-\-level\fR=\fINUM\fR
Press it so hard, a number from 1 to 9; the default is 6.
.TP
\fB\-\-fast\fR
Be quick. This is the default.
.TP
\fB\-\-[no\-]wrap\fR
Wrap each file.
.TP
\fB\-\-purge\fR
Remove files once they are packed.
""",
    "lamp.1": r""".TH LAMP 1
.SH NAME
lamp \- run the lamps of a house
.SH SYNOPSIS
\fBlamp\fR [\fB\-\-house\fR \fIhouse\fR] \fICOMMAND\fR [\fIARG\fR...]
.SH COMMANDS
.TP
\fBlight\fR \fILAMP\fR...
Light lamps.
.TP
\fBdim\fR \fILAMP\fR
Dim a lamp.
.TP
\fBstatus\fR
Say which lamps burn.
.SH OPTIONS
.TP
\fB\-\-house\fR \fIhouse\fR
One house only.
""",
    "lamp-repair.1": r""".TH LAMP-REPAIR 1
.SH NAME
lamp-repair \- repair a lamp
.SH SYNOPSIS
\fBlamp repair\fR [\fB\-q\fR] \fIlamp\fR
.SH OPTIONS
.TP
\fB\-q\fR
Say nothing.
.TP
\fB\-\-wick\fR \fIlength\fR
The new wick.
""",
    "later.1": r""".TH LATER 1
.SH NAME
later \- run a command later
.SH SYNOPSIS
\fBlater\fR [\fB\-q\fR] \fIDURATION\fR \fICOMMAND\fR [\fIARG\fR]...
.SH OPTIONS
.TP
\fB\-q\fR
Say nothing.
""",
    "grant.1": r""".TH GRANT 1
.SH NAME
grant \- change file mode bits
.SH SYNOPSIS
\fBgrant\fR [\fIOPTION\fR]... \fIMODE\fR[,\fIMODE\fR]... \fIFILE\fR...
.SH OPTIONS
.TP
\fB\-R\fR
Go down into folders.
.TP
\fB\-\-sparing\fR
Spare hidden files.
.TP
\fB\-\-special\fR
Special files too.
""",
    "convert.1": r""".TH CONVERT 1
.SH NAME
convert \- turn pictures
.SH SYNOPSIS
\fBconvert\fR [\fB\-rotate\fR \fIangle\fR] [\fB\-flip\fR] \fIpicture\fR
.SH OPTIONS
.TP
\fB\-rotate\fR \fIangle\fR
Turn it by so much.
.TP
\fB\-flip\fR
Mirror it.
.TP
\fB\-size\fR \fIwidth\fR
Make it so wide.
""",
}


@pytest.fixture(scope="package")
def tables(tmp_path_factory: pytest.TempPathFactory) -> Tables:
    """What is known of the commands above."""
    folder: Path = tmp_path_factory.mktemp("commands")
    root = folder / "man"
    (root / "man1").mkdir(parents=True)
    for name, text in PAGES.items():
        (root / "man1" / name).write_text(text)
    settings = Settings("", "", "", str(root), [], info_path=str(root / "none"))
    path = str(folder / "index.sqlite")
    build_index(path, settings, [str(root)])
    return Tables(Store(path), settings)
