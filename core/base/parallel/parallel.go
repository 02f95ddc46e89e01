// Package parallel does the same for many students at once.
package parallel

import (
	"runtime"
	"sync"
	"sync/atomic"
)

// Each calls do for 0 to n−1, as many at once as there are processors, and returns when all are
// done. What do writes for different numbers must not touch. A panic in do is raised again
// here, so that it is met where it would have been one after the other.
func Each(n int, do func(i int)) {
	workers := min(n, runtime.GOMAXPROCS(0))
	if workers < 2 {
		for i := range n {
			do(i)
		}
		return
	}
	var next atomic.Int64
	var wait sync.WaitGroup
	var fell atomic.Pointer[any]
	for range workers {
		wait.Add(1)
		go func() {
			defer wait.Done()
			defer func() {
				if v := recover(); v != nil {
					fell.CompareAndSwap(nil, &v)
				}
			}()
			for i := int(next.Add(1)) - 1; i < n && fell.Load() == nil; i = int(next.Add(1)) - 1 {
				do(i)
			}
		}()
	}
	wait.Wait()
	if v := fell.Load(); v != nil {
		panic(*v)
	}
}
