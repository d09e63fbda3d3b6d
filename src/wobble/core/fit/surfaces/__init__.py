"""The side walls and the ceiling as draws, with what stands proud of them."""
