"""Long work beside the pages: it tells how far it is, can be stopped, and outlives the browser that asked for it."""
