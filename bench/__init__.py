"""What `./run bench` measures: accuracy against two baselines, and speed, each as a figure of the same run."""
