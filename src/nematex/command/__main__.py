"""Entry of `./nematex`."""

from __future__ import annotations

import argparse
import os
import sys
from collections.abc import Callable, Sequence

import nematex
from nematex.core.errors import FieldFault

EPILOG = "`start` runs the shop on 127.0.0.1; DATABASE_URL points it at another MariaDB."


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="nematex", description="Which cloth suits which pattern, and why.", epilog=EPILOG)
    parser.add_argument("--version", action="version", version=f"nematex {nematex.__version__}")
    commands = parser.add_subparsers(dest="command", metavar="COMMAND")
    start = commands.add_parser("start", help="start the database and the shop, and print its address")
    start.add_argument("--port", type=int, help="port on 127.0.0.1 (default: 8765, or the next free one)")
    start.add_argument("--no-demo", action="store_true", help="do not load the made-up shop on the first run")
    start.add_argument(
        "--lan",
        nargs="?",
        const="",
        metavar="ADDRESS",
        help="answer on the shop's network too, by HTTPS (default: the address found)",
    )
    commands.add_parser("stop", help="stop it all")
    status = commands.add_parser("status", help="say what is running")
    status.add_argument(
        "--sizes",
        nargs="?",
        const=20.0,
        type=float,
        metavar="SECONDS",
        help="memory (PSS) and processor of each process, and sums",
    )
    invite = commands.add_parser("invite", help="print a link by which somebody comes in, or sets a new password")
    invite.add_argument("--role", default="owner", help="what they may do: owner, buyer, presenter or viewer (default: owner)")
    invite.add_argument("--name", default="", help="somebody who is there already, to set a new password")
    backup = commands.add_parser("backup", help="write the whole shop into one file, and prove that it can be put back")
    backup.add_argument("--to", default="", metavar="FOLDER", help="where to (default: NEMATEX_BACKUPS, else .nematex/backups)")
    restore = commands.add_parser("restore", help="make a backup the shop of this folder")
    restore.add_argument("file", help="what backup wrote")
    restore.add_argument("--replace", action="store_true", help="in the place of the shop that is here, which is set aside")
    restore.add_argument("--of-another-shop", action="store_true", help="also what this shop's own key does not vouch for")
    commands.add_parser("audit", help="look every pinned package up in the public list of known faults; needs the network")
    commands.add_parser("doctor", help="look at data, disk, feed, worker, clock and backups; say what to do")
    assess = commands.add_parser("assess", help="judge pairings given as JSON; no database needed")
    assess.add_argument("file", nargs="?", default="-", help="a JSON file, or - for standard input")
    assess.add_argument(
        "--schema",
        choices=("input", "output", "matrix", "envelope"),
        help="print the JSON Schema of an input, or of the output",
    )
    calibrate = commands.add_parser("calibrate", help="hold judgements of hands, given as JSON, against the rules; no database")
    calibrate.add_argument(
        "file",
        nargs="?",
        default="",
        help="a JSON list of {id, input as assess takes it, expect}, or - for standard input; left out: the made-up shop's own",
    )
    lay = commands.add_parser("lay", help="lay pattern pieces, given as JSON, on a width of cloth; no database needed")
    lay.add_argument("file", nargs="?", default="-", help="a JSON file, or - for standard input")
    lay.add_argument("--schema", choices=("input", "output"), help="print the JSON Schema of the input or of the output")
    for name, what in (("swatch", "read a photo of flat cloth"), ("disc", "read a photo of a draped 30 cm disc, from above")):
        photo = commands.add_parser(name, help=f"{what}; prints JSON, no database needed")
        photo.add_argument("photo", help="a JPEG, PNG or WebP file; the picture's vertical is the cloth's length")
        photo.add_argument("--px-per-cm", type=float, required=True, help="pixels per cm in the photo as it is")
    test = commands.add_parser("test", help="run every check")
    test.add_argument("--long", action="store_true", help="many examples, every edition of earlier shops, every page")
    test.add_argument("--durations", action="store_true", help="say afterwards which rooms of tests and which tests take long")
    test.add_argument("pytest", nargs=argparse.REMAINDER, help="passed on to pytest")
    _add_measuring(commands)
    commands.add_parser("watch").add_argument("--port", type=int, required=True)
    commands.add_parser("work", help="a worker alone, for a machine beside those that serve the shop in DATABASE_URL")
    commands.add_parser("words", help="print the glossary of docs/words.md")
    commands.add_parser("help", help="show this")
    return parser


def _add_measuring(commands: argparse._SubParsersAction[argparse.ArgumentParser]) -> None:
    """What measures, tries and draws, rather than serves."""
    measure = commands.add_parser("benchmark", aliases=["bench"], help="measure speed and size with 10,000 cloths")
    measure.add_argument("--cloths", type=int, default=10_000)
    measure.add_argument(
        "--load", action="store_true", help="put a mixed load on the running shop instead; it writes picks and notes into it"
    )
    measure.add_argument("--fill", action="store_true", help="put 10,000 cloths and 1,000 patterns into the made-up shop")
    measure.add_argument(
        "--changes", type=int, default=0, metavar="N", help="change N cloths in the running shop; says what becomes of memory"
    )
    measure.add_argument("--people", type=int, default=8, help="with --load: how many (default 8)")
    measure.add_argument("--minutes", type=float, default=0.2, help="with --load: for how long")
    measure.add_argument("--think", type=float, default=0.0, help="with --load: seconds between two acts, on average")
    measure.add_argument("--slow", type=int, default=0, help="with --load: connections beside it that never end a request")
    drill = commands.add_parser("drill", help="faults amid writing, on a made-up shop of its own: is anything lost?")
    drill.add_argument("faults", nargs="*", metavar="FAULT", help="web, worker, database, connection, disk or clock")
    drill.add_argument("--rounds", type=int, default=50)
    shots = commands.add_parser("shots", help="take the pictures of docs/screenshots from the running shop")
    shots.add_argument("names", nargs="*")


