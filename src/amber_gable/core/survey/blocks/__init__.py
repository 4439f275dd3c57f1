"""A house built from a few sizes: blocks, floors, a walk along its walls."""
