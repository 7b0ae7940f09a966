"""Touch-ups: what a drafter draws otherwise in a drawing, remembered by what the lines are."""
