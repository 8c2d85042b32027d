"""Running a program for what it says of itself, so that nothing else can come of it."""
