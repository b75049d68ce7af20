"""What goes out by itself: mail to people, calls to other programs."""
