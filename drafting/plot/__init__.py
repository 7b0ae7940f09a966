"""Plotting: pens, the display list, composing a sheet into it, and one small writer for each output."""
