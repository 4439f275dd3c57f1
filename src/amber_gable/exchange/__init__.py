"""Open-format readers and writers. Whatever does not parse whole is refused whole."""
