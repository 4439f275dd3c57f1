"""A library of colours with invented names to start from; a company adds its own (exchange/stores/palettes.py)."""

from typing import Annotated

from pydantic import Field

from amber_gable.domain.base import HexColour, Name, Record

Collection = Annotated[str, Field(min_length=1, max_length=60)]


class LibraryColour(Record):
    """A named colour as sRGB; light and solar absorptance are computed from it
    (core/specification/colour/difference.py)."""

    name: Name
    colour: HexColour
    collection: Collection


_ROWS = """
Whites and creams
Shell #efe9dc | Trim cream #f1ead9 | Chalk Lane #f4f1ea | Gull White #eeeee8 | Rice Paper #f6f1e1 | Oat #e9dcc1
Buttermilk #f0e3c0 | Pale Zinc #dcdfdc | Limewash #d9d3c6 | Sailcloth #e6e0d0 | Meringue #f3eddd | Salt #f0f0ec
Stones and taupes
Light Taupe #b5ad9c | Taupe #a39b8b | Drystone #c4bba6 | Driftwood #a89a82 | Putty Knife #cdc3ae | Mussel #8b8478
Hearthstone #7d7466 | Sandbank #d4c39d | Wet Sand #b29b74 | Flint #6f6d68 | Pebble #bdb8ab | Barley #d8c28e
Greys
Dock Grey #8b8d8c | Rain Gauge #a9aeb0 | Slate Roof #5d666b | Lead Flashing #7d848a | Fog #c9cdcc | Anvil #3c4144
Mackerel #93a0a6 | Pewter Can #84857f | Soot #2a2c2d | Lamp Black #161718 | Near Black #1b1d1f
Greens
Slate Green #53685c | Sage Porch #8d9a83 | Lichen #a9ae8f | Bottle Green #22382f | Kelp #47513a | Moss Bank #66733f
Spruce #2e4a3d | Shutter Green #2f3b37 | Celadon #b7c6b1 | Fennel #7f8f63 | Willow Bark #767a5e
Blues
Storm Blue #3d5a73 | Harbour #2f4b60 | Skiff #6f8fa6 | Heron #7b8d97 | Estuary #4c7682 | Cornflower Gate #5672a0
Ice House #c3d3d8 | Deep Water #1f3242 | Forget-me #8fa8c4 | Night Tide #232c3d
Reds and browns
Signal Red #b3261e | Barn Red #7b2d26 | Oxblood #5b2f28 | Brick Dust #9a5a44 | Cedar #8a6440 | Warm Cedar #8e683f
Walnut #5a4331 | Peat #3f342b | Terracotta #b5694a | Rowan #c43a2b | Cocoa #6b5140 | Heather #8a6f7d
Yellows and oranges
Gorse #e5b93c | Amber Gable #c97b12 | Straw #e5cf9b | Primrose #f2e08b | Mustard Seed #c79a2e | Buoy Orange #d9622b
"""


def _rows() -> tuple[LibraryColour, ...]:
    out, collection = [], ""
    for line in _ROWS.strip().splitlines():
        if "#" not in line:
            collection = line
            continue
        for entry in line.split(" | "):
            name, colour = entry.rsplit(" ", 1)
            out.append(LibraryColour(name=name, colour=colour, collection=collection))
    return tuple(out)


LIBRARY = _rows()
