"""What a change means: pure functions from one job to the next, with the consequences people expect."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from itertools import pairwise
from typing import Any

from ..core.advice.begin import begun, seats_for
from ..core.advice.mend import Mend
from ..core.base.errors import InputError
from ..core.base.paths import value_at, with_value
from ..core.base.quantity import check_name
from ..core.cuts import form_of, usual_face
from ..core.design.checks import check_tree
from ..core.design.cut import WedgeSeat
from ..core.design.first import first_design, resized
from ..core.judge.findings import Done, Finding
from ..core.judge.unmeasured import STAND_INS, after_change
from ..core.stump.as_cut import stump_as_cut
from ..core.tree.around import ABOVE, LEAVE, LIFE, with_answer
from ..core.tree.section import section_at
from ..core.tree.tree import ShellReading, Tree
from .document import Job, TreePlan, case_of, with_plan, with_tree
from .fields import quantity_at, root_of
from .language import tr
from .tables import indicative, practice_of, wood_of
from .tree_readings import typed_over

RESIZING = ("tree.trunk.", "tree.lobes", "tree.species", "tree.height_m", "cut.height_m")


def set_value(job: Job, tree_id: str, path: str, value: Any) -> Job:
    """The job with one value changed, and with what has to follow it; see ``set_values``."""
    return set_values(job, tree_id, {path: value})


def set_values(job: Job, tree_id: str, changes: Mapping[str, Any], *, keep_readings: bool = False) -> Job:
    """The job with several values changed at once, and with what has to follow them.

    A stem measured anew takes its cut along in proportion, so that a smaller diameter never leaves a cut that
    no longer fits. A value that replaces an average leaves its readings kept but unused, unless they are what is
    being averaged. Raises InputError when a value is out of its declared range.
    """
    changed = job
    for path, value in changes.items():
        _check(path, value)
        if root_of(path) is Job:
            changed = with_value(changed, path, value)
            continue
        if not keep_readings:
            changed = with_tree(changed, tree_id, typed_over(changed.plan(tree_id), path))
        before = changed.plan(tree_id).tree
        changed = with_plan(changed, tree_id, path, value)
        if path.startswith("tree."):
            measured = after_change(before, changed.plan(tree_id).tree, path.removeprefix("tree."))
            changed = with_plan(changed, tree_id, "tree", measured)
        if path.startswith("as_cut."):
            stump_as_cut(case_of(changed, tree_id), changed.plan(tree_id).as_cut)
            # A stump that is read is that of a tree that is down.
            changed = with_plan(changed, tree_id, "state", "down")
        if path == "tree.decay.kind" and value == "shell":
            changed = _with_probes(changed, tree_id)
    if any(path.startswith(RESIZING) and not path.endswith("bark_m") for path in changes):
        changed = _resized_with_stem(job, changed, tree_id)
    return changed


def _check(path: str, value: Any) -> None:
    if path.rpartition(".")[2] in ("id", "name"):
        check_name(path, value)
    try:
        quantity = quantity_at(path)
    except KeyError:
        return
    quantity.check(path, value)


def _with_probes(job: Job, tree_id: str) -> Job:
    tree = job.plan(tree_id).tree
    if tree.decay.shell:
        return job
    half = round(tree.trunk.diameter_m / 4, 3)
    probes = tuple(ShellReading(bearing, half) for bearing in (0.0, 90.0, 180.0, 270.0))
    return with_plan(job, tree_id, "tree.decay.shell", probes)


def depth_m(job: Job, tree_id: str) -> float:
    """Depth of the wood along the lay at the cut, what has rotted taken as sound: the D of ``%D``."""
    case = case_of(job, tree_id)
    exponent = case.constants.profile_exponent[case.wood.group]
    sound = replace(case.tree, decay=replace(case.tree.decay, kind="none"))
    return section_at(sound, case.cut.height_m, case.cut.lay_deg, exponent).depth_m


def _resized_with_stem(before: Job, after: Job, tree_id: str) -> Job:
    check_tree(after.plan(tree_id).tree)
    factor = depth_m(after, tree_id) / depth_m(before, tree_id)
    if abs(factor - 1) < 1e-9:
        return after
    return with_plan(after, tree_id, "cut", resized(after.plan(tree_id).cut, factor))


def add_wedge(job: Job, tree_id: str) -> Job:
    """One more wedge, in the widest gap round the back."""
    seats = sorted(seat.at_deg for seat in job.plan(tree_id).cut.wedges)
    return with_plan(job, tree_id, "cut.wedges", (*job.plan(tree_id).cut.wedges, WedgeSeat(_gap(seats))))


def _gap(seats: list[float]) -> float:
    if not seats:
        return 0.0
    ends = [-60.0, *seats, 60.0]
    low, high = max(pairwise(ends), key=lambda pair: pair[1] - pair[0])
    return round((low + high) / 2)


def remove_wedge(job: Job, tree_id: str, index: int) -> Job:
    """One wedge less."""
    seats = value_at(job.plan(tree_id), "cut.wedges")
    return with_plan(job, tree_id, "cut.wedges", seats[:index] + seats[index + 1 :])


def toggle_stacked(job: Job, tree_id: str, index: int) -> Job:
    """One wedge, or two on each other, in a seat."""
    seat = job.plan(tree_id).cut.wedges[index]
    return with_plan(job, tree_id, f"cut.wedges.{index}.stacked", 3 - seat.stacked)


def take_form(job: Job, tree_id: str, part: str, key: str, *, read: bool = False) -> Job:
    """The tree's cut begun in another form, sized by practice and tree; the rest of it stays.

    Args:
        read: whether the statement of a specialist form has just been read for this tree.
    """
    case = case_of(job, tree_id)
    form = form_of(part, key)
    cut = form.design(case)
    if part == "back" and not (cut.face.traits.is_cut or cut.back.traits.without_face):
        cut = usual_face().design(replace(case, cut=cut))
    if part == "back" and cut.wedges and cut.back.traits.keeps_back:
        # Wedges stand where there is kerf to drive into before what is kept is cut.
        placed = replace(case.kit, wedge_count=len(cut.wedges))
        cut = replace(cut, wedges=seats_for(cut, placed, depth_m(job, tree_id)))
    if read and f"{part}:{key}" not in cut.read.split():
        cut = replace(cut, read=f"{cut.read} {part}:{key}".strip())
    return with_plan(job, tree_id, "cut", cut)


def nothing_seen(job: Job, tree_id: str) -> Job:
    """The walk round answered at once: nothing above and no life in it, but for what was answered already.

    Leave, licence, season and people told are not seen by looking, and stay as they are.
    """
    tree = job.plan(tree_id).tree
    answers: dict[str, Any] = dict.fromkeys(unseen(tree), "no")
    return with_plan(job, tree_id, "tree", replace(tree, around=replace(tree.around, **answers)))


def sounds_sound(job: Job, tree_id: str) -> Job:
    """The butt sounded and found sound, and no crack seen, where neither has been answered yet."""
    tree = job.plan(tree_id).tree
    decay = replace(tree.decay, kind="none") if tree.decay.kind == "unknown" else tree.decay
    crack = "none" if tree.crack == "unknown" else tree.crack
    return with_plan(job, tree_id, "tree", replace(tree, decay=decay, crack=crack))


def leave_given(job: Job, tree_id: str) -> Job:
    """Leave, permit and season settled and people told, but for what was answered already."""
    tree = job.plan(tree_id).tree
    answers: dict[str, Any] = dict.fromkeys(with_answer(tree.around, LEAVE, "unknown"), "yes")
    return with_plan(job, tree_id, "tree", replace(tree, around=replace(tree.around, **answers)))


def all_drawn(job: Job, _: str) -> Job:
    """The ground looked at: what is not drawn is not there."""
    return with_value(job, "site.looked", "yes")


def unseen(tree: Tree) -> tuple[str, ...]:
    """What of the walk round is seen by looking up and has no answer yet."""
    return tuple(name for name in (*ABOVE, *LIFE) if getattr(tree.around, name) == "unknown")


def add_tree(job: Job) -> tuple[Job, str]:
    """One more tree with a first design; returns the job and the new tree's id."""
    taken = {tree.id for tree in job.trees}
    number = len(job.trees) + 1
    while str(number) in taken:
        number += 1
    tree = Tree(stand_ins=STAND_INS)
    cut = first_design(tree, wood_of(tree.species), 0.0, practice_of(job.practice), indicative())
    return replace(job, trees=(*job.trees, TreePlan(str(number), tree, cut))), str(number)


