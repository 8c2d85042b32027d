"""Shells asked for their own builtins and keywords, each through its public interface."""