def _assess(asked: argparse.Namespace) -> int:
    from nematex.command.assess import run_assess

    return run_assess(asked.file, asked.schema)


def _lay(asked: argparse.Namespace) -> int:
    from nematex.command.lay import run_lay

    return run_lay(asked.file, asked.schema)


def _photo(asked: argparse.Namespace) -> int:
    from nematex.command.photo import run_photo

    return run_photo(asked.command, asked.photo, asked.px_per_cm)


def _service(asked: argparse.Namespace) -> int:
    os.umask(0o077)  # what these processes write is for their owner alone, whatever the shell's mask is
    from nematex.command.service.sizes import run_sizes
    from nematex.command.service.starting import start
    from nematex.command.service.stopping import status, stop

    if asked.command == "start":
        return start(asked.port, not asked.no_demo, asked.lan)
    if asked.command == "stop":
        return stop()
    return status() or (run_sizes(max(asked.sizes, 0.1)) if asked.sizes is not None else 0)


def _watch(asked: argparse.Namespace) -> int:
    from nematex.command.service.watch import watch

    os.umask(0o077)
    return watch(asked.port)


def _invite(asked: argparse.Namespace) -> int:
    from nematex.command.invite import run_invite

    return run_invite(asked.role, asked.name)


def _backup(asked: argparse.Namespace) -> int:
    from nematex.command.backup.run import run_backup, run_restore

    os.umask(0o077)
    return run_backup(asked.to) if asked.command == "backup" else run_restore(asked.file, asked.replace, asked.of_another_shop)


def _doctor(_asked: argparse.Namespace) -> int:
    from nematex.command.doctor.run import run_doctor

    return run_doctor()


def _work(_asked: argparse.Namespace) -> int:
    from nematex.command.background.working import work_alone

    os.umask(0o077)
    return work_alone()


def _test(asked: argparse.Namespace) -> int:
    from nematex.command.check import run_checks

    return run_checks(asked.pytest, asked.long, asked.durations)


def _benchmark(asked: argparse.Namespace) -> int:
    from nematex.command.benchmark.run import run_benchmark, run_changes, run_fill, run_load

    if asked.fill:
        return run_fill()
    if asked.changes:
        return run_changes(asked.changes)
    return run_load(asked.people, asked.minutes, asked.think, asked.slow) if asked.load else run_benchmark(asked.cloths)


def _audit(_asked: argparse.Namespace) -> int:
    from nematex.command.audit import run_audit

    return run_audit()


def _drill(asked: argparse.Namespace) -> int:
    from nematex.command.drill.run import FAULTS, run_drills

    if unknown := [each for each in asked.faults if each not in FAULTS]:
        print(f"nematex: {unknown[0]!r} is no fault; choose from: {', '.join(FAULTS)}", file=sys.stderr)
        return 2
    return run_drills(asked.faults, asked.rounds)


def _words(_asked: argparse.Namespace) -> int:
    from nematex.command.words import words

    print(words(), end="")
    return 0


def _calibrate(asked: argparse.Namespace) -> int:
    from nematex.command.calibrate import run_calibrate

    return run_calibrate(asked.file)


def _shots(asked: argparse.Namespace) -> int:
    from nematex.command.shots import run_shots

    return run_shots(asked.names)


# Each imports what it needs itself, so that the others start at once.
COMMANDS: dict[str, Callable[[argparse.Namespace], int]] = {
    "assess": _assess,
    "calibrate": _calibrate,
    "lay": _lay,
    **dict.fromkeys(("swatch", "disc"), _photo),
    **dict.fromkeys(("start", "stop", "status"), _service),
    "watch": _watch,
    "invite": _invite,
    **dict.fromkeys(("backup", "restore"), _backup),
    "doctor": _doctor,
    "work": _work,
    "test": _test,
    **dict.fromkeys(("benchmark", "bench"), _benchmark),
    "drill": _drill,
    "audit": _audit,
    "words": _words,
    "shots": _shots,
}


def main(arguments: Sequence[str]) -> int:
    parser = _parser()
    asked = parser.parse_args(arguments)
    command = COMMANDS.get(asked.command)
    if command is None:
        parser.print_help()
        return 0
    try:
        return command(asked)
    except FieldFault as fault:
        print(f"nematex: {fault}", file=sys.stderr)
        return 2
    except Exception as fault:  # of the environment, said in a sentence; a fault of the program keeps its trace
        from nematex.command.environment import sentence

        said = sentence(fault)
        if said is None:
            raise
        print(f"nematex: {said}", file=sys.stderr)
        return 1


def entry() -> None:
    """What the installed command `nematex` runs."""
    sys.exit(main(sys.argv[1:]))


if __name__ == "__main__":
    entry()
