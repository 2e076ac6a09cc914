"""Run pytest with a real window system: under Xvfb when there is no display. Prints pytest's closing line last."""

from __future__ import annotations

import os
import subprocess
import sys
import tempfile


def main() -> int:
    """Start a virtual screen, run the tests in it, and end it."""
    with tempfile.TemporaryDirectory(prefix="plain-compass-tests-") as scratch:
        environment = os.environ | {
            "QT_QPA_PLATFORM": "xcb",
            "XDG_CONFIG_HOME": f"{scratch}/config",
            "XDG_STATE_HOME": f"{scratch}/state",
        }
        environment.pop("WAYLAND_DISPLAY", None)
        read, write = os.pipe()
        server = subprocess.Popen(
            ["Xvfb", "-displayfd", str(write), "-screen", "0", "1280x800x24", "-nolisten", "tcp"],
            pass_fds=[write],
            stderr=subprocess.DEVNULL,
        )
        os.close(write)
        try:
            number = os.read(read, 16).decode().strip()
            if not number:
                print("The virtual screen (Xvfb) did not start.", file=sys.stderr)
                return 1
            environment["DISPLAY"] = f":{number}"
            return subprocess.run(
                [sys.executable, "-m", "pytest", *sys.argv[1:]], env=environment, check=False
            ).returncode
        finally:
            server.terminate()
            server.wait(timeout=10)


if __name__ == "__main__":
    sys.exit(main())
