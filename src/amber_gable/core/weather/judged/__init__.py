"""Which hours a coat may be laid in: rules, slots and windows."""
