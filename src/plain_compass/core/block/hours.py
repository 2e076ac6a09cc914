"""A day of work by the clock: when it begins, its one long break, and what minutes of work are what time of day."""

from __future__ import annotations

from ..base.frozen import dataclass


@dataclass(frozen=True, slots=True)
class Hours:
    """A day's hours.

    Attributes:
        starts_min: minutes after midnight at which work begins.
        break_at_min: minutes after midnight of the break, which is break_min long.
        work_min: minutes of work in a day, the break left out.
    """

    starts_min: float
    break_at_min: float
    break_min: float
    work_min: float

    @property
    def before_break_min(self) -> float:
        """Minutes of work before the break; all of them where it comes after work is done, or before it begins."""
        found = self.break_at_min - self.starts_min
        return found if 0 < found < self.work_min else self.work_min

    def clock_min(self, work_min: float, *, is_end: bool = False) -> float:
        """Minutes after midnight at so many minutes of work.

        Args:
            is_end: whether something ends there: what ends with the break ends before it.
        """
        done = self.before_break_min
        has_break = done < self.work_min and (work_min > done or (work_min == done and not is_end))
        return self.starts_min + work_min + (self.break_min if has_break else 0.0)

    def worked_min(self, clock_min: float) -> float:
        """Minutes of work at a time of day: none before work begins, none more while the break lasts."""
        begun, done = clock_min - self.starts_min, self.before_break_min
        if begun <= done or done == self.work_min:
            return max(begun, 0.0)
        return max(begun - self.break_min, done)


def clock_words(clock_min: float) -> str:
    """A time of day as people write it."""
    hour, minute = divmod(round(clock_min), 60)
    return f"{hour:02d}:{minute:02d}"
