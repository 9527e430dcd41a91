"""Contrast of colours (WCAG 2.2, 1.4.3 and the definition of relative luminance)."""

MIN_CONTRAST = 4.5  # for text of usual size


def luminance(colour: str) -> float:
    """Return the relative luminance of "#RRGGBB", from 0 for black to 1 for white."""
    channels = (int(colour[at : at + 2], 16) / 255 for at in (1, 3, 5))
    red, green, blue = (each / 12.92 if each <= 0.04045 else ((each + 0.055) / 1.055) ** 2.4 for each in channels)
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue


def contrast(first: str, second: str) -> float:
    """Return the contrast ratio of two colours, from 1 to 21."""
    lighter, darker = sorted((luminance(first), luminance(second)), reverse=True)
    return (lighter + 0.05) / (darker + 0.05)
