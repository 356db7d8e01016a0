package behind

import "syscall"

// nice is how far behind others the thread goes, at most 19: of a core that both want it gets a
// sixth. Farther behind, on a machine that is busy all the time, it would hold for long what others
// wait for: a place, a lock, the one who writes.
const nice = 7

// slower has the system prefer all other threads to this one. Where it may not, nothing changes.
func slower() { _ = syscall.Setpriority(syscall.PRIO_PROCESS, 0, nice) }
