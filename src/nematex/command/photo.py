"""`swatch` and `disc`: a photo read from the command line, as JSON."""

from __future__ import annotations

import json
import sys
from pathlib import Path

from nematex.core.errors import FieldFault
from nematex.usecases.files.photo_file import MAX_BYTES, open_photo
from nematex.usecases.photo.interpretation import disc_json, swatch_json


def run_photo(command: str, path: str, px_per_cm: float) -> int:
    """Print what the photo tells; 2 where it cannot be read."""
    try:
        file = Path(path)
        if file.is_file() and file.stat().st_size > MAX_BYTES:
            raise FieldFault("photo", path, f"is too large; at most {MAX_BYTES // 2**20} MB are read")
        content = file.read_bytes()
    except OSError as fault:
        raise FieldFault("photo", path, f"cannot be opened: {fault.strerror}") from fault
    read = swatch_json if command == "swatch" else disc_json
    json.dump(read(open_photo(content), px_per_cm), sys.stdout, ensure_ascii=False, indent=2)
    print()
    return 0
