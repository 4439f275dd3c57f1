"""The SQLite store: tables, sessions, repositories, migrations, backup."""
