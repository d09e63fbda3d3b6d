"""The site: Django around the core. `rows` turns database rows into core values and back; `edits` changes them."""
