"""From "what are you building?" to a complete set-out: kinds of job, the few questions of each, and what they make."""
