"""A published schema as something that checks: made once, since making it takes longer than a judgement."""

from __future__ import annotations

from functools import cache

from jsonschema import Draft202012Validator
from pydantic import BaseModel


@cache
def validator(model: type[BaseModel]) -> Draft202012Validator:
    """The validator of a model's own JSON Schema."""
    return Draft202012Validator(model.model_json_schema())
