"""Markdown as HTML that is safe to publish, and as plain text."""

from __future__ import annotations

import nh3
from markdown_it import MarkdownIt
from markdown_it.token import Token

TAGS = {"h1", "h2", "h3", "h4", "p", "ul", "ol", "li", "a", "em", "strong", "blockquote", "br", "hr", "code"}
_READER = MarkdownIt("commonmark", {"html": False})


def as_html(markdown: str) -> str:
    """HTML with only the tags of an article and links that lead to web addresses."""
    made = _READER.render(markdown)
    return nh3.clean(made, tags=TAGS, attributes={"a": {"href"}}, url_schemes={"http", "https", "mailto"}, link_rel="noopener")


def as_text(markdown: str) -> str:
    """Plain text: headings in a line of their own, a dash before what is listed, the address behind what is linked,
    quotation marks around what is quoted."""
    lines: list[str] = []
    depth = 0
    first = quoted = False  # of an item: its dash is still to be written; within a quotation
    for token in _READER.parse(markdown):
        if token.type in ("bullet_list_open", "ordered_list_open"):
            depth += 1
        elif token.type in ("bullet_list_close", "ordered_list_close"):
            depth -= 1
            if not depth:
                lines.append("")
        elif token.type == "list_item_open":
            first = True
        elif token.type in ("blockquote_open", "blockquote_close"):
            quoted = token.type == "blockquote_open"
        elif token.type == "inline":
            before = "  " * max(depth - 1, 0) + ("- " if first else "  ") if depth else ""
            text = _inline(token.children or [])
            lines += [before + line for line in (f"“{text}”" if quoted else text).split("\n")]
            first = False
            if not depth:
                lines.append("")
        elif token.type in ("fence", "code_block"):
            lines += [*token.content.rstrip("\n").split("\n"), ""]
    return "\n".join(lines).strip() + "\n"


def _inline(children: list[Token]) -> str:
    text, address = "", ""
    for each in children:
        if each.type in ("text", "code_inline"):
            text += each.content
        elif each.type in ("softbreak", "hardbreak"):
            text += "\n"
        elif each.type == "link_open":
            address = str(each.attrGet("href") or "")
        elif each.type == "link_close" and address:
            text += f": {address}"
            address = ""
    return text
