"""What is told of a place as it is set out, before and after anything is measured."""
