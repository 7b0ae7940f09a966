"""From a sheet to its display list, and from there to every output through one back-end interface."""
