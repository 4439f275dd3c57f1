"""Coatings: data sheets, families, colours, cans."""
