"""The five checks. Each returns its findings for n cloths; the worst finding is the check's verdict."""

from nematex.core.judging.checks.drape import check_drape
from nematex.core.judging.checks.fibre import check_fibre
from nematex.core.judging.checks.stretch import check_stretch
from nematex.core.judging.checks.weight import check_weight
from nematex.core.judging.checks.width import check_width

CHECKS = {
    "fibre": check_fibre,
    "weight": check_weight,
    "drape": check_drape,
    "stretch": check_stretch,
    "width": check_width,
}

__all__ = ["CHECKS"]
