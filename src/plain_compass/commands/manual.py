"""Man pages and completion, made from the commands' own parsers, so that they cannot say anything else."""

from __future__ import annotations

import argparse
from collections.abc import Iterator

from .. import __version__

STATUS = "0 answered; 1 as an option asks (--fail-on, self-check); 2 bad input, with a sentence on standard error."
SHELLS = ("bash", "zsh", "fish")


def _escaped(text: str) -> str:
    """Text as roff wants it: no line begins a request, hyphens can be copied."""
    clean = text.replace("\\", "\\e").replace("-", "\\-").replace("%%", "%").replace("…", "...")
    return "\\&" + clean if clean[:1] in (".", "'") else clean


def actions_of(parser: argparse.ArgumentParser) -> list[argparse.Action]:
    """Options and arguments, but for help and for commands below."""
    hidden = (argparse._HelpAction, argparse._SubParsersAction)
    return [action for action in parser._actions if not isinstance(action, hidden)]


def commands_of(parser: argparse.ArgumentParser) -> dict[str, argparse.ArgumentParser]:
    """Commands below a parser, by name."""
    below = (action for action in parser._actions if isinstance(action, argparse._SubParsersAction))
    return {name: each for action in below for name, each in action.choices.items()}


def helps_of(parser: argparse.ArgumentParser) -> dict[str, str]:
    """What each of them is for, in a line."""
    below = (action for action in parser._actions if isinstance(action, argparse._SubParsersAction))
    return {each.dest: each.help or "" for action in below for each in action._choices_actions}


def man_page(parser: argparse.ArgumentParser, name: str, purpose: str, date: str) -> str:
    """One page, in roff.

    Args:
        name: of the command, as it is typed; purpose in a line.
    """
    title = name.replace(" ", "-")
    usage = " ".join(parser.format_usage().removeprefix("usage:").split())
    lines = [
        f'.TH {_escaped(title.upper())} 1 "{date}" "Plain Compass {__version__}" "User Commands"',
        ".SH NAME",
        f"{_escaped(title)} \\- {_escaped(purpose)}",
        ".SH SYNOPSIS",
        _escaped(usage),
        ".SH DESCRIPTION",
        _escaped(parser.description or f"{purpose[:1].upper()}{purpose[1:]}."),
    ]
    lines += _options(parser)
    below = helps_of(parser)
    if below:
        lines.append(".SH COMMANDS")
        for each, told in below.items():
            lines += [".TP", f"\\fB{_escaped(each)}\\fR", _escaped(told)]
    lines += [".SH EXIT STATUS", _escaped(STATUS)]
    if name != "plain-compass":
        lines += [".SH SEE ALSO", "\\fBplain\\-compass\\fR(1)"]
    return "\n".join(lines) + "\n"


def _options(parser: argparse.ArgumentParser) -> Iterator[str]:
    actions = actions_of(parser)
    if actions:
        yield ".SH OPTIONS"
    for action in actions:
        names = ", ".join(f"\\fB{_escaped(each)}\\fR" for each in action.option_strings) or _escaped(_value(action))
        takes = f" \\fI{_escaped(_value(action))}\\fR" if action.option_strings and action.nargs != 0 else ""
        yield from (".TP", names + takes)
        told = (action.help or "").replace("%(default)s", str(action.default))
        choices = f" ({', '.join(map(str, action.choices))})" if action.choices else ""
        yield _escaped((told + choices).strip() or "As it says.")


def _value(action: argparse.Action) -> str:
    if isinstance(action.metavar, tuple):
        return " ".join(action.metavar)
    return action.metavar or (action.dest.upper() if action.option_strings else action.dest)


def man_pages(parser: argparse.ArgumentParser, date: str) -> dict[str, str]:
    """Every page by its file's name: the program's, and one a command."""
    helps = helps_of(parser)
    pages = {"plain-compass.1": man_page(parser, "plain-compass", "design the felling cut of a tree", date)}
    for name, below in commands_of(parser).items():
        page = man_page(below, f"plain-compass {name}", helps[name], date)
        pages[f"plain-compass-{name}.1"] = page
    return pages


def completion(parser: argparse.ArgumentParser, shell: str) -> str:
    """Completion for a shell: commands, then what each of them takes, then files."""
    commands = {name: _words(below) for name, below in commands_of(parser).items()}
    return {"bash": _bash, "zsh": _zsh, "fish": _fish}[shell](commands, helps_of(parser))


def _words(parser: argparse.ArgumentParser) -> list[str]:
    options = [max(action.option_strings, key=len) for action in actions_of(parser) if action.option_strings]
    return [*commands_of(parser), *options]


def _bash(commands: dict[str, list[str]], _: dict[str, str]) -> str:
    cases = "\n".join(f'        {name}) words="{" ".join(words)}" ;;' for name, words in commands.items())
    return f"""# Completion of plain-compass for bash.
_plain_compass() {{
    local current="${{COMP_WORDS[COMP_CWORD]}}" words=""
    if [ "$COMP_CWORD" -eq 1 ]; then
        COMPREPLY=($(compgen -W "{" ".join(commands)} --help --version" -- "$current"))
        return
    fi
    case "${{COMP_WORDS[1]}}" in
{cases}
    esac
    COMPREPLY=($(compgen -W "$words --help" -- "$current") $(compgen -f -- "$current"))
}}
complete -o filenames -F _plain_compass plain-compass
"""


def _zsh(commands: dict[str, list[str]], helps: dict[str, str]) -> str:
    told = "\n".join(f"        '{name}:{_quoted(helps[name])}'" for name in commands)
    cases = "\n".join(f"        {name}) words=({' '.join(words)}) ;;" for name, words in commands.items())
    return f"""#compdef plain-compass
# Completion of plain-compass for zsh.
_plain_compass() {{
    local -a commands words
    commands=(
{told}
    )
    if (( CURRENT == 2 )); then
        _describe command commands
        return
    fi
    case "${{(Q)${{(z)BUFFER}}[2]}}" in
{cases}
    esac
    compadd -- $words --help
    _files
}}
_plain_compass "$@"
"""


def _fish(commands: dict[str, list[str]], helps: dict[str, str]) -> str:
    lines = ["# Completion of plain-compass for fish."]
    for name, words in commands.items():
        told = _quoted(helps[name])
        lines.append(f"complete -c plain-compass -n __fish_use_subcommand -f -a {name} -d '{told}'")
        for word in words:
            kind = f"-l {word[2:]}" if word.startswith("--") else f"-a {word}"
            lines.append(f"complete -c plain-compass -n '__fish_seen_subcommand_from {name}' {kind}")
    return "\n".join(lines) + "\n"


def _quoted(text: str) -> str:
    return text.replace("'", "").replace(":", " -")
