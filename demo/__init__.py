"""The demo: a bird observatory on an invented island. All people, practices, places and numbers are made
up."""
