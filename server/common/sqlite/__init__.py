"""SQLite as Django has it, which also opens where the disk cannot be written to."""
