"""Spot heights from CSV: columns east, north, height in metres or feet, or longitude, latitude and height."""

from __future__ import annotations

from ..core.base.errors import PlainCompassError
from ..core.site.site import SpotHeight
from .csv_rows import TableError, csv_rows, heading_of, number_in, unknown_unit
from .language import tr
from .projection import Origin
from .site_edits import MOST_SPOTS
from .units import METRES, NAMED

MOST_ROWS = 100_000
"""A longer list is a survey of its own, and is thinned by whoever made it."""
LOCAL, GLOBAL = ("east", "north"), ("longitude", "latitude")
ALIASES = {"e": "east", "x": "east", "n": "north", "y": "north", "z": "height", "lon": "longitude", "lat": "latitude"}


def import_spots(text: str, name: str, origin: Origin | None) -> tuple[tuple[SpotHeight, ...], tuple[str, ...]]:
    """(spot heights, a sentence for each row that was skipped).

    Raises TableError when the file as a whole is no table of heights, or wants an origin that is not stated.
    """
    rows = csv_rows(text, name, MOST_ROWS)
    columns = _columns(rows[0], name)
    pair = LOCAL if set(LOCAL) <= set(columns) else GLOBAL
    if pair == GLOBAL and origin is None:
        raise TableError(
            tr(
                "{name} is in longitude and latitude, and the job states no origin; type it on the tree sheet.",
                name=name,
            )
        )
    taken: dict[tuple[float, float], SpotHeight] = {}
    skipped: list[str] = []
    for number, row in enumerate(rows[1:], start=2):
        if len(taken) >= MOST_SPOTS:
            skipped.append(
                tr(
                    "{count} rows from number {number} on: a site holds {most_spots} spot heights.",
                    count=len(rows) - number + 1,
                    number=number,
                    most_spots=MOST_SPOTS,
                )
            )
            break
        try:
            spot = _spot(row, columns, pair, origin)
        except (PlainCompassError, ValueError) as error:
            skipped.append(tr("Row {number}: {error}.", number=number, error=str(error).rstrip(".")))
            continue
        place = (round(spot.east_m, 2), round(spot.north_m, 2))
        if place in taken:
            skipped.append(tr("Row {number}: another height is given for the same place.", number=number))
        else:
            taken[place] = spot
    return tuple(taken.values()), tuple(skipped)


def _columns(headings: list[str], name: str) -> dict[str, tuple[int, float]]:
    """Heading -> (column, factor to metres or degrees)."""
    found: dict[str, tuple[int, float]] = {}
    for index, heading in enumerate(headings):
        title, unit = heading_of(heading, ALIASES)
        if title in ("east", "north", "height"):
            unit = unit or "m"
            if unit not in NAMED:
                raise unknown_unit(name, heading, unit, "m, ft")
            found[title] = (index, METRES[NAMED[unit]])
        elif title in GLOBAL:
            found[title] = (index, 1.0)
    if "height" not in found or not (set(LOCAL) <= set(found) or set(GLOBAL) <= set(found)):
        raise TableError(
            tr(
                "{name} has the headings {names}; wanted are east [m], north [m], height [m], or "
                "longitude, latitude, height [m].",
                name=name,
                names=", ".join(headings),
            )
        )
    return found


def _spot(
    row: list[str], columns: dict[str, tuple[int, float]], pair: tuple[str, str], origin: Origin | None
) -> SpotHeight:
    one, other, height = (_number(row, columns, name) for name in (*pair, "height"))
    if pair == GLOBAL and origin is not None:
        one, other = origin.metres(one, other)
    for name, value, low, high in (
        ("east", one, -3000, 3000),
        ("north", other, -3000, 3000),
        ("height", height, -500, 9000),
    ):
        if not low <= value <= high:
            raise ValueError(
                tr("{name} is {value:g} m; accepted: {low} to {high} m", name=name, value=value, low=low, high=high)
            )
    return SpotHeight(round(one, 3), round(other, 3), round(height, 3))


def _number(row: list[str], columns: dict[str, tuple[int, float]], name: str) -> float:
    index, factor = columns[name]
    cell = row[index].strip() if index < len(row) else ""
    try:
        return number_in(cell) * factor
    except ValueError:
        raise ValueError(tr("{name} is “{cell}”; accepted: a number", name=name, cell=cell[:40])) from None
