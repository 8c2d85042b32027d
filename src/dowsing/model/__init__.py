"""What everything speaks of: documents, marked text, names, kinds of values, trouble. No input or
output but of plain files.
"""
