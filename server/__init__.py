"""The server: models store, services decide, viewsets answer. What the core can compute stays there."""
