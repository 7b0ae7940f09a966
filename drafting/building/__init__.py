"""What a building is, and how it is read from open building-model files."""
