package behind

import "syscall"

// nice is how far behind others the thread goes, at most 19: of a core that both want it gets a
// seventieth, which is enough to let go of what others wait for.
const nice = 19

// slower has the system prefer all other threads to this one. Where it may not, nothing changes.
func slower() { _ = syscall.Setpriority(syscall.PRIO_PROCESS, 0, nice) }
