"""One short module for each output."""
