"""The API: one module a stage, thin: load the job, call the core, answer. `wire` is how values travel."""
