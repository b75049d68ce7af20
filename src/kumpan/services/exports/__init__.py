"""What one has here, out again: tables for spreadsheets, and a workspace as one file."""
