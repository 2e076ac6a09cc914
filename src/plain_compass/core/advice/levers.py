"""Everything about a plan that a person can change, each in steps from the smallest: mends are sought in it."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import field, replace

from ..base.errors import InputError
from ..base.frames import full_turn_deg
from ..base.frozen import dataclass
from ..base.phrase import Phrase, Row, phrase
from ..base.quantity import declared
from ..cuts import form_of, forms_of
from ..cuts.form import Fit
from ..design.cut import Cut
from ..design.first import resized
from ..judge.limits import step_wanted_m
from ..mechanics.wedge_plan import JACK_FROM_m
from ..plan.case import Case, Planned
from ..plan.minutes import ROPE_MIN
from ..site.rigging import initial_rope, turned_rope_of
from ..tree.sections import Place
from ..tree.tree import Tree
from .begin import seats_for, stacked_seats


@dataclass(frozen=True, slots=True)
class Change:
    """One thing changed.

    Attributes:
        lever: what is changed; changes of one lever are steps of it, from the smallest.
        words: what is done, as one would say it.
        cost: how much trouble it is, from 0; the simplest first.
        case: the case after it.
        within: whether the kit at hand does it.
        asked: it as a thing, for what would do it and is not at hand.
    """

    lever: str
    words: Phrase
    cost: int
    case: Case
    within: bool = True
    asked: Phrase = field(default_factory=lambda: phrase("mend.nothing"))


THICKER = (0.9, 1.1, 0.8, 1.2, 0.7, 1.35, 0.6, 1.5)
"""Times the hinge as it is that thinner and thicker ones are tried at."""
TAPERS = (0.1, 0.2, 0.3)
"""Shares of the mean thickness moved from one end to the other."""
ACROSS_RANGE = (0.0, 0.25, 0.5, 0.75, 1.0)
"""Places within a range of the practice."""
RAISED_m = (0.1, 0.2, 0.3, 0.5, 0.8)
"""By how much a cut is raised from the ground."""
STRAPS = (0.75, 1.25, 1.5, 2.0)
LAYS_DEG = (5.0, 10.0, 15.0, 20.0, 30.0, 45.0, 60.0, 90.0)
"""Turns of the lay, either way: past a right angle it is another plan."""
NEAR_DEG = 15.0
"""A turn of the lay within this is a small one."""
AIMS_OFF_DEG = (2.0, 4.0, 6.0, 8.0)
"""What a face is aimed off by, either way."""
HAULS_N = (400.0, 800.0, 1500.0, 3000.0, 6000.0, 12_000.0, 25_000.0)
"""Pulls on the rope: of one, two or more people, a hand winch, a machine."""
ROPE_LENGTHS = 4.0
"""Tree heights of rope that reach any anchor looked for here and back to the haul."""
ENOUGH_WEDGES = 3
"""Wedges past which more of them are no advice."""
JACK_RISE_m = 0.10
"""What a jack for felling lifts."""
STIFF = 3
"""Trouble of a hinge that is bored through the face: it is tried with the back cuts, as it goes with all of them."""
TALLEST_CUT_m, TALLEST_WITH_REASON_m = 0.6, 1.2
"""Nobody raises a cut past the first without a reason, such as rot, metal or flare, and past the second with one."""
(SEATS, THIN, THICK, TAPER, SHAPE, BACK, JACK, ROPE, HIGHER, NEAR_LAY, FAR_LAY, FORM) = range(12)
"""Trouble of each sort of change, in the order in which a faller tries them."""


def changes(planned: Planned) -> Iterator[Change]:
    """Every change that is tried, lever by lever, the simplest first. Some of them do not fit the stem."""
    for lever in LEVERS:
        yield from lever(planned)


def _cut(case: Case, **parts: object) -> Case:
    return replace(case, cut=replace(case.cut, **parts))  # type: ignore[arg-type]


def _wedges(planned: Planned) -> Iterator[Change]:
    """Wedges where the form has its own places, more of them beside each other, or on each other: of those carried."""
    case, cut, kit = planned.case, planned.case.cut, planned.case.kit
    placed = sum(seat.stacked for seat in cut.wedges)
    depth = planned.parts.section.depth_m
    own = seats_for(cut, replace(kit, wedge_count=min(max(placed, 1), kit.wedge_count)), depth)
    if own and {seat.at_deg for seat in own} != {seat.at_deg for seat in cut.wedges}:
        words = phrase("mend.seats", at=Row(tuple(phrase("mend.seat", at=seat.at_deg) for seat in own)))
        yield Change("seats", words, SEATS, _cut(case, wedges=own))
    for count in range(placed + 1, kit.wedge_count + 1):
        seats = seats_for(cut, replace(kit, wedge_count=count), depth)
        if len(seats) == count:
            yield Change("wedges", phrase("mend.wedges", count=float(count)), SEATS, _cut(case, wedges=seats))
    single = tuple(seat for seat in cut.wedges if seat.stacked == 1)
    doubled = stacked_seats(cut, kit, depth)
    if doubled and (single or not cut.wedges):
        yield Change("stack", phrase("mend.stack"), SEATS, _cut(case, wedges=doubled))
    if cut.goes_on != "all":
        yield Change("goes_on", phrase("mend.goes_on"), SEATS, _cut(case, goes_on="all"))


def _carried(planned: Planned) -> Iterator[Change]:
    """Another wedge, to be stacked: told where none is left to carry."""
    case, kit = planned.case, planned.case.kit
    if kit.wedge_count < 1 or kit.wedge_count > ENOUGH_WEDGES or kit.stackable == "no":
        return
    asked = phrase("mend.carry_would")
    more = replace(case, kit=replace(kit, wedge_count=2 * max(kit.wedge_count, len(case.cut.wedges), 1)))
    yield Change("carry", asked, SEATS, more, within=False, asked=asked)


def _jack(planned: Planned) -> Iterator[Change]:
    """A jack behind the hinge: told where none is carried."""
    case = planned.case
    if case.kit.jack_rise_m > 0 or planned.parts.section.depth_m < JACK_FROM_m:
        return
    carried = replace(case, kit=replace(case.kit, jack_rise_m=JACK_RISE_m))
    asked = phrase("mend.jack_would", rise=JACK_RISE_m)
    yield Change("jack", asked, JACK, carried, within=False, asked=asked)


def _trim(planned: Planned) -> Iterator[Change]:
    """Buttresses trimmed away before anything is cut."""
    case = planned.case
    standing = [lobe for lobe in case.tree.lobes if lobe.state != "trimmed"]
    if standing:
        lobes = tuple(replace(lobe, state="trimmed") for lobe in case.tree.lobes)
        names = Row(tuple(phrase("place.bearing", at=lobe.bearing_deg) for lobe in standing))
        yield Change(
            "trim", phrase("mend.trim", names=names), SHAPE, replace(case, tree=replace(case.tree, lobes=lobes))
        )


def _aim(planned: Planned) -> Iterator[Change]:
    """The face aimed beside the lay, for a tree that drifts."""
    case, cut = planned.case, planned.case.cut
    for off in AIMS_OFF_DEG:
        for sign, side in ((1.0, "left"), (-1.0, "right")):
            aimed = sign * off
            if aimed != cut.aim_off_deg:
                words = phrase("mend.aim", off=off, side=phrase(f"side.{side}"))
                yield Change("aim", words, SHAPE, _cut(case, aim_off_deg=aimed))


def _thickness(planned: Planned) -> Iterator[Change]:
    case, hinge = planned.case, planned.case.cut.hinge
    for share in THICKER:
        left, right = (_mm(max(share * each, case.practice.hinge_least_m)) for each in (hinge.left_m, hinge.right_m))
        if (left, right) == (hinge.left_m, hinge.right_m):
            continue
        text, lever = ("mend.thinner", "thinner") if share < 1 else ("mend.thicker", "thicker")
        yield Change(
            lever,
            phrase(text, to=(left + right) / 2),
            THIN if share < 1 else THICK,
            _cut(case, hinge=replace(hinge, left_m=left, right_m=right)),
        )


def _mm(length_m: float) -> float:
    return round(length_m, 3)


def _taper(planned: Planned) -> Iterator[Change]:
    """More wood away from the side weight, of the same area."""
    case, hinge = planned.case, planned.case.cut.hinge
    mean, heavy = hinge.mean_m, "left" if planned.parts.balance.left_m > 0 else "right"
    side = "right" if heavy == "left" else "left"
    for share in TAPERS:
        more, less = _mm(mean * (1 + share)), _mm(mean * (1 - share))
        if less < case.practice.hinge_least_m:
            return
        left, right = (more, less) if side == "left" else (less, more)
        form = "tapered" if form_of("hinge", hinge.form).usual else hinge.form
        tapered = replace(hinge, form=form, left_m=left, right_m=right)
        words = phrase("mend.taper", side=phrase(f"side.{side}"), more=more, less=less)
        yield Change("taper", words, TAPER, _cut(case, hinge=tapered))


def _step(planned: Planned) -> Iterator[Change]:
    case, back = planned.case, planned.case.cut.back
    low, high = case.practice.step_m
    over = {step_wanted_m(low, case.cut.face.apart_m)} if case.cut.face.apart_m > 0 else set()
    for step in sorted({low, (low + high) / 2, high} | over, key=lambda each: abs(each - back.step_m)):
        if abs(step - back.step_m) > 1e-4:
            yield Change("step", phrase("mend.step", to=step), SHAPE, _cut(case, back=replace(back, step_m=_mm(step))))


def _depth(planned: Planned) -> Iterator[Change]:
    """Deeper or shallower, never past the practice: depth alone buys no margin."""
    case, face = planned.case, planned.case.cut.face
    low, high = case.practice.face_depth_ratio
    wood = planned.parts.section.depth_m
    depths = [_mm((low + share * (high - low)) * wood) for share in ACROSS_RANGE]
    for depth in sorted(depths, key=lambda each: abs(each - face.depth_m)):
        if abs(depth - face.depth_m) > 2e-3:
            yield Change("depth", phrase("mend.depth", to=depth), SHAPE, _cut(case, face=replace(face, depth_m=depth)))


def _opening(planned: Planned) -> Iterator[Change]:
    case, face = planned.case, planned.case.cut.face
    if "roof" not in face.traits.slopes:
        return
    low, high = case.practice.opening_deg
    now = planned.parts.face.opening_deg
    for share in ACROSS_RANGE:
        opening = low + share * (high - low)
        roof = face.roof_deg + opening - now
        if abs(opening - now) > 1.0 and 5.0 <= roof <= 90.0:
            yield Change(
                "opening", phrase("mend.opening", to=opening), SHAPE, _cut(case, face=replace(face, roof_deg=roof))
            )


def _strap(planned: Planned) -> Iterator[Change]:
    case, back = planned.case, planned.case.cut.back
    if not back.strapped:
        return
    for share in STRAPS:
        strap = _mm(share * back.strap_m)
        yield Change("strap", phrase("mend.strap", to=strap), BACK, _cut(case, back=replace(back, strap_m=strap)))


def _height(planned: Planned) -> Iterator[Change]:
    """The cut raised, scaled with the stem as when its height is typed."""
    case, cut = planned.case, planned.case.cut
    if cut.is_aloft:
        return
    tallest = TALLEST_WITH_REASON_m if _has_reason(case.tree) else TALLEST_CUT_m
    exponent = case.constants.profile_exponent[case.wood.group]
    for up in RAISED_m:
        height = round(cut.height_m + up, 2)
        if height > tallest:
            return
        try:
            there = Place(case.tree, height, cut.gun_deg, exponent).section()
        except InputError:
            continue
        raised = replace(resized(cut, there.depth_m / planned.parts.section.depth_m), height_m=height)
        yield Change("height", phrase("mend.height", to=height), HIGHER, replace(case, cut=raised))


def _has_reason(tree: Tree) -> bool:
    """Whether something at the foot speaks for a high cut: rot, flare, something in the wood."""
    return tree.decay.kind in ("cavity", "shell") or bool(tree.lobes) or bool(tree.defects)


def _backs(planned: Planned) -> Iterator[Change]:
    """Another back cut of the table, none of the specialist ones."""
    cut = planned.case.cut
    for form in forms_of("back"):
        if form.specialist or form.key == cut.back.form:
            continue
        yield from _designed(planned, "back", form.key, BACK if form.trouble < STIFF else FORM)


def _hinges(planned: Planned) -> Iterator[Change]:
    """Another hinge of the table."""
    for form in forms_of("hinge"):
        if not (form.specialist or form.usual) and form.trouble < STIFF and form.key != planned.case.cut.hinge.form:
            yield from _designed(planned, "hinge", form.key, FORM)


def _designed(planned: Planned, part: str, key: str, cost: int) -> Iterator[Change]:
    form, case = form_of(part, key), planned.case
    try:
        made = _seated(planned, form.design(case))
    except InputError:
        return
    words = phrase("mend.form", name=phrase(form.name))
    yield Change(f"{part}:{key}", words, cost, replace(case, cut=made))


def _seated(planned: Planned, cut: Cut) -> Cut:
    return replace(cut, wedges=seats_for(cut, planned.case.kit, planned.parts.section.depth_m))


def _lay(planned: Planned) -> Iterator[Change]:
    case, cut = planned.case, planned.case.cut
    for turn in LAYS_DEG:
        for sign in (1.0, -1.0):
            lay = full_turn_deg(cut.lay_deg + sign * turn)
            cost, lever = (NEAR_LAY, "lay") if turn <= NEAR_DEG else (FAR_LAY, "lay:far")
            turned = replace(_cut(case, lay_deg=lay), rope=turned_rope_of(case.rope, case.at, lay - cut.lay_deg))
            yield Change(lever, phrase("mend.lay", to=lay), cost, turned)


def _rope(planned: Planned) -> Iterator[Change]:
    """A rope at six tenths, ahead along the lay, pulled harder and harder; what the kit does not pull is told so."""
    case = planned.case
    rope = case.rope
    if rope.use != "set":
        rope = initial_rope(rope, case.at, case.cut.lay_deg, case.tree.height_m)
        most = declared(type(rope), "length_m").high
        rope = replace(rope, length_m=min(max(rope.length_m, ROPE_LENGTHS * case.tree.height_m), most))
    for haul in HAULS_N:
        if haul <= rope.haul_N and case.rope.use == "set":
            continue
        words = phrase("mend.rope", at=rope.attached_m, haul=haul, price=ROPE_MIN * 60.0)
        pulled = replace(case, rope=replace(rope, haul_N=haul))
        asked = phrase("mend.rope_would", at=rope.attached_m, haul=haul)
        yield Change("rope", words, ROPE, pulled, within=haul <= case.kit.pull_N, asked=asked)


LEVERS: tuple[Callable[[Planned], Iterator[Change]], ...] = (
    _wedges,
    _carried,
    _thickness,
    _taper,
    _step,
    _depth,
    _opening,
    _trim,
    _aim,
    _strap,
    _backs,
    _jack,
    _rope,
    _height,
    _lay,
    _hinges,
)


def suits(planned: Planned) -> Fit | None:
    """The first form of a plan that is refused; none where all suit."""
    fits = (form_of(part, key).fits(planned) for part, key in planned.case.cut.forms.items())
    return next((fit for fit in fits if fit.level == "refused"), None)
