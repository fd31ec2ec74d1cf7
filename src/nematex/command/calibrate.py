"""`./nematex calibrate`: how often hands agree with the rules, and which numbers would do better; nothing is changed."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator

from nematex.command.assess import read_input
from nematex.demo.judged import judged_by_hand
from nematex.tables import trade_tables
from nematex.usecases.assess.calibration import Calibration, calibrate, read_judgements


def run_calibrate(file: str) -> int:
    """Print what was found in a file of judgements and, without one, in the made-up shop's own.

    A fault in the file is raised as FieldFault and ends with exit code 2.
    """
    tables = trade_tables()
    judged = read_judgements(read_input(file), tables) if file else judged_by_hand(tables)
    for line in told(calibrate(judged, tables)):
        print(line)
    return 0


def told(found: Calibration) -> Iterator[str]:
    """The report, a line at a time."""
    yield f"{found.as_shipped} of {found.size} judgements agree ({found.as_shipped / found.size:.1%})"
    for expected, (agreed, size) in found.agreed.items():
        yield f"  hands say {expected}: {agreed} of {size}"
    for reason, (agreed, size) in found.by_reason.items():
        yield f"  the rules say it for {reason}: {agreed} of {size}"
    yield f"opposite verdicts: {', '.join(found.opposite) or 'none'}"
    yield ""
    for number, fold in enumerate(found.folds, 1):
        chosen = ", ".join(f"{name} × {times:g}" for name, times in fold.chosen.items()) or "no change"
        tried = f"{fold.with_chosen} with what the others chose: {chosen}"
        yield f"fold {number}: {fold.as_shipped} of {fold.size} as shipped, {tried}"
    yield f"cross-validated: {found.cross_validated} of {found.size} ({found.cross_validated / found.size:.1%})"
    for name, times in found.proposed.items():
        yield f"most folds would change {name}: × {', '.join(f'{each:g}' for each in times)}"
    yield ""
    by_rule = Counter(f"{miss.check}, {miss.rule}" for miss in found.misses)
    for rule, count in by_rule.most_common():
        yield f"{count} missed by {rule}"
    for miss in found.misses:
        yield f"  {miss.id}: {miss.said}, hands say {' or '.join(miss.expect)} ({miss.check}, {miss.rule}: {miss.hangs_on})"
