"""Reviews: what others say of sheets, where it lies on them, and the open formats in which it travels."""
