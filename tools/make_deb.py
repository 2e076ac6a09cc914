"""Build a Debian package for the Python of this machine: ``python tools/make_deb.py``, or ``make deb``.

Everything the program needs of Python lies in a virtual environment of its own under ``/opt/plain-compass``, as the
lock has it; what it needs of the system is declared. Entry, icon, type of file, man pages, completion are in their
places.
"""

from __future__ import annotations

import gzip
import os
import platform
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
OPT = "opt/plain-compass"
DEPENDS = (
    "libc6 (>= 2.28)",
    "libgl1",
    "libegl1",
    "libglib2.0-0 | libglib2.0-0t64",
    "libdbus-1-3",
    "libfontconfig1",
    "libxkbcommon-x11-0",
    "libxcb-cursor0",
    "libxcb-icccm4",
    "libxcb-keysyms1",
    "libxcb-shape0",
)
"""What Qt wants of the system, and the C library the wheels were built against."""
SCRIPTS = {
    "postinst": f'if [ "$1" = configure ]; then /{OPT}/bin/python3 -m compileall -q /{OPT}/lib || true; fi',
    "prerm": f"find /{OPT} -name __pycache__ -type d -prune -exec rm -rf {{}} +",
}
"""Bytecode is made where it is used, and goes before the rest does: a start is half as long with it."""
ARCHITECTURES = {"x86_64": "amd64", "aarch64": "arm64"}
OVERRIDES = (
    "dir-or-file-in-opt",
    "wrong-path-for-interpreter",
    "embedded-library",
    "unstripped-binary-or-object",
    "custom-library-search-path",
    "library-not-linked-against-libc",
)
"""What lintian says of wheels that were built elsewhere: an environment of one's own under /opt is what is wanted."""


def run(*command: str) -> str:
    """Run a tool; its output, or an error with it."""
    done = subprocess.run(command, check=False, capture_output=True, text=True, cwd=ROOT)
    if done.returncode:
        raise SystemExit(f"{' '.join(command[:4])} ... failed:\n{done.stdout}{done.stderr}")
    return done.stdout.strip()


def version() -> str:
    """The program's."""
    text = (ROOT / "src/plain_compass/__init__.py").read_text(encoding="utf-8")
    return text.split('__version__ = "')[1].split('"')[0]


def environment(stage: Path) -> None:
    """A virtual environment on the system's Python with everything the lock names, and the program."""
    short = f"python{sys.version_info.major}.{sys.version_info.minor}"
    opt = stage / OPT
    site = opt / "lib" / short / "site-packages"
    site.mkdir(parents=True)
    pip = (sys.executable, "-m", "pip", "--disable-pip-version-check", "install", "--quiet", "--no-compile", "--target")
    run(*pip, str(site), "--no-deps", "--require-hashes", "-r", "requirements/runtime.lock")
    with tempfile.TemporaryDirectory() as wheels:
        build = (sys.executable, "-m", "pip", "--disable-pip-version-check", "wheel", "--quiet", "--no-deps")
        run(*build, "--no-build-isolation", "-w", wheels, ".")
        (wheel,) = Path(wheels).glob("*.whl")
        run(*pip, str(site), "--no-deps", str(wheel))
    shutil.rmtree(site / "bin", ignore_errors=True)
    for each in [*site.rglob("__pycache__")]:
        shutil.rmtree(each)
    (opt / "bin").mkdir()
    (opt / "bin" / "python3").symlink_to(f"/usr/bin/{short}")
    where = f"home = /usr/bin\ninclude-system-site-packages = false\nversion = {platform.python_version()}\n"
    (opt / "pyvenv.cfg").write_text(where)
    started = opt / "bin" / "plain-compass"
    started.write_text(f"#!/{OPT}/bin/python3\nimport sys\n\nfrom plain_compass.cli import main\n\nsys.exit(main())\n")
    started.chmod(0o755)
    bin_folder = stage / "usr/bin"
    bin_folder.mkdir(parents=True)
    (bin_folder / "plain-compass").symlink_to(f"/{OPT}/bin/plain-compass")


