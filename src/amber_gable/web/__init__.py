"""The server-rendered interface."""
