"""The name of a musical note."""

import math

NAMES = ("C", "C♯", "D", "D♯", "E", "F", "F♯", "G", "G♯", "A", "A♯", "B")
A4_HZ = 440.0
A4_NUMBER = 69


def note_name(frequency_Hz: float) -> str:
    """Nearest note of equal temperament (A4 = 440 Hz) and how far off, in cents.

    >>> note_name(440.0)
    'A4'
    >>> note_name(92.0)
    'F♯2 −9'
    """
    exact = A4_NUMBER + 12.0 * math.log2(frequency_Hz / A4_HZ)
    number = round(exact)
    cents = round(100.0 * (exact - number))
    name = f"{NAMES[number % 12]}{number // 12 - 1}"
    if cents == 0:
        return name
    return f"{name} {'+' if cents > 0 else '−'}{abs(cents)}"
