"""The nodes of a meaning: statements in their order, and what each command does."""

from __future__ import annotations

from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Mark, SimpleCommand
    from dowsing.commandline.judging.certainty import AboutItself
    from dowsing.commandline.meaning.binding import Bound, Given
    from dowsing.commandline.model.tree import CommandNode, OperandUse, OptionUse, WordUse
    from dowsing.knowledge.command_facts import Act


class Added(Record):
    """What an option adds to the act. `said`: its words, [] for one that is told as it stands;
    `looks`: that with it nothing is done; `is_beside`: it is done beside the act, `on_last`: for
    the last of several alternatives alone; `is_close`: it says more of the words before it.
    """

    use: OptionUse | WordUse
    said: list[Bound] = []  # noqa: RUF012 - a record is immutable
    looks: bool = False
    is_beside: bool = False
    on_last: bool = False
    is_close: bool = False


class Doing(Record):
    """What one command does. `act` is what our facts say, None where they say nothing of it; `said`
    its words, `untold` the operands that these have no place for, `added` what options add.

    `tells`: what it only tells of itself; `looks`: nothing is done, what would be
    is shown; `carried`: what the commands that it carries do, `lines` what the lines in its values
    do; `given`: from outside; `names_source`, `takes_them`: see Binder; `on_last`: what it carries
    is done for the last of several alternatives alone.
    """

    node: CommandNode
    given: Given
    act: Act | None = None
    said: list[Bound] = []  # noqa: RUF012 - a record is immutable
    untold: list[OperandUse] = []  # noqa: RUF012
    added: list[Added] = []  # noqa: RUF012
    tells: AboutItself | None = None
    looks: bool = False
    carried: list[Doing] = []  # noqa: RUF012
    lines: list[Sequence] = []  # noqa: RUF012
    names_source: bool = False
    takes_them: bool = False
    on_last: bool = False

    @property
    def covers_all(self) -> bool:
        """Whether nothing that stands there is left untold."""
        return not self.untold

    @property
    def tells_inner(self) -> bool:
        """Whether the words of its acts have a place for what it carries."""
        acts = self.node.known.facts.clauses
        return any("{inner}" in act.says or "{line}" in act.says for act in acts)


class Statement(Record):
    """What one statement does. `start`: where it begins in the text, in characters;
    `redirections`: where its input comes from and its output goes to.
    """

    start: int
    redirections: list[Mark] = []  # noqa: RUF012 - a record is immutable


class Simple(Statement):
    """A command with the variables that are set for it; or, without a command, these alone.

    `doing`: what it does; `unnamed`: its words, where its name is only known when it runs.
    """

    doing: Doing | None = None
    unnamed: SimpleCommand | None = None
    sets: list[Mark] = []  # noqa: RUF012


class Step(Record):
    """A statement behind the sign of the shell that it stands behind: `&&`, `||`, `;`, `&`, or ""
    at the beginning of a line. `is_behind`: it is not waited for.
    """

    sign: str
    pipeline: Pipe
    is_behind: bool = False


class Sequence(Record):
    """Statements one after the other."""

    steps: list[Step] = []  # noqa: RUF012 - a record is immutable


class Pipe(Record):
    """Statements of which each feeds the next. `negated`: it succeeds where it fails."""

    start: int
    statements: list[Statement]
    negated: bool = False


class Branch(Statement):
    """`if`: conditions, each with what is done where it is the first to hold; and what is done
    where none does, None without that.
    """

    cases: list[tuple[Choice, Sequence]] = []  # noqa: RUF012
    otherwise: Choice | None = None


class Choice(Record):
    """A condition, or what is done without one, with the place of the word before it."""

    start: int
    sequence: Sequence


class Over(Statement):
    """`for`: what is done for each of some values. `name`: the variable; `values`: the words and
    sums that stand there, [] for the arguments.
    """

    name: str = ""
    values: list[Mark] = []  # noqa: RUF012
    body: Sequence = Sequence()


class While(Statement):
    """What is done again and again, `until` a condition holds, or as long as it does."""

    until: bool = False
    condition: Sequence = Sequence()
    body: Sequence = Sequence()


class Cases(Statement):
    """`case`: by what `subject` is, for patterns, what is done."""

    subject: Mark | None = None
    cases: list[Case] = []  # noqa: RUF012


class Case(Record):
    """The patterns of one case, with what is done; `start`: where it begins."""

    start: int
    patterns: list[Mark]
    body: Sequence


class Compared(Statement):
    """`[[ … ]]`: the words of a test."""

    words: list[str] = []  # noqa: RUF012


class Function(Statement):
    """A function: its name and what it does."""

    name: str = ""
    body: Sequence = Sequence()


class Group(Statement):
    """`{ …; }` and, with a shell of its own, `( … )`."""

    own_shell: bool = False
    body: Sequence = Sequence()


class Sum(Statement):
    """`(( … ))`: a sum that is worked out."""

    text: str = ""
