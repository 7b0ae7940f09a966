"""How things look on paper: pens, patterns, hatches, pen tables, lettering."""
