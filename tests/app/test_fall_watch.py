"""The fall reckoned behind the window: never left waiting, and a fall that cannot be had is said to be so."""

from __future__ import annotations

import pytest

from plain_compass.app.frame.window import Window


def awaits_the_fall(window: Window) -> bool:
    """Whether something is said to be still reckoned."""
    return any(f.id.startswith("fall.reckoning") for f in window.store.snapshot.result.findings)


def test_what_leaves_the_case_as_it_is_does_not_leave_its_fall_unreckoned(window: Window) -> None:
    """A duty ticked, other units, a step undone and the same tree chosen again ask for the fall known before."""
    store = window.store
    window.falls.finish()
    before = store.snapshot.fan
    duty = next(f for f in store.snapshot.result.findings if f.kind == "duty")
    for again in (
        lambda: store.tick(duty),
        store.undo,
        lambda: store.set("units", "imperial", "units"),
        lambda: store.look_at(store.tree_id),
    ):
        again()
        assert awaits_the_fall(window) or store.snapshot.fan is before
        window.falls.finish()
        assert not awaits_the_fall(window)
        assert store.snapshot.fan is before


def step_to_the_end(window: Window) -> None:
    """Bounded, where what goes wrong is that it never ends."""
    for _ in range(50):
        if window.falls.busy:
            window.falls.step()
    assert not window.falls.busy


@pytest.mark.usefixtures("failing_falls")
def test_a_fall_that_cannot_be_reckoned_is_said_so_again_when_the_tree_is_chosen_again(window: Window) -> None:
    store = window.store
    store.set("cut.lay_deg", store.snapshot.plan.cut.lay_deg + 1, "lay")
    for _ in range(2):
        step_to_the_end(window)
        assert {"fall.failed_hinge", "fall.failed_landing"} <= {f.id for f in store.snapshot.result.findings}
        assert not awaits_the_fall(window)
        assert "Landing: unknown" in window.band.accessibleDescription()
        assert not window.falls.busy
        store.look_at(store.tree_id)
