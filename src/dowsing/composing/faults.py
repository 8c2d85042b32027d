"""What can be wrong with what a field holds, as codes; render/phrases.py has the words."""

from __future__ import annotations

from dowsing.model.told import Code


class FaultCode(Code):
    """Why a value cannot be right, or what a field lacks."""

    NEEDED = "needed"  # the field, or those of which one is needed
    WANTED = "wanted"  # what is wanted, in words of the page or of the description
    VALUE_WANTED = "value wanted"
    ON_OR_OFF = "on or off"
    NOT_TYPABLE = "not typable"
    NOT_ALLOWED = "not allowed"  # value, the allowed ones or the nearest of them
    DOES_NOT_FIT = "does not fit"  # value
    OUT_OF_LIMITS = "out of limits"  # least, greatest
    NO_ADDRESS = "no address"
    NO_FILE = "no file"
    NO_FOLDER = "no folder"
    NOT_A_FOLDER = "not a folder"
    # parts of a schedule
    NO_SCHEDULE = "no schedule"
    NOT_A_NUMBER = "not a number"  # what stands there
    NOT_A_NAME = "not a name"  # what stands there, the nearest names
    NOT_WITHIN = "not within"  # number, least, greatest
    BACKWARDS = "backwards"  # first, last
    STEP_OF_ZERO = "step of zero"
    STEP_ALONE = "step alone"  # step
    # columns of a file
    COLON = "colon"
    BLANK = "blank"
    TOO_MANY = "too many"  # what no column is for
