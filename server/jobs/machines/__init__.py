"""Heavy work on other machines: what it reads is sent by its content, and what it makes comes back."""
