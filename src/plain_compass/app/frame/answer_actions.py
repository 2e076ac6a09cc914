"""What is answered by one key: the walk round, the butt sounded, leave, the ground; and the next open question."""

from __future__ import annotations

from collections.abc import Callable

from ...core.assess import is_question
from ...core.judge.findings import Finding
from ...job import edits
from ...job.document import Job
from ...job.language import tr
from .commands import Command
from .desk import Room
from .view_actions import go_to


class AnswerActions:
    """The commands that answer several questions at once, and the one that leads to the next."""

    def __init__(self, room: Room) -> None:
        self.room, self.store = room, room.store

    def commands(self) -> list[Command]:
        """All of the group ``answer``."""
        return [
            self._answer("answer.round", tr("All looked at: nothing above, no life"), "Alt+N", edits.nothing_seen),
            self._answer("answer.sound", tr("Sounded and looked for cracks: sound"), "Alt+S", edits.sounds_sound),
            self._answer("answer.leave", tr("Leave and season settled, people told"), "Alt+L", edits.leave_given),
            self._answer("answer.ground", tr("Ground looked at: what counts is drawn"), "Alt+G", edits.all_drawn),
            Command("answer.species", tr("Say what tree it is"), "Alt+Y", self.say_species),
            Command(
                "answer.next", tr("Next open question"), "F3", self.settle_next, lambda: bool(self.open_questions())
            ),
        ]

    def _answer(self, name: str, title: str, keys: str, how: Callable[[Job, str], Job]) -> Command:
        store = self.store

        def changed() -> Job:
            return how(store.snapshot.job, store.tree_id)

        def answer() -> None:
            store.edit(title.partition(":")[0].lower(), changed())

        # What is answered already stays as it was answered, so that there may be nothing left to do.
        return Command(name, title, keys, answer, lambda: changed() != store.snapshot.job)

    def say_species(self) -> None:
        """To the choice of species, where letters find it."""
        self.room.side.show_field("tree.species")

    def open_questions(self) -> list[Finding]:
        """What is unknown because nobody has said or measured it, the worst first."""
        return [each for each in self.store.snapshot.result.findings if is_question(each)]

    def settle_next(self) -> None:
        """To the field that settles the first of them; what is being typed is taken in before."""
        self.room.settle()
        questions = self.open_questions()
        if questions:
            go_to(self.room, questions[0])
