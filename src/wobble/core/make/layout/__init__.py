"""What is still to be cut, laid out on its stock: what stays as it is, what is cut before it is carried."""
