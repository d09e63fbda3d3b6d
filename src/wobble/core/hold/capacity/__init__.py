"""What a screw, a bolt, a sheet and a member carry."""
