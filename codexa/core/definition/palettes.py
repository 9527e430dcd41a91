"""Palettes that are ready-made, each of our own: what is read on what is proven by `weak_contrasts`."""

# By name: the colours of a brand (`brand.py`).
PALETTES: dict[str, dict[str, str]] = {
    "Harbour": {
        "accent": "#1D4E6B", "banner": "#16384E", "ground": "#E9EFF3", "paper": "#FFFFFF", "ink": "#14222C",
    },
    "Verdigris": {
        "accent": "#0F6B6B", "banner": "#0B4A4A", "ground": "#EAF2F1", "paper": "#FFFFFF", "ink": "#14211F",
    },
    "Moss": {
        "accent": "#3F6B2F", "banner": "#2C4D20", "ground": "#EEF2E8", "paper": "#FFFFFF", "ink": "#1B2417",
    },
    "Amber": {
        "accent": "#8A5D00", "banner": "#5E3F00", "ground": "#F7F1E3", "paper": "#FFFEFA", "ink": "#2A2110",
    },
    "Rubric": {
        "accent": "#9A3324", "banner": "#7A2618", "ground": "#F4ECE6", "paper": "#FFFDFA", "ink": "#2B1B17",
    },
    "Clay": {
        "accent": "#9C4A2F", "banner": "#6E3320", "ground": "#F6EEE9", "paper": "#FFFFFF", "ink": "#2A1D17",
    },
    "Rosehip": {
        "accent": "#A62B5B", "banner": "#7A1C42", "ground": "#F8EDF1", "paper": "#FFFFFF", "ink": "#2B1720",
    },
    "Plum": {
        "accent": "#7A3E8E", "banner": "#542A63", "ground": "#F3EEF5", "paper": "#FFFFFF", "ink": "#251A2A",
    },
    "Slate": {
        "accent": "#44546A", "banner": "#2C3747", "ground": "#EDF0F3", "paper": "#FFFFFF", "ink": "#1B222B",
    },
    "Chalk": {
        "accent": "#1F1F1F", "banner": "#1F1F1F", "ground": "#F4F4F4", "paper": "#FFFFFF", "ink": "#1A1A1A",
    },
    "Dark of the Moon": {
        "accent": "#8FB4FF", "banner": "#0E1630", "ground": "#070B18", "paper": "#121A33", "ink": "#EEF2FF",
    },
    "Night forest": {
        "accent": "#8FD3A8", "banner": "#0F2A1C", "ground": "#0A1610", "paper": "#13231A", "ink": "#EAF5EE",
    },
}  # fmt: skip
