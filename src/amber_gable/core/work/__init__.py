"""The itemised work of a job: each operation on each part with its amount, rate, factors, hours and litres."""
