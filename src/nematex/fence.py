"""Foreign bytes are read by foreign libraries in a process of their own, that can be ended.

It has so many seconds of processor and so much memory; whatever it does, one sentence comes back. What it finds comes back as
JSON, never as objects: a library that was taken over says nothing that is believed unread.
"""

from __future__ import annotations

import json
import os
import resource
import subprocess
import sys
from importlib import import_module
from typing import Any

from nematex.core.errors import FieldFault

CPU_S, WALL_S = 4, 90.0  # a busy machine gives it a small part of a processor
MEMORY_BYTES = 768 * 2**20
LONGEST_SENTENCE = 400
TOO_MUCH = "takes too long or too much memory to read; save it with fewer points, curves or pieces"
FAULT, FOUND = "fault", "found"


def fenced(reader: str, content: bytes, *more: str) -> Any:
    """What `reader`, a function of bytes and words as "module:name" that gives plain values, makes of it; raises FieldFault."""
    command = [sys.executable, "-m", "nematex.fence", reader, *more]
    try:
        done = subprocess.run(
            command, input=content, capture_output=True, timeout=WALL_S, check=False, env={**os.environ, **_paths()}
        )
        told = json.loads(done.stdout)
    except (subprocess.TimeoutExpired, ValueError):
        raise FieldFault("file", f"{len(content)} bytes", TOO_MUCH) from None
    return _taken(told)


def unfenced(reader: str, content: bytes, *more: str) -> Any:
    """The same in this very process, for what need not be feared: every fault is a sentence, and time has no end."""
    return _taken(json.loads(json.dumps(_answer(reader, content, list(more)), allow_nan=False)))


def _taken(told: dict[str, Any]) -> Any:
    if FAULT in told:
        raise FieldFault(*told[FAULT])
    return told[FOUND]


def _paths() -> dict[str, str]:
    """Where this program lies, also where it was not installed."""
    return {"PYTHONPATH": os.pathsep.join(each for each in sys.path if each), "OPENBLAS_NUM_THREADS": "1"}


def _answer(reader: str, content: bytes, more: list[str]) -> dict[str, Any]:
    module, _, name = reader.partition(":")
    read = getattr(import_module(module), name)
    try:
        found = read(content, *more)
        json.dumps(found, allow_nan=False)
        return {FOUND: found}
    except FieldFault as fault:
        return {FAULT: [fault.field, str(fault.value)[:80], fault.rule[:LONGEST_SENTENCE]]}
    except MemoryError:
        return {FAULT: ["file", f"{len(content)} bytes", TOO_MUCH]}
    except Exception as fault:  # whatever a library makes of bytes that it did not expect
        said = f"cannot be read ({type(fault).__name__.lower()}: {str(fault)[:80]}); save it anew from the program that drew it"
        return {FAULT: ["file", f"{len(content)} bytes", said]}


def main() -> None:
    """In the process of its own: the bytes come in, one line of JSON goes out."""
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_BYTES, MEMORY_BYTES))
    resource.setrlimit(resource.RLIMIT_FSIZE, (0, 0))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    import_module(sys.argv[1].partition(":")[0])
    spent = round(sum(resource.getrusage(resource.RUSAGE_SELF)[:2]))  # by imports, which are no matter of the file
    resource.setrlimit(resource.RLIMIT_CPU, (spent + CPU_S, spent + CPU_S))
    sys.stdout.write(json.dumps(_answer(sys.argv[1], sys.stdin.buffer.read(), sys.argv[2:]), allow_nan=False))


if __name__ == "__main__":
    main()
