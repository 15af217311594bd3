"""The interval that holds the median of a row of measurements in 95 of 100 cases."""
import math


def interval(values):
    """The order statistics between which the median lies in at least 95 of 100 cases: the largest rank whose binomial
    tail (each value is above the median with 1/2) is at most 2.5 %. It asks nothing of how the values are spread
    (W. J. Conover, Practical Nonparametric Statistics, 3.2). Raises ValueError below 6 values."""
    values = sorted(values)
    n, rank, tail = len(values), 0, 0.0
    while tail + math.comb(n, rank) / 2**n <= 0.025:
        tail += math.comb(n, rank) / 2**n
        rank += 1
    if rank == 0:
        raise ValueError(f"{n} rounds are too few for an interval: take at least 6")
    return values[rank - 1], values[n - rank]
