"""Benchmarks: ratios within one run on one machine, from medians of interleaved rounds. `./run bench [NAME]`."""
