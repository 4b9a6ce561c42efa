"""Material constants of band steel (reference table: steels) and unit factors."""

from typing import Final

E_MPA: Final = 206_000.0
POISSON: Final = 0.29
G_MPA: Final = E_MPA / (2.0 * (1.0 + POISSON))
RHO_KG_M3: Final = 7850.0

MM_PER_INCH: Final = 25.4
M_PER_FT: Final = 0.3048
PSI_PER_MPA: Final = 145.03773773
KGF_CM2_PER_MPA: Final = 1.0 / 0.0980665
N_PER_LBF: Final = 4.4482216152605
