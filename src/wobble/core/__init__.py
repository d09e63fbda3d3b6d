"""The job's rules and computation: values in, values out.

No Django, no input or output, no clock, and no randomness without a seed passed in. Lengths are millimetres,
angles degrees and masses kilograms throughout; a number in another unit wears it in its name.
Lower modules never import later stages: errors, length, job, gauge, fit, practice, solve, formats.
"""
