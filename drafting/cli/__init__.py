"""Commands that need no server."""
