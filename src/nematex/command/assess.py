"""`./nematex assess`: JSON in, JSON out."""

from __future__ import annotations

import json
import sys
from pathlib import Path

from pydantic import BaseModel

from nematex.core.errors import FieldFault
from nematex.usecases.assess.pairing import assess_text
from nematex.usecases.assess.schema import EnvelopeIn, MatrixIn, PairingIn, PairingOut

SCHEMAS: dict[str, type[BaseModel]] = {"input": PairingIn, "output": PairingOut, "matrix": MatrixIn, "envelope": EnvelopeIn}


def run_assess(file: str, schema: str | None) -> int:
    """Print the answers; a fault in the input is raised as FieldFault and ends with exit code 2."""
    if schema:
        print(json.dumps(SCHEMAS[schema].model_json_schema(), indent=2))
        return 0
    print(assess_text(read_input(file)))
    return 0


def read_input(file: str) -> str:
    """The text of a file, or of standard input; raises FieldFault."""
    try:
        return sys.stdin.buffer.read().decode("utf-8-sig") if file == "-" else Path(file).read_text(encoding="utf-8-sig")
    except OSError as fault:
        raise FieldFault("file", file, f"cannot be read: {fault.strerror}") from None
    except UnicodeDecodeError:
        raise FieldFault("file", file, "is not UTF-8 text") from None
