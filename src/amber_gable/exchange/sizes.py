"""How large what a user sends may be, bytes."""

SIZE_LIMIT = 10 * 1024 * 1024
"""A weather file, a bundle, a photo."""
ZIP_LIMIT = 100 * 1024 * 1024
"""A job with its photos."""
