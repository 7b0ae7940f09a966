"""The core of Dunefold: the rules of composing drawing sheets from a building, and all their computation.

Pure Python and compiled kernels; no web framework, no HTTP, no files but those it is handed.
Lengths are millimetres and angles degrees unless a name says otherwise.
"""
