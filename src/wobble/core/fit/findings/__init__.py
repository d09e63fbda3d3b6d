"""What Fit tells, stops first."""
