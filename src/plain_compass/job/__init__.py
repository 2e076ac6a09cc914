"""What is kept: documents, their checks and schema, tables that ship with the program, units and words."""
