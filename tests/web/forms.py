"""Reading a form off a page as a browser would send it."""

import html
import re
from html.parser import HTMLParser


class _Forms(HTMLParser):
    """Fields of every form by its action: inputs, the chosen options, the texts."""

    def __init__(self) -> None:
        super().__init__()
        self.forms: dict[str, dict[str, str]] = {}
        self._fields: dict[str, str] = {}
        self._select = self._area = ""

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        a = {k: v or "" for k, v in attrs}
        name = a.get("name", "")
        if tag == "form":
            self._fields = self.forms.setdefault(a.get("action", ""), {})
        elif tag == "input" and name:
            ticked = "checked" in a
            if a.get("type") not in ("checkbox", "radio"):
                self._fields[name] = a.get("value", "")
            elif ticked:
                self._fields[name] = a.get("value", "on")
        elif tag == "select":
            self._select = name
        elif tag == "option" and self._select and ("selected" in a or self._select not in self._fields):
            self._fields[self._select] = a.get("value", "")
        elif tag == "textarea":
            self._area = name
            self._fields[name] = ""

    def handle_data(self, data: str) -> None:
        if self._area:
            self._fields[self._area] += data

    def handle_endtag(self, tag: str) -> None:
        if tag == "select":
            self._select = ""
        elif tag == "textarea":
            self._area = ""


def form_of(page: str, action: str) -> dict[str, str]:
    """The fields of the form that posts to `action`."""
    reader = _Forms()
    # A page may be long, and the form small.
    for form in re.findall(rf'<form\b[^>]*\baction="{re.escape(html.escape(action))}".*?</form>', page, re.DOTALL):
        reader.feed(form)
    return dict(reader.forms[action])


def said_on(page: str) -> str:
    """The words of a page, without its marks."""
    return html.unescape(re.sub(r"\s+", " ", re.sub(r"<[^>]+>", " ", page)))
