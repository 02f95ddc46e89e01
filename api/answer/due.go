package answer

import (
	"patientladder/api/contract"
	"patientladder/core/planning/inweek"
	"patientladder/core/planning/signs"
	"patientladder/core/wording"
)

// Signs are signs in words.
func Signs(n wording.Names, list []signs.Sign) []contract.Sign {
	out := []contract.Sign{}
	for _, s := range list {
		out = append(out, contract.Sign{Kind: contract.SignKind(s.Kind), Material: s.Material, Text: n.Due(s)})
	}
	return out
}

// Review says how learned pieces are kept.
func Review(r inweek.ReviewState) contract.ReviewState {
	return contract.ReviewState{
		Share: Thousandths(r.Share), Aim: r.Aim, Pieces: r.Pieces, Fading: r.Fading, Starved: r.Starved, Words: wording.Review(r),
	}
}
