"""What a page says of one of its functions of C."""

from __future__ import annotations

import pytest
from conftest import Program

from dowsing.facts import with_facts
from dowsing.facts.c_function import CFunction, c_function
from dowsing.readers.roff.page import read_page

PAGE = r""".TH MOTOR 3
.SH NAME
motor_turn, motor_stop \- turn the motor of the roof
.SH LIBRARY
Glasshouse library (libglass, -lglass -lc)
.SH SYNOPSIS
.nf
#include <glass.h>
#include <motor.h>
.PP
int motor_turn(struct motor *m, int degrees,
               void (*told)(int));
int motor_stop(struct motor *m);
.fi
.SH RETURN VALUE
.TP
motor_turn()
The degrees that it has turned.
.TP
motor_stop()
0 on success.
.SH ERRORS
.TP
EBUSY
It turns already.
.TP
EINVAL or EDOM
There is no such angle.
.TP
EBUSY
It is frozen.
"""


@pytest.mark.parametrize(
    ("name", "prototype", "returns"),
    [
        (
            "motor_turn",
            "int motor_turn(struct motor *m, int degrees, void (*told)(int));",
            "The degrees that it has turned.",
        ),
        ("motor_stop", "int motor_stop(struct motor *m);", "0 on success."),
    ],
)
def test_each_name_has_its_own_prototype(name: str, prototype: str, returns: str) -> None:
    """The C library is linked without being asked for; an error is told once."""
    document = with_facts(read_page(PAGE))
    assert c_function(document, name) == CFunction(
        ["#include <glass.h>", "#include <motor.h>"],
        [prototype],
        ["-lglass"],
        returns,
        ["EBUSY", "EINVAL", "EDOM"],
    )


def test_what_is_no_function_of_the_page() -> None:
    document = with_facts(read_page(PAGE))
    assert c_function(document, "turn") is None
    assert c_function(document, "motor") is None


def test_the_card_of_a_function(program: Program) -> None:
    program.page("motor_turn.3", PAGE)
    assert program.out("motor_stop").split("\n")[3:13] == [
        "   #include <glass.h>",
        "   #include <motor.h>",
        "   int motor_stop(struct motor *m);",
        "",
        "   Link with -lglass",
        "",
        "RETURNS",
        "   0 on success.",
        "",
        "ERRORS",
    ]
