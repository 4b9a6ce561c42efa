"""Material constants of band steel (reference table: steels) and unit factors (units)."""

from typing import Final

from jade_ribbon.reference.quantities import size_of

E_MPA: Final = 206_000.0
POISSON: Final = 0.29
G_MPA: Final = E_MPA / (2.0 * (1.0 + POISSON))
RHO_KG_M3: Final = 7850.0

MM_PER_INCH: Final = size_of("length", "in")
M_PER_FT: Final = size_of("feed", "ft/min")
PSI_PER_MPA: Final = 1.0 / size_of("stress", "psi")
KGF_CM2_PER_MPA: Final = 1.0 / size_of("stress", "kgf/cm2")
N_PER_LBF: Final = size_of("force", "lbf")
