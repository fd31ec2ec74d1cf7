"""The links and forms of a page, as a browser would send them."""

from __future__ import annotations

from dataclasses import dataclass, field
from html.parser import HTMLParser

SKIPPED = ("csrf_token",)


@dataclass
class Form:
    """Where a form goes, how, and its fields with the values they hold."""

    action: str
    method: str
    fields: list[tuple[str, str]] = field(default_factory=list)
    files: list[str] = field(default_factory=list)


class Reader(HTMLParser):
    """Collects links and forms."""

    def __init__(self, address: str) -> None:
        super().__init__()
        self.address, self.links, self.forms = address, list[str](), list[Form]()
        self._form: Form | None = None
        self._area = ""

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        given = {name: value or "" for name, value in attrs}
        if tag == "a" and given.get("href", "").startswith("/"):
            self.links.append(given["href"])
        elif tag == "form":
            self._form = Form(given.get("action") or self.address, given.get("method", "get").lower())
            self.forms.append(self._form)
        elif self._form and tag in ("input", "button", "select", "textarea") and given.get("name"):
            self._take(tag, given)
        elif self._form and tag == "option" and self._form.fields and "selected" in given:
            name, _ = self._form.fields[-1]
            self._form.fields[-1] = (name, given.get("value", ""))

    def _take(self, tag: str, given: dict[str, str]) -> None:
        assert self._form is not None
        if given["name"] in SKIPPED:
            return
        if given.get("type") == "file":
            self._form.files.append(given["name"])
        else:
            self._form.fields.append((given["name"], given.get("value", "")))
        self._area = given["name"] if tag == "textarea" else ""

    def handle_data(self, data: str) -> None:
        if self._area and self._form:
            self._form.fields[-1] = (self._area, data)

    def handle_endtag(self, tag: str) -> None:
        if tag == "form":
            self._form = None
        if tag == "textarea":
            self._area = ""


def read_page(address: str, html: str) -> Reader:
    found = Reader(address)
    found.feed(html)
    return found
