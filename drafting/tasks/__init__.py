"""Heavy work as whole steps from file to file, for whoever runs it in a process of its own."""
