"""When a part may be cut, and which measure it waits for."""
