"""What has been done to each part, what stands there now, and whether its next step may be done."""
