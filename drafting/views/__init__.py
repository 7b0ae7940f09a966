"""Looks at a building: what kinds there are, and where each one's eye stands and cuts."""
