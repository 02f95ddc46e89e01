package open

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"hash"
	"strconv"

	lru "github.com/hashicorp/golang-lru/v2"

	"patientladder/store"
)

// kind says what is kept.
type kind string

// The kinds of what is kept.
const (
	keptLibrary  kind = "library"
	keptScore    kind = "score"
	keptModel    kind = "model"
	keptStanding kind = "standing"
	keptLog      kind = "log"
	keptOutlook  kind = "outlook"
	keptPolicy   kind = "policy"
	keptBrief    kind = "brief"
	keptObserved kind = "observed"
)

// Key is under which something is kept, in memory or in a table: of a studio, of a kind, from inputs. It is made by
// keyOf alone, so that none is without a studio; ids of ladders and materials are unique only within one.
type Key struct {
	studio string
	kind   kind
	from   string
}

// keyOf is the key of what a studio has of a kind, made from inputs: everything that it came from. The same inputs have
// the same key, others another one. It panics without a studio, which only a mistake of ours can bring.
func keyOf(studio string, of kind, inputs ...any) Key {
	if studio == "" {
		panic("open: what is kept has no studio")
	}
	return Key{studio, of, digest(inputs...)}
}

// String is the key as it stands beside what is kept in a table.
func (k Key) String() string { return digest(k.studio, k.kind, k.from) }

// digest names some values: the same values have the same digest, and where one ends and the next begins counts.
func digest(of ...any) string {
	sum := sha256.New()
	for _, x := range of {
		part(sum, fmt.Sprint(x))
	}
	return hex.EncodeToString(sum.Sum(nil))
}

func part(sum hash.Hash, text string) {
	sum.Write(strconv.AppendInt(nil, int64(len(text)), 10))
	sum.Write([]byte{':'})
	sum.Write([]byte(text))
}

// shelf keeps so many of one kind in memory, the ones used last.
type shelf[T any] struct{ *lru.Cache[Key, T] }

// Add keeps a value, but not within a transaction: what it was computed from may never be kept.
func (s shelf[T]) Add(ctx context.Context, k Key, value T) {
	if !store.Within(ctx) {
		s.Cache.Add(k, value)
	}
}

func newShelf[T any](size int) (shelf[T], error) {
	c, err := lru.New[Key, T](size)
	return shelf[T]{c}, err
}
