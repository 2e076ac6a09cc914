"""``plain-compass desktop``: entry, icon, type of file, man pages and completion put where a desktop looks for them."""

from __future__ import annotations

import argparse
import os
import shutil
import subprocess
import sys
from datetime import date
from pathlib import Path

from ..job.disk import JobFileError, reason_of, write_atomically
from ..job.language import tr
from ..job.tables import DATA
from .manual import SHELLS, completion, man_pages
from .parsers import make_parser

SHIPPED = DATA / "desktop"
"""What ships as it is."""
TYPE = "application-vnd.plain-compass.job+json"
"""The type of job files, as icon themes name it."""
NAME = "plain-compass"
COMPLETIONS = {
    "bash": f"bash-completion/completions/{NAME}",
    "zsh": f"zsh/site-functions/_{NAME}",
    "fish": f"fish/vendor_completions.d/{NAME}.fish",
}
"""Where each shell looks, below a share folder."""
AFTERWARDS = (("update-mime-database", "mime"), ("update-desktop-database", "applications"))
"""What tells the desktop of it, and the folder it looks at."""


def add_to(parser: argparse.ArgumentParser) -> None:
    """What to do, where."""
    what = parser.add_mutually_exclusive_group(required=True)
    what.add_argument("--install", action="store_true", help=tr("put everything in its place, for this user"))
    what.add_argument("--remove", action="store_true", help=tr("take it away again"))
    what.add_argument("--completion", choices=SHELLS, help=tr("print what completes commands in a shell"))
    what.add_argument("--man", metavar="FOLDER", type=Path, help=tr("write the man pages into a folder"))
    parser.add_argument("--share", type=Path, help=tr("the share folder; your own where left out"))
    parser.add_argument("--exec", default="", help=tr("what the desktop is to start; this program where left out"))


def run(arguments: argparse.Namespace) -> int:
    """Do it."""
    if arguments.completion:
        print(completion(make_parser(), arguments.completion), end="")
        return 0
    if arguments.man:
        pages = man_pages(make_parser(), date.today().isoformat())
        for name, page in pages.items():
            _write(arguments.man / name, page)
        print(tr("{count} man pages written to {man}.", count=len(pages), man=arguments.man))
        return 0
    share = arguments.share or Path(os.environ.get("XDG_DATA_HOME") or Path.home() / ".local/share")
    files = files_for(arguments.exec or _started_as())
    if arguments.install:
        for place, content in files.items():
            _write(share / place, content)
    else:
        for place in files:
            (share / place).unlink(missing_ok=True)
    _tell_desktop(share)
    done = tr("put into") if arguments.install else tr("taken out of")
    print(tr("{count} files {done} {share}.", count=len(files), done=done, share=share))
    return 0


def files_for(started: str) -> dict[str, str | bytes]:
    """Every file by its place below a share folder.

    Args:
        started: what the desktop is to start.
    """
    entry = (SHIPPED / f"{NAME}.desktop").read_text(encoding="utf-8")
    entry = entry.replace(f"Exec={NAME} ", f"Exec={started} ").replace(f"TryExec={NAME}", f"TryExec={started}")
    files: dict[str, str | bytes] = {
        f"applications/{NAME}.desktop": entry,
        f"mime/packages/{NAME}.xml": (SHIPPED / f"{NAME}.xml").read_bytes(),
        f"icons/hicolor/scalable/apps/{NAME}.svg": (SHIPPED / "icons" / f"{NAME}.svg").read_bytes(),
        f"icons/hicolor/scalable/mimetypes/{TYPE}.svg": (SHIPPED / "icons" / f"{NAME}.svg").read_bytes(),
    }
    for metainfo in (each for each in SHIPPED.iterdir() if each.name.endswith(".metainfo.xml")):
        files[f"metainfo/{metainfo.name}"] = metainfo.read_bytes()
    for icon in (each for each in (SHIPPED / "icons").iterdir() if each.name.endswith(".png")):
        size = icon.name.removesuffix(".png").rpartition("-")[2]
        files[f"icons/hicolor/{size}x{size}/apps/{NAME}.png"] = icon.read_bytes()
    parser = make_parser()
    for name, page in man_pages(parser, date.today().isoformat()).items():
        files[f"man/man1/{name}"] = page
    for shell, place in COMPLETIONS.items():
        files[place] = completion(parser, shell)
    return files


def _started_as() -> str:
    """This program, by its whole path, so that it starts whatever the desktop's path is."""
    beside = Path(sys.executable).with_name(NAME)
    return str(beside) if beside.exists() else shutil.which(NAME) or NAME


def _write(path: Path, content: str | bytes) -> None:
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise JobFileError(
            tr("{parent} could not be made: {reason}.", parent=path.parent, reason=reason_of(error))
        ) from None
    write_atomically(path, content)


def _tell_desktop(share: Path) -> None:
    """Where the desktop's own tools are there they are told; without them it finds out at the next login."""
    for tool, folder in AFTERWARDS:
        if shutil.which(tool) and (share / folder).is_dir():
            subprocess.run([tool, str(share / folder)], check=False, capture_output=True)
