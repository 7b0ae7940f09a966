"""Drawings from others: DXF, SVG and PDF files as linework, at true scale."""
