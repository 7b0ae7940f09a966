"""One module for each format that a building can be read from."""
