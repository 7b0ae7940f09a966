"""Plot settings, devices, and the page that they make of a sheet."""
