"""Name the system libraries that are missing for the window, and install them where that is possible.

Runs before anything of Qt is imported, with nothing but the standard library:
``python tools/system_libraries.py [--display] [--tests]`` looks at the Qt plugins of the running interpreter. Where Qt
is not installed yet it asks the loader for every library a window is known to need, so that a bare machine is told at
once and not after everything has been fetched. Exit status 0 when nothing is missing (any more), 3 when something is.
"""

from __future__ import annotations

import argparse
import ctypes
import os
import re
import shutil
import subprocess
import sys
import sysconfig
from pathlib import Path

PACKAGES = {
    "libGL.so.1": "libgl1",
    "libEGL.so.1": "libegl1",
    "libOpenGL.so.0": "libopengl0",
    "libGLX.so.0": "libglx0",
    "libglib-2.0.so.0": "libglib2.0-0",
    "libgthread-2.0.so.0": "libglib2.0-0",
    "libdbus-1.so.3": "libdbus-1-3",
    "libfontconfig.so.1": "libfontconfig1",
    "libfreetype.so.6": "libfreetype6",
    "libbrotlidec.so.1": "libbrotli1",
    "libgssapi_krb5.so.2": "libgssapi-krb5-2",
    "libX11.so.6": "libx11-6",
    "libX11-xcb.so.1": "libx11-xcb1",
    "libxkbcommon.so.0": "libxkbcommon0",
    "libxkbcommon-x11.so.0": "libxkbcommon-x11-0",
    "libxcb.so.1": "libxcb1",
    "libxcb-cursor.so.0": "libxcb-cursor0",
    "libxcb-icccm.so.4": "libxcb-icccm4",
    "libxcb-image.so.0": "libxcb-image0",
    "libxcb-keysyms.so.1": "libxcb-keysyms1",
    "libxcb-randr.so.0": "libxcb-randr0",
    "libxcb-render.so.0": "libxcb-render0",
    "libxcb-render-util.so.0": "libxcb-render-util0",
    "libxcb-shape.so.0": "libxcb-shape0",
    "libxcb-shm.so.0": "libxcb-shm0",
    "libxcb-sync.so.1": "libxcb-sync1",
    "libxcb-util.so.1": "libxcb-util1",
    "libxcb-xfixes.so.0": "libxcb-xfixes0",
    "libxcb-xkb.so.1": "libxcb-xkb1",
    "libz.so.1": "zlib1g",
    "libzstd.so.1": "libzstd1",
}
"""Library -> Debian package that has it."""
OFFSCREEN = ("libqoffscreen.so",)
DISPLAY = ("libqxcb.so",)


def qt_folder() -> Path:
    """Where Qt is in the running environment, if it is."""
    return Path(sysconfig.get_paths()["purelib"]) / "PySide6" / "Qt"


def _loads(name: str) -> bool:
    try:
        ctypes.CDLL(name)
    except OSError:
        return False
    return True


def foreseen_libraries(*, display: bool) -> list[str]:
    """Libraries known to be needed that the loader does not find; for use before Qt is there to be asked."""
    return [name for name in PACKAGES if (display or "xcb" not in name) and not _loads(name)]


def missing_libraries(plugins: tuple[str, ...]) -> list[str]:
    """Libraries that the loader does not find for these platform plugins and for Qt's own libraries."""
    qt = qt_folder()
    if not qt.is_dir():
        return foreseen_libraries(display=DISPLAY[0] in plugins)
    wanted = [qt / "plugins" / "platforms" / name for name in plugins]
    wanted += [qt / "lib" / f"libQt6{name}.so.6" for name in ("Gui", "Widgets", "Svg", "Network")]
    found: set[str] = set()
    for file in wanted:
        if file.exists():
            told = subprocess.run(["ldd", str(file)], capture_output=True, text=True, check=False).stdout
            found.update(re.findall(r"(\S+) => not found", told))
    return sorted(name for name in found if not name.startswith("libQt6"))


def missing_packages(libraries: list[str], *, tests: bool) -> list[str]:
    """Debian packages for the libraries, and for a virtual screen when tests are to run."""
    packages = {PACKAGES.get(name, name) for name in libraries}
    if tests:
        packages.update(
            package for package, program in (("xvfb", "Xvfb"), ("xauth", "xauth")) if not shutil.which(program)
        )
    return sorted(packages)


def install(packages: list[str]) -> bool:
    """Install with apt where we are root and it is there; True when it worked."""
    if os.geteuid() != 0 or not shutil.which("apt-get"):
        return False
    environment = os.environ | {"DEBIAN_FRONTEND": "noninteractive"}
    # What apt prints is left to be seen: fetching takes half a minute and more, and silence looks like a hang.
    update, get = ["apt-get", "update", "-q"], ["apt-get", "install", "-y", "-q", "--no-install-recommends", *packages]
    return all(subprocess.run(command, env=environment, check=False).returncode == 0 for command in (update, get))


def main() -> int:
    """Say in one sentence what is missing and how to get it, or get it."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--display", action="store_true", help="look at what a real window needs, too")
    parser.add_argument("--tests", action="store_true", help="look at what the tests' virtual screen needs, too")
    arguments = parser.parse_args()
    plugins = OFFSCREEN + (DISPLAY if arguments.display or arguments.tests else ())
    packages = missing_packages(missing_libraries(plugins), tests=arguments.tests)
    if not packages:
        return 0
    names = " ".join(packages)
    print(
        f"Missing system libraries: {names}; installing them."
        if os.geteuid() == 0
        else f"Missing system libraries: {names}; get them with: sudo apt-get install {names}",
        flush=True,
    )
    if install(packages) and not missing_packages(missing_libraries(plugins), tests=arguments.tests):
        return 0
    if os.geteuid() == 0:
        print(f"They could not be installed; get them with: apt-get update && apt-get install {names}")
    return 3


if __name__ == "__main__":
    sys.exit(main())
