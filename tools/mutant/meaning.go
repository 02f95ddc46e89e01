package main

import (
	"go/ast"
	"go/token"
	"strings"
)

// other is a change of meaning: some text and what stands there instead.
type other struct {
	at       token.Pos
	offset   int
	old, new string
}

// meant are the changes of meaning at a node: a statement or a field of a mapping dropped, a condition that never or always holds,
// two neighbours among what is given to a call swapped. What does not compile is left out later.
func meant(node ast.Node, source []byte, offset func(token.Pos) int) (out []other) {
	text := func(n ast.Node) string { return string(source[offset(n.Pos()):offset(n.End())]) }
	put := func(from, to token.Pos, with string) {
		out = append(out, other{from, offset(from), string(source[offset(from):offset(to)]), with})
	}
	switch x := node.(type) {
	case *ast.BlockStmt:
		for _, s := range x.List {
			if droppable(s) {
				put(s.Pos(), s.End(), "")
			}
		}
	case *ast.CaseClause:
		for _, s := range x.Body {
			if droppable(s) {
				put(s.Pos(), s.End(), "")
			}
		}
	case *ast.IfStmt:
		if !plumbing(x.Cond) {
			put(x.Cond.Pos(), x.Cond.End(), "false && ("+text(x.Cond)+")")
			put(x.Cond.Pos(), x.Cond.End(), "true || ("+text(x.Cond)+")")
		}
	case *ast.CompositeLit:
		for _, e := range x.Elts {
			if kv, ok := e.(*ast.KeyValueExpr); ok {
				if _, field := kv.Key.(*ast.Ident); field {
					end := kv.End()
					if rest := source[offset(end):]; strings.HasPrefix(string(rest), ",") {
						end++
					}
					put(kv.Pos(), end, "")
				}
			}
		}
	case *ast.CallExpr:
		for i := range len(x.Args) - 1 {
			a, b := x.Args[i], x.Args[i+1]
			if named(a) && named(b) && text(a) != text(b) && text(a) != "ctx" {
				put(a.Pos(), b.End(), text(b)+", "+text(a))
			}
		}
	}
	return out
}

// droppable says that a statement does something which can be left out: a call, or a value that is set.
func droppable(s ast.Stmt) bool {
	switch x := s.(type) {
	case *ast.ExprStmt:
		_, call := x.X.(*ast.CallExpr)
		return call
	case *ast.AssignStmt:
		return x.Tok == token.ASSIGN
	}
	return false
}

// plumbing says that a condition asks only whether an error came.
func plumbing(cond ast.Expr) bool {
	b, ok := cond.(*ast.BinaryExpr)
	if !ok {
		return false
	}
	id, ok := b.Y.(*ast.Ident)
	return ok && id.Name == "nil"
}

// named says that something is a name or a part of one.
func named(x ast.Expr) bool {
	switch x := x.(type) {
	case *ast.Ident:
		return true
	case *ast.SelectorExpr:
		return named(x.X)
	}
	return false
}
