"""Times of day, and how often something is to happen."""

from __future__ import annotations

import pytest

from dowsing.tasks.schedules import calendar_of, schedules_in, times_in


@pytest.mark.parametrize(
    ("sentence", "times"),
    [
        ("wake me at 6:15", ["6:15"]),
        ("at 7pm and at 12 am", ["19:00", "00:00"]),
        ("at 11:30 p.m. exactly", ["23:30"]),
        ("at noon, then at midnight", ["12:00", "00:00"]),
        ("at 6 every day", ["06:00"]),
        ("at 9 o'clock", ["09:00"]),
        ("at 13pm or at 25:00", []),
        ("lines 10:20 of the file v1.2:30", ["10:20"]),
        ("9 files", []),
    ],
)
def test_times_of_day(sentence: str, times: list[str]) -> None:
    assert [one.text for one in times_in(sentence)] == times


@pytest.mark.parametrize(
    ("said", "fields"),
    [
        ("every 5 minutes", "*/5 * * * *"),
        ("every minute", "* * * * *"),
        ("every two hours", "0 */2 * * *"),
        ("hourly", "0 * * * *"),
        ("each hour", "0 * * * *"),
        ("every day at 3:30", "30 3 * * *"),
        ("2:05 every night", "5 2 * * *"),
        ("daily", "0 0 * * *"),
        ("every morning", "0 7 * * *"),
        ("every evening at 8pm", "0 20 * * *"),
        ("every weekday at 6:15", "15 6 * * 1-5"),
        ("on weekends at noon", "0 12 * * 6,0"),
        ("every monday", "0 0 * * 1"),
        ("every tuesday and friday at 9:00", "0 9 * * 2,5"),
        ("monday to thursday at 17:00", "0 17 * * 1-4"),
        ("weekly", "0 0 * * 0"),
        ("every month", "0 0 1 * *"),
        ("on the 15th of every month at 4:00", "0 4 15 * *"),
        ("on the first of each month", "0 0 1 * *"),
        ("yearly", "0 0 1 1 *"),
        ("at boot", "@reboot"),
        ("after every reboot", "@reboot"),
    ],
)
def test_schedules_as_fields_of_a_cron_table(said: str, fields: str) -> None:
    sentence = f"run sync.sh {said}"
    found = schedules_in(sentence)
    assert [one.text for one in found] == [fields]
    assert sentence[found[0].start : found[0].end] == said


@pytest.mark.parametrize("sentence", ["every file", "each of them", "the month of may", "daytime"])
def test_what_is_no_schedule(sentence: str) -> None:
    assert schedules_in(sentence) == []


@pytest.mark.parametrize(
    ("fields", "calendar"),
    [
        ("15 6 * * 1-5", "Mon..Fri *-*-* 06:15:00"),
        ("0 9 * * 6,0", "Sat,Sun *-*-* 09:00:00"),
        ("*/5 * * * *", "*-*-* *:00/5:00"),
        ("0 */2 * * *", "*-*-* 00/2:00:00"),
        ("30 2 1 1 *", "*-01-01 02:30:00"),
        ("@reboot", None),
    ],
)
def test_schedules_as_times_of_a_calendar(fields: str, calendar: str | None) -> None:
    assert calendar_of(fields) == calendar
