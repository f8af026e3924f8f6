"""Dense complex solves by LAPACK, as a yardstick for the planned solver: 26 unknowns, 400 matrices
at once, on one core. Prints microseconds a solve. Needs numpy (Debian's python3-numpy will do)."""

import os
import time

for name in ("OMP_NUM_THREADS", "OPENBLAS_NUM_THREADS"):
    os.environ[name] = "1"

import numpy as np  # noqa: E402  (the number of threads is read when it is imported)

UNKNOWNS, MATRICES, RUNS = 26, 400, 15
random = np.random.default_rng(1)
matrices = random.normal(size=(MATRICES, UNKNOWNS, UNKNOWNS)) * (1 + 1j)
matrices += UNKNOWNS * np.eye(UNKNOWNS)
right = random.normal(size=(MATRICES, UNKNOWNS, 1)) * (1 + 0j)

times = []
for _ in range(RUNS):
    start = time.perf_counter()
    np.linalg.solve(matrices, right)
    times.append((time.perf_counter() - start) / MATRICES * 1e6)
print(f"{sorted(times)[RUNS // 2]:.3g}")
