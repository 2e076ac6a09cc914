"""What each kind of edit works out again: counted, stage by stage."""

from __future__ import annotations

EDITS = (
    ("hinge dragged", "cut.hinge.left_m", 0.002),
    ("face deepened", "cut.face.depth_m", 0.002),
    ("step raised", "cut.back.step_m", 0.005),
    ("lay turned", "cut.lay_deg", 2.0),
    ("aimed off", "cut.aim_off_deg", 1.0),
    ("cut raised", "cut.height_m", 0.02),
    ("crown edge paced anew", "tree.crown.readings.0.radius_m", 0.2),
    ("lean plumbed anew", "tree.lean.angle_deg", 0.3),
    ("height measured anew", "tree.height_m", 0.2),
    ("girth taped anew", "tree.trunk.diameter_m", 0.01),
    ("ground sloped more", "site.slope_deg", 1.0),
    ("another maul", "kit.maul_J", 5.0),
)
"""In words, the path of what is edited, and by how much."""
TREE, OTHER = "WH-07", "WH-12"


def edited(path: str, by: float, tree_id: str = TREE) -> dict[str, int]:
    """How often each stage is worked out when the demo's tree is assessed again after an edit to it, or to another."""
    from plain_compass.core.base import kept
    from plain_compass.core.base.paths import value_at
    from plain_compass.job.demo import demo_job
    from plain_compass.job.document import TreePlan, assess_tree
    from plain_compass.job.edits import set_value
    from plain_compass.job.fields import root_of

    job = demo_job()
    kept.forget()
    assess_tree(job, TREE)
    before = kept.worked_out()
    value = value_at(job.plan(tree_id) if root_of(path) is TreePlan else job, path)
    assess_tree(set_value(job, tree_id, path, value + by), TREE)
    after = kept.worked_out()
    # By name: the order in which stages are made known depends on which module was asked for first.
    return {what: after[what] - before[what] for what in sorted(after) if after[what] > before[what]}


def edits_page() -> str:
    """The table as Markdown."""
    rows = [(f"{words} (`{path}`)", edited(path, by)) for words, path, by in EDITS]
    rows.append(("another tree measured anew", edited("tree.height_m", 0.2, OTHER)))
    return "\n".join(
        [
            "",
            "## What an edit works out again",
            "",
            f"Counted on the demo's {TREE}: what is kept by its own inputs, and is worked out anew after each edit.",
            "Strength, balance, use of the hinge, splitting, wedges and the limits follow every edit; what a drawing",
            "shows is made when it is shown.",
            "",
            "| edit | worked out again |",
            "|---|---|",
            *(f"| {words} | {', '.join(again) or 'nothing'} |" for words, again in rows),
            "",
        ]
    )
