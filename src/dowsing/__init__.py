"""Find, read and understand the documentation of the commands on this machine, offline."""

__version__ = "0.1.0"
