"""Settings from the environment and the settings file."""

from __future__ import annotations

from pathlib import Path

import pytest

from dowsing.machine.settings import DEMO_LIBRARY, language_of, read_settings
from dowsing.model.errors import BadSettings


def test_own_variables_go_before_the_platform(tmp_path: Path) -> None:
    found = read_settings(
        {
            "HOME": "/h",
            "DOWSING_CACHE": "/c",
            "XDG_DATA_HOME": "/x",
            "DOWSING_CONFIG": str(tmp_path),
        }
    )
    assert (found.cache, found.data, found.config) == ("/c", "/x/dowsing", str(tmp_path))


def test_the_usual_folders(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("sys.platform", "linux")
    found = read_settings({"HOME": str(tmp_path), "XDG_CACHE_HOME": "not/absolute"})
    assert found.cache == str(tmp_path / ".cache" / "dowsing")
    assert found.data == str(tmp_path / ".local" / "share" / "dowsing")
    assert found.config == str(tmp_path / ".config" / "dowsing")


def test_the_same_folders_as_the_platform_library(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    platformdirs = pytest.importorskip("platformdirs")
    for variable in ("XDG_CACHE_HOME", "XDG_DATA_HOME", "XDG_CONFIG_HOME"):
        monkeypatch.delenv(variable, raising=False)
    monkeypatch.setenv("HOME", str(tmp_path))
    found = read_settings({"HOME": str(tmp_path)})
    assert found.cache == platformdirs.user_cache_dir("dowsing", appauthor=False)
    assert found.data == platformdirs.user_data_dir("dowsing", appauthor=False)
    assert found.config == platformdirs.user_config_dir("dowsing", appauthor=False)


@pytest.mark.parametrize(
    ("environment", "language"),
    [
        ({}, ""),
        ({"LANG": "C"}, ""),
        ({"LANG": "en_GB.UTF-8"}, ""),
        ({"LANG": "de_AT.UTF-8"}, "de_AT"),
        ({"LANG": "de_DE@euro"}, "de_DE"),
        ({"LANG": "de_DE", "LC_ALL": "C"}, ""),
        ({"LANG": "de_DE", "LC_MESSAGES": "pt_BR.UTF-8"}, "pt_BR"),
    ],
)
def test_language(environment: dict[str, str], language: str) -> None:
    assert language_of(environment) == language


def test_the_settings_file(tmp_path: Path) -> None:
    (tmp_path / "config.toml").write_text(
        'color = "never"\nwidth = 72\nman_path = ["/a", "/b"]\nlanguage = "fr"\n'
    )
    found = read_settings({"HOME": "/h", "DOWSING_CONFIG": str(tmp_path), "MANPATH": "/other"})
    assert found.man_path == "/a:/b"
    assert found.language == "fr"
    assert (found.values["color"], found.values["width"]) == ("never", "72")


def test_a_settings_file_that_is_no_good(tmp_path: Path) -> None:
    (tmp_path / "config.toml").write_text("color = [")
    with pytest.raises(BadSettings, match=r"config\.toml cannot be used .*; correct or remove it"):
        read_settings({"DOWSING_CONFIG": str(tmp_path)})


def test_the_demo_uses_its_own_library_in_english() -> None:
    found = read_settings({"HOME": "/h", "MANPATH": "/x", "LANG": "de_DE.UTF-8"}, demo=True)
    assert (found.man_path, found.language, found.demo) == (f"{DEMO_LIBRARY}/man", "", True)
