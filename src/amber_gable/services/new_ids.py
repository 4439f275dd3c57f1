"""Ids of jobs that are begun here."""

import re
import uuid


def new_id(name: str) -> str:
    """The beginning of its name, and what makes it the only one."""
    base = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:40].strip("-") or "job"
    return f"{base}-{uuid.uuid4().hex[:8]}"
