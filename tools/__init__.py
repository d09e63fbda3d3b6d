"""What `./run` uses and the product does not."""
