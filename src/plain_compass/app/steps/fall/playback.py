"""Where one is in the fall, and the design it is held against. No widgets."""

from __future__ import annotations

import math

from ....core.assess import Assessment
from ....core.base.frozen import dataclass
from ....core.fall.fan import Fan
from ....core.fall.nominal import NominalFall
from ....core.fall.trace import UPRIGHT, Pose
from ....job.language import tr
from ....job.words import Speech
from ...frame.store import Snapshot


@dataclass(frozen=True, slots=True, eq=False)
class Design:
    """A design with its fall.

    Attributes:
        name: what it is called where two are told apart.
    """

    name: str
    result: Assessment
    fall: NominalFall
    fan: Fan

    @property
    def ends_s(self) -> float:
        """When it comes to rest, the tree that hangs sooner than its own time."""
        return self.fall.trace.time_at(math.radians(self.fall.end_deg))


class Playback:
    """A clock over the fall; the kept design runs on the same one."""

    def __init__(self) -> None:
        self.now: Design | None = None
        self.kept: Design | None = None
        self.time_s = 0.0
        self.playing = False

    def follow(self, snapshot: Snapshot) -> None:
        """Another plan, or a better look at the same; the tilt stays where it was as far as it goes."""
        if snapshot.fall is None or snapshot.fan is None:
            # Until the new one is there the last one of the same tree stays: nothing flickers.
            if self.now is not None and self.now.name != snapshot.plan.id:
                self.now = None
            return
        tilt = self.tilt_deg
        self.now = Design(snapshot.plan.id, snapshot.result, snapshot.fall, snapshot.fan)
        if tilt > 0:
            self.to_tilt(tilt)

    @property
    def ends_s(self) -> float:
        """When the last of what is shown comes to rest."""
        return max((design.ends_s for design in (self.now, self.kept) if design is not None), default=0.0)

    def pose_of(self, design: Design) -> Pose:
        """A design's tree at this time, at rest once it is down."""
        return design.fall.trace.pose_at(min(self.time_s, design.ends_s))

    @property
    def pose(self) -> Pose:
        """The tree of the design looked at."""
        return UPRIGHT if self.now is None else self.pose_of(self.now)

    @property
    def tilt_deg(self) -> float:
        """Tilt at this time."""
        return math.degrees(self.pose.whole_rad)

    def to_tilt(self, tilt_deg: float) -> None:
        """To a tilt: the clock follows."""
        if self.now is not None:
            held = min(max(tilt_deg, 0.0), self.now.fall.end_deg)
            self.time_s = self.now.fall.trace.time_at(math.radians(held))

    def to_share(self, share: float) -> None:
        """To a share of the tilt between letting go and rest."""
        if self.now is not None:
            start = self.now.fall.start_deg
            self.to_tilt(start + share * (self.now.fall.end_deg - start))

    @property
    def share(self) -> float:
        """The same, as it is."""
        if self.now is None:
            return 0.0
        start, end = self.now.fall.start_deg, self.now.fall.end_deg
        return min(max((self.tilt_deg - start) / max(end - start, 1e-6), 0.0), 1.0)

    def start(self) -> None:
        """Play; from the beginning once it is down."""
        if self.time_s >= self.ends_s - 1e-6:
            self.time_s = 0.0
        self.playing = self.now is not None

    def pause(self) -> None:
        """Stop where it is."""
        self.playing = False

    def advance(self, by_s: float) -> None:
        """Let the clock run on; it stops by itself once all is down."""
        self.time_s = min(self.time_s + by_s, self.ends_s)
        if self.time_s >= self.ends_s - 1e-9:
            self.playing = False

    def keep(self, name: str) -> None:
        """Keep the design looked at, to be compared with others."""
        if self.now is not None:
            self.kept = Design(name, self.now.result, self.now.fall, self.now.fan)

    def drop(self) -> None:
        """Compare with nothing."""
        self.kept = None

    # What it means -------------------------------------------------------------------------------------

    def clock(self, speech: Speech) -> str:
        """Time, tilt and speed of the top as they are now."""
        if self.now is None:
            return ""
        speed = self.pose.rate_rad_s * float(self.now.fall.rods.length_m[0])
        time = min(self.time_s, self.now.ends_s)
        show = speech.show
        return tr(
            "{time:.1f} s · tilt {tilt_deg:.0f}° · top at {speed}",
            time=time,
            tilt_deg=self.tilt_deg,
            speed=show(speed, "speed"),
        )
