//go:build !linux

package behind

// slower does nothing: only on Linux has a thread a priority of its own.
func slower() {}
