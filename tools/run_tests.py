"""Run pytest with a real window system: a virtual screen each for as many workers as there are processors.

A worker has its own screen, so that two windows never fight for the focus, and its own folders of settings. Tests of
one file stay with one worker. Prints pytest's closing line last.
"""

from __future__ import annotations

import os
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager

MOST_WORKERS = 4
"""More would only wait for each other's files."""
ALONE = ("-k", "--lf", "--pdb", "-x")
"""What is asked of a few tests: they answer sooner without workers."""


@contextmanager
def screen() -> Iterator[str]:
    """A virtual screen, ended with the block; its display, empty where none could be started."""
    read, write = os.pipe()
    server = subprocess.Popen(
        ["Xvfb", "-displayfd", str(write), "-screen", "0", "1280x800x24", "-nolisten", "tcp"],
        pass_fds=[write],
        stderr=subprocess.DEVNULL,
    )
    os.close(write)
    try:
        number = os.read(read, 16).decode().strip()
        yield f":{number}" if number else ""
    finally:
        os.close(read)
        server.terminate()
        server.wait(timeout=10)


def main() -> int:
    """Start the virtual screens, run the tests in them, and end them."""
    asked = sys.argv[1:]
    workers = 1 if any(each in ALONE for each in asked) else min(os.cpu_count() or 1, MOST_WORKERS)
    with ExitStack() as held:
        scratch = held.enter_context(tempfile.TemporaryDirectory(prefix="plain-compass-tests-"))
        screens = [held.enter_context(screen()) for _ in range(workers)]
        if not all(screens):
            print("The virtual screen (Xvfb) did not start.", file=sys.stderr)
            return 1
        environment = os.environ | {
            "QT_QPA_PLATFORM": "xcb",
            "DISPLAY": screens[0],
            "PLAIN_COMPASS_TEST_SCREENS": " ".join(screens),
            "PLAIN_COMPASS_TEST_FOLDER": scratch,
        }
        environment.pop("WAYLAND_DISPLAY", None)
        spread = ["-n", str(workers), "--dist", "loadfile"] if workers > 1 else ["-p", "no:xdist"]
        return subprocess.run(
            [sys.executable, "-m", "pytest", *spread, *asked], env=environment, check=False
        ).returncode


if __name__ == "__main__":
    sys.exit(main())
