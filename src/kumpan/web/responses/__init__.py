"""What goes out over HTTP: models of their own, so that a rename inside changes no answer."""
