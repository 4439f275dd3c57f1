"""Use cases of the company: set-up, stores, stock, rates."""
