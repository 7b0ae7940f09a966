"""Sheets: paper, exact scales, frames and title blocks, and viewports through which views are seen."""