def remove_tree(job: Job, tree_id: str) -> Job:
    """One tree less; the last one stays."""
    if len(job.trees) == 1:
        raise InputError("trees", 0, kind="count", low=1, reason=tr("a job keeps at least one tree"))
    return replace(job, trees=tuple(tree for tree in job.trees if tree.id != tree_id))


def rename_tree(job: Job, tree_id: str, new_id: str) -> Job:
    """The same tree under another id."""
    name = new_id.strip()
    check_name(tr("tree id"), name)
    if not name or (name != tree_id and any(tree.id == name for tree in job.trees)):
        raise InputError(tr("tree id"), new_id, reason=tr("a tree wants an id of its own"))
    return with_plan(job, tree_id, "id", name)


def redesigned(job: Job, tree_id: str) -> Job:
    """The tree's cut begun afresh from the practice, keeping the lay."""
    return with_plan(job, tree_id, "cut", begun(case_of(job, tree_id)))


def tick(job: Job, tree_id: str, duty: Finding, who: str, at: str) -> Job:
    """A duty of a tree ticked as done, or one that was done taken back.

    Args:
        who: name or initials.
        at: date and time.
    """
    before = tuple(each for each in job.plan(tree_id).duties if each.id != duty.id)
    now = before if duty.done is not None else (*before, Done(duty.id, duty.about, who, at))
    return with_plan(job, tree_id, "duties", now)


def mended(job: Job, tree_id: str, mend: Mend) -> Job:
    """A tree's plan with a mend taken over."""
    case = mend.change.case
    job = with_plan(with_plan(job, tree_id, "cut", case.cut), tree_id, "rope", case.rope)
    return with_plan(job, tree_id, "tree.lobes", case.tree.lobes)


def new_job(units: str = "metric", words: str = "hinge") -> Job:
    """An empty job with one tree and a first design."""
    job, _ = add_tree(Job(units=units, words=words, trees=()))
    return job
