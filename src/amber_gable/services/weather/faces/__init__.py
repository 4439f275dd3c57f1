"""Every face judged for a coat."""
