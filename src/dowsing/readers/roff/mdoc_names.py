"""Texts that mdoc macros stand for: operating systems, standards, libraries."""

SYSTEMS = {
    "At": "AT&T UNIX", "Bx": "BSD", "Bsx": "BSD/OS", "Fx": "FreeBSD", "Nx": "NetBSD", "Ox": "OpenBSD",
    "Dx": "DragonFly", "Ux": "UNIX",
}  # fmt: skip

ATT = {
    "v1": "Version 1", "v2": "Version 2", "v3": "Version 3", "v4": "Version 4", "v5": "Version 5",
    "v6": "Version 6", "v7": "Version 7", "32v": "Version 32V", "III": "System III", "V": "System V",
    "V.1": "System V Release 1", "V.2": "System V Release 2", "V.3": "System V Release 3",
    "V.4": "System V Release 4",
}  # fmt: skip

STANDARDS = {
    "-ansiC": "ANSI X3.159-1989 (“ANSI C89”)", "-ansiC-89": "ANSI X3.159-1989 (“ANSI C89”)",
    "-isoC": "ISO/IEC 9899:1990 (“ISO C90”)", "-isoC-90": "ISO/IEC 9899:1990 (“ISO C90”)",
    "-isoC-amd1": "ISO/IEC 9899/AMD1:1995 (“ISO C90, Amendment 1”)",
    "-isoC-tcor1": "ISO/IEC 9899/TCOR1:1994 (“ISO C90”)", "-isoC-tcor2": "ISO/IEC 9899/TCOR2:1995 (“ISO C90”)",
    "-isoC-99": "ISO/IEC 9899:1999 (“ISO C99”)", "-isoC-2011": "ISO/IEC 9899:2011 (“ISO C11”)",
    "-p1003.1-88": "IEEE Std 1003.1-1988 (“POSIX.1”)", "-p1003.1": "IEEE Std 1003.1 (“POSIX.1”)",
    "-p1003.1-90": "ISO/IEC 9945-1:1990 (“POSIX.1”)", "-p1003.1-96": "ISO/IEC 9945-1:1996 (“POSIX.1”)",
    "-p1003.1-2001": "IEEE Std 1003.1-2001 (“POSIX.1”)", "-p1003.1-2004": "IEEE Std 1003.1-2004 (“POSIX.1”)",
    "-p1003.1-2008": "IEEE Std 1003.1-2008 (“POSIX.1”)", "-p1003.1-2024": "IEEE Std 1003.1-2024 (“POSIX.1”)",
    "-p1003.1b": "IEEE Std 1003.1b (“POSIX.1b”)", "-p1003.1b-93": "IEEE Std 1003.1b-1993 (“POSIX.1b”)",
    "-p1003.1c-95": "IEEE Std 1003.1c-1995 (“POSIX.1c”)", "-p1003.1g-2000": "IEEE Std 1003.1g-2000 (“POSIX.1g”)",
    "-p1003.1i-95": "IEEE Std 1003.1i-1995 (“POSIX.1i”)", "-p1003.2": "IEEE Std 1003.2 (“POSIX.2”)",
    "-p1003.2-92": "IEEE Std 1003.2-1992 (“POSIX.2”)", "-p1003.2a-92": "IEEE Std 1003.2a-1992 (“POSIX.2”)",
    "-p1387.2-95": "IEEE Std 1387.2-1995 (“POSIX.7.2”)", "-iso9945-1-90": "ISO/IEC 9945-1:1990 (“POSIX.1”)",
    "-iso9945-1-96": "ISO/IEC 9945-1:1996 (“POSIX.1”)", "-iso9945-2-93": "ISO/IEC 9945-2:1993 (“POSIX.2”)",
    "-xpg3": "X/Open Portability Guide Issue 3 (“XPG3”)", "-xpg4": "X/Open Portability Guide Issue 4 (“XPG4”)",
    "-xpg4.2": "X/Open Portability Guide Issue 4, Version 2 (“XPG4.2”)", "-susv1": "Single UNIX Specification v1",
    "-susv2": "Version 2 of the Single UNIX Specification (“SUSv2”)",
    "-susv3": "Version 3 of the Single UNIX Specification (“SUSv3”)",
    "-susv4": "Version 4 of the Single UNIX Specification (“SUSv4”)", "-xsh4.2": "X/Open System Interfaces 4.2",
    "-xcu5": "X/Open Commands and Utilities Issue 5 (“XCU5”)", "-xns5": "X/Open Networking Services Issue 5",
    "-xns5.2": "X/Open Networking Services Issue 5.2", "-xbd5": "X/Open Base Definitions Issue 5 (“XBD5”)",
    "-xsh5": "X/Open System Interfaces and Headers Issue 5",
    "-svid4": "System V Interface Definition, 4th Ed.",
    "-ieee754": "IEEE Std 754-1985", "-iso8601": "ISO 8601", "-iso8802-3": "ISO 8802-3: 1989",
}  # fmt: skip

LIBRARIES = {
    "libc": "Standard C Library (libc, -lc)", "libm": "Math Library (libm, -lm)",
    "libutil": "System Utilities Library (libutil, -lutil)", "libcrypt": "Crypt Library (libcrypt, -lcrypt)",
    "libpthread": "POSIX Threads Library (libpthread, -lpthread)", "librt": "POSIX Real-time Library (librt, -lrt)",
    "libedit": "Command Line Editor Library (libedit, -ledit)", "libz": "Compression Library (libz, -lz)",
    "libcurses": "Curses Library (libcurses, -lcurses)", "libkvm": "Kernel Data Access Library (libkvm, -lkvm)",
    "libarchive": "Streaming Archive Library (libarchive, -larchive)",
    "libbsd": "BSD Utilities Library (libbsd, -lbsd)",
    "libmagic": "Magic Number Recognition Library (libmagic, -lmagic)",
}  # fmt: skip