def places(stage: Path) -> None:
    """What a desktop looks for, documentation, and what lintian is to pass over."""
    sys.path.insert(0, str(ROOT / "src"))
    from plain_compass.commands.desktop import files_for

    for place, content in files_for("plain-compass").items():
        path = stage / "usr/share" / place
        path.parent.mkdir(parents=True, exist_ok=True)
        data = content.encode() if isinstance(content, str) else content
        if place.startswith("man/"):
            path, data = path.with_name(f"{path.name}.gz"), gzip.compress(data, 9, mtime=0)
        if place.startswith("zsh/site-functions"):
            path = stage / "usr/share/zsh/vendor-completions" / path.name
            path.parent.mkdir(parents=True, exist_ok=True)
        path.write_bytes(data)
    doc = stage / "usr/share/doc/plain-compass"
    doc.mkdir(parents=True)
    licence = (ROOT / "LICENSE").read_text(encoding="utf-8").splitlines()[0].strip()
    told = "Plain Compass is under the Apache License, Version 2.0; see /usr/share/common-licenses/Apache-2.0.\n"
    fonts = (ROOT / "src/plain_compass/data/fonts/OFL.txt").read_text(encoding="utf-8")
    (doc / "copyright").write_text(f"{told}({licence})\n\nIts fonts are under the SIL Open Font License:\n\n{fonts}")
    entry = f"plain-compass ({version()}) stable; urgency=low\n\n  * See CHANGELOG of the program.\n\n"
    entry += " -- The Plain Compass developers <developers@plain-compass.invalid>  Thu, 26 Nov 2026 12:00:00 +0000\n"
    (doc / "changelog.gz").write_bytes(gzip.compress(entry.encode(), 9, mtime=0))
    overrides = stage / "usr/share/lintian/overrides"
    overrides.mkdir(parents=True)
    (overrides / "plain-compass").write_text("".join(f"plain-compass: {each} *\n" for each in OVERRIDES))


def control(stage: Path) -> str:
    """The package's own description; returns its architecture."""
    architecture = ARCHITECTURES[platform.machine()]
    minor = sys.version_info.minor
    size = sum(each.stat().st_size for each in stage.rglob("*") if each.is_file() and not each.is_symlink()) // 1024
    python = f"python3 (>= 3.{minor}), python3 (<< 3.{minor + 1})"
    (stage / "DEBIAN").mkdir()
    (stage / "DEBIAN/control").write_text(
        f"Package: plain-compass\nVersion: {version()}\nArchitecture: {architecture}\nSection: science\n"
        f"Priority: optional\nInstalled-Size: {size}\nDepends: {python}, {', '.join(DEPENDS)}\n"
        "Maintainer: The Plain Compass developers <developers@plain-compass.invalid>\n"
        "Description: design the felling cut of a tree before the saw starts\n"
        " Face notch, hinge and back or bore cut from trunk size, lean, side weight and\n"
        " decay, with what holds the tree at every moment, where it may come to lie, and\n"
        " one card to take along. Decision support: local law, site rules and the\n"
        " competent person on the spot come first.\n"
    )
    for name, does in SCRIPTS.items():
        script = stage / "DEBIAN" / name
        script.write_text(f"#!/bin/sh\nset -e\n{does}\n")
        script.chmod(0o755)
    return architecture


def main() -> int:
    """Build it into dist/."""
    for tool in ("dpkg-deb",):
        if shutil.which(tool) is None:
            raise SystemExit(f"{tool} is not on this machine; get it with: apt-get install dpkg")
    target = ROOT / "dist"
    target.mkdir(exist_ok=True)
    with tempfile.TemporaryDirectory() as scratch:
        stage = Path(scratch) / "stage"
        stage.mkdir(mode=0o755)
        os.umask(0o022)
        environment(stage)
        places(stage)
        package = target / f"plain-compass_{version()}_{control(stage)}.deb"
        for each in stage.rglob("*"):
            if each.is_symlink() or each.parent.name == "DEBIAN":
                continue
            runs = each.is_dir() or each == stage / OPT / "bin" / "plain-compass"
            each.chmod(0o755 if runs else 0o644)
        run("dpkg-deb", "--root-owner-group", "-Zxz", "--build", str(stage), str(package))
    print(f"{package.relative_to(ROOT)}: {package.stat().st_size / 1e6:.0f} MB, for Python 3.{sys.version_info.minor}.")
    return 0


if __name__ == "__main__":
    sys.exit(main())
