"""The server: models keep, services decide, api speaks. What the core can compute is not computed here."""
