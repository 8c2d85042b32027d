"""The part without interface code: documents, sources, index, finding."""
