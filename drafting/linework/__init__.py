"""From a building and a view to lines that need no eraser: edges, visibility, cut regions, joining."""
