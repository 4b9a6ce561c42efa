"""The most memory a process has held, as the kernel counts it for this program alone."""

from pathlib import Path


def peak_kb() -> int:
    """The most this program has held resident, in kB.

    Not getrusage's figure: that one is inherited across exec from whoever started the process.
    """
    for line in Path("/proc/self/status").read_text(encoding="ascii").splitlines():
        if line.startswith("VmHWM:"):
            return int(line.split()[1])
    msg = "this kernel does not tell the peak of its processes"
    raise RuntimeError(msg)
