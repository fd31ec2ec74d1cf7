"""Entry of `./nematex`."""

from __future__ import annotations

import argparse
import sys
from collections.abc import Callable, Sequence

from nematex.core.errors import FieldFault

EPILOG = "`start` runs the shop on 127.0.0.1; DATABASE_URL points it at another MariaDB."


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="./nematex", description="Which cloth suits which pattern, and why.", epilog=EPILOG)
    commands = parser.add_subparsers(dest="command", metavar="COMMAND")
    start = commands.add_parser("start", help="start the database and the shop, and print its address")
    start.add_argument("--port", type=int, help="port on 127.0.0.1 (default: 8765, or the next free one)")
    start.add_argument("--no-demo", action="store_true", help="do not load the made-up shop on the first run")
    commands.add_parser("stop", help="stop both")
    commands.add_parser("status", help="say what is running")
    from nematex.command.assess import SCHEMAS

    assess = commands.add_parser("assess", help="judge pairings given as JSON; no database needed")
    assess.add_argument("file", nargs="?", default="-", help="a JSON file, or - for standard input")
    assess.add_argument("--schema", choices=SCHEMAS, help="print the JSON Schema of an input, or of the output")
    lay = commands.add_parser("lay", help="lay pattern pieces, given as JSON, on a width of cloth; no database needed")
    lay.add_argument("file", nargs="?", default="-", help="a JSON file, or - for standard input")
    lay.add_argument("--schema", choices=("input", "output"), help="print the JSON Schema of the input or of the output")
    for name, what in (("swatch", "read a photo of flat cloth"), ("disc", "read a photo of a draped 30 cm disc, from above")):
        photo = commands.add_parser(name, help=f"{what}; prints JSON, no database needed")
        photo.add_argument("photo", help="a JPEG, PNG or WebP file; the picture's vertical is the cloth's length")
        photo.add_argument("--px-per-cm", type=float, required=True, help="pixels per cm in the photo as it is")
    test = commands.add_parser("test", help="run every check")
    test.add_argument("pytest", nargs=argparse.REMAINDER, help="passed on to pytest")
    measure = commands.add_parser("benchmark", aliases=["bench"], help="measure speed and size with 10,000 cloths")
    measure.add_argument("--cloths", type=int, default=10_000)
    measure.add_argument(
        "--load", action="store_true", help="put a mixed load on the running shop instead; it writes picks and notes into it"
    )
    shots = commands.add_parser("shots", help="take the pictures of docs/screenshots from the running shop")
    shots.add_argument("names", nargs="*")
    serve = commands.add_parser("serve")
    serve.add_argument("--port", type=int, required=True)
    commands.add_parser("work")
    commands.add_parser("consume").add_argument("lane")
    commands.add_parser("poll")
    commands.add_parser("till").add_argument("--port", type=int, required=True)
    commands.add_parser("words", help="print the glossary of docs/words.md")
    commands.add_parser("help", help="show this")
    return parser


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
    from nematex.command import service

    return service.run(asked)


def _worker(asked: argparse.Namespace) -> int:
    from nematex.command import worker
    from nematex.command.service import home

    return worker.work(home()) if asked.command == "work" else worker.consume(home(), asked.lane)


def _poll(_asked: argparse.Namespace) -> int:
    from nematex.command.poller import poll_for_ever

    return poll_for_ever()


def _till(asked: argparse.Namespace) -> int:
    from nematex.command.service import home
    from nematex.command.till import serve_till

    return serve_till(home(), asked.port)


def _test(asked: argparse.Namespace) -> int:
    from nematex.command.check import run_checks

    return run_checks(asked.pytest)


def _benchmark(asked: argparse.Namespace) -> int:
    from nematex.command.benchmark.run import run_benchmark, run_load

    return run_load() if asked.load else run_benchmark(asked.cloths)


def _words(_asked: argparse.Namespace) -> int:
    from nematex.command.words import words

    print(words(), end="")
    return 0


def _shots(asked: argparse.Namespace) -> int:
    from nematex.command.shots import run_shots

    return run_shots(asked.names)


# Each imports what it needs itself, so that the others start at once.
COMMANDS: dict[str, Callable[[argparse.Namespace], int]] = {
    "assess": _assess,
    "lay": _lay,
    **dict.fromkeys(("swatch", "disc"), _photo),
    **dict.fromkeys(("start", "stop", "status", "serve"), _service),
    **dict.fromkeys(("work", "consume"), _worker),
    "poll": _poll,
    "till": _till,
    "test": _test,
    **dict.fromkeys(("benchmark", "bench"), _benchmark),
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


def entry() -> None:
    """What the installed command `nematex` runs."""
    sys.exit(main(sys.argv[1:]))


if __name__ == "__main__":
    entry()
