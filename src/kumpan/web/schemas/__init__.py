"""What comes in over HTTP, checked strictly."""
