"""On the desktop: everything in its place and away again, man pages and completion of every command."""

from __future__ import annotations

import shutil
import struct
import subprocess
from pathlib import Path
from xml.etree import ElementTree

import pytest

from plain_compass import __version__
from plain_compass.cli import main
from plain_compass.commands.desktop import SHIPPED, files_for
from plain_compass.commands.manual import completion, man_pages
from plain_compass.commands.parsers import COMMANDS, make_parser
from plain_compass.job.demo import demo_job
from plain_compass.job.files import job_text


def test_everything_is_put_in_its_place_and_taken_away_again(tmp_path: Path) -> None:
    mine = tmp_path / "applications" / "mine.desktop"
    mine.parent.mkdir(parents=True)
    mine.write_text("mine")
    assert main(["desktop", "--install", "--share", str(tmp_path), "--exec", "/opt/here/plain-compass"]) == 0
    entry = (tmp_path / "applications/plain-compass.desktop").read_text()
    assert "Exec=/opt/here/plain-compass open %F" in entry and "StartupWMClass=plain-compass" in entry
    assert (tmp_path / "icons/hicolor/16x16/apps/plain-compass.png").exists()
    assert main(["desktop", "--remove", "--share", str(tmp_path)]) == 0
    left = [path for path in tmp_path.rglob("*plain-compass*") if path.is_file()]
    assert left == [] and mine.read_text() == "mine"


def test_the_icon_has_every_size_it_says() -> None:
    icons = sorted((Path(str(SHIPPED)) / "icons").glob("*.png"))
    assert {16, 32, 48, 128, 256, 512} <= {int(path.stem.rpartition("-")[2]) for path in icons}
    for path in icons:
        size = int(path.stem.rpartition("-")[2])
        # Width and height stand in the first chunk of a PNG.
        assert struct.unpack(">II", path.read_bytes()[16:24]) == (size, size)


def test_the_type_of_file_has_a_name_and_a_magic_that_a_job_shows() -> None:
    root = ElementTree.parse(str(SHIPPED / "plain-compass.xml")).getroot()
    space = {"m": "http://www.freedesktop.org/standards/shared-mime-info"}
    (glob,) = root.findall(".//m:glob", space)
    (magic,) = root.findall(".//m:match", space)
    assert glob.attrib["pattern"] == "*.pcjob.json"
    assert magic.attrib["value"] in job_text(demo_job())[:256]


def test_what_is_told_of_the_program_names_this_version() -> None:
    (metainfo,) = Path(str(SHIPPED)).glob("*.metainfo.xml")
    root = ElementTree.parse(metainfo).getroot()
    assert root.find("releases/release").attrib["version"] == __version__
    assert root.findtext("launchable") == "plain-compass.desktop"


@pytest.mark.parametrize("tool", ["desktop-file-validate", "appstreamcli", "man"])
def test_the_desktops_own_tools_find_nothing_wrong(tmp_path: Path, tool: str) -> None:
    if shutil.which(tool) is None:
        pytest.skip(f"{tool} is not on this machine")
    main(["desktop", "--install", "--share", str(tmp_path)])
    metainfo = next((tmp_path / "metainfo").iterdir())
    asked = {
        "desktop-file-validate": [str(tmp_path / "applications/plain-compass.desktop")],
        "appstreamcli": ["validate", "--no-net", str(metainfo)],
        "man": ["--warnings", "-l", str(tmp_path / "man/man1/plain-compass.1")],
    }[tool]
    done = subprocess.run([tool, *asked], capture_output=True, text=True, check=False, env={"PATH": "/usr/bin:/bin"})
    assert done.returncode == 0 and not done.stderr.strip(), done.stdout + done.stderr


def test_every_command_has_a_page_with_every_option_it_takes() -> None:
    pages = man_pages(make_parser(), "2026-11-26")
    assert set(pages) == {"plain-compass.1", *(f"plain-compass-{name}.1" for name in COMMANDS)}
    assert "\\-\\-fail\\-on" in pages["plain-compass-assess.1"] and "\\-\\-set" in pages["plain-compass-why.1"]
    for name, command in COMMANDS.items():
        told = command.help.replace("-", "\\-").replace("…", "...")
        assert told in pages["plain-compass.1"], name
    assert all("%(" not in page and ".TH" in page for page in pages.values())


@pytest.mark.parametrize("shell", ["bash", "zsh", "fish"])
def test_completion_knows_every_command(shell: str, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["desktop", "--completion", shell]) == 0
    told = capsys.readouterr().out
    assert told == completion(make_parser(), shell) and all(name in told for name in COMMANDS)
    if shell != "bash" and shutil.which(shell) is None:
        return
    done = subprocess.run([shell, "-n"], input=told, text=True, capture_output=True, check=False)
    assert done.returncode == 0, done.stderr


def test_bash_completes_a_command_and_its_options() -> None:
    script = completion(make_parser(), "bash") + (
        "COMP_WORDS=(plain-compass assess --f); COMP_CWORD=2; _plain_compass; echo ${COMPREPLY[@]}"
    )
    done = subprocess.run(["bash"], input=script, text=True, capture_output=True, check=True)
    assert done.stdout.split() == ["--fail-on"]


def test_a_folder_that_cannot_be_written_is_a_sentence(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    (tmp_path / "share").write_text("a file in the way")
    assert main(["desktop", "--install", "--share", str(tmp_path / "share")]) == 2
    assert "could not be made" in capsys.readouterr().err


def test_files_are_the_same_for_any_prefix() -> None:
    assert set(files_for("a")) == set(files_for("/opt/b"))
