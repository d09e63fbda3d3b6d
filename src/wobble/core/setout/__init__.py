"""Setting out: what is said of pieces, as rules and stacks and cells, made into where and how large everything is."""
