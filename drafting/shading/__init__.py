"""From building and view to pixels: what is nearest, the light on it, and its colour."""
